import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { jobListItem, nextOf } from './jobs'

const step = (h: House, key: string, done = true, atUtc = '2026-04-03T10:00:00.000Z') =>
  h.add('checks', { kind: 'step', key, done, reason: null, by: 'Ila', atUtc, stopId: null, about: null, value: null })
const next = (h: House) => nextOf(jobListItem(h.doc))

describe('what comes next in a job', () => {
  it('with nothing read it is the first reading, with a kit and nothing done the plan, with a step done the card', () => {
    expect(next(new House(null))).toMatchObject({ to: 'survey' })
    const h = new House('router')
    h.read('Kitchen', -101)
    expect(next(h)).toMatchObject({ to: 'level', words: 'Finish the plan' })
    step(h, 'labels')
    expect(next(h)).toMatchObject({ to: 'card', so: 'card begun' })
  })
  it('a card that is through is fitted, aimed or not; taken back, it is not', () => {
    const h = new House('router')
    step(h, 'clear')
    expect(jobListItem(h.doc)).toMatchObject({ state: 'fit', cardBegun: true })
    expect(next(h)).toMatchObject({ to: 'proof', so: 'fitted' })
    step(h, 'clear', false, '2026-04-03T11:00:00.000Z')
    expect(jobListItem(h.doc).acts.fit).toBe(false)
  })
  it('one of a fleet goes by its card before anything was read there', () => {
    const h = new House('router', 'vehicle')
    const job = h.doc.jobs[0]!
    h.set('jobs', job.id, { methodId: job.id })
    expect(next(h)).toMatchObject({ to: 'card', so: 'one of a fleet' })
  })
  it('aimed, proven and handed over each lead on', () => {
    const item = jobListItem(new House('router').doc)
    const at = (acts: Partial<typeof item.acts>) => nextOf({ ...item, acts: { ...item.acts, ...acts } }).to
    expect(at({ fit: true })).toBe('proof')
    expect(at({ fit: true, prove: true })).toBe('handover')
    expect(at({ fit: true, prove: true, keep: true })).toBe('handover')
  })
  it('a place that nobody has said comes before the first reading', () => {
    expect(nextOf({ ...jobListItem(new House(null).doc), latDeg: null })).toMatchObject({ to: 'ask' })
  })
})
