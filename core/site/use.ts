/** What a room is used as: how its ordinary walls stand, the level it is designed for, the floor that one antenna serves. */
import type { Job, Spot, Use } from '../job/schema'
import { NEED_CALLS_DBM } from '../radio/grades'

export interface UseFigures {
  words: string
  /** RSRP that a phone there is designed to show, dBm */
  designDbm: number
  /** floor that one ceiling antenna serves among its ordinary walls, m² */
  areaM2: number
  /** distance power loss coefficient with its ordinary walls in it, at 900 and from 1800 MHz */
  exponent: readonly [at900: number, from1800: number]
}

/**
 * @source design levels and areas common practice (no source): offices −85 dBm, stores −95, one antenna for 110–140 m²,
 *   the closer the higher the level; coefficients ITU-R P.1238 table 2, from memory: residential 28, office 33 and 30,
 *   commercial 20 and 22, open without walls 20; the residential one has no entry at 900 MHz, 28 is taken there too
 */
export const USE_FIGURES: Record<Use, UseFigures> = {
  home: { words: 'living rooms', designDbm: -100, areaM2: 130, exponent: [28, 28] },
  office: { words: 'offices', designDbm: -85, areaM2: 110, exponent: [33, 30] },
  shop: { words: 'shop floor', designDbm: -90, areaM2: 125, exponent: [20, 22] },
  store: { words: 'stores', designDbm: -95, areaM2: 140, exponent: [20, 22] },
  ward: { words: 'wards and treatment rooms', designDbm: -85, areaM2: 110, exponent: [33, 30] },
  hall: { words: 'open hall', designDbm: -95, areaM2: 140, exponent: [20, 20] },
}

/** @returns what a site's rooms are used as where nobody said */
export const usualUse = (kind: Job['kind']): Use => (kind === 'building' ? 'office' : 'home')
const useOf = (spot: Pick<Spot, 'use'>, kind: Job['kind']): Use => spot.use ?? usualUse(kind)

/** RSRP that a room needs for calls, dBm. */
export const needForCallsDbm = (job: Pick<Job, 'needCallsDbm'>): number => job.needCallsDbm ?? NEED_CALLS_DBM

type Needs = Pick<Job, 'kind' | 'agreedDownMbps' | 'agreedCalls' | 'needDataDbm' | 'needCallsDbm'>

/** @returns RSRP that rooms of a use need, dBm: for calls where nothing else was agreed, else as the job says, else as designed for */
export const needOfUseDbm = (job: Needs, use: Use): number =>
  job.agreedDownMbps === null && job.agreedCalls ? needForCallsDbm(job) : (job.needDataDbm ?? USE_FIGURES[use].designDbm)

/** @returns RSRP that a phone in a room needs, dBm: its own figure stands over everything */
export const needAtDbm = (job: Needs, spot: Pick<Spot, 'use' | 'needDbm'>): number =>
  spot.needDbm ?? needOfUseDbm(job, useOf(spot, job.kind))

/** @returns the distance power loss coefficient of a use at a frequency, in a straight line between the two that are known */
export function exponentOf(use: Use, frequencyMHz: number): number {
  const [low, high] = USE_FIGURES[use].exponent
  return low + (high - low) * Math.min(1, Math.max(0, (frequencyMHz - 900) / 900))
}

/**
 * Floor that one ceiling antenna serves where another level than the usual one of its use is asked for: by the power of
 * distance that the use's coefficient stands for, from 1800 MHz.
 *
 * @returns m²; as usual where no level is said
 * @source distance power loss of ITU-R P.1238; the usual area is common practice (no source)
 */
export function areaAtLevelM2(use: Use, needDbm: number | null): number {
  const { areaM2, designDbm, exponent } = USE_FIGURES[use]
  return needDbm === null ? areaM2 : areaM2 * 10 ** ((2 * (designDbm - needDbm)) / exponent[1])
}
