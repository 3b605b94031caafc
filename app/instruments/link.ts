/** A way to a modem: its text in and out, torn anywhere. Screens do not know which one answers. */
export interface Link {
  /** as it is told to the person */
  name: string
  kind: 'modem' | 'stand-in' | 'recording'
  write: (text: string) => void
  onText: (take: (text: string) => void) => void
  onGone: (take: (why: string) => void) => void
  /** of a stand-in alone: it is told how its antenna stands */
  turn?: (stance: Stance) => void
  close: () => void
}

export interface Stance {
  headingDeg: number
  gainDbi: number
  beamwidthDeg: number
  frontToBackDb: number
}
