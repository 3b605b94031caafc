import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { BARE_FIXTURE } from '../job/defaults'
import { BARE_FIXING } from '../job/fixing'
import { cardOf, climbOf } from './card'
import { byOne, climbsOf } from './order'

const NOW = '2026-04-03T12:00:00.000Z'
const later = (minutes: number) => new Date(Date.parse(NOW) + minutes * 60_000).toISOString()
const card = (h: House) => cardOf(h.doc, h.assess())
describe('the card of a job', () => {
  it('every part of the tree that is hung, raised or pulled has its step once', () => {
    const h = new House('booster')
    const { steps } = card(h)
    const ids = steps.map(s => s.id)
    expect(new Set(ids).size).toBe(ids.length)
    const { tree, lengths } = h.assess()
    for (const d of tree!.donors) expect(ids).toEqual(expect.arrayContaining([`raise:${d.node.id}`, `aim:${d.node.id}`]))
    for (const a of tree!.amplifiers) expect(ids).toEqual(expect.arrayContaining([`hang:${a.node.id}`, `power:${a.node.id}`]))
    for (const c of lengths) expect(ids).toContain(`pull:${c.joint.run.id}`)
  })
  it('power stands after every plug, aiming after power, proof at the end, the dry run before any hole', () => {
    const h = new House('booster')
    const { building } = { building: h.doc.sites[0]! }
    const id = h.add('fixtures', {
      ...BARE_FIXTURE,
      kind: 'way in',
      name: 'gable',
      eastM: -building.lengthM / 2,
      northM: 0,
      upM: 1,
      entry: 'wall',
    })
    h.design({ wayInId: id })
    const order = card(h).steps.map(s => s.id.split(':')[0]!)
    const last = (k: string) => order.lastIndexOf(k)
    expect(order.indexOf('dry-run')).toBeLessThan(order.indexOf('way'))
    expect(last('way')).toBeLessThan(order.indexOf('pull'))
    expect(last('pull')).toBeLessThan(order.indexOf('join'))
    expect(last('join')).toBeLessThan(order.indexOf('power'))
    expect(last('power')).toBeLessThan(order.indexOf('aim'))
    expect(order.at(-1)).toBe('clear')
  })
  it('a house with one mast takes two climbs: up with it, and up again to aim once there is power', () => {
    expect(climbsOf(card(new House('router')).steps)).toBeLessThanOrEqual(2)
  })
  it('done stays done as it was; a change of the plan marks it, and the open steps follow the plan', () => {
    const h = new House('router')
    const pull = card(h).steps.find(s => s.id.startsWith('pull:'))!
    h.check('step', pull.id, { about: pull.about })
    expect(card(h).steps.find(s => s.id === pull.id)).toMatchObject({ done: true, changed: false })
    h.set('runs', pull.id.split(':')[1]!, { lengthM: 33 })
    expect(card(h).steps.find(s => s.id === pull.id)).toMatchObject({ done: true, changed: true })
    expect(card(h).steps[0]!.id).toBe(pull.id)
  })
  it('another way in marks the hole that was made, though it is called the same; the rest stays as it was', () => {
    const h = new House('router')
    const at = { eastM: -h.doc.sites[0]!.lengthM / 2, northM: 0, upM: 1 }
    const id = h.add('fixtures', { ...BARE_FIXTURE, ...at, kind: 'way in', name: 'gable', entry: 'wall', behindFound: 'clear' })
    h.design({ wayInId: id })
    h.check('step', `way:${id}`, { about: card(h).steps.find(s => s.id === `way:${id}`)!.about })
    h.check('step', 'labels', { about: card(h).steps.find(s => s.id === 'labels')!.about })
    const changed = () => card(h).steps.flatMap(s => (s.changed ? [s.id] : []))
    expect(changed()).toEqual([])
    h.set('fixtures', id, { behindFound: 'deck core' })
    expect(changed()).toEqual([`way:${id}`])
  })
  it('a row that comes back with its fields in another order is no change of the plan', () => {
    const h = new House('router')
    const fields = { outsideMm: 50, wallMm: 3, lengthM: 2 }
    const held = (sections: (typeof fields)[]) =>
      h.set('nodes', h.donor.id, { fixing: { ...BARE_FIXING, mount: 'wall bracket', sections, grade: 'S235', apartM: 1 } })
    const sums = () => card(h).steps.map(s => s.about)
    held([fields])
    const before = sums()
    held([Object.fromEntries(Object.entries(fields).reverse()) as typeof fields])
    expect(sums()).toEqual(before)
  })
  it('another mast marks the aim of a beam', () => {
    const h = new House('router')
    const aim = card(h).steps.find(s => s.id.startsWith('aim:'))!
    h.check('step', aim.id, { about: aim.about })
    expect(card(h).steps.find(s => s.id === aim.id)!.changed).toBe(false)
    h.design({ mastId: null })
    expect(card(h).steps.find(s => s.id === aim.id)!.changed).toBe(true)
  })
  it('what is not so waits with its reason, the card goes on with what does not need it', () => {
    const h = new House('router')
    const first = card(h).next!
    h.check('step', first.id, { done: false, reason: 'no network at all here' })
    const now = card(h)
    expect(now.steps.find(s => s.id === first.id)!.notSo).toBe('no network at all here')
    expect(now.next!.id).not.toBe(first.id)
  })
  it('two phones that tick the same step, and one that takes it back later: the last word counts, and it stands once', () => {
    const h = new House('router')
    const { id, about } = card(h).next!
    h.check('step', id, { by: 'Ila', about })
    h.check('step', id, { by: 'Oren', about, atUtc: later(1) })
    const both = card(h).steps.filter(s => s.id === id)
    expect(both).toHaveLength(1)
    expect(both[0]).toMatchObject({ done: true, mark: { by: 'Oren' } })
    h.check('step', id, { done: false, about, atUtc: later(2) })
    expect(card(h).next!.id).toBe(id)
  })
  it('a step by hand stands after the step it was put behind; two that name each other in a circle stop no card', () => {
    const h = new House('router')
    const own = (afterKey: string | null) => h.add('ownSteps', { words: 'Old dish off', stand: 'up', minutes: 20, afterKey })
    const first = own('seal')
    const second = own(`own:${first}`)
    h.set('ownSteps', first, { afterKey: `own:${second}` })
    const { steps } = card(h)
    expect(steps.filter(s => s.own)).toHaveLength(2)
    h.set('ownSteps', first, { afterKey: 'seal' })
    const order = card(h).steps.map(s => s.id)
    expect(order.indexOf(`own:${first}`)).toBeGreaterThan(order.indexOf('seal'))
    expect(order.indexOf(`own:${second}`)).toBeGreaterThan(order.indexOf(`own:${first}`))
    // What it was put behind may go from the plan: it stands by itself then.
    h.set('ownSteps', first, { afterKey: 'pull:gone' })
    expect(card(h).steps.find(s => s.id === `own:${first}`)!.needs).toEqual([])
  })
  it('a step by hand stands before the step it was put before, also before another by hand', () => {
    const h = new House('router')
    const own = (words: string, beforeKey: string) =>
      h.add('ownSteps', { words, stand: 'ground', minutes: 20, afterKey: null, beforeKey })
    const call = own('Call the neighbour', 'dry-run')
    const ask = own('Ask for the number', `own:${call}`)
    const { steps } = card(h)
    const place = (id: string) => steps.findIndex(s => s.id === id)
    expect(place(`own:${ask}`)).toBeLessThan(place(`own:${call}`))
    expect(place(`own:${call}`)).toBeLessThan(place('dry-run'))
    expect(steps[place('dry-run')]!.needs).toContain(`own:${call}`)
  })
  it('every tool that any step takes is gathered before anything on site', () => {
    const { steps } = card(new House('booster'))
    const load = steps.find(s => s.id === 'load')!
    for (const s of steps.filter(x => x.id !== 'load')) expect(load.tools, s.words).toEqual(expect.arrayContaining(s.tools))
    expect(steps.findIndex(s => s.stand !== 'in coverage')).toBeGreaterThan(steps.indexOf(load))
  })
  it('a router’s SIM goes in before its power, the network is there before the aim, its passwords before the proof', () => {
    const { steps } = card(new House('router'))
    const place = (kind: string) => steps.findIndex(s => s.id.startsWith(kind))
    expect(place('sim:')).toBeGreaterThan(-1)
    const order = ['sim:', 'power:', 'net:', 'aim:', 'prove'].map(place)
    expect(order).toEqual([...order].sort((a, b) => a - b))
    expect(place('keys:')).toBeLessThan(place('prove'))
    expect(card(new House('booster')).steps.some(s => s.id.startsWith('sim:'))).toBe(false)
  })
  it('a climb takes up what all its steps take, each once, and what was put together on the ground', () => {
    const h = new House('booster')
    const { steps } = card(h)
    const first = steps.find(s => s.stand === 'up')!
    const climb = climbOf(steps, first)!
    expect(climb.steps[0]).toBe(first)
    expect(climb.steps.every(s => s.stand === 'up')).toBe(true)
    for (const tool of climb.steps.flatMap(s => s.tools)) expect(climb.takes.filter(t => t === tool)).toHaveLength(1)
    expect(climb.takes).toContain(h.assess().tree!.donors[0]!.name)
    expect(
      climbOf(
        steps,
        steps.find(s => s.stand === 'ground')!,
      ),
    ).toBeNull()
  })
  it('a core is filled and hardens before it is drilled: what needs the hole waits, the rest goes on', () => {
    const h = new House('booster')
    const id = h.wayIn({ behindFound: 'deck core' })
    for (const s of ['fetch', 'load', 'labels', 'register', 'dry-run', `fill:${id}`]) h.check('step', s)
    const at = (atUtc: string) => cardOf(h.doc, h.assess(), { lines: [], onDay: '', atUtc })
    const soon = at(later(60))
    const hole = soon.steps.find(s => s.id === `way:${id}`)!
    expect(hole.hardensUntil).toBe(later(12 * 60))
    const crossing = soon.steps.filter(s => s.needs.includes(hole.id))
    expect(crossing.length).toBeGreaterThan(0)
    for (const s of crossing) expect(s.hardensUntil, s.words).toBe(later(12 * 60))
    expect(soon.next!.id).not.toBe(hole.id)
    expect(soon.next!.hardensUntil).toBeNull()
    expect(at(later(12 * 60 + 1)).steps.every(s => s.hardensUntil === null)).toBe(true)
  })
  it('a SIM is in before the dry run, and a modem outdoors has its own before it goes up', () => {
    const h = new House('router')
    const router = h.doc.nodes.find(n => n.part?.kind === 'router')!
    const places = () => {
      const ids = card(h).steps.map(s => s.id)
      return [ids.indexOf(`sim:${router.id}`), ids.indexOf(`hang:${router.id}`)] as const
    }
    const ids = card(h).steps.map(s => s.id)
    expect(ids.indexOf(`sim:${router.id}`)).toBeLessThan(ids.indexOf('dry-run'))
    expect(card(h).steps.find(s => s.id === 'dry-run')!.needs).toContain(`sim:${router.id}`)
    h.set('nodes', router.id, { eastM: -h.doc.sites[0]!.lengthM, upM: 6 })
    const [before, up] = places()
    expect(before).toBeLessThan(up)
  })
  it('an omni is not turned: it is read and tightened, sooner than a beam is aimed', () => {
    const h = new House('router', 'vehicle')
    const aim = () => card(h).steps.find(s => s.id.startsWith('aim:'))!
    expect(aim().words).toMatch(/^Read .* tighten/)
    expect(aim().then).not.toContain('bearing')
    const beam = card(new House('router')).steps.find(s => s.id.startsWith('aim:'))!
    expect(beam.then).toContain('about the bearing')
    expect(byOne([aim()]).likely).toBeLessThan(byOne([beam]).likely)
  })
  it('nothing laid out: no step, and nothing is said to be left', () => {
    expect(card(new House(null))).toMatchObject({ steps: [], next: null, climbsLeft: 0 })
  })
})
