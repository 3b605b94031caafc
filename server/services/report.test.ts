import { describe, expect, it } from 'vitest'
import { layoutDial } from '../../core/drawing/dial'
import { assess } from '../../core/judge/assess'
import { makeReport } from '../../core/report/report'
import { demoScenario } from '../../demo/scenario'
import { printable, renderPdf } from './paper'

const doc = demoScenario().jobs[0]!.document
const a = assess(doc, { paths: {} }, { atUtc: '2026-04-03T12:00:00.000Z' })

describe('the report on paper', () => {
  it('writes signs that the shipped faces lack as words', () => {
    expect(printable(['400-type, 50\u2009Ω', '50 Ω', 'antenna +7.0 → −53', '5.2↓'])).toEqual([
      '400-type, 50 ohm',
      '50 ohm',
      'antenna +7.0 to −53',
      '5.2down',
    ])
    expect(printable({ a: [1, null, 'x'] })).toEqual({ a: [1, null, 'x'] })
  })
  it('is a whole PDF that names its title, for a job with no terrain and none of its paths', async () => {
    const report = makeReport(doc, a, { units: 'imperial', crew: 'Harbour crew', by: 'Ila Marrow' })
    const pdf = await renderPdf({
      ...report,
      blocks: [
        ...report.blocks,
        {
          kind: 'drawing',
          title: 'Dial',
          drawing: layoutDial(a, { size: 300, masts: 3, showSweep: true, headingDeg: 10, selectedId: null }),
          caption: '',
        },
      ],
    })
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
    expect(pdf.subarray(-8).toString()).toContain('%%EOF')
    expect(pdf.length).toBeGreaterThan(20_000)
  })
  it('without a result says that nothing was measured, not that it is good', () => {
    const isBefore = (r: { setupId: string | null }) => doc.setups.find(s => s.id === r.setupId)?.mark !== 'after'
    const resultOf = (of: typeof doc) => {
      const report = makeReport(of, assess(of, { paths: {} }, { atUtc: '2026-04-03T12:00:00.000Z' }), {
        units: 'metric',
        crew: 'c',
        by: 'b',
      })
      const facts = report.blocks[0]!
      return facts.kind === 'facts' && facts.rows.find(r => r[0] === 'Result')![1]
    }
    const untested = { ...doc, speedRuns: doc.speedRuns.filter(isBefore) }
    // Levels alone are no test of what was agreed.
    expect(resultOf(untested)).toBe('levels read after; what was agreed is not tested yet')
    expect(resultOf({ ...untested, readings: doc.readings.filter(isBefore) })).toBe('nothing measured after yet')
  })
  it('keeps the customer out once forgotten', () => {
    const forgotten = { ...doc, jobs: [{ ...doc.jobs[0]!, customerName: null, customerContact: null, customerAddress: null }] }
    const report = makeReport(forgotten, assess(forgotten, { paths: {} }, { atUtc: '2026-04-03T12:00:00.000Z' }), {
      units: 'metric',
      crew: 'c',
      by: 'b',
    })
    expect(JSON.stringify(report)).not.toContain('Lorne')
    expect(JSON.stringify(report.blocks[0])).not.toContain('Customer')
  })
})
