/** Reading a job back as a document, with the crew's masts near it. */
import { and, arrayOverlaps, eq, getTableColumns, gte, isNull, sql } from 'drizzle-orm'
import type { Placeholder, SQL } from 'drizzle-orm'
import { documentTableOf, masts, placeOnSphere } from '../data/schema'
import { LRUCache } from 'lru-cache'
import { compiled, planned } from '../data/db'
import type { Db } from '../data/db'
import { TABLE_FIELDS, TABLES } from '../../core/job'
import type { Cell, JobDocument, Mast, TableName } from '../../core/job'
import { MAST_RADIUS_M, MOST_MASTS } from '../../core/masts'
import { positionOf } from '../../core/survey'
import { BANDS } from '../../core/radio'
import type { Position } from '../../core/geo'
import type { JobSnapshot, JobState, NearMasts } from '../../shared/api'

/** An instant as the document holds it: ISO 8601 in UTC, to the millisecond. */
const asInstant = (column: unknown): SQL => sql`to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`

/** One table's rows of a job as a JSON array, in the order of their ids, under the document's own names. */
function rowsOf(name: TableName, job: SQL | Placeholder = sql.placeholder('job')): SQL {
  const table = documentTableOf(name)
  const columns = getTableColumns(table) as unknown as Record<string, { getSQLType: () => string }>
  const pairs = ['id', 'version', ...Object.keys(TABLE_FIELDS[name])].map(f => {
    const column = columns[f]!
    return sql`${sql.raw(`'${f}'`)}, ${column.getSQLType().startsWith('timestamp') ? asInstant(column) : column}`
  })
  const ofJob =
    name === 'jobs'
      ? sql`${table.crewId} = ${sql.placeholder('crew')} and ${table.id} = ${job}`
      : sql`${table.crewId} = ${sql.placeholder('crew')} and ${table.jobId} = ${job}`
  return sql`${sql.raw(`'${name}'`)}, (select coalesce(json_agg(json_build_object(${sql.join(pairs, sql`, `)}) order by
    ${table.id}), '[]'::json) from ${table} where ${ofJob})`
}

/** One statement that reads a job whole: a single look at the database, so that all tables agree. */
const wholeJob = compiled<{ document: JobDocument; sequence: number | null }>(sql`
  select json_build_object(${sql.join(
    TABLES.map(t => rowsOf(t)),
    sql`, `,
  )}) as document,
    (select sequence from jobs where crew_id = ${sql.placeholder('crew')} and id = ${sql.placeholder('job')}) as sequence`)

/** A method and the jobs made from it, in the order of their names: one statement, however many they are. */
const wholeFleet = compiled<{ id: string; state: JobState; document: JobDocument }>(sql`
  select j.id, j.state, json_build_object(${sql.join(
    TABLES.map(t => rowsOf(t, sql`j.id`)),
    sql`, `,
  )}) as document
  from jobs j
  where j.crew_id = ${sql.placeholder('crew')} and (j.id = ${sql.placeholder('method')} or j.method_id = ${sql.placeholder('method')})
  order by j.name, j.id limit ${sql.placeholder('most')}`)

/** @returns the jobs of a fleet, masts of the crew's lists left out; none where the method is not this crew's */
export const readFleet = (db: Db, o: { crewId: string; methodId: string; most: number }) =>
  wholeFleet(db, { crew: o.crewId, method: o.methodId, most: o.most })

/** @returns the job's own rows; null where the job is not this crew's */
async function readOwn(db: Db, crewId: string, jobId: string): Promise<{ document: JobDocument; sequence: number } | null> {
  const [row] = await wholeJob(db, { crew: crewId, job: jobId })
  return row && row.sequence !== null ? { document: row.document, sequence: row.sequence } : null
}

/** @returns null where the job is not this crew's */
export async function readJob(db: Db, crewId: string, jobId: string): Promise<JobSnapshot | null> {
  const read = await readOwn(db, crewId, jobId)
  if (!read) return null
  const at = positionOf(read.document)
  return { ...read, near: at ? await mastsNear(db, crewId, at) : { masts: [], cells: [] } }
}

/** Masts near places as text, by crew, state of its lists, place and filter; about 60 MB. */
const nearTexts = new LRUCache<string, string>({ max: 1000, maxSize: 30_000_000, sizeCalculation: text => text.length + 1 })

