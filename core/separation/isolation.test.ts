import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { freeSpaceLossDb, wavelengthM } from '../radio/freespace'
import { antennaAt, partById, partOfKind } from '../catalogue/parts'
import type { AntennaNode } from '../chain/tree'
import { emptyDocument } from '../job/schema'
import type { JobDocument } from '../job/schema'
import { applyChanges } from '../job/changes'
import { newJobChanges } from '../job/defaults'
import { aroundSheetDb, buildingOf } from '../site/building'
import { countedIds } from '../../demo/scenario'
import {
  horizontalIsolationDb,
  inFarField,
  isolation,
  leastMove,
  marginFor,
  meetsRuleOfThumb,
  slantIsolationDb,
  verticalIsolationDb,
  willOscillate,
} from './isolation'
import { crossedPolarDb } from '../radio/polarisation'
import { lineLossDb } from '../chain/line'
import { pairOf } from './loop'

const f = 806

describe('the quick rules', () => {
  it('horizontal is free space to within 0.02 dB', () =>
    expect(horizontalIsolationDb(10, f, 0)).toBeCloseTo(freeSpaceLossDb(10, f), 1)) // 20·log10(4π) = 21.98, printed as 22
  it('doubling gains 6 dB along and 12 dB up', () => {
    expect(horizontalIsolationDb(20, f, 5) - horizontalIsolationDb(10, f, 5)).toBeCloseTo(6.02, 2)
    expect(verticalIsolationDb(8, f) - verticalIsolationDb(4, f)).toBeCloseTo(12.04, 2)
  })
  it('one wavelength up is 28 dB', () => expect(verticalIsolationDb(wavelengthM(f), f)).toBeCloseTo(28, 9)) // common practice
  it('slant meets both ends', () => {
    expect(slantIsolationDb(0, 6, f, 0)).toBeCloseTo(verticalIsolationDb(6, f), 9)
    expect(slantIsolationDb(15, 0, f, 0)).toBeCloseTo(horizontalIsolationDb(15, f, 0), 9)
  })
  it('the rule of thumb is 6.1 m up or 15.2 m along', () => {
    // 20 ft and 50 ft, common practice (no source).
    expect(6.1 / 0.3048).toBeCloseTo(20, 0)
    expect(meetsRuleOfThumb(3, 6.2)).toBe(true)
    expect(meetsRuleOfThumb(16, 1)).toBe(true)
    expect(meetsRuleOfThumb(10, 5)).toBe(false)
  })
})

