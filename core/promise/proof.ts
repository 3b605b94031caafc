/** Set-ups compared at the same spots, in the right words: what it came to, what that proves, and what it does not. */
import type { JobDocument } from '../job/schema'
import type { LogIndex, SpotSummary } from '../survey/spots'
import { summariseSpot } from '../survey/spots'
import { changedBetween, setupWords } from '../survey/setups'
import type { SetUp, Trait } from '../survey/setups'
import { byDwell, differenceOf, USUAL_SPREAD } from '../survey/difference'
import type { Difference } from '../survey/difference'
import { changePercent, ratioRange, stepOf } from '../survey/stats'
import { given, num, signed } from '../units'

export interface SpotProof {
  before: SpotSummary
  after: SpotSummary
  rsrpChangeDb: number | null
  sinrChangeDb: number | null
  downTimes: { low: number; mid: number; high: number } | null
  downPercent: number | null
  upTimes: { low: number; mid: number; high: number } | null
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
  verdict: { met: boolean | null; words: string; short: string }
  scored: { expected: number; low: number; high: number; got: number; inside: boolean } | null
  unproven: string[]
  nextStep: string | null
}

export function prove(doc: JobDocument, log: LogIndex, expected: { median: number; low: number; high: number } | null): Proof {
  const job = doc.jobs[0]!
  const spots = doc.spots
    .map((spot): SpotProof => compare(summariseSpot(log, spot, 'before'), summariseSpot(log, spot, 'after')))
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
  return {
    spots,
    judged,
    lines,
    proven: provenBy(lines),
    calls,
    verdict: verdictOf(job, judged, calls),
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
    nextStep: nextStep(judged, got, job.agreedDownMbps),
  }
}

/** @returns `about 120 times (108 to 141)`, `4.9 times (+390 %)`, or the two ends where they lie far apart */
export function timesWords(t: { low: number; mid: number; high: number }, percent: number | null): string {
  const round = (v: number): string => (v >= 20 ? num(Math.round(v)) : num(v, 1))
  const about = (v: number): string => (v >= 20 ? num(Number(v.toPrecision(2))) : num(v, 1))
  if (t.high / t.low > 1.15) return `about ${about(t.mid)} times (${round(t.low)} to ${round(t.high)})`
  return `${num(t.mid, 1)} times${percent !== null ? ` (${signed(percent)} %)` : ''}`
}

