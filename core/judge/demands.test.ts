import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { kitChanges } from '../fitting/usual-kit'
import { BARE_FIXTURE } from '../job/defaults'
import { BARE_FIXING } from '../job/fixing'
import { arrestorFits } from '../install/surge'
import { buildingOf, inside } from '../site/building'
import { DEMANDS } from './demands'
import type { Demand, DemandKind } from './demands'

const of = (h: House, kind: DemandKind): Demand[] => h.assess().demands.filter(d => d.kind === kind)
const states = (h: House, kind: DemandKind) => of(h, kind).map(d => d.state)
const thing = (kind: string, at: object, more: object = {}) => ({ ...BARE_FIXTURE, kind, name: '', ...at, ...more })
const AT = { eastM: -7, northM: 0, upM: 0 }

describe('what a plan demands', () => {
  it('nothing laid out demands nothing; a plan on which nothing was noted has nothing met but what Ask agreed', () => {
    expect(new House(null).assess().demands).toEqual([])
    const h = new House('booster')
    for (const d of h.assess().demands) if (d.state === 'met') expect(['arrestor', 'consent']).toContain(d.kind)
    expect(new Set(h.assess().demands.map(d => d.kind))).toEqual(new Set(DEMANDS))
  })
  it('every missing one is a finding, and the finding goes when, and only when, it is met', () => {
    const h = new House('router')
    const code = (c: string) => h.assess().findings.some(f => f.code === c)
    const open = ['route.no-mount', 'route.no-way-in', 'route.no-earth', 'route.lines', 'place.no-feed']
    for (const c of open) expect(code(c), c).toBe(true)
    const gone = (c: string, act: () => unknown) => {
      act()
      expect(code(c), c).toBe(false)
      for (const still of open.slice(open.indexOf(c) + 1)) expect(code(still), `${still} after ${c}`).toBe(true)
    }
    gone('route.no-mount', () =>
      h.set('nodes', h.donor.id, {
        fixing: { ...BARE_FIXING, mount: 'side pole', sections: [{ outsideMm: 42, wallMm: 3, lengthM: 2 }], apartM: 1 },
      }),
    )
    gone('route.no-way-in', () => {
      const id = h.add('fixtures', thing('way in', { ...AT, upM: 1 }, { entry: 'port' }))
      h.design({ wayInId: id })
    })
    gone('route.no-earth', () => h.add('fixtures', thing('electrode', AT, { electrode: 'house earthing', conductor: 'solid' })))
    gone('route.lines', () => h.check('fact', `lines:${h.donor.id}`, { value: 30 }))
    gone('place.no-feed', () => {
      const { eastM, northM } = h.part('router')
      h.add('fixtures', thing('mains socket', { eastM, northM, upM: 0.4 }))
    })
  })
  it('an earth of which something is not known is assumed, never met', () => {
    const cases: [object, Demand['state']][] = [
      [{ electrode: 'rod' }, 'assumed'],
      [{ electrode: 'rod', conductor: 'solid' }, 'assumed'],
      [{ electrode: 'rod', bonded: 'yes' }, 'assumed'],
      [{ electrode: 'gas pipe', conductor: 'solid', bonded: 'yes' }, 'assumed'],
      [{ electrode: 'rod', conductor: 'solid', bonded: 'yes' }, 'met'],
      [{ electrode: 'house earthing', conductor: 'solid' }, 'met'],
    ]
    for (const [more, state] of cases) {
      const h = new House('router')
      h.add('fixtures', thing('electrode', AT, more))
      expect(states(h, 'earth'), JSON.stringify(more)).toEqual([state])
    }
  })
  it('who needs an earth: every outside antenna by NEC 810; low on a wall none by EN 60728-11; never a vehicle or a boat', () => {
    const earths = (rules: string, upM: number, eastM = -6.3) => {
      const h = new House('router', 'home', { rules: rules as 'US' })
      h.place(h.donor, { upM, eastM })
      return of(h, 'earth').length
    }
    // Eaves at 5.4 m, the wall at 6 m: 2.1 m under the eaves and 0.3 m off it.
    expect(earths('EU', 3.3)).toBe(0)
    expect(earths('UK', 3.3)).toBe(0)
    expect(earths('EU', 3.5)).toBe(1)
    expect(earths('EU', 3.3, -7.6)).toBe(1)
    for (const rules of ['US', 'AU', 'generic']) expect(earths(rules, 3.3), rules).toBe(1)
    for (const kind of ['vehicle', 'boat'] as const) {
      const h = new House('router', kind)
      expect(of(h, 'earth')).toEqual([])
      expect(of(h, 'arrestor')).toEqual([])
    }
  })
  it('an arrestor is put outdoors where the line comes in, never in a room below: on a roof of any width', () => {
    for (const eastM of [-10, -3, 0, 4, 11]) {
      const h = new House('booster', 'building')
      const arrestor = h.part('arrestor')
      const [before, after] = [
        h.doc.runs.find(r => r.toNodeId === arrestor.id)!,
        h.doc.runs.find(r => r.fromNodeId === arrestor.id)!,
      ]
      h.set('runs', before.id, { toNodeId: after.toNodeId, toPort: after.toPort })
      h.remove('runs', after.id).remove('nodes', arrestor.id)
      h.place(h.donor, { eastM })
      expect(states(h, 'arrestor')).toContain('missing')
      h.cured('level.no-arrestor')
      const b = buildingOf(h.doc)
      for (const n of h.doc.nodes.filter(x => x.part?.kind === 'arrestor')) {
        expect(inside(b, n), `donor at ${eastM}`).toBe(false)
        expect(arrestorFits(b, n)).toBe(true)
      }
      expect(states(h, 'arrestor')).not.toContain('missing')
    }
  })
  it('one that hangs deeper than half a metre within is a finding (NEC 810.20)', () => {
    const h = new House('router')
    const deep = (eastM: number) => {
      for (const n of h.doc.nodes.filter(x => x.part?.kind === 'arrestor')) h.place(n, { eastM, northM: 0, upM: 1.2 })
      h.add('fixtures', thing('electrode', AT, { electrode: 'house earthing', conductor: 'solid' }))
      return h.assess().findings.some(f => f.code === 'route.surge-deep')
    }
    expect(deep(-5.6)).toBe(false)
    expect(deep(-5.4)).toBe(true)
    expect(states(h, 'arrestor')).toContain('missing')
  })
  it('the Ethernet of a modem outdoors demands a way in, and an arrestor of its own', () => {
    const h = new House('router')
    h.apply(kitChanges(h.doc, h.doc.designs[0]!, 'outdoors', { bearingDeg: 270, newId: h.id }))
    const box = h.part('router')
    // Planned, its cable that comes in demands both, and has its arrestor.
    const comesIn = of(h, 'way in')[0]!.subjectId
    expect(h.doc.runs.some(r => r.id === comesIn)).toBe(true)
    expect(of(h, 'arrestor').find(d => d.subjectId === comesIn)!.state).toBe('met')
    // Not planned, its lead is supposed, and demands both all the same.
    for (const n of h.doc.nodes.filter(x => ['inj-poe', 'arr-data'].includes(x.partId))) h.remove('nodes', n.id)
    for (const r of h.doc.runs.filter(x => x.partId === 'data-6-out')) h.remove('runs', r.id)
    expect(of(h, 'way in').map(d => d.subjectId)).toContain(box.id)
    expect(of(h, 'arrestor').find(d => d.subjectId === box.id)!.state).toBe('missing')
    h.cured('route.surge-line')
    expect(of(h, 'arrestor').find(d => d.subjectId === box.id)!.state).toBe('met')
  })
  it('leads of a foot that is bolted through the roof come in by its own hole, and demand no other', () => {
    const h = new House('router', 'vehicle')
    const { part } = h.donor
    h.set('nodes', h.donor.id, { part: { ...part!, tailM: 3 }, fixing: { ...BARE_FIXING, mount: 'roof bolt' } })
    for (const r of h.doc.runs.filter(x => x.fromNodeId === h.donor.id)) h.set('runs', r.id, { partId: null, part: null })
    expect(of(h, 'way in')).toEqual([])
    h.set('nodes', h.donor.id, { fixing: { ...BARE_FIXING, mount: 'magnet' } })
    expect(of(h, 'way in').length).toBeGreaterThan(0)
  })
  it('an overhead line that is nearer than what is raised and 3 m is a stop that nobody accepts away', () => {
    const h = new House('router')
    h.set('nodes', h.donor.id, {
      fixing: { ...BARE_FIXING, mount: 'side pole', sections: [{ outsideMm: 42, wallMm: 3, lengthM: 2 }] },
    })
    h.check('fact', `lines:${h.donor.id}`, { value: 4.9 })
    expect(h.finding('route.lines')).toMatchObject({ severity: 'stop', holds: true })
    h.check('fact', `lines:${h.donor.id}`, { value: 5 })
    expect(h.finding('route.lines')).toBeUndefined()
  })
  it('a room that must be proved is open until it was tested as it is to stay; tests of before count for nothing', () => {
    const h = new House('router').speed('Kitchen', 3, 1)
    expect(states(h, 'room')).toEqual(['missing'])
    h.speed('Kitchen', 20, 4, { phase: 'after' })
    expect(states(h, 'room')).toEqual(['met'])
  })
  it('what is missing may be decided on site, by a name: then it is quiet and stays on record', () => {
    const h = new House('router')
    const key = h.finding('route.no-earth')!.key
    h.check('accept', key, { reason: 'decided on site', by: 'Oren' })
    expect(h.finding('route.no-earth')!.accepted).toEqual({ reason: 'decided on site', by: 'Oren' })
  })
  it('a box over its data cable has its injector at a socket: that demand is met like any other', () => {
    const h = new House('router')
    h.set('nodes', h.part('router').id, { own: { supply: 'PoE' }, part: { ...h.part('router').part!, supply: 'PoE' } })
    expect(states(h, 'feed')).toEqual(['missing'])
    h.add('fixtures', thing('mains socket', { eastM: 0, northM: 0, upM: 0.3 }))
    expect(states(h, 'feed')).toEqual(['met'])
    expect(h.codes()).not.toContain('place.socket')
  })
})
