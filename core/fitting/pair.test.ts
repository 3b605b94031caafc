import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { partOfKind } from '../catalogue/parts'
import { treeOf } from '../chain/tree'
import type { AntennaNode } from '../chain/tree'
import { changesOf } from '../job/edits'
import { apartM, crossedSteps, isCrossed, PAIR_APART_M, pairsOf, uncrossedSteps } from './pair'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const lpda = partOfKind('ant-lpda', 'antenna')!
const panel = partOfKind('ant-panel-x', 'antenna')!
function crossed(): House {
  const h = new House('router')
  h.apply(changesOf(crossedSteps(tree(h), tree(h).donors[0]!, lpda, 270), h.id))
  return h
}
const codes = (h: House) => h.assess().findings.map(f => f.code)

describe('two single beams as one', () => {
  it('a panel becomes a crossed pair: two antennas, one aim, every cable on its branch as before', () => {
    const h = crossed()
    const t = tree(h)
    expect(t.donors.map(d => d.part.id)).toEqual(['ant-lpda', 'ant-lpda'])
    const [pair] = pairsOf(t)
    expect(isCrossed(pair!)).toBe(true)
    expect(apartM(pair!)).toBeCloseTo(PAIR_APART_M, 2)
    expect(t.open).toEqual([])
    expect(t.broken).toEqual([])
    const fed = t.visits.filter(v => v.at.part.kind === 'router').map(v => [v.donor.node.id, v.entry!.id].join())
    expect(new Set(fed).size).toBe(2)
    expect(codes(h)).not.toContain('choose.pair')
  })
  it('and back again in one press: the cables have the ends and lengths that they had', () => {
    const before = new House('router')
    const [lengths, ports] = [before.doc.runs.map(r => r.lengthM), before.doc.runs.map(r => [r.fromPort, r.toPort].join())]
    const h = crossed()
    h.apply(changesOf(uncrossedSteps(tree(h), pairsOf(tree(h))[0]!, panel), h.id))
    expect(tree(h).donors.map(d => d.part.id)).toEqual(['ant-panel-x'])
    expect(h.doc.runs.map(r => r.lengthM)).toEqual(lengths)
    expect(h.doc.runs.map(r => [r.fromPort, r.toPort].join())).toEqual(ports)
    expect(tree(h).open).toEqual([])
  })
  it('two that nobody crossed are told; on two sides of the house they are no pair, and that is to fix', () => {
    const h = crossed()
    const [a, b] = pairsOf(tree(h))[0]!
    h.set('nodes', b.node.id, { polarisation: 'vertical' })
    expect(codes(h)).toContain('choose.pair')
    h.set('nodes', b.node.id, { polarisation: 'slant', eastM: a.node.eastM + 8 })
    const apart = h.assess().findings.find(f => f.code === 'choose.pair-apart')!
    expect(apart.severity).toBe('fix')
    h.set('nodes', b.node.id, { eastM: a.node.eastM, azimuthDeg: 20 }).set('nodes', a.node.id, { azimuthDeg: 270 })
    expect(codes(h)).toContain('choose.pair-aim')
  })
  it('an antenna with four feeds, or one, is no panel that a pair stands for', () => {
    const h = new House('booster')
    expect(crossedSteps(tree(h), tree(h).donors[0] as AntennaNode, lpda, 0)).toEqual([])
  })
})
