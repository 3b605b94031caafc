/** Everything to be bought and packed for a design: parts over the whole tree, cables cut with least waste, consumables by rule. */
import { nth } from '../sure'
import { movesAbout } from '../job/schema'
import { isData } from '../chain/data'
import { isCable, jointM, lineOf } from '../chain/tree'
import type { Joint, Tree, TreeNode } from '../chain/tree'
import { csvLine } from '../formats/csv'
import type { LinePart, PartKind } from '../job/part'
import type { Design, Fixture, Job } from '../job/schema'
import { inside } from '../site/building'
import type { Building } from '../site/building'
import { num, capital } from '../units'
import { boughtCables } from '../fitting/cost'
import { cutFrom } from './cutting'
import { wayInById } from './ways-in'
import type { Cutting } from './cutting'

export const PICK_GROUPS = {
  parts: 'Parts',
  cable: 'Cable',
  apart: 'Not in the box',
  fixings: 'Mounts, poles, screws',
  feeds: 'Power',
  consumables: 'Consumables',
  own: 'By hand',
} as const
export type PickGroup = keyof typeof PICK_GROUPS

export interface PickRow {
  group: PickGroup
  /** the same in every job: what a price book knows it by */
  key: string
  name: string
  quantity: number
  /** pieces where empty */
  unit: '' | 'm' | 'roll' | 'tube' | 'bag'
  /** where it goes, or by what rule it was counted */
  note: string
}

export interface PickList {
  rows: PickRow[]
  cuttings: { line: string; cutting: Cutting }[]
  /** metres that run, and metres that are bought */
  runM: number
  boughtM: number
}

export interface PickInput {
  job: Pick<Job, 'kind' | 'mayDrill'>
  design: Pick<Design, 'plugs' | 'name'>
  tree: Tree
  building: Building
  /** cables through the shell */
  holes: number
  /** by which way they come in; null while none is chosen */
  entry?: Fixture['entry']
}

/** @returns rows by group, each part once however often it stands in the tree */
export function pickList(p: PickInput): PickList {
  const cable = cables(p)
  const rows: PickRow[] = [...parts(p.tree), ...cable.rows, ...fromCatalogue(p.tree), ...consumables(p)]
  return { rows, cuttings: cable.cuttings, runM: cable.runM, boughtM: cable.boughtM }
}

const ORDER: readonly PartKind[] = [
  'antenna',
  'amplifier',
  'router',
  'splitter',
  'tap',
  'arrestor',
  'pad',
  'adapter',
  'injector',
  'source',
  'service',
  'line',
]

function parts(tree: Tree): PickRow[] {
  const byName = new Map<string, { at: TreeNode; names: string[] }>()
  for (const at of tree.nodes) {
    const held = byName.get(at.part.name) ?? { at, names: [] }
    held.names.push(at.name)
    byName.set(at.part.name, held)
  }
  return [...byName.values()]
    .sort((a, b) => ORDER.indexOf(a.at.part.kind) - ORDER.indexOf(b.at.part.kind) || a.at.part.name.localeCompare(b.at.part.name))
    .map(({ at, names }) => ({
      group: 'parts',
      key: `part:${at.part.id}`,
      name: at.part.name,
      quantity: names.length,
      unit: '',
      note: partNote(at, names),
    }))
}

/** More names than these tell nobody where a part goes. */
const MOST_NAMES = 4

function partNote({ part }: TreeNode, names: readonly string[]): string {
  const says = [
    part.kind !== 'adapter' && names.length <= MOST_NAMES ? names.join('; ') : '',
    part.mount ? `fixed by ${part.mount}` : '',
    part.clampMm ? `pole ${num(nth(part.clampMm, 0))}–${num(nth(part.clampMm, 1))} mm` : '',
    part.massKg ? `${num(part.massKg, 1)} kg` : '',
    part.inBox?.length ? `in the box: ${part.inBox.join(', ')}` : '',
  ]
  return says.filter(Boolean).join('; ')
}

