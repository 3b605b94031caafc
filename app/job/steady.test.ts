import { describe, expect, it } from 'vitest'
import { TABLES } from '#core/job/schema'
import { demoScenario } from '#demo/scenario'
import { differs, sameRows, steady } from './steady'

const { jobs: JOBS } = demoScenario()
const doc = () => structuredClone(JOBS[0]!.document)

describe('documents that say the same', () => {
  it('stay the very same, whatever their versions', () => {
    const before = doc()
    const next = doc()
    for (const t of TABLES) for (const row of next[t]) row.version = 99
    expect(steady(before, next)).toBe(before)
    expect(differs(before, next, TABLES)).toBe(false)
  })
  it('change by the table in which one figure, one row or their order is another', () => {
    const before = doc()
    for (const spoil of [
      (d: typeof before) => (d.spots[0]!.upM += 0.1),
      (d: typeof before) => d.spots.pop(),
      (d: typeof before) => d.spots.reverse(),
    ]) {
      const next = doc()
      spoil(next)
      const kept = steady(before, next)
      expect(kept.spots).toBe(next.spots)
      expect(kept.nodes).toBe(before.nodes)
      expect(differs(before, next, ['spots'])).toBe(true)
      expect(differs(before, next, ['nodes', 'jobs'])).toBe(false)
    }
  })
  it('look into parts of a row, and know a field that came', () => {
    expect(sameRows([{ id: 'a', way: [{ upM: 1 }] }], [{ id: 'a', way: [{ upM: 1 }] }])).toBe(true)
    expect(sameRows([{ id: 'a', way: [{ upM: 1 }] }], [{ id: 'a', way: [{ upM: 2 }] }])).toBe(false)
    expect(sameRows([{ id: 'a', way: null }], [{ id: 'a', way: [] }])).toBe(false)
    expect(sameRows([{ id: 'a' }], [{ id: 'a', note: 'x' }])).toBe(false)
  })
})
