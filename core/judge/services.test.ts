import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { cardOf } from '../card/card'
import { SERVICES } from '../job/part'
import type { Service } from '../job/part'
import { serviceSteps, withoutService } from '../fitting/services'
import { changesOf } from '../job/edits'
import { treeOf } from '../chain/tree'
import { cableLabels } from '../install/pick-list'
import { horizonKm, serviceAntennas } from './services'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const add = (h: House, s: Service) => h.apply(changesOf(serviceSteps(h.doc, h.doc.designs[0]!, s), h.id))
const yawl = () => new House('router', 'boat').site({ mizzenRiseM: 8 })
const found = (h: House, code: string) => h.assess().findings.filter(f => f.code === code)
const antenna = (h: House, s: Service) => serviceAntennas(tree(h).nodes).find(a => a.part.service === s)!

describe('other services aboard', () => {
  it('each is laid out with its set and cable, joined, and is no donor of the cellular kit', () => {
    const h = yawl()
    const donors = tree(h).donors.length
    const levels = h.assess().levels?.modems.length
    for (const s of SERVICES) add(h, s)
    const t = tree(h)
    expect(serviceAntennas(t.nodes)).toHaveLength(SERVICES.length)
    expect([t.donors.length, t.broken, t.loose, t.open.filter(o => o.port.role === 'service')]).toEqual([donors, [], [], []])
    expect(h.assess().levels?.modems.length).toBe(levels)
    // Plugs meet: what differs has its adapter.
    expect(found(h, 'choose.plug')).toEqual([])
  })
  it('their cables are pulled and labelled, their mounts asked for', () => {
    const h = yawl()
    add(h, 'VHF')
    h.read('Saloon', -95)
    const a = h.assess()
    const cable = tree(h).joints.find(j => j.from.port.role === 'service' && j.line)!
    expect(cardOf(h.doc, a).steps.map(s => s.id)).toContain(`pull:${cable.run.id}`)
    expect(cableLabels(tree(h), 'A').filter(l => l.runId === cable.run.id)).toHaveLength(2)
    expect(a.demands.some(d => d.kind === 'mount' && d.subjectId === antenna(h, 'VHF').node.id)).toBe(true)
  })
  it('AIS goes to the mizzen where there is one: nothing is in its way', () => {
    const h = yawl()
    for (const s of SERVICES) add(h, s)
    expect(found(h, 'place.services')).toEqual([])
    expect(antenna(h, 'AIS').node.upM).toBeLessThan(antenna(h, 'VHF').node.upM)
  })
  it('three services at one height are told, each with the one it is in the way of, and moved apart by a press', () => {
    const h = yawl()
    for (const s of ['VHF', 'AIS', 'Wi-Fi'] as const) add(h, s)
    const { eastM, northM, upM } = antenna(h, 'VHF').node
    for (const s of ['AIS', 'Wi-Fi'] as const) h.set('nodes', antenna(h, s).node.id, { eastM: eastM + 0.2, northM, upM })
    expect(found(h, 'place.services')).toHaveLength(2)
    const [first] = found(h, 'place.services')
    h.cure(first!.cures[0]!)
    expect(found(h, 'place.services').map(f => f.key)).not.toContain(first!.key)
  })
  it('the one that is safety stands highest', () => {
    const h = yawl()
    add(h, 'VHF')
    add(h, 'Wi-Fi')
    expect(found(h, 'place.safety')).toEqual([])
    h.set('nodes', antenna(h, 'Wi-Fi').node.id, { upM: antenna(h, 'VHF').node.upM + 1 })
    expect(found(h, 'place.safety')).toHaveLength(1)
  })
  it('the horizon over the sea is 4.12·√h km (ITU-R P.310: effective radius 4/3)', () => {
    expect(horizonKm(1)).toBeCloseTo(4.12, 2)
    expect(horizonKm(16)).toBeCloseTo(16.5, 1)
    expect(horizonKm(16, 4)).toBeCloseTo(16.49 + 8.24, 1)
    expect(horizonKm(-3)).toBe(0)
  })
  it('taken out, nothing of it is left', () => {
    const h = yawl()
    const before = [tree(h).nodes.length, h.doc.runs.length]
    add(h, 'AIS')
    h.apply(changesOf(withoutService(tree(h), antenna(h, 'AIS').node.id), h.id))
    expect([tree(h).nodes.length, tree(h).joints.length]).toEqual(before)
  })
})
