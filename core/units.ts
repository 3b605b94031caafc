/** Figures as people read them: metric or imperial, a true minus, a thin space before the unit. */

export type Units = 'metric' | 'imperial'

/** How a figure is known; a line's weight tells it. */
export type Provenance = 'measured' | 'computed' | 'assumed'

const THIN = '\u2009'
const FEET = 3.280839895

/** @returns the number with a true minus sign and a fixed count of decimals */
export function num(value: number, decimals = 0): string {
  const s = Math.abs(value).toFixed(decimals)
  return value < 0 && Number(s) !== 0 ? `−${s}` : s
}

/** @returns a speed as it is told, Mbit/s: `27.3`, and `0.04` rather than nothing */
export const mbps = (value: number): string => num(value, value > 0 && value < 0.095 ? 2 : 1)

/** @returns a figure beside the limit it misses: with a decimal where both would read alike without it */
export const numBeside = (value: number, limit: number): string => num(value, num(value) === num(limit) ? 1 : 0)

/** @returns a figure someone gave, with no more decimals than it has, at most two */
export const given = (value: number): string => num(value, Number.isInteger(value) ? 0 : Number.isInteger(value * 10) ? 1 : 2)

/** @returns as `num`, with + before what is above zero */
export const signed = (value: number, decimals = 0): string =>
  value > 0 && Number(value.toFixed(decimals)) !== 0 ? `+${num(value, decimals)}` : num(value, decimals)

/** @returns words as a sentence or a line begins with them */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)

/** @returns a length on site: `2.1 m` or `6.9 ft` */
export const length = (m: number, units: Units, decimals = 1): string =>
  units === 'metric' ? `${num(m, decimals)}${THIN}m` : `${num(m * FEET, decimals)}${THIN}ft`

/** @returns a distance over land: `11.3 km` or `7.0 mi` */
export const distance = (m: number, units: Units): string =>
  units === 'metric' ? `${num(m / 1000, 1)}${THIN}km` : `${num(m / 1609.344, 1)}${THIN}mi`

/** @source a byte is 8 bit */
export const MBITS_PER_MBYTE = 8

/** Stored metres from what was typed in the user's unit, and back. */
export const toMetres = (value: number, units: Units): number => (units === 'metric' ? value : value / FEET)
export const fromMetres = (m: number, units: Units): number => (units === 'metric' ? m : m * FEET)

/** @returns `252°`, three figures so that bearings align */
export const bearing = (deg: number): string => `${String(Math.round(deg) % 360).padStart(3, '0')}°`
