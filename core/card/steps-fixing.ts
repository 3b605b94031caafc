/** Steps that fix what is planned: mounts, antennas, boxes, cables, earth. */
import { jobOf, movesAbout, siteOf } from '../job/schema'
import { nth } from '../sure'
import { lineOf } from '../chain/tree'
import type { AntennaNode, Joint, Tree, TreeNode } from '../chain/tree'
import { bendOf, pulledFrom, pullingOrder } from '../install/laying'
import { boughtFor, fixedWords, gustOf, isScrewed, mountKind, poleOf, standing } from '../install/mounts'
import { hasOwnHole, ownHoleWords } from '../install/own-hole'
import { isRaised } from '../install/raising'
import { cableKey } from '../install/pick-list'
import type { Mount } from '../job/fixing'
import { isOmni } from '../job/part'
import type { LinePart, SourcePart } from '../job/part'
import type { Design, JobDocument } from '../job/schema'
import type { Demand } from '../judge/demands'
import { surgesOf } from '../judge/route-surge'
import { inside } from '../site/building'
import type { Building } from '../site/building'
import { between, nearestTo } from '../site/frame'
import type { Point } from '../site/frame'
import { num } from '../units'
import { metres, words } from '../words'
import { aloft, beside, pulling, TAKES } from './durations'
import type { GateNeed } from './gates'
import { heightGates, holeAt, lacking, raising } from './needs'
import { catalogueName, isUp, nameOf, partKey, worded } from './step'
import type { Draft, CardContext } from './step'

/** Whether a mount makes a hole, and whether it goes through: a foot bolted through a skin is the hole of its own leads. */
const mountHole = (at: TreeNode): GateNeed[] => {
  const mount = at.node.fixing?.mount
  if (hasOwnHole(at) || mount === 'roof bolt') return [holeAt(at, 'through')]
  if (!mount) return [holeAt(at, 'screws')]
  return DRILLED_MOUNTS.has(mount) ? [holeAt(at, 'screws')] : []
}
/** Mounts that are screwed or bolted into what they stand on. */
const DRILLED_MOUNTS: ReadonlySet<Mount> = new Set(['wall bracket', 'fascia bracket', 'rafter foot', 'side pole', 'bulkhead'])