function compare(before: SpotSummary, after: SpotSummary): SpotProof {
  const diff = (a: { median: number } | null, b: { median: number } | null) => (a && b ? b.median - a.median : null)
  const alike = before.band === after.band
  const rsrpChangeDb = diff(before.rsrp, after.rsrp)
  const sinrChangeDb = diff(before.sinr, after.sinr)
  const times = (a: SpotSummary['down'], b: SpotSummary['down']) =>
    a && b ? ratioRange(a.median, b.median, stepOf(a.median), stepOf(b.median)) : null
  const downTimes = times(before.down, after.down)
  const downPercent = before.down && after.down ? changePercent(before.down.median, after.down.median) : null
  const parts: string[] = []
  const other = alike || !before.band || !after.band ? '' : `, ${before.band} before and ${after.band} after`
  const level = (what: string, field: 'rsrpDbm' | 'sinrDb', by: number) => {
    const d = levelDifference(before, after, field)
    return `${signed(by)} dB of ${what}${d ? ` (${signed(d.low)} to ${signed(d.high)})` : ''}`
  }
  if (rsrpChangeDb !== null) parts.push(`${level('RSRP', 'rsrpDbm', rsrpChangeDb)}${other}`)
  if (sinrChangeDb !== null) parts.push(level('SINR', 'sinrDb', sinrChangeDb))
  if (downTimes) parts.push(`${timesWords(downTimes, downPercent)} the download`)
  else if (before.down && before.down.median === 0 && after.down)
    parts.push(after.down.median > 0 ? 'loads where it did not load before' : 'still does not load')
  return {
    before,
    after,
    rsrpChangeDb,
    sinrChangeDb,
    downTimes,
    downPercent,
    upTimes: times(before.up, after.up),
    words:
      parts.join(', ') || (after.readings.length + after.runs.length ? 'nothing to compare with before' : 'not measured after'),
  }
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

/** Every agreed thing must be tested, and met. */
function verdictOf(job: JobDocument['jobs'][number], judged: SpotProof | null, calls: CallsProof | null): Proof['verdict'] {
  const { agreedDownMbps: agreedDown, agreedUpMbps: agreedUp, agreedCalls } = job
  const down = judged?.after.down?.median ?? null
  const up = judged?.after.up?.median ?? null
  if (down === null && !(agreedCalls && calls)) return { met: null, words: 'nothing measured after yet', short: 'not proven' }
  if (agreedDown === null && agreedUp === null && !agreedCalls)
    return { met: null, words: `${num(down!, 1)} Mbit/s measured; nothing was agreed in Ask`, short: 'nothing agreed' }
  const short: string[] = []
  const open: string[] = []
  if (agreedDown !== null && down === null) open.push('download not tested')
  else if (agreedDown !== null && down! < agreedDown) short.push(`short by ${num(agreedDown - down!, 1)} Mbit/s down`)
  if (agreedUp !== null && up === null) open.push('upload not tested')
  else if (agreedUp !== null && up! < agreedUp) short.push(`short by ${num(agreedUp - up!, 1)} Mbit/s up`)
  if (agreedCalls && calls && calls.held < calls.tried) short.push(`${calls.tried - calls.held} of ${calls.tried} calls failed`)
  else if (agreedCalls && (calls?.tried ?? 0) < LEAST_CALLS)
    open.push(calls ? `${calls.tried} of ${LEAST_CALLS} calls tested` : 'calls not tested')
  const at = judged ? ` in ${judged.before.spot.name}` : ''
  if (short.length) {
    const noBetter = judged?.before.down && down !== null && down <= judged.before.down.median * 1.1
    return {
      met: false,
      words: `${[...short, ...open].join(', ')}${at}${noBetter ? '; no better than before' : ''}`,
      short: noBetter ? 'no better' : short[0]!,
    }
  }
  if (open.length) return { met: null, words: `${open.join(', ')}${at}: not met until it is`, short: open[0]! }
  const agreed = [
    agreedDown !== null && `${given(agreedDown)} down`,
    agreedUp !== null && `${given(agreedUp)} up`,
    agreedCalls && 'calls',
  ].filter((s): s is string => !!s)
  const list = agreed.length > 1 ? `${agreed.slice(0, -1).join(', ')} and ${agreed.at(-1)}` : agreed[0]!
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
    const phase = rows.find(r => r.setupId === setupId)!.phase
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

/** Speed tests from which a median is one. @source three or more, common practice (no source) */
const LEAST_TESTS = 3
/** A test that did not load counts as so little, Mbit/s: its logarithm is wanted. Assumed. */
const NOTHING_MBPS = 0.02

/** Speeds of two set-ups compared by their logarithms, tests of one dwell as they are: each loads the cell anew. */
export function speedDifference(a: SpotSummary, b: SpotSummary, side: 'downMbps' | 'upMbps'): Difference | null {
  const logs = (s: SpotSummary) =>
    s.runs.flatMap(r => {
      const v = r.wouldNotLoad ? 0 : r[side]
      return v === null ? [] : [Math.log(Math.max(NOTHING_MBPS, v))]
    })
  return differenceOf(logs(a), logs(b), USUAL_SPREAD.speed)
}

/** Levels of two set-ups compared, readings of one dwell as one. */
export function levelDifference(a: SpotSummary, b: SpotSummary, field: 'rsrpDbm' | 'sinrDb'): Difference | null {
  const values = (s: SpotSummary) =>
    byDwell(s.readings.flatMap(x => (x[field] === null ? [] : [{ takenAtUtc: x.takenAtUtc, value: x[field] }])))
  return differenceOf(values(a), values(b), USUAL_SPREAD.db)
}

/** @returns by which test, and how sure: `rank sum, p 0.03`, `by the usual spread of 20 %` */
export function testWords(d: Difference, unit: 'speed' | 'db'): string {
  if (d.p !== null) return `rank sum, p ${d.p < 0.01 ? '< 0.01' : num(d.p, 2)}`
  return `${d.counts[0]} and ${d.counts[1]}, usual spread of ${unit === 'speed' ? '20 %' : '2 dB'} assumed`
}

const timesOf = (d: Difference): string => `${num(Math.exp(d.low), 1)} to ${num(Math.exp(d.high), 1)} times`

/** What is shown by two set-ups that differ in one thing alone, on one band. */
export function provenBy(lines: readonly SetupLine[]): Shown[] {
  return lines.flatMap((line, i) => {
    const above = lines[i - 1]
    if (!above || line.changed.length !== 1) return []
    const [a, b] = [above.summary, line.summary]
    if (!a.down || !b.down || (line.changed[0] !== 'band lock' && a.band && b.band && a.band !== b.band)) return []
    const d = speedDifference(a, b, 'downMbps')
    if (!d) return []
    const t = ratioRange(a.down.median, b.down.median, stepOf(a.down.median), stepOf(b.down.median))
    const by = `${timesOf(d)} nine in ten, ${testWords(d, 'speed')}`
    const few = Math.min(a.down.count, b.down.count) < LEAST_TESTS ? ', by too few tests' : ''
    const words = !d.beyondChance
      ? `no difference beyond chance (${signed(b.down.median - a.down.median, 1)} Mbit/s; ${by})`
      : t
        ? `${timesWords(t, changePercent(a.down.median, b.down.median))} the download (${by})`
        : `loads where it did not load before (${testWords(d, 'speed')})`
    return [{ what: line.changed[0]!, words: `${words}${few}` }]
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
    if (b.runs.length && a.runs.length) {
      const gap = Math.abs(hour(b.runs[0]!.takenAtUtc) - hour(a.runs[0]!.takenAtUtc))
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

function nextStep(judged: SpotProof | null, got: number | null, agreed: number | null): string | null {
  if (got === null) return 'test at the same spots, at the same hour as before'
  if (agreed === null || got >= agreed) return null
  const sinr = judged?.after.sinr?.median
  const rsrp = judged?.after.rsrp?.median
  if (sinr !== undefined && sinr < 5 && rsrp !== undefined && rsrp > -105)
    return 'the level is there but not the SINR: re-aim for SINR, or lock another band and test again'
  if (rsrp !== undefined && rsrp < -113)
    return 'the level is still low: check plugs and cable for the loss expected, then raise the antenna'
  if (sinr !== undefined && sinr > 12)
    return 'the radio is good and the speed is not: test another band and another hour; look for a plan cap'
  return 'aim again in finer steps about the best heading, then test three times'
}
