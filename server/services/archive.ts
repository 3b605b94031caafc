/** Jobs as ZIP files: one out, one in under new ids, and a job copied as a template. */
import { and, eq } from 'drizzle-orm'
import { unzip, zip } from 'fflate'
import type { Unzipped, Zippable } from 'fflate'
import { v7 as uuidv7 } from 'uuid'
import { pictureFiles } from '../database/schema'
import type { Db } from '../utils/db'
import { errorsOf } from '../utils/validate'
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, documentFrom, schemaFiles } from '../../core/job/archive'
import type { Manifest } from '../../core/job/archive'
import { insertsOf, remapped } from '../../core/job/copy'
import { rowSchema, TABLES, without } from '../../core/job/schema'
import type { JobDocument } from '../../core/job/schema'
import { ENGINE_VERSION } from '../../core/judge/assess'
import type { JobSnapshot } from '../../shared/api'
import { applyIn } from './changes'

/** Bytes of an archive as it comes, and of all that it unpacks to. */
export const LARGEST_ARCHIVE = 60_000_000
const LARGEST_UNPACKED = 200_000_000
const PICTURE = /^pictures\/([0-9a-f-]{36})\.(png|jpg|webp)$/
const MIMES = { png: 'image/png', jpg: 'image/jpeg', webp: 'image/webp' } as const

interface PictureBytes {
  id: string
  mime: string
  bytes: Uint8Array
}

const packed = (files: Zippable): Promise<Uint8Array> =>
  new Promise((done, fail) => zip(files, { level: 6 }, (e, data) => (e ? fail(e) : done(data))))

const json = (value: unknown): Uint8Array => new TextEncoder().encode(`${JSON.stringify(value, null, 1)}\n`)

/** @returns the job as a ZIP of JSON: its rows, the schemas they follow, and its pictures */
export async function exportJob(db: Db, crewId: string, { document, near }: JobSnapshot, atUtc: string): Promise<Uint8Array> {
  const job = document.jobs[0]!
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

async function unpacked(bytes: Uint8Array): Promise<Unzipped> {
  let total = 0
  return new Promise((done, fail) =>
    unzip(
      bytes,
      {
        filter: file => {
          total += file.originalSize
          if (total > LARGEST_UNPACKED) throw new RangeError('The archive unpacks to more than 200 MB.')
          return file.name === 'manifest.json' || file.name === 'job.json' || PICTURE.test(file.name)
        },
      },
      (e, files) =>
        e ? fail(e instanceof RangeError ? e : new RangeError('The file is no ZIP archive that can be read.')) : done(files),
    ),
  )
}

/**
 * Makes a job of an archive, under new ids.
 * @throws RangeError with what is wrong with it; nothing is written then
 */
export async function importJob(
  db: Db,
  who: { crewId: string; memberId: string },
  bytes: Uint8Array,
): Promise<{ jobId: string; name: string }> {
  const files = await unpacked(bytes)
  const manifest = parsed(files['manifest.json'], 'manifest.json') as Partial<Manifest>
  if (manifest.format !== ARCHIVE_FORMAT) throw new RangeError('The archive is not one of a job.')
  if (typeof manifest.version !== 'number' || manifest.version > ARCHIVE_VERSION)
    throw new RangeError(`The archive is of version ${String(manifest.version)}; this program reads up to ${ARCHIVE_VERSION}.`)
  const { document, ids } = remapped(documentFrom(parsed(files['job.json'], 'job.json')), uuidv7)
  const pictures = Object.entries(files).flatMap(([path, data]) => {
    const match = PICTURE.exec(path)
    const id = match && ids.get(match[1]!)
    return id ? [{ id, mime: MIMES[match[2] as keyof typeof MIMES], bytes: data }] : []
  })
  return makeJob(db, who, document, { pictures })
}

function parsed(bytes: Uint8Array | undefined, name: string): unknown {
  if (!bytes) throw new RangeError(`The archive holds no ${name}.`)
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes))
  } catch {
    throw new RangeError(`${name} cannot be read.`)
  }
}

/**
 * Writes a document as a job of the crew: all of it, or nothing.
 * @param o  its pictures, and ids of the crew's own masts that it may name
 */
export async function makeJob(
  db: Db,
  who: { crewId: string; memberId: string },
  document: JobDocument,
  { pictures = [], masts }: { pictures?: PictureBytes[]; masts?: ReadonlySet<string> } = {},
): Promise<{ jobId: string; name: string }> {
  for (const table of TABLES) {
    const schema = rowSchema(table)
    for (const [i, row] of (document[table] as { id: string; version?: number }[]).entries()) {
      const errors = errorsOf(schema, without(row as never, ['id', 'version']))
      if (errors?.length) throw new RangeError(`Row ${i + 1} of “${table}”: ${errors[0]!.field} ${errors[0]!.message}`)
    }
  }
  const job = document.jobs[0]!
  const changes = insertsOf(document, uuidv7, masts)
  await db.transaction(async tx => {
    const result = await applyIn(tx, who, job.id, changes)
    const [refused] = result?.rejected ?? []
    if (!result || refused || result.conflicts.length) throw new RangeError(refused?.detail ?? 'The job could not be made.')
    if (pictures.length) await tx.insert(pictureFiles).values(pictures.map(p => ({ ...p, crewId: who.crewId, jobId: job.id })))
  })
  return { jobId: job.id, name: job.name }
}
