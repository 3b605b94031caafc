import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { partOfKind } from '../catalogue/parts'
import { areCrossed, modemsOf } from '../chain/modems'
import { treeOf } from '../chain/tree'
import { cardOf } from '../card/card'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const found = (h: House, code: string) => h.assess().findings.filter(f => f.code === code)
const modems = (h: House) => modemsOf(h.doc, tree(h), tree(h).routers[0]!)

/** A trailer with a roof puck of seven leads and a router of two modems. */
function trailer(antenna = 'ant-roof-7'): House {
  const h = new House(null, 'vehicle')
  return h.kit('router', { antenna: partOfKind(antenna, 'antenna')!, box: partOfKind('rtr-dual', 'router')! })
}

describe('modems of a box', () => {
  it('have their ports and slots, and the feeds of the puck in their order', () => {
    const h = trailer()
    expect(modems(h).map(m => m.ports.map(p => `${p.port.id}<${p.from?.feed}`))).toEqual([
      ['1<1', '2<2'],
      ['3<3', '4<4'],
    ])
    expect(modems(h).map(m => m.slots.map(s => s.slot))).toEqual([
      [1, 2],
      [3, 4],
    ])
    // The leads for Wi-Fi and position went to the sockets of their role.
    expect(tree(h).joints.filter(j => ['wifi', 'position'].includes(j.to.port.role))).toHaveLength(3)
  })
  it('the first filled slot works, the next stands by; each without a SIM is open until one is said', () => {
    const h = trailer()
    const [a, b, c] = [h.sim('A', 'Tern'), h.sim('B', 'Tern'), h.sim('C', 'Gannet')]
    expect(found(h, 'choose.modem-sim')).toHaveLength(2)
    h.slot(2, b)
    h.slot(1, a)
    expect(found(h, 'choose.modem-sim').map(f => f.title)).toEqual(['No SIM is planned for modem 2 of Router'])
    h.slot(4, c)
    expect(found(h, 'choose.modem-sim')).toEqual([])
    expect(modems(h).map(m => [m.sim?.name, m.standby.map(s => s.name)])).toEqual([
      ['A', ['B']],
      ['C', []],
    ])
    expect(found(h, 'choose.modem-alike')).toEqual([])
    h.set('sims', c, { carrier: 'Tern' })
    expect(found(h, 'choose.modem-alike')).toHaveLength(1)
  })
  it('one SIM in two slots, and a slot that the box does not have, are to fix, each by a press', () => {
    const h = trailer()
    const a = h.sim('A', 'Tern')
    h.slot(1, a)
    h.slot(3, a)
    h.cure(found(h, 'choose.sim-twice')[0]!.cures[0]!)
    expect(found(h, 'choose.sim-twice')).toEqual([])
    h.slot(4, h.sim('B', 'Gannet'))
    h.set('nodes', h.part('router').id, { partId: 'rtr-2', part: partOfKind('rtr-2', 'router') })
    h.cure(found(h, 'choose.sim-slot')[0]!.cures[0]!)
    expect(found(h, 'choose.sim-slot')).toEqual([])
  })
  it('the step of the SIMs says each slot', () => {
    const h = trailer()
    h.slot(3, h.sim('C', 'Gannet'))
    h.read('Cab', -95)
    const step = cardOf(h.doc, h.assess()).steps.find(s => s.id.startsWith('sim:'))!
    expect(step.parts).toEqual(['slot 3: C, Gannet'])
  })
  it('the feeds of two antennas mixed between two modems are sorted in one press', () => {
    const h = trailer('ant-roof-2')
    // A second puck of two feeds: the first ones of both on modem 1, the second ones on modem 2.
    const [first] = tree(h).donors
    const second = h.add('nodes', { ...first!.node, id: undefined, eastM: first!.node.eastM + 1 })
    const box = h.part('router').id
    const runs = tree(h).joints.filter(j => j.to.at.node.id === box && j.to.port.role === 'cell')
    h.set('runs', runs[1]!.run.id, { toPort: '3' })
    const { id: _id, ...run } = runs[0]!.run
    h.add('runs', { ...run, fromNodeId: second, fromPort: '1', toPort: '2' })
    h.add('runs', { ...run, fromNodeId: second, fromPort: '2', toPort: '4' })
    expect(areCrossed(modems(h))).toBe(true)
    h.cure(found(h, 'choose.modem-crossed')[0]!.cures[0]!)
    expect(found(h, 'choose.modem-crossed')).toEqual([])
    for (const m of modems(h)) expect(new Set(m.ports.map(p => p.from!.antenna.node.id)).size).toBe(1)
    expect(tree(h).broken).toEqual([])
  })
})
