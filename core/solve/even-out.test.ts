import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { partOfKind } from '../catalogue/parts'
import { misfits } from '../fitting/joints'
import { servedShare } from '../separation/isolation'
import { fansOf } from '../judge/uneven'

const thin = partOfKind('line-195', 'line')!
/** Of a need that one amplifier can meet on every floor. */
const building = () => new House('booster', 'building').reads('Roof', -84).reads('Reception', -112, 4).job({ needDataDbm: -100 })

describe('antennas of a building', () => {
  it('hung one behind the other are fed unevenly, and the cure brings each within 3 dB of its target', () => {
    const h = building()
    // The last dome of each floor on a long thin cable, as it is drawn by hand.
    const far = h.doc.runs.filter(r => h.doc.nodes.find(n => n.id === r.toNodeId)?.partId === 'ant-dome')
    far.forEach((r, i) => h.set('runs', r.id, { lengthM: 5 + 9 * (i % 4), partId: thin.id, part: thin }))
    const before = h.finding('level.uneven')
    expect(before?.solves).toBe(true)
    const [cure] = h.cures('level.uneven')
    expect(cure!.enough).toBe(true)
    h.cure(cure!)
    const [fan] = fansOf(h.worked())
    expect(fan!.servers).toHaveLength(far.length)
    // Joints between parts are reckoned a little dear: half a dB is left for that.
    expect(fan!.spreadDb).toBeLessThanOrEqual(6.6)
    expect(misfits(h.context().tree!).filter(m => m.kind === 'plug')).toEqual([])
    expect(h.context().tree!.loose).toEqual([])
    expect(h.finding('level.uneven')).toBeUndefined()
  })
  it('every antenna keeps its place and its part', () => {
    const h = building()
    const before = h.doc.nodes.filter(n => n.partId === 'ant-dome').map(n => ({ ...n }))
    h.doc.runs
      .filter(r => r.lengthM > 0)
      .forEach((r, i) => h.set('runs', r.id, { lengthM: 5 + 12 * (i % 3), partId: thin.id, part: thin }))
    h.cured('level.uneven')
    expect(h.doc.nodes.filter(n => n.partId === 'ant-dome')).toEqual(before)
  })
  it('the area served shrinks to about 85 % for each dB of ten lost at n = 2.8', () => {
    // 10^(−2Δ/(10n)), n 2.8: 1 dB leaves 84.8 %, 10 dB leaves 19.3 %.
    expect(servedShare(0)).toBe(1)
    expect(servedShare(1)).toBeCloseTo(0.848, 3)
    expect(servedShare(10)).toBeCloseTo(0.193, 3)
  })
})
