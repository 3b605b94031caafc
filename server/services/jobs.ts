/** Jobs as wholes, and what lies beside their rows. */
import { and, eq, sql } from 'drizzle-orm'
import type { Position } from '../../core/geo'
import type { Db } from '../data/db'
import { jobs, pictureFiles, stops } from '../data/schema'

/** @returns the number of the last change of a job; null where the crew has no such job */
export async function sequenceOf(db: Db, crewId: string, jobId: string): Promise<number | null> {
  const [job] = await db
    .select({ sequence: jobs.sequence })
    .from(jobs)
    .where(and(eq(jobs.crewId, crewId), eq(jobs.id, jobId)))
  return job?.sequence ?? null
}

/** @returns whether there was such a job */
export async function removeJob(db: Db, crewId: string, jobId: string): Promise<boolean> {
  const gone = await db
    .delete(jobs)
    .where(and(eq(jobs.crewId, crewId), eq(jobs.id, jobId)))
    .returning({ id: jobs.id })
  return gone.length > 0
}

export async function stopOf(db: Db, crewId: string, jobId: string, id: string): Promise<Position | null> {
  const [stop] = await db
    .select({ latDeg: stops.latDeg, lonDeg: stops.lonDeg })
    .from(stops)
    .where(and(eq(stops.crewId, crewId), eq(stops.jobId, jobId), eq(stops.id, id)))
  return stop ?? null
}

export interface Picture {
  id: string
  mime: string
  bytes: Uint8Array
}

/** @returns whether it was kept: another job's picture is not written over */
export async function keepPicture(db: Db, crewId: string, jobId: string, { id, mime, bytes }: Picture): Promise<boolean> {
  const stored = await db
    .insert(pictureFiles)
    .values({ crewId, id, jobId, mime, bytes })
    .onConflictDoUpdate({
      target: [pictureFiles.crewId, pictureFiles.id],
      set: { mime: sql`excluded.mime`, bytes: sql`excluded.bytes` },
      setWhere: eq(pictureFiles.jobId, jobId),
    })
    .returning({ id: pictureFiles.id })
  return stored.length > 0
}

export async function pictureOf(db: Db, crewId: string, jobId: string, id: string): Promise<Picture | null> {
  const [file] = await db
    .select({ id: pictureFiles.id, mime: pictureFiles.mime, bytes: pictureFiles.bytes })
    .from(pictureFiles)
    .where(and(eq(pictureFiles.crewId, crewId), eq(pictureFiles.jobId, jobId), eq(pictureFiles.id, id)))
  return file ?? null
}
