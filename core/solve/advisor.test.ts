import { describe, expect, it } from 'vitest'
import { House, AT } from '../../tests/support/house'
import { demoScenario } from '../../demo/scenario'
import { pathInputs } from '../masts/bearings'
import { kitChanges } from '../fitting/usual-kit'
import { applyChanges } from '../job/changes'
import { cutTile, Terrain } from '../terrain/blocks'
import { computePaths } from '../terrain/path'
import { demoTile } from '../../demo/terrain'
import { advise } from './advisor'
import type { Advice, Advised } from './advisor'

const of = (h: House): Advised => advise(h.doc, h.evidence, AT)
const get = (a: Advised, id: Advice['id']): Advice => a.advice.find(x => x.id === id)!
const order = (a: Advised) => a.advice.map(x => x.id)

/** A kitchen that reads badly and a roof that reads well; data only. */
const data = (job: Record<string, unknown> = {}) =>
  new House('router', 'home', { agreedDownMbps: 15, agreedUpMbps: 2, agreedCalls: false, ...job })
    .reads('Kitchen', -112, 4)
    .reads('Kitchen', -113, 3)
    .reads('Kitchen', -112, 4)
    .speed('Kitchen', 3, 0.6)
    .speed('Kitchen', 3.4, 0.5)
    .reads('Ridge', -92, 15)
    .reads('Ridge', -93, 16)

describe('which approach', () => {
  it('works each out as a design of its own, and touches nothing of the job', () => {
    const h = data()
    const before = structuredClone(h.doc)
    const a = of(h)
    expect(h.doc).toEqual(before)
    expect(new Set(order(a))).toEqual(
      new Set(['nothing', 'outdoors', 'router', 'window', 'stick', 'booster', 'booster and router', 'extender']),
    )
    expect(get(a, 'nothing').down!.median).toBeCloseTo(3.2, 6)
    for (const id of ['outdoors', 'router', 'booster'] as const) expect(get(a, id).down!.median).toBeGreaterThan(3.4)
  })
  it('a beam on a router beats a booster for data, as a booster cannot better the SINR outside', () => {
    // Common practice (no source).
    const a = of(data())
    expect(get(a, 'router').down!.median).toBeGreaterThan(get(a, 'booster').down!.median)
    expect(order(a).indexOf('router')).toBeLessThan(order(a).indexOf('booster'))
  })
  it('the modem outdoors loses no level to a cable', () => {
    const a = of(data())
    expect(get(a, 'outdoors').down!.median).toBeGreaterThanOrEqual(get(a, 'router').down!.median)
  })
  it('where calls of every phone are wanted the booster stands before what carries them over Wi-Fi only', () => {
    const a = of(data({ agreedDownMbps: null, agreedUpMbps: null, agreedCalls: true }))
    expect(get(a, 'router').calls).toBe('over Wi-Fi')
    expect(get(a, 'booster').calls).toBe('as phones are')
    // Either way of repeating them; an extender asks for less work.
    expect(['booster', 'extender']).toContain(order(a)[0])
    expect(order(a).indexOf('booster')).toBeLessThan(order(a).indexOf('router'))
  })
  it('what is already met needs nothing', () => {
    // By three tests: two alone leave it open.
    const h = data({ agreedDownMbps: 2, agreedUpMbps: 0.4 })
    expect(get(of(h), 'nothing').met).toBe('open')
    const a = of(h.speed('Kitchen', 3.2, 0.55))
    expect(order(a)[0]).toBe('nothing')
    expect(a.advice[0]!.why).toBe('all that was agreed, with the least work')
    expect(a.advice[0]).toMatchObject({ hours: 0, cost: 0, holes: { outside: 0, inside: 0 } })
  })
  it('a room that reads better comes before any hole', () => {
    const h = data({ agreedDownMbps: 6, agreedUpMbps: 0.4 })
    for (let i = 0; i < 3; i++) h.reads('Study', -101, 13)
    h.job({ baselineSpotId: h.spot('Kitchen').id })
    const a = of(h)
    expect(get(a, 'move').down!.median).toBeGreaterThan(5)
    expect(order(a).indexOf('move')).toBeLessThan(order(a).indexOf('router'))
    expect(get(a, 'move').cannot.join()).toContain('Kitchen')
  })
  it('strong on the roof and dead inside is worked out with the pad that the amplifier needs, and laid out with it', () => {
    // The usual job in a building. Common practice (no source).
    const h = new House('router', 'building', { agreedDownMbps: 5, agreedUpMbps: 1 })
      .reads('Roof', -70, 20)
      .reads('Roof', -71, 20)
    const a = get(of(h), 'booster')
    expect(a.choice.pad!.lossDb).toBeGreaterThan(0)
    expect(a.down!.median).toBeGreaterThan(5)
    const bearing = h.assess().chosen!.frameBearingDeg
    h.doc = applyChanges(
      h.doc,
      kitChanges(h.doc, h.doc.designs[0]!, 'booster', { bearingDeg: bearing, newId: h.id, choice: a.choice }),
    )
    expect(h.doc.nodes.filter(n => n.part?.kind === 'pad')).toHaveLength(1)
    const { findings } = h.assess()
    expect(findings.filter(f => f.code === 'level.overload').map(f => f.title)).toEqual([])
    expect(findings.filter(f => f.code.startsWith('choose.connector'))).toEqual([])
    // A weak roof needs none.
    const weak = new House('router', 'building').reads('Roof', -98, 12)
    expect(get(of(weak), 'booster').choice).toEqual({})
  })
  it('no drilling means no holes, in any of them', () => {
    for (const x of of(data({ mayDrill: 'no' })).advice) expect(x.holes).toEqual({ outside: 0, inside: 0 })
  })
  it('with nothing usable outside it says what is left, as a class', () => {
    const h = new House('router').reads('Kitchen', -128, -9).reads('Ridge', -127, -6)
    expect(of(h).none).toMatch(/RSRP −127 dBm at best.*fixed line, a satellite terminal/)
    expect(of(data()).none).toBeNull()
  })
  it('does not change with what does not matter', () => {
    const h = data()
    const first = order(of(h))
    h.job({ customerName: 'Other', notes: 'x'.repeat(200), customerAddress: 'elsewhere', nextOn: '2026-12-01' })
    h.add('spots', { name: 'Shed', eastM: 40, northM: 0, upM: 1, indoors: false, needed: false })
    expect(order(of(h))).toEqual(first)
  })
  it('ranks every job of the demo, each with a reason', () => {
    const terrain = new Terrain(cutTile(demoTile()))
    for (const { document } of demoScenario().jobs) {
      const paths = computePaths(terrain, pathInputs(document))
      const a = advise(document, { paths }, AT)
      expect(a.advice.length, document.jobs[0]!.name).toBeGreaterThanOrEqual(2)
      for (const x of a.advice) expect(x.why, `${document.jobs[0]!.name} ${x.id}`).not.toBe('')
    }
  })
})
