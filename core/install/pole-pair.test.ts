import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { stepsOf } from '../card/steps'
import { lineLossDb } from '../chain/line'
import { treeOf } from '../chain/tree'
import { partOfKind } from '../catalogue/parts'
import { crossedSteps } from '../fitting/pair'
import { changesOf } from '../job/edits'
import { BARE_FIXING } from '../job/fixing'
import { poleOf } from './mounts'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
function pair(held = true): House {
  const h = new House('router')
  h.apply(changesOf(crossedSteps(tree(h), tree(h).donors[0]!, partOfKind('ant-lpda', 'antenna')!, 270), h.id))
  if (held) h.set('nodes', tree(h).donors[0]!.node.id, { fixing: { ...BARE_FIXING, mount: 'side pole' } })
  return h
}
const demands = (h: House, kind: string) => h.assess().demands.filter(d => d.kind === kind)
const count = (h: House, kind: string) => stepsOf(h.doc, h.assess()).filter(s => s.id.startsWith(`${kind}:`)).length

describe('two beams on one pole', () => {
  it('nothing noted: what holds each is missing; one pole noted holds both, and is raised once', () => {
    expect(demands(pair(false), 'mount').map(d => d.state)).toEqual(['missing', 'missing'])
    const h = pair()
    expect(demands(h, 'mount').filter(d => d.state === 'missing')).toEqual([])
    expect(demands(h, 'lines')).toHaveLength(1)
    expect([count(h, 'mount'), count(h, 'raise'), count(h, 'aim'), count(h, 'pull')]).toEqual([1, 1, 1, 4])
  })
  it('further beside it than a crossbar reaches, or two antennas that are no pair: each has its own mount', () => {
    const h = pair()
    const second = tree(h).donors[1]!
    h.set('nodes', second.node.id, { eastM: second.node.eastM + 2 })
    expect(poleOf(tree(h), tree(h).donors[1]!)).toBeNull()
    expect(demands(h, 'mount').map(d => d.state)).toContain('missing')
  })
  it('cables of 10 and 15 m are told as unlike, by what five metres of the line take', () => {
    const h = pair()
    const runs = tree(h).donors.map(d => tree(h).joints.find(j => j.from.at.node.id === d.node.id && j.run.partId)!.run.id)
    h.set('runs', runs[0]!, { lengthM: 10 })
    h.set('runs', runs[1]!, { lengthM: 10 })
    const found = () => h.assess().findings.find(f => f.code === 'choose.pair-cables')
    expect(found()).toBeUndefined()
    h.set('runs', runs[1]!, { lengthM: 15 })
    const { line } = tree(h).joints.find(j => j.run.id === runs[1])!
    // The difference is that of the line alone: plugs and what follows are alike on both ways. 806 MHz is B20.
    const apartDb = lineLossDb(line!.constants, 15, 806) - lineLossDb(line!.constants, 10, 806)
    expect(found()!.sentence).toContain(`${apartDb.toFixed(1)}\u2009dB`.replace('\u2009', ' '))
  })
})
