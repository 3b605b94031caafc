/**
 * Where the replica lies on the device: IndexedDB, every value of a customer's sealed by its owner's
 * key. Ids, sizes and sequence numbers stand open beside it, so that what waits can be counted.
 */
import { openDB } from 'idb'
import type { DBSchema, IDBPDatabase } from 'idb'
import type { Change } from '#core/job'
import { bytesOf } from './model'
import type { Aside, Base, Conflict, Pending } from './model'
import { seal, sealBytes, unseal, unsealBytes } from './sealed'
import type { Sealed } from './sealed'

interface Own {
  owner: string
  jobId: string
  sealed: Sealed
}

interface Device extends DBSchema {
  /** one key a member who is signed in */
  keys: { key: string; value: { owner: string; key: CryptoKey } }
  bases: { key: string; value: Own & { id: string; sequence: number }; indexes: { owner: string } }
  pending: { key: number; value: Own & { key?: number; bytes: number }; indexes: { owner: string; job: [string, string] } }
  asides: { key: string; value: Own & { id: string }; indexes: { owner: string; job: [string, string] } }
  conflicts: { key: string; value: Own & { id: string }; indexes: { owner: string; job: [string, string] } }
  /** lists, masts near a stop, packs: by owner and name */
  kept: { key: string; value: Own & { id: string }; indexes: { owner: string } }
  /** pictures by their id; `waits` until the server has the bytes, 2 where it would not have them */
  pictures: { key: string; value: Own & { id: string; waits: 0 | 1 | 2 }; indexes: { waiting: [string, number]; owner: string } }
  /** blocks of ground, by crew; they are no customer's */
  blocks: { key: string; value: unknown }
  /** who is signed in here, and what is no secret */
  device: { key: string; value: unknown }
}

export type DeviceDb = IDBPDatabase<Device>

const NAME = 'multivox-device'
const SEALED_STORES = ['bases', 'pending', 'asides', 'conflicts', 'kept', 'pictures'] as const

export function openDevice(name = NAME): Promise<DeviceDb> {
  return openDB<Device>(name, 1, {
    upgrade(db) {
      db.createObjectStore('keys', { keyPath: 'owner' })
      db.createObjectStore('bases', { keyPath: 'id' }).createIndex('owner', 'owner')
      const pending = db.createObjectStore('pending', { keyPath: 'key', autoIncrement: true })
      pending.createIndex('owner', 'owner')
      pending.createIndex('job', ['owner', 'jobId'])
      for (const store of ['asides', 'conflicts'] as const) {
        const s = db.createObjectStore(store, { keyPath: 'id' })
        s.createIndex('owner', 'owner')
        s.createIndex('job', ['owner', 'jobId'])
      }
      db.createObjectStore('kept', { keyPath: 'id' }).createIndex('owner', 'owner')
      const pictures = db.createObjectStore('pictures', { keyPath: 'id' })
      pictures.createIndex('waiting', ['owner', 'waits'])
      pictures.createIndex('owner', 'owner')
      db.createObjectStore('blocks')
      db.createObjectStore('device')
    },
    // A newer app in another tab may bring its own shape of this database.
    blocking: (_now, _next, event) => (event.target as IDBDatabase).close(),
  })
}

/** What became of a batch or a pull, written at one stroke. */
export interface Outcome {
  jobId: string
  /** the base as it was read before; another writer in between makes the outcome void */
  from: number | null
  base?: Base
  /** pending changes that are acknowledged or put aside */
  gone?: readonly number[]
  asides?: readonly Aside[]
  conflicts?: readonly Conflict[]
}

/** The store of one member on this device. */
export class ReplicaStore {
  constructor(
    private readonly db: DeviceDb,
    readonly owner: string,
    private readonly key: CryptoKey,
  ) {}

  private idOf = (jobId: string): string => `${this.owner}|${jobId}`
  private job = (jobId: string): [string, string] => [this.owner, jobId]
  private own = async (jobId: string, value: unknown): Promise<Own> => ({
    owner: this.owner,
    jobId,
    sealed: await seal(this.key, value),
  })
  private open = <T>(row: Own): Promise<T> => unseal<T>(this.key, row.sealed)

