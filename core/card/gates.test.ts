import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { BARE_FIXING, BEHINDS } from '../job/fixing'
import { cardOf, gatesBefore } from './card'
import type { CardStep } from './card'
import { factKey, factsFor, GATES } from './gates'
import type { GateId, GateNeed } from './gates'

const NOW = '2026-04-03T12:00:00.000Z'
const later = (minutes: number) => new Date(Date.parse(NOW) + minutes * 60_000).toISOString()
const card = (h: House) => cardOf(h.doc, h.assess())
/** Everything that a gate asks for, said at a moment, with figures that open it. */
function say(h: House, need: GateNeed, atUtc = NOW): void {
  for (const f of factsFor(need, h.doc.jobs[0]!.kind))
    h.check('fact', factKey(f, need), {
      atUtc,
      about: f.scope === 'one' ? need.about : null,
      value: f.figure ? (f.key === 'lines' ? 40 : 4) : null,
    })
}
const needOf = (s: CardStep, gate: GateId) => s.gates.find(g => g.gate === gate)!
const state = (h: House, s: CardStep, gate: GateId, atUtc = NOW) =>
  gatesBefore(h.doc, s, card(h).steps, atUtc).find(g => g.gate === gate)!

/** A house with a pole on its wall: each gate stands before some step. */
function gated(gate: GateId) {
  const h = new House('booster')
  h.set('nodes', h.donor.id, {
    fixing: {
      ...BARE_FIXING,
      mount: 'wall bracket',
      sections: [{ outsideMm: 50, wallMm: 3, lengthM: 2 }],
      grade: 'S235',
      apartM: 1,
    },
  })
  const step = card(h).steps.find(s => s.gates.some(g => g.gate === gate))!
  return { h, step, need: needOf(step, gate) }
}
describe('gates', () => {
  it('none opens without its facts, each opens with all of them', () => {
    for (const gate of GATES.filter(g => g !== 'drill' && g !== 'gas')) {
      const { h, step, need } = gated(gate)
      expect(state(h, step, gate).open, gate).toBe(false)
      say(h, need)
      expect(state(h, step, gate).open, gate).toBe(true)
      for (const one of factsFor(need, 'home')) {
        const key = factKey(one, need)
        const without = { ...h.doc, checks: h.doc.checks.filter(c => c.key !== key) }
        const now = gatesBefore(without, step, card(h).steps, NOW).find(g => g.gate === gate)!
        expect(now.open, `${gate} without ${key}`).toBe(false)
      }
    }
  })
  it('a fridge vent stands behind gas off and cold, and an alarm for carbon monoxide', () => {
    const h = new House('booster', 'vehicle')
    h.wayIn({ entry: 'fridge-vent' })
    h.set('nodes', h.donor.id, { fixing: { ...BARE_FIXING, mount: 'magnet' } })
    const step = card(h).steps.find(s => s.id.startsWith('way:'))!
    expect(step.then).toMatch(/carbon monoxide/)
    const need = needOf(step, 'gas')
    expect(factsFor(need, 'vehicle').map(f => f.key)).toEqual(['flame', 'alarm'])
    expect(state(h, step, 'gas').open).toBe(false)
    say(h, need)
    expect(state(h, step, 'gas').open).toBe(true)
  })
  it('wind of an hour ago is no wind of now, thunder of half an hour ago neither: the gate shuts again by itself', () => {
    const { h, step, need } = gated('climb')
    say(h, need)
    const fact = (key: string, atUtc: string) => state(h, step, 'climb', atUtc).facts.find(f => f.fact.key === key)!
    expect(state(h, step, 'climb', later(29)).open).toBe(true)
    expect(fact('thunder', later(31))).toMatchObject({ stands: false, lapsed: true })
    expect(fact('wind', later(61)).lapsed).toBe(true)
    expect(state(h, step, 'climb', later(-60)).open).toBe(false)
  })
  it('each fact holds as long as it is said to, and not a minute more', () => {
    // Common practice (no source): a tied ladder for half a day's work, ice for two hours.
    const holds: Partial<Record<string, number>> = { foot: 240, ice: 120, eyes: 240 }
    const seen = new Set<string>()
    for (const gate of ['climb', 'ladder', 'drill'] as const) {
      const { h, step, need } = gated(gate)
      say(h, need)
      for (const fact of factsFor(need, 'home')) {
        const minutes = holds[fact.key]
        if (minutes === undefined) continue
        seen.add(fact.key)
        const standsAt = (m: number) =>
          gatesBefore(h.doc, step, card(h).steps, later(m))
            .find(g => g.gate === gate)!
            .facts.find(f => f.fact.key === fact.key)!.stands
        expect([standsAt(minutes), standsAt(minutes + 1)], `${gate}: ${fact.key}`).toEqual([true, false])
      }
    }
    expect([...seen].sort()).toEqual(['eyes', 'foot', 'ice'])
  })
  it('a gust of 12 m/s keeps it shut and says stop; a line nearer than the pole and 3 m too', () => {
    const { h, step, need } = gated('raise')
    say(h, need)
    const fact = (key: string, atUtc: string) => state(h, step, 'raise', atUtc).facts.find(f => f.fact.key === key)!
    const lines = (value: number, at: number) =>
      h.check('fact', `lines:${need.of}`, { value, about: need.about, atUtc: later(at) })
    h.check('fact', 'wind', { value: 12, atUtc: later(1) })
    expect(fact('wind', later(2)).stop).toContain('above 10 m/s')
    h.check('fact', 'wind', { value: 3, atUtc: later(2) })
    lines(4.9, 2)
    expect(fact('lines', later(3))).toMatchObject({ stands: false, stop: expect.stringContaining('5.0 m are kept') as unknown })
    lines(5.1, 4)
    expect(state(h, step, 'raise', later(5)).open).toBe(true)
  })
  it('a pole of unknown height is raised behind the distance of its whole height over the ground', () => {
    const h = new House('router')
    const step = card(h).steps.find(s => s.id === `raise:${h.donor.id}`)!
    expect(needOf(step, 'raise').assembledM).toBe(h.donor.upM)
    h.set('nodes', h.donor.id, { fixing: { ...BARE_FIXING, mount: 'side pole' } })
    expect(
      needOf(
        card(h).steps.find(s => s.id === step.id)!,
        'raise',
      ).assembledM,
    ).toBe(h.donor.upM)
  })
  it('a figure that is none opens nothing', () => {
    const { h, step, need } = gated('climb')
    say(h, need)
    h.check('fact', 'wind', { value: null, atUtc: later(1) })
    expect(state(h, step, 'climb', later(2)).open).toBe(false)
  })
  it('what was said of one hole, box, pole or place of the ladder opens no other', () => {
    const h = new House('booster')
    h.wayIn()
    h.check('step', 'dry-run')
    const all = card(h).steps.flatMap(s => s.gates.map(need => ({ s, need })))
    for (const { s, need } of all) {
      const fresh = new House('booster')
      fresh.doc = { ...h.doc, checks: [...h.doc.checks] }
      say(fresh, need)
      for (const other of all.filter(x => x.need.gate === need.gate && x.need.of !== need.of)) {
        const own = factsFor(other.need, 'home').filter(f => f.scope === 'one')
        const now = gatesBefore(fresh.doc, other.s, card(fresh).steps, NOW).find(
          g => g.gate === other.need.gate && g.need.of === other.need.of,
        )!
        if (own.length) expect(now.open, `${need.gate} of ${s.id} opened ${other.s.id}`).toBe(false)
        for (const f of own) expect(now.facts.find(x => x.fact.key === f.key)!.said, f.key).toBeNull()
      }
    }
    expect(new Set(all.map(x => `${x.need.gate}:${x.need.of}`)).size).toBeGreaterThan(6)
  })
  it('what was said of a hole lapses when the hole is moved', () => {
    const h = new House('booster')
    const id = h.wayIn({ behindFound: 'clear' })
    h.check('step', 'dry-run')
    const hole = () => card(h).steps.find(s => s.id === `way:${id}`)!
    say(h, needOf(hole(), 'drill'))
    expect(state(h, hole(), 'drill').open).toBe(true)
    h.set('fixtures', id, { upM: 1.6 })
    expect(state(h, hole(), 'drill').facts.find(f => f.fact.key === 'owner')).toMatchObject({ stands: false, lapsed: true })
  })
  it('a general yes in Ask is no yes to a hole through the wall; it is enough for the screws of a box; no is a stop for both', () => {
    const owner = (mayDrill: string, id: (h: House, way: string) => string) => {
      const h = new House('booster')
      const way = h.wayIn()
      h.job({ mayDrill })
      const step = card(h).steps.find(s => s.id === id(h, way))!
      return state(h, step, 'drill').facts.find(f => f.fact.key === 'owner')!
    }
    const through = (_: House, way: string) => `way:${way}`
    const screws = (h: House) => `hang:${h.part('amplifier').id}`
    expect(owner('yes', through).stands).toBe(false)
    expect(owner('yes', screws)).toMatchObject({ stands: true, known: 'in Ask' })
    for (const which of [through, screws]) expect(owner('no', which).stop).toMatch(/nothing may be drilled/)
  })
  it('what stands behind the hole is taken from the plan, and is asked for where the plan does not know it', () => {
    const h = new House('booster')
    const id = h.wayIn()
    const step = () => card(h).steps.find(s => s.id === `way:${id}`)!
    const drill = () => state(h, step(), 'drill')
    const fact = (key: string) => drill().facts.find(f => f.fact.key === key)!
    expect(fact('behind').stands).toBe(false)
    // That somebody looked, and not what was found, is not enough.
    h.set('fixtures', id, { behind: 'looked at', behindWhat: 'stud and board' })
    expect(fact('behind').stands).toBe(false)
    h.set('fixtures', id, { behindFound: 'clear' })
    expect(fact('behind')).toMatchObject({ stands: true, known: 'looked at: nothing in the way, stud and board' })
    expect(fact('tried').stands).toBe(false)
    h.check('step', 'dry-run')
    expect(fact('tried').known).toBe('done on this card')
    say(h, needOf(step(), 'drill'))
    for (const behindFound of BEHINDS) {
      h.set('fixtures', id, { behindFound })
      const opens = behindFound === 'clear' || behindFound === 'deck core'
      expect(drill().open, behindFound).toBe(opens)
      if (!opens)
        expect(
          drill().facts.filter(f => f.stop),
          behindFound,
        ).toHaveLength(1)
    }
    h.set('fixtures', id, { behindFound: 'deck core' })
    const cored = card(h).steps.filter(s => s.gates.some(g => g.gate === 'drill' && g.of === id))
    expect(cored.map(s => s.id)).toEqual([`fill:${id}`, `way:${id}`])
    expect(cored[0]!.then).toContain('wet core')
  })
  it('a way in that is not chosen leaves the drill gate shut, not absent; decided on site by a name it opens with its facts', () => {
    const h = new House('router')
    const step = card(h).steps.find(s => s.id === `way:${h.doc.designs[0]!.id}`)!
    expect(step.gates.map(g => g.gate)).toEqual(['plan', 'drill'])
    h.check('step', 'dry-run')
    say(h, needOf(step, 'plan'))
    expect(gatesBefore(h.doc, step, card(h).steps, NOW).map(g => [g.gate, g.open])).toEqual([
      ['drill', false],
      ['plan', true],
    ])
    say(h, needOf(step, 'drill'))
    expect(gatesBefore(h.doc, step, card(h).steps, NOW).every(g => g.open)).toBe(true)
  })
  it('a step may stand behind several gates: a hole in a roof asks for the climb and for the hole', () => {
    const h = new House('booster', 'building')
    const { storeys, storeyHeightM } = h.doc.sites[0]!
    const id = h.wayIn({ entry: 'roof', eastM: 0, upM: storeys * storeyHeightM })
    const step = card(h).steps.find(s => s.id === `way:${id}`)!
    expect(step.gates.map(g => g.gate)).toEqual(['climb', 'drill'])
    expect(step.people).toBe(2)
  })
  it('a dome’s hole asks for a stepladder and for what lies above; a running booster is aimed with people off', () => {
    const h = new House('booster')
    const { steps } = card(h)
    const gates = (id: string) => steps.find(s => s.id === id)!.gates.map(g => g.gate)
    expect(gates(`hang:${h.server.id}`)).toEqual(['ladder', 'drill'])
    expect(gates(`hang:${h.part('amplifier').id}`)).toEqual(['drill'])
    expect(gates(`aim:${h.donor.id}`)).toEqual(['climb', 'transmit'])
    expect(gates(`power:${h.part('amplifier').id}`)).toContain('transmit')
  })
  it('two people wherever a gate needs a second one, and nowhere is that forgotten', () => {
    for (const kind of ['home', 'building', 'vehicle', 'boat'] as const)
      for (const s of card(new House('booster', kind)).steps)
        if (s.gates.some(g => g.gate === 'climb' || g.gate === 'raise')) expect(s.people, s.words).toBe(2)
  })
  it('an aim is done once it is locked; a tick without a lock is marked', () => {
    const h = new House('router')
    const aim = () => card(h).steps.find(s => s.id.startsWith('aim:'))!
    expect(aim()).toMatchObject({ done: false, against: null })
    h.check('step', aim().id)
    expect(aim()).toMatchObject({ done: true, against: expect.stringContaining('no aim is locked') as unknown })
    h.design({ aimedDeg: 270, aimedAtUtc: NOW })
    expect(aim()).toMatchObject({ done: true, against: null })
    const locked = new House('router').design({ aimedDeg: 270, aimedAtUtc: NOW })
    expect(card(locked).steps.find(s => s.id.startsWith('aim:'))!.done).toBe(true)
  })
  it('proof is done once every room that must be proved was tested; a tick before that is marked', () => {
    const h = new House('router')
    const prove = () => card(h).steps.find(s => s.id === 'prove')!
    h.check('step', 'prove')
    expect(prove().against).toContain('not tested yet')
    h.speed('Kitchen', 12, 3, { phase: 'after' })
    expect(prove().against).toBeNull()
  })
})
