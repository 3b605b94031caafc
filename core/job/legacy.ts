/** Changes written by an older app, kept on a device until it had a connection: taken as they were meant. */
import { BARE_SETUP, DEFAULT_SITE } from './defaults'
import { emptyDocument, GONE_FIELDS, LATER_FIELDS, without } from './schema'
import type { Change, JobDocument, Row, TableName } from './schema'

type OldDevice = 'phone' | 'router' | 'outside antenna'
type OldPhase = 'before' | 'after'

/** Rows that stood in a reading's own fields have ids made of the job's, alike on every device and in the database. */
const derived = (jobId: string, tag: string): string => `${tag}${jobId.slice(8)}`
export const oldDeviceId = (jobId: string, device: OldDevice): string =>
  derived(jobId, device === 'phone' ? 'de000001' : 'de000002')
export const oldSimId = (jobId: string): string => derived(jobId, '51000001')
/** The site that a job is given where it lost its own. */
export const repairedSiteId = (jobId: string): string => derived(jobId, '517e0001')
const DEVICE_CODE = { 'phone': 1, 'router': 2, 'outside antenna': 3 } as const
export const oldSetupId = (jobId: string, phase: OldPhase, device: OldDevice): string =>
  derived(jobId, `5e0000${phase === 'before' ? 1 : 2}${DEVICE_CODE[device]}`)

interface OldLog {
  phase: OldPhase
  device: OldDevice
}

/** @returns phase and device of a reading or speed test of before; null for one of today */
function oldLog(change: Change): OldLog | null {
  if ((change.table !== 'readings' && change.table !== 'speedRuns') || change.op !== 'insert') return null
  const { phase, device, setupId } = change.fields as Partial<OldLog> & { setupId?: unknown }
  if (setupId || (phase !== 'before' && phase !== 'after')) return null
  // A name that every object has is the name of no device.
  // A speed test said not by what it was made: by what such a test was made then.
  return {
    phase,
    device: typeof device === 'string' && Object.hasOwn(DEVICE_CODE, device) ? device : phase === 'after' ? 'router' : 'phone',
  }
}

/** @returns the change in today's words; the very same one where it is of today */
export function modernised(change: Change, jobId: string): Change {
  const gone = GONE_FIELDS[change.table]
  if (!gone?.some(f => f in change.fields)) return change
  const fields = without(change.fields, gone)
  // A gain entered on a part stood in a field of its own: it is one of the maker's figures.
  if (change.table === 'nodes' && typeof change.fields.gainDb === 'number')
    fields.own = { gainDb: change.fields.gainDb, gainDbi: change.fields.gainDb }
  const old = oldLog(change)
  if (old) fields.setupId = oldSetupId(jobId, old.phase, old.device)
  return { ...change, fields }
}

/** @returns the rows that a change of before names since: to be made where they are not there, in this order */
export function rowsBehind(change: Change, jobId: string): { table: 'devices' | 'setups'; rowId: string; fields: object }[] {
  const old = oldLog(change)
  if (!old) return []
  const phone = old.device === 'phone'
  return [
    {
      table: 'devices',
      rowId: oldDeviceId(jobId, old.device),
      fields: { name: phone ? 'Phone' : 'Router', kind: phone ? 'phone' : 'router', antennaDbi: null } satisfies Omit<
        Row<'devices'>,
        'id'
      >,
    },
    {
      table: 'setups',
      rowId: oldSetupId(jobId, old.phase, old.device),
      fields: {
        ...BARE_SETUP,
        deviceId: oldDeviceId(jobId, old.device),
        antenna: old.device === 'outside antenna' ? 'outside' : 'built in',
        mark: old.phase,
      } satisfies Omit<Row<'setups'>, 'id'>,
    },
  ]
}

/** A document kept by an older app or handover, with the tables and fields that came later, and without those that went. */
export function completeDocument(doc: Partial<JobDocument>): JobDocument {
  const whole = { ...emptyDocument(), ...doc } as unknown as Record<TableName, (Record<string, unknown> & { id: string })[]>
  const jobId = whole.jobs[0]?.id ?? ''
  for (const table of ['readings', 'speedRuns'] as const)
    for (const row of whole[table]) {
      for (const r of rowsBehind(asInsert(table, row), jobId))
        if (!whole[r.table].some(x => x.id === r.rowId)) whole[r.table] = [...whole[r.table], { ...r.fields, id: r.rowId }]
    }
  for (const table of Object.keys({ ...LATER_FIELDS, ...GONE_FIELDS }) as TableName[]) {
    const later = LATER_FIELDS[table] ?? {}
    const gone = GONE_FIELDS[table] ?? []
    const rows = whole[table]
    if (!rows.some(r => gone.some(f => f in r) || Object.keys(later).some(f => r[f] === undefined))) continue
    whole[table] = rows.map(r => {
      const { id, version, ...fields } = r
      return { ...later, ...modernised(asInsert(table, fields), jobId).fields, id, ...(version === undefined ? {} : { version }) }
    })
  }
  // A job without its site would open nowhere: it gets what is usual of its kind, and a finding says so.
  const job = whole.jobs[0] as unknown as Row<'jobs'> | undefined
  if (job && !whole.sites.length) whole.sites = [{ ...DEFAULT_SITE[job.kind], id: repairedSiteId(jobId) }]
  return whole as unknown as JobDocument
}

const asInsert = (table: TableName, fields: Record<string, unknown>): Change => ({
  id: '',
  table,
  rowId: '',
  op: 'insert',
  baseVersion: 0,
  fields,
})
