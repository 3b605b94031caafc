import { randomInt } from 'node:crypto'
import { parseArgs } from 'node:util'
import { fail } from './system.mjs'

/**
 * What follows a script's name, `--name value` or `--flag`; what is not known is said and ends it.
 * @param {string[]} named  @param {string[]} flags  @returns {Record<string, any>}
 */
export function options(named, flags = []) {
  try {
    return parseArgs({
      options: Object.fromEntries([
        ...named.map(n => [n, { type: /** @type {const} */ ('string') }]),
        ...flags.map(n => [n, { type: /** @type {const} */ ('boolean') }]),
      ]),
    }).values
  } catch (e) {
    return fail(e instanceof Error ? e.message : String(e))
  }
}

/** Six digits that a person types to be let in. */
export const pairingCode = () => String(randomInt(100_000, 1_000_000))

/** Ctrl-C, or a kill, closes what runs before it ends. */
export function closeAtEnd(/** @type {{ close: () => Promise<void> }} */ running) {
  for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM']))
    process.once(signal, () => void running.close().then(() => process.exit(0)))
}