/** Two half-wave dipoles in free space by the method of moments, wire models converged to 0.1–0.6 dB. */
describe('against the method of moments', () => {
  const WAYS: [wavelengths: number, sideDb: number, endDb: number][] = [
    [1, 18.3, 30.7],
    [2, 23.9, 43.5],
    [4, 29.8, 55.7],
    [10, 37.7, 71.7],
  ]
  it.each(WAYS)('dipoles %i wavelengths apart: %f dB side by side, %f end to end', (n, sideDb, endDb) => {
    const distanceM = n * wavelengthM(850)
    const side = isolation({ distanceM, frequencyMHz: 850, gainTowardDbi: [2.15, 2.15], crossedDb: 0, uprightElevationDeg: 0 })
    expect(Math.abs(side.directDb - sideDb)).toBeLessThan(0.7)
    const end = isolation({ distanceM, frequencyMHz: 850, gainTowardDbi: [-60, -60], crossedDb: 0, uprightElevationDeg: 90 })
    expect(Math.abs(end.axialDb! - endDb)).toBeLessThan(n < 1.5 ? 0.9 : 0.25)
  })
  it('close above each other the near field rules, not the hole of the pattern', () => {
    const close = (uprightElevationDeg: number | null) =>
      isolation({ distanceM: 0.35, frequencyMHz: 850, gainTowardDbi: [-15, -15], crossedDb: 0, uprightElevationDeg })
    expect(close(null).isolationDb).toBeGreaterThan(44)
    expect(Math.abs(close(90).isolationDb - 31.4)).toBeLessThan(0.6)
    expect(close(0).isolationDb).toBeCloseTo(close(null).isolationDb, 6)
  })
  it('lying antennas one above the other keep up to 21 dB less from each other than upright ones', () => {
    // The fitters' rule up: 28 + 40·log10(d/λ); side by side broadside: 18.1 + 19.5·log10(d/λ).
    const d = 6.1
    const lying = isolation({ distanceM: d, frequencyMHz: 850, gainTowardDbi: [2.15, 2.15], crossedDb: 0 }).isolationDb
    expect(verticalIsolationDb(d, 850) - lying).toBeGreaterThan(20)
  })
  const POLAR: [offDeg: number, db: number][] = [
    [30, 23],
    [45, 15],
    [60, 9.5],
  ]
  it.each(POLAR)('crossed polarisations, %i° off the axis: %f dB and no more', (offDeg, db) => {
    expect(crossedPolarDb('vertical', 'horizontal', offDeg)).toBeLessThanOrEqual(db)
    expect(crossedPolarDb('vertical', 'horizontal', offDeg)).toBeGreaterThanOrEqual(db - 3)
  })
  it('20 dB on the axis, 3.0 at 45° between them, nothing behind or where they are alike', () => {
    expect(crossedPolarDb('vertical', 'horizontal', 0)).toBe(20)
    expect(crossedPolarDb('slant', 'vertical', 0)).toBe(3)
    expect(crossedPolarDb('vertical', 'horizontal', 120)).toBe(0)
    expect(crossedPolarDb('horizontal', 'horizontal', 0)).toBe(0)
  })
})

describe('isolation', () => {
  const of = (o: Partial<Parameters<typeof isolation>[0]>) =>
    isolation({ distanceM: 6, frequencyMHz: f, gainTowardDbi: [0, 0], crossedDb: 0, ...o })
  it('is below each of its ways, which join as powers', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 60, noNaN: true }),
        fc.double({ min: -25, max: 14, noNaN: true }),
        fc.double({ min: 0, max: 80, noNaN: true }),
        (distanceM, g, crossedDb) => {
          const r = of({ distanceM, gainTowardDbi: [g, 0], crossedDb })
          expect(r.isolationDb).toBeLessThanOrEqual(Math.min(r.directDb, r.scatteredDb) + 1e-9)
          expect(r.isolationDb).toBeGreaterThanOrEqual(Math.min(r.directDb, r.scatteredDb) - 3.02)
        },
      ),
    ))
  it('in free space two isotropic antennas have free space between them, to within what is scattered', () =>
    expect(of({}).isolationDb).toBeCloseTo(freeSpaceLossDb(6, f), 1))
  it('nulls and walls without end leave the scattered way: 25 dB over free space and half of what is crossed', () =>
    expect(of({ gainTowardDbi: [-60, -60], crossedDb: 20 }).isolationDb).toBeCloseTo(freeSpaceLossDb(6, f) + 35, 2))
  it('moving apart along the line that joins them never lowers it', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 40, noNaN: true }), fc.double({ min: -20, max: 12, noNaN: true }), (d, g) => {
        const near = of({ distanceM: d, gainTowardDbi: [g, g] }).isolationDb
        expect(of({ distanceM: d * 1.3, gainTowardDbi: [g, g] }).isolationDb).toBeGreaterThan(near)
      }),
    )
  })
  it('refuses one place for two antennas', () => expect(() => of({ distanceM: 0 })).toThrow(/distance/))
  it('far field: three wavelengths along or one up, and 2D²/λ', () => {
    expect(inFarField(0.5, 0.1, 0.3, f)).toBe(false)
    expect(inFarField(3, 0, 0.3, f)).toBe(true)
    expect(inFarField(3, 0, 1.2, 2600)).toBe(false)
  })
})

