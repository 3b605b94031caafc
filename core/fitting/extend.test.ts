import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { partById, partOfKind } from '../catalogue/parts'
import { treeOf } from '../chain/tree'
import { changesOf } from '../job/edits'
import { buildingOf } from '../site/building'
import { extensionOf } from './extend'
import { misfits } from './joints'
import { cableLength } from './lengths'

const bus = () => new House(null, 'vehicle').kit('router', { antenna: partOfKind('ant-roof-2', 'antenna')! })
const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const on = (h: House) => ({ job: h.doc.jobs[0]!, building: buildingOf(h.doc) })
const leads = (h: House) => tree(h).joints.flatMap(j => (j.leads.length ? [cableLength('vehicle', buildingOf(h.doc), j)!] : []))

describe('a lead that does not reach', () => {
  it('goes on by a cable with the plugs that meet, from where it ends, and then all reach', () => {
    const h = bus()
    const router = tree(h).routers[0]!.node
    expect(leads(h).every(l => l.spareM >= 0 && l.stockM === null)).toBe(true)
    h.set('nodes', router.id, { eastM: router.eastM + 6 })
    const short = leads(h)
    expect(short.length).toBe(2)
    for (const [i, l] of short.entries()) {
      expect(l.spareM).toBeLessThan(0)
      const more = extensionOf(l.joint, { ...on(h), spareM: l.spareM, frequencyMHz: 806, n: i })!
      expect(more.lengthM).toBeGreaterThanOrEqual(-l.spareM)
      h.apply(changesOf(more.steps, h.id))
    }
    const t = tree(h)
    expect(t.broken).toEqual([])
    expect(misfits(t).filter(m => m.kind === 'plug')).toEqual([])
    expect(t.open).toEqual([])
    const all = t.joints.flatMap(j => cableLength('vehicle', buildingOf(h.doc), j)?.spareM ?? [])
    expect(Math.min(...all)).toBeGreaterThanOrEqual(-0.05)
    // Both feeds still reach the modem.
    expect(t.visits.filter(v => v.at.node.id === router.id)).toHaveLength(2)
  })
  it('one that reaches, and a cable that is bought, are not gone on with', () => {
    const h = bus()
    const [lead] = leads(h)
    expect(extensionOf(lead!.joint, { ...on(h), spareM: 0.4, frequencyMHz: 806 })).toBeNull()
    const house = new House('router')
    const cable = tree(house).joints.find(j => j.run.partId)!
    expect(extensionOf(cable, { ...on(house), spareM: -2, frequencyMHz: 806 })).toBeNull()
  })
})

describe('a lead that reaches by itself', () => {
  it('goes on by no cable: told, and left out in a press with the adapter its plug needs', () => {
    const h = new House('router', 'vehicle')
    const t = () => treeOf(h.doc, h.doc.designs[0]!)
    const donor = t().donors[0]!
    // A whip with 4.5 m of its own in the place of an antenna that had none.
    h.set('nodes', donor.node.id, { partId: 'ant-bullbar', part: partById('ant-bullbar')! })
    const run = t().joints.find(j => j.from.at.node.id === donor.node.id)!.run.id
    const box = t().routers[0]!.node
    h.set('nodes', donor.node.id, { eastM: box.eastM, northM: box.northM + 1.5, upM: box.upM })
    h.read('Roof', -95)
    const found = () => h.assess().findings.find(f => f.code === 'place.lead-alone' && f.subjectId === run)
    expect(found()).toBeDefined()
    h.cure(found()!.cures[0]!)
    expect(found()).toBeUndefined()
    const joint = t().joints.find(j => j.run.id === run)!
    expect([joint.run.partId, joint.leads[0]!.lengthM]).toEqual([null, 4.5])
    const codes = h
      .assess()
      .findings.filter(f => f.subjectId.startsWith(run))
      .map(f => f.code)
    expect(codes).not.toContain('choose.connector')
    expect(codes).not.toContain('place.short')
  })
})
