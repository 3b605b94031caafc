/** Before and after at the same spots, in the right words. */
import { changePercent, ratioRange } from '../survey/stats'
import type { JobDocument } from '../job/schema'
import type { LogIndex, SpotSummary } from '../survey/spots'
import { summariseSpot } from '../survey/spots'
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

export interface Proof {
  spots: SpotProof[]
  /** the spot that the verdict is about */
  judged: SpotProof | null
  verdict: { met: boolean | null; words: string; short: string }
  scored: { expected: number; low: number; high: number; got: number; inside: boolean } | null
  unproven: string[]
  nextStep: string | null
}

/** Smallest step of a speed display, Mbit/s. @source common practice (no source) */
const SPEED_STEP = 0.1

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
  const agreed = job.agreedDownMbps
  return {
    spots,
    judged,
    verdict: verdictOf(got, judged?.after.up?.median ?? null, agreed, job.agreedUpMbps, judged),
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
    unproven: unproven(doc, log, judged),
    nextStep: nextStep(judged, got, agreed),
  }
}

function compare(before: SpotSummary, after: SpotSummary): SpotProof {
  const diff = (a: { median: number } | null, b: { median: number } | null) => (a && b ? b.median - a.median : null)
  const rsrpChangeDb = diff(before.rsrp, after.rsrp)
  const sinrChangeDb = diff(before.sinr, after.sinr)
  const times = (a: SpotSummary['down'], b: SpotSummary['down']) => (a && b ? ratioRange(a.median, b.median, SPEED_STEP) : null)
  const downTimes = times(before.down, after.down)
  const downPercent = before.down && after.down ? changePercent(before.down.median, after.down.median) : null
  const parts: string[] = []
  if (rsrpChangeDb !== null) parts.push(`${signed(rsrpChangeDb)} dB of level`)
  if (sinrChangeDb !== null) parts.push(`${signed(sinrChangeDb)} dB of SINR`)
  if (downTimes) {
    parts.push(
      downTimes.high / downTimes.low > 1.5
        ? `${num(downTimes.low, 1)} to ${num(downTimes.high, 1)} times the download`
        : `${num(downTimes.mid, 1)} times the download (${signed(downPercent!)} %)`,
    )
  } else if (before.down && before.down.median < SPEED_STEP && after.down) {
    parts.push(after.down.median > 0 ? 'loads where it did not load before' : 'still does not load')
  }
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

function verdictOf(
  down: number | null,
  up: number | null,
  agreedDown: number | null,
  agreedUp: number | null,
  judged: SpotProof | null,
): Proof['verdict'] {
  if (down === null) return { met: null, words: 'nothing measured after yet', short: 'not proven' }
  if (agreedDown === null && agreedUp === null)
    return { met: null, words: `${num(down, 1)} Mbit/s measured; nothing was agreed in Ask`, short: 'nothing agreed' }
  const shorts: string[] = []
  if (agreedDown !== null && down < agreedDown) shorts.push(`short by ${num(agreedDown - down, 1)} Mbit/s down`)
  if (agreedUp !== null && (up ?? 0) < agreedUp)
    shorts.push(up === null ? 'upload not measured' : `short by ${num(agreedUp - up, 1)} Mbit/s up`)
  const at = judged ? ` in ${judged.before.spot.name}` : ''
  if (!shorts.length) {
    const agreed = [agreedDown !== null && `${given(agreedDown)} down`, agreedUp !== null && `${given(agreedUp)} up`]
    return { met: true, words: `meets the ${agreed.filter(Boolean).join(' and ')} agreed${at}`, short: 'met' }
  }
  const noBetter = judged?.before.down && down <= judged.before.down.median * 1.1
  return {
    met: false,
    words: `${shorts.join(', ')}${at}${noBetter ? '; no better than before' : ''}`,
    short: noBetter ? 'no better' : shorts[0]!,
  }
}

/** Two things changed at once leave open which of them did it. */
function unproven(doc: JobDocument, log: LogIndex, judged: SpotProof | null): string[] {
  const out: string[] = []
  for (const p of judged ? [judged] : []) {
    const b = p.before.readings
    const a = p.after.readings
    const bands = (r: typeof b) => [...new Set(r.map(x => x.band).filter(Boolean))].sort().join(', ')
    if (b.length && a.length && bands(b) !== bands(a))
      out.push(`the band changed with the antenna (${bands(b)} before, ${bands(a)} after): which of the two helped is not shown`)
    const cellsOf = (r: typeof b) => [...new Set(r.map(x => x.cellId).filter(Boolean))].sort().join(', ')
    if (cellsOf(b) && cellsOf(a) && cellsOf(b) !== cellsOf(a)) out.push('the cell changed too: another mast or sector now serves')
    const devices = (r: typeof b) => [...new Set(r.map(x => x.device))].sort().join(', ')
    if (b.length && a.length && devices(b) !== devices(a))
      out.push(`read by ${devices(b)} before and by ${devices(a)} after: levels differ by their antennas alone`)
    const hour = (t: string) => new Date(t).getUTCHours()
    const runsB = p.before.runs
    const runsA = p.after.runs
    if (runsB.length && runsA.length) {
      const gap = Math.abs(hour(runsB[0]!.takenAtUtc) - hour(runsA[0]!.takenAtUtc))
      if (Math.min(gap, 24 - gap) >= 3)
        out.push(`speeds were taken ${Math.min(gap, 24 - gap)} hours apart in the day: the load may differ`)
    }
    if (runsA.length && runsA.length < 3)
      out.push(`${runsA.length === 1 ? 'one speed test is' : 'two speed tests are'} noise: take three or more`)
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