/** A site with a donor and an inside antenna in it. */
function site(kind: 'home' | 'building' | 'vehicle', fields: Record<string, unknown> = {}): JobDocument {
  const doc = applyChanges(
    emptyDocument(),
    newJobChanges({ name: 'x', latDeg: 0, lonDeg: 0, zone: 'UTC', kind }, countedIds(61)).changes,
  )
  return { ...doc, sites: [{ ...doc.sites[0]!, ...fields }] }
}
const at = (
  partId: string,
  eastM: number,
  { northM, upM, ...own }: { northM: number; upM: number; [field: string]: unknown },
): AntennaNode => ({
  node: {
    id: partId,
    designId: '',
    partId,
    part: null,
    name: null,
    number: null,
    own: null,
    fixing: null,
    feed: null,
    sourceId: null,
    polarisation: null,
    eastM,
    northM,
    upM,
    azimuthDeg: null,
    tiltDeg: 0,
    ...own,
  },
  part: partById(partId) as AntennaNode['part'],
  name: partId,
  called: { name: partId, what: partId, number: 1 },
})
const between = (
  doc: JobDocument,
  donor: AntennaNode,
  { server, frequencyMHz, facingDeg }: { server: AntennaNode; frequencyMHz: number; facingDeg?: number },
) => pairOf(donor, server, { building: buildingOf(doc), frequencyMHz, bearingDeg: 270 }, { linesDb: 0, facingDeg })!.isolationDb
const LOW = [700, 800, 900]

