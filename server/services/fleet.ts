/** Fleets: a method and the jobs made from it. */
import { jobOf } from '../../core/job'
import { and, asc, eq, or } from 'drizzle-orm'
import { differencesOf, lessonsOf, methodIdOf, stepsOf } from '../../core/card'
import { lastCheck } from '../../core/judge'
import type { JobDocument } from '../../core/job'
import type { Fleet, FleetUnit } from '../../shared/api'
import { jobs } from '../data/schema'
import type { Db } from '../data/db'
import { readFleet } from './document'
import { assessOnServer } from './report'

/** More than one fleet holds; those made last are left out. */
const MOST_READ = 200

/** @returns the names of a method's units, the method's own among them */
export const unitNamesOf = async (db: Db, crewId: string, methodId: string): Promise<string[]> =>
  (
    await db
      .select({ name: jobs.name })
      .from(jobs)
      .where(and(eq(jobs.crewId, crewId), or(eq(jobs.id, methodId), eq(jobs.methodId, methodId))))
      .orderBy(asc(jobs.name), asc(jobs.id))
      .limit(MOST_READ)
  ).map(u => u.name)

/** @returns null where the job is not this crew's */
export async function fleetOf(db: Db, crewId: string, jobId: string): Promise<Fleet | null> {
  const [job] = await db
    .select({ id: jobs.id, methodId: jobs.methodId })
    .from(jobs)
    .where(and(eq(jobs.crewId, crewId), eq(jobs.id, jobId)))
  if (!job) return null
  const methodId = methodIdOf(job)
  const rows = await readFleet(db, { crewId, methodId, most: MOST_READ })
  const method = rows.find(r => r.id === methodId)?.document ?? null
  const words = new Map<string, string>()
  // Every card asks: for one that is alone no plan is judged.
  if (method && rows.length > 1) {
    const steps = stepsOf(method, await assessOnServer(db, crewId, method, new Date().toISOString()))
    for (const s of steps) words.set(s.id, s.plain)
  }
  const units: FleetUnit[] = []
  const lessons: Fleet['lessons'] = []
  for (const { id, state, document } of rows) {
    const { name, nextOn } = jobOf(document)
    lessons.push(...lessonsOf(document))
    units.push({
      id,
      name,
      method: id === methodId,
      done: doneSteps(document),
      state,
      differences: method && id !== methodId ? differencesOf(method, document) : [],
      serials: document.labels.flatMap(l => l.serial ?? l.imei ?? l.mac ?? []),
      nextOn,
    })
  }
  const photos = (method?.photos ?? [])
    .filter(p => p.stepKey)
    .map(p => ({ id: p.id, caption: p.caption, jobId: methodId, words: words.get(p.stepKey!) ?? null }))
  return { methodId, steps: words.size, units, lessons, photos }
}

function doneSteps(doc: JobDocument): number {
  const keys = new Set(doc.checks.filter(c => c.kind === 'step').map(c => c.key))
  return [...keys].filter(k => lastCheck(doc, 'step', k)?.done).length
}
