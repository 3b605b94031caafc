/**
 * What a plan demands of its site, and whether that is known: one list, from the tree and the site. Findings, what stands before
 * a hole, the card's gates, the list, the drawings and the words of each act are made from it. What is missing is open.
 */
import { nth, sure } from '../sure'
import { dataWayOf, isData, isSupply } from '../chain/data'
import { supplyWayOf } from '../chain/supply'
import { wayTo } from '../chain/tree'
import type { AntennaNode, Joint, TreeNode } from '../chain/tree'
import { LINE_CLEAR_M, mountKind, poleOf } from '../install/mounts'
import { isRaised, raisedM } from '../install/raising'
import { entering } from '../install/passage'
import type { Passage, Passer } from '../install/passage'
import { arrestorFits, needsEarth } from '../install/surge'
import { wayInById } from '../install/ways-in'
import { isInverter } from '../job/part'
import { movesAbout } from '../job/schema'
import type { Fixture, JobDocument, Spot } from '../job/schema'
import { standing } from '../job/changes'
import { inside } from '../site/building'
import type { Building } from '../site/building'
import { between } from '../site/frame'
import { num } from '../units'
import { RULE_PACKS } from './cautions'
import type { Context, Laid } from './context'
import { sourcesOf } from './feeds'
import { allPassers, crossersOf, drilledOf, passagesOf } from './passages'
import { serviceAntennas } from './services'
import { lastCheck } from './ticks'

export const DEMANDS = [
  'mount',
  'way in',
  'arrestor',
  'earth',
  'feed',
  'lines',
  'consent',
  'registration',
  'seal',
  'room',
] as const
export type DemandKind = (typeof DEMANDS)[number]

export interface Demand {
  /** `kind:subjectId` */
  key: string
  kind: DemandKind
  /** the row it is of: a part, a cable, the plan, a room */
  subjectId: string
  /** `met` is noted and right; `assumed` is planned and not yet known; `missing` is neither */
  state: 'met' | 'assumed' | 'missing'
  /** what it is of */
  of: string
  /** what is wanted, as a question that a person can answer */
  asks: string
  /** by what it is met, or what is still assumed */
  by: string | null
}

/** What of a plan the demands are made from. */
export type DemandGround = Pick<Context, 'doc' | 'job' | 'design' | 'tree' | 'building' | 'lengths'>

const isPlanned = (c: DemandGround): c is Laid<DemandGround> => !!c.tree?.nodes.length && !!c.design

/** @returns every demand of the plan; none where nothing is laid out */
export function demandsOf(c: DemandGround): Demand[] {
  if (!isPlanned(c)) return []
  const crossers = crossersOf(c)
  const passages = passagesOf(c)
  const entries = waysIn(passages, crossers)
  return [
    ...mounts(c),
    ...entries,
    ...arrestors(c),
    ...earth(c),
    ...feeds(c),
    ...lines(c),
    ...consents(c, passages, entries),
    ...seals(c, crossers, entries),
    ...roomTests(c.doc),
  ]
}

type Said = Omit<Demand, 'key'>
const demand = (d: Said): Demand => ({ ...d, key: `${d.kind}:${d.subjectId}` })

/** What hangs outside or stands there: antennas and boxes. */
export const outdoors = ({ tree, building }: Pick<Laid<DemandGround>, 'tree' | 'building'>): TreeNode[] => [
  ...new Map(
    [...tree.donors, ...serviceAntennas(tree.nodes), ...tree.amplifiers, ...tree.routers]
      .filter(n => !inside(building, n.node))
      .map((n): [string, TreeNode] => [n.node.id, n]),
  ).values(),
]