/** What practice knows of the sum: common practice (no source), as the trade checks it. */
describe('against practice', () => {
  const home = site('home', { storeys: 2, storeyHeightM: 2.7, roofRiseM: 2, lengthM: 40, depthM: 20 })
  const bare = { ...home, sites: [{ ...home.sites[0]!, lengthM: 2, depthM: 1, storeys: 1 }] }
  const gain = 62
  const margin = 10
  /**
   * What practice knows is of jobs with their cables: 10 m of 240-type in all, half of it at half the distance.
   * Without them 15.2 m along at 700 MHz came to 5.3 dB once a dome gave 1.4 dBi level, as the method of moments has it,
   * for −1.5 before; the two agree with them.
   */
  const heldBack = (iso: number, mhz = 1800, cablesM = 10) =>
    Math.max(0, gain + margin - iso - lineLossDb({ k1: 0.794, k2: 0.0011 }, cablesM, mhz))
  // The dome hangs under the upper ceiling: roof and one ceiling between.
  const dome = (eastM: number) => at('ant-dome', eastM, { northM: 0, upM: 5.2 })

  it.each(LOW)(
    '6.1 m straight up, beam with its back turned, roof and a ceiling between: held back by 5 dB at most (%i MHz)',
    mhz => {
      expect(
        heldBack(between(home, at('ant-lpda', 0, { northM: 0, upM: 11.3 }), { server: dome(0), frequencyMHz: mhz }), mhz),
      ).toBeLessThanOrEqual(5)
      expect(
        heldBack(between(home, at('ant-omni', 0, { northM: 0, upM: 11.3 }), { server: dome(0), frequencyMHz: mhz }), mhz),
      ).toBeLessThanOrEqual(5)
    },
  )
  it.each(LOW)('15.2 m along, its back turned: held back by 5 dB at most (%i MHz)', mhz =>
    expect(
      heldBack(between(home, at('ant-lpda', -8, { northM: 0, upM: 8.2 }), { server: dome(7.2), frequencyMHz: mhz }), mhz),
    ).toBeLessThanOrEqual(5),
  )
  it('at 1800 MHz neither holds it back at all', () => {
    expect(heldBack(between(home, at('ant-lpda', 0, { northM: 0, upM: 11.3 }), { server: dome(0), frequencyMHz: 1800 }))).toBe(0)
    expect(heldBack(between(home, at('ant-omni', 0, { northM: 0, upM: 11.3 }), { server: dome(0), frequencyMHz: 1800 }))).toBe(0)
    expect(heldBack(between(home, at('ant-lpda', -8, { northM: 0, upM: 8.2 }), { server: dome(7.2), frequencyMHz: 1800 }))).toBe(
      0,
    )
  })
  it.each(LOW)('half those distances with nothing between cost more than 10 dB (%i MHz)', mhz => {
    expect(
      heldBack(
        between(bare, at('ant-lpda', 10, { northM: 0, upM: 8.25 }), {
          server: at('ant-dome', 10, { northM: 0, upM: 5.2 }),
          frequencyMHz: mhz,
        }),
        mhz,
        5,
      ),
    ).toBeGreaterThan(10)
    expect(
      heldBack(
        between(bare, at('ant-lpda', 10, { northM: 0, upM: 5.2 }), {
          server: at('ant-dome', 17.6, { northM: 0, upM: 5.2 }),
          frequencyMHz: mhz,
        }),
        mhz,
        5,
      ),
    ).toBeGreaterThan(10)
  })

  // Site frame of a vehicle: north is ahead. The panel looks along the trailer.
  const trailer = site('vehicle', { lengthM: 8, depthM: 2.3, storeyHeightM: 2.9 })
  const mobile = (iso: number) => Math.max(0, 50 + 10 - iso)
  const panel = (northM: number) => at('ant-panel-in', 0, { northM, upM: 2, azimuthDeg: 0 })
  it.each(LOW)('a trailer’s 50 dB booster runs with its antennas at opposite ends: held back by 10 dB at most (%i MHz)', mhz =>
    expect(
      mobile(
        between(trailer, at('ant-omni', 0, { northM: 3.6, upM: 3.1 }), { server: panel(-3.6), frequencyMHz: mhz, facingDeg: 0 }),
      ),
    ).toBeLessThanOrEqual(10),
  )
  it.each(LOW)('and by more than 10 where they are 2 m apart (%i MHz)', mhz =>
    expect(
      mobile(
        between(trailer, at('ant-omni', 0, { northM: 1, upM: 3.1 }), { server: panel(-0.7), frequencyMHz: mhz, facingDeg: 0 }),
      ),
    ).toBeGreaterThan(10),
  )

  it.each([...LOW, 1800])('a building’s 75 dB amplifier, 15 m and two concrete slabs between, is not held back (%i MHz)', mhz => {
    const building = site('building', { storeys: 4, storeyHeightM: 3.4, roofRiseM: 0 })
    // Under the ceiling of the third floor: the roof's slab and one more above it.
    expect(
      between(building, at('ant-lpda', 0, { northM: 0, upM: 24.9 }), {
        server: at('ant-dome', 0, { northM: 0, upM: 9.9 }),
        frequencyMHz: mhz,
      }),
    ).toBeGreaterThanOrEqual(75 + 10)
  })
  it('an inside panel isolates better than a dome when it faces away from the donor, and worse when it faces it', () => {
    const donor = at('ant-lpda', -6, { northM: 0, upM: 7 })
    const place = { eastM: 4, northM: 0, upM: 4.4 }
    const inside = (partId: string) => at(partId, place.eastM, { northM: place.northM, upM: place.upM })
    for (const mhz of [...LOW, 1800, 2600]) {
      const withDome = between(home, donor, { server: inside('ant-dome'), frequencyMHz: mhz })
      expect(
        between(home, donor, { server: inside('ant-panel-in'), frequencyMHz: mhz, facingDeg: 90 }),
        `${mhz}`,
      ).toBeGreaterThan(withDome)
      expect(between(home, donor, { server: inside('ant-panel-in'), frequencyMHz: mhz, facingDeg: 270 }), `${mhz}`).toBeLessThan(
        withDome,
      )
    }
  })
  it('an omni has its nulls above and below, at least 12 dB down', () => {
    for (const mhz of [700, 1800, 2600])
      for (const id of ['ant-omni', 'ant-omni-x', 'ant-whip-in']) {
        const { pattern } = antennaAt(partOfKind(id, 'antenna')!, mhz)
        expect(pattern.frontToBackDb, id).toBeGreaterThanOrEqual(12)
      }
  })
  it('a sheet of 1.2 m before the inside antenna helps, and no more than what bends round it', () => {
    const donor = at('ant-lpda', -5.6, { northM: 0, upM: 6.6 })
    const server = at('ant-dome', -2.2, { northM: 0, upM: 5.1 })
    const before = between(home, donor, { server, frequencyMHz: 806 })
    const sheet = (widthM: number): JobDocument => ({
      ...home,
      sheets: [
        {
          id: 's',
          name: 'Sheet',
          eastM: -2.7,
          northM: 0,
          upM: 5.3,
          azimuthDeg: 270,
          tiltDeg: 24,
          widthM,
          heightM: widthM,
          material: 'sheet metal',
          lossDb: null,
        },
      ],
    })
    const small = between(sheet(1.2), donor, { server, frequencyMHz: 806 }) - before
    const large = between(sheet(3), donor, { server, frequencyMHz: 806 }) - before
    expect(small).toBeGreaterThan(5)
    expect(small).toBeLessThan(18)
    expect(large).toBeGreaterThan(small)
    expect(between(sheet(0.1), donor, { server, frequencyMHz: 806 }) - before).toBeLessThan(small)
  })
  // Method of moments, wire models converged to 0.6 dB, free space: what a square sheet adds between two antennas 6 m apart.
  const SHEETS: [sideM: number, beforeM: number, mhz: number, fromDb: number, toDb: number][] = [
    [0.6, 0.5, 850, 3.4, 4.4],
    [0.6, 0.5, 1900, 2.3, 6.5],
    [1.2, 0.5, 850, 11, 14],
    [1.8, 0.5, 850, 16, 22],
    [0.6, 3, 850, 0.6, 0.6],
    [1.2, 3, 850, 2, 2],
  ]
  const around = (sideM: number, beforeM: number, mhz: number) =>
    aroundSheetDb(new Array<number>(4).fill(sideM / 2), beforeM, 6 - beforeM, mhz)
  it.each(SHEETS)('a sheet of %f m, %f m before it, at %i MHz adds %f to %f dB', (sideM, beforeM, mhz, fromDb, toDb) => {
    // Stated for the formula: 4.2 dB of spread.
    expect(around(sideM, beforeM, mhz)).toBeGreaterThan(fromDb - 4.2)
    expect(around(sideM, beforeM, mhz)).toBeLessThan(toDb + 4.2)
  })
  it('a sheet is not too kind on average, better near the antenna than half-way, and never below nothing', () => {
    const off = SHEETS.map(([side, before, mhz, from, to]) => around(side, before, mhz) - (from + to) / 2)
    expect(off.reduce((a, b) => a + b, 0) / off.length).toBeLessThan(2)
    expect(around(1.2, 0.25, 850)).toBeGreaterThan(around(1.2, 0.5, 850) + 1.5)
    for (const side of [0.05, 0.1, 0.3]) expect(around(side, 3, 700)).toBe(0)
  })
  it('a sheet does nothing for the scattered way', () => {
    const o = { distanceM: 6, frequencyMHz: 850, gainTowardDbi: [0, 0] as const, crossedDb: 6 }
    expect(isolation({ ...o, sheetsDb: 20 }).scatteredDb).toBe(isolation(o).scatteredDb)
    expect(isolation({ ...o, sheetsDb: 20 }).directDb).toBe(isolation(o).directDb + 20)
  })
  it('a donor that lies and an inside antenna that stands keep more from each other before the beam, nothing behind it', () => {
    const lying = (azimuthDeg: number) => at('ant-lpda', -6, { northM: 0, upM: 5.4, azimuthDeg, polarisation: 'horizontal' })
    const upright = (azimuthDeg: number) => at('ant-lpda', -6, { northM: 0, upM: 5.4, azimuthDeg })
    const panel = at('ant-panel-in', 4, { northM: 0, upM: 5.2, azimuthDeg: 270 })
    const direct = (donor: AntennaNode) =>
      pairOf(donor, panel, { building: buildingOf(home), frequencyMHz: 800, bearingDeg: 90 }, { linesDb: 0, facingDeg: 270 })!
    expect(direct(lying(90)).directDb - direct(upright(90)).directDb).toBeGreaterThan(17)
    expect(direct(lying(90)).scatteredDb).toBeCloseTo(direct(upright(90)).scatteredDb, 9)
    expect(direct(lying(270)).directDb).toBeCloseTo(direct(upright(270)).directDb, 1)
  })
  it('the quick rule is for two that stand upright, and for no others', () => {
    const round = { building: buildingOf(home), frequencyMHz: 800, bearingDeg: 270 }
    const donor = (polarisation: string | null) => at('ant-lpda', -6, { northM: 0, upM: 8, polarisation })
    expect(pairOf(donor(null), dome(4), round)!.quickDb).toBeGreaterThan(40)
    for (const p of ['horizontal', 'slant']) expect(pairOf(donor(p), dome(4), round)!.quickDb).toBeNull()
    const row = {
      id: 'r',
      designId: '',
      donorId: 'ant-lpda',
      serverId: 'ant-dome',
      makerDb: null,
      measuredDb: null,
      inForce: 'quick',
      reason: null,
    } as const
    const lying = pairOf(donor('horizontal'), dome(4), { ...round, entered: [row] })!
    expect(lying.inForce).toBe('computed')
    expect(lying.isolationDb).toBe(lying.computedDb)
  })
  it('turning an antenna by 360° changes nothing', () => {
    const donor = at('ant-lpda', -6, { northM: 0, upM: 7, azimuthDeg: 0 })
    const round = at('ant-lpda', -6, { northM: 0, upM: 7, azimuthDeg: 360 })
    expect(between(home, donor, { server: dome(3), frequencyMHz: f })).toBeCloseTo(
      between(home, round, { server: dome(3), frequencyMHz: f }),
      9,
    )
  })
})

