/** Power over Ethernet: what a class promises, what arrives over a length, and what must never be mixed. */
import { inRange, positive } from '../check'

export interface PoeClass {
  poeClass: number
  /** at the source and promised at the device, W */
  sourceW: number
  deviceW: number
  /** least voltage of the source, and resistance of the whole 100 m channel as its pairs are used, Ω */
  sourceV: number
  channelOhm: number
  /** pairs that carry power */
  pairs: 2 | 4
}

const poe = (
  poeClass: number,
  { sourceW, deviceW, sourceV, channelOhm }: { sourceW: number; deviceW: number; sourceV: number; channelOhm: number },
): PoeClass => ({
  poeClass,
  sourceW,
  deviceW,
  sourceV,
  channelOhm,
  pairs: poeClass >= 5 ? 4 : 2,
})

/** @source IEEE 802.3-2022 tables 145-11, 145-26 and clause 33: classes 1 to 8 */
export const POE_CLASSES: readonly PoeClass[] = [
  poe(1, { sourceW: 4, deviceW: 3.84, sourceV: 44, channelOhm: 20 }),
  poe(2, { sourceW: 7, deviceW: 6.49, sourceV: 44, channelOhm: 20 }),
  poe(3, { sourceW: 15.4, deviceW: 12.95, sourceV: 44, channelOhm: 20 }),
  poe(4, { sourceW: 30, deviceW: 25.5, sourceV: 50, channelOhm: 12.5 }),
  poe(5, { sourceW: 45, deviceW: 40, sourceV: 50, channelOhm: 6.25 }),
  poe(6, { sourceW: 60, deviceW: 51, sourceV: 50, channelOhm: 6.25 }),
  poe(7, { sourceW: 75, deviceW: 62, sourceV: 52, channelOhm: 6.25 }),
  poe(8, { sourceW: 90, deviceW: 71.3, sourceV: 52, channelOhm: 6.25 }),
]

/** @source ISO/IEC 11801-1: 90 m laid and 10 m of cords */
export const CHANNEL_M = 100

/** @returns what is left of a class's power after so many metres, W; at 100 m what the standard promises, within rounding */
export function poeArrives(c: PoeClass, lengthM: number): number {
  inRange('lengthM', lengthM, 0, CHANNEL_M)
  const ohm = (c.channelOhm * lengthM) / CHANNEL_M
  return c.sourceW - (c.sourceW / c.sourceV) ** 2 * ohm
}

/** The smallest class whose promise at 100 m covers a device. @returns null where none does */
export const poeClassFor = (deviceW: number): PoeClass | null =>
  POE_CLASSES.find(c => c.deviceW >= positive('deviceW', deviceW)) ?? null

/**
 * Loop resistance of two pairs of a data cable, both wires of each in parallel, Ω a hundred metres.
 * @source 24 AWG, 93.8 Ω/km of wire, two in parallel out and two back
 */
const PASSIVE_OHM_100M = 9.38

/**
 * Passive feed over the two spare pairs, no handshake: what voltage a box finds.
 * @returns null where no voltage satisfies it
 */
export function passiveArrives(sourceV: number, deviceW: number, lengthM: number): number | null {
  const ohm = (PASSIVE_OHM_100M * inRange('lengthM', lengthM, 0, CHANNEL_M)) / 100
  const root = positive('sourceV', sourceV) ** 2 - 4 * positive('deviceW', deviceW) * ohm
  return root < 0 ? null : (sourceV + Math.sqrt(root)) / 2
}
/** Most that arrives at all by a passive feed, W. @source V²/(4R) */
export const passiveMostW = (sourceV: number, lengthM: number): number =>
  sourceV ** 2 / (4 * ((PASSIVE_OHM_100M * lengthM) / 100))

export type PoeKind = 'standard' | 'passive'
/** @returns what is wrong with a source and a device that are joined; null where nothing is */
export function poeClash(
  source: { kind: PoeKind; volts: number },
  device: { kind: PoeKind; volts: number | null },
): string | null {
  if (source.kind === 'passive' && device.kind === 'standard')
    return `a passive injector puts ${source.volts} V on the wires without asking: it can destroy a device that waits to be asked`
  if (source.kind === 'standard' && device.kind === 'passive')
    return 'a standard source asks first and gets no answer from a passive device: it stays dark'
  if (source.kind === 'passive' && device.volts !== null && Math.abs(source.volts - device.volts) > 1)
    return `the injector gives ${source.volts} V, the device wants ${device.volts} V`
  return null
}