function mounts(c: Laid<DemandGround>): Demand[] {
  return outdoors(c)
    .filter(n => !hangsOnAnother(n, c.tree.donors))
    .map(n => {
      const { fixing } = n.node
      const base = { kind: 'mount', subjectId: n.node.id, of: n.name, asks: `What holds ${n.name}?` } as const
      const pole = poleOf(c.tree, n)
      if (pole) return demand({ ...base, state: 'met', by: `the pole of ${pole.name}` })
      if (!fixing) return demand({ ...base, state: 'missing', by: null })
      const isUnknownPole = mountKind(fixing.mount).pole && !fixing.sections.length
      return demand({
        ...base,
        state: isUnknownPole ? 'assumed' : 'met',
        by: isUnknownPole ? `a ${fixing.mount}; its pole is not noted` : `a ${fixing.mount}`,
      })
    })
}

/** A box on the pole of an antenna is held by that pole. */
const ON_POLE_M = 0.8
const hangsOnAnother = (n: TreeNode, donors: readonly AntennaNode[]): boolean =>
  n.part.kind !== 'antenna' && n.part.kind !== 'service' && donors.some(d => between(d.node, n.node).groundM <= ON_POLE_M)

function waysIn(passages: readonly Passage[], crossers: readonly Passer[]): Demand[] {
  const ways = passages.filter(p => p.at.kind === 'way in')
  return crossers.map(p => {
    const by = ways.find(w => w.cables.some(x => x.id === p.id))?.at ?? null
    const known = by?.entry && by.entry !== 'flue' ? wayInById(by.entry) : null
    return demand({
      kind: 'way in',
      subjectId: p.id,
      of: p.name,
      asks: `Where does it come in: ${p.name}?`,
      state: known ? 'met' : by && by.entry === null ? 'assumed' : 'missing',
      by: known ? by!.name || known.words : by && by.entry === null ? 'a place on the picture, its kind not noted' : null,
    })
  })
}

/** A surge comes in by every line from outdoors: each coax and each data line has its own arrestor. */
function arrestors(c: Laid<DemandGround>): Demand[] {
  if (movesAbout(c.job.kind)) return []
  const { tree, building } = c
  // What comes in by a flat lead under a window brings a surge in like any other.
  return entering(allPassers(c), building).flatMap(p => {
    const outer = inside(building, p.from) ? p.to : p.from
    const top = topOf(c, p) ?? outer
    if (!needsEarth(c.job.rules, building, top)) return []
    const base = {
      kind: 'arrestor',
      subjectId: p.id,
      of: p.name,
      asks: `An arrestor in it, where it comes in: ${p.name}?`,
    } as const
    if (!p.joint || isSupply(p.joint)) {
      const box = p.joint ? outerEnd(building, p.joint) : sure(tree.nodes.find(n => n.node.id === p.id))
      const has = box.node.feed?.arrested ?? false
      return [demand({ ...base, state: has ? 'met' : 'missing', by: has ? 'noted at its feed' : null })]
    }
    const held = arrestorOn(c, p)
    if (!held) return [demand({ ...base, state: 'missing', by: null })]
    const fits = arrestorFits(building, held.node)
    return [demand({ ...base, state: fits ? 'met' : 'missing', by: fits ? held.name : DEEP })]
  })
}

/** Of a lead that feeds what hangs outdoors: that box. */
const outerEnd = (b: Building, { from, to }: Joint): TreeNode => (inside(b, from.at.node) ? to.at : from.at)

/** An arrestor is there and hangs too deep inside: that is a finding of its own. */
export const DEEP = 'one hangs too deep inside'

/** The antenna at the outer end of a cable that comes in. */
function topOf({ tree }: Laid<DemandGround>, { joint }: Passer) {
  const at = tree.visits.find(v => v.joint && v.joint.run.id === joint?.run.id)
  return at?.donor.node ?? null
}

/** Of a data cable: at either of its ends, or behind what hands it on. */
const arrestorOnData = (tree: Laid<DemandGround>['tree'], joint: Joint): TreeNode | null =>
  [joint.from.at, joint.to.at, ...[joint.from.at, joint.to.at].flatMap(n => dataWayOf(tree, n)?.parts ?? [])].find(
    n => n.part.kind === 'arrestor',
  ) ?? null