export function masts(s: CardContext): Draft[] {
  const { doc, a, building } = s
  const gustMs = gustOf(siteOf(doc))
  const isBoat = jobOf(doc).kind === 'boat'
  return a.tree.donors.flatMap((at): Draft[] => {
    const pole = poleOf(a.tree, at)
    if (pole) return [onPole(at, pole)]
    const { node } = at
    const carried = a.tree.donors.filter(d => poleOf(a.tree, d)?.node.id === node.id)
    const fixing = node.fixing
    const kind = fixing ? mountKind(fixing.mount) : null
    const up = isUp(node, building)
    const stand = up ? ('up' as const) : ('ground' as const)
    const overM = fixing?.sections.reduce((s, x) => s + x.lengthM, 0) ?? 0
    const screws = fixing && isScrewed(fixing.mount) && fixing.screw && fixing.screwsEach
    const drilled = mountHole(at)
    const own = hasOwnHole(at)
    const lacks = a.demands.filter(d => d.kind === 'mount' && d.subjectId === node.id)
    return [
      {
        id: `build:${node.id}`,
        words: `Prepare ${nameOf(at)} on the ground`,
        plain: `Put ${catalogueName(at)} together on the ground`,
        stand: 'ground',
        at: null,
        parts: [catalogueName(at), ...(overM ? [words`pole ${metres(overM)}`] : [])],
        tools: ['spanners'],
        takes: [partKey(at)],
        then: `Bolts, washers and threads tried in the bracket; cable on and its plug sealed, weight tied ${
          overM ? 'to the pole' : 'to the mount'
        }, all finger-tight; drain hole down, arrow forward.`,
        photo: 'its label and its polarisation mark',
        minutes: TAKES.build,
        needs: ['dry-run'],
      },
      {
        id: `mount:${node.id}`,
        words: kind ? `Mount the ${fixedWords(kind.id)} for ${nameOf(at)}` : `Mount what holds ${nameOf(at)}`,
        plain: kind ? `Fix the ${fixedWords(kind.id)}` : `Fix what holds ${catalogueName(at)}`,
        stand,
        at: node,
        parts: screws ? [`${fixing.screwsEach} × ${fixing.screw} for each fixing`] : [],
        tools: [...(kind ? kind.tools.split(', ') : ['level', 'spanners']), ...(drilled.length ? ['detector'] : [])],
        takes: fixing
          ? [...boughtFor(fixing).map(([key]) => key), ...(screws ? ['screw'] : []), ...(overM ? ['pole'] : [])]
          : ['use:pole'],
        then: [kind?.how ?? 'As its maker says; plumb.', kind && `Never: ${kind.never}.`].filter(Boolean).join(' '),
        figure: own ? ownHoleWords(at) : null,
        gates: [...lacking(lacks, node.id), ...heightGates(node, s), ...drilled],
        minutes: up && isBoat ? aloft(TAKES.mount) : TAKES.mount,
        hardensMin: fixing?.mount === 'adhesive clamp' ? GLUE_MIN : 0,
        dry: true,
        needs: [`build:${node.id}`, ...(drilled.length ? ['panels-out'] : [])],
      },
      {
        id: `raise:${node.id}`,
        ...worded(name => `Raise ${name(at)}`),
        stand,
        at: node,
        then: raisingWords(at, overM),
        figure: windFigure(a.tree, at, gustMs),
        gates: [...heightGates(node, s), ...(isRaised(jobOf(doc).kind, building, node) ? [raising(at)] : [])],
        minutes: up && isBoat ? aloft(TAKES.raise) : TAKES.raise,
        // In an order of its own: a row comes back with its fields in another.
        turnsOn: (fixing?.sections ?? []).map(x => [x.outsideMm, x.wallMm, x.lengthM].join('x')).join(' '),
        dry: true,
        needs: [`mount:${node.id}`, ...carried.map(d => `hang:${d.node.id}`)],
      },
    ]
  })
}

/** The second of a pair goes up with the pole of the first: one mount, one raise. */
function onPole(at: AntennaNode, pole: AntennaNode): Draft {
  const upM = at.node.upM - pole.node.upM
  const where =
    Math.abs(upM) < 0.05 ? 'beside it on a crossbar' : words`${metres(Math.abs(upM))} ${upM > 0 ? 'over' : 'under'} it`
  return {
    id: `hang:${at.node.id}`,
    ...worded(name => `Clamp ${name(at)} to the pole of ${name(pole)}`),
    stand: 'ground',
    at: null,
    parts: [catalogueName(at)],
    tools: ['spanners'],
    takes: [partKey(at)],
    then: 'Both at one mark and one bearing, one at +45°, one at −45°: turned together from here on. Cable on, its plug sealed.',
    figure: where,
    photo: 'both polarisation marks',
    minutes: TAKES.hung,
    needs: [`build:${pole.node.id}`],
  }
}

function raisingWords({ node, part }: AntennaNode, overM: number): string {
  const inSections = (node.fixing?.sections.length ?? 0) > 1
  return [
    `Cable on before it goes up${inSections ? ', top section out first' : ''};`,
    isOmni(part) ? 'upright, tightened once it was read.' : 'turned by hand to the bearing, locked only when it is aimed.',
    overM > STAYED_M ? 'A helper at each guy until all are tight.' : '',
  ]
    .filter(Boolean)
    .join(' ')
}

/** Glue bears its load after a day, minutes. @source common practice (no source); its maker's sheet wins */
const GLUE_MIN = 24 * 60
/** A pole longer than this is stayed, m. @source common practice (no source) */
const STAYED_M = 3

