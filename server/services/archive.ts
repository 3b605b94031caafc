/** Jobs as ZIP files: one out, one in under new ids, and a job copied as a template. */
import { and, eq } from 'drizzle-orm'
import { zip } from 'fflate'
import type { Zippable } from 'fflate'
import { v7 as uuidv7 } from 'uuid'
import { pictureFiles } from '../data/schema'
import type { Db } from '../data/db'
import { threadFor } from './thread'
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, insertsOf, jobOf, schemaFiles, TABLES, without } from '../../core/job'
import type { JobDocument, Manifest } from '../../core/job'
import { ENGINE_VERSION } from '../../core/judge'
import type { JobSnapshot } from '../../shared/api'
import { checkRows, MIMES } from './archive-read'
import type { PictureBytes } from './archive-read'
import { applyFresh } from './changes'

const packed = (files: Zippable): Promise<Uint8Array> =>
  new Promise((done, fail) => zip(files, { level: 6 }, (e, data) => (e ? fail(e) : done(data))))

const json = (value: unknown): Uint8Array => new TextEncoder().encode(`${JSON.stringify(value, null, 1)}\n`)

/** @returns the job as a ZIP of JSON: its rows, the schemas they follow, and its pictures */
export async function exportJob(db: Db, crewId: string, { document, near }: JobSnapshot, atUtc: string): Promise<Uint8Array> {
  const job = jobOf(document)
  const files = await db
    .select()
    .from(pictureFiles)
    .where(and(eq(pictureFiles.crewId, crewId), eq(pictureFiles.jobId, job.id)))
  const named = new Map(
    files.map(f => [`pictures/${f.id}.${Object.entries(MIMES).find(([, m]) => m === f.mime)?.[0] ?? 'png'}`, f.bytes]),
  )
  const manifest: Manifest = {
    format: ARCHIVE_FORMAT,
    version: ARCHIVE_VERSION,
    engine: ENGINE_VERSION,
    exportedAtUtc: atUtc,
    job: job.name,
    pictures: [...named.keys()],
  }
  return packed({
    'manifest.json': json(manifest),
    'job.json': json(withChosenMasts(document, near)),
    ...Object.fromEntries(Object.entries(schemaFiles()).map(([path, schema]) => [path, json(schema)])),
    // Pictures are packed already.
    ...Object.fromEntries([...named].map(([path, bytes]) => [path, [bytes, { level: 0 }] as const])),
  } as Zippable)
}

/** The job's own masts, and those of the crew's lists that its plans name: another crew may not have them. Versions stay here. */
function withChosenMasts(document: JobDocument, near: JobSnapshot['near']): JobDocument {
  const named = new Set(document.designs.map(d => d.mastId))
  const masts = near.masts.filter(m => named.has(m.id) && !document.masts.some(x => x.id === m.id))
  const own = { ...document, masts: [...document.masts, ...masts] }
  own.cells = [...document.cells, ...near.cells.filter(c => masts.some(m => m.id === c.mastId))]
  return Object.fromEntries(
    TABLES.map(t => [t, (own[t] as object[]).map(r => without(r as Record<string, unknown>, ['version']))]),
  ) as unknown as JobDocument
}

const read = threadFor<string, { document: JobDocument; pictures: PictureBytes[] }>('archive', {
  heapMb: 768,
  longestMs: 60_000,
  mostWaiting: 4,
  tooMuch: 'The archive takes more than a minute, or more memory than there is, to read.',
})

/**
 * Makes a job of an archive, under new ids.
 * @param path  the file as it came
 * @throws RangeError with what is wrong with it, Busy where others wait already; nothing is written then
 */
export async function importJob(
  db: Db,
  who: { crewId: string; memberId: string },
  path: string,
): Promise<{ jobId: string; name: string }> {
  const { document, pictures } = await read(path)
  return writeJob(db, who, document, { pictures })
}

/**
 * Writes a document as a job of the crew: all of it, or nothing.
 * @param o  its pictures, and ids of the crew's own masts that it may name
 * @throws RangeError where a row of it is not to be had
 */
export async function makeJob(
  db: Db,
  who: { crewId: string; memberId: string },
  document: JobDocument,
  o: { pictures?: PictureBytes[]; masts?: ReadonlySet<string> } = {},
): Promise<{ jobId: string; name: string }> {
  checkRows(document)
  return writeJob(db, who, document, o)
}

/** The same of rows that were checked. */
async function writeJob(
  db: Db,
  who: { crewId: string; memberId: string },
  document: JobDocument,
  { pictures = [], masts }: { pictures?: PictureBytes[]; masts?: ReadonlySet<string> },
): Promise<{ jobId: string; name: string }> {
  const job = jobOf(document)
  const changes = insertsOf(document, uuidv7, masts)
  await db.transaction(async tx => {
    const refused = await applyFresh(tx, who, job.id, changes)
    if (refused) throw new RangeError(refused)
    for (const p of pictures)
      await tx.insert(pictureFiles).values({ ...p, bytes: Buffer.from(p.bytes), crewId: who.crewId, jobId: job.id })
  })
  return { jobId: job.id, name: job.name }
}
