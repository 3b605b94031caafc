import { nth } from '#core/sure'
/** Before what a bad link did not bring is asked for again: each pause is longer than the one before, ms. */
const PAUSES_MS = [1000, 3000, 10_000, 30_000]

/** @param tried  how often it was asked for in vain, from 1 */
export const pauseMs = (tried: number): number => nth(PAUSES_MS, Math.min(tried, PAUSES_MS.length) - 1)

/** So often the page is loaded anew by itself within two minutes. */
const MOST_RELOADS = 4
const TRIED = 'multivox:loads-tried'
const FORGOTTEN_AFTER_MS = 120_000

/**
 * Counts one more loading of the page in. A browser may keep for a page's life that a part of the program did not come: then only
 * a new page asks for it again.
 * @returns which one it is; null where it was tried often enough, or nothing can be counted because storage is shut
 */
export function countReload(): number | null {
  try {
    const last = JSON.parse(sessionStorage.getItem(TRIED) ?? 'null') as { n: number; at: number } | null
    const n = (last && Date.now() - last.at < FORGOTTEN_AFTER_MS ? last.n : 0) + 1
    sessionStorage.setItem(TRIED, JSON.stringify({ n, at: Date.now() }))
    return n <= MOST_RELOADS ? n : null
  } catch {
    return null
  }
}