/** The gust a raised pole bears, and with its thinnest section left in; null where the model says nothing of it. */
function windFigure(tree: Tree, at: AntennaNode, gustMs: number): string | null {
  const stand = at.node.fixing ? standing(tree, at, at.node.fixing, gustMs) : null
  if (!stand || 'refused' in stand || stand.worst.mostGustMs === null) return null
  const shorter = stand.shorterGustMs === null ? '' : `; ${num(stand.shorterGustMs)} m/s with its top section left in`
  return `bears gusts of ${num(stand.worst.mostGustMs)} m/s${shorter}`
}

/** Boxes and what hangs inside. */
export function inner(s: CardContext): Draft[] {
  const { doc, a, building } = s
  const { tree } = a
  const hung = tree.nodes.filter(
    n =>
      !tree.donors.some(d => d.node.id === n.node.id) &&
      n.part.kind !== 'adapter' &&
      n.part.kind !== 'pad' &&
      n.part.kind !== 'line',
  )
  return hung.map((n, i): Draft => {
    const up = isUp(n.node, building)
    const box = n.part.kind === 'amplifier' || n.part.kind === 'router'
    const hole = hungHole(s, n)
    return {
      id: `hang:${n.node.id}`,
      words: hangWords(s, n, hole),
      plain: `Fix ${catalogueName(n)}${nearWords(doc, n.node, building)}`,
      stand: up ? 'up' : 'ground',
      at: n.node,
      parts: [catalogueName(n)],
      takes: [partKey(n)],
      tools: hole ? ['drill', 'detector', 'screwdriver', 'level'] : ['ties', 'level'],
      then: hangHow(n, hole),
      photo: box ? 'its place and its lamps' : null,
      gates: [...heightGates(n.node, s), ...(hole ? [holeAt(n, hole)] : [])],
      minutes: hung.slice(0, i).some(h => areBeside(h, n)) ? beside(TAKES.hung) : box ? TAKES.box : TAKES.hung,
      // What goes up has its SIM before.
      needs: ['dry-run', 'panels-out', ...(up && n.part.kind === 'router' ? [`sim:${n.node.id}`] : [])],
    }
  })
}

/** How it is put in its place. */
function hangHow({ part }: TreeNode, hole: GateNeed['hole'] | null): string {
  switch (part.kind) {
    case 'arrestor':
      return 'Outdoors, or just within where the line comes in; in series, its earth stud reachable.'
    case 'source':
      return sourceHow(part)
    case 'injector':
      return 'By its socket, off the floor, the side with power toward the box that it feeds; not switched on yet.'
    case 'amplifier':
    case 'router':
      return /plugs into/.test(part.mount ?? '')
        ? 'Its antenna socket bears no weight: the jumper tied to something fixed first, its plug pressed in last.'
        : 'Its vents free, the plug within its lead, no cable strained; screwed down before anything is plugged in.'
    default:
      return hole
        ? 'Template, level, lead through; away from metal and from the box.'
        : 'Tied to what carries it, without a hole; away from metal and from the box.'
  }
}

/** A tap waits for its fuse until everything is wired; a battery is charged before it is counted on. */
const sourceHow = (part: SourcePart): string =>
  part.takes === 'nothing'
    ? 'No fuse in it yet; beside the feed, its way marked on the legend.'
    : part.batteryWh
      ? 'By the socket, off the floor, air all round it; charged before the day on which it is tried.'
      : 'Beside its box, air over its fins; in and out as they are marked on it.'

