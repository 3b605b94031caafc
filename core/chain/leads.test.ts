import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { PARTS, partById, partOfKind } from '../catalogue/parts'
import { ownLead } from './leads'
import { lineLossDb } from './line'
import { CONNECTOR_PAIR_DB, isCable, jointLossDb, jointM, lineOf, treeOf } from './tree'

/** A van with an antenna on its roof whose own leads go to a router. */
const van = (antennaId: string) => new House(null, 'vehicle').kit('router', { antenna: partOfKind(antennaId, 'antenna')! })
const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)

describe('leads that are fixed to a part', () => {
  it('thin coax loses 3 to 9 dB in 5 m at 2.6 GHz, the thinner the more', () => {
    // Facts of the trade; 195-type about 0.6 dB/m, RG-58 about 0.9, RG-174 about 1.7 at 2.5 GHz: from memory of data sheets.
    const loss = (tailCoax: '195' | 'RG-58' | 'RG-174') => {
      const { line } = ownLead(
        { ...partOfKind('ant-roof-2', 'antenna')!, tailCoax },
        { ...partOfKind('ant-roof-2', 'antenna')!.ports[0]! },
      )!
      return lineLossDb(line.constants, 5, 2600)
    }
    expect(loss('195')).toBeGreaterThan(2.8)
    expect(loss('RG-58')).toBeGreaterThan(loss('195'))
    expect(loss('RG-174')).toBeGreaterThan(loss('RG-58'))
    expect(loss('RG-174')).toBeLessThan(9)
  })
  it('a lead alone costs its coax and one pair; it is a cable of its maker’s length', () => {
    const t = tree(van('ant-roof-2'))
    const joint = t.joints.find(j => j.leads.length)!
    const lead = joint.leads[0]!
    expect(joint.run.partId).toBeNull()
    expect(isCable(joint)).toBe(true)
    expect(jointM(joint)).toBe(5)
    expect(lineOf(joint)!.ends).toBe('SMA')
    expect(jointLossDb(joint, 1800)).toBeCloseTo(lineLossDb(lead.line.constants, 5, 1800) + CONNECTOR_PAIR_DB, 12)
  })
  it('gone on with by a cable, both lose and both count in metres', () => {
    const h = van('ant-roof-2')
    const joint = tree(h).joints.find(j => j.leads.length)!
    const line = partOfKind('line-195-sma', 'line')!
    h.set('runs', joint.run.id, { partId: line.id, part: line, lengthM: 3 })
    const longer = tree(h).joints.find(j => j.run.id === joint.run.id)!
    expect(jointM(longer)).toBe(8)
    expect(jointLossDb(longer, 1800)).toBeCloseTo(
      jointLossDb(joint, 1800) + lineLossDb(line.constants, 3, 1800) + CONNECTOR_PAIR_DB,
      12,
    )
  })
  it('of which nothing was said, its coax is assumed', () => {
    const { tailCoax: _t, ...silent } = partOfKind('ant-roof-2', 'antenna')!
    expect(ownLead(silent, silent.ports[0]!)).toMatchObject({ assumed: true, lengthM: 5 })
    expect(ownLead(partById('ant-lpda')!, partOfKind('ant-lpda', 'antenna')!.ports[0]!)).toBeNull()
  })
  it('every shipped part with a lead says what it is made of', () => {
    const silent = PARTS.filter(p => p.tailM && !p.tailCoax).map(p => p.id)
    expect(silent).toEqual([])
    expect(PARTS.filter(p => p.tailM).length).toBeGreaterThan(6)
  })
})
