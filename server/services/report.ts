/** Papers of jobs on the server: what they are made of is read here, the work itself runs in a thread of its own. */
import type { Assessment } from '../../core/judge'
import { pathInputs } from '../../core/masts'
import { positionOf } from '../../core/survey'
import type { JobDocument } from '../../core/job'
import type { Report } from '../../core/report'
import { isFar, pathBlocks } from '../../core/terrain'
import type { Db } from '../data/db'
import { threadFor } from './thread'
import type { PaperTask } from './paper'
import { readBlocks } from './terrain'

/** Masts worth computing for a paper: the nearest, and the one chosen. */
const MOST_PATHS = 40

const inThread = threadFor<PaperTask, unknown>('paper', {
  heapMb: 1024,
  longestMs: 2 * 60_000,
  mostWaiting: 12,
  tooMuch: 'This paper takes more than two minutes to make.',
})

/** The assessment over the crew's terrain, as the worker on screen makes it. @throws Busy where too many papers wait */
export async function assessOnServer(db: Db, crewId: string, doc: JobDocument, atUtc: string): Promise<Assessment> {
  const chosen = new Set(doc.designs.map(d => d.mastId))
  const inputs = pathInputs(doc).filter((p, i) => i < MOST_PATHS || chosen.has(p.mastId))
  const site = positionOf(doc)
  const keys = [...new Set(inputs.flatMap(pathBlocks))]
  const near = keys.filter(k => site && !isFar(site, k))
  const far = keys.filter(k => !site || isFar(site, k))
  const ground = [
    ...(await readBlocks(db, crewId, near)),
    ...(await readBlocks(db, crewId, far, { kind: 'ground', coarse: true })),
  ]
  const cover = [
    ...(await readBlocks(db, crewId, near, { kind: 'cover' })),
    ...(await readBlocks(db, crewId, far, { kind: 'cover', coarse: true })),
  ]
  return (await inThread({ document: doc, inputs, ground, cover, atUtc })) as Assessment
}

/** A report as PDF. @throws Busy where too many papers wait */
export const renderPdf = async (report: Report): Promise<Buffer> => Buffer.from((await inThread({ report })) as Uint8Array)
