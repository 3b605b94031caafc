/** The steps of a job, made from this plan: what is done where, with what, to which figure, behind which gate. */
import type { Joint, TreeNode } from '../chain/tree'
import { bendOf, pulledFrom, pullingOrder } from '../fitting/laying'
import { isScrewed, mountKind } from '../fitting/mounts'
import { wayInById } from '../fitting/ways-in'
import { cableKey, cableLabels } from '../fitting/pick-list'
import type { LinePart, Part } from '../job/part'
import { movesAbout } from '../job/schema'
import type { Design, JobDocument } from '../job/schema'
import type { Assessment } from '../judge/assess'
import { feedsOf } from '../judge/feeds'
import { passagesOf } from '../judge/route'
import { surgesOf } from '../judge/route-surge'
import { buildingOf, inside } from '../site/building'
import type { Building } from '../site/building'
import { between } from '../site/frame'
import type { Point } from '../site/frame'
import { digest } from '../judge/ticks'
import { mToken, num } from '../units'
import type { GateId } from './gates'

/** Where somebody stands for a step. What needs a network comes first; what is up is done in one climb. */
export type Stand = 'in coverage' | 'ground' | 'up'

export interface Step {
  /** the same as long as the plan has it: what it is, and of which row */
  id: string
  words: string
  stand: Stand
  /** where on the picture; null where it is nowhere in particular */
  at: Point | null
  parts: string[]
  tools: string[]
  /** how, in the order in which it is done */
  then: string
  /** what is to be read or kept to */
  figure: string | null
  /** what is photographed before it is hidden */
  photo: string | null
  gate: GateId | null
  /** least, likely, most, minutes */
  minutes: readonly [number, number, number]
  people: 1 | 2
  dry: boolean
  /** steps that come before it */
  needs: string[]
  /** keys of the list without which it cannot be done */
  takes: string[]
  /** somebody added it */
  own: boolean
  /** a short sum of all of it: a step that was done is held against it */
  about: string
}

type Draft = Omit<Step, 'about' | 'tools' | 'parts' | 'figure' | 'photo' | 'gate' | 'people' | 'dry' | 'takes' | 'own'> &
  Partial<Step>

/** Over this a person climbs, m. @source common practice (no source) */
const REACH_M = 2.5

/** What of an assessment the steps are made from. */
export type Planned = Pick<Assessment, 'tree' | 'lengths' | 'drill' | 'levels'>

interface Site {
  doc: JobDocument
  design: Design
  a: Planned
  building: Building
  labels: Map<string, string>
}

/** @returns every step of the plan shown, those it needs before it; none where nothing is laid out */
export function stepsOf(doc: JobDocument, a: Planned): Step[] {
  if (!a.tree?.nodes.length) return []
  const { design } = a.tree
  const labels = new Map(cableLabels(a.tree, design.name).map(l => [l.runId, l.code]))
  const s: Site = { doc, design, a, building: buildingOf(doc), labels }
  const planned = [...before(s), ...holes(s), ...masts(s), ...inner(s), ...cables(s), ...earths(s), ...after(s)]
  const drafts = [...planned, ...byHand(doc)]
  const known = new Set(drafts.map(d => d.id))
  return drafts.map(d => {
    const step = {
      tools: [],
      parts: [],
      figure: null,
      photo: null,
      gate: null,
      people: 1 as const,
      dry: false,
      takes: [],
      own: false,
      ...d,
      needs: d.needs.filter(n => known.has(n)),
    }
    const { words, then, figure, parts, tools } = step
    // What a dry run should read follows every new reading: that is no change of the plan.
    const kept = step.id === 'dry-run' ? null : figure
    return { ...step, about: digest([words, then, kept, parts, tools].flat().join('|')) }
  })
}

/** What somebody added: after the step it was put behind, or whenever there is time. */
function byHand({ ownSteps }: JobDocument): Draft[] {
  return ownSteps.map(o => ({
    id: `own:${o.id}`,
    words: o.words,
    stand: o.stand,
    at: null,
    then: 'Added by hand.',
    gate: o.stand === 'up' ? 'climb' : null,
    minutes: [o.minutes * 0.6, o.minutes, o.minutes * 2],
    // Behind a step by hand that is older alone: two cannot wait for each other.
    needs: o.afterKey && (!o.afterKey.startsWith('own:') || o.afterKey < `own:${o.id}`) ? [o.afterKey] : [],
    own: true,
  }))
}

