import fc from 'fast-check'
import magvar from 'magvar'
import { describe, expect, it } from 'vitest'
import { angleBetween, circularMean, normalise360, turn } from './angles'
import { formatPosition, parsePosition } from './coordinates'
import { declination, magneticToTrue, trueToMagnetic } from './declination'
import { alongGeodesic, direct, inverse } from './geodesic'
import { relativeToSun, sunPosition } from './sun'

describe('geodesics', () => {
  // C. F. F. Karney, GeographicLib test set (geodesictest.js, ported from GeodTest): lat1 lon1 azi1 lat2 lon2 azi2 s12
  /* eslint-disable no-loss-of-precision -- as published */
  const PUBLISHED: [number, number, number, number, number, number, number][] = [
    [35.60777, -139.44815, 111.098748429560326, -11.17491, -69.95921, 129.289270889708762, 8935244.5604818305],
    [-17.42761, 173.34268, -159.033557661192928, -15.84784, 5.93557, -20.787484651536988, 16076603.1631180673],
    [-50.56724, -16.30485, -105.439679907590164, -33.56571, -94.97412, -47.348547835650331, 6455670.5118668696],
  ]
  /* eslint-enable no-loss-of-precision */
  it.each(PUBLISHED)('published line from %f, %f', (lat1, lon1, azi1, lat2, lon2, azi2, s12) => {
    const r = inverse({ latDeg: lat1, lonDeg: lon1 }, { latDeg: lat2, lonDeg: lon2 })
    expect(r.distanceM).toBeCloseTo(s12, 4)
    expect(angleBetween(r.bearingDeg, azi1)).toBeLessThan(1e-9)
    expect(angleBetween(r.arrivalDeg, azi2)).toBeLessThan(1e-9)
  })

  it('direct and inverse undo each other', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -84, max: 84, noNaN: true }),
        fc.double({ min: -179, max: 179, noNaN: true }),
        fc.double({ min: 0, max: 359.9, noNaN: true }),
        fc.double({ min: 10, max: 100_000, noNaN: true }),
        (latDeg, lonDeg, bearing, distance) => {
          const to = direct({ latDeg, lonDeg }, bearing, distance)
          const back = inverse({ latDeg, lonDeg }, { latDeg: to.latDeg, lonDeg: ((to.lonDeg + 540) % 360) - 180 })
          expect(back.distanceM).toBeCloseTo(distance, 4)
          expect(angleBetween(back.bearingDeg, bearing)).toBeLessThan(1e-3)
        },
      ),
    )
  })

  it('points along a 60 km path stray from the geodesic by under 1 m', () => {
    const a = { latDeg: 46.8, lonDeg: -41.4 }
    const b = direct(a, 220, 60_000)
    const line = alongGeodesic(a, b, 1501)
    for (const i of [7, 100, 777, 1493]) {
      const exact = direct(a, inverse(a, b).bearingDeg, (60_000 * i) / 1500)
      expect(inverse(exact, { latDeg: line.latDeg[i]!, lonDeg: line.lonDeg[i]! }).distanceM).toBeLessThan(1)
    }
  })

  it('crosses the antimeridian without going round the world', () => {
    const r = inverse({ latDeg: -17, lonDeg: 179.9 }, { latDeg: -17, lonDeg: -179.9 })
    expect(r.distanceM).toBeLessThan(22_000)
    expect(r.bearingDeg).toBeCloseTo(90, 0)
  })

  it('refuses a latitude of 91.2 and says the range', () => {
    expect(() => inverse({ latDeg: 91.2, lonDeg: 0 }, { latDeg: 0, lonDeg: 0 })).toThrow(
      'latitudeDeg must be within -90…90, got 91.2',
    )
    expect(() => inverse({ latDeg: NaN, lonDeg: 0 }, { latDeg: 0, lonDeg: 0 })).toThrow(RangeError)
  })
})

describe('angles', () => {
  it('the mean of 350° and 10° is 0°', () => expect(angleBetween(circularMean([350, 10]).meanDeg!, 0)).toBeLessThan(1e-9))
  it('opposite directions have no mean', () => expect(circularMean([0, 180]).meanDeg).toBeNull())
  it('turning is shortest, clockwise positive', () => {
    expect(turn(350, 10)).toBe(20)
    expect(turn(10, 350)).toBe(-20)
    expect(turn(0, 180)).toBe(180)
  })
  it('a difference lies within 0…180 and does not depend on order', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e4, max: 1e4, noNaN: true }), fc.double({ min: -1e4, max: 1e4, noNaN: true }), (a, b) => {
        expect(angleBetween(a, b)).toBeGreaterThanOrEqual(0)
        expect(angleBetween(a, b)).toBeLessThanOrEqual(180)
        expect(angleBetween(a, b)).toBeCloseTo(angleBetween(b, a), 6)
        expect(normalise360(a)).toBeGreaterThanOrEqual(0)
        expect(normalise360(a)).toBeLessThan(360)
      }),
    )
  })
})

