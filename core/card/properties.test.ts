/** Laws of the card, held by seeded jobs of each kind of site: each demand noted or not, with probability one half. */
import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { PARTS } from '../catalogue/parts'
import { layoutSection } from '../drawing/section'
import { kitChanges } from '../fitting/usual-kit'
import type { Kit } from '../fitting/usual-kit'
import { mountsFor, poleOf } from '../install/mounts'
import { wayInById, waysIn } from '../install/ways-in'
import { BARE_FIXTURE } from '../job/defaults'
import { BARE_FIXING, BEHINDS } from '../job/fixing'
import type { AntennaPart } from '../job/part'
import { KINDS, movesAbout } from '../job/schema'
import type { JobKind } from '../job/schema'
import { assess } from '../judge/assess'
import type { Assessment } from '../judge/assess'
import { usualFeed } from '../judge/feeds'
import { seeded } from '../random'
import { buildingOf, inside } from '../site/building'
import { cardOf, gatesBefore } from './card'
import type { CardStep } from './card'
import { factsFor, GATES } from './gates'
import type { GateId } from './gates'

const JOBS = 500
const NOW = '2026-04-03T12:00:00.000Z'
const KITS: readonly Kit[] = ['router', 'outdoors', 'booster', 'booster and router']
const OUTSIDE = PARTS.filter((p): p is AntennaPart => p.kind === 'antenna' && p.use === 'outside')

interface Made {
  h: House
  a: Assessment
  steps: CardStep[]
  abandonedId: string | null
}

/** A job as somebody may have left it: kit, places and notes by chance. */
function jobOf(kind: JobKind, seed: number): Made {
  const random = seeded(seed * 7919 + KINDS.indexOf(kind))
  const half = () => random() < 0.5
  const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const h = new House(null, kind, {
    rules: one(['generic', 'US', 'UK', 'EU', 'AU'] as const),
    mayDrill: one(['yes', 'no', 'ask'] as const),
    agreedCalls: half(),
  })
  const design = h.doc.designs[0]!
  h.apply(kitChanges(h.doc, design, one(KITS), { bearingDeg: 270, newId: h.id, choice: half() ? { antenna: one(OUTSIDE) } : {} }))
  h.set('designs', design.id, { mastId: h.doc.masts[0]!.id, band: 'B20' })
  if (half()) h.read(h.doc.spots.find(s => !s.indoors)!.name, -95 - 10 * random(), 12)
  const b = buildingOf(h.doc)
  const outside = h.doc.nodes.filter(n => !inside(b, n))
  for (const n of outside) {
    if (half()) h.place(n, { upM: Math.max(1, n.upM * (0.3 + random())) })
    if (n.part?.kind !== 'antenna' || half()) continue
    const mount = one(mountsFor(kind)).id
    const sections = half() ? [{ outsideMm: 42, wallMm: 3, lengthM: 0.5 + 3 * random() }] : []
    h.set('nodes', n.id, { fixing: { ...BARE_FIXING, mount, sections, apartM: 0.8, grade: 'S235', screw: 'lag', screwsEach: 4 } })
  }
  for (const n of h.doc.nodes.filter(x => x.part?.kind === 'amplifier' || x.part?.kind === 'router')) {
    if (half()) h.set('nodes', n.id, { feed: { ...usualFeed(), arrested: half() } })
    if (!half()) continue
    const fed = n.part?.supply === '12 V' ? '12 V feed' : 'mains socket'
    h.add('fixtures', { ...BARE_FIXTURE, kind: fed, name: '', eastM: n.eastM, northM: n.northM, upM: Math.max(0, n.upM - 0.8) })
  }
  const way = () =>
    h.add('fixtures', {
      ...BARE_FIXTURE,
      kind: 'way in',
      name: '',
      eastM: -b.halfLengthM,
      northM: 0,
      upM: half() ? 1 : b.eavesM,
      entry: one(waysIn(kind, 'yes', []).filter(w => w.verdict !== 'never')).id,
      behindFound: half() ? one(BEHINDS) : null,
    })
  const abandonedId = half() ? way() : null
  if (half()) h.design({ wayInId: way() })
  if (half())
    h.add('fixtures', {
      ...BARE_FIXTURE,
      kind: 'electrode',
      name: '',
      eastM: -b.halfLengthM - 0.5,
      northM: 0,
      upM: 0,
      electrode: one(['rod', 'house earthing', null] as const),
      conductor: half() ? 'solid' : null,
      bonded: half() ? 'yes' : null,
    })
  if (half())
    h.add('ownSteps', { words: 'Old dish off', stand: half() ? 'up' : 'ground', minutes: 20, afterKey: null, beforeKey: null })
  const a = assess(h.doc, { paths: {} }, { atUtc: NOW })
  return { h, a, steps: cardOf(h.doc, a).steps, abandonedId }
}

