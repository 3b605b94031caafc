/**
 * Limits on signing in. A try is counted before the password is looked at, so that many at once are
 * held to the limit as well; the counters stand in the database, the same for every node.
 *
 * Three limits: by address and account together, whose pauses grow; by account alone, slower, which a
 * device that signed in to it before passes, so that a stranger cannot lock the owner out; and by
 * address alone, which such a device passes too.
 */
import { createHmac, timingSafeEqual } from 'node:crypto'
import type { H3Event } from 'h3'
import { getCookie, setCookie } from 'h3'
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import { useDb } from '../data/db'
import { problem } from './problem'
import { clientAddress } from './proxy'

const PAIR_TRIES = 5
const PAIR_WINDOW_S = 15 * 60
/** The first pause; each that follows within a day is twice as long, up to an hour. */
const FIRST_PAUSE_S = 60
const LONGEST_PAUSE_S = 3600
const ACCOUNT_TRIES = 50
const ACCOUNT_WINDOW_S = 3600
const ADDRESS_TRIES = 60
const ADDRESS_WINDOW_S = 15 * 60

/** The limiter's own statements go through the server's pool, whenever that is made. */
const store = { query: (q: { text: string; values: unknown[] }) => useDb().$client.query(q) }

const limiter = (keyPrefix: string, points: number, duration: number) =>
  new RateLimiterPostgres({
    storeClient: store,
    storeType: 'client',
    tableName: 'rate_limits',
    tableCreated: true,
    keyPrefix,
    points,
    duration,
  })

const pair = limiter('pair', PAIR_TRIES, PAIR_WINDOW_S)
const pauses = limiter('pauses', 1_000_000, 86_400)
const account = limiter('account', ACCOUNT_TRIES, ACCOUNT_WINDOW_S)
const address = limiter('address', ADDRESS_TRIES, ADDRESS_WINDOW_S)

/** Customers' pages by address: a household opens its own a few times, whoever guesses many. */
const PAGES = 60
const PAGES_WINDOW_S = 600
const pages = limiter('pages', PAGES, PAGES_WINDOW_S)
/** @returns false where that address opened too many: the answer is that of a page that is not there */
export const mayOpenPage = async (event: H3Event): Promise<boolean> => !(await count(pages, clientAddress(event))).over

/** Counts one try. @returns how it went; the limiter throws what is no failure of its own */
async function count(by: RateLimiterPostgres, key: string): Promise<RateLimiterRes & { over: boolean }> {
  try {
    return Object.assign(await by.consume(key), { over: false })
  } catch (e) {
    if (e instanceof RateLimiterRes) return Object.assign(e, { over: true })
    throw e
  }
}

function wait(event: H3Event, ms: number, words: string): never {
  const seconds = Math.max(1, Math.ceil(ms / 1000))
  setResponseHeader(event, 'retry-after', seconds)
  problem(
    429,
    `${words} Wait ${seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`}, or ask a lead for a new password.`,
  )
}

export interface Try {
  succeed: () => Promise<void>
}

/** Counts a try to sign in, before anything else is looked at. @throws a problem 429 where it is one too many */
export async function countTry(event: H3Event, email: string, memberId: string | null): Promise<Try> {
  const from = clientAddress(event)
  const known = memberId !== null && knowsDevice(event, memberId)
  // Others at one address, an office or a carrier's own, shut out no device that has signed in before.
  const byAddress = known ? null : await count(address, from)
  if (byAddress?.over) wait(event, byAddress.msBeforeNext, 'Too many tries from here.')
  const pairKey = `${known ? `device:${memberId}` : from}|${email}`
  const byPair = await count(pair, pairKey)
  if (byPair.over) {
    if (byPair.consumedPoints === PAIR_TRIES + 1) {
      const before = (await pauses.consume(pairKey)).consumedPoints - 1
      const pauseS = Math.min(LONGEST_PAUSE_S, FIRST_PAUSE_S * 2 ** before)
      await pair.block(pairKey, pauseS)
      wait(event, pauseS * 1000, 'Too many tries.')
    }
    wait(event, byPair.msBeforeNext, 'Too many tries.')
  }
  if (!known) {
    const byAccount = await count(account, email)
    if (byAccount.over)
      wait(event, byAccount.msBeforeNext, 'Too many tries on this account; a device that signed in to it before may still do so.')
  }
  return {
    succeed: async () => {
      // A right sign-in is no try at guessing.
      await Promise.all([pair.delete(pairKey), pauses.delete(pairKey), known ? null : address.reward(from, 1)])
    },
  }
}

// Devices that signed in before

const COOKIE = 'mv-known'
const MOST_KNOWN = 8
const YEAR_S = 365 * 86_400

const markOf = (memberId: string): string =>
  `${memberId}.${createHmac('sha256', `known device ${useRuntimeConfig().session.password}`).update(memberId).digest('base64url')}`

const marksOf = (event: H3Event): string[] =>
  (getCookie(event, COOKIE) ?? '').split('~').filter(m => m.length === markOf('x'.repeat(36)).length)

function knowsDevice(event: H3Event, memberId: string): boolean {
  const mine = Buffer.from(markOf(memberId))
  return marksOf(event).some(m => timingSafeEqual(Buffer.from(m), mine))
}

/** This browser has signed in as the member: it may do so again while others are held off. */
export function rememberDevice(event: H3Event, memberId: string): void {
  const mine = markOf(memberId)
  const { secure } = useRuntimeConfig().session.cookie as { secure?: boolean }
  const value = [mine, ...marksOf(event).filter(m => m !== mine)].slice(0, MOST_KNOWN).join('~')
  setCookie(event, COOKIE, value, { httpOnly: true, sameSite: 'strict', secure, path: '/api/auth', maxAge: YEAR_S })
}
