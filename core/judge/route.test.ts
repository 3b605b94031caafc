import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { partById } from '../catalogue/parts'
import { treeOf } from '../chain/tree'
import { cableLength } from '../fitting/lengths'
import { entering, entryPoint, passageAt, passersOf } from '../install/passage'
import { guessedCorners, outsideOf } from '../install/surge'
import { WIRES } from '../catalogue/wires'
import { BARE_FIXTURE } from '../job/defaults'
import { BARE_FIXING } from '../job/fixing'
import type { Entry } from '../job/fixing'
import type { Fixture } from '../job/schema'
import { buildingOf, inside } from '../site/building'
import { feedsOf, usualFeed } from './feeds'

/** What is judged of what is planned; what is not planned yet has tests of its own. */
const codes = (h: House) => h.assess().findings.flatMap(f => (f.section === 'route' && !f.noted ? [f.code] : []))
const found = (h: House, code: string) => h.assess().findings.find(f => f.code === code)
const thing = (kind: Fixture['kind'], at: { eastM: number; northM: number; upM: number }, more: Partial<Fixture> = {}) => ({
  ...BARE_FIXTURE,
  kind,
  name: '',
  ...at,
  ...more,
})
function routed(h: House) {
  const building = buildingOf(h.doc)
  const tree = treeOf(h.doc, h.doc.designs[0]!)
  const lengths = tree.joints.flatMap(j => cableLength(h.doc.jobs[0]!.kind, building, j) ?? [])
  return { building, tree, passers: passersOf(tree, lengths, 'factory', { building, fixtures: h.doc.fixtures }) }
}
/** A way in of a kind, taken by the plan, where its cables come through. */
function comeIn(h: House, entry: Entry, more: Partial<Fixture> = {}): string {
  const { building, passers } = routed(h)
  const id = h.add('fixtures', thing('way in', entryPoint(entry, entering(passers, building)[0]!, building), { entry, ...more }))
  h.design({ wayInId: id })
  return id
}

describe('ways in', () => {
  it('a hole with nothing known behind it is a stop that nobody can accept away; looked at, it is gone', () => {
    const h = new House('router')
    const id = comeIn(h, 'wall')
    const stop = found(h, 'route.behind')!
    expect(stop).toMatchObject({ severity: 'stop', holds: true })
    h.check('accept', stop.key, { reason: 'it will be fine', by: 'a', atUtc: null })
    expect(found(h, 'route.behind')!.accepted).toBeUndefined()
    h.set('fixtures', id, { behind: 'looked at' })
    expect(codes(h)).not.toContain('route.behind')
    h.set('fixtures', id, { behind: null, behindFound: 'clear' })
    expect(codes(h)).not.toContain('route.behind')
  })
  it('gas, a line, a pipe, a fire wall or asbestos behind it: no hole there; a window beside it asks for none', () => {
    const h = new House('router')
    const id = comeIn(h, 'wall')
    for (const behindFound of ['gas', 'line', 'pipe', 'fire wall', 'asbestos']) {
      h.set('fixtures', id, { behindFound })
      expect(found(h, 'route.found'), behindFound).toMatchObject({ severity: 'stop', holds: true })
    }
    h.set('fixtures', id, { behindFound: 'deck core' })
    expect(codes(h)).not.toContain('route.found')
    h.set('fixtures', id, { behindFound: 'gas', entry: 'window' })
    expect(codes(h)).not.toContain('route.found')
  })
  it('a flue is refused, whatever it is called', () => {
    const h = new House('router')
    comeIn(h, 'flue', { name: 'old chimney' })
    expect(found(h, 'route.flue')).toMatchObject({ severity: 'stop', holds: true })
  })
  it('a port and a window ask for no look behind the wall; where nothing may be drilled a wall is a stop', () => {
    const h = new House('router', 'home', { mayDrill: 'no' })
    const id = comeIn(h, 'window')
    expect(codes(h)).toEqual([])
    h.set('fixtures', id, { entry: 'wall', behind: 'known' })
    expect(codes(h)).toEqual(['route.no-hole'])
  })
  it('a plug that does not pass says so, and crimping afterwards cures it', () => {
    const h = new House('router')
    comeIn(h, 'port', { openMm: 16 })
    const f = found(h, 'route.plug')!
    expect(f.cures[0]!.label).toContain('crimp')
    h.design({ plugs: 'crimped' })
    expect(codes(h)).not.toContain('route.plug')
  })
  it('a smaller plug never needs a larger hole', () => {
    const { building, passers } = routed(new House('router'))
    const at = { ...thing('way in', { eastM: 0, northM: 0, upM: 1 }), id: 'x' } as Fixture
    const needs = (plugMm: number) =>
      passageAt(at, { passers: passers.map(p => ({ ...p, plugMm })), building, chosenId: 'x', entries: [] }).needsMm!
    fc.assert(
      fc.property(fc.double({ min: 6, max: 40, noNaN: true }), fc.double({ min: 0, max: 10, noNaN: true }), (plug, more) => {
        expect(needs(plug + more)).toBeGreaterThanOrEqual(needs(plug) - 1e-9)
      }),
    )
  })
  it('a lead fixed to an antenna passes too', () => {
    const h = new House('router', 'vehicle')
    const { tree } = routed(h)
    const donor = tree.donors[0]!
    h.set('nodes', donor.node.id, { part: { ...donor.part, tailM: 3 } })
    for (const j of tree.joints.filter(x => x.run.fromNodeId === donor.node.id))
      h.set('runs', j.run.id, { partId: null, part: null })
    const { building, passers } = routed(h)
    expect(entering(passers, building).length).toBeGreaterThan(0)
  })
  it('three cables in a third of a duct can wedge; a full one says how full (NEC chapter 9 table 1)', () => {
    const h = new House('router')
    const { tree } = routed(h)
    const run = tree.joints.find(j => j.run.partId)!
    h.add('fixtures', thing('duct', run.from.at.node, { openMm: 12, name: 'conduit' }))
    expect(codes(h)).toContain('route.fill')
  })
})

