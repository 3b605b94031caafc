import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { partById, partOfKind } from '../catalogue/parts'
import { treeOf } from '../chain/tree'
import { changesOf } from '../job/edits'
import { pairsByRole } from './by-role'
import { misfits } from './joints'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
/** A van with a combined antenna over its router. */
const van = (box: string) =>
  new House(null, 'vehicle').kit('router', {
    antenna: partOfKind('ant-roof-7', 'antenna')!,
    box: partOfKind(box, 'router')!,
  })
const roles = (h: House) =>
  tree(h)
    .joints.filter(j => j.leads.length)
    .map(j => [j.from.port.role, j.to.port.role].join('→'))
    .sort()

describe('a combined antenna', () => {
  it('seven leads on a box with seven sockets, each on its own role, in one press', () => {
    const h = van('rtr-mobile-4')
    expect(roles(h)).toEqual(['feed→cell', 'feed→cell', 'feed→cell', 'feed→cell', 'position→position', 'wifi→wifi', 'wifi→wifi'])
    expect(misfits(tree(h)).filter(m => m.kind === 'plug')).toEqual([])
    expect(tree(h).open).toEqual([])
  })
  it('the mast is heard by its cellular feeds alone', () => {
    const t = tree(van('rtr-mobile-4'))
    expect([...new Set(t.visits.map(v => v.feed))].sort()).toEqual(['1', '2', '3', '4'])
    expect(t.visits.filter(v => v.at.part.kind === 'router').every(v => v.entry?.role === 'cell')).toBe(true)
  })
  it('on a box with fewer sockets as many as it has; what is left over hangs free and is no fault', () => {
    const h = van('rtr-mobile-2')
    expect(roles(h).filter(r => r === 'feed→cell')).toHaveLength(2)
    expect(roles(h).filter(r => r === 'wifi→wifi')).toHaveLength(2)
    expect(tree(h).open.map(o => o.port.role)).toEqual(['feed', 'feed'])
  })
  it('taken off, one press joins them again; a position lead on a cellular port is told', () => {
    const h = van('rtr-mobile-4')
    for (const j of tree(h).joints.filter(x => x.from.port.role !== 'feed')) h.remove('runs', j.run.id)
    const found = h.assess().findings.find(f => f.code === 'choose.roles')!
    expect(found.severity).toBe('note')
    h.apply(changesOf(found.cures[0]!.steps, h.id))
    expect(roles(h)).toHaveLength(7)
    expect(h.assess().findings.some(f => f.code === 'choose.roles' || f.code === 'choose.port-role')).toBe(false)
    const [cell, position] = ['cell', 'position'].map(r => tree(h).joints.find(j => j.to.port.role === r)!.run)
    h.remove('runs', position!.id)
    h.set('runs', cell!.id, { fromPort: 'gps' })
    expect(h.assess().findings.some(f => f.code === 'choose.port-role')).toBe(true)
  })
  it('pairs are of one role, each port once, and the same whichever is taken away', () => {
    const [a, b] = [partById('ant-roof-7')!, partById('rtr-mobile-4')!]
    const all = pairsByRole(a, b)
    expect(all).toHaveLength(3)
    for (const [x, y] of all) expect(x.role).toBe(y.role)
    const fewer = pairsByRole(a, b, { antenna: p => p.id === 'wifi1', box: () => false })
    expect(fewer.map(([x]) => x.id)).toEqual(['wifi2', 'gps'])
  })
})
