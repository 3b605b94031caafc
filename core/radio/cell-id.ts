/** Cell identities: decimal, as lists of masts have them; the mast's own number stands inside. */

/** Bits of a cell identity. @source 3GPP TS 36.413 §9.2.1.38 (28), TS 38.413 §9.3.1.7 (36) */
const CELL_BITS = { LTE: 28, NR: 36 } as const

/**
 * What a modem tells in hexadecimal, also where it holds digits alone.
 * @returns the decimal number; null where it is none, or has more bits than such a cell can
 * @source 3GPP TS 27.007 (+CEREG, +C5GREG: string type, hexadecimal), from memory
 */
export function cellFromHex(text: string, technology: keyof typeof CELL_BITS): string | null {
  if (!/^[0-9a-f]{1,10}$/i.test(text)) return null
  const value = Number.parseInt(text, 16)
  return value > 0 && value < 2 ** CELL_BITS[technology] ? String(value) : null
}

/** The other way, as a modem tells it. */
export const cellAsHex = (cellId: string): string => Number(cellId).toString(16).toUpperCase().padStart(8, '0')

/**
 * @returns the eNB of an E-UTRAN cell identity: 28 bits, the low eight the cell's own; null where it is no such number
 * @source 3GPP TS 36.413 §9.2.1.38
 */
export const lteSiteOf = (cellId: string): number | null =>
  /^\d{1,9}$/.test(cellId) && Number(cellId) > 0xff ? Number(cellId) >> 8 : null

/** Length of the cell's own part of an NR cell identity, bits. The operator chooses 4 to 14; 12 is taken. Assumed. */
const NR_CELL_BITS = 12

/** @returns the gNB of an NR cell identity; null where it is no such number. @source 3GPP TS 38.413 §9.3.1.7 */
export const nrSiteOf = (cellId: string): number | null =>
  /^\d{1,11}$/.test(cellId) && Number(cellId) > 2 ** NR_CELL_BITS ? Math.floor(Number(cellId) / 2 ** NR_CELL_BITS) : null
