import { describe, expect, it } from 'vitest'
import { dxfUnitM, onGround, planAffine, wallsFromLines } from './floor-plan'

describe('a floor plan laid on the building', () => {
  const ties = { left: { x: 100, y: 50 }, right: { x: 500, y: 50 }, distanceM: 20, axisDeg: 90, halfDepthM: 5, sign: 1 } as const
  it('20 m over 400 pixels: the corners come to the corners, the middle of the plan to the middle', () => {
    const a = planAffine(ties)
    // Axis due east, across is south: the wall at the top is the north one.
    expect(onGround(a, ties.left)).toMatchObject({ eastM: expect.closeTo(-10, 9), northM: expect.closeTo(5, 9) })
    expect(onGround(a, ties.right)).toMatchObject({ eastM: expect.closeTo(10, 9), northM: expect.closeTo(5, 9) })
    // 100 pixels down is 5 m south.
    expect(onGround(a, { x: 300, y: 150 })).toMatchObject({ eastM: expect.closeTo(0, 9), northM: expect.closeTo(0, 9) })
  })
  it('a picture that lies askew is turned, never mirrored', () => {
    const a = planAffine({ ...ties, left: { x: 50, y: 500 }, right: { x: 50, y: 100 } })
    expect(onGround(a, { x: 50, y: 500 }).eastM).toBeCloseTo(-10, 9)
    // To the right on a picture turned a quarter left is down on the plan: south.
    expect(onGround(a, { x: 150, y: 300 }).northM).toBeCloseTo(0, 9)
    expect(a[0] * a[4] - a[1] * a[3]).toBeLessThan(0)
  })
  it('shown turned half round, the wall at the top is the other one', () =>
    expect(onGround(planAffine({ ...ties, sign: -1 }), ties.left)).toMatchObject({
      eastM: expect.closeTo(10, 9),
      northM: expect.closeTo(-5, 9),
    }))
  it('refuses one point twice, and no distance', () => {
    expect(() => planAffine({ ...ties, right: ties.left })).toThrow('one and the same')
    expect(() => planAffine({ ...ties, distanceM: 0 })).toThrow(RangeError)
  })
})

describe('walls read off a drawing', () => {
  it('units of a DXF: 4 is millimetres, 6 metres; none, and light years, are refused', () => {
    expect(dxfUnitM(4)).toBe(0.001)
    expect(dxfUnitM(6)).toBe(1)
    expect(() => dxfUnitM(0)).toThrow('does not say what its unit is')
    expect(() => dxfUnitM(undefined)).toThrow('does not say')
    expect(() => dxfUnitM(17)).toThrow('none that buildings are drawn in')
  })
  it('the middle comes to the middle, the longer side along the axis', () => {
    const walls = wallsFromLines(
      [
        { x1: 0, y1: 0, x2: 0, y2: 20_000 },
        { x1: 6000, y1: 0, x2: 6000, y2: 20_000 },
        { x1: 0, y1: 10, x2: 5, y2: 10 },
      ],
      0.001,
      90,
    )
    expect(walls).toHaveLength(2)
    expect(walls[0]).toEqual({ fromEastM: -10, fromNorthM: 3, toEastM: 10, toNorthM: 3 })
  })
  it('refuses a drawing without walls, and one with everything in it', () => {
    expect(() => wallsFromLines([{ x1: 0, y1: 0, x2: 0.1, y2: 0 }], 1, 0)).toThrow('no line as long as a wall')
    expect(() =>
      wallsFromLines(
        Array.from({ length: 500 }, (_, i) => ({ x1: i, y1: 0, x2: i, y2: 5 })),
        1,
        0,
      ),
    ).toThrow('500 lines')
  })
})
