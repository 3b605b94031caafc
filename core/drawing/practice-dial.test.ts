import { describe, expect, it } from 'vitest'
import { layoutPractice } from './dial'
import type { PracticeDial } from './dial'

const dial = (more: Partial<PracticeDial> = {}) =>
  layoutPractice({ size: 400, headingDeg: 90, beamwidthDeg: 50, taken: [], struckDeg: [], truth: null, ...more })
const styles = (d: ReturnType<typeof dial>) => d.primitives.map(p => p.style)
const bars = (d: ReturnType<typeof dial>) =>
  d.primitives.flatMap(p => (p.kind === 'line' && p.style === 'measuredBar' ? [Math.hypot(p.x2 - p.x1, p.y2 - p.y1)] : []))

describe('the dial of an exercise', () => {
  it('what is hidden stays hidden until it is locked', () => {
    expect(styles(dial())).not.toContain('pinChosen')
    expect(styles(dial())).not.toContain('good')
    const told = dial({ truth: { bestDeg: 180, mastDeg: 0 } })
    const mast = told.primitives.find(p => p.style === 'pinChosen')!
    expect(mast.kind === 'circle' && [mast.x, Math.round(mast.y)]).toEqual([200, 34])
  })
  it('the better reading has the longer bar, one alone has a bar, none has none', () => {
    const [low, high] = bars(
      dial({
        taken: [
          { headingDeg: 0, value: -95 },
          { headingDeg: 90, value: -80 },
        ],
      }),
    )
    expect(high).toBeGreaterThan(low!)
    expect(bars(dial({ taken: [{ headingDeg: 0, value: -95 }] }))).toHaveLength(1)
    expect(bars(dial())).toEqual([])
  })
  it('a position out of reach is marked, and everything stays on the drawing', () => {
    const d = dial({ struckDeg: [90, 135] })
    expect(styles(d).filter(s => s === 'bad')).toHaveLength(2)
    for (const p of d.primitives)
      if (p.kind === 'line') expect([p.x1, p.x2, p.y1, p.y2].every(v => v >= 0 && v <= 400)).toBe(true)
  })
})
