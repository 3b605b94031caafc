import { describe, expect, it } from 'vitest'
import { office } from '../../tests/support/house'
import type { House } from '../../tests/support/house'
import { changesOf } from '../job/edits'
import { BARE_FIXTURE } from '../job/defaults'
import { dataWayOf, injectorsOf, isData } from '../chain/data'
import { partById } from '../catalogue/parts'
import { treeOf } from '../chain/tree'
import { cardOf } from '../card/card'
import { pickList, cableLabels } from '../install/pick-list'
import { buildingOf } from '../site/building'
import { feedsOf } from './feeds'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const codes = (h: House) => h.assess().findings.map(f => f.code)
/** The modem as stored before data cables were planned: nothing is joined to its socket. */
function bare(): House {
  const h = office()
  for (const n of tree(h).nodes.filter(x => x.part.kind === 'injector' || x.name === 'Data arrestor'))
    h.remove('nodes', n.node.id)
  for (const r of h.doc.runs.filter(x => x.part?.kind === 'line' && x.part.medium === 'data')) h.remove('runs', r.id)
  return h
}
const feedOf = (h: House) => feedsOf(h.doc, tree(h), 'home', buildingOf(h.doc)).find(f => f.poe)!

describe('a modem outdoors by Ethernet', () => {
  it('its cable is pulled, labelled at both ends, tested, bought; its arrestor is earthed', () => {
    const h = office()
    h.add('spots', { name: 'At the mast', eastM: -8, northM: 0, upM: 2, indoors: false, needed: false })
    h.read('At the mast', -80)
    const a = h.assess()
    const data = tree(h).joints.filter(isData)
    const steps = cardOf(h.doc, a).steps.map(s => s.id)
    for (const j of data) {
      expect(steps).toContain(`pull:${j.run.id}`)
      expect(steps).toContain(`wires:${j.run.id}`)
      expect(cableLabels(tree(h), 'A').filter(l => l.runId === j.run.id)).toHaveLength(2)
    }
    const arrestor = tree(h).nodes.find(n => n.name === 'Data arrestor')!
    expect(a.demands.filter(d => d.kind === 'arrestor' && d.of.includes('Data arrestor')).every(d => d.state === 'met')).toBe(
      true,
    )
    expect(steps).toContain(`link:${tree(h).routers[0]!.node.id}`)
    expect(steps).toContain(`hang:${arrestor.node.id}`)
    const list = pickList({
      job: h.doc.jobs[0]!,
      design: h.doc.designs[0]!,
      tree: tree(h),
      building: buildingOf(h.doc),
      holes: 1,
    })
    const names = list.rows.map(r => r.name)
    expect(names).toContain('PoE injector, 15 W')
    expect(names.some(n => n.startsWith('Data cable Cat 6, outdoor'))).toBe(true)
    // What its box lacks is planned: it is not told to be bought a second time.
    expect(names).not.toContain('Outdoor Ethernet lead')
    expect(names).not.toContain('PoE injector')
  })
  it('nobody planned one: a finding says so and lays it, with its arrestor, to the socket', () => {
    const h = bare()
    h.add('fixtures', { ...BARE_FIXTURE, kind: 'mains socket', name: 'desk', eastM: 2, northM: 1, upM: 0.4 })
    const f = h.assess().findings.find(x => x.code === 'route.no-data')!
    expect(f.severity).toBe('fix')
    h.apply(changesOf(f.cures[0]!.steps, h.id))
    const t = tree(h)
    const way = dataWayOf(t, t.routers[0]!)!
    expect(way.parts.map(p => p.name)).toEqual(['Data arrestor', 'Injector'])
    expect(codes(h)).not.toContain('route.no-data')
    const [injector] = injectorsOf(t)
    expect([injector!.node.eastM, injector!.node.northM]).toEqual([2, 1])
    expect(t.broken).toEqual([])
  })
  it('the watts at the far end follow the cable’s own length', () => {
    // IEEE 802.3: class 3 gives 15.4 W and promises 12.95 W at 100 m.
    const h = office()
    const near = feedOf(h).poe!.arrivesW
    const [first, second] = tree(h).joints.filter(isData)
    h.set('runs', first!.run.id, { lengthM: 60 }).set('runs', second!.run.id, { lengthM: 40 })
    expect(feedOf(h).lengthM).toBe(100)
    expect(feedOf(h).poe!.arrivesW).toBeCloseTo(12.95, 1)
    expect(near).toBeGreaterThan(feedOf(h).poe!.arrivesW)
    h.set('runs', second!.run.id, { lengthM: 41 })
    expect(feedOf(h).poe!.tooLong).toBe(true)
    expect(codes(h)).toContain('route.poe-length')
  })
  it('a passive injector on a modem that waits to be asked is a stop', () => {
    const h = office()
    const [injector] = injectorsOf(tree(h))
    expect(codes(h)).not.toContain('route.poe')
    h.set('nodes', injector!.node.id, { partId: 'inj-passive', part: partById('inj-passive') })
    expect(codes(h)).toContain('route.poe')
  })
  it('an injector too weak for its modem starves it', () => {
    const h = office()
    const router = tree(h).routers[0]!
    h.set('nodes', router.node.id, { partId: 'rtr-out-4', part: partById('rtr-out-4') })
    expect(codes(h)).toContain('route.poe-power')
    const [injector] = injectorsOf(tree(h))
    h.set('nodes', injector!.node.id, { partId: 'inj-poe-plus', part: partById('inj-poe-plus') })
    expect(codes(h)).not.toContain('route.poe-power')
  })
  it('without its arrestor the cable that comes in is told of like any other', () => {
    const h = office()
    const arrestor = tree(h).nodes.find(n => n.name === 'Data arrestor')!
    const router = tree(h).routers[0]!
    const [injector] = injectorsOf(tree(h))
    h.remove('nodes', arrestor.node.id)
    for (const r of h.doc.runs.filter(x => x.part?.kind === 'line' && x.part.medium === 'data')) h.remove('runs', r.id)
    const line = partById('data-6-out')!
    h.add('runs', {
      designId: h.doc.designs[0]!.id,
      fromNodeId: router.node.id,
      fromPort: 'lan1',
      toNodeId: injector!.node.id,
      toPort: 'out',
      partId: line.id,
      part: line,
      lengthM: 20,
      measured: false,
      spareM: null,
      way: null,
      pieces: null,
    })
    h.add('spots', { name: 'At the mast', eastM: -8, northM: 0, upM: 2, indoors: false, needed: false })
    h.read('At the mast', -80)
    const missing = h.assess().demands.filter(d => d.kind === 'arrestor' && d.state === 'missing')
    expect(missing).toHaveLength(1)
    const f = h.assess().findings.find(x => x.code === 'level.no-arrestor')!
    h.apply(changesOf(f.cures[0]!.steps, h.id))
    expect(
      h
        .assess()
        .demands.filter(d => d.kind === 'arrestor')
        .every(d => d.state === 'met'),
    ).toBe(true)
    expect(tree(h).nodes.some(n => n.name === 'Data arrestor')).toBe(true)
  })
})
