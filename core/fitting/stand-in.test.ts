import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { stepsOf } from '../card/steps'
import { jackAt } from '../chain/ends'
import { treeOf } from '../chain/tree'
import { changesOf } from '../job/edits'
import type { Service } from '../job/part'
import type { Step } from '../job/edits'
import { serviceAntennas } from '../judge/services'
import { serviceSteps, withoutService } from './services'
import { maySplit, splitterOf, standInSteps, withoutSplitter } from './stand-in'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const apply = (h: House, steps: Step[]) => h.apply(changesOf(steps, h.id))
function yawl(...services: Service[]): House {
  const h = new House('router', 'boat').site({ mizzenRiseM: 8 })
  for (const s of services) apply(h, serviceSteps(h.doc, h.doc.designs[0]!, s))
  return h
}
const split = (h: House) => apply(h, standInSteps(h.doc, h.doc.designs[0]!, tree(h)))
/** What is joined to what, without the ids of cables. */
const joined = (h: House) =>
  tree(h)
    .joints.map(j => [`${j.from.at.node.id} ${j.from.port.id}`, `${j.to.at.node.id} ${j.to.port.id}`].sort().join(' – '))
    .sort()

describe('a splitter between VHF and AIS', () => {
  it('is offered where both sets are aboard, once', () => {
    expect(maySplit(tree(yawl('VHF')))).toBe(false)
    const h = yawl('VHF', 'AIS')
    expect(maySplit(tree(h))).toBe(true)
    split(h)
    expect(maySplit(tree(h))).toBe(false)
  })
  it('stands between both antennas and both sets: every port is taken, every plug fits', () => {
    const h = yawl('VHF', 'AIS')
    split(h)
    const t = tree(h)
    const splitter = splitterOf(t)!
    expect(
      t.joints
        .filter(j => jackAt(j, splitter.node.id))
        .map(j => jackAt(j, splitter.node.id)!.port.id)
        .sort(),
    ).toEqual(['ais', 'ais-ant', 'vhf', 'vhf-ant'])
    expect([t.broken, t.loose, t.open.filter(o => o.port.role === 'service')]).toEqual([[], [], []])
    expect(h.assess().findings.map(f => f.code)).not.toContain('choose.connector')
  })
  it('is tried on the card in its three settings, each a step', () => {
    const h = yawl('VHF', 'AIS')
    split(h)
    const words = stepsOf(h.doc, h.assess())
      .filter(s => s.id.startsWith('stand-in:'))
      .map(s => s.words)
    expect(words).toHaveLength(3)
    expect(words[0]).toContain('each radio on its own antenna')
    expect(words[1]).toContain('both radios on VHF antenna')
    expect(words[2]).toContain('both radios on AIS antenna')
  })
  it('taken out, each antenna leads to its own set as before', () => {
    const h = yawl('VHF', 'AIS')
    const before = joined(h)
    const nodes = tree(h).nodes.length
    split(h)
    apply(h, withoutSplitter(tree(h)))
    expect(joined(h)).toEqual(before)
    expect(tree(h).nodes).toHaveLength(nodes)
  })
  it('a service that shares it is taken out without the other', () => {
    const h = yawl('VHF', 'AIS', 'Wi-Fi')
    split(h)
    const ais = serviceAntennas(tree(h).nodes).find(a => a.part.service === 'AIS')!
    apply(h, withoutService(tree(h), ais.node.id))
    const t = tree(h)
    expect(serviceAntennas(t.nodes).map(a => a.part.service)).toEqual(['VHF', 'Wi-Fi'])
    expect([t.broken, t.loose, splitterOf(t), t.open.filter(o => o.port.role === 'service')]).toEqual([[], [], null, []])
  })
})