describe('the loop', () => {
  it('is stable, held back or oscillating by gain plus margin', () => {
    expect(willOscillate(77, 62, 15, 35)).toEqual({ state: 'stable', gainDb: 62, heldBackDb: 0 })
    expect(willOscillate(71, 62, 15, 35)).toEqual({ state: 'held back', gainDb: 56, heldBackDb: 6 })
    expect(willOscillate(45, 62, 15, 35).state).toBe('oscillating')
  })
  it('one that watches itself needs 10 dB, one that does not 15', () => {
    expect(marginFor({ gainDb: 62, lowestGainDb: 35 })).toBe(10)
    expect(marginFor({ gainDb: 55, lowestGainDb: 55 })).toBe(15)
  })
  it('each dB of isolation is a dB of gain while it limits', () => {
    fc.assert(
      fc.property(fc.double({ min: 52, max: 75, noNaN: true }), i => {
        expect(willOscillate(i + 1, 62, 15, 35).gainDb - willOscillate(i, 62, 15, 35).gainDb).toBeCloseTo(1, 9)
      }),
    )
  })
  it('finds the least move, to 0.1 m, and none where none is enough', () => {
    const away = (x: number) => 60 + 2 * x
    expect(leastMove(away, 65, 8)).toBe(2.5)
    expect(leastMove(away, 59, 8)).toBe(0)
    expect(leastMove(away, 90, 8)).toBeNull()
  })
})