describe('declination', () => {
  // Second library: magvar, WMM2025 coefficients read by other code.
  it.each([
    [46.8, -41.4],
    [0, 0],
    [-33, 151],
    [64, 20],
    [-54, -68],
    [20, -157],
  ])('two libraries agree at %f, %f', (latDeg, lonDeg) => {
    const ours = declination({ latDeg, lonDeg }, new Date('2026-07-02T12:00:00Z'))
    const theirs = magvar.magvar(latDeg, lonDeg, 0, 2026.5)
    expect(angleBetween(ours.declinationDeg, theirs)).toBeLessThan(0.05)
  })
  it('refuses dates the model does not cover', () => {
    expect(() => declination({ latDeg: 0, lonDeg: 0 }, new Date('2031-01-01'))).toThrow(/magnetic model/)
    expect(() => declination({ latDeg: 0, lonDeg: 0 }, new Date('2019-01-01'))).toThrow(RangeError)
    expect(() => declination({ latDeg: 0, lonDeg: 0 }, new Date('nonsense'))).toThrow(/no date/)
  })
  it('says a compass is unsure where the horizontal field is weak', () => {
    // Near the northern magnetic dip pole of 2025, about 86° N 139° E (NOAA, from memory).
    expect(declination({ latDeg: 85.8, lonDeg: 139 }, new Date('2026-01-01')).compass).toBe('useless')
    expect(declination({ latDeg: 46.8, lonDeg: -41.4 }, new Date('2026-01-01')).compass).toBe('good')
  })
  it('true and magnetic turn into each other', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 359.99, noNaN: true }), fc.double({ min: -60, max: 60, noNaN: true }), (b, d) => {
        expect(angleBetween(magneticToTrue(trueToMagnetic(b, d), d), b)).toBeLessThan(1e-9)
      }),
    )
  })
  it('with 12° west the compass reads 12° more', () => expect(trueToMagnetic(252, -12)).toBe(264))
})

describe('positions as typed', () => {
  it.each([
    ['46.8 41.4 W', 46.8, -41.4],
    ['43.92S 28.42', -43.92, 28.42],
    ['W 41.4 46.8', 46.8, -41.4],
    ['46,8 41,4W', 46.8, -41.4],
  ])('a single hemisphere’s letter stays with its number: %s', (text, latDeg, lonDeg) =>
    expect(parsePosition(text)).toEqual({ latDeg, lonDeg }),
  )
  it.each(['46.8 N 41.4 O', '46.8 41.4O'])('O is asked about: %s', text =>
    expect(() => parsePosition(text)).toThrow('O is east in German and west in French'),
  )
  it.each([
    ['46.8085, -41.3620', 46.8085, -41.362],
    ['46,8085; −41,3620', 46.8085, -41.362],
    ['46.8085 -41.3620', 46.8085, -41.362],
    ['geo:46.8085,-41.3620', 46.8085, -41.362],
    // RFC 5870: a height, a reference, an uncertainty.
    ['geo:46.8085,-41.3620,120', 46.8085, -41.362],
    ['geo:46.8085,-41.3620,-12.5;crs=wgs84;u=35', 46.8085, -41.362],
    ['46°48.51′N 41°21.72′W', 46.8085, -41.362],
    ['N46 48 30.6 W41 21 43.2', 46.8085, -41.362],
    ['46°48\'30.6"N, 41°21\'43.2"W', 46.8085, -41.362],
    ['41°21.72′W 46°48.51′N', 46.8085, -41.362],
    ['46,8085 -41,3620', 46.8085, -41.362],
    ['46.8085N 41.3620W', 46.8085, -41.362],
  ])('%s', (text, lat, lon) => {
    const p = parsePosition(text)
    expect(p.latDeg).toBeCloseTo(lat, 5)
    expect(p.lonDeg).toBeCloseTo(lon, 5)
  })
  it.each([
    '',
    'hello',
    '46.8',
    '91, 0',
    '46.8, 181',
    '46°70′N 41°W',
    'NaN, NaN',
    '46.8N 41.3N',
    'geo:46.8',
    'geo:46.8,-41.3;crs=nad27',
  ])('refuses “%s”', text => expect(() => parsePosition(text)).toThrow(RangeError))
  it('reads back what it writes', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -89, max: 89, noNaN: true }),
        fc.double({ min: -179, max: 179, noNaN: true }),
        (latDeg, lonDeg) => {
          const p = parsePosition(formatPosition({ latDeg, lonDeg }, 6))
          expect(p.latDeg).toBeCloseTo(latDeg, 5)
          expect(p.lonDeg).toBeCloseTo(lonDeg, 5)
        },
      ),
    )
  })
})

describe('the sun', () => {
  // Meeus, Astronomical Algorithms, example 25.a gives the apparent place for 1992-10-13 0 TD; here: solar noon stands
  // due south, from the northern temperate zone (geometry).
  it('stands due south at solar noon, north of the tropic', () => {
    let best = { off: 999, at: 0 }
    for (let m = 0; m < 1440; m++) {
      const s = sunPosition({ latDeg: 46.8, lonDeg: -41.4 }, new Date(Date.UTC(2026, 5, 21, 0, m)))
      if (s.altitudeDeg > 0 && angleBetween(s.azimuthDeg, 180) < best.off)
        best = { off: angleBetween(s.azimuthDeg, 180), at: s.altitudeDeg }
    }
    expect(best.off).toBeLessThan(0.5)
    // At the June solstice the noon altitude is 90 − latitude + 23.44 (obliquity).
    expect(best.at).toBeCloseTo(90 - 46.8 + 23.44, 0)
  })
  it('gives a bearing right or left of it, and none at night', () => {
    const at = { latDeg: 46.8, lonDeg: -41.4 }
    const noon = relativeToSun(at, new Date('2026-04-03T14:50:00Z'), 217)!
    expect(noon.turnDeg).toBeCloseTo(turn(noon.sunAzimuthDeg, 217), 9)
    expect(relativeToSun(at, new Date('2026-04-03T03:00:00Z'), 217)).toBeNull()
  })
})
