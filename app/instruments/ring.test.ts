import { describe, expect, it } from 'vitest'
import { unknownState } from '#core/formats/at'
import { Ring } from './ring'

const sample = (atMs: number, value: number | null) => ({
  ...unknownState(),
  atMs,
  rsrpDbm: value === null ? null : { value, low: value - 0.5, high: value + 0.5 },
})

describe('what came last', () => {
  it('an hour at ten a second is kept, what is older goes, and nothing grows', () => {
    const r = new Ring(100)
    for (let i = 0; i < 1000; i++) r.push(sample(i, -i))
    expect(r.length).toBe(100)
    const all = r.since('rsrpDbm', 0)
    expect(all).toHaveLength(100)
    expect(all[0]).toEqual({ atMs: 900, value: -900 })
    expect(all.at(-1)!.atMs).toBe(999)
  })
  it('medians leave out what was not known', () => {
    const r = new Ring(10)
    for (const [i, v] of [-90, null, -94, -91].entries()) r.push(sample(i, v))
    expect(r.median('rsrpDbm', 0)).toBe(-91)
    expect(r.median('rsrpDbm', 2)).toBe(-92.5)
    expect(r.median('sinrDb', 0)).toBeNull()
  })
})
