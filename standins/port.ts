/** What lies behind a bridge: a modem's port, real or simulated. Text goes in and comes out, torn anywhere. */
export interface Port {
  /** as the person who pairs is told */
  name: string
  /** a simulated one is told which way the antenna stands; a real antenna is turned by hand */
  kind: 'modem' | 'stand-in'
  write: (text: string) => void
  onText: (take: (text: string) => void) => void
  onGone: (take: (why: string) => void) => void
  /** of a stand-in alone */
  turn?: (stance: Turned) => void
  close: () => void
}

/** How the antenna of a stand-in stands. */
export interface Turned {
  headingDeg: number
  gainDbi: number
  beamwidthDeg: number
  frontToBackDb: number
}