/** The arrestor in the line of a cable that comes in: before it, at either of its ends, or the next thing after it. */
function arrestorOn({ tree }: Laid<DemandGround>, { joint }: Passer): TreeNode | null {
  if (joint && isData(joint)) return arrestorOnData(tree, joint)
  const ends = [joint!.from.at, joint!.to.at]
  const beside = tree.joints
    .filter(
      j => j !== joint && [j.from, j.to].some(e => ends.some(x => x.node.id === e.at.node.id && x.part.kind !== 'amplifier')),
    )
    .flatMap(j => [j.from.at, j.to.at])
  const before = tree.visits.flatMap((v, i) =>
    v.joint?.run.id === joint!.run.id
      ? wayTo(tree, i)
          .map(w => w.at)
          .reverse()
      : [],
  )
  return (
    [...ends, ...before, ...beside.filter(n => n.part.kind !== 'amplifier' && n.part.kind !== 'router')].find(
      n => n.part.kind === 'arrestor',
    ) ?? null
  )
}

function earth(c: Laid<DemandGround>): Demand[] {
  if (movesAbout(c.job.kind)) return []
  const wanting = outdoors(c).filter(n => needsEarth(c.job.rules, c.building, n.node))
  if (!wanting.length) return []
  const electrodes = c.doc.fixtures.filter(f => f.kind === 'electrode')
  const base = {
    kind: 'earth',
    subjectId: c.design.id,
    of: wanting.length === 1 ? nth(wanting, 0).name : 'what stands outside',
    asks: 'Where is it earthed: electrode, conductor, bond?',
  } as const
  const best = electrodes.map(e => ({ e, lacks: earthLacks(e) })).sort((a, b) => a.lacks.length - b.lacks.length)[0]
  if (!best) return [demand({ ...base, state: 'missing', by: null })]
  return [
    demand({
      ...base,
      state: best.lacks.length ? 'assumed' : 'met',
      by: best.lacks.length ? `${best.e.electrode ?? 'an electrode'}; not noted: ${best.lacks.join(', ')}` : best.e.electrode!,
    }),
  ]
}

/**
 * @param moves  a vehicle or boat bonds by its own rules: its bond alone is asked for
 * @returns what of an earth is not known, or is wrong: then it is no earth yet
 */
export function earthLacks(e: Pick<Fixture, 'electrode' | 'bonded' | 'conductor'>, moves = false): string[] {
  if (moves) return e.bonded === 'yes' ? [] : ['bond']
  const out: string[] = []
  if (!e.electrode || e.electrode === 'gas pipe') out.push('electrode')
  if (e.conductor !== 'solid') out.push('conductor')
  if (e.electrode !== 'house earthing' && e.bonded !== 'yes') out.push('bond')
  return out
}

function feeds(c: Laid<DemandGround>): Demand[] {
  return [...c.tree.amplifiers, ...c.tree.routers].map(at => {
    const { node, part, name } = at
    const onInverter = supplyWayOf(c.tree, dataWayOf(c.tree, at)?.injector ?? at)?.parts.some(p => isInverter(p.part))
    const supply = onInverter ? '12 V' : part.supply
    const noted = sourcesOf(c.doc, supply)
    const word = supply === '12 V' ? '12 V feed' : 'socket'
    return demand({
      kind: 'feed',
      subjectId: node.id,
      of: name,
      asks: `Which ${word} feeds ${name}?`,
      state: noted.length ? 'met' : 'missing',
      by: noted.length ? nth(noted, 0).name || word : null,
    })
  })
}

/** How far an overhead line must be from what is raised, m. */
export const clearOfLinesM = ({ node }: Pick<TreeNode, 'node'>): number => raisedM(node) + LINE_CLEAR_M