const seen = { makers: new Set<string>(), gates: new Set<GateId>() }
const gatesOf = (s: CardStep) => s.gates.map(g => g.gate)
/** What makes a hole, by what its maker says of how it is fixed. */
const HOLED = /screw|anchor|hole|bolt through|wall plate/
const DRILLS = /(^|\s)drill|hole saw|^bit /

describe.each(KINDS)('%s: five hundred jobs', kind => {
  const jobs = Array.from({ length: JOBS }, (_, seed) => jobOf(kind, seed))
  for (const { steps } of jobs)
    for (const s of steps) {
      seen.makers.add(s.id.split(':')[0]!)
      for (const g of s.gates) seen.gates.add(g.gate)
    }

  it('no hole without its drill gate: what drills stands behind one, and every part that is screwed has one of its own', () => {
    for (const { h, a, steps } of jobs) {
      for (const s of steps)
        if (s.id !== 'load' && s.tools.some(t => DRILLS.test(t)) && s.tools.some(t => t !== 'hammer drill'))
          expect(gatesOf(s), `${s.words}: ${s.tools.join()}`).toContain('drill')
      const screwed = a.tree!.nodes.filter(
        n =>
          (n.part.kind === 'amplifier' || n.part.kind === 'router' || (n.part.kind === 'antenna' && n.part.use === 'inside')) &&
          HOLED.test(n.part.mount ?? '') &&
          inside(buildingOf(h.doc), n.node) &&
          h.doc.jobs[0]!.mayDrill !== 'no',
      )
      for (const n of screwed)
        expect(
          steps.some(s => s.gates.some(g => g.gate === 'drill' && g.of === n.node.id)),
          n.part.name,
        ).toBe(true)
      for (const f of h.doc.fixtures.filter(x => x.id === h.doc.designs[0]!.wayInId && x.entry && wayInById(x.entry).drills)) {
        const step = steps.find(s => s.id === `way:${f.id}`)
        if (step) expect(step.gates.some(g => g.gate === 'drill' && g.of === f.id && g.hole === 'through')).toBe(true)
      }
    }
  })
  it('none aloft without a climb, none overhead within without a stepladder, and a second person at the foot', () => {
    for (const { h, steps } of jobs) {
      const b = buildingOf(h.doc)
      for (const s of steps) {
        if (s.stand === 'up') expect(gatesOf(s), s.words).toContain('climb')
        if (
          s.at &&
          s.id !== 'join' &&
          !s.own &&
          s.at.upM > 2.5 &&
          !inside(b, s.at) &&
          /^(mount|raise|hang|aim|way|fill|pull)/.test(s.id)
        )
          expect(gatesOf(s), s.words).toContain('climb')
        if (/^hang/.test(s.id) && s.at && !movesAbout(kind) && inside(b, s.at)) {
          const floor = b.floors.find(f => s.at!.upM < f.toM) ?? b.floors.at(-1)!
          expect(gatesOf(s).includes('ladder'), s.words).toBe(s.at.upM - floor.fromM > 2)
        }
        if (gatesOf(s).some(g => g === 'climb' || g === 'raise')) expect(s.people, s.words).toBe(2)
      }
    }
  })
  it('no pole is raised without the distance of the lines', () => {
    for (const { h, a, steps } of jobs)
      // What hangs on another's pole goes up with that.
      for (const d of a.tree!.donors.filter(x => !poleOf(a.tree!, x))) {
        const poleM = (d.node.fixing?.sections ?? []).reduce((s, x) => s + x.lengthM, 0)
        const up = !movesAbout(kind) && d.node.upM > 2.5 && !inside(buildingOf(h.doc), d.node)
        const raise = steps.find(s => s.id === `raise:${d.node.id}`)!
        const need = raise.gates.find(g => g.gate === 'raise')
        expect(!!need, raise.words).toBe(poleM > 1 || up || (!!need && poleM === 0))
        if (need) expect(factsFor(need, kind).map(f => f.key)).toEqual(expect.arrayContaining(['lines', 'under', 'wind']))
        if (need && poleM) expect(need.assembledM).toBeCloseTo(poleM, 6)
      }
  })
  it('no power-on without its own facts: wired or plugged, every antenna on; what repeats is registered and people stand off', () => {
    for (const { a, steps } of jobs)
      for (const box of [...a.tree!.amplifiers, ...a.tree!.routers]) {
        const power = steps.find(s => s.id === `power:${box.node.id}`)!
        const need = power.gates.find(g => g.gate === 'energise' && g.of === box.node.id)!
        const keys = factsFor(need, kind).map(f => f.key)
        expect(keys).toContain('antennas')
        expect(keys).toContain(box.part.supply === '12 V' ? 'dead' : 'plug')
        if (box.part.kind !== 'amplifier') continue
        const sends = power.gates.find(g => g.gate === 'transmit' && g.of === box.node.id)!
        expect(factsFor(sends, kind).map(f => f.key)).toEqual(expect.arrayContaining(['registered', 'rf']))
      }
  })
  it('everything planned has its step, everything missing its gate, and no gate stands open before anybody said anything', () => {
    for (const { h, a, steps } of jobs) {
      const ids = new Set(steps.map(s => s.id))
      const { tree } = a
      for (const d of tree!.donors) {
        const pole = poleOf(tree!, d)
        for (const k of ['build', 'mount', 'raise', 'aim']) expect(ids).toContain(`${k}:${(pole ?? d).node.id}`)
        if (!pole) continue
        // Clamped on before the pole goes up, and in no other way.
        expect(steps.find(s => s.id === `raise:${pole.node.id}`)!.needs).toContain(`hang:${d.node.id}`)
        for (const k of ['build', 'mount', 'raise', 'aim']) expect(ids).not.toContain(`${k}:${d.node.id}`)
      }
      for (const n of tree!.nodes)
        if (!tree!.donors.some(d => d.node.id === n.node.id) && n.part.kind !== 'adapter' && n.part.kind !== 'pad')
          expect(ids).toContain(`hang:${n.node.id}`)
      for (const c of a.lengths) expect(ids).toContain(`pull:${c.joint.run.id}`)
      const lacks = new Set(steps.flatMap(s => s.gates.flatMap(g => g.lacks?.map(l => l.key) ?? [])))
      for (const d of a.demands.filter(x => x.state === 'missing')) {
        if (['mount', 'way in', 'arrestor', 'earth', 'feed'].includes(d.kind)) {
          const held = d.kind !== 'mount' || tree!.donors.some(x => x.node.id === d.subjectId)
          if (held) expect(lacks, d.key).toContain(d.key)
        }
        if (d.kind === 'lines')
          expect(steps.find(s => s.id === `raise:${d.subjectId}`)!.gates.map(g => g.gate)).toContain('raise')
        if (d.kind === 'room') expect(steps.find(s => s.id === 'prove')!.then).toContain(d.of)
      }
      for (const s of steps)
        for (const g of gatesBefore(h.doc, s, steps, NOW))
          if (g.facts.some(f => f.fact.scope === 'visit')) expect(g.open, s.words).toBe(false)
    }
  })
  it('a way in that was given up leaves no step, no finding and no line', () => {
    let tried = 0
    for (const { h, a, steps, abandonedId } of jobs) {
      if (!abandonedId) continue
      tried++
      expect(steps.some(s => s.id.endsWith(abandonedId))).toBe(false)
      expect(steps.some(s => s.needs.some(n => n.endsWith(abandonedId)))).toBe(false)
      expect(a.findings.some(f => f.subjectId === abandonedId)).toBe(false)
      if (tried > 25) continue
      const view = layoutSection(h.doc, a, { width: 900, height: 400, units: 'metric', levels: false, pins: true })
      expect(view.handles.some(x => x.id === abandonedId)).toBe(false)
      expect(view.drawing.primitives.some(p => 'id' in p && p.id === abandonedId)).toBe(false)
    }
    expect(tried).toBeGreaterThan(JOBS / 4)
  })
  it('what stands before a hole loses a fact once it is noted', () => {
    let dropped = 0
    for (const { h, a } of jobs.slice(0, 60))
      for (const d of a.demands.filter(x => x.kind === 'lines' && x.state === 'missing' && !x.by)) {
        const open = (x: Assessment) => x.drill.assumed.filter(y => y.what === d.asks).length
        const before = open(assess(h.doc, { paths: {} }, { atUtc: NOW }))
        expect(before).toBeGreaterThan(0)
        h.check('fact', d.key, { value: 200 })
        const after = assess(h.doc, { paths: {} }, { atUtc: NOW })
        expect(open(after)).toBe(before - 1)
        dropped++
      }
    if (!movesAbout(kind)) expect(dropped).toBeGreaterThan(0)
  })
})

it('every maker of steps and every gate occurred', () => {
  const makers = [
    ...['fetch', 'labels', 'register', 'dry-run', 'panels-out', 'way', 'fill', 'load', 'own'],
    ...['build', 'mount', 'raise', 'hang', 'pull', 'earth', 'arrest', 'join', 'wires', 'power', 'link'],
    ...['sim', 'net', 'keys', 'aim', 'height', 'panels-back', 'seal', 'prove', 'strike', 'clear-of', 'clear'],
  ]
  expect([...seen.makers].sort()).toEqual(makers.sort())
  expect([...seen.gates].sort()).toEqual([...GATES].sort())
})
