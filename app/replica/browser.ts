/** The replica in this browser: its database, its one sender, its other tabs, and who is signed in. */
import { openDB } from 'idb'
import { v7 as uuidv7 } from 'uuid'
import type { Change, Enough } from '#core/job'
import type { ChangeResult, Feed, JobSnapshot, Me } from '../../shared/api'
import { nowUtc, useClock } from './clock'
import { bytesOf } from './model'
import { Replica } from './replica'
import { keyOf } from './sealed'
import { openDevice, ReplicaStore } from './store'
import type { DeviceDb } from './store'

let opened: Promise<DeviceDb> | null = null
export const deviceDb = (): Promise<DeviceDb> => (opened ??= openDevice())

export async function deviceValue<T>(name: string): Promise<T | undefined> {
  return (await (await deviceDb()).get('device', name)) as T | undefined
}

export async function setDeviceValue(name: string, value: unknown): Promise<void> {
  const db = await deviceDb()
  if (value === undefined) await db.delete('device', name)
  else await db.put('device', value, name)
}

/** This browser's number: it lies with the data that are sealed for it. */
export async function deviceId(): Promise<string> {
  const held = await deviceValue<string>('id')
  if (held) return held
  const before = localStorage.getItem('mv-device')?.replaceAll('"', '')
  const id = /^[0-9a-f]{8}-[0-9a-f]{4}-7/.test(before ?? '') ? before! : uuidv7()
  await setDeviceValue('id', id)
  return id
}

/** A request that hangs must not hold up the other tabs; one that carries much on a slow link is given its time. */
const PATIENCE_MS = 30_000
/** The slowest link that is waited for, bytes a second. @source 2G at the edge of a cell, common practice (no source) */
const SLOWEST = 1500
const patience = (bytes = 0) => ({ signal: AbortSignal.timeout(PATIENCE_MS + (1000 * bytes) / SLOWEST) })

const transport = {
  post: (jobId: string, body: { device: string; since?: number; changes: Change[] }) =>
    api<ChangeResult>(`/api/jobs/${jobId}/changes`, { body, ...patience(body.changes.reduce((n, c) => n + bytesOf(c), 0)) }),
  feed: (jobId: string, since: number) => api<Feed>(`/api/jobs/${jobId}/changes?since=${since}`, patience()),
  snapshot: (jobId: string) => api<JobSnapshot>(`/api/jobs/${jobId}`, patience()),
  putPicture: (jobId: string, id: string, raw: ArrayBuffer) =>
    api(`/api/jobs/${jobId}/pictures/${id}`, { method: 'PUT', raw, ...patience(raw.byteLength) }),
}

const LOCK = 'multivox-send'
const alone = <T>(work: () => Promise<T>): Promise<T> => navigator.locks.request(LOCK, work) as Promise<T>

type What = 'written' | 'moved'
type Listener = (jobId: string, what: What, from: 'here' | 'elsewhere') => void
const listeners = new Set<Listener>()
const channel = new BroadcastChannel('multivox-replica')
channel.addEventListener('message', (e: MessageEvent<{ jobId: string; what: What }>) =>
  listeners.forEach(l => l(e.data.jobId, e.data.what, 'elsewhere')),
)

/** Hears that something of a job has changed, in this tab or another. @returns what ends the hearing */
export function onReplica(listener: Listener): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

function tell(jobId: string, what: What): void {
  channel.postMessage({ jobId, what })
  listeners.forEach(l => l(jobId, what, 'here'))
}

/** Whether this page may seal at all: a browser seals only on a secure address. */
export const canSeal = (): boolean => typeof crypto !== 'undefined' && !!crypto.subtle && !!navigator.locks

export interface OpenReplica {
  replica: Replica
  store: ReplicaStore
}

/**
 * Opens a member's replica: with the key that is held here, else with the one the server makes.
 * @throws Unreachable where neither is to be had
 */
export async function openReplica(owner: string): Promise<OpenReplica> {
  const db = await deviceDb()
  const device = await deviceId()
  let key = (await db.get('keys', owner))?.key
  if (!key) {
    key = await keyOf((await api<{ key: string }>('/api/auth/sealing-key', { body: { device } })).key)
    await db.put('keys', { owner, key })
    void navigator.storage?.persist?.()
  }
  const store = new ReplicaStore(db, owner, key)
  await takeOver(store)
  const replica = new Replica({
    store,
    transport,
    device,
    newId: uuidv7,
    clockOffsetMs: () => useClock().offsetMs.value,
    nowUtc,
    alone,
    tell,
  })
  return { replica, store }
}

/** What an app of before kept, unsealed, is taken over for its owner and then gone. */
async function takeOver(store: ReplicaStore): Promise<void> {
  if (await deviceValue('taken-over')) return
  const names = (await indexedDB.databases?.()) ?? []
  if (!names.some(n => n.name === 'multivox')) return setDeviceValue('taken-over', true)
  const old = await openDB('multivox')
  if (old.objectStoreNames.contains('outbox')) {
    const all = (await old.getAll('outbox')) as { key: number; owner: string; jobId: string; change: Change }[]
    const mine = all.filter(e => e.owner === store.owner)
    for (const e of mine) await store.addPending(e.jobId, [e.change], 0)
    for (const e of mine) await old.delete('outbox', e.key)
    if (all.length > mine.length) return old.close()
  }
  old.close()
  indexedDB.deleteDatabase('multivox')
  await setDeviceValue('taken-over', true)
}

/** Who was signed in here, for when there is no connection. */
export interface Who {
  me: Me
  carriers: { name: string; codes: string[] }[]
  /** what counts as enough in the crew's new jobs; not there in what an older app kept */
  enough?: Partial<Enough>
}
