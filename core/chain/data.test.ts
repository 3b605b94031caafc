import { describe, expect, it } from 'vitest'
import { office } from '../../tests/support/house'
import type { House } from '../../tests/support/house'
import { changesOf } from '../job/edits'
import { removeSteps } from '../fitting/edits'
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
  it('a ring of data cables comes to an end', () => {
    const h = office()
    const t = tree(h)
    const [arrestor] = t.nodes.filter(n => n.part.kind === 'arrestor')
    const run = h.doc.runs.find(r => r.toNodeId === arrestor!.node.id)!
    h.set('runs', run.id, { fromNodeId: arrestor!.node.id, fromPort: 'out', toPort: 'in' })
    expect(() => dataWayOf(tree(h), tree(h).routers[0]!)).not.toThrow()
  })
})
