/** Links by which a customer reads what was handed over: made, withdrawn, counted, and read by whoever holds one. */
import { and, desc, eq, isNull, sql } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { v7 as uuidv7 } from 'uuid'
import { completeDocument } from '../../core/job'
import type { JobDocument } from '../../core/job'
import type { Assessment } from '../../core/judge'
import { customerPage } from '../../core/report'
import type { CustomerPage } from '../../core/report'
import type { CustomerPageItem, Me } from '../../shared/api'
import { crews, customerPages, handovers } from '../data/schema'
import type { Db } from '../data/db'
import { hashToken, newToken } from './tokens'

/** As long as a page is good unless something else is said. */
const YEARS = 2

const ofJob = (crewId: string, jobId: string) => and(eq(customerPages.crewId, crewId), eq(customerPages.jobId, jobId))

/**
 * Makes the link to a handover; the ones of this job made before end with it, so that one link is good at a time.
 * @returns the token, which is kept nowhere; null where there is no such handover
 */
export async function newCustomerPage(db: Db, me: Me, jobId: string, handoverId: string): Promise<string | null> {
  const token = newToken()
  return db.transaction(async tx => {
    const [there] = await tx
      .select({ id: handovers.id })
      .from(handovers)
      .where(and(eq(handovers.crewId, me.crewId), eq(handovers.jobId, jobId), eq(handovers.id, handoverId)))
    if (!there) return null
    await tx
      .update(customerPages)
      .set({ withdrawnAt: sql`now()` as never })
      .where(and(ofJob(me.crewId, jobId), isNull(customerPages.withdrawnAt)))
    await tx.insert(customerPages).values({
      crewId: me.crewId,
      id: uuidv7(),
      hash: hashToken(token),
      jobId,
      handoverId,
      madeBy: me.name,
      endsAt: DateTime.utc().plus({ years: YEARS }).toISO(),
    })
    return token
  })
}

/** The links of a job, newest first: when made, until when, how often opened. */
export const listCustomerPages = (db: Db, crewId: string, jobId: string): Promise<CustomerPageItem[]> =>
  db
    .select({
      id: customerPages.id,
      handoverId: customerPages.handoverId,
      madeAt: customerPages.madeAt,
      madeBy: customerPages.madeBy,
      endsAt: customerPages.endsAt,
      withdrawnAt: customerPages.withdrawnAt,
      openings: customerPages.openings,
      openedAt: customerPages.openedAt,
    })
    .from(customerPages)
    .where(ofJob(crewId, jobId))
    .orderBy(desc(customerPages.madeAt), desc(customerPages.id))
    .limit(50)

/** @returns false where there is no such link of this job */
export async function withdrawCustomerPage(db: Db, crewId: string, jobId: string, id: string): Promise<boolean> {
  const gone = await db
    .update(customerPages)
    .set({ withdrawnAt: sql`coalesce(${customerPages.withdrawnAt}, now())` as never })
    .where(and(ofJob(crewId, jobId), eq(customerPages.id, id)))
    .returning({ id: customerPages.id })
  return gone.length > 0
}

/**
 * What a token opens. Whether it was never made, has ended or was withdrawn is looked at in one statement: the answer is the
 * same, and so is the way to it.
 * @param count  an opening by a person; a calendar that is fetched is none
 */
export async function readCustomerPage(db: Db, token: string, count: boolean): Promise<CustomerPage | null> {
  const [good] = await db
    .update(customerPages)
    .set({
      openings: sql`${customerPages.openings} + ${count ? 1 : 0}`,
      openedAt: count ? sql`now()` : sql`${customerPages.openedAt}`,
    } as never)
    .where(and(eq(customerPages.hash, hashToken(token)), isNull(customerPages.withdrawnAt), sql`${customerPages.endsAt} > now()`))
    .returning()
  if (!good) return null
  const [row] = await db
    .select({
      document: handovers.document,
      result: handovers.result,
      madeAt: handovers.madeAt,
      crew: crews.name,
      phone: crews.phone,
    })
    .from(handovers)
    .innerJoin(crews, eq(crews.id, handovers.crewId))
    .where(and(eq(handovers.crewId, good.crewId), eq(handovers.id, good.handoverId)))
  if (!row) return null
  const day = (iso: string): string => iso.slice(0, 10)
  return customerPage(completeDocument(row.document as Partial<JobDocument>), row.result as Assessment, {
    crew: row.crew,
    phone: row.phone,
    fittedOn: day(row.madeAt),
    endsOn: day(good.endsAt),
  })
}
