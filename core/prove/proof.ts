/** Set-ups compared at the same spots, in the right words: what it came to, what that proves, and what it does not. */
import { jobOf } from '../job/schema'
import { nth, sure } from '../sure'
import type { JobDocument } from '../job/schema'
import type { LogIndex, SpotSummary } from '../survey/spots'
import { beforeAt, speedsOf, summariseSpot } from '../survey/spots'
import { clockAt, hourWords, likeWithLike } from '../survey/hours'
import type { Clock, HourClass } from '../survey/hours'
import { changedBetween, setupWords, traitsOf } from '../survey/setups'
import type { SetUp, Trait } from '../survey/setups'
import { blocksOf, differenceOf, dwellBlocks, logSpeed, settledWords } from '../survey/difference'
import type { Difference } from '../survey/difference'
import { rankTried } from '../survey/rank'
import { spreadOf, spreadWords } from '../survey/spread'
import type { Usual } from '../survey/spread'
import { changePercent, ratioRange, stepOf } from '../survey/stats'
import { given, mbps, num, signed } from '../units'
import type { Levels } from '../chain/levels'
import { dropsOf, drillWords } from './drops'
import { failoverWords } from './failover'
import { LEAST_TESTS } from '../promise/promise'
import type { DropsProof } from './drops'
import { nextSteps } from './next-steps'
import type { NextStep } from './next-steps'
import { sharesOf } from './shares'
import type { GainShares } from './shares'

export interface SpotProof {
  before: SpotSummary
  after: SpotSummary
  rsrpChangeDb: number | null
  sinrChangeDb: number | null
  downTimes: { low: number; mid: number; high: number } | null
  downPercent: number | null
  upTimes: { low: number; mid: number; high: number } | null
  /** the hours that both speeds are of; null where they have none in common */
  hours: HourClass | null
  words: string
}

/** One set-up at the judged spot, in the order they were first used. */
export interface SetupLine {
  setup: SetUp | null
  words: string
  summary: SpotSummary
  /** what differs from the line above */
  changed: Trait[]
}

/** What one change is shown to have done, or not. */
export interface Shown {
  /** the change and its two set-ups: `antenna: built-in antenna → outside antenna` */
  what: string
  words: string
}

export interface CallsProof {
  tried: number
  held: number
  words: string
}

export interface Proof {
  spots: SpotProof[]
  /** the spot that the verdict is about */
  judged: SpotProof | null
  lines: SetupLine[]
  proven: Shown[]
  calls: CallsProof | null
  drops: { before: DropsProof | null; after: DropsProof | null }
  /** of the last failover test */
  failover: string | null
  /** the level gained at the judged place, by what brought it */
  shares: GainShares | null
  verdict: { met: boolean | null; words: string; short: string }
  scored: { expected: number; low: number; high: number; got: number; inside: boolean } | null
  unproven: string[]
  /** where it falls short, the most promising first */
  nextSteps: NextStep[]
}

export function prove(
  doc: JobDocument,
  log: LogIndex,
  expected: { median: number; low: number; high: number } | null,
  levels: Levels | null = null,
): Proof {
  const job = jobOf(doc)
  const clock = clockAt(doc)
  const spots = doc.spots
    .map((spot): SpotProof => compare(beforeAt(log, spot), summariseSpot(log, spot, 'after'), clock, log.usual))
    .filter(p => p.before.readings.length + p.before.runs.length + p.after.readings.length + p.after.runs.length > 0)
  const tested = spots.filter(p => p.after.runs.length > 0)
  const needed = tested.filter(p => p.before.spot.needed)
  const pool = needed.length ? needed : tested
  const judged = pool.reduce<SpotProof | null>(
    (a, b) => (!a || (b.after.down?.median ?? 0) < (a.after.down?.median ?? 0) ? b : a),
    null,
  )
  const got = judged?.after.down?.median ?? null
  const calls = callsAfter(log)
  const lines = linesAt(doc, log, judged?.before.spot.id ?? job.baselineSpotId)
  const shares = sharesOf(lines, levels, job.designId)
  const drops = { before: dropsOf(log, 'before'), after: dropsOf(log, 'after') }
  return {
    spots,
    judged,
    lines,
    proven: provenBy(lines, clock, log.usual),
    calls,
    drops,
    failover: lastFailover(doc) ?? drillWords(log),
    shares,
    verdict: verdictOf(job, {
      judged,
      calls,
      drops: drops.after,
      untested: untestedRooms(doc, log),
      levels: log.readings.some(r => r.phase === 'after'),
    }),
    scored:
      got !== null && expected
        ? {
            expected: expected.median,
            low: expected.low,
            high: expected.high,
            got,
            inside: got >= expected.low && got <= expected.high,
          }
        : null,
    unproven: unproven(doc, log, judged, lines),
    nextSteps: nextSteps({
      judged,
      got,
      agreed: job.agreedDownMbps,
      shares,
      tried: () => judged && rankTried(doc, log, { by: 'down', spotId: judged.before.spot.id }),
    }),
  }
}

