import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { treeOf } from '../chain/tree'
import { changesOf } from '../job/edits'
import type { Step } from '../job/edits'
import { normals, seeded } from '../random'
import { between } from '../site/frame'
import { buildingOf } from '../site/building'
import { cableLength } from './lengths'
import { moveSteps, screwedTo } from './move'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const on = (h: House) => ({ job: h.doc.jobs[0]!, building: buildingOf(h.doc), tree: tree(h) })
const to = (rowId: string, fields: Partial<Record<'eastM' | 'northM' | 'upM', number>>): Step => ({
  table: 'nodes',
  op: 'update',
  rowId,
  fields,
})
function move(h: House, rowId: string, fields: Parameters<typeof to>[1]) {
  h.apply(changesOf(moveSteps(on(h), [to(rowId, fields)]), h.id))
}
const spare = (h: House) => tree(h).joints.flatMap(j => cableLength('home', buildingOf(h.doc), j)?.spareM ?? [])

describe('a part that moves', () => {
  it('a router seven metres on takes its adapters along, and its cables are as long as their way', () => {
    const h = new House('router')
    const router = tree(h).routers[0]!
    const small = screwedTo(tree(h), router.node.id)
    expect(small.length).toBeGreaterThan(0)
    const apart = small.map(s => between(s.node, router.node).distanceM)
    const before = tree(h)
      .joints.filter(j => j.run.partId)
      .map(j => j.run.lengthM)
    move(h, router.node.id, { eastM: router.node.eastM + 7 })
    const after = tree(h)
    const there = after.routers[0]!.node
    const then = small.map(s => between(after.nodes.find(n => n.node.id === s.node.id)!.node, there).distanceM)
    then.forEach((d, i) => expect(d).toBeCloseTo(apart[i]!, 2))
    expect(Math.min(...spare(h))).toBeGreaterThanOrEqual(-0.05)
    expect(after.joints.filter(j => j.run.partId).map(j => j.run.lengthM)).not.toEqual(before)
  })
  it('there and back again, every cable has the length that it had', () => {
    const h = new House('router')
    const router = tree(h).routers[0]!.node
    const before = tree(h).joints.map(j => j.run.lengthM)
    move(h, router.id, { eastM: router.eastM + 7 })
    move(h, router.id, { eastM: router.eastM })
    expect(tree(h).joints.map(j => j.run.lengthM)).toEqual(before)
  })
  it('a length that was measured stays, and one that was chosen longer is not cut short', () => {
    const h = new House('router')
    const router = tree(h).routers[0]!.node
    const [first, second] = tree(h).joints.filter(j => j.run.partId && [j.from, j.to].some(e => e.at.node.upM < 2))
    h.set('runs', first!.run.id, { measured: true, lengthM: 4 }).set('runs', second!.run.id, { lengthM: 40 })
    move(h, router.id, { eastM: router.eastM + 5 })
    move(h, router.id, { eastM: router.eastM })
    const lengthOf = (id: string) => h.doc.runs.find(r => r.id === id)!.lengthM
    expect([lengthOf(first!.run.id), lengthOf(second!.run.id)]).toEqual([4, 40])
  })
  it('wherever it goes, no cable that may change is too short', () => {
    const n = normals(seeded(11))
    for (let k = 0; k < 40; k++) {
      const h = new House(k % 2 ? 'router' : 'booster')
      const all = tree(h).nodes.filter(x => !['adapter', 'pad'].includes(x.part.kind))
      const { node } = all[k % all.length]!
      move(h, node.id, { eastM: node.eastM + 4 * n(), northM: node.northM + 4 * n(), upM: Math.max(0.3, node.upM + n()) })
      expect(Math.min(...spare(h)), node.partId).toBeGreaterThanOrEqual(-0.05)
    }
  })
  it('turning an antenna moves nothing else', () => {
    const h = new House('router')
    const steps = moveSteps(on(h), [{ table: 'nodes', op: 'update', rowId: h.donor.id, fields: { azimuthDeg: 10 } }])
    expect(steps).toHaveLength(1)
  })
})
