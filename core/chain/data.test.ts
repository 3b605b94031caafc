import { describe, expect, it } from 'vitest'
import { office } from '../../tests/support/house'
import type { House } from '../../tests/support/house'
import { changesOf } from '../job/edits'
import { removeSteps } from '../fitting/edits'
import { spliceInto } from '../fitting/splice'
import { partById, partOfKind } from '../catalogue/parts'
import { dataWayOf, injectorsOf, isData, portsOf } from './data'
import { treeOf } from './tree'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)

describe('data cables', () => {
  it('from the modem outdoors by its arrestor to the injector: one way of two cables, and no radio in it', () => {
    const t = tree(office())
    const way = dataWayOf(t, t.routers[0]!)!
    expect(way.joints).toHaveLength(2)
    expect(way.parts.map(p => p.name)).toEqual(['Data arrestor', 'Injector'])
    expect(way.injector!.part.gives).toBe('PoE')
    expect(way.lengthM).toBeCloseTo(
      way.joints.reduce((m, j) => m + j.run.lengthM, 0),
      9,
    )
    expect(t.visits.some(v => v.joint && isData(v.joint))).toBe(false)
    expect(t.loose).toEqual([])
    expect(t.broken).toEqual([])
    expect(t.open).toEqual([])
  })
  it('a router has as many sockets for data as its sheet counts, beside those of its radio; nothing else has any', () => {
    const router = partOfKind('rtr-mobile-2', 'router')!
    expect(portsOf(router).filter(p => p.role === 'lan')).toHaveLength(router.lanPorts!)
    expect(portsOf(router).slice(0, router.ports.length)).toEqual(router.ports)
    expect(portsOf(partById('rtr-stick')!).some(p => p.role === 'lan')).toBe(false)
    expect(portsOf(partById('ant-lpda')!).every(p => p.role === 'feed')).toBe(true)
  })
  it('the modem taken out, nothing of its cable is left', () => {
    const h = office()
    h.apply(changesOf(removeSteps(tree(h), tree(h).routers[0]!), h.id))
    expect(tree(h).nodes.every(n => n.part.kind === 'antenna')).toBe(true)
    expect(h.doc.runs).toEqual([])
    const other = office()
    const [injector] = injectorsOf(tree(other))
    other.apply(changesOf(removeSteps(tree(other), injector!), other.id))
    expect(dataWayOf(tree(other), tree(other).routers[0]!)).toBeNull()
  })
  it('a plain switch ends the power: the box behind it is missed, fed by one with PoE; taken out the cable is whole again', () => {
    const h = office()
    const way = () => dataWayOf(tree(h), tree(h).routers[0]!)!
    const before = way().lengthM
    const [first] = way().joints
    h.apply(changesOf(spliceInto(first!, 'sw-plain', { at: first!.from.at.node, firstM: 1 }), h.id))
    expect(tree(h).broken).toEqual([])
    expect(way().parts.map(p => p.name)).toContain('Switch')
    expect(way().injector).toBeNull()
    const finding = h.finding('route.no-power')
    expect(finding?.title).toBe('Switch gives Outdoor modem no power')
    const other = office()
    other.doc = h.doc
    other.cure(finding!.cures[0]!)
    expect(other.finding('route.no-power')).toBeUndefined()
    const plain = tree(h).nodes.find(n => n.part.id === 'sw-plain')!
    h.apply(changesOf(removeSteps(tree(h), plain), h.id))
    expect(way().injector).not.toBeNull()
    expect(way().lengthM).toBeCloseTo(before, 2)
  })
  it('a ring of data cables comes to an end', () => {
    const h = office()
    const t = tree(h)
    const [arrestor] = t.nodes.filter(n => n.part.kind === 'arrestor')
    const run = h.doc.runs.find(r => r.toNodeId === arrestor!.node.id)!
    h.set('runs', run.id, { fromNodeId: arrestor!.node.id, fromPort: 'out', toPort: 'in' })
    expect(() => dataWayOf(tree(h), tree(h).routers[0]!)).not.toThrow()
  })
})
