/** Survey judged: is there a baseline, is it a cap, is it the level at all. */
import { nth } from '../sure'
import type { Reading } from '../job/schema'
import { carrierWidths } from '../radio/bands'
import { capsSeen } from '../survey/caps'
import { given, mbps, num } from '../units'
import { noiseLimitedSinrDb } from '../radio/grades'
import { carrierRateMbps } from '../radio/rate'
import { visitsOf } from '../survey/best'
import { cellCorrections, hexCells } from '../masts/hex-cells'
import { ASSUMED_BANDWIDTH_MHZ } from '../masts/predict'
import type { SpotSummary } from '../survey/spots'
import { DEEPEST_FADE_DB, grouped, rangeOf } from '../survey/spread'
import { median } from '../survey/stats'
import type { Context } from './context'
import { COMMON, finding } from './finding'
import type { Finding } from './finding'

export function surveyFindings(c: Context): Finding[] {
  const { job, log, before } = c
  const out: Finding[] = [...apart(c), ...oddWidths(c), ...cellsInHex(c)]
  const baseline = before.find(s => s.spot.id === job.baselineSpotId)
  if (before.length && !baseline) {
    out.push(
      finding('survey', {
        code: 'survey.no-baseline',
        subjectId: job.id,
        severity: 'note',
        title: 'No baseline chosen',
        sentence: 'Mark the spot where the device stands today: before and after are told from there.',
        because: 'one record of before, kept',
        source: COMMON,
      }),
    )
  } else if (baseline && !baseline.runs.length) {
    out.push(
      finding('survey', {
        code: 'survey.baseline-speed',
        subjectId: baseline.spot.id,
        severity: 'note',
        title: 'No speed test at the baseline',
        sentence: `Run one at ${baseline.spot.name} before anything is touched, even if it will not load.`,
        because: 'the share of the cell is calibrated by the baseline’s own speed',
        source: COMMON,
      }),
    )
  }
  for (const cap of capsSeen(log, c.doc.sims)) {
    const sim = c.doc.sims.find(x => x.id === cap.simId)
    if (sim?.capDownMbps != null && sim.capUpMbps != null) continue
    out.push(
      finding('survey', {
        code: 'survey.cap',
        subjectId: sim?.id ?? job.id,
        severity: 'fix',
        title: `Looks like a plan cap of ${given(cap.downMbps)} Mbit/s${cap.simName ? ` on ${cap.simName}` : ''}`,
        sentence: 'Test after test, both ways, ends at the same round figure: no antenna lifts a cap. Ask the carrier.',
        because: 'at least three tests each way within 6 % of one figure, short bursts left out',
        source: COMMON,
        cures: sim
          ? [
              {
                label: `note a cap of ${given(cap.downMbps)} Mbit/s`,
                gain: 'promise told truly',
                cost: '',
                enough: true,
                steps: [
                  {
                    table: 'sims',
                    op: 'update',
                    rowId: sim.id,
                    fields: { capDownMbps: cap.downMbps, capUpMbps: cap.upMbps },
                  },
                ],
              },
            ]
          : [],
      }),
    )
  }
  for (const s of before) {
    const full = fullBand(c, s)
    if (full)
      out.push(
        finding('survey', {
          code: 'survey.level-not-speed',
          subjectId: s.spot.id,
          severity: 'note',
          title: `Level is not the trouble at ${s.spot.name}`,
          sentence: `${full} Compare bands one by one, and hours; a booster would not help.`,
          because: `noise alone would leave ${num(noiseLimitedSinrDb(s.rsrp!.median))} dB of SINR at this level`,
          source: 'thermal noise, NF 9 dB (3GPP TR 36.942)',
        }),
      )
  }
  return out
}

/** What no fading does: readings of one set-up, one band and one place in one go, too far apart for all of them to stand. */
function apart({ log, doc }: Context): Finding[] {
  const read = log.readings.filter(r => r.rsrpDbm !== null)
  return grouped(read, r => `${r.spotId} ${r.setupId} ${r.phase} ${r.band} ${r.carrierRole}`)
    .flatMap(g => visitsOf(g))
    .flatMap(visit => {
      const levels = visit.map(r => r.rsrpDbm!)
      const db = rangeOf(levels)
      if (db <= DEEPEST_FADE_DB) return []
      const spot = doc.spots.find(s => s.id === nth(visit, 0).spotId)
      const middle = median(levels)
      const odd = visit.reduce((a, b) => (Math.abs(b.rsrpDbm! - middle) > Math.abs(a.rsrpDbm! - middle) ? b : a))
      return [
        finding('survey', {
          code: 'survey.readings-apart',
          subjectId: odd.id,
          severity: 'fix',
          title: `${spot?.name ?? 'A spot'} reads ${num(Math.min(...levels))} and ${num(Math.max(...levels))} dBm in one go`,
          sentence:
            `No fading is ${num(db)} dB deep: one of them was mistyped, or is of another band, antenna or quantity. ` +
            'Withdraw it, or give it its own set-up; until then it is in the median and in no spread.',
          because: `readings of one set-up and band within a quarter of an hour lie within ${num(DEEPEST_FADE_DB)} dB`,
          source: 'Rayleigh fading: 30 dB under the mean once in a thousand; the limit is assumed',
        }),
      ]
    })
}

