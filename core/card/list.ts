/** Everything a job wants, from antennas to washers: counted, where it is, when it comes, what it costs. */
import { jobOf } from '../job/schema'
import { allModems } from '../chain/modems'
import type { Tree } from '../chain/tree'
import { adaptersIn } from '../connect/identity'
import { boughtFor, isScrewed } from '../install/mounts'
import { PICK_GROUPS, pickList } from '../install/pick-list'
import type { PickRow } from '../install/pick-list'
import { csvLine } from '../formats/csv'
import type { JobDocument, Supply } from '../job/schema'
import { feedsOf } from '../judge/feeds'
import { holesOf } from '../judge/place'
import { buildingOf, inside } from '../site/building'
import type { Building } from '../site/building'
import { num, capital } from '../units'
import { amountWords, costOf } from './money'

/** What a thing costs the crew, entered once for all jobs. */
export interface Price {
  key: string
  /** of one, in the smallest unit of the crew's currency; null where it was not entered */
  minor: number | null
  supplier: string | null
  /** from order to door, days */
  leadDays: number | null
  /** how many ride in the van */
  inVan: number
}

export interface ListLine extends PickRow {
  /** its own row, where somebody has said where it is */
  supply: Supply | null
  state: Supply['state']
  /** still to be had, once the van has given what it holds */
  wanted: number
  supplier: string | null
  dueOn: string | null
  eachMinor: number | null
  /** added by hand */
  own: boolean
}

/** @returns the rows that this plan alone makes, keys as the price book has them */
export function plannedRows(doc: JobDocument, tree: Tree | null): PickRow[] {
  if (!tree?.nodes.length) return []
  const building = buildingOf(doc)
  const job = jobOf(doc)
  const holes = holesOf({ tree, building }).length
  const entry = doc.fixtures.find(f => f.id === tree.design.wayInId)?.entry ?? null
  const { rows } = pickList({ job, design: tree.design, tree, building, holes, entry })
  const said = fixings(tree, building)
  // What a mount says of its pole and screws is better than a rule for mounts of which nobody said anything.
  const rules = rows.filter(r => !(said.poles && r.key === 'use:pole') && !(said.screws && r.key === 'use:screws'))
  const groups = Object.keys(PICK_GROUPS)
  return merged([...rules, ...said.rows, ...feeds(doc, tree, building), ...fillings(doc, tree), ...cardAdapters(doc, tree)]).sort(
    (x, y) => groups.indexOf(x.group) - groups.indexOf(y.group),
  )
}

/** A card that is smaller than its slot goes in with an adapter, never without. */
const cardAdapters = (doc: JobDocument, tree: Tree): PickRow[] =>
  adaptersIn(allModems(doc, tree)).map(({ sim, slot, at, words }) => ({
    group: 'apart',
    key: `use:card:${sim.size}-${at.part.simSize}`,
    name: `Adapter, ${words}`,
    quantity: 1,
    unit: '',
    note: `${sim.name}, slot ${slot} of ${at.name}`,
  }))

function fixings(tree: Tree, b: Building): { rows: PickRow[]; poles: boolean; screws: boolean } {
  const rows: PickRow[] = []
  const fixed = tree.nodes.filter(n => n.node.fixing)
  for (const { node, name: held } of fixed) {
    const f = node.fixing!
    const note = `holds ${held}`
    for (const [key, name, quantity] of boughtFor(f)) rows.push({ group: 'fixings', key, name, quantity, unit: '', note })
    if (f.metal === 'stainless' && (f.plate === 'stainless' || f.plate === 'aluminium'))
      rows.push({
        group: 'fixings',
        key: 'use:grease',
        name: 'Grease for stainless threads',
        quantity: 1,
        unit: 'tube',
        note: `else they seize; ${note}`,
      })
    for (const s of f.sections)
      rows.push({
        group: 'fixings',
        key: `pole:${f.grade ?? 'any'}:${s.outsideMm}x${s.wallMm}:${s.lengthM}`,
        name: `Pole ${num(s.outsideMm)} × ${num(s.wallMm, 1)} mm, ${num(s.lengthM, 1)} m${f.grade ? `, ${f.grade}` : ''}`,
        quantity: 1,
        unit: '',
        note,
      })
    if (isScrewed(f.mount) && f.screw && f.screwsEach)
      rows.push({
        group: 'fixings',
        key: `screw:${f.screw}:${f.screwMm ?? 'any'}:${f.metal ?? 'any'}`,
        name: `${capital(f.screw)}${f.screwMm ? ` ${num(f.screwMm)} mm` : ''}${f.metal ? `, ${f.metal}` : ''}, with washer`,
        quantity: FIXINGS_A_MOUNT * f.screwsEach,
        unit: '',
        note: `${f.screwsEach} at each of ${FIXINGS_A_MOUNT} fixings; ${note}`,
      })
    if (f.ballastKg)
      rows.push({
        group: 'fixings',
        key: 'use:ballast',
        name: 'Ballast slabs',
        quantity: Math.ceil(f.ballastKg / SLAB_KG),
        unit: '',
        note: `${num(f.ballastKg)} kg in slabs of ${SLAB_KG} kg, mat below`,
      })
  }
  const masts = tree.donors.filter(d => !inside(b, d.node))
  return {
    rows,
    poles: masts.length > 0 && masts.every(m => m.node.fixing),
    screws: fixed.some(n => n.node.fixing!.screwsEach),
  }
}
/** A pole is held at two heights. @source common practice (no source) */
const FIXINGS_A_MOUNT = 2
/** A paving slab of 40 cm. @source common practice (no source) */
const SLAB_KG = 16

