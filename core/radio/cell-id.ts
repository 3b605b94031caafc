/** The mast's own number inside a cell identity. */

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