/** The figure of a raise, as it was last said. */
export const linesKey = (nodeId: string): string => `lines:${nodeId}`

function lines(c: Laid<DemandGround>): Demand[] {
  return (
    c.tree.donors
      // What hangs on another's pole goes up with it.
      .filter(d => isRaised(c.job.kind, c.building, d.node) && !poleOf(c.tree, d))
      .map(d => {
        const said = lastCheck(c.doc, 'fact', linesKey(d.node.id))
        const value = said?.done ? (said.value ?? null) : null
        const least = clearOfLinesM(d)
        return demand({
          kind: 'lines',
          subjectId: d.node.id,
          of: d.name,
          asks: `How far is the nearest overhead line from where ${d.name} is raised?`,
          state: value !== null && value >= least ? 'met' : 'missing',
          by: value === null ? null : `${num(value, 1)} m, ${num(least, 1)} m are kept`,
        })
      })
  )
}

function consents(c: Laid<DemandGround>, passages: readonly Passage[], entries: readonly Demand[]): Demand[] {
  const open = entries.some(d => d.state === 'missing') ? ['a way in that is not chosen'] : []
  const holes = [...drilledOf(passages).map(p => p.at.name || 'the way in'), ...open]
  const out: Demand[] = []
  if (holes.length)
    out.push(
      demand({
        kind: 'consent',
        subjectId: c.job.id,
        of: holes.join(', '),
        asks: 'May we drill? Ask whoever owns it, in writing.',
        state: c.job.mayDrill === 'yes' ? 'met' : 'missing',
        by: c.job.mayDrill === 'yes' ? 'agreed in Ask' : c.job.mayDrill === 'no' ? 'no, in Ask' : null,
      }),
    )
  if (c.tree.amplifiers.length) {
    const said = [lastCheck(c.doc, 'step', 'register'), lastCheck(c.doc, 'fact', 'registered')].find(s => s?.done)
    out.push(
      demand({
        kind: 'registration',
        subjectId: c.job.id,
        of: c.tree.amplifiers.map(a => a.name).join(', '),
        asks: RULE_PACKS[c.job.rules].booster,
        state: said?.done ? 'met' : 'assumed',
        by: said?.done ? `said by ${said.by ?? 'somebody'}` : 'to be done before it transmits',
      }),
    )
  }
  return out
}

/** Every way in is sealed: planned once the way is known, met once the step is done. */
function seals(c: Laid<DemandGround>, crossers: readonly Passer[], entries: readonly Demand[]): Demand[] {
  if (!crossers.length) return []
  const done = lastCheck(c.doc, 'step', 'seal')?.done ?? false
  const known = entries.every(d => d.state !== 'missing')
  return [
    demand({
      kind: 'seal',
      subjectId: c.design.id,
      of: crossers.length === 1 ? nth(crossers, 0).name : `${crossers.length} cables`,
      asks: 'How is the way in sealed?',
      state: done ? 'met' : known ? 'assumed' : 'missing',
      by: done ? 'done on the card' : known ? 'gland and sealant on the list' : null,
    }),
  ]
}

/** @returns the rooms that must be proved, with whether each was tested as it is to stay */
export function roomTests(doc: JobDocument): Demand[] {
  const after = new Set(doc.setups.filter(s => s.mark === 'after').map(s => s.id))
  const rows = [...standing(doc.speedRuns), ...standing(doc.calls)].filter(r => r.setupId && after.has(r.setupId))
  return doc.spots
    .filter(s => s.needed)
    .map((s: Spot) => {
      const tests = rows.filter(r => r.spotId === s.id).length
      return demand({
        kind: 'room',
        subjectId: s.id,
        of: s.name,
        asks: `Test it in ${s.name}, as it is to stay.`,
        state: tests ? 'met' : 'missing',
        by: tests ? `${tests} ${tests === 1 ? 'test' : 'tests'}` : null,
      })
    })
}