/** @returns `about 120 times (108 to 141)`, `4.9 times (+390 %)`, or the two ends where they lie far apart */
export function timesWords(t: { low: number; mid: number; high: number }, percent: number | null): string {
  const round = (v: number): string => (v >= 20 ? num(Math.round(v)) : num(v, 1))
  const about = (v: number): string => (v >= 20 ? num(Number(v.toPrecision(2))) : num(v, 1))
  if (t.high / t.low > 1.15) return `about ${about(t.mid)} times (${round(t.low)} to ${round(t.high)})`
  return `${num(t.mid, 1)} times${percent !== null ? ` (${signed(percent)} %)` : ''}`
}

/** Two places' or set-ups' speeds, of the hours that both have where they have some. */
function speedsAlike(a: SpotSummary, b: SpotSummary, clock: Clock) {
  const { rows, hours } = likeWithLike([a.runs, b.runs], clock)
  return { a: { ...a, ...speedsOf(nth(rows, 0)) }, b: { ...b, ...speedsOf(nth(rows, 1)) }, hours }
}

function compare(before: SpotSummary, after: SpotSummary, clock: Clock, usual: Usual): SpotProof {
  const diff = (a: { median: number } | null, b: { median: number } | null) => (a && b ? b.median - a.median : null)
  const alike = before.band === after.band
  const rsrpChangeDb = diff(before.rsrp, after.rsrp)
  const sinrChangeDb = diff(before.sinr, after.sinr)
  const times = (a: SpotSummary['down'], b: SpotSummary['down']) =>
    a && b ? ratioRange(a.median, b.median, stepOf(a.median), stepOf(b.median)) : null
  const { a: then, b: now, hours } = speedsAlike(before, after, clock)
  const downTimes = times(then.down, now.down)
  const downPercent = then.down && now.down ? changePercent(then.down.median, now.down.median) : null
  const some = hours && (then.runs.length < before.runs.length || now.runs.length < after.runs.length)
  const parts: string[] = []
  const other = alike || !before.band || !after.band ? '' : `, ${before.band} before and ${after.band} after`
  const level = (what: string, field: 'rsrpDbm' | 'sinrDb', by: number) => {
    const d = levelDifference(before, after, field, usual)
    return `${signed(by)} dB of ${what}${d ? ` (${signed(d.low)} to ${signed(d.high)})` : ''}`
  }
  if (rsrpChangeDb !== null) parts.push(`${level('RSRP', 'rsrpDbm', rsrpChangeDb)}${other}`)
  if (sinrChangeDb !== null) parts.push(level('SINR', 'sinrDb', sinrChangeDb))
  if (downTimes)
    parts.push(`${timesWords(downTimes, downPercent)} the download${some ? `, ${hourWords(hours, clock)} alone` : ''}`)
  else if (before.down && before.down.median === 0 && after.down)
    parts.push(after.down.median > 0 ? 'loads where it did not load before' : 'still does not load')
  return {
    before,
    after,
    rsrpChangeDb,
    sinrChangeDb,
    downTimes,
    downPercent,
    upTimes: times(then.up, now.up),
    hours,
    words:
      parts.join(', ') || (after.readings.length + after.runs.length ? 'nothing to compare with before' : 'not measured after'),
  }
}

