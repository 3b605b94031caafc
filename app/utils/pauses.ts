import { nth } from '#core/sure'
/** Before what a bad link did not bring is asked for again: each pause is longer than the one before, ms. */
const PAUSES_MS = [1000, 2000, 3000, 5000]

/** @param tried  how often it was asked for in vain, from 1 */
export const pauseMs = (tried: number): number => nth(PAUSES_MS, Math.min(tried, PAUSES_MS.length) - 1)