  /** What cannot be read with the present key is left alone, and does not keep the rest from being read. */
  private async openAll<T>(rows: readonly Own[]): Promise<T[]> {
    const all = await Promise.all(rows.map(r => this.open<T>(r).catch(() => null)))
    return all.filter(v => v !== null) as T[]
  }

  async base(jobId: string): Promise<Base | null> {
    const row = await this.db.get('bases', this.idOf(jobId))
    return row ? this.open<Base>(row).catch(() => null) : null
  }

  /** Every job that is held here, opened. */
  async bases(): Promise<{ jobId: string; base: Base }[]> {
    const rows = await this.db.getAllFromIndex('bases', 'owner', this.owner)
    const all = await Promise.all(rows.map(async r => ({ jobId: r.jobId, base: await this.open<Base>(r).catch(() => null) })))
    return all.filter((r): r is { jobId: string; base: Base } => r.base !== null)
  }

  /** @returns the sequence of the base held, without opening it */
  async sequence(jobId: string): Promise<number | null> {
    return (await this.db.get('bases', this.idOf(jobId)))?.sequence ?? null
  }

  private last: Promise<unknown> = Promise.resolve()

  /** Writes changes in the order they were made: sealing one may take longer than sealing the next. */
  addPending(jobId: string, changes: readonly Change[], clockOffsetMs: number | null): Promise<void> {
    const next = this.last.then(() => this.writePending(jobId, changes, clockOffsetMs))
    this.last = next.catch(() => {})
    return next
  }

  private async writePending(jobId: string, changes: readonly Change[], clockOffsetMs: number | null): Promise<void> {
    const rows = await Promise.all(
      changes.map(async change => ({ ...(await this.own(jobId, { change, clockOffsetMs })), bytes: bytesOf(change) })),
    )
    const tx = this.db.transaction('pending', 'readwrite')
    for (const row of rows) void tx.store.add(row)
    await tx.done
  }

  /** The first of what waits in a job, in order of writing, within a count and a size; at least one. */
  async pending(jobId: string, most = Infinity, mostBytes = Infinity): Promise<Pending[]> {
    const rows: (Own & { key?: number; bytes: number })[] = []
    let bytes = 0
    let cursor = await this.db.transaction('pending').store.index('job').openCursor(this.job(jobId))
    while (cursor && rows.length < most && (!rows.length || bytes + cursor.value.bytes <= mostBytes)) {
      rows.push(cursor.value)
      bytes += cursor.value.bytes
      cursor = await cursor.continue()
    }
    const opened = await Promise.all(
      rows.map(async r => {
        const inside = await this.open<Pick<Pending, 'change' | 'clockOffsetMs'>>(r).catch(() => null)
        return inside && { ...inside, key: r.key!, jobId }
      }),
    )
    return opened.filter(p => p !== null)
  }

  /** How much waits, job by job: changes, and pictures whose bytes the server has not. */
  async waiting(): Promise<Map<string, number>> {
    const counts = await this.changed()
    for (const { jobId } of await this.uploads()) counts.set(jobId, (counts.get(jobId) ?? 0) + 1)
    return counts
  }

  /** How many changes wait, job by job. */
  async changed(): Promise<Map<string, number>> {
    const counts = new Map<string, number>()
    let cursor = await this.db
      .transaction('pending')
      .store.index('job')
      .openKeyCursor(IDBKeyRange.bound([this.owner, ''], [this.owner, '\uFFFF']))
    while (cursor) {
      const jobId = (cursor.key as [string, string])[1]
      counts.set(jobId, (counts.get(jobId) ?? 0) + 1)
      cursor = await cursor.continue()
    }
    return counts
  }

  async asides(jobId?: string): Promise<Aside[]> {
    return this.openAll<Aside>(
      jobId
        ? await this.db.getAllFromIndex('asides', 'job', this.job(jobId))
        : await this.db.getAllFromIndex('asides', 'owner', this.owner),
    )
  }

  async conflicts(jobId: string): Promise<Conflict[]> {
    return this.openAll<Conflict>(await this.db.getAllFromIndex('conflicts', 'job', this.job(jobId)))
  }

  /** One thing that the server would not take, by itself. */
  async putAside(a: Aside): Promise<void> {
    await this.db.put('asides', { ...(await this.own(a.jobId, a)), id: a.id })
  }

