/**
 * A connection that does not come up: the likeliest cause by what was seen, and the test that tells most in its minutes.
 *
 * Shares and likelihoods are stated here as assumed from practice; no count of real jobs stands behind them.
 */
import { asShares, expectedBits, undecidedBits, updated } from '../infer'
import type { Likelihoods } from '../infer'
import type { ConnectionState } from '../job/schema'

/** Usual and longest time from power-on to the first answer, s. Common practice (no source) */
export const USUAL_S = 120
export const LONGEST_S = 300

export const CAUSES = [
  'SIM seated badly',
  'PIN',
  'SIM not in service',
  'access point',
  'identity refused',
  'roaming barred',
  'no signal',
  'full cell',
  'allowance used up',
] as const
export type Cause = (typeof CAUSES)[number]

/** What each is, whose task it is, and its cure. */
export const CAUSE_WORDS: Record<Cause, { words: string; whose: string; cure: string }> = {
  'SIM seated badly': {
    words: 'the SIM does not lie as it should',
    whose: 'ours',
    cure: 'power off; cut corner, chip down, adapter, the right slot, until it clicks',
  },
  'PIN': { words: 'the SIM asks for its PIN', whose: 'the owner’s', cure: 'the PIN is taken off in a phone' },
  'SIM not in service': {
    words: 'the SIM is not yet in service, or its plan has ended',
    whose: 'the carrier’s',
    cure: 'the carrier is called with the number on the card',
  },
  'access point': {
    words: 'the access point’s name is wrong',
    whose: 'ours',
    cure: 'operator profile, or the name letter by letter from the carrier’s own page',
  },
  'identity refused': {
    words: 'the network refuses this box',
    whose: 'the carrier’s',
    cure: 'its IMEI is told to the carrier; a plan for phones may take no router',
  },
  'roaming barred': {
    words: 'the mast is another carrier’s, and roaming is off',
    whose: 'ours, then the owner’s',
    cure: 'bands and network by hand to the SIM’s own carrier; else roaming is allowed by its plan',
  },
  'no signal': {
    words: 'the modem hears too little',
    whose: 'ours',
    cure: 'both antenna leads at the modem’s own ports, bands, aim',
  },
  'full cell': { words: 'the cell lets nobody more in', whose: 'nobody’s', cure: 'another hour, another band or another mast' },
  'allowance used up': { words: 'the plan’s allowance is used up', whose: 'the owner’s', cure: 'the plan is topped up' },
}

/** Of a first power-on by somebody who fitted the antenna by a plan. Assumed. */
const BEFORE: Record<Cause, number> = {
  'SIM seated badly': 0.16,
  'PIN': 0.07,
  'SIM not in service': 0.2,
  'access point': 0.24,
  'identity refused': 0.1,
  'roaming barred': 0.06,
  'no signal': 0.09,
  'full cell': 0.03,
  'allowance used up': 0.05,
}

/** States that say something of why; `up` and those of nothing done yet do not. */
export const TELLING = [
  'no SIM',
  'PIN',
  'searching',
  'denied',
  'no data',
  'no internet',
  'slow',
] as const satisfies readonly ConnectionState[]
export type Telling = (typeof TELLING)[number]
/** Shares of the states, in the order of `TELLING`. */
const row = (...shares: readonly [number, number, number, number, number, number, number]): Record<Telling, number> =>
  Object.fromEntries(TELLING.map((t, i) => [t, shares[i]])) as Record<Telling, number>
/** What a modem reports under each cause. Assumed. */
const REPORTED: Likelihoods<Cause, Telling> = {
  'SIM seated badly': row(0.92, 0.01, 0.04, 0.02, 0.01, 0, 0),
  'PIN': row(0.04, 0.9, 0.04, 0.02, 0, 0, 0),
  'SIM not in service': row(0.02, 0, 0.12, 0.62, 0.16, 0.08, 0),
  'access point': row(0, 0, 0.02, 0.05, 0.68, 0.25, 0),
  'identity refused': row(0, 0, 0.08, 0.75, 0.14, 0.03, 0),
  'roaming barred': row(0, 0, 0.3, 0.5, 0.18, 0.02, 0),
  'no signal': row(0, 0, 0.82, 0.03, 0.05, 0.02, 0.08),
  'full cell': row(0, 0, 0.2, 0.2, 0.15, 0.05, 0.4),
  'allowance used up': row(0, 0, 0, 0.03, 0.12, 0.45, 0.4),
}

/** Causes that a network gives when it refuses, by number. @source TS 24.301 9.9.3.9, TS 24.501 9.11.3.2, from memory */
export const REJECTS: Record<number, { words: string; cause: Cause }> = {
  2: { words: 'the SIM is not known to its own network', cause: 'SIM not in service' },
  3: { words: 'the SIM is not allowed', cause: 'SIM not in service' },
  5: { words: 'this box is not accepted', cause: 'identity refused' },
  6: { words: 'this box is barred', cause: 'identity refused' },
  7: { words: 'no data for this SIM', cause: 'SIM not in service' },
  8: { words: 'neither calls nor data for this SIM', cause: 'SIM not in service' },
  11: { words: 'this network is not allowed', cause: 'roaming barred' },
  12: { words: 'this area is not allowed', cause: 'roaming barred' },
  13: { words: 'roaming is not allowed in this area', cause: 'roaming barred' },
  14: { words: 'data is not allowed in this network', cause: 'roaming barred' },
  15: { words: 'no cell in this area takes it', cause: 'roaming barred' },
  22: { words: 'the network is full', cause: 'full cell' },
  27: { words: 'the access point is missing or not known', cause: 'access point' },
}
/** A refusal by number is all but the cause itself. Assumed. */
const BY_NUMBER = 0.95

