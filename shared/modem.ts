/** What a modem is listened to through, in a page and in a bridge alike. */
import type { WorldAntenna } from '../core/world'

/** A modem's port, real, simulated or recorded. Text goes in and comes out, torn anywhere; screens do not know which answers. */
export interface ModemPort {
  /** as it is told to the person */
  name: string
  kind: 'modem' | 'stand-in' | 'recording'
  write: (text: string) => void
  onText: (take: (text: string) => void) => void
  onGone: (take: (why: string) => void) => void
  /** how the antenna stands: a stand-in is turned by it, whoever looks on is told; of one that only looks on left out */
  turn?: (turned: TurnedAntenna) => void
  /** another page has the port: this one hears what that one asks, and where its antenna stands */
  looksOn?: boolean
  onTurned?: (take: (headingDeg: number) => void) => void
  close: () => void
}

/** An antenna of a stand-in, and the way it looks. */
export type TurnedAntenna = WorldAntenna & { headingDeg: number; tiltDeg?: number }
