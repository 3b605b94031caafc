import { describe, expect, it } from 'vitest'
import type { JobListItem } from '../../shared/api'
import { byVisit, dayOf, grouped, visitGroup, visitWords } from './visits'

const TODAY = '2026-02-27'
const job = (id: string, nextOn: string | null, o: Partial<JobListItem> = {}): JobListItem => ({
  id,
  name: id,
  kind: 'home',
  state: 'new',
  latDeg: null,
  lonDeg: null,
  changedAt: '2026-02-01T00:00:00.000Z',
  spots: 0,
  readings: 0,
  workers: [],
  customerName: null,
  customerAddress: null,
  agreedDownMbps: null,
  nextOn,
  fleet: false,
  cardBegun: false,
  acts: { scout: false, plan: false, fit: false, prove: false, keep: false },
  ...o,
})
const done = { scout: true, plan: true, fit: true, prove: true, keep: true }

describe('when a job is next visited', () => {
  it.each([
    ['2026-02-25', 'Late', '2 days late'],
    ['2026-02-26', 'Late', 'a day late'],
    ['2026-02-27', 'Today', 'Fri 27 Feb'],
    ['2026-02-28', 'The next seven days', 'tomorrow'],
    ['2026-03-06', 'The next seven days', 'Fri 6 Mar'],
    ['2026-03-07', 'Later', 'Sat 7 Mar'],
    ['2027-03-07', 'Later', '7 Mar 2027'],
    [null, 'No day set', ''],
  ] as const)('%s is %s: “%s”', (day, group, words) => {
    expect(visitGroup(job('a', day), TODAY)).toBe(group)
    expect(visitWords(job('a', day), TODAY)).toBe(words)
  })
  it('a job handed over is never late', () => {
    const j = job('a', '2026-01-01', { acts: done })
    expect(visitGroup(j, TODAY)).toBe('Handed over')
    expect(visitWords(j, TODAY)).toBe('')
  })
  it('the day is the one on this device’s wall, not that of UTC', () =>
    expect(dayOf(new Date(2026, 1, 7, 0, 5))).toBe('2026-02-07'))
  it('orders by the visit, then by newest work, what is handed over last', () => {
    const list = [
      job('kept', '2026-01-01', { acts: done }),
      job('undated', null),
      job('undated, newer', null, { changedAt: '2026-02-20T00:00:00.000Z' }),
      job('later', '2026-05-01'),
      job('late', '2026-02-01'),
    ].sort(byVisit)
    expect(list.map(j => j.id)).toEqual(['late', 'later', 'undated, newer', 'undated', 'kept'])
    expect(grouped(list, TODAY).map(g => g.group)).toEqual(['Late', 'Later', 'No day set', 'Handed over'])
  })
})
