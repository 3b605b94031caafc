/** Survey judged: is there a baseline, is it a cap, is it the level at all. */
import type { Reading } from '../job/schema'
import { carrierWidths } from '../radio/bands'
import { capSuspected } from '../survey/spots'
import { num } from '../units'
import type { Context } from './context'
import { COMMON, finding } from './finding'
import type { Finding } from './finding'

export function surveyFindings(c: Context): Finding[] {
  const { job, log, before } = c
  const out: Finding[] = [...oddWidths(c)]
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
  const cap = capSuspected(log)
  if (cap !== null && job.planCapMbps === null) {
    out.push(
      finding('survey', {
        code: 'survey.cap',
        subjectId: job.id,
        severity: 'fix',
        title: `Looks like a plan cap of ${num(cap)} Mbit/s`,
        sentence: 'The best of both directions stops at the same round figure: no antenna lifts a cap. Ask the carrier.',
        because: 'download and upload end within 6 % of one figure',
        source: COMMON,
        cures: [
          {
            label: `note a cap of ${num(cap)} Mbit/s`,
            gain: 'promise told truly',
            cost: '',
            enough: true,
            steps: [{ table: 'jobs', op: 'update', rowId: job.id, fields: { planCapMbps: cap } }],
          },
        ],
      }),
    )
  }
  for (const s of before) {
    if (s.rsrp && s.sinr && s.down && s.rsrp.median >= -100 && s.sinr.median < 5) {
      out.push(
        finding('survey', {
          code: 'survey.level-not-speed',
          subjectId: s.spot.id,
          severity: 'note',
          title: `Level is not the trouble at ${s.spot.name}`,
          sentence:
            `${num(s.rsrp.median)} dBm is workable but SINR is ${num(s.sinr.median)} dB: other cells or a full ` +
            `band. Compare bands one by one; a booster would not help.`,
          because: 'noise alone would leave more than 20 dB at this level',
          source: 'thermal noise, NF 9 dB (3GPP TR 36.942)',
        }),
      )
    }
  }
  return out
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