/** What closes a core before a hole goes through it. */
const fillings = ({ fixtures }: JobDocument, { design }: Tree): PickRow[] =>
  fixtures
    .filter(f => f.id === design.wayInId && (f.entry === 'deck' || f.behindFound === 'deck core'))
    .map(f => ({
      group: 'consumables',
      key: 'use:epoxy',
      name: 'Epoxy and filler, a small pack',
      quantity: 1,
      unit: '',
      note: `closes the core at ${f.name || 'the way in'}`,
    }))

/** Wire there and back, its fuse, lugs; an injector where its box wants one. */
function feeds(doc: JobDocument, tree: Tree, b: Building): PickRow[] {
  return feedsOf(doc, tree, jobOf(doc).kind, b).flatMap((f): PickRow[] => {
    const note = `feeds ${f.at.name}`
    if (!f.wire || f.lengthM === null) return []
    const { id, words } = f.wire
    // The cable of a planned lead is counted with the cables; of another both wires are, there and back.
    const metres = f.planned?.begins ? 0 : Math.ceil(2 * f.lengthM)
    const rows: PickRow[] = [
      ...(metres
        ? [
            {
              group: 'feeds' as const,
              key: `wire:${id}`,
              name: `Wire ${words}`,
              quantity: metres,
              unit: 'm' as const,
              note: `there and back; ${note}`,
            },
          ]
        : []),
      { group: 'feeds', key: `lug:${id}`, name: `Lugs for ${words}`, quantity: LUGS, unit: '', note },
    ]
    if (f.fuseA !== null) {
      const amps = num(f.fuseA, f.fuseA % 1 ? 1 : 0)
      const key = `fuse:${amps}`
      rows.push({
        group: 'feeds',
        key,
        name: f.planned?.begins ? `Fuse ${amps} A` : `Fuse ${amps} A with its holder`,
        quantity: 1,
        unit: '',
        note: `at the source; ${note}`,
      })
    }
    return rows
  })
}
const LUGS = 4

/** Rows of one key are one line: that a thing is wanted twice is no second thing. */
function merged(rows: readonly PickRow[]): PickRow[] {
  const out = new Map<string, PickRow>()
  for (const r of rows) {
    const held = out.get(r.key)
    const note = held && held.note !== r.note ? `${held.note}; ${r.note}` : r.note
    out.set(r.key, held ? { ...held, quantity: held.quantity + r.quantity, note } : r)
  }
  return [...out.values()]
}

/** Two people may have begun a row of one line apart from each other: the one begun last counts. */
export function supplyFor(doc: Pick<JobDocument, 'supplies'>, key: string): Supply | null {
  return doc.supplies.reduce<Supply | null>((last, s) => (s.key === key && (!last || s.id > last.id) ? s : last), null)
}

const OWN = 'own:'

/** @returns the list in the order of its groups; lines by hand last */
export const listOf = (doc: JobDocument, tree: Tree | null, book: ReadonlyMap<string, Price>): ListLine[] =>
  linesOf(plannedRows(doc, tree), doc, book)

/** The same of rows that were counted before: they last as long as the plan does. */
export function linesOf(
  rows: readonly PickRow[],
  doc: Pick<JobDocument, 'supplies'>,
  book: ReadonlyMap<string, Price>,
): ListLine[] {
  const planned = rows.map(r => lineOf(r, supplyFor(doc, r.key), book.get(r.key)))
  const byHand = new Map(doc.supplies.filter(s => s.key.startsWith(OWN)).map(s => [s.key, s]))
  const own = [...byHand.values()].map(s => {
    const row: PickRow = { group: 'own', key: s.key, name: s.name ?? 'unnamed', quantity: s.quantity ?? 1, unit: '', note: '' }
    return { ...lineOf(row, s, book.get(s.key)), own: true }
  })
  return [...planned, ...own]
}

function lineOf(row: PickRow, supply: Supply | null, price: Price | undefined): ListLine {
  const inVan = Math.min(row.quantity, price?.inVan ?? 0)
  const state = supply?.state ?? (inVan >= row.quantity ? 'here' : 'to get')
  return {
    ...row,
    supply,
    state,
    wanted: isThere(state) ? 0 : row.quantity - inVan,
    supplier: supply?.supplier ?? price?.supplier ?? null,
    dueOn: isThere(state) ? null : (supply?.dueOn ?? null),
    eachMinor: price?.minor ?? null,
    own: false,
  }
}

/** It lies in the store, in the van, or came back from the job. */
export const isThere = (state: Supply['state']): boolean => state === 'here' || state === 'packed' || state === 'brought back'

/** @returns the list as a table, its heading first; money with the currency's own point */
export function listCsv(lines: readonly ListLine[], currency: string): string {
  const amount = (minor: number | null) => (minor === null ? '' : amountWords(minor, currency))
  return (
    csvLine(['group', 'item', 'quantity', 'unit', 'state', 'supplier', 'due', `each ${currency}`, `total ${currency}`, 'note']) +
    lines
      .map(l => {
        const said = [l.state, l.supplier ?? '', l.dueOn ?? '', amount(l.eachMinor), amount(costOf(l)), l.note]
        return csvLine([l.group, l.name, l.quantity, l.unit, ...said])
      })
      .join('')
  )
}

/** @returns what was packed and runs out by a rough count: some of it comes home */
export const leftOvers = (lines: readonly ListLine[]): ListLine[] =>
  lines.filter(l => l.state === 'packed' && l.group !== 'parts' && l.group !== 'apart')