/** The trade's own verb for what is put in its place, and where that is where its name does not say so. */
function hangWords({ doc, building }: CardContext, n: TreeNode, hole: GateNeed['hole'] | null): string {
  const name = nameOf(n)
  const where = name.includes(',') ? '' : nearWords(doc, n.node, building)
  const { mount = '' } = n.part
  if (n.part.kind === 'antenna') return `${n.part.shape === 'dome' ? 'Hang' : 'Mount'} ${name}${where}`
  if (n.part.kind === 'injector' || n.part.kind === 'source')
    return `${/plugs|stands/.test(mount) ? 'Plug in' : 'Screw down'} ${name}${where}`
  if (n.part.kind !== 'amplifier' && n.part.kind !== 'router') return `Mount ${name}${where}`
  if (/clamp/.test(mount) && n.part.outdoors) return `Clamp ${name}${where}`
  if (/plugs into/.test(mount)) return `Plug in ${name}${where}`
  if (hole) return `Screw ${name} ${movesAbout(jobOf(doc).kind) ? 'down' : 'to the wall'}${where}`
  return `Set up ${name}${where}`
}

/** Two alike so near are fixed in one go, m. @source common practice (no source) */
const BESIDE_M = 1
const areBeside = (a: TreeNode, b: TreeNode): boolean => a.part.id === b.part.id && between(a.node, b.node).distanceM < BESIDE_M

/** Small parts that are screwed to a cable hang on it, or are tied. */
const TIED: ReadonlySet<TreeNode['part']['kind']> = new Set(['splitter', 'tap'])
/** Ways of fixing that leave no hole. */
const HOLELESS = /shelf|stands|plugs into|magnet|suction|adhesive|clamp|strap|over plasterboard/

/** The hole that a part makes where it hangs; null where it needs none. */
function hungHole({ doc, a }: CardContext, n: TreeNode): GateNeed['hole'] | null {
  const { mount = '' } = n.part
  if (TIED.has(n.part.kind)) return null
  if (HOLELESS.test(mount) && (jobOf(doc).mayDrill === 'no' || !/screw|anchor/.test(mount))) return null
  const onPole = a.tree.donors.some(d => between(d.node, n.node).groundM <= BESIDE_M)
  if (onPole && n.part.outdoors) return null
  // A dome's lead goes up through the ceiling.
  return n.part.kind === 'antenna' && n.part.shape === 'dome' ? 'through' : 'screws'
}

/** Of parts alike each is told by the room it hangs in; what hangs outdoors by where it is. */
function nearWords({ spots }: JobDocument, at: Point, building: Building): string {
  if (!inside(building, at)) return at.upM > building.eavesM ? ', on the roof' : ', outside on the wall'
  const level = spots.filter(s => s.indoors && Math.abs(s.upM - at.upM) < STOREY_M)
  const near = nearestTo(at, level)
  return near ? `, ${near.name}` : ''
}
/** What hangs in a room is no further over or under a place in it, m. */
const STOREY_M = 3

/** A length bought with its plugs on, or any drum of that line. */
const cableTaken = (line: LinePart, lengthM: number, plugs: Design['plugs']): string =>
  plugs === 'crimped' || line.wire ? cableKey(line) : `${cableKey(line)}:${lengthM}`

