/**
 * Cellular bands, and channel numbers to frequencies.
 *
 * @source LTE: 3GPP TS 36.101 table 5.7.3-1. NR: TS 38.104 tables 5.2-1 and 5.4.2.1-1. From memory.
 */
import { inRange } from '../check'

export type Technology = 'LTE' | 'NR'

export interface Band {
  /** as installers write it: `B20`, `n78` */
  name: string
  technology: Technology
  number: number
  /** downlink edges, MHz */
  dlLowMHz: number
  dlHighMHz: number
  /** uplink edges, MHz; the downlink's own in a time-division band */
  ulLowMHz: number
  ulHighMHz: number
  duplex: 'FDD' | 'TDD'
  /** LTE only: first downlink channel number and the last */
  offset?: number
  last?: number
}

type Row = [number: number, dlLow: number, dlHigh: number, ulLow: number, ulHigh: number, offset?: number, last?: number]

const LTE: Row[] = [
  [1, 2110, 2170, 1920, 1980, 0, 599],
  [2, 1930, 1990, 1850, 1910, 600, 1199],
  [3, 1805, 1880, 1710, 1785, 1200, 1949],
  [4, 2110, 2155, 1710, 1755, 1950, 2399],
  [5, 869, 894, 824, 849, 2400, 2649],
  [7, 2620, 2690, 2500, 2570, 2750, 3449],
  [8, 925, 960, 880, 915, 3450, 3799],
  [12, 729, 746, 699, 716, 5010, 5179],
  [13, 746, 756, 777, 787, 5180, 5279],
  [14, 758, 768, 788, 798, 5280, 5379],
  [17, 734, 746, 704, 716, 5730, 5849],
  [18, 860, 875, 815, 830, 5850, 5999],
  [19, 875, 890, 830, 845, 6000, 6149],
  [20, 791, 821, 832, 862, 6150, 6449],
  [25, 1930, 1995, 1850, 1915, 8040, 8689],
  [26, 859, 894, 814, 849, 8690, 9039],
  [28, 758, 803, 703, 748, 9210, 9659],
  [30, 2350, 2360, 2305, 2315, 9770, 9869],
  [38, 2570, 2620, 2570, 2620, 37750, 38249],
  [40, 2300, 2400, 2300, 2400, 38650, 39649],
  [41, 2496, 2690, 2496, 2690, 39650, 41589],
  [42, 3400, 3600, 3400, 3600, 41590, 43589],
  [43, 3600, 3800, 3600, 3800, 43590, 45589],
  [48, 3550, 3700, 3550, 3700, 55240, 56739],
  [66, 2110, 2200, 1710, 1780, 66436, 67335],
  [71, 617, 652, 663, 698, 68586, 68935],
]

const NR: Row[] = [
  [1, 2110, 2170, 1920, 1980],
  [2, 1930, 1990, 1850, 1910],
  [3, 1805, 1880, 1710, 1785],
  [5, 869, 894, 824, 849],
  [7, 2620, 2690, 2500, 2570],
  [8, 925, 960, 880, 915],
  [12, 729, 746, 699, 716],
  [14, 758, 768, 788, 798],
  [20, 791, 821, 832, 862],
  [25, 1930, 1995, 1850, 1915],
  [28, 758, 803, 703, 748],
  [38, 2570, 2620, 2570, 2620],
  [40, 2300, 2400, 2300, 2400],
  [41, 2496, 2690, 2496, 2690],
  [48, 3550, 3700, 3550, 3700],
  [66, 2110, 2200, 1710, 1780],
  [71, 617, 652, 663, 698],
  [77, 3300, 4200, 3300, 4200],
  [78, 3300, 3800, 3300, 3800],
]

const make =
  (technology: Technology) =>
  ([number, dlLowMHz, dlHighMHz, ulLowMHz, ulHighMHz, offset, last]: Row): Band => ({
    name: `${technology === 'LTE' ? 'B' : 'n'}${number}`,
    technology,
    number,
    dlLowMHz,
    dlHighMHz,
    ulLowMHz,
    ulHighMHz,
    duplex: dlLowMHz === ulLowMHz ? 'TDD' : 'FDD',
    ...(offset === undefined ? {} : { offset, last }),
  })

export const BANDS: readonly Band[] = [...LTE.map(make('LTE')), ...NR.map(make('NR'))]

const byName = new Map(BANDS.map(b => [b.name.toLowerCase(), b]))

/** @returns the band by the name written on a status page (`B20`, `b20`, `n78`, `20` for LTE), or undefined */
export function bandByName(name: string): Band | undefined {
  const key = name
    .trim()
    .toLowerCase()
    .replace(/^(lte|band|nr|5g|eutran)\s*-?\s*(band\s*)?/, '')
  return byName.get(key) ?? byName.get(`b${key}`)
}

/** A cell whose band no list named: it is not guessed, and a reading of the cell fills it in. */
export const UNKNOWN_BAND = ''

export const dlCentreMHz = (band: Band): number => (band.dlLowMHz + band.dlHighMHz) / 2
export const ulCentreMHz = (band: Band): number => (band.ulLowMHz + band.ulHighMHz) / 2

