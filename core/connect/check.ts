/** The health check of a connection: what it uses up, and how long a failure goes unseen. */
import { finite } from '../check'
import type { Connection } from '../job/schema'

/** Header of IPv4, of ICMP, and what an echo usually carries, bytes. @source RFC 791, RFC 792; 56 bytes: common practice (no source) */
const IPV4 = 20
const ICMP = 8
const ECHO = 56
/** An echo and its answer, bytes on the network layer. */
export const CHECK_BYTES = 2 * (IPV4 + ICMP + ECHO)
/** As lists of allowances count, days. */
export const MONTH_DAYS = 30
const DAY_S = 86_400

export type Check = Pick<Connection, 'checkS' | 'checkPlaces' | 'checkMisses'>
/** A second place tells a place that is down from a connection that is. Common practice (no source). */
const PLACES = 1
const MISSES = 3

/** @returns MB a month that the check itself takes; 0 where there is none */
export function checkMbMonth({ checkS, checkPlaces }: Check): number {
  if (!checkS) return 0
  return finite('check', (CHECK_BYTES * (checkPlaces ?? PLACES) * ((DAY_S * MONTH_DAYS) / checkS)) / 1e6)
}

/** Until the other is there once the first is given up, s: a modem that stands by must register anew. Assumed. */
export const ATTACH_S = { sameModem: 60, ownModem: 2 }

/** @returns how long until the other answers, s; null where nothing asks. @source switch time = interval × misses + attach */
export function switchS({ checkS, checkMisses }: Check, sameModem: boolean): number | null {
  if (!checkS) return null
  return checkS * (checkMisses ?? MISSES) + (sameModem ? ATTACH_S.sameModem : ATTACH_S.ownModem)
}

/** @returns the shortest usual interval whose check stays under a share of the allowance, s; null where even an hour's does not */
export function checkWithin(c: Check, allowanceGb: number, share: number): number | null {
  const usual = [5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600]
  return usual.find(checkS => checkS >= (c.checkS ?? 0) && checkMbMonth({ ...c, checkS }) <= allowanceGb * 1000 * share) ?? null
}
