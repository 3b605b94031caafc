/** What is promised, against seeded places that have a truth of their own: `tests/support/worlds.ts` takes nothing from here. */
import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { phoneLoads, phoneLoadsByBooster, phoneReads, routerLoads, worldOf } from '../../tests/support/worlds'
import type { RouterKit, World } from '../../tests/support/worlds'
import type { Assessment } from '../judge/assess'

const WORLDS = 240
/** 400-size cable, dB a metre. @source data sheets of its kind, 12.6 and 19.4 dB a hundred metres at 800 and 1800 MHz, from memory */
const LINE_DB = { B20: 0.126, B3: 0.194 }

/** The house as a crew would have entered it: three readings and two speed runs in the kitchen, and the roof where it was climbed. */
function surveyed(w: World, approach: 'router' | 'booster', roof: boolean): House {
  const h = new House(approach, 'home', { agreedDownMbps: null })
  h.set('cells', h.doc.cells[0]!.id, { band: w.band }).design({ band: w.band, bandwidthMHz: w.widthMHz })
  const read = (spot: string, inside: boolean) => {
    for (let i = 0; i < 3; i++) {
      const { rsrpDbm, sinrDb } = phoneReads(w, inside)
      const read = { band: w.band, bandwidthMHz: w.widthMHz }
      h.reads(spot, Math.max(rsrpDbm, -139), Math.max(sinrDb, -19), read)
    }
  }
  read('Kitchen', true)
  if (roof) read('Ridge', false)
  for (let i = 0; i < 2; i++) h.speed('Kitchen', phoneLoads(w), 0)
  return h
}

/** The kit by its data sheets: what is printed on the parts, and cable by length. */
function kitOf(w: World, h: House, layers: 1 | 2): RouterKit {
  const part = h.donor.part!
  if (part.kind !== 'antenna') throw new Error('no donor')
  const range = part.ranges.find(r => r.lowMHz <= w.mhz && w.mhz <= r.highMHz)!
  const run = h.doc.runs.find(r => r.fromNodeId === h.donor.id)!
  // Beside the cable two joints, an arrestor and a jumper.
  return {
    gainDbi: range.gainDbi,
    beamwidthDeg: range.beamwidthDeg,
    frontToBackDb: part.frontToBackDb,
    lossDb: LINE_DB[w.band] * run.lengthM + 1,
    layers,
    noiseDb: 9,
  }
}

/** What the place would really give once it is built. */
function truth(w: World, h: House, a: Assessment, approach: 'router' | 'booster'): number {
  if (approach === 'router') return routerLoads(w, kitOf(w, h, 2))
  const [server, room] = [h.server, h.spot(a.promise!.where.slice(3))]
  const metres = Math.hypot(server.eastM - room.eastM, server.northM - room.northM, server.upM - room.upM)
  return phoneLoadsByBooster(w, {
    donor: kitOf(w, h, 1),
    gainDb: a.levels!.amplifiers[0]!.gainDb + 1.5 * w.normal(),
    noiseDb: 6,
    feedLossDb: LINE_DB[w.band] * 10,
    serverDbi: 2,
    metres,
    floors: 0,
  })
}

/** Share of places in which the truth lay within what was promised; where an amplifier would shut down, nothing is. */
function held(approach: 'router' | 'booster', roof: boolean): { share: number; promised: number } {
  let inside = 0
  let promised = 0
  for (let seed = 1; seed <= WORLDS; seed++) {
    const w = worldOf(seed * 7919)
    const h = surveyed(w, approach, roof)
    const a = h.assess()
    if (!a.promise) continue
    promised++
    const is = truth(w, h, a, approach)
    if (is >= a.promise.down.low && is <= a.promise.down.high) inside++
  }
  return { share: inside / promised, promised }
}

describe.each([
  ['router', true],
  ['router', false],
  ['booster', true],
  ['booster', false],
] as const)('nine times in ten: %s, roof read: %s', (approach, roof) => {
  it('holds the truth of places that it was not made from', () => {
    const { share, promised } = held(approach, roof)
    expect(promised).toBeGreaterThan(200)
    expect(share).toBeGreaterThanOrEqual(0.86)
    expect(share).toBeLessThanOrEqual(0.95)
  })
})