/**
 * LTE downlink channel number to frequency.
 * @returns MHz and the one band that holds it
 * @throws RangeError where no band held has that number
 * @source 3GPP TS 36.101 §5.7.3: F = F_low + 0.1·(N − N_offs)
 */
export function earfcnToMHz(earfcn: number): { frequencyMHz: number; band: Band } {
  const band = BANDS.find(b => b.offset !== undefined && earfcn >= b.offset && earfcn <= b.last!)
  if (!Number.isInteger(earfcn) || !band) throw new RangeError(`channel number ${earfcn} is in no LTE band held`)
  return { frequencyMHz: band.dlLowMHz + 0.1 * (earfcn - band.offset!), band }
}

/**
 * NR channel number to frequency.
 * @returns MHz and every band that holds it: the number alone does not say which
 * @throws RangeError outside 0…3279165
 * @source 3GPP TS 38.104 §5.4.2.1, global frequency raster
 */
export function nrarfcnToMHz(nrarfcn: number): { frequencyMHz: number; bands: Band[] } {
  inRange('NR channel number', nrarfcn, 0, 3_279_165)
  if (!Number.isInteger(nrarfcn)) throw new RangeError(`NR channel number must be whole, got ${nrarfcn}`)
  const frequencyMHz =
    nrarfcn < 600_000
      ? 0.005 * nrarfcn
      : nrarfcn < 2_016_667
        ? 3000 + 0.015 * (nrarfcn - 600_000)
        : 24_250.08 + 0.06 * (nrarfcn - 2_016_667)
  return {
    frequencyMHz,
    bands: BANDS.filter(b => b.technology === 'NR' && frequencyMHz >= b.dlLowMHz && frequencyMHz <= b.dlHighMHz),
  }
}

/** @returns the band that a band name or an LTE/NR channel number typed into one field means, or undefined */
export function bandFromEntry(entry: string, technology: Technology): Band | undefined {
  const text = entry.trim()
  const named = technology === 'NR' && /^\d+$/.test(text) ? byName.get(`n${text}`) : bandByName(text)
  if (named && named.technology === technology) return named
  if (!/^\d+$/.test(text)) return undefined
  try {
    return technology === 'LTE' ? earfcnToMHz(Number(text)).band : nrarfcnToMHz(Number(text)).bands[0]
  } catch {
    return undefined
  }
}

/**
 * Resource blocks by carrier width.
 *
 * @source LTE: TS 36.101 table 5.6-1; NR at 15 and 30 kHz: TS 38.101-1 table 5.3.2-1, where 35, 45 and 70 MHz stand since
 *   Rel-16 and 17 (those from memory)
 */
const LTE_RB: Record<string, number> = { 1.4: 6, 3: 15, 5: 25, 10: 50, 15: 75, 20: 100 }
const NR_RB_15: Record<string, number> = { 5: 25, 10: 52, 15: 79, 20: 106, 25: 133, 30: 160, 35: 188, 40: 216, 45: 242, 50: 270 }
const NR_RB_30: Record<string, number> = {
  5: 11,
  10: 24,
  15: 38,
  20: 51,
  25: 65,
  30: 78,
  35: 92,
  40: 106,
  45: 119,
  50: 133,
  60: 162,
  70: 189,
  80: 217,
  90: 245,
  100: 273,
}

/** @returns the widths that one carrier can have, MHz, narrowest first */
export const carrierWidths = (technology: Technology): number[] =>
  [...new Set((technology === 'LTE' ? [LTE_RB] : [NR_RB_15, NR_RB_30]).flatMap(t => Object.keys(t).map(Number)))].sort(
    (a, b) => a - b,
  )

/**
 * @param subcarrierKHz  NR only: 15 (frequency division, usual) or 30 (time division, usual)
 * @throws RangeError where the width is not one the standard lists
 */
export function resourceBlocks(technology: Technology, bandwidthMHz: number, subcarrierKHz: 15 | 30 = 15): number {
  const table = technology === 'LTE' ? LTE_RB : subcarrierKHz === 15 ? NR_RB_15 : NR_RB_30
  const n = table[String(bandwidthMHz)]
  if (!n)
    throw new RangeError(
      `carrier width must be one of ${Object.keys(table)
        .sort((a, b) => +a - +b)
        .join(', ')} MHz, got ${bandwidthMHz}`,
    )
  return n
}

/** Bands by the frequency people call them by, MHz: in a column of bands these are no channel numbers. @source common practice */
const CALLED_BY_MHZ: Record<Technology, Record<string, string>> = {
  LTE: {
    '700': 'B28',
    '800': 'B20',
    '850': 'B5',
    '900': 'B8',
    '1700': 'B66',
    '1800': 'B3',
    '1900': 'B2',
    '2100': 'B1',
    '2300': 'B40',
    '2600': 'B7',
    '3500': 'B42',
  },
  NR: {
    '600': 'n71',
    '700': 'n28',
    '800': 'n20',
    '900': 'n8',
    '1800': 'n3',
    '2100': 'n1',
    '2600': 'n7',
    '3500': 'n78',
    '3600': 'n78',
  },
}

/** @returns the band that a word like `800` or `2100 MHz` names in a column of bands */
export const bandCalled = (text: string, technology: Technology): string | undefined =>
  CALLED_BY_MHZ[technology][text.trim().replace(/\s*MHz$/i, '')]
