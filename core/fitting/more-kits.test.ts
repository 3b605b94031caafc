import { describe, expect, it } from 'vitest'
import { AT, House } from '../../tests/support/house'
import { treeOf } from '../chain/tree'
import { partById, partOfKind } from '../catalogue/parts'
import { changesOf } from '../job/edits'
import { swapSteps } from './edits'
import { heardByAir } from '../coverage/by-air'
import { contextOf } from '../judge/context'
import { inside, buildingOf } from '../site/building'
import { kitChanges } from './usual-kit'
import type { Kit } from './usual-kit'

function laid(kit: Kit, kind: 'home' | 'vehicle' = 'home'): House {
  const h = new House('router', kind)
  h.apply(kitChanges(h.doc, h.doc.designs[0]!, kit, { bearingDeg: 270, newId: h.id }))
  if (kind === 'home') h.read('Ridge', -92)
  return h
}
const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const codes = (h: House) => h.assess().findings.map(f => f.code)

describe('kits beside the usual ones', () => {
  it.each(['window', 'stick', 'extender', 'booster and router'] as const)('%s: every part is joined and every plug fits', kit => {
    const h = laid(kit)
    const t = tree(h)
    expect([t.broken, t.loose]).toEqual([[], []])
    expect(t.open.filter(o => o.port.role !== 'cell')).toEqual([])
    expect(codes(h)).not.toContain('choose.connector')
    expect(codes(h)).not.toContain('choose.missing')
  })
  it('a router at the window stays indoors: no way in, no arrestor, no earth is asked for', () => {
    const h = laid('window')
    expect(tree(h).nodes.every(n => inside(buildingOf(h.doc), n.node))).toBe(true)
    const kinds = h.assess().demands.map(d => d.kind)
    for (const none of ['way in', 'arrestor', 'earth', 'mount']) expect(kinds).not.toContain(none)
  })
  it('a window costs the panel what the pane takes: less level than the same panel outdoors', () => {
    const h = laid('window')
    const rsrp = () => h.assess().levels!.sources[0]!.start.rsrpDbm
    const within = rsrp()
    const antenna = tree(h).donors[0]!
    h.set('nodes', antenna.node.id, { eastM: antenna.node.eastM - 2 })
    expect(rsrp()).toBeGreaterThan(within + 1)
  })
  it('an extender carries its signal as data between two units: the cable takes nothing, and is a run like any', () => {
    const h = laid('extender')
    const a = h.assess()
    const cable = a.lengths.find(l => l.joint.line?.medium === 'data')!
    expect(cable.lengthM).toBeGreaterThanOrEqual(cable.neededM)
    expect(a.levels!.servers).toHaveLength(1)
    // Gain of the room unit over what its window unit hears: nothing is lost on the way.
    const [amp] = a.levels!.amplifiers
    expect(amp!.gainDb).toBeGreaterThan(0)
    expect(a.rooms.length).toBeGreaterThan(0)
  })
  it('a router by air is a part of the plan: fed, bought, and told what it hears', () => {
    const h = laid('booster and router')
    const [router] = tree(h).byAir
    expect(router).toBeDefined()
    const c = contextOf(h.doc, h.evidence, AT)
    const [heard] = heardByAir(h.doc, c.tree!, c.building, c.main!.levels!)
    // It stands 1.5 m beside the antenna and 1.4 m below it: louder than any room that is further off.
    expect(heard!.level.distanceM).toBeCloseTo(Math.hypot(1.5, 1.4), 1)
    for (const room of c.main!.rooms.filter(r => r.distanceM > 3)) expect(heard!.level.rsrpDbm).toBeGreaterThan(room.rsrpDbm)
    const a = h.assess()
    expect(a.demands.some(d => d.kind === 'feed' && d.subjectId === router!.node.id)).toBe(true)
    expect(a.findings.find(f => f.code === 'choose.by-air')?.subjectId).toBe(router!.node.id)
  })
  it('a cable to its modem, and it hears by air no more', () => {
    const h = laid('booster and router')
    h.set('designs', h.doc.designs[0]!.id, { approach: 'router' })
    expect(tree(h).byAir).toEqual([])
    expect(tree(h).loose.map(n => n.part.kind)).toContain('router')
  })
  it('a stick has one feed, and its step says that its socket bears no weight', async () => {
    const { stepsOf } = await import('../card/steps')
    const h = laid('stick')
    const stick = tree(h).routers[0]!
    expect(stick.part.mount).toMatch(/plugs into/)
    const step = stepsOf(h.doc, h.assess()).find(s => s.id === `hang:${stick.node.id}`)!
    expect(step.words).toMatch(/^Plug in/)
    expect(step.then).toMatch(/no weight/)
  })
  it('aboard, a booster feeds a small router of its own', () => {
    const h = laid('booster and router', 'vehicle')
    expect(tree(h).byAir.map(r => r.part.id)).toEqual(['rtr-mini'])
    // 1.5 m along the body: beside the antenna it would stand in the road.
    for (const r of tree(h).byAir) expect(inside(buildingOf(h.doc), r.node)).toBe(true)
  })
})

describe('where a foot stands', () => {
  it('a bolted antenna stands on the roof, taken in a kit or in the place of another; a whip on a bracket at the front', () => {
    const h = laid('router', 'vehicle')
    const site = h.doc.sites[0]!
    const roofM = site.storeys * site.storeyHeightM
    const antenna = () => tree(h).donors[0]!
    expect(antenna().node.upM).toBeGreaterThan(roofM + 0.1)
    h.apply(
      changesOf(
        swapSteps(
          { job: h.doc.jobs[0]!, site, building: buildingOf(h.doc), tree: tree(h) },
          [antenna().node],
          partById('ant-roof-2')!,
        ),
        h.id,
      ),
    )
    expect(antenna().node.upM).toBeCloseTo(roofM, 1)
    const choice = { antenna: partOfKind('ant-fin', 'antenna')! }
    h.apply(kitChanges(h.doc, h.doc.designs[0]!, 'booster', { bearingDeg: 270, newId: h.id, choice }))
    expect(antenna().node.upM).toBeCloseTo(roofM, 1)
    const whip = { antenna: partOfKind('ant-bullbar', 'antenna')! }
    h.apply(kitChanges(h.doc, h.doc.designs[0]!, 'booster', { bearingDeg: 270, newId: h.id, choice: whip }))
    expect(antenna().node.upM).toBeLessThan(roofM)
    expect(Math.abs(antenna().node.northM) + Math.abs(antenna().node.eastM)).toBeGreaterThan(site.lengthM / 2 - 0.2)
  })
})