/** Lines by kind: bought in stock lengths with plugs on, or cut from drums and crimped. */
function cables({ tree, design }: PickInput): { rows: PickRow[]; cuttings: PickList['cuttings']; runM: number; boughtM: number } {
  const byLine = new Map<string, { line: LinePart; joints: Joint[] }>()
  for (const joint of boughtCables(tree)) {
    if (!joint.line) continue
    const held = byLine.get(joint.line.name) ?? { line: joint.line, joints: [] }
    held.joints.push(joint)
    byLine.set(joint.line.name, held)
  }
  const rows: PickRow[] = []
  const cuttings: PickList['cuttings'] = []
  let runM = 0
  let boughtM = 0
  for (const { line, joints } of byLine.values()) {
    const lengths = joints.map(j => j.run.lengthM)
    // Wire has no plugs: it is cut from what is carried.
    if (line.wire) {
      const metres = Math.ceil(lengths.reduce((a, b) => a + b, 0))
      rows.push({ group: 'feeds', key: cableKey(line), name: line.name, quantity: metres, unit: 'm', note: namesAt(joints) })
      continue
    }
    runM += lengths.reduce((a, b) => a + b, 0)
    const drums = line.drumM ?? []
    const fits = lengths.every(l => l > 0 && l <= (drums.at(-1) ?? 0))
    if (design.plugs === 'crimped' && fits) {
      const cutting = cutFrom(lengths, drums)
      cuttings.push({ line: line.name, cutting })
      boughtM += cutting.boughtM
      for (const [lengthM, n] of counted(cutting.drums.map(d => d.lengthM)))
        rows.push({
          group: 'cable',
          key: `${cableKey(line)}:drum ${lengthM}`,
          name: `${line.name}, drum of ${num(lengthM)} m`,
          quantity: n,
          unit: '',
          note: `cut ${cutting.drums
            .filter(d => d.lengthM === lengthM)
            .map(d => d.piecesM.map(m => num(m, 1)).join(' + '))
            .join('; ')} m`,
        })
      const plugs = 2 * joints.length
      rows.push({
        group: 'cable',
        key: `${cableKey(line)}:plugs`,
        name: `${line.ends} plugs to crimp on ${line.name}`,
        quantity: plugs + Math.ceil(plugs * SPARE_PLUGS),
        unit: '',
        note: 'two a cable and one in ten to spare; crimp tool and stripper of its size',
      })
      continue
    }
    for (const [lengthM, n] of counted(lengths)) {
      boughtM += lengthM * n
      const stock = line.stockM.some(s => Math.abs(s - lengthM) < 0.01)
      rows.push({
        group: 'cable',
        key: `${cableKey(line)}:${lengthM}`,
        name: `${line.name}, ${num(lengthM, 1)} m with ${line.ends} plugs`,
        quantity: n,
        unit: '',
        note: stock ? 'a stock length' : 'no stock length: made up to order, or crimped on site',
      })
    }
  }
  return { rows, cuttings, runM, boughtM }
}

/** What a lead feeds. */
const namesAt = (joints: readonly Joint[]): string =>
  `feeds ${joints.map(j => (j.to.port.role === 'power' ? j.ends.to : j.ends.from).at.name).join('; ')}`

const SPARE_PLUGS = 0.1
/** What every length of a line is known by. */
export const cableKey = (line: Pick<LinePart, 'id'>): string => `cable:${line.id}`

function counted(values: readonly number[]): [number, number][] {
  const out = new Map<number, number>()
  for (const v of [...values].sort((a, b) => a - b)) out.set(v, (out.get(v) ?? 0) + 1)
  return [...out]
}

/** What its maker leaves out of a part's box, but for what the tree holds already. */
function fromCatalogue(tree: Tree): PickRow[] {
  const PLANNED = tree.joints.some(isData)
    ? /cable|arrestor|antenna|splitter|tap|Ethernet|injector/
    : /cable|arrestor|antenna|splitter|tap/
  const out = new Map<string, { count: number; of: Set<string> }>()
  for (const { part } of tree.nodes)
    for (const name of part.apart ?? []) {
      if (PLANNED.test(name)) continue
      const held = out.get(name) ?? { count: 0, of: new Set<string>() }
      held.count++
      held.of.add(part.name)
      out.set(name, held)
    }
  return [...out].map(([name, { count, of }]) => ({
    group: 'apart',
    key: `apart:${name}`,
    name: capital(name),
    quantity: count,
    unit: '',
    note: `not in the box of: ${[...of].join(', ')}`,
  }))
}

