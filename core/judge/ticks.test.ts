import { describe, expect, it } from 'vitest'
import { House, AT } from '../../tests/support/house'
import { CAUTIONS } from './cautions'
import { aboutOf, allTicked, standingTick } from './ticks'

const falls = CAUTIONS.find(c => c.key === 'falls')!
const later = (hours: number) => new Date(Date.parse(AT) + hours * 3_600_000).toISOString()
const ticked = (o: Record<string, unknown> = {}) => {
  const h = new House('router')
  h.check('tick', 'falls', { about: aboutOf(h.doc, 'aim'), ...o })
  return h
}

describe('a safety tick', () => {
  it('has its person, time and place, and holds for the day’s work', () => {
    expect(standingTick(ticked().doc, falls, later(1))?.by).toBe('Ila')
    expect(standingTick(ticked().doc, falls, later(11.9))).not.toBeNull()
  })
  it('lapses after twelve hours', () => expect(standingTick(ticked().doc, falls, later(12.1))).toBeNull())
  it('lapses on leaving the place', () => {
    const h = ticked()
    const stopId = h.add('stops', {
      name: 'Yard',
      latDeg: 1,
      lonDeg: 1,
      groundM: null,
      zone: 'UTC',
      arriveOn: null,
      leaveOn: null,
      headingDeg: null,
      swingDeg: 0,
      notes: null,
    })
    expect(standingTick(h.job({ stopId }).doc, falls, later(1))).toBeNull()
  })
  it('lapses when what it names changes, and not when something else does', () => {
    const h = ticked()
    h.place(h.part('router'), { upM: 2 })
    expect(standingTick(h.doc, falls, later(1))).not.toBeNull()
    h.place(h.donor, { upM: 9.5 })
    expect(standingTick(h.doc, falls, later(1))).toBeNull()
  })
  it('a tick of before, that named nothing, does not hold; it stays on record', () => {
    const h = ticked({ about: null })
    expect(standingTick(h.doc, falls, later(1))).toBeNull()
    expect(h.doc.checks).toHaveLength(1)
  })
  it('one alone does not open the gate', () => expect(allTicked(ticked().doc, 'aim', later(1))).toBe(false))
})