export const TESTS = [
  'SIM in a phone',
  'click and look',
  'name of the access point',
  'level at the modem',
  'carrier’s page',
] as const
export type Test = (typeof TESTS)[number]
interface TestFacts {
  minutes: number
  asks: string
  answers: readonly [yes: string, no: string]
  /** share of `yes` under each cause. Assumed. */
  yes: Record<Cause, number>
}
/** Shares of the causes, in the order of `CAUSES`. */
const under = (shares: readonly number[]): Record<Cause, number> =>
  Object.fromEntries(CAUSES.map((c, i) => [c, shares[i]])) as Record<Cause, number>
export const TEST_FACTS: Record<Test, TestFacts> = {
  'SIM in a phone': {
    minutes: 5,
    asks: 'Does a page load on a phone with this SIM, its Wi-Fi off?',
    answers: ['it loads', 'it does not'],
    yes: under([0.95, 0.05, 0.03, 0.9, 0.92, 0.3, 0.7, 0.5, 0.05]),
  },
  'click and look': {
    minutes: 2,
    asks: 'Power off: does the SIM lie chip down, corner as drawn, clicked in, in the slot of the plan?',
    answers: ['it lay right', 'it did not'],
    yes: under([0.08, 0.95, 0.95, 0.95, 0.95, 0.95, 0.95, 0.95, 0.95]),
  },
  'name of the access point': {
    minutes: 3,
    asks: 'Is the access point’s name that of the carrier’s own page, letter by letter?',
    answers: ['it is', 'it is not'],
    yes: under([0.9, 0.9, 0.9, 0.1, 0.9, 0.9, 0.9, 0.9, 0.9]),
  },
  'level at the modem': {
    minutes: 2,
    asks: 'Does the modem’s page show a level over −115 dBm?',
    answers: ['it does', 'it does not'],
    yes: under([0.3, 0.5, 0.92, 0.95, 0.95, 0.9, 0.06, 0.95, 0.95]),
  },
  'carrier’s page': {
    minutes: 8,
    asks: 'Does the carrier’s page or hotline say that the SIM is in service, with allowance left?',
    answers: ['it does', 'it does not'],
    yes: under([0.95, 0.95, 0.04, 0.95, 0.7, 0.9, 0.95, 0.95, 0.04]),
  },
}

/** What was seen of a connection that does not come up. */
export interface Seen {
  state: Telling | null
  /** of a refusal, its number, where the modem tells it */
  reject?: number | null
  tests?: Partial<Record<Test, boolean>>
}

const testLikelihoods = (t: Test): Likelihoods<Cause, 'yes' | 'no'> =>
  Object.fromEntries(CAUSES.map(c => [c, { yes: TEST_FACTS[t].yes[c], no: 1 - TEST_FACTS[t].yes[c] }])) as unknown as Likelihoods<
    Cause,
    'yes' | 'no'
  >

const byNumber = (cause: Cause): Likelihoods<Cause, 'this'> =>
  Object.fromEntries(
    CAUSES.map(c => [c, { this: c === cause ? BY_NUMBER : (1 - BY_NUMBER) / (CAUSES.length - 1) }]),
  ) as unknown as Likelihoods<Cause, 'this'>

export interface Inferred {
  /** the likeliest first */
  causes: { cause: Cause; share: number }[]
  /** what to try next; null where one cause has all but nothing, or every test was made */
  next: { test: Test; minutes: number; bits: number } | null
}
/** So sure of one cause that its cure is tried, not another test. Assumed. */
const SURE_ENOUGH = 0.9

/** @returns causes by their shares, and the test with the most to tell a minute */
export function inferCause(seen: Seen): Inferred {
  let shares = asShares(BEFORE)
  if (seen.state) shares = updated(shares, REPORTED, seen.state)
  const told = seen.reject === null || seen.reject === undefined ? undefined : REJECTS[seen.reject]
  if (told) shares = updated(shares, byNumber(told.cause), 'this')
  for (const t of TESTS) {
    const answer = seen.tests?.[t]
    if (answer !== undefined) shares = updated(shares, testLikelihoods(t), answer ? 'yes' : 'no')
  }
  const causes = CAUSES.map(cause => ({ cause, share: shares[cause] })).sort((a, b) => b.share - a.share)
  const open = TESTS.filter(t => seen.tests?.[t] === undefined)
    .map(test => ({ test, minutes: TEST_FACTS[test].minutes, bits: expectedBits(shares, testLikelihoods(test)) }))
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes)
  const isSettled = (causes[0]?.share ?? 0) >= SURE_ENOUGH || undecidedBits(shares) === 0
  return { causes, next: isSettled ? null : (open[0] ?? null) }
}

/** How far a first connection is, by its clock. */
export function clockOf(poweredAtUtc: string, nowUtc: string): { s: number; stage: 'usual' | 'long' | 'too long' } {
  const s = Math.max(0, (Date.parse(nowUtc) - Date.parse(poweredAtUtc)) / 1000)
  return { s, stage: s <= USUAL_S ? 'usual' : s <= LONGEST_S ? 'long' : 'too long' }
}