/**
 * Masts near a place as the answer's own text: they are many, and stay the same until the crew's lists
 * change, so they are looked up and written out once.
 * @param listState  what the crew's lists of masts are known by; another where one has changed
 */
export async function nearText(
  db: Db,
  crewId: string,
  listState: string,
  { at, ...f }: { at: Position } & MastFilter,
): Promise<string> {
  const key = JSON.stringify([crewId, listState, at.latDeg, at.lonDeg, f])
  const known = nearTexts.get(key)
  if (known !== undefined) return known
  const text = JSON.stringify(await mastsNear(db, crewId, at, f))
  nearTexts.set(key, text)
  return text
}

/** The job as the answer's own text. @returns null where the job is not this crew's */
export async function readJobText(db: Db, crewId: string, listState: string, jobId: string): Promise<string | null> {
  const read = await readOwn(db, crewId, jobId)
  if (!read) return null
  const at = positionOf(read.document)
  const near = at ? await nearText(db, crewId, listState, { at }) : '{"masts":[],"cells":[]}'
  return `${JSON.stringify(read).slice(0, -1)},"near":${near}}`
}

export interface MastFilter {
  radiusM?: number
  carrier?: string | null
  /** any of these bands */
  bands?: string[] | null
  technology?: 'LTE' | 'NR' | null
  /** ISO day: not seen since is left out */
  seenSince?: string | null
  most?: number
}

/** Names of the bands of a technology, as `masts.bands` holds them. */
const bandsOf = (technology: 'LTE' | 'NR'): string[] => BANDS.filter(b => b.technology === technology).map(b => b.name)

/**
 * The crew's own masts around a place, nearest first by chord length on the unit sphere, which
 * orders as the great circle does; the geodesic is taken afterwards.
 */
export async function mastsNear(db: Db, crewId: string, at: Position, f: MastFilter = {}): Promise<NearMasts> {
  const lat = (at.latDeg * Math.PI) / 180
  const lon = (at.lonDeg * Math.PI) / 180
  const point = sql`cube(array[${Math.cos(lat) * Math.cos(lon)}::float8, ${Math.cos(lat) * Math.sin(lon)}::float8,
    ${Math.sin(lat)}::float8])`
  const place = placeOnSphere(masts)
  const chord = 2 * Math.sin((f.radiusM ?? MAST_RADIUS_M) / 6_371_000 / 2)
  const wanted = f.bands?.length ? f.bands : f.technology ? bandsOf(f.technology) : null
  const rows = await planned<Mast & { cell: string | null; cellVersion: number } & Omit<Cell, 'id' | 'version' | 'mastId'>>(
    db,
    sql`
    select m.id, m.version, m.name, m.lat_deg as "latDeg", m.lon_deg as "lonDeg", m.height_m as "heightM",
      m.ground_m as "groundM", m.carrier, m.accuracy_m as "accuracyM", m.seen_on::text as "seenOn",
      c.id as cell, c.version as "cellVersion", c.technology, c.band, c.cell_id as "cellId", c.channel,
        c.azimuth_deg as "azimuthDeg", c.beamwidth_deg as "beamwidthDeg", c.power_dbm as "powerDbm"
    from (select *, ${place} <-> ${point} as far from ${masts}
      where ${and(
        eq(masts.crewId, crewId),
        isNull(masts.jobId),
        sql`${place} <@ cube_enlarge(${point}, ${chord}::float8, 3)`,
        sql`${place} <-> ${point} <= ${chord}::float8`,
        f.carrier ? eq(masts.carrier, f.carrier) : undefined,
        wanted ? arrayOverlaps(masts.bands, wanted) : undefined,
        f.seenSince ? gte(masts.seenOn, f.seenSince) : undefined,
      )}
      order by ${place} <-> ${point} limit ${f.most ?? MOST_MASTS}) m
    left join cells c on c.crew_id = m.crew_id and c.mast_id = m.id and c.job_id is null
    order by m.far, m.id`,
  )
  const found: Mast[] = []
  const cells: Cell[] = []
  for (const r of rows) {
    const { cell, cellVersion, technology, band, cellId, channel, azimuthDeg, beamwidthDeg, powerDbm, ...mast } = r
    if (found.at(-1)?.id !== mast.id) found.push(mast)
    if (cell)
      cells.push({
        id: cell,
        version: cellVersion,
        mastId: mast.id,
        technology,
        band,
        cellId,
        channel,
        azimuthDeg,
        beamwidthDeg,
        powerDbm,
      })
  }
  return { masts: found, cells }
}
