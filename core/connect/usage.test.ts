import { describe, expect, it } from 'vitest'
import { proposeUsage, usageFrom } from './usage'

describe('a file of what was used', () => {
  it('proposes columns by their words, and a total instead of both ways', () => {
    expect(proposeUsage(['Date', 'Download (MB)', 'Upload (MB)'])).toEqual({ when: 0, data: [1, 2], mbOf: 1 })
    expect(proposeUsage(['time', 'rx_bytes', 'tx_bytes', 'total_bytes'])).toEqual({ when: 0, data: [3], mbOf: 1e-6 })
    expect(proposeUsage(['Day', 'Usage GB'])).toEqual({ when: 0, data: [1], mbOf: 1000 })
    expect(proposeUsage(['name', 'colour'])).toBeNull()
  })
  it('adds up a day by its hours, commas and points alike', () => {
    const read = usageFrom(
      [
        ['2026-11-03 14:00', '100,5', '20'],
        ['2026-11-03T14:30:00Z', '1.5', '0'],
        ['03.11.2026 15:00', '10', ''],
        ['2026-11-04 00:00', '7', '1'],
      ],
      { when: 0, data: [1, 2], mbOf: 1 },
    )
    expect(read.left).toBe(0)
    expect(read.days.map(d => [d.onDay, d.mb])).toEqual([
      ['2026-11-03', 132],
      ['2026-11-04', 8],
    ])
    expect(read.days[0]!.hours![14]).toBe(122)
    expect(read.days[0]!.hours![15]).toBe(10)
  })
  it('keeps no hours where a row of the day has none', () => {
    const read = usageFrom(
      [
        ['2026-11-03', '5'],
        ['2026-11-03 10:00', '5'],
      ],
      { when: 0, data: [1], mbOf: 1 },
    )
    expect(read.days).toEqual([{ onDay: '2026-11-03', mb: 10, hours: null }])
  })
  it('counts what it cannot read and says why, and takes the rest', () => {
    const read = usageFrom(
      [
        ['2026-02-30', '5'],
        ['soon', '5'],
        ['2026-11-03', 'a lot'],
        ['2026-11-03', '-3'],
        ['2026-11-03', '5'],
      ],
      {
        when: 0,
        data: [1],
        mbOf: 1,
      },
    )
    expect(read.left).toBe(4)
    expect(read.why).toBe('“2026-02-30” is no day')
    expect(read.days).toEqual([{ onDay: '2026-11-03', mb: 5, hours: null }])
  })
})