const partKey = (n: TreeNode): string => `part:${n.part.id}`
const isUp = (p: Point, b: Building): boolean => p.upM > REACH_M && !inside(b, p)
const nameOf = (n: TreeNode): string => n.part.name

/** Parts without which a dry run says nothing. */
const TRIED: ReadonlySet<Part['kind']> = new Set(['antenna', 'amplifier', 'router'])

/** In coverage, and on the ground, before anything is fixed. */
function before({ doc, a }: Site): Draft[] {
  const boosters = a.tree!.amplifiers
  const out: Draft[] = [
    {
      id: 'fetch',
      words: 'Fetch what needs a network',
      stand: 'in coverage',
      at: null,
      then: 'This job opened once on this phone; manuals of every box, firmware, the map and the ground; the operator’s settings.',
      minutes: [5, 10, 25],
      needs: [],
    },
    {
      id: 'labels',
      words: 'Photograph every label before it is hidden',
      stand: 'ground',
      at: null,
      parts: [...a.tree!.amplifiers, ...a.tree!.routers].map(nameOf),
      then: 'Serial, IMEI, MAC; the default key covered before the picture is taken. Ends of every cable marked.',
      photo: 'each label, sharp',
      minutes: [5, 10, 20],
      needs: [],
    },
  ]
  if (boosters.length)
    out.push({
      id: 'register',
      words: boosters.length === 1 ? 'Register the booster, or have consent' : 'Register the boosters, or have consent',
      stand: 'in coverage',
      at: null,
      parts: boosters.map(nameOf),
      then: 'Where it is the rule, before it transmits: with the carrier, by its serial and this address.',
      minutes: [5, 10, 40],
      needs: ['fetch', 'labels'],
    })
  if (a.drill.dryRun.length)
    out.push({
      id: 'dry-run',
      words: 'Dry run: everything loose, cable through a window',
      stand: 'ground',
      at: null,
      parts: a.tree!.nodes.filter(n => n.part.kind !== 'adapter' && n.part.kind !== 'pad').map(nameOf),
      takes: a.tree!.nodes.filter(n => TRIED.has(n.part.kind)).map(partKey),
      tools: ['window lead', 'phone'],
      then: 'Donor where it will hang or on a pole beside it, antennas on before power; read and compare. Past a stop: back to the plan.',
      figure: a.drill.dryRun
        .slice(0, 3)
        .map(d => `${d.quantity} ${num(d.expected)} ${d.unit} (${d.where}), stop ${d.stopWhen} ${num(d.stopAt)}`)
        .join('; '),
      gate: 'transmit',
      minutes: [20, 40, 90],
      needs: ['labels', 'register'],
    })
  if (doc.jobs[0]!.kind === 'vehicle')
    out.push({
      id: 'panels-out',
      words: 'Panels out',
      stand: 'ground',
      at: null,
      tools: ['trim tools', 'tray for clips'],
      then: 'From the door inward, clips in a tray; what is behind is looked at now.',
      minutes: [10, 25, 60],
      needs: ['dry-run'],
    })
  return out
}

/** One step a hole that the plan's way in makes. */
function holes({ doc, design, a, building }: Site): Draft[] {
  return passagesOf({ doc, design, tree: a.tree, lengths: a.lengths, building }).flatMap((p): Draft[] => {
    if (p.at.kind !== 'way in' || !p.at.entry || p.needsMm === null) return []
    const way = wayInById(p.at.entry)
    const name = p.at.name || way.words
    const bit = p.bitMm === null ? 'the widest bit, plugs crimped afterwards' : `bit ${p.bitMm}`
    if (!way.drills)
      return [
        {
          id: `way:${p.at.id}`,
          words: `Open the way: ${name}`,
          stand: 'ground',
          at: p.at,
          tools: ['torch', 'draw line'],
          then: way.how,
          figure: `${num(p.needsMm, 1)} mm with one plug at a time`,
          photo: 'the way, before and after',
          minutes: [5, 15, 40],
          needs: ['dry-run', 'panels-out'],
        },
      ]
    return [
      {
        id: `way:${p.at.id}`,
        words: `Hole: ${name}`,
        stand: isUp(p.at, building) ? 'up' : 'ground',
        at: p.at,
        parts: ['sleeve or gland', 'cover or gasket', 'sealant'],
        tools: ['drill', bit, 'pilot 6 mm', 'brush', 'eyes and dust mask'],
        then: `${way.how}`,
        figure: `${num(p.needsMm, 1)} mm, falls outward${p.at.wallMm === null ? '' : ` through ${num(p.at.wallMm)} mm`}`,
        photo: 'both sides before the cover',
        takes: ['use:glands', 'use:sealant'],
        gate: 'drill',
        minutes: [10, 20, 60],
        dry: true,
        needs: ['dry-run', 'panels-out'],
      },
    ]
  })
}