  removeAside = (id: string): Promise<void> => this.db.delete('asides', id)
  removeConflict = (id: string): Promise<void> => this.db.delete('conflicts', `${this.owner}|${id}`)

  /** Writes an outcome at one stroke. @returns false, and nothing written, where the base has moved on meanwhile */
  async commit(o: Outcome): Promise<boolean> {
    const base = o.base ? { ...(await this.own(o.jobId, o.base)), id: this.idOf(o.jobId), sequence: o.base.sequence } : null
    const asides = await Promise.all((o.asides ?? []).map(async a => ({ ...(await this.own(o.jobId, a)), id: a.id })))
    const conflicts = await Promise.all(
      (o.conflicts ?? []).map(async c => ({ ...(await this.own(o.jobId, c)), id: `${this.owner}|${c.id}` })),
    )
    const tx = this.db.transaction(['bases', 'pending', 'asides', 'conflicts'], 'readwrite')
    const held = await tx.objectStore('bases').get(this.idOf(o.jobId))
    if ((held?.sequence ?? null) !== o.from) {
      await tx.done
      return false
    }
    if (base) void tx.objectStore('bases').put(base)
    for (const key of o.gone ?? []) void tx.objectStore('pending').delete(key)
    for (const a of asides) void tx.objectStore('asides').put(a)
    for (const c of conflicts) void tx.objectStore('conflicts').put(c)
    await tx.done
    return true
  }

  async keep(name: string, value: unknown): Promise<void> {
    const id = `${this.owner}|${name}`
    if (value === undefined) await this.db.delete('kept', id)
    else await this.db.put('kept', { ...(await this.own(name, value)), id })
  }

  async kept<T>(name: string): Promise<T | undefined> {
    const row = await this.db.get('kept', `${this.owner}|${name}`)
    return row ? this.open<T>(row).catch(() => undefined) : undefined
  }

  async keepPicture(jobId: string, id: string, bytes: ArrayBuffer, waits: boolean): Promise<void> {
    const row: Own = { owner: this.owner, jobId, sealed: await sealBytes(this.key, bytes) }
    await this.db.put('pictures', { ...row, id, waits: waits ? 1 : 0 })
  }

  async picture(id: string): Promise<ArrayBuffer | null> {
    const row = await this.db.get('pictures', id)
    return row && row.owner === this.owner ? unsealBytes(this.key, row.sealed).catch(() => null) : null
  }

  /** Pictures whose bytes the server has not. */
  async uploads(): Promise<{ id: string; jobId: string }[]> {
    return (await this.db.getAllFromIndex('pictures', 'waiting', [this.owner, 1])).map(({ id, jobId }) => ({ id, jobId }))
  }

  uploaded = (id: string): Promise<void> => this.markPicture(id, 0)
  /** It is not sent again by itself, and not let go of either. */
  refusePicture = (id: string): Promise<void> => this.markPicture(id, 2)

  private async markPicture(id: string, waits: 0 | 2): Promise<void> {
    const row = await this.db.get('pictures', id)
    if (row) await this.db.put('pictures', { ...row, waits })
  }

  /** Signing out: what can be fetched again goes, what cannot stays sealed, and the key goes. */
  async close(): Promise<void> {
    const tx = this.db.transaction(['bases', 'kept', 'keys', 'pictures'], 'readwrite')
    const seen = await tx.objectStore('pictures').index('waiting').getAllKeys([this.owner, 0])
    for (const id of seen) void tx.objectStore('pictures').delete(id)
    for (const store of ['bases', 'kept'] as const) {
      for (const id of await tx.objectStore(store).index('owner').getAllKeys(this.owner)) void tx.objectStore(store).delete(id)
    }
    void tx.objectStore('keys').delete(this.owner)
    await tx.done
  }
}

/** Everything on the device that a member's key does not open, as plain text: for the test that nothing of a customer is readable. */
export async function readableText(db: DeviceDb): Promise<string> {
  const parts: unknown[] = []
  for (const store of [...SEALED_STORES, 'device', 'keys'] as const) parts.push(await db.getAll(store))
  return JSON.stringify(parts, (_k, v: unknown) => (v instanceof ArrayBuffer ? new TextDecoder('latin1').decode(v) : v))
}
