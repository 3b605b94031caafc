/** What a customer was handed, frozen: document, result, and the engine that made it. */
import { and, desc, eq } from 'drizzle-orm'
import { v7 as uuidv7 } from 'uuid'
import { handovers } from '../data/schema'
import type { Db } from '../data/db'
import type { Me, HandoverItem } from '../../shared/api'
import type { Assessment } from '../../core/judge'
import { completeDocument } from '../../core/job'
import type { JobDocument } from '../../core/job'
import { assessOnServer } from './report'

export interface Frozen extends HandoverItem {
  document: JobDocument
  result: Assessment
}

const ofJob = (crewId: string, jobId: string) => and(eq(handovers.crewId, crewId), eq(handovers.jobId, jobId))

export async function freeze(db: Db, me: Me, jobId: string, document: JobDocument): Promise<string> {
  const result = await assessOnServer(db, me.crewId, document, new Date().toISOString())
  const id = uuidv7()
  await db.insert(handovers).values({ crewId: me.crewId, id, jobId, engine: result.engine, document, result, madeBy: me.name })
  return id
}

/** The handovers of a job, newest first. */
export const listFrozen = (db: Db, crewId: string, jobId: string): Promise<HandoverItem[]> =>
  db
    .select({ id: handovers.id, engine: handovers.engine, madeAt: handovers.madeAt, madeBy: handovers.madeBy })
    .from(handovers)
    .where(ofJob(crewId, jobId))
    .orderBy(desc(handovers.madeAt), desc(handovers.id))
    .limit(200)

/** @returns null where there is none of that id in this job */
export async function readFrozen(db: Db, crewId: string, jobId: string, id: string): Promise<Frozen | null> {
  const [row] = await db
    .select()
    .from(handovers)
    .where(and(ofJob(crewId, jobId), eq(handovers.id, id)))
  if (!row) return null
  const { engine, madeAt, madeBy } = row
  return {
    id,
    engine,
    madeAt,
    madeBy,
    document: completeDocument(row.document as Partial<JobDocument>),
    result: row.result as Assessment,
  }
}