function masts({ a, building }: Site): Draft[] {
  return a.tree!.donors.flatMap((at): Draft[] => {
    const { node } = at
    const fixing = node.fixing
    const kind = fixing ? mountKind(fixing.mount) : null
    const up = isUp(node, building)
    const stand = up ? ('up' as const) : ('ground' as const)
    const overM = fixing?.sections.reduce((s, x) => s + x.lengthM, 0) ?? 0
    const screws = fixing && isScrewed(fixing.mount) && fixing.screw && fixing.screwsEach
    return [
      {
        id: `build:${node.id}`,
        words: `Put ${nameOf(at)} together on the ground`,
        stand: 'ground',
        at: null,
        parts: [nameOf(at), ...(overM ? [`pole ${mToken(overM)}`] : [])],
        tools: ['spanners'],
        takes: [partKey(at)],
        then: 'Cable on and its plug sealed, weight tied to the pole, all finger-tight; drain hole down, arrow forward.',
        photo: 'its label and its polarisation mark',
        minutes: [10, 20, 40],
        needs: ['dry-run'],
      },
      {
        id: `mount:${node.id}`,
        words: kind ? `Fix the ${kind.id}` : `Fix what holds ${nameOf(at)}`,
        stand,
        at: node,
        parts: screws ? [`${fixing.screwsEach} × ${fixing.screw} for each fixing`] : [],
        tools: kind ? kind.tools.split(', ') : ['level', 'spanners'],
        takes: fixing ? [`mount:${fixing.mount}`, ...(screws ? ['screw'] : []), ...(overM ? ['pole'] : [])] : ['use:pole'],
        then: kind?.how ?? 'As its maker says; plumb.',
        gate: up ? 'climb' : null,
        minutes: [15, 30, 75],
        people: up ? 2 : 1,
        dry: true,
        needs: [`build:${node.id}`],
      },
      {
        id: `raise:${node.id}`,
        words: `Raise ${nameOf(at)}`,
        stand,
        at: node,
        then: 'Cable on before it goes up, top section first; turned by hand to the bearing, locked only when it is aimed.',
        gate: overM > 1 ? 'raise' : up ? 'climb' : null,
        minutes: [5, 15, 40],
        people: overM > 1.5 ? 2 : 1,
        dry: true,
        needs: [`mount:${node.id}`],
      },
    ]
  })
}

/** Boxes and what hangs inside. */
function inner({ doc, a, building }: Site): Draft[] {
  const { tree } = a
  const hung = tree!.nodes.filter(
    n =>
      !tree!.donors.some(d => d.node.id === n.node.id) &&
      n.part.kind !== 'adapter' &&
      n.part.kind !== 'pad' &&
      n.part.kind !== 'line',
  )
  return hung.map((n): Draft => {
    const up = isUp(n.node, building)
    const box = n.part.kind === 'amplifier' || n.part.kind === 'router'
    return {
      id: `hang:${n.node.id}`,
      words: `Fix ${nameOf(n)}${nearWords(doc, n.node)}`,
      stand: up ? 'up' : 'ground',
      at: n.node,
      parts: [nameOf(n)],
      takes: [partKey(n)],
      tools: ['drill', 'screwdriver', 'level'],
      then:
        n.part.kind === 'arrestor'
          ? 'In series in the line, where it comes to the building, its earth stud reachable.'
          : box
            ? 'Its vents free, the plug within its lead, no cable strained; screwed down before anything is plugged in.'
            : 'Template, level, lead through; away from metal and from the box.',
      photo: box ? 'its place and its lamps' : null,
      gate: up ? 'climb' : null,
      minutes: box ? [10, 15, 30] : [5, 12, 30],
      needs: ['dry-run', 'panels-out'],
    }
  })
}