describe('what holds it', () => {
  const held = (h: House, fixing: Record<string, unknown>) =>
    h.set('nodes', h.doc.nodes.find(n => n.part?.kind === 'antenna')!.id, { fixing: { ...BARE_FIXING, ...fixing } })
  const thin = { mount: 'wall bracket', apartM: 0.5, grade: '6063-T6', sections: [{ outsideMm: 25, wallMm: 1.5, lengthM: 2.5 }] }
  it('a thin pole is to settle, a stout one is silent, one of unknown grade has no verdict', () => {
    const h = new House('router')
    held(h, thin)
    expect(found(h, 'route.mast')).toMatchObject({ severity: 'fix' })
    held(h, { ...thin, grade: 'S235', sections: [{ outsideMm: 60, wallMm: 4, lengthM: 1.5 }] })
    expect(codes(h)).not.toContain('route.mast')
    held(h, { ...thin, grade: null })
    expect(found(h, 'route.mast')!.title).toContain('no verdict')
  })
  it('leaving the top section in lowers the antenna with it', () => {
    const h = new House('router')
    const sections = [
      { outsideMm: 60, wallMm: 4, lengthM: 1 },
      { outsideMm: 20, wallMm: 1, lengthM: 1 },
    ]
    held(h, { ...thin, sections })
    const cure = found(h, 'route.mast')!.cures[0]!
    const node = h.doc.nodes.find(n => n.part?.kind === 'antenna')!
    expect(cure.steps[0]!.fields).toMatchObject({ upM: node.upM - 1 })
  })
  it('a mount of another site is to settle; what holds by air comes down before it drives', () => {
    const h = new House('router')
    held(h, { mount: 'suction cup' })
    expect(codes(h)).toContain('route.mount')
    const aboard = new House('router', 'vehicle')
    for (const [mount, comes] of [
      ['suction cup', true],
      ['ladder clamp', true],
      ['roof bolt', false],
    ] as const) {
      held(aboard, { mount })
      expect(codes(aboard).includes('route.strikes'), mount).toBe(comes)
    }
  })
  it('a magnet stays on a van and comes off a caravan: nobody sees what is lost behind', () => {
    const h = new House('router', 'vehicle')
    held(h, { mount: 'magnet' })
    expect(codes(h)).not.toContain('route.strikes')
    h.set('sites', h.doc.sites[0]!.id, { body: 'caravan' })
    expect(codes(h)).toContain('route.strikes')
  })
  it('the clamp of a foot is cut to its roof; one that it does not take is told', () => {
    const h = new House('router', 'vehicle')
    const antenna = h.doc.nodes.find(n => n.part?.kind === 'antenna')!
    h.set('nodes', antenna.id, { partId: 'ant-roof-2', part: partById('ant-roof-2')! })
    held(h, { mount: 'roof bolt', throughMm: 34 })
    expect(codes(h)).not.toContain('route.foot')
    held(h, { mount: 'roof bolt', throughMm: 80 })
    expect(found(h, 'route.foot')).toMatchObject({ severity: 'fix' })
  })
})

