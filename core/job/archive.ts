/** A job as files: what an archive of it holds, and what is taken back from one. */
import { emptyDocument, LATER_FIELDS, rowSchema, TABLE_FIELDS, TABLES } from './schema'
import type { JobDocument, TableName } from './schema'

export const ARCHIVE_FORMAT = 'multivox-job'
export const ARCHIVE_VERSION = 1
/** Rows of an archive at most: a job of years has some tens of thousands. */
export const MOST_ROWS = 200_000

export interface Manifest {
  format: string
  version: number
  engine: string
  exportedAtUtc: string
  job: string
  pictures: string[]
}

/** @returns the JSON Schema of each table's rows, as files */
export const schemaFiles = (): Record<string, object> =>
  Object.fromEntries(
    TABLES.map(t => [
      `schemas/${t}.json`,
      {
        $schema: 'https://json-schema.org/draft/2020-12/schema',
        title: t,
        type: 'array',
        items: {
          allOf: [
            { type: 'object', required: ['id'] },
            { ...rowSchema(t), additionalProperties: true },
          ],
        },
      },
    ]),
  )

/**
 * An archive's document with what it lacks put in: tables that came later are empty, fields that came later are as they
 * were before.
 * @throws RangeError where it is no document of a job, or not one job, or too much
 */
export function documentFrom(json: unknown): JobDocument {
  if (typeof json !== 'object' || json === null) throw new RangeError('job.json holds no job')
  const out = emptyDocument()
  let rows = 0
  for (const table of TABLES) {
    const list = (json as Record<string, unknown>)[table]
    if (list === undefined) continue
    if (!Array.isArray(list)) throw new RangeError(`job.json: “${table}” is no list`)
    rows += list.length
    if (rows > MOST_ROWS) throw new RangeError(`job.json holds more than ${MOST_ROWS} rows`)
    out[table] = list.map((row, i) => rowFrom(table, row, i)) as never
  }
  if (out.jobs.length !== 1) throw new RangeError(`job.json holds ${out.jobs.length} jobs; one is wanted`)
  if (out.sites.length !== 1) throw new RangeError('job.json holds no site')
  return out
}

function rowFrom(table: TableName, row: unknown, i: number): object {
  if (typeof row !== 'object' || row === null || typeof (row as { id?: unknown }).id !== 'string')
    throw new RangeError(`job.json: row ${i + 1} of “${table}” has no id`)
  const known = new Set(['id', ...Object.keys(TABLE_FIELDS[table])])
  const kept = Object.entries(row).filter(([k]) => known.has(k))
  return { ...LATER_FIELDS[table], ...Object.fromEntries(kept) }
}
