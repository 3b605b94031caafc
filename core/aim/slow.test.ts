import { describe, expect, it } from 'vitest'
import { angleBetween } from '../geo/angles'
import { normals, seeded } from '../random'
import { bestOf, heardNow, worldOf } from '../world/world'
import { estimateHeading } from './estimate'
import { SlowTurn, sectorFor } from './slow'
import type { SweepStep } from './sweep'

/** Mean direction by the sum of unit vectors. @source circular statistics, Mardia and Jupp 2000 */
const meanBearing = (list: readonly number[]) => {
  const [x, y] = [Math.cos, Math.sin].map(f => list.reduce((sum, h) => sum + f((h * Math.PI) / 180), 0))
  return ((Math.atan2(y!, x!) * 180) / Math.PI + 360) % 360
}

const BEAM = { gainDbi: 10, beamwidthDeg: 50, frontToBackDb: 20 }

/** Turned right round at so many degrees a second, read five times a second. */
function turned(seed: number, degPerS: number): { steps: SweepStep[]; slow: SlowTurn } {
  const slow = new SlowTurn(sectorFor(BEAM.beamwidthDeg))
  const w = worldOf(seed)
  const noise = normals(seeded(seed))
  const steps: SweepStep[] = []
  for (let s = 0; s * degPerS <= 365; s += 0.2) {
    const headingDeg = (s * degPerS) % 360
    const { rsrpDbm } = heardNow(w, { headingDeg, antenna: BEAM, atS: s })
    steps.push(...slow.add(headingDeg + 2 * noise(), rsrpDbm, s * 1000))
  }
  return { steps: [...steps, ...slow.end()], slow }
}

describe('a slow turn', () => {
  it('sectors fill the circle, a sixth of the beam within bounds', () => {
    for (const width of [5, 14, 32, 50, 70, 120, 360]) {
      const s = sectorFor(width)
      expect((360 / s) % 1).toBeCloseTo(0, 9)
      expect(s).toBeGreaterThan(3)
      expect(s).toBeLessThanOrEqual(15)
    }
  })
  it('covers the circle once, and each step lies in the sector it is of', () => {
    const { steps, slow } = turned(4, 4)
    expect(slow.covered).toBe(1)
    expect(slow.missed).toEqual([])
    for (const s of steps) expect(s.headingDeg).toBeGreaterThanOrEqual(0)
  })
  it('the middle of a sector is the mean direction of what was read in it', () => {
    const slow = new SlowTurn(360 / 12)
    for (const [i, h] of [352, 356, 358].entries()) slow.add(h, -90, i * 200)
    expect(meanBearing([352, 356, 358])).toBeCloseTo(slow.end()[0]!.headingDeg, 1)
  })
  it('turned too fast it says so, and how fast it may be', () => {
    const { slow } = turned(4, 20)
    expect(slow.speed().now).toBeGreaterThan(slow.speed().most)
    expect(slow.missed.length).toBeGreaterThan(5)
    const fair = turned(4, 4).slow.speed()
    expect(fair.now).toBeLessThan(fair.most)
  })
  it('in 200 places the best of one slow turn lies within half the beam of the truth mostly', () => {
    let near = 0
    let lost = 0
    for (let seed = 1; seed <= 200; seed++) {
      const { headingDeg } = estimateHeading(turned(seed, 4).steps, { beamwidthDeg: BEAM.beamwidthDeg })
      const best = bestOf(worldOf(seed), BEAM)
      if (angleBetween(headingDeg, best.headingDeg) < BEAM.beamwidthDeg / 2) near++
      lost += best.lostDb(headingDeg)
    }
    expect(near).toBeGreaterThan(180)
    // What is lost against the best heading there is, on the average, dB.
    expect(lost / 200).toBeLessThan(1)
  })
})