/** Rules of thumb for what runs out. @source common practice (no source) */
const CLIP_EVERY_M = 0.4
const OUTDOOR_JOINTS_A_ROLL = 4
const HOLES_A_TUBE = 6
const EARTH_SPARE_M = 2
const TIES_A_BAG = 100
const TIE_EVERY_M = 0.3

const GLANDS: Record<Job['kind'], string> = {
  home: 'Wall bushings with a cover',
  building: 'Wall bushings with a cover',
  vehicle: 'Grommets and roof glands',
  boat: 'Deck glands',
}

function consumables({ job, tree, building, holes, entry = null }: PickInput): PickRow[] {
  const ashore = !movesAbout(job.kind)
  const outside = (n: TreeNode) => !inside(building, n.node)
  const cabled = tree.joints.filter(isCable)
  const metres = cabled.reduce((sum, j) => sum + jointM(j), 0)
  const wetJoints = tree.joints.reduce((n, j) => n + Number(outside(j.from.at)) + Number(outside(j.to.at)), 0)
  const arrestors = tree.nodes.filter(n => n.part.kind === 'arrestor')
  const highest = Math.max(0, ...arrestors.map(n => n.node.upM))
  const openOut = tree.open.filter(o => ['out', 'tap', 'through', 'server'].includes(o.port.role)).length
  const boxes = tree.nodes.filter(n => n.part.supply === 'mains').length
  const masts = tree.donors.filter(d => outside(d))
  const screws = tree.nodes.filter(n => n.part.mount?.includes('screws') || n.part.mount?.includes('anchors')).length
  const all: (PickRow | false)[] = [
    wetJoints > 0 && {
      group: 'consumables',
      key: 'use:tape',
      name: 'Self-amalgamating tape',
      quantity: Math.ceil(wetJoints / OUTDOOR_JOINTS_A_ROLL),
      unit: 'roll',
      note: `${wetJoints} joints outdoors, ${OUTDOOR_JOINTS_A_ROLL} a roll`,
    },
    metres > 0 && {
      group: 'consumables',
      key: 'use:clips',
      name: ashore ? 'Cable clips' : 'Adhesive clips and split loom',
      quantity: Math.ceil(metres / CLIP_EVERY_M),
      unit: '',
      note: `each ${num(CLIP_EVERY_M, 1)} m`,
    },
    masts.length > 0 && {
      group: 'consumables',
      key: 'use:ties',
      name: 'Cable ties, outdoor',
      quantity: Math.ceil((masts.reduce((m, d) => m + d.node.upM, 0) / TIE_EVERY_M + 10) / TIES_A_BAG),
      unit: 'bag',
      note: `each ${num(TIE_EVERY_M, 1)} m up the mast, ${TIES_A_BAG} a bag`,
    },
    // A gland that is there takes an insert; a window, a duct or an old hole takes neither.
    holes > 0 &&
      entry === 'port' && {
        group: 'consumables',
        key: 'use:inserts',
        name: 'Inserts for the gland that is there',
        quantity: holes,
        unit: '',
        note: 'one a cable, by its jacket',
      },
    holes > 0 &&
      (entry === null || wayInById(entry).drills) && {
        group: 'consumables',
        key: 'use:glands',
        name: GLANDS[job.kind],
        quantity: holes,
        unit: '',
        note: 'one a cable through the shell; sized by the plug, sealed by the jacket',
      },
    holes > 0 && {
      group: 'consumables',
      key: 'use:sealant',
      name: job.kind === 'boat' ? 'Butyl sealant, marine' : 'Sealant, outdoor',
      quantity: Math.ceil(holes / HOLES_A_TUBE),
      unit: 'tube',
      note: `${HOLES_A_TUBE} holes a tube; or the part’s own gasket, not both`,
    },
    cabled.length > 0 && {
      group: 'consumables',
      key: 'use:labels',
      name: 'Labels for cables',
      quantity: 2 * cabled.length,
      unit: '',
      note: 'one at each end',
    },
    openOut > 0 && {
      group: 'consumables',
      key: 'use:terminators',
      name: 'Terminators',
      quantity: openOut,
      unit: '',
      note: 'one for each output left open',
    },
    arrestors.length > 0 && {
      group: 'consumables',
      key: 'use:earth',
      name: 'Earth conductor',
      quantity: Math.ceil(highest + EARTH_SPARE_M),
      unit: 'm',
      note: 'solid copper, 10 AWG or 16 mm² by local code, short and straight to the building’s earth',
    },
    arrestors.length > 0 && {
      group: 'consumables',
      key: 'use:clamps',
      name: 'Earth clamps',
      quantity: arrestors.length + 1,
      unit: '',
      note: 'one an arrestor, one at the electrode',
    },
    ashore &&
      masts.length > 0 && {
        group: 'consumables',
        key: 'use:pole',
        name: 'Pole or bracket for the outside antenna',
        quantity: masts.length,
        unit: '',
        note: `takes ${clampWords(masts)}; galvanised, plumb`,
      },
    screws > 0 && {
      group: 'consumables',
      key: 'use:screws',
      name: ashore ? 'Screws with washers and anchors' : 'Screws with washers, stainless',
      quantity: screws * 4,
      unit: '',
      note: 'stainless on stainless; by the mass of the part and what it is screwed into',
    },
    boxes > 0 &&
      ashore &&
      !tree.nodes.some(n => n.part.apart?.includes('surge protector')) && {
        group: 'consumables',
        key: 'use:surge',
        name: 'Mains surge protector',
        quantity: boxes,
        unit: '',
        note: '1,000 J or more; often a condition of the warranty',
      },
  ]
  return all.filter((r): r is PickRow => r !== false)
}

