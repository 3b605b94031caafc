/** A server in memory for the tests of the replica: it keeps the contract of changes, and can be cut off in every way. */
import { nth } from '#core/sure'
import { emptyDocument, mergeFields, referencesTo, TABLES } from '#core/job'
import type { Change, JobDocument, TableName } from '#core/job'
import type { ChangeResult, Feed, FeedItem, JobSnapshot } from '../../shared/api'
import type { Transport } from './replica'

interface FakeRow {
  id: string
  version: number
  fieldVersions: Record<string, number>
  fields: Record<string, unknown>
  writers: Record<string, string>
}
interface FakeJob {
  sequence: number
  rows: Map<string, FakeRow>
  log: { change: Change; sequence: number; fields: Record<string, unknown>; refused: string | null }[]
}

/** What a request may meet on its way. */
export type Weather = 'fair' | 'not reached' | 'answer lost' | 'in trouble' | 'signed out'

export const told = (status: number, message = `answered ${status}`) => Object.assign(new Error(message), { status })

const MOST_BYTES = 1_000_000
const MOST_FEED = 50

export class FakeServer {
  readonly jobs = new Map<string, FakeJob>()
  weather: () => Weather = () => 'fair'
  posts = 0

  /** @returns why a change is refused; null where it is taken */
  refuses: (c: Change) => string | null = c =>
    typeof c.fields.upM === 'number' && c.fields.upM > 100 ? 'upM must be <= 100' : null

  private async meet<T>(answer: () => T): Promise<T> {
    await Promise.resolve()
    const now = this.weather()
    if (now === 'not reached') throw new Error('no connection')
    if (now === 'in trouble') throw told(503)
    if (now === 'signed out') throw told(401)
    const said = structuredClone(answer())
    if (now === 'answer lost') throw new Error('the connection was lost')
    return said
  }

  transport(): Transport {
    return {
      post: (jobId, batch) => this.meet(() => this.post(jobId, batch)),
      feed: (jobId, since) => this.meet(() => this.feed(this.job(jobId), since)),
      snapshot: jobId => this.meet(() => this.snapshot(jobId)),
      putPicture: (jobId, id) => this.meet(() => this.putPicture(jobId, id)),
    }
  }

  /** pictures that came, and what is answered to one that may not */
  readonly pictures = new Set<string>()
  pictureAnswer: (id: string) => number = () => 200
  /** jobs about which nothing but a fault is heard */
  readonly badJobs = new Set<string>()
  /** longest post that gets through before the link is cut, bytes */
  cutAt = Infinity

  private putPicture(jobId: string, id: string): object {
    this.job(jobId)
    const status = this.pictureAnswer(id)
    if (status !== 200) throw told(status)
    this.pictures.add(id)
    return {}
  }

  private job(jobId: string): FakeJob {
    const job = this.jobs.get(jobId)
    if (!job) throw told(404)
    return job
  }

  post(jobId: string, batch: { device: string; since?: number; changes: Change[] }): ChangeResult {
    this.posts++
    if (this.badJobs.has(jobId)) throw told(503)
    if (JSON.stringify(batch).length > this.cutAt) throw new Error('cut on the way')
    if (JSON.stringify(batch).length > MOST_BYTES) throw told(413)
    const first = nth(batch.changes, 0)
    if (!this.jobs.has(jobId)) {
      if (first.table !== 'jobs' || first.op !== 'insert') throw told(404)
      this.jobs.set(jobId, { sequence: 0, rows: new Map(), log: [] })
    }
    const job = this.job(jobId)
    const result: ChangeResult = { sequence: 0, versions: [], conflicts: [], rejected: [] }
    for (const change of batch.changes) this.take(job, change, batch.device, result)
    result.sequence = job.sequence
    return batch.since === undefined ? result : { ...result, ...this.feed(job, batch.since) }
  }

  private take(job: FakeJob, change: Change, device: string, result: ChangeResult): void {
    const { id: changeId, table, rowId } = change
    const before = job.log.find(l => l.change.id === changeId)
    if (before) {
      if (before.refused) result.rejected.push({ changeId, table, rowId, detail: before.refused })
      else result.versions.push({ changeId, table, rowId, version: before.sequence })
      return
    }
    const sequence = ++job.sequence
    const key = `${table}|${rowId}`
    const row = job.rows.get(key)
    const why = this.refuses(change) ?? (!row && change.op === 'update' ? 'It was removed by someone else meanwhile.' : null)
    if (why) {
      job.log.push({ change, sequence, fields: {}, refused: why })
      result.rejected.push({
        changeId,
        table,
        rowId,
        detail: why,
        errors: why.startsWith('upM') ? [{ field: 'upM', message: why }] : undefined,
      })
      return
    }
    let fields = change.fields
    if (change.op === 'delete') {
      remove(job, table, rowId)
      fields = {}
    } else if (!row) {
      job.rows.set(key, {
        id: rowId,
        version: sequence,
        fields: { ...fields },
        fieldVersions: stamp(fields, sequence),
        writers: stamp(fields, device),
      })
    } else {
      const merged = mergeFields(row.fields, row.fieldVersions, change)
      for (const c of merged.conflicts) {
        if (row.writers[c.field] === device) merged.accepted[c.field] = c.mine
        else result.conflicts.push(c)
      }
      fields = merged.accepted
      if (Object.keys(fields).length) {
        row.version = sequence
        Object.assign(row.fields, fields)
        Object.assign(row.fieldVersions, stamp(fields, sequence))
        Object.assign(row.writers, stamp(fields, device))
      }
    }
    job.log.push({ change, sequence, fields, refused: null })
    result.versions.push({ changeId, table, rowId, version: sequence })
  }

  private feed(job: FakeJob, since: number): Feed {
    const news = job.log.filter(l => l.sequence > since)
    const items: FeedItem[] = news
      .filter(l => !l.refused)
      .map(l => ({
        id: l.change.id,
        table: l.change.table,
        rowId: l.change.rowId,
        op: l.change.op,
        fields: l.fields,
        sequence: l.sequence,
      }))
    if (items.length > MOST_FEED)
      return { sequence: nth(items, MOST_FEED - 1).sequence, items: items.slice(0, MOST_FEED), more: true }
    return { sequence: job.sequence, items, more: false }
  }

  snapshot(jobId: string): JobSnapshot {
    const job = this.job(jobId)
    const document = emptyDocument() as unknown as Record<TableName, unknown[]>
    for (const [key, row] of job.rows)
      document[key.split('|')[0] as TableName].push({ ...row.fields, id: row.id, version: row.version })
    return { document: document as unknown as JobDocument, sequence: job.sequence, near: { masts: [], cells: [] } }
  }
}

/** What hangs on a row goes with it, or lets go of it. */
function remove(job: FakeJob, table: TableName, rowId: string): void {
  job.rows.delete(`${table}|${rowId}`)
  for (const { table: of, field, whenGone } of referencesTo(table))
    for (const [key, row] of [...job.rows]) {
      if (!key.startsWith(`${of}|`) || row.fields[field] !== rowId) continue
      if (whenGone === 'goes too') remove(job, of, row.id)
      else row.fields[field] = null
    }
}

const stamp = <T>(fields: Record<string, unknown>, v: T): Record<string, T> =>
  Object.fromEntries(Object.keys(fields).map(f => [f, v]))

/** A document with its rows in the order of their ids, to be compared. */
export const sorted = (d: JobDocument): Record<string, unknown[]> =>
  Object.fromEntries(TABLES.map(t => [t, [...(d[t] as { id: string }[])].sort((a, b) => a.id.localeCompare(b.id))]))
