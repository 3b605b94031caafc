/**
 * What the server writes about an error: where, its kind and its code, and the places in the program.
 * Never its message: a database puts parameters and rows into it, and those are customers.
 */
import { sqlStateOf } from './sql-state'

/** @returns one line of what may be known by whoever reads logs */
export function describeError(e: unknown): string {
  if (!(e instanceof Error)) return typeof e
  const code = sqlStateOf(e) ?? (e as { code?: string }).code
  const places = (e.stack ?? '')
    .split('\n')
    .filter(line => /^\s+at /.test(line))
    .slice(0, 6)
    .map(line => line.trim())
    .join(' ')
  const cause = e.cause instanceof Error ? ` < ${describeError(e.cause)}` : ''
  return `${e.name}${code ? ` ${code}` : ''} ${places}${cause}`
}

export function logError(where: string, e: unknown): void {
  console.error(`${new Date().toISOString()} ${where}: ${describeError(e)}`)
}

const OFTEN_MS = 10_000
let lastAway = 0
let unsaid = 0

/** A database that is away is said now and then, with how often it was met: not once a request. */
export function logAway(where: string, e: unknown): void {
  if (Date.now() - lastAway < OFTEN_MS) {
    unsaid++
    return
  }
  lastAway = Date.now()
  logError(`${where} database away${unsaid ? `, and ${unsaid} times since it was last said` : ''}`, e)
  unsaid = 0
}
