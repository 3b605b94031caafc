import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { causesOf, mayGoOn, readKey, readsBeside } from './dry-run'

const read = (h: House, values: Record<string, number>) => {
  for (const [key, value] of Object.entries(values)) h.check('read', key, { value })
  const a = h.assess()
  const reads = readsBeside(h.doc, a.drill.dryRun)
  return { reads, causes: causesOf(reads, a) }
}

describe('the dry run beside the sum', () => {
  it('as expected: nothing stops, no cause is looked for, and one may go on', () => {
    const h = new House('router')
    const all = Object.fromEntries(h.assess().drill.dryRun.map(r => [readKey(r), r.expected]))
    const { reads, causes } = read(h, all)
    expect(reads.length).toBeGreaterThan(1)
    expect(reads.every(r => r.off === 0 && !r.stop)).toBe(true)
    expect(mayGoOn(reads)).toBe(true)
    expect(causes).toEqual([])
  })
  it('past its stop it says so, and what this job only assumed is looked at first', () => {
    const h = new House('router')
    const level = h.assess().drill.dryRun.find(r => r.quantity === 'RSRP' && r.where.includes('router'))!
    const { reads, causes } = read(h, { [readKey(level)]: level.stopAt - 4 })
    expect(reads.find(r => r.key === readKey(level))).toMatchObject({ stop: true })
    expect(mayGoOn(reads)).toBe(false)
    expect(causes[0]).toMatchObject({ section: 'survey', words: expect.stringContaining('never read there') as unknown })
    for (const [i, c] of causes.slice(1).entries()) expect(c.weight).toBeLessThanOrEqual(causes[i]!.weight)
  })
  it('too much at the donor port is overload; a total over its limit stops, under it not', () => {
    const h = new House('booster')
    const total = h.assess().drill.dryRun.find(r => r.quantity === 'total at the donor port')!
    expect(read(h, { [readKey(total)]: total.stopAt - 1 }).reads.find(r => r.key === readKey(total))!.stop).toBe(false)
    const { causes } = read(h, { [readKey(total)]: total.stopAt + 3 })
    expect(causes[0]).toMatchObject({ section: 'level', words: expect.stringContaining('overloads') as unknown })
  })
  it('what was taken back counts as not read', () => {
    const h = new House('router')
    const [first] = h.assess().drill.dryRun
    h.check('read', readKey(first!), { done: false, atUtc: '2026-04-03T13:00:00.000Z' })
    expect(readsBeside(h.doc, h.assess().drill.dryRun)[0]).toMatchObject({ value: null, off: null, stop: false })
  })
})
