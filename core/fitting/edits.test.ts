import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { partById } from '../catalogue/parts'
import { treeOf } from '../chain/tree'
import { changesOf } from '../job/edits'
import type { Step } from '../job/edits'
import { branchSteps, joinSteps, looseSteps, removeSteps, swapSteps } from './edits'
import { buildingOf } from '../site/building'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const put = (h: House, steps: readonly Step[]) => h.apply(changesOf(steps, h.id))
const at = (h: House, id: string) => tree(h).nodes.find(n => n.node.id === id)!
const on = (h: House) => ({ job: h.doc.jobs[0]!, site: h.doc.sites[0]!, building: buildingOf(h.doc), tree: tree(h) })
const where = (h: House) => ({ kind: h.doc.jobs[0]!.kind, building: buildingOf(h.doc), design: h.doc.designs[0]! })

describe('a part taken out', () => {
  it('of a pad or arrestor the cables are closed into one of both lengths', () => {
    const h = new House('booster')
    const before = tree(h)
    const arrestor = before.nodes.find(n => n.part.kind === 'arrestor')!
    const lengths = before.joints.filter(j => [j.from, j.to].some(e => e.at.node.id === arrestor.node.id)).map(j => j.run.lengthM)
    put(h, removeSteps(before, arrestor))
    const after = tree(h)
    expect(after.broken).toEqual([])
    expect(after.nodes.some(n => n.node.id === arrestor.node.id)).toBe(false)
    const lead = after.joints.find(j => j.from.at.node.id === h.donor.id)!
    expect(lead.to.at.part.kind).toBe('amplifier')
    expect(lead.run.lengthM).toBeCloseTo(lengths[0]! + lengths[1]!, 2)
  })
  it('a router goes with the arrestors that led to it alone; nothing hangs in the air', () => {
    const h = new House('router')
    const before = tree(h)
    expect(before.nodes.filter(n => n.part.kind === 'arrestor')).toHaveLength(2)
    put(h, removeSteps(before, before.routers[0]!))
    const after = tree(h)
    expect(after.nodes.map(n => n.part.kind)).toEqual(['antenna'])
    expect(after.joints).toEqual([])
    expect(h.doc.runs).toEqual([])
  })
  it('an inside antenna behind a splitter takes its adapters along; splitter and the others stay', () => {
    const h = new House('booster', 'building')
    const before = tree(h)
    const dome = before.servers[0]!
    const others = before.servers.length - 1
    const splitters = before.nodes.filter(n => n.part.kind === 'splitter').length
    put(h, removeSteps(before, dome))
    const after = tree(h)
    expect(after.servers).toHaveLength(others)
    expect(after.broken).toEqual([])
    // One way out of a splitter of two may be left; a splitter with a way in and a way out stays.
    expect(after.nodes.filter(n => n.part.kind === 'splitter').length).toBeGreaterThanOrEqual(splitters - 1)
    for (const n of after.nodes.filter(x => ['adapter', 'pad', 'arrestor'].includes(x.part.kind)))
      expect(after.joints.filter(j => [j.from, j.to].some(e => e.at.node.id === n.node.id)).length).toBeGreaterThan(1)
  })
  it('a part that was put down by itself takes nothing along', () => {
    const h = new House('router')
    put(h, looseSteps(h.doc.designs[0]!, partById('arr-gas')!, { eastM: 1, northM: 1, upM: 1 }))
    const loose = tree(h).loose[0]!
    expect(removeSteps(tree(h), loose)).toEqual([{ table: 'nodes', op: 'delete', rowId: loose.node.id, fields: {} }])
  })
})

describe('a part put in by hand', () => {
  it('a branch lands where it was asked for, with a cable that reaches it', () => {
    const h = new House('booster')
    const amp = tree(h).amplifiers[0]!
    const dome = tree(h).servers[0]!
    put(h, removeSteps(tree(h), dome))
    const place = { eastM: 3, northM: 2, upM: 2.4 }
    const port = amp.part.ports.find(p => p.role === 'server')!
    put(h, branchSteps(where(h), { at: at(h, amp.node.id), port }, 'ant-dome', place))
    const server = tree(h).servers[0]!
    expect(server.node).toMatchObject(place)
    const run = tree(h).joints.find(j => j.to.at.node.id === server.node.id)!.run
    const straight = Math.hypot(3 - amp.node.eastM, 2 - amp.node.northM, 2.4 - amp.node.upM)
    expect(run.lengthM).toBeGreaterThan(straight)
  })
  it('two free ports are joined by a cable; another part in its place keeps the joints and drops the old maker’s figures', () => {
    const h = new House('booster')
    const amp = tree(h).amplifiers[0]!
    put(h, removeSteps(tree(h), tree(h).servers[0]!))
    put(h, looseSteps(h.doc.designs[0]!, partById('ant-dome')!, { eastM: 0, northM: 0, upM: 2.4 }))
    const dome = tree(h).loose[0]!
    if (dome.part.kind !== 'antenna') throw new Error('no dome')
    const from = { at: at(h, amp.node.id), port: amp.part.ports.find(p => p.role === 'server')! }
    put(h, joinSteps(where(h), from, { at: dome, port: dome.part.ports[0]! }))
    expect(tree(h).servers.map(s => s.node.id)).toEqual([dome.node.id])
    h.set('nodes', dome.node.id, { own: { gainDbi: 9 } })
    put(h, swapSteps(on(h), [dome.node], partById('ant-panel-in')!))
    expect(tree(h).servers[0]).toMatchObject({ node: { own: null }, part: { id: 'ant-panel-in' } })
    expect(tree(h).joints.some(j => j.to.at.node.id === dome.node.id)).toBe(true)
  })
})