/** Of parts alike each is told by the room it hangs in. */
function nearWords({ spots }: JobDocument, at: Point): string {
  const level = spots.filter(s => s.indoors && Math.abs(s.upM - at.upM) < STOREY_M)
  const near = level.reduce<(typeof spots)[number] | null>(
    (a, s) => (!a || between(s, at).distanceM < between(a, at).distanceM ? s : a),
    null,
  )
  return near ? `, ${near.name}` : ''
}
/** What hangs in a room is no further over or under a place in it, m. */
const STOREY_M = 3

/** A length bought with its plugs on, or any drum of that line. */
const cableTaken = (line: LinePart, lengthM: number, plugs: Design['plugs']): string =>
  plugs === 'crimped' ? cableKey(line) : `${cableKey(line)}:${lengthM}`

function cables({ doc, design, a, building, labels }: Site): Draft[] {
  const ways = doc.fixtures.filter(f => f.kind === 'way in').map(f => `way:${f.id}`)
  const order = pullingOrder(a.lengths)
  const pulls = order.map((c, i): Draft => {
    const { joint } = c
    const code = labels.get(joint.run.id) ?? ''
    const crosses = inside(building, joint.from.at.node) !== inside(building, joint.to.at.node)
    const from = pulledFrom(joint) === 'from' ? joint.from.at : joint.to.at
    return {
      id: `pull:${joint.run.id}`,
      words: `Pull ${code}: ${nameOf(joint.from.at)} to ${nameOf(joint.to.at)}`,
      stand: isUp(joint.from.at.node, building) || isUp(joint.to.at.node, building) ? 'up' : 'ground',
      at: from.node,
      parts: [`${joint.line?.name ?? 'cable'}, ${mToken(joint.run.lengthM)}`],
      takes: joint.line ? [cableTaken(joint.line, joint.run.lengthM, design.plugs)] : [],
      tools: ['draw line', 'tape', 'clips'],
      then: `From ${nameOf(from)}, plug taped; ${code} on both ends; drip loop below the way in; ends stay free until both are done.`,
      figure: `needs ${mToken(c.neededM)} of ${mToken(joint.run.lengthM)}; bend no tighter than ${num(bendOf(joint.line))} mm`,
      gate: isUp(joint.from.at.node, building) || isUp(joint.to.at.node, building) ? 'climb' : null,
      minutes: [5, 10 + Math.round(c.neededM), 20 + Math.round(3 * c.neededM)],
      dry: true,
      needs: [
        ...ends(joint),
        ...(crosses ? ways : []),
        // One after another, as they are pulled.
        ...(i ? [`pull:${order[i - 1]!.joint.run.id}`] : []),
      ],
    }
  })
  return pulls
}
const ends = ({ from, to }: Joint): string[] => [from, to].flatMap(e => [`raise:${e.at.node.id}`, `hang:${e.at.node.id}`])

function earths({ doc, a, building }: Site): Draft[] {
  return surgesOf({ doc, tree: a.tree, building, job: doc.jobs[0]! }).map((p): Draft => ({
    id: `earth:${p.arrestor.node.id}`,
    words: 'Earth the arrestor',
    stand: isUp(p.arrestor.node, building) ? 'up' : 'ground',
    at: p.arrestor.node,
    parts: [`solid copper, ${mToken(p.way.lengthM)}`, 'clamps'],
    takes: ['use:earth', 'use:clamps'],
    then: 'Short and straight, wide bends. The bond to the building’s earthing is a licensed electrician’s.',
    figure: `${mToken(p.way.lengthM)}, ${p.way.bends === 1 ? 'one bend' : `${p.way.bends} bends`}`,
    photo: 'both ends of the conductor',
    gate: isUp(p.arrestor.node, building) ? 'climb' : null,
    minutes: [10, 20, 45],
    needs: [`hang:${p.arrestor.node.id}`],
  }))
}