export function cables(s: CardContext): Draft[] {
  const { doc, design, a, building, labels } = s
  const ways = [...doc.fixtures.filter(f => f.kind === 'way in').map(f => `way:${f.id}`), `way:${design.id}`]
  const order = pullingOrder(a.lengths)
  const isBoat = jobOf(doc).kind === 'boat'
  return order.map((c, i): Draft => {
    const { joint } = c
    const code = labels.get(joint.run.id) ?? ''
    const crosses = inside(building, joint.from.at.node) !== inside(building, joint.to.at.node)
    const from = pulledFrom(joint) === 'from' ? joint.from.at : joint.to.at
    const up = [joint.from, joint.to].some(e => isUp(e.at.node, building))
    return {
      id: `pull:${joint.run.id}`,
      ...worded(name => `Pull ${code}: ${name(joint.from.at)} to ${name(joint.to.at)}`),
      stand: up ? 'up' : 'ground',
      at: from.node,
      parts: [words`${lineOf(joint)?.name ?? 'cable'}, ${metres(c.lengthM)}`],
      takes: joint.line ? [cableTaken(joint.line, joint.run.lengthM, design.plugs)] : [],
      tools: ['draw line', 'tape', 'clips'],
      then: `From ${nameOf(from)}, plug taped; ${code} on both ends; ${
        crosses ? 'drip loop below the way in; ' : ''
      }ends stay free until both are done.`,
      figure: words`needs ${metres(c.neededM)} of ${metres(c.lengthM)}; bend no tighter than ${num(bendOf(lineOf(joint)))} mm`,
      gates: heightGates([joint.from.at.node, joint.to.at.node].find(p => isUp(p, building)) ?? from.node, s),
      // What lies beside it is drawn in with the same line.
      minutes: order.slice(0, i).some(o => runsBeside(o.joint, joint))
        ? beside(pulling(c.neededM, isBoat))
        : pulling(c.neededM, isBoat),
      dry: true,
      needs: [
        ...ends(joint),
        ...(crosses ? ways : []),
        // One after another, as they are pulled.
        ...(i ? [`pull:${nth(order, i - 1).joint.run.id}`] : []),
      ],
    }
  })
}
/** Both ends of one are where both ends of the other are. */
const runsBeside = (a: Joint, b: Joint): boolean =>
  between(a.from.at.node, b.from.at.node).distanceM < BESIDE_M && between(a.to.at.node, b.to.at.node).distanceM < BESIDE_M
const ends = ({ from, to }: Joint): string[] => [from, to].flatMap(e => [`raise:${e.at.node.id}`, `hang:${e.at.node.id}`])

export function earths(s: CardContext): Draft[] {
  const { doc, a, building } = s
  const paths = surgesOf({ doc, tree: a.tree, building, job: jobOf(doc) })
  const planned = paths.map((p, i): Draft => ({
    id: `earth:${p.arrestor.node.id}`,
    words: `Earth ${nameOf(p.arrestor)}`,
    plain: 'Earth the arrestor',
    stand: isUp(p.arrestor.node, building) ? 'up' : 'ground',
    at: p.arrestor.node,
    parts: [words`solid copper, ${metres(p.way.lengthM)}`, 'clamps'],
    takes: ['use:earth', 'use:clamps'],
    then: 'Short and straight, wide bends. The bond to the building’s earthing is a licensed electrician’s.',
    figure: words`${metres(p.way.lengthM)}, ${p.way.bends === 1 ? 'one bend' : `${p.way.bends} bends`}`,
    photo: 'both ends of the conductor',
    gates: heightGates(p.arrestor.node, s),
    minutes: paths.slice(0, i).some(o => areBeside(o.arrestor, p.arrestor)) ? beside(TAKES.earth) : TAKES.earth,
    needs: [`hang:${p.arrestor.node.id}`],
  }))
  return [...planned, ...surgeMissing(s)]
}

/** Arrestors and an earth that the plan demands and does not have: a step behind a gate that is shut until they are planned. */
function surgeMissing({ design, a }: CardContext): Draft[] {
  const missing = a.demands.filter(d => d.state === 'missing')
  const step = (id: string, words: string, then: string, of: readonly Demand[]): Draft[] =>
    of.length
      ? [
          {
            id,
            words,
            stand: 'ground',
            at: null,
            tools: ['spanners', 'meter'],
            then,
            gates: lacking(of, design.id),
            minutes: TAKES.earth,
            turnsOn: of.map(d => d.key).join(),
            needs: ['dry-run'],
          },
        ]
      : []
  return [
    ...step(
      `arrest:${design.id}`,
      'Arrestor: not planned yet',
      'One in series in each line from outdoors, where it comes in; the plan puts it there in Route.',
      missing.filter(d => d.kind === 'arrestor'),
    ),
    ...step(
      `earth:${design.id}`,
      'Earth: not planned yet',
      'Electrode, solid conductor and bond to the building’s earthing; a licensed electrician decides.',
      missing.filter(d => d.kind === 'earth'),
    ),
  ]
}
