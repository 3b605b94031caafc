/** Reading an archive: bounded in entries, bytes and rows before anything of it is believed. No database, no waiting. */
import { Unzip, UnzipInflate } from 'fflate'
import { v7 as uuidv7 } from 'uuid'
import { errorsOf } from '../data/check'
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, documentFrom, remapped, rowSchema, TABLES, without } from '../../core/job'
import type { JobDocument, Manifest } from '../../core/job'
import { imageKind } from './image-kind'

/** Bytes of an archive as it comes, and of all that it unpacks to. */
export const LARGEST_ARCHIVE = 60_000_000
const LARGEST_UNPACKED = 200_000_000
const LARGEST_JSON = 60_000_000
const MOST_ENTRIES = 5000
/** Unpacked so much at a time: what lies about its size is found out soon. */
const CHUNK = 64_000
const PICTURE = /^pictures\/([0-9a-f-]{36})\.(png|jpg|webp)$/
export const MIMES = { png: 'image/png', jpg: 'image/jpeg', webp: 'image/webp' } as const

export interface PictureBytes {
  id: string
  mime: string
  bytes: Uint8Array
}

/** More than is read of an archive. */
class TooMuch extends RangeError {}

const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b

/** Counts what comes out, whatever the entries say of themselves. */
function unpacked(bytes: Uint8Array): Map<string, Uint8Array> {
  if (!isZip(bytes)) throw new RangeError('The file is no ZIP archive that can be read.')
  const files = new Map<string, Uint8Array>()
  let total = 0
  let entries = 0
  let trouble = null as Error | null
  const reader = new Unzip(file => {
    if (++entries > MOST_ENTRIES) throw new TooMuch(`The archive holds more than ${MOST_ENTRIES} files.`)
    const isJson = file.name === 'manifest.json' || file.name === 'job.json'
    if (!isJson && !PICTURE.test(file.name)) return
    const parts: Uint8Array[] = []
    let own = 0
    file.ondata = (e, part, last) => {
      // What this very function threw comes back as an error of the file.
      trouble ??= e
      if (trouble) return
      total += part.length
      own += part.length
      if (total > LARGEST_UNPACKED) throw new TooMuch('The archive unpacks to more than 200 MB.')
      if (isJson && own > LARGEST_JSON) throw new TooMuch(`${file.name} is larger than ${LARGEST_JSON / 1e6} MB.`)
      parts.push(part)
      if (last) files.set(file.name, Buffer.concat(parts))
    }
    file.start()
  })
  reader.register(UnzipInflate)
  try {
    for (let at = 0; at < bytes.length && !trouble; at += CHUNK)
      reader.push(bytes.subarray(at, at + CHUNK), at + CHUNK >= bytes.length)
  } catch (e) {
    trouble = e as Error
  }
  if (trouble) throw trouble instanceof TooMuch ? trouble : new RangeError('The file is no ZIP archive that can be read.')
  return files
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
 * @returns the job of an archive, under new ids, with its pictures
 * @throws RangeError with what is wrong with it
 */
export function readArchive(bytes: Uint8Array): { document: JobDocument; pictures: PictureBytes[] } {
  const files = unpacked(bytes)
  const manifest = parsed(files.get('manifest.json'), 'manifest.json') as Partial<Manifest> | null
  if (typeof manifest !== 'object' || manifest === null || manifest.format !== ARCHIVE_FORMAT)
    throw new RangeError('The archive is not one of a job.')
  if (typeof manifest.version !== 'number' || manifest.version > ARCHIVE_VERSION)
    throw new RangeError(`The archive is of version ${String(manifest.version)}; this program reads up to ${ARCHIVE_VERSION}.`)
  const { document, ids } = remapped(documentFrom(parsed(files.get('job.json'), 'job.json')), uuidv7)
  checkRows(document)
  const pictures = [...files].flatMap(([path, data]): PictureBytes[] => {
    const match = PICTURE.exec(path)
    const id = match && ids.get(match[1]!)
    if (!id) return []
    const mime = MIMES[match[2] as keyof typeof MIMES]
    if (imageKind(data) !== mime) throw new RangeError(`${path} is no picture of its kind.`)
    return [{ id, mime, bytes: data }]
  })
  return { document, pictures }
}

/** @throws RangeError at the first row that no schema takes */
export function checkRows(document: JobDocument): void {
  for (const table of TABLES) {
    const schema = rowSchema(table)
    for (const [i, row] of (document[table] as { id: string; version?: number }[]).entries()) {
      const errors = errorsOf(schema, without(row as never, ['id', 'version']))
      if (errors?.length) throw new RangeError(`Row ${i + 1} of “${table}”: ${errors[0]!.field} ${errors[0]!.message}`)
    }
  }
}
