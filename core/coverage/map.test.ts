import type { AntennaPart } from '../job/part'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { freeSpaceLossDb } from '../radio/freespace'
import { buildingOf, crossedDb, surfacesBetween, toLocal } from '../site/building'
import { coverageOf, gridOf, planWalls, senderOf } from './floor'
import { coverageMap, levelAt } from './map'
import type { Grid, PlanWall, Sender } from './map'
import { proposePlaces } from './places'

const GRID: Grid = { x0: -9.75, y0: -4.75, stepM: 0.5, columns: 40, rows: 20, upM: 1.2 }
const isotropic = (x: number, y: number, upM = 1.2): Sender => ({
  x,
  y,
  upM,
  fedRsrpDbm: -20,
  slabsDb: 0,
  gainToward: () => 1,
  peak: 1,
})
const run = (senders: Sender[], walls: PlanWall[] = [], grid = GRID) =>
  coverageMap({ grid, walls, senders, frequencyMHz: 806, phoneDbi: 0, coefficient: 20 })
const wall = (x1: number, y1: number, x2: number, y2: number, lossDb: number): PlanWall => ({
  x1,
  y1,
  x2,
  y2,
  lossDb,
  fromM: 0,
  toM: 3,
})

describe('the level over a floor', () => {
  it('with nothing between is free space and the scattered way beside it, 25 dB less', () => {
    const map = run([isotropic(-9.75, 0.25)])
    // 10·log10(1 + 10^−2.5) = 0.014 dB.
    expect(levelAt(map, 0.25, 0.25)).toBeCloseTo(-20 - freeSpaceLossDb(10, 806) + 0.014, 1)
  })
  it('behind a wall loses what the wall takes, and no more than the scattered way leaves', () => {
    const open = run([isotropic(-9.75, 0.25)])
    const at = (lossDb: number) => levelAt(run([isotropic(-9.75, 0.25)], [wall(-2, -5, -2, 5, lossDb)]), 5.25, 0.25)!
    expect(levelAt(open, 5.25, 0.25)! - at(6)).toBeCloseTo(6, 0)
    // 40 dB: direct −40, scattered −25 − 20 = −45, together −38.8.
    expect(levelAt(open, 5.25, 0.25)! - at(40)).toBeCloseTo(38.8, 0)
    expect(levelAt(run([isotropic(-9.75, 0.25)], [wall(-2, -5, -2, 5, 6)]), -4.25, 0.25)).toBeCloseTo(
      levelAt(open, -4.25, 0.25)!,
      3,
    )
  })
  it('a wall never raises a level anywhere, and an antenna never lowers one', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(coordinate(10), coordinate(5), coordinate(10), coordinate(5), fc.double({ min: 0, max: 20, noNaN: true })),
          {
            maxLength: 8,
          },
        ),
        coordinate(9),
        coordinate(4),
        (ends, x, y) => {
          const walls = ends.map(e => wall(...e))
          const with_ = run([isotropic(x, y)], walls).rsrpDbm
          const without = run([isotropic(x, y)]).rsrpDbm
          with_.forEach((v, i) => expect(v).toBeLessThanOrEqual(without[i]! + 1e-3))
          run([isotropic(x, y), isotropic(-x, -y)], walls).rsrpDbm.forEach((v, i) =>
            expect(v).toBeGreaterThanOrEqual(with_[i]! - 1e-3),
          )
        },
      ),
      { numRuns: 25 },
    ))
  it('crosses what a straight line crosses, wall by wall and slab by slab, from an antenna on any floor', () => {
    const h = new House('booster', 'building')
    for (const [level, e] of [
      [0, 3],
      [0, -6],
      [1, 0],
      [1, 7],
      [2, -3],
    ] as const)
      h.add('walls', { level, fromEastM: e, fromNorthM: -6, toEastM: e + 1.3, toNorthM: 6, material: 'block', lossDb: null })
    const b = buildingOf(h.doc)
    const walls = planWalls(b, 806)
    const grid = gridOf(b, b.floors[0]!.fromM + 1.2, 1)
    for (const floor of b.floors) {
      const from = { eastM: 1.1, northM: 0.7, upM: floor.toM - 0.3 }
      const [x, y] = toLocal(b, from)
      const node = { ...h.server, ...from }
      const at = {
        at: { node, part: h.server.part as AntennaPart, name: 'Dome', called: { name: 'Dome', what: 'Dome', number: 1 } },
        pattern: FLAT,
        covered: true,
        azimuthDeg: 0,
        tiltDeg: 0,
        polarisation: 'vertical' as const,
      }
      const sender = { ...senderOf(b, at, { fedRsrpDbm: 0, upM: grid.upM, frequencyMHz: 806 }), gainToward: () => 1, peak: 1 }
      expect([sender.x, sender.y]).toEqual([x, y])
      const map = coverageMap({ grid, walls, senders: [sender], frequencyMHz: 806, phoneDbi: 0, coefficient: 20 })
      let checked = 0
      for (let r = 0; r < grid.rows; r += 3)
        for (let c = 0; c < grid.columns; c += 3) {
          const to = toSite(b.axisDeg, grid.x0 + c * grid.stepM, grid.y0 + r * grid.stepM, grid.upM)
          const crossed = crossedDb(surfacesBetween(b, from, to, 806).filter(s => s.kind !== 'outer wall'))
          const d = Math.hypot(to.eastM - from.eastM, to.northM - from.northM, to.upM - from.upM)
          const expected = -freeSpaceLossDb(d, 806) + 10 * Math.log10(10 ** (-crossed / 10) + 10 ** (-2.5 - crossed / 20))
          expect(map.rsrpDbm[r * grid.columns + c]!).toBeCloseTo(expected, 1)
          checked++
        }
      expect(checked).toBeGreaterThan(30)
    }
  })
})