/** @returns the last test in which another answered, in words */
function lastFailover(doc: Pick<JobDocument, 'failovers' | 'connections'>): string | null {
  const rows = doc.failovers.filter(t => !t.withdrawn && t.answeredAtUtc)
  const last = rows.reduce<(typeof rows)[number] | null>((a, t) => (a && a.pulledAtUtc > t.pulledAtUtc ? a : t), null)
  return last && failoverWords(last, doc.connections.find(c => c.id === last.connectionId)?.name ?? 'a connection')
}

/** Calls tried as it is to stay: made, heard both ways, not dropped. */
function callsAfter(log: LogIndex): CallsProof | null {
  const tried = log.calls.filter(c => c.phase === 'after')
  if (!tried.length) return null
  const held = tried.filter(c => c.made && c.heard && !c.dropped).length
  return { tried: tried.length, held, words: `calls: ${tried.length} tried, ${held} held` }
}

/** Calls that must hold before calls count as met. Assumed. */
const LEAST_CALLS = 3
/** So long a link is watched before its drop-outs count as few. Assumed, h. */
const LEAST_WATCHED_H = 1

interface Tested {
  judged: SpotProof | null
  calls: CallsProof | null
  drops: DropsProof | null
  untested: string[]
  /** whether a level was read after */
  levels: boolean
}

/** @returns the rooms that must be proved and where what was agreed was not tested as it is to stay */
function untestedRooms(doc: JobDocument, log: LogIndex): string[] {
  const job = jobOf(doc)
  const speeds = job.agreedDownMbps !== null || job.agreedUpMbps !== null
  const at = (rows: readonly { phase: string; spotId: string }[], id: string) =>
    rows.some(r => r.phase === 'after' && r.spotId === id)
  return doc.spots
    .filter(s => s.needed && ((speeds && !at(log.runs, s.id)) || (job.agreedCalls && !at(log.calls, s.id))))
    .map(s => s.name)
}

const LEVELS_ONLY = 'levels read after; what was agreed is not tested yet'

/** Every agreed thing must be tested in every room that must be proved, and met. */
function verdictOf(job: JobDocument['jobs'][number], { judged, calls, drops, untested, levels }: Tested): Proof['verdict'] {
  const { agreedDownMbps: agreedDown, agreedUpMbps: agreedUp, agreedCalls, agreedDrops } = job
  const down = judged?.after.down?.median ?? null
  const up = judged?.after.up?.median ?? null
  const otherwise = (agreedCalls && calls) || (agreedDrops !== null && drops)
  if (down === null && !otherwise)
    return { met: null, words: levels ? LEVELS_ONLY : 'nothing measured after yet', short: 'not proven' }
  if (agreedDown === null && agreedUp === null && !agreedCalls && agreedDrops === null)
    return { met: null, words: `${mbps(down!)} Mbit/s measured; nothing was agreed in Ask`, short: 'nothing agreed' }
  const short: string[] = []
  const open: string[] = []
  if (agreedDown !== null && down === null) open.push('download not tested')
  else if (agreedDown !== null && down! < agreedDown) short.push(`short by ${mbps(agreedDown - down!)} Mbit/s down`)
  if (agreedUp !== null && up === null) open.push('upload not tested')
  else if (agreedUp !== null && up! < agreedUp) short.push(`short by ${mbps(agreedUp - up!)} Mbit/s up`)
  if (agreedCalls && calls && calls.held < calls.tried) short.push(`${calls.tried - calls.held} of ${calls.tried} calls failed`)
  else if (agreedCalls && (calls?.tried ?? 0) < LEAST_CALLS)
    open.push(calls ? `${calls.tried} of ${LEAST_CALLS} calls tested` : 'calls not tested')
  if (agreedDrops !== null && !drops) open.push('drop-outs not watched')
  else if (agreedDrops !== null && drops!.perHour > agreedDrops)
    short.push(`${num(drops!.perHour, 1)} drop-outs an hour, ${given(agreedDrops)} agreed`)
  else if (agreedDrops !== null && drops!.watchedH < LEAST_WATCHED_H) open.push('drop-outs watched for less than an hour')
  const tests = judged?.after.runs.length ?? 0
  if (!short.length && tests && tests < LEAST_TESTS && (agreedDown !== null || agreedUp !== null))
    open.push(`${tests} of ${LEAST_TESTS} speed tests made`)
  if (untested.length) open.push(`${untested.join(', ')} not tested yet`)
  const at = judged ? ` in ${judged.before.spot.name}` : ''
  if (short.length) {
    const noBetter = judged?.before.down && down !== null && down <= judged.before.down.median * 1.1
    return {
      met: false,
      words: `${[...short, ...open].join(', ')}${at}${noBetter ? '; no better than before' : ''}`,
      short: noBetter ? 'no better' : nth(short, 0),
    }
  }
  if (open.length) return { met: null, words: `${open.join(', ')}: not met until it is`, short: nth(open, 0) }
  const agreed = [
    agreedDown !== null && `${given(agreedDown)} down`,
    agreedUp !== null && `${given(agreedUp)} up`,
    agreedCalls && 'calls',
    agreedDrops !== null && `${given(agreedDrops)} drop-outs an hour`,
  ].filter((s): s is string => !!s)
  const list = agreed.length > 1 ? `${agreed.slice(0, -1).join(', ')} and ${agreed.at(-1)}` : nth(agreed, 0)
  return { met: true, words: `meets the ${list} agreed${at}`, short: 'met' }
}