/** Cells as an older program kept them: mended by corrections, never in place. */
function cellsInHex({ log, job }: Context): Finding[] {
  const cells = hexCells(log)
  if (!cells.length) return []
  const codes = [...new Set(cells.map(c => c.row.cellId!))]
  const one = cells.length === 1
  return [
    finding('survey', {
      code: 'survey.cells-in-hex',
      subjectId: job.id,
      severity: 'fix',
      title: `${cells.length} ${one ? 'row tells its cell' : 'rows tell their cell'} in hexadecimal`,
      sentence:
        `${codes.slice(0, 3).join(', ')}${codes.length > 3 ? ' …' : ''}: as a modem says it. Lists of masts have cells ` +
        'decimal, so that these match no mast, or another one.',
      because: 'a cell with a letter in it is hexadecimal, and what its device told before it is, too',
      source: '3GPP TS 27.007, +CEREG and +C5GREG, from memory',
      cures: [
        {
          label: `correct ${one ? 'it' : `all ${cells.length}`} to decimal`,
          gain: 'the mast is matched by its cell',
          cost: '',
          enough: true,
          steps: cellCorrections(cells),
        },
      ],
    }),
  ]
}

/** Widths that one carrier of its technology cannot have: several carriers, or NR, or a slip of the finger. */
function oddWidths({ log }: Context): Finding[] {
  const odd = new Map<string, Reading>()
  for (const r of log.readings) {
    if (r.bandwidthMHz === null || carrierWidths(r.technology).includes(r.bandwidthMHz)) continue
    odd.set(`${r.technology} ${r.band} ${r.bandwidthMHz}`, r)
  }
  return [...odd.values()].map(r =>
    finding('survey', {
      code: 'survey.width',
      subjectId: r.id,
      severity: 'note',
      title: `No ${r.technology} carrier is ${num(r.bandwidthMHz!, r.bandwidthMHz! % 1 ? 1 : 0)} MHz wide`,
      sentence:
        r.technology === 'LTE'
          ? `Several carriers together${r.bandwidthMHz! > 20 ? ', or NR' : ''}? Read each carrier’s own width off the modem’s page; ` +
            'until then the sum takes its share of the spectrum.'
          : 'Read the carrier’s own width off the modem’s page; until then the sum takes its share of the spectrum.',
      because: `one ${r.technology} carrier is ${carrierWidths(r.technology).join(', ')} MHz wide`,
      source: r.technology === 'LTE' ? '3GPP TS 36.101 table 5.6-1' : '3GPP TS 38.101-1 table 5.3.2-1',
    }),
  )
}

/** Level from which a slow link is not the level's fault, dBm, and the share of what noise alone would carry that is slow. Assumed. */
const FINE_DBM = -100
const SLOW_SHARE = 0.1
const LOW_SINR_DB = 5

/** @returns why the band, not the level, is the trouble; null where it is not. Level and speed tell it where SINR is not shown. */
function fullBand(c: Context, s: SpotSummary): string | null {
  if (!s.rsrp || !s.down || s.rsrp.median < FINE_DBM) return null
  const level = `RSRP ${num(s.rsrp.median)} dBm is workable`
  if (s.sinr)
    return s.sinr.median < LOW_SINR_DB ? `${level} but SINR is ${num(s.sinr.median)} dB: other cells, or a full band.` : null
  const widthMHz = s.readings.find(r => r.bandwidthMHz)?.bandwidthMHz ?? ASSUMED_BANDWIDTH_MHZ
  const could = carrierRateMbps(noiseLimitedSinrDb(s.rsrp.median), widthMHz, 1)
  const capped = c.doc.sims.some(x => x.capDownMbps !== null && s.down!.median > 0.8 * x.capDownMbps)
  return s.down.median < SLOW_SHARE * could && !capped
    ? `${level} but ${mbps(s.down.median)} Mbit/s is a small part of what this level could carry: the band is full.`
    : null
}
