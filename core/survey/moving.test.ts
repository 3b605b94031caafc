import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { BARE_SETUP } from '../job/defaults'
import { countUnder, movedTo } from './moving'

function house() {
  const h = new House(null)
  const [wrong, right] = ['Phone', 'Router'].map(name => h.add('setups', { ...BARE_SETUP, name }))
  for (const dbm of [-100, -102]) h.read('Kitchen', dbm, 8, { setupId: wrong })
  h.read('Hall', -95, 8, { setupId: wrong })
  h.read('Kitchen', -90, 12, { setupId: right })
  return { h, wrong: wrong!, right: right!, kitchen: h.spot('Kitchen').id }
}
const apply = (h: House, steps: ReturnType<typeof movedTo>) => steps.forEach(s => h.add(s.table, s.fields))

describe('readings moved to another set-up', () => {
  it('stand under it with their own figures and time, and no longer under the first; the log has lost nothing', () => {
    const { h, wrong, right, kitchen } = house()
    const before = h.doc.readings.length
    const figures = h.doc.readings.filter(r => r.setupId === wrong && r.spotId === kitchen).map(r => [r.rsrpDbm, r.takenAtUtc])
    apply(h, movedTo(h.doc, { fromId: wrong, toId: right, spotId: kitchen }))
    expect(h.doc.readings).toHaveLength(before + 2)
    expect(countUnder(h.doc, wrong, kitchen).readings).toBe(0)
    expect(countUnder(h.doc, right, kitchen).readings).toBe(3)
    const moved = h.doc.readings.filter(r => r.replacesId !== null).map(r => [r.rsrpDbm, r.takenAtUtc])
    expect(moved).toEqual(figures)
    // The other spot keeps its own.
    expect(countUnder(h.doc, wrong, null).readings).toBe(1)
  })
  it('at every spot, and back again, is where it began', () => {
    const { h, wrong, right } = house()
    const under = (id: string) => countUnder(h.doc, id, null).readings
    const third = h.add('setups', { ...BARE_SETUP, name: 'third' })
    apply(h, movedTo(h.doc, { fromId: wrong, toId: third, spotId: null }))
    expect([under(wrong), under(right), under(third)]).toEqual([0, 1, 3])
    apply(h, movedTo(h.doc, { fromId: third, toId: wrong, spotId: null }))
    expect([under(wrong), under(right), under(third)]).toEqual([3, 1, 0])
  })
  it('to the same set-up is nothing, and one withdrawn stays withdrawn', () => {
    const { h, wrong, right, kitchen } = house()
    expect(movedTo(h.doc, { fromId: wrong, toId: wrong, spotId: null })).toEqual([])
    const first = h.doc.readings[0]!
    h.add('readings', { ...first, id: undefined, withdrawn: true, replacesId: first.id })
    expect(movedTo(h.doc, { fromId: wrong, toId: right, spotId: kitchen })).toHaveLength(1)
  })
})
