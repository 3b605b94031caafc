/** A job as a whole, under new ids: for another crew, or as the beginning of the next one. */
import { entryOf } from '../sure'
import { fieldsOf } from './changes'
import { insertChange } from './defaults'
import type { Maker } from './defaults'
import { REFERENCES } from './references'
import { emptyDocument, MOST_SEQUENCE, TABLES } from './schema'
import type { Change, JobDocument, TableName } from './schema'

type AnyRow = Record<string, unknown> & { id: string }
const rowsOf = (doc: JobDocument, table: TableName): AnyRow[] => doc[table] as unknown as AnyRow[]

const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}/g

/**
 * The same document under other ids: every id that a row has, wherever it is named, in a field of its own or within a key.
 * @returns the document, and which id became which
 */
export function remapped(doc: JobDocument, newId: Maker): { document: JobDocument; ids: Map<string, string> } {
  const ids = new Map<string, string>()
  for (const table of TABLES) for (const row of rowsOf(doc, table)) ids.set(row.id, newId())
  // Rows of one moment share a number of no row.
  const shared = (v: string): string => {
    if (!ids.has(v)) ids.set(v, newId())
    return entryOf(ids, v)
  }
  const value = (v: unknown, field: string): unknown =>
    typeof v !== 'string' ? v : field === 'capture' ? shared(v) : v.replace(UUID, id => ids.get(id) ?? id)
  const document = emptyDocument()
  for (const table of TABLES)
    document[table] = rowsOf(doc, table).map(row => ({
      ...Object.fromEntries(Object.entries(row).map(([k, v]) => [k, value(v, k)])),
      id: entryOf(ids, row.id),
    })) as never
  return { document, ids }
}

/** What a job of the same kind begins with: the place's own record, and what was read there, stays behind. */
const LEFT_BEHIND: readonly TableName[] = [
  'readings',
  'speedRuns',
  'calls',
  'watches',
  'sweeps',
  'steps',
  'checks',
  'stops',
  'obstacles',
  'landmarks',
  'pictures',
  'photos',
  'labels',
  'failovers',
  'usageDays',
  'signatures',
  'visits',
  'supplies',
  'masts',
  'cells',
]

/** A job as a template: its site's shape, rooms, devices, set-ups and plans, without customer, place, or anything read. */
export function asTemplate(doc: JobDocument, name: string): JobDocument {
  const out: JobDocument = { ...doc }
  for (const table of LEFT_BEHIND) out[table] = [] as never
  const kept = new Set(doc.designs.map(d => d.id))
  out.jobs = doc.jobs.map(j => ({
    ...j,
    name,
    customerName: null,
    customerContact: null,
    customerAddress: null,
    notes: null,
    today: null,
    complaint: null,
    changedLately: null,
    // Another owner is asked anew.
    mayDrill: 'ask',
    drillWhere: null,
    outageMin: null,
    nextOn: null,
    methodId: null,
    quoteHours: null,
    stopId: null,
    designId: j.designId && kept.has(j.designId) ? j.designId : (doc.designs[0]?.id ?? null),
  }))
  out.sites = doc.sites.map(s => ({ ...s, latDeg: null, lonDeg: null, groundM: null, headingDeg: null }))
  out.designs = doc.designs.map(d => ({ ...d, mastId: null, aimedDeg: null, aimedAtUtc: null, aimedTiltDeg: null }))
  // A card, what came back and who knows a password are of the one job.
  out.sims = doc.sims.map(s => ({ ...s, iccid: null }))
  out.connections = doc.connections.map(r => ({ ...r, mastId: null, state: 'not in yet', stateAtUtc: null, poweredAtUtc: null }))
  out.networks = doc.networks.map(n => ({
    ...n,
    apart: null,
    password: null,
    passwordBy: null,
    passwordTo: null,
    passwordOn: null,
  }))
  out.appliances = doc.appliances.map(a => ({ ...a, backAtUtc: null }))
  // A length that was measured was measured there.
  out.runs = doc.runs.map(r => ({ ...r, measured: false, pieces: null }))
  out.fixtures = doc.fixtures.map(f => ({ ...f, behind: null, behindFound: null, behindWhat: null, bonded: null }))
  out.isolations = doc.isolations.map(i => ({
    ...i,
    measuredDb: null,
    inForce: i.inForce === 'measured' ? 'computed' : i.inForce,
  }))
  return out
}

/** What is set last knows of everything set before it. */
export const AFTER_ALL = MOST_SEQUENCE

/**
 * The inserts that make a document anew: named rows before those that name them, what would run in a circle set last.
 * References to rows that are not there are let go.
 * @param there  ids of rows that the document does not hold and the crew does: its masts
 */
export function insertsOf(doc: JobDocument, newId: Maker, there: ReadonlySet<string> = new Set()): Change[] {
  const present = new Map<TableName, Set<string>>(TABLES.map(t => [t, new Set(rowsOf(doc, t).map(r => r.id))]))
  const done = new Set<string>()
  const changes: Change[] = []
  const later: Change[] = []
  for (const table of TABLES) {
    const references = REFERENCES.filter(r => r.table === table)
    // A correction comes after what it corrects.
    const rows = [...rowsOf(doc, table)]
    while (rows.length) {
      const at = Math.max(
        0,
        rows.findIndex(row => {
          const replaced = row.replacesId as string | null | undefined
          return !replaced || done.has(replaced) || !entryOf(present, table).has(replaced)
        }),
      )
      const [row] = rows.splice(at, 1) as [AnyRow]
      const fields = fieldsOf(row)
      const set: Record<string, unknown> = {}
      for (const r of references) {
        const named = fields[r.field]
        if (typeof named !== 'string' || done.has(named) || there.has(named)) continue
        if (entryOf(present, r.target).has(named)) set[r.field] = named
        fields[r.field] = null
      }
      changes.push(insertChange(newId, table, row.id, fields))
      done.add(row.id)
      if (Object.keys(set).length)
        later.push({ id: newId(), table, rowId: row.id, op: 'update', baseVersion: AFTER_ALL, fields: set })
    }
  }
  return [...changes, ...later]
}
