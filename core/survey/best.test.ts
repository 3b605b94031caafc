import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { bestSpot, hasSettled } from './best'

const read = (spots: [string, number, number[]][]) => {
  const h = new House(null)
  for (const [name, rsrp, sinrs] of spots) for (const sinr of sinrs) h.read(name, rsrp, sinr)
  return h.assess().before
}

describe('the best spot so far', () => {
  it('is the one of the better SINR, not of the higher level', () => {
    const b = bestSpot(
      read([
        ['Kitchen', -80, [4, 5, 4]],
        ['Beside the house', -92, [13, 12, 13]],
      ]),
      'B20',
    )!
    expect(b.best.spot.name).toBe('Beside the house')
    expect(b).toMatchObject({ quantity: 'SINR', byDb: 9, beyondNoise: true })
  })
  it('five readings of one visit count as one: what shades one of them shades them all', () => {
    const at = (visits: number) => {
      const h = new House(null)
      for (const [name, rsrp] of [
        ['Kitchen', -80],
        ['Hall', -83],
      ] as const)
        for (let i = 0; i < 6; i++)
          h.read(name, rsrp, null, { takenAtUtc: `2026-05-01T1${Math.floor((i * visits) / 6)}:0${i}:00.000Z` })
      return bestSpot(h.assess().before, 'B20')!.beyondNoise
    }
    expect(at(1)).toBe(false)
    expect(at(6)).toBe(true)
  })
  it('a decibel between single readings is chance', () => {
    expect(
      bestSpot(
        read([
          ['Kitchen', -80, [8]],
          ['Beside the house', -80, [9]],
        ]),
        'B20',
      )!.beyondNoise,
    ).toBe(false)
  })
  it('one spot is no comparison, nor are two bands', () => {
    expect(bestSpot(read([['Kitchen', -80, [8, 9]]]), 'B20')).toBeNull()
    expect(
      bestSpot(
        read([
          ['Kitchen', -80, [8]],
          ['Beside the house', -80, [9]],
        ]),
        'B3',
      ),
    ).toBeNull()
  })
})

describe('settled', () => {
  it('a level that still falls has not, one that wavers about its middle has', () => {
    expect(hasSettled(Array.from({ length: 60 }, (_, i) => -80 - i * 0.1))).toBe(false)
    expect(hasSettled(Array.from({ length: 60 }, (_, i) => -80 + (i % 2 ? 1 : -1)))).toBe(true)
    expect(hasSettled([-80, -80])).toBe(false)
  })
})