export function linesAt(doc: JobDocument, log: LogIndex, spotId: string | null): SetupLine[] {
  const spot = doc.spots.find(s => s.id === spotId)
  if (!spot) return []
  const rows = [...log.readings, ...log.runs]
    .filter(r => r.spotId === spot.id)
    .sort((a, b) => a.takenAtUtc.localeCompare(b.takenAtUtc))
  const ids = [...new Set(rows.map(r => r.setupId))]
  const lines: SetupLine[] = []
  for (const setupId of ids) {
    const phase = sure(rows.find(r => r.setupId === setupId)).phase
    const summary = summariseSpot(log, spot, phase, { setupId })
    const setup = summary.setup
    const above = lines.at(-1)?.setup ?? null
    lines.push({
      setup,
      words: setup ? setupWords(setup) : 'set-up not noted',
      summary,
      changed: setup && above ? changedBetween(above, setup) : [],
    })
  }
  return lines
}

/** Speeds of two set-ups compared by their logarithms, by blocks of tests one after another. */
export function speedDifference(a: SpotSummary, b: SpotSummary, side: 'downMbps' | 'upMbps', usual: Usual): Difference | null {
  const logs = (s: SpotSummary) =>
    s.runs.flatMap(r => {
      const v = r.wouldNotLoad ? 0 : r[side]
      return v === null ? [] : [{ takenAtUtc: r.takenAtUtc, value: logSpeed(v) }]
    })
  const [before, after] = blocksOf([logs(a), logs(b)])
  return differenceOf(before!, after!, spreadOf(usual, 'speed'))
}

/** Levels of two set-ups compared, readings of one dwell as one. */
export function levelDifference(a: SpotSummary, b: SpotSummary, field: 'rsrpDbm' | 'sinrDb', usual: Usual): Difference | null {
  const values = (s: SpotSummary) =>
    dwellBlocks(s.readings.flatMap(x => (x[field] === null ? [] : [{ takenAtUtc: x.takenAtUtc, value: x[field] }])))
  return differenceOf(values(a), values(b), spreadOf(usual, 'db'))
}

/** @returns by what, and how sure: `3 and 4 tests, p 0.03, by 20 % of a test and 25 % of load between blocks (assumed)` */
export const testWords = (d: Difference, unit: 'speed' | 'db', usual: Usual): string =>
  `${d.counts[0]} and ${d.counts[1]} ${unit === 'speed' ? 'tests' : 'dwells'}, p ${d.p < 0.01 ? '< 0.01' : num(d.p, 2)}, ` +
  `by ${spreadWords(usual, unit)}`

const timesOf = (d: Difference): string => `${num(Math.exp(d.low), 1)} to ${num(Math.exp(d.high), 1)} times`