/** Power last; then aim, seal, prove and clear. */
function after(s: Site): Draft[] {
  const { doc, a, building } = s
  const pulled = a.lengths.map(c => `pull:${c.joint.run.id}`)
  const laid = [...pulled, ...a.tree!.nodes.flatMap(n => [`hang:${n.node.id}`, `raise:${n.node.id}`, `earth:${n.node.id}`])]
  const feeds = feedsOf(doc, a.tree!, doc.jobs[0]!.kind, building)
  const out: Draft[] = [
    {
      id: 'join',
      words: 'Join every plug to its port, antennas first',
      stand: 'ground',
      at: a.tree!.amplifiers[0]?.node ?? a.tree!.routers[0]?.node ?? null,
      tools: ['torque wrench or two fingers'],
      then: 'By the labels; an open port of an amplifier is closed; nothing is powered yet.',
      minutes: [5, 10, 20],
      needs: laid,
    },
  ]
  const powered = feeds.length
    ? feeds
    : [...a.tree!.amplifiers, ...a.tree!.routers].map(at => ({ at, wire: null, fuseA: null, supply: null }))
  for (const f of powered)
    out.push({
      id: `power:${f.at.node.id}`,
      words: `Power ${nameOf(f.at)}`,
      stand: 'ground',
      at: f.at.node,
      parts: f.wire ? [f.wire.words, ...(f.fuseA === null ? [] : [`fuse ${num(f.fuseA, f.fuseA % 1 ? 1 : 0)} A`])] : [],
      takes: f.wire ? [`wire:${f.wire.id}`, 'fuse'] : [],
      tools: f.supply === '12 V' ? ['meter', 'crimper'] : [],
      then:
        f.supply === '12 V'
          ? 'Negative first, fuse last; red, then green.'
          : f.supply === 'PoE' || f.supply === 'passive PoE'
            ? 'Injector indoors, lamps at both ends.'
            : 'By its plug, with surge protection.',
      gate: 'energise',
      minutes: [5, 10, 30],
      needs: ['join'],
    })
  const running = powered.map(f => `power:${f.at.node.id}`)
  for (const d of a.tree!.donors)
    out.push({
      id: `aim:${d.node.id}`,
      words: `Aim ${nameOf(d)} and lock it`,
      stand: isUp(d.node, building) ? 'up' : 'ground',
      at: d.node,
      tools: ['phone', 'spanners'],
      then: 'Steps about the bearing, finer about the best, lock, read again: tightening moves it.',
      gate: isUp(d.node, building) ? 'climb' : null,
      minutes: [10, 20, 45],
      people: isUp(d.node, building) ? 2 : 1,
      dry: true,
      needs: running,
    })
  const aimed = a.tree!.donors.map(d => `aim:${d.node.id}`)
  const up = a.tree!.donors.some(d => isUp(d.node, building))
  out.push(
    {
      id: 'seal',
      words: 'Seal plugs and way in, tie, clamp',
      stand: up ? 'up' : 'ground',
      at: a.tree!.donors[0]?.node ?? null,
      parts: ['self-amalgamating tape', 'ties'],
      takes: ['use:tape', 'use:ties'],
      then: 'Plugs wrapped from below upward; weight off them; neighbours’ cables clamped too; old holes closed.',
      photo: 'every sealed plug',
      gate: up ? 'climb' : null,
      minutes: [5, 15, 30],
      dry: true,
      needs: aimed,
    },
    {
      id: 'prove',
      words: 'Prove it: same spots, same test, same hour',
      stand: 'ground',
      at: null,
      then: 'Three readings and three speed tests at the baseline; the hardest room; a call; the other way if there is one.',
      minutes: [15, 25, 60],
      needs: [...aimed, 'seal'],
    },
    {
      id: 'clear',
      words: movesAbout(doc.jobs[0]!.kind) ? 'Panels back, wipe, clear' : 'Clear, wipe, old gear out',
      stand: 'ground',
      at: null,
      then: 'Nothing left in the garden or the bilge; small parts counted.',
      photo: 'everything as it stays',
      minutes: [10, 15, 40],
      needs: ['prove'],
    },
  )
  return out
}
