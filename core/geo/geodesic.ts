/** Distance and bearing on the WGS84 ellipsoid. */
import geodesic from 'geographiclib-geodesic'
import { inRange } from '../check'
import { normalise360 } from './angles'

export interface Position {
  latDeg: number
  lonDeg: number
}

const wgs84 = geodesic.Geodesic.WGS84

function checked(p: Position): Position {
  inRange('latitudeDeg', p.latDeg, -90, 90)
  inRange('longitudeDeg', p.lonDeg, -180, 180)
  return p
}

/**
 * @returns distance along the ellipsoid, m; bearing at the start and at the far end looking on, degrees true
 * @throws RangeError where a position is outside −90…90, −180…180
 * @source C. F. F. Karney, Algorithms for geodesics, J. Geodesy 87 (2013), through GeographicLib
 */
export function inverse(from: Position, to: Position): { distanceM: number; bearingDeg: number; arrivalDeg: number } {
  checked(from)
  checked(to)
  const r = wgs84.Inverse(from.latDeg, from.lonDeg, to.latDeg, to.lonDeg)
  return { distanceM: r.s12!, bearingDeg: normalise360(r.azi1!), arrivalDeg: normalise360(r.azi2!) }
}

/** @returns the position `distanceM` away on the given true bearing. @source as `inverse` */
export function direct(from: Position, bearingDeg: number, distanceM: number): Position {
  checked(from)
  const r = wgs84.Direct(from.latDeg, from.lonDeg, bearingDeg, distanceM)
  return { latDeg: r.lat2!, lonDeg: r.lon2! }
}

/**
 * Positions evenly spaced along the geodesic, both ends included.
 *
 * Every 16th point is exact; those between are linear in latitude and longitude, which at the
 * spacing used here (under 2 km a chord) strays from the geodesic by well under 1 m.
 */
export function alongGeodesic(
  from: Position,
  to: Position,
  count: number,
): { latDeg: Float64Array; lonDeg: Float64Array; distanceM: number } {
  inRange('count', count, 2, 1e6)
  checked(to)
  const line = wgs84.InverseLine(
    from.latDeg,
    from.lonDeg,
    to.latDeg,
    to.lonDeg,
    geodesic.Geodesic.STANDARD | geodesic.Geodesic.DISTANCE_IN | geodesic.Geodesic.LONG_UNROLL,
  )
  const total = line.s13
  const step = 16
  const lat = new Float64Array(count)
  const lon = new Float64Array(count)
  const exact = (i: number) => {
    const p = line.Position((total * i) / (count - 1), geodesic.Geodesic.STANDARD | geodesic.Geodesic.LONG_UNROLL)
    return [p.lat2!, p.lon2!] as const
  }
  let a = exact(0)
  for (let i = 0; i < count - 1; i += step) {
    const j = Math.min(i + step, count - 1)
    const b = exact(j)
    for (let k = i; k <= j; k++) {
      const t = (k - i) / (j - i)
      lat[k] = a[0] + t * (b[0] - a[0])
      lon[k] = a[1] + t * (b[1] - a[1])
    }
    a = b
  }
  return { latDeg: lat, lonDeg: lon, distanceM: total }
}
