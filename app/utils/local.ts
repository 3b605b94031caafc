/** What this device keeps: opened jobs, changes not sent yet, terrain, and who was signed in. */
import { openDB } from 'idb'
import type { DBSchema, IDBPDatabase } from 'idb'
import type { Change } from '#core/job/schema'
import type { HeightBlock } from '#core/terrain/blocks'
import type { JobListItem, JobSnapshot } from '../../shared/api'

export interface OutboxEntry { key?: number, owner: string, jobId: string, change: Change }

/** A block of ground as kept on this device, with what stands on it where that is known. */
export interface KeptBlock extends HeightBlock {
  /** fetched thinned, since it was far from the place it was fetched for */
  thinned?: boolean
  cover?: HeightBlock
}

interface Local extends DBSchema {
  jobs: { key: string, value: JobSnapshot & { id: string, owner: string } }
  outbox: { key: number, value: OutboxEntry, indexes: { job: string, owner: string } }
  blocks: { key: string, value: KeptBlock }
  kept: { key: string, value: unknown }
}

let opened: Promise<IDBPDatabase<Local>> | null = null

export function local(): Promise<IDBPDatabase<Local>> {
  opened ??= openDB<Local>('multivox', 1, {
    upgrade(db) {
      db.createObjectStore('jobs', { keyPath: 'id' })
      const outbox = db.createObjectStore('outbox', { keyPath: 'key', autoIncrement: true })
      outbox.createIndex('job', 'jobId')
      outbox.createIndex('owner', 'owner')
      db.createObjectStore('blocks', { keyPath: 'key' })
      db.createObjectStore('kept')
    },
  })
  return opened
}

export async function keep(key: string, value: unknown): Promise<void> {
  await (await local()).put('kept', value, key)
}

export async function kept<T>(key: string): Promise<T | undefined> {
  return await (await local()).get('kept', key) as T | undefined
}

export async function outboxOf(jobId: string): Promise<OutboxEntry[]> {
  return (await local()).getAllFromIndex('outbox', 'job', jobId)
}

export async function outboxCount(owner: string): Promise<number> {
  return (await local()).countFromIndex('outbox', 'owner', owner)
}

/** The list of jobs as last seen, for when there is no connection. */
export const keepList = (owner: string, list: JobListItem[]): Promise<void> => keep(`list:${owner}`, list)
export const keptList = (owner: string): Promise<JobListItem[] | undefined> => kept<JobListItem[]>(`list:${owner}`)