function clampWords(masts: readonly TreeNode[]): string {
  const low = Math.max(...masts.map(m => m.part.clampMm?.[0] ?? 0))
  const high = Math.min(...masts.map(m => m.part.clampMm?.[1] ?? 999))
  return low && high < 999 ? `a clamp of ${num(low)}–${num(high)} mm` : 'the antenna’s own clamp'
}

/** @returns the list as a table, its heading first */
export const pickListCsv = (list: PickList): string =>
  csvLine(['group', 'part', 'quantity', 'unit', 'note']) +
  list.rows.map(r => csvLine([r.group, r.name, r.quantity, r.unit, r.note])).join('')

export interface CableLabel {
  runId: string
  /** `A3`: the design, and the cable's number along the signal */
  code: string
  end: 'first' | 'second'
  from: string
  to: string
  line: string
  lengthM: number
}

/** @returns two labels for every cable, in the order of the signal */
export function cableLabels(tree: Tree, designName: string): CableLabel[] {
  const seen = new Set<string>()
  const ordered = [...tree.visits.flatMap(v => (v.joint ? [v.joint] : [])), ...tree.joints].filter(j => {
    if (!isCable(j) || seen.has(j.run.id)) return false
    seen.add(j.run.id)
    return true
  })
  return ordered.flatMap((j, i) =>
    (['first', 'second'] as const).map(end => ({
      runId: j.run.id,
      code: `${designName}${i + 1}`,
      end,
      from: endWords(j.ends.from),
      to: endWords(j.ends.to),
      line: lineOf(j)?.name ?? 'cable',
      lengthM: jointM(j),
    })),
  )
}

const endWords = ({ at, port }: Joint['from']): string => {
  const several = at.part.kind !== 'line' && at.part.ports.length > 1
  return several ? `${at.name}, port ${port.id}` : at.name
}

export const labelsCsv = (labels: readonly CableLabel[]): string =>
  csvLine(['label', 'end', 'from', 'to', 'line', 'length m']) +
  labels.map(l => csvLine([l.code, l.end, l.from, l.to, l.line, l.lengthM])).join('')