/** The change between two set-ups that differ in one thing, each by its given name, else by what it is there. */
function pairWords(above: SetupLine, line: SetupLine): string {
  const trait = nth(line.changed, 0)
  const nameOf = (s: SetUp) => s.row.name ?? traitsOf(s).find(([t]) => t === trait)?.[1] ?? `no ${trait}`
  return `${trait}: ${nameOf(above.setup!)} → ${nameOf(line.setup!)}`
}

/** What is shown by two set-ups that differ in one thing alone, on one band. */
export function provenBy(lines: readonly SetupLine[], clock: Clock, usual: Usual): Shown[] {
  return lines.flatMap((line, i) => {
    const above = lines[i - 1]
    if (!above || line.changed.length !== 1) return []
    const { a, b } = speedsAlike(above.summary, line.summary, clock)
    if (!a.down || !b.down || (line.changed[0] !== 'band lock' && a.band && b.band && a.band !== b.band)) return []
    const d = speedDifference(a, b, 'downMbps', usual)
    if (!d) return []
    const t = ratioRange(a.down.median, b.down.median, stepOf(a.down.median), stepOf(b.down.median))
    const by = `${timesOf(d)} nineteen in twenty, ${testWords(d, 'speed', usual)}`
    const few = Math.min(a.down.count, b.down.count) < LEAST_TESTS
    const words = !d.beyondChance
      ? `${few ? 'not enough to say' : 'no difference beyond chance'} (${signed(b.down.median - a.down.median, 1)} Mbit/s; ${by})`
      : t
        ? `${timesWords(t, changePercent(a.down.median, b.down.median))} the download (${by})`
        : `loads where it did not load before (${testWords(d, 'speed', usual)})`
    const settle = settledWords(d)
    return [{ what: pairWords(above, line), words: `${words}${settle && `; ${settle}`}` }]
  })
}

/** Hours of the day this far apart are another load. Assumed. */
const OTHER_HOUR_H = 3

/** What changed together, and what was not tested: computed from the set-ups. */
function unproven(doc: JobDocument, log: LogIndex, judged: SpotProof | null, lines: readonly SetupLine[]): string[] {
  const out: string[] = []
  for (const [i, line] of lines.entries()) {
    const above = lines[i - 1]
    if (!above || line.changed.length < 2) continue
    out.push(`${line.changed.join(', ')} changed together: which of them helped is not shown`)
  }
  if (judged) {
    const { before: b, after: a } = judged
    if (b.band && a.band && b.band !== a.band)
      out.push(`the band changed too (${b.band} before, ${a.band} after): part of it may be the band’s`)
    const cellsOf = (s: SpotSummary) => [...new Set(s.readings.map(x => x.cellId).filter(Boolean))].sort().join(', ')
    if (cellsOf(b) && cellsOf(a) && cellsOf(b) !== cellsOf(a)) out.push('the cell changed too: another mast or sector now serves')
    if (
      b.setup &&
      a.setup &&
      b.setup.antennaDbi !== null &&
      a.setup.antennaDbi !== null &&
      b.setup.antennaDbi !== a.setup.antennaDbi
    )
      out.push(
        `read by ${b.setup.device?.name ?? 'one device'} before and by ${a.setup.device?.name ?? 'another'} after: ` +
          'levels differ by their antennas alone',
      )
    const hour = (t: string) => new Date(t).getUTCHours()
    if (b.runs.length && a.runs.length && !judged.hours) {
      const gap = Math.abs(hour(nth(b.runs, 0).takenAtUtc) - hour(nth(a.runs, 0).takenAtUtc))
      const hours = Math.min(gap, 24 - gap)
      if (hours >= OTHER_HOUR_H) out.push(`speeds were taken ${hours} hours apart in the day: the load may differ`)
    }
    if (a.runs.length && a.runs.length < LEAST_TESTS)
      out.push(`${a.runs.length === 1 ? 'one speed test is' : 'two speed tests are'} noise: take three or more`)
  }
  const after = new Set([...log.readings, ...log.runs].filter(r => r.phase === 'after').map(r => r.spotId))
  const missing = doc.spots.filter(s => s.needed && !after.has(s.id))
  if (after.size && missing.length) out.push(`not tested after: ${missing.map(s => s.name).join(', ')}`)
  return out
}