describe('feeds', () => {
  const aboard = () => {
    const h = new House('router', 'vehicle')
    const box = h.part('router')
    h.add('fixtures', thing('12 V feed', { eastM: box.eastM, northM: box.northM - 3, upM: 0.8 }))
    return { h, box }
  }
  const fed = (h: House, id: string, feed: Record<string, unknown>) => h.set('nodes', id, { feed: { ...usualFeed(), ...feed } })
  it('a fuse is never taken that is above what its wire bears or below its load', () => {
    const { h, box } = aboard()
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 60, noNaN: true }), fc.constantFrom(...WIRES.map(w => w.id)), (fuseA, wire) => {
        fed(h, box.id, { fuseA, wire, breaksA: 1000, faultA: 500 })
        const { building, tree } = routed(h)
        const f = feedsOf(h.doc, tree, 'vehicle', building)[0]!
        const within = f.fed!.amps! * 1.25 <= fuseA + 1e-9 && fuseA <= f.wire!.fuseA + 1e-9
        expect('amps' in f.fuseSays!).toBe(within)
      }),
      { numRuns: 60 },
    )
  })
  it('what a fuse can break is not known: refused; less than the source drives: refused', () => {
    const { h, box } = aboard()
    fed(h, box.id, { fuseA: 3 })
    expect(found(h, 'route.fuse')!.sentence).toMatch(/not known/)
    fed(h, box.id, { fuseA: 3, breaksA: 100, faultA: 800 })
    expect(found(h, 'route.fuse')!.sentence).toMatch(/800 A/)
  })
  it('a thin wire that was entered starves the box, and a press lays one that does not', () => {
    const { h, box } = aboard()
    h.set('fixtures', h.doc.fixtures[0]!.id, { northM: box.northM - 40 })
    fed(h, box.id, { wire: '0.5' })
    const f = found(h, 'route.starved')!
    h.cure(f.cures[0]!)
    expect(codes(h)).not.toContain('route.starved')
  })
  it('12 W at 12.8 V take 22.5 Ah a day, by an inverter 41.5 (24·W/V)', () => {
    const { h, box } = aboard()
    const part = { ...h.part('router').part!, powerW: 12 }
    h.set('nodes', box.id, { part })
    const ah = (through: string) => {
      fed(h, box.id, { through })
      const { building, tree } = routed(h)
      return feedsOf(h.doc, tree, 'vehicle', building)[0]!.ahADay!
    }
    expect(ah('lead')).toBeCloseTo(22.5, 1)
    expect(ah('inverter')).toBeCloseTo(41.5, 1)
  })
  it('petrol or gas beside the box: refused, but for what is ignition-protected', () => {
    const { h, box } = aboard()
    fed(h, box.id, { fumes: true })
    expect(found(h, 'route.fumes')).toMatchObject({ severity: 'stop', holds: true })
    fed(h, box.id, { fumes: true, ignitionProtected: true })
    expect(codes(h)).not.toContain('route.fumes')
  })
})

describe('where a surge goes', () => {
  function earthed(more: Partial<Fixture>) {
    const h = new House('router')
    const { building, tree } = routed(h)
    const arrestor = tree.nodes.find(n => n.part.kind === 'arrestor')!
    const out = outsideOf(building, arrestor.node)
    h.add('fixtures', thing('electrode', { ...out, upM: -0.4 }, { electrode: 'rod', bonded: 'yes', conductor: 'solid', ...more }))
    return { h, building, arrestor }
  }
  const surge = (h: House) => codes(h).filter(c => c.startsWith('route.surge'))
  it.each([
    ['a rod that is bonded', {}, []],
    ['a gas pipe', { electrode: 'gas pipe' }, ['route.surge-gas']],
    ['a rod not bonded to the house', { bonded: 'no' }, ['route.surge-unbonded']],
    ['a rod nobody has looked at', { bonded: null }, ['route.surge-bond-unknown']],
    ['the house’s own earthing', { electrode: 'house earthing', bonded: null }, []],
    ['braid', { conductor: 'braid' }, ['route.surge-braid']],
  ] as const)('%s (NEC 810.21, from memory)', (_, more, expected) => {
    expect(surge(earthed(more as Partial<Fixture>).h)).toEqual(expected)
  })
  it('a conductor through rooms is a stop, a sharp bend and a loop are to settle', () => {
    const { h, arrestor } = earthed({})
    const e = h.doc.fixtures.find(f => f.kind === 'electrode')!
    const { eastM, northM } = arrestor.node
    h.set('fixtures', e.id, { corners: [{ eastM: 0, northM: 0, upM: 1 }] })
    expect(found(h, 'route.surge-rooms')).toMatchObject({ severity: 'stop' })
    const zigzag = [4, 1, 4, 1].map(upM => ({ eastM: eastM - 3, northM, upM }))
    h.set('fixtures', e.id, { corners: zigzag.map((p, i) => ({ ...p, eastM: p.eastM - i * 0.1 })) })
    expect(surge(h)).toEqual(expect.arrayContaining(['route.surge-sharp', 'route.surge-loop']))
  })
  it('the data line of a box outdoors wants an arrestor of its own, in series; a press notes it', () => {
    const { h } = earthed({})
    const box = h.part('router')
    const out = partById('rtr-out')!
    h.set('nodes', box.id, { partId: out.id, part: out, eastM: -9, northM: 0, upM: 4 })
    const f = found(h, 'route.surge-line')!
    expect(f.severity).toBe('fix')
    h.cure(f.cures[0]!)
    expect(surge(h)).not.toContain('route.surge-line')
    h.set('nodes', box.id, { eastM: 0, feed: null })
    expect(surge(h)).not.toContain('route.surge-line')
  })
  it('guessed, it never runs indoors, wherever the arrestor hangs', () => {
    const { building } = earthed({})
    fc.assert(
      fc.property(fc.double({ min: -9, max: 9, noNaN: true }), fc.double({ min: -6, max: 6, noNaN: true }), (eastM, northM) => {
        const from = { eastM, northM, upM: 1 }
        for (const c of guessedCorners(from, { ...outsideOf(building, from), upM: -0.4 }, building))
          expect(inside(building, c)).toBe(false)
      }),
    )
  })
})
