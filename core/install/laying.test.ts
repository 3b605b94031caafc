import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { cableLength } from '../fitting/lengths'
import { layingOf, pullingOrder } from './laying'
import { buildingOf } from '../site/building'
import { treeOf } from '../chain/tree'

/** The first cable of a house that runs from outside, with some way of its own. */
function first(h: House, fields: Record<string, unknown>) {
  const run = h.doc.runs.find(r => r.partId)!
  h.set('runs', run.id, fields)
  const building = buildingOf(h.doc)
  const tree = treeOf(h.doc, h.doc.designs[0]!)
  const joint = tree.joints.find(j => j.run.id === run.id)!
  return { cable: cableLength('home', building, joint)!, building, joint, tree }
}
const at = (p: { eastM: number; northM: number; upM: number }, east: number, up: number) => ({
  eastM: p.eastM + east,
  northM: p.northM,
  upM: p.upM + up,
})

describe('how a cable is laid', () => {
  it('a guessed way has no laying: nothing is said that nobody knows', () => {
    const { cable, building } = first(new House('router'), { way: null })
    expect(layingOf(cable, building)).toBeNull()
  })
  it('two square corners need twice the radius between them (tangent of a curve: T = R·tan(Δ/2), surveying handbooks)', () => {
    const h = new House('router')
    const { joint } = first(h, {})
    const from = joint.from.at.node
    const radius = joint.line!.bendMm / 1000
    const bent = (gap: number) => {
      const { cable, building } = first(h, { way: [at(from, 0, -2), at(from, gap, -2), at(from, gap, -4)] })
      return layingOf(cable, building)!.tightAt
    }
    expect(bent(2 * radius + 0.001)).not.toContain(1)
    expect(bent(2 * radius - 0.001)).toContain(1)
  })
  it('a tape over the drawing: the piece is as taped, and the cable needs that much', () => {
    const h = new House('router')
    const { joint } = first(h, {})
    const corner = at(joint.from.at.node, 0, -3)
    const drawn = first(h, { way: [corner], pieces: null }).cable
    const taped = first(h, { way: [corner], pieces: [3.4, null] }).cable
    expect(taped.way!.pieces[0]).toMatchObject({ lengthM: 3.4, taped: true })
    expect(taped.neededM - drawn.neededM).toBeCloseTo(0.4, 6)
  })
  it('no length that is sold reaches: as many joints as pieces but one', () => {
    const h = new House('router')
    const { joint } = first(h, {})
    const longest = Math.max(...joint.line!.stockM, ...(joint.line!.drumM ?? []))
    const { cable, building } = first(h, { way: [at(joint.from.at.node, -1.2 * longest, 0)] })
    expect(layingOf(cable, building)!.joints).toBe(Math.ceil(cable.neededM / longest) - 1)
    expect(cable.neededM).toBeGreaterThan(longest)
  })
  it('what hangs from the top is pulled first, of that the stiffest and longest (common practice, no source)', () => {
    const h = new House('booster')
    const tree = treeOf(h.doc, h.doc.designs[0]!)
    const cables = tree.joints.flatMap(j => cableLength('home', buildingOf(h.doc), j) ?? [])
    const order = pullingOrder(cables)
    expect(order).toHaveLength(cables.length)
    const tops = order.map(c => Math.max(c.joint.from.at.node.upM, c.joint.to.at.node.upM))
    for (let i = 1; i < tops.length; i++) expect(tops[i]!).toBeLessThanOrEqual(tops[i - 1]! + 1)
  })
})
