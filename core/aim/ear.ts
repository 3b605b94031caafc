/** What is heard of a reading by one who cannot look: pitch for how good, pulses for whether it rises. */
import type { Sweep } from '../job/schema'

type Quantity = Sweep['quantity']

/** Worst and best that the ear is given, by quantity; speeds by their logarithm. @source the trade's grades, a step beyond them */
const SPAN: Record<Quantity, [low: number, high: number]> = {
  SINR: [-5, 25],
  RSRP: [-120, -70],
  RSRQ: [-20, -5],
  down: [0.1, 100],
  up: [0.05, 50],
  lamps: [0, 5],
}

/** @returns how good a value is to the ear, 0…1 */
export function earShare(quantity: Quantity, value: number): number {
  const [low, high] = SPAN[quantity]
  const speed = quantity === 'down' || quantity === 'up'
  const share = speed ? Math.log(Math.max(value, low) / low) / Math.log(high / low) : (value - low) / (high - low)
  return Math.min(1, Math.max(0, share))
}

const LOWEST_HZ = 220
const OCTAVES = 2.5

/** @returns pitch of a share, Hz: each step of the scale is as far to the ear as the next */
export const pitchHz = (share: number): number => LOWEST_HZ * 2 ** (Math.min(1, Math.max(0, share)) * OCTAVES)

const SLOWEST_HZ = 1.5
const FASTEST_HZ = 9

/**
 * @param trend  change of the share over the last seconds, −1…1
 * @returns pulses a second: quick while it rises, slow while it falls
 */
export const pulseHz = (trend: number): number =>
  SLOWEST_HZ * (FASTEST_HZ / SLOWEST_HZ) ** ((Math.min(1, Math.max(-1, trend * 4)) + 1) / 2)