const FLAT = { gainDbi: 0, beamwidthDeg: 360, verticalBeamwidthDeg: 360, frontToBackDb: 0 }
const coordinate = (most: number) => fc.double({ min: -most, max: most, noNaN: true })
function toSite(axisDeg: number, x: number, y: number, upM: number) {
  const a = (axisDeg * Math.PI) / 180
  return { eastM: x * Math.sin(a) + y * Math.cos(a), northM: x * Math.cos(a) - y * Math.sin(a), upM }
}

describe('a floor of a job', () => {
  const house = () => new House('booster', 'building').reads('Roof', -84).reads('Reception', -112, 4)
  const cover = (h: House, level = 0, stepM = 0.5) => {
    const c = h.context()
    return coverageOf({
      doc: h.doc,
      building: c.building,
      tree: c.tree!,
      levels: c.main!.levels!,
      log: c.log,
      rooms: c.main!.rooms,
      level,
      stepM,
    })
  }
  it('gives each room its share, and the floor theirs weighed by people', () => {
    const h = house()
    const all = cover(h)!
    expect(all.rooms.map(r => r.spot.name).sort()).toEqual(['Reception', 'Workshop'])
    for (const r of all.rooms) expect(r.share).toBeGreaterThanOrEqual(0)
    h.set('spots', h.spot('Reception').id, { people: 30 })
    h.set('spots', h.spot('Workshop').id, { people: 0 })
    expect(cover(h)!.share).toBeCloseTo(all.rooms.find(r => r.spot.name === 'Reception')!.share, 9)
  })
  it('stands beside P.1238, which is never added to it', () => {
    const room = cover(house())!.rooms.find(r => r.spot.name === 'Workshop')!
    expect(Math.abs(room.mapDbm! - room.checkDbm!)).toBeLessThan(6)
  })
  it('is corrected by what its rooms read with the booster on', () => {
    const h = house()
    const before = cover(h)!
    const at = before.rooms.find(r => r.spot.name === 'Reception')!.mapDbm!
    const setup = h.add('setups', { ...h.doc.setups[0]!, id: undefined, booster: 'on', mark: 'after' })
    h.read('Reception', at - 7, 15, { setupId: setup })
    const after = cover(h)!
    expect(after.correctionDb).toBeCloseTo(-7, 1)
    expect(after.rooms.find(r => r.spot.name === 'Reception')!.mapDbm).toBeCloseTo(at - 7, 1)
  })
  it('coarse and fine agree', () => {
    const [coarse, fine] = [cover(house(), 0, 1)!, cover(house(), 0, 0.25)!]
    expect(coarse.share).toBeCloseTo(fine.share, 1)
  })
  it('a floor that is not there has no map', () => expect(cover(house(), 9)).toBeNull())
})

describe('places proposed', () => {
  const input = (most: number, fed = -62) => ({
    grid: { ...GRID, stepM: 1, columns: 20, rows: 10, x0: -9.5, y0: -4.5 },
    walls: [wall(0, -5, 0, 5, 20)],
    frequencyMHz: 806,
    phoneDbi: -3,
    coefficient: 20,
    needsDbm: new Float32Array(200).fill(-110),
    weights: new Float32Array(200).fill(1),
    like: { upM: 2.6, slabsDb: 0, gainToward: () => 1, peak: 1 },
    fedRsrpDbm: (n: number) => fed - 10 * Math.log10(n),
    most,
  })
  it('the second goes to the other side of a thick wall', () => {
    const places = proposePlaces(input(2, -58))
    expect(places).toHaveLength(2)
    expect(Math.sign(places[0]!.x)).toBe(-Math.sign(places[1]!.x))
    expect(places[1]!.share).toBeGreaterThan(places[0]!.share)
  })
  it('more of them never serve less, and it stops where one more brings nothing', () => {
    const places = proposePlaces(input(8))
    places.slice(1).forEach((p, i) => expect(p.share).toBeGreaterThan(places[i]!.share))
    expect(proposePlaces({ ...input(8), needsDbm: new Float32Array(200).fill(-150) })).toHaveLength(1)
  })
})
