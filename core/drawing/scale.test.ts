import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ticksFromZero } from './scale'

describe('ticks of a scale from 0', () => {
  it.each([
    [37, [0, 10, 20, 30, 40]],
    [40, [0, 10, 20, 30, 40]],
    [8.2, [0, 2, 4, 6, 8, 10]],
    [0.3, [0, 0.1, 0.2, 0.3]],
    [120, [0, 50, 100, 150]],
  ])('up to %d they stand at %j', (top, ticks) => expect(ticksFromZero(top)).toEqual(ticks))

  it('they reach the top with no more steps than asked, and no step to spare', () =>
    fc.assert(
      fc.property(fc.double({ min: 1e-3, max: 1e6, noNaN: true }), fc.integer({ min: 2, max: 8 }), (top, most) => {
        const ticks = ticksFromZero(top, most)
        expect(ticks.length - 1).toBeLessThanOrEqual(most)
        expect(ticks.at(-1)!).toBeGreaterThanOrEqual(top * (1 - 1e-6))
        expect(ticks.at(-2)!).toBeLessThan(top)
      }),
    ))

  it('a top of nothing is refused', () => expect(() => ticksFromZero(0)).toThrow('over 0'))
})
