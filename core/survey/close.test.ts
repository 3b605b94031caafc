import { describe, expect, it } from 'vitest'
import { AT, House } from '../../tests/support/house'
import { closePair, closeTurns } from './close'
import { logIndex } from './spots'

/** Two locks in a kitchen, three tests each, one after the other: 20 against 24 Mbit/s. */
function twoClose() {
  const h = new House('router').reads('Kitchen', -100)
  const slow = h.setup({ bandLock: 'B20' })
  const fast = h.setup({ bandLock: 'B3' })
  h.tests('Kitchen', slow, [15, 16, 15.5]).tests('Kitchen', fast, [24, 25, 24.5], { fromMinute: 10 })
  return { h, slow, fast, spotId: h.spot('Kitchen').id }
}
const later = (minutes: number) => new Date(Date.parse(AT) + minutes * 60_000).toISOString()

describe('two that are close', () => {
  it('are told apart by turns: A B B A, each with what is made different', () => {
    const { h, slow, fast, spotId } = twoClose()
    const close = closePair(h.doc, logIndex(h.doc), spotId, later(60))!
    expect(close.a.row.id).toBe(fast)
    expect(close.b.row.id).toBe(slow)
    expect(close.order.slice(0, 4).join('')).toBe('abba'.slice(0, close.order.length))
    const turns = closeTurns(close, logIndex(h.doc))
    expect(turns[0]).toMatchObject({
      words: 'A',
      now: true,
      taken: 0,
      setupId: fast,
      task: 'locked to B3: make it so, then test once.',
    })
    expect(turns[1]).toMatchObject({ words: 'B', now: false, setupId: slow })
  })
  it('a test moves it on; one more of the same, one of another place or of before does not', () => {
    const { h, slow, fast, spotId } = twoClose()
    const close = closePair(h.doc, logIndex(h.doc), spotId, later(60))!
    const now = () => closeTurns(close, logIndex(h.doc)).findIndex(t => t.now)
    expect(now()).toBe(0)
    h.tests('Hall', fast, [24], { fromMinute: 61 })
    expect(now()).toBe(0)
    h.tests('Kitchen', fast, [24], { fromMinute: 62 })
    expect(now()).toBe(1)
    h.tests('Kitchen', fast, [24], { fromMinute: 63 })
    expect(now()).toBe(1)
    h.tests('Kitchen', slow, [16], { fromMinute: 64 })
    expect(now()).toBe(2)
  })
  it('nothing where all is settled, or one alone was tried', () => {
    const h = new House('router').reads('Kitchen', -100)
    const spotId = h.spot('Kitchen').id
    h.tests('Kitchen', h.setup({ bandLock: 'B20' }), [2, 2.1, 2])
    expect(closePair(h.doc, logIndex(h.doc), spotId, AT)).toBeNull()
    h.tests('Kitchen', h.setup({ bandLock: 'B3' }), [40, 41, 40], { fromMinute: 10 })
    expect(closePair(h.doc, logIndex(h.doc), spotId, AT)).toBeNull()
  })
})
