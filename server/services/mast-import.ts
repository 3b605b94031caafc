/**
 * Lists of masts on their way in. A list comes in pieces; each is one transaction that reads its
 * whole rows into a table of the import's own by COPY, so a lost connection, a double click or a
 * killed node repeats a piece and nothing else. The merge is one transaction more: until it ends,
 * nobody sees any of it.
 */
import { hash } from 'node:crypto'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { parse } from 'csv-parse/sync'
import { and, eq, sql } from 'drizzle-orm'
import type { Sql, TransactionSql } from 'postgres'
import { v7 as uuidv7 } from 'uuid'
import { crews, imports, mappings } from '../database/schema'
import type { Db } from '../utils/db'
import { copyRow } from '../utils/copy'
import { recordCuts } from '../../core/formats/csv'
import { readMastRow } from '../../core/formats/mast-csv'
import type { MastRow, MastRules } from '../../core/formats/mast-csv'
import type { MastImportState } from '../../shared/api'

/** Why an import cannot go on, said to who brings it. */
export class ImportRefusal extends Error {}

/** Text parsed at one go: the server answers others between two. */
const SLICE = 256_000
/** A row longer than this is a quote that was never closed. */
const LONGEST_ROW = 1_000_000

/** A quote may hold a line end, an empty line is no row. */
const LINES_DIFFER = /"|^\r?\n|\n\r?\n/

const COLUMNS = ['mast_id', 'cell_key', 'name', 'lat_deg', 'lon_deg', 'height_m', 'ground_m', 'carrier', 'technology', 'band', 'channel', 'cell_id', 'azimuth_deg', 'beamwidth_deg', 'power_dbm', 'accuracy_m', 'seen_on', 'line'] as const

const clientOf = (db: Db): Sql => db.$client as unknown as Sql
const stagingOf = (id: string): string => `staging_${id.replaceAll('-', '')}`

/** An id made of what names a thing in any list: RFC 9562 version 8. */
function idFrom(key: string): string {
  const h = hash('md5', key)
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-8${h.slice(13, 16)}-a${h.slice(17, 20)}-${h.slice(20)}`
}

/** Opens an import: a row that tells its state, and a table that only it sees. */
export async function startImport(db: Db, who: { crewId: string, name: string }, o: { name: string, delimiter: string, rules: MastRules, signature: string }): Promise<MastImportState> {
  await sweepOld(db)
  const id = uuidv7()
  await db.transaction(async (tx) => {
    await tx.insert(imports).values({ crewId: who.crewId, id, name: o.name, delimiter: o.delimiter, rules: o.rules, startedBy: who.name })
    await tx.execute(sql.raw(`create unlogged table ${stagingOf(id)} (mast_id uuid, cell_key uuid, name text, lat_deg float8, lon_deg float8, height_m float8, ground_m float8, carrier text, technology text, band text, channel int, cell_id text, azimuth_deg float8, beamwidth_deg float8, power_dbm float8, accuracy_m float8, seen_on date, line int) with (autovacuum_enabled = off)`))
    await tx.insert(mappings).values({ crewId: who.crewId, signature: o.signature, rules: o.rules })
      .onConflictDoUpdate({ target: [mappings.crewId, mappings.signature], set: { rules: o.rules, usedAt: sql`now()` as never } })
  })
  return (await importState(db, who.crewId, id))!
}

/** Imports that nobody has gone on with for a day give their tables back. */
async function sweepOld(db: Db): Promise<void> {
  const old = await db.update(imports).set({ state: 'cancelled', error: 'left for more than a day' })
    .where(and(eq(imports.state, 'receiving'), sql`${imports.changedAt} < now() - interval '1 day'`)).returning({ id: imports.id })
  for (const { id } of old) await db.execute(sql.raw(`drop table if exists ${stagingOf(id)}`))
}

export async function importState(db: Db, crewId: string, id: string): Promise<MastImportState | null> {
  const [row] = await db.select().from(imports).where(and(eq(imports.crewId, crewId), eq(imports.id, id)))
  if (!row) return null
  const { state, name, nextPiece, rows, kept, masts, cells, changed, step, error } = row
  return { id, state, name, nextPiece, rows, kept, masts, cells, changed, step, error }
}

/**
 * Takes piece `n` of the list as text. A piece that was taken before does nothing.
 * @throws ImportRefusal where pieces are missing before it, or the text is no table
 */
export async function takePiece(db: Db, crewId: string, id: string, n: number, text: string, last: boolean): Promise<MastImportState | null> {
  const carriers = await carrierNames(db, crewId)
  await clientOf(db).begin(async (tx) => {
    const [row] = await tx<{ state: string, next_piece: number, carry: string, lines: number, rows: number, rules: MastRules, delimiter: string }[]>`select state, next_piece, carry, lines, rows, rules, delimiter from imports where crew_id = ${crewId} and id = ${id} for update`
    if (!row) return
    if (row.state !== 'receiving') throw new ImportRefusal(row.state === 'cancelled' ? 'This import was stopped.' : 'This import takes no more pieces.')
    if (n < row.next_piece) return
    if (n > row.next_piece) throw new ImportRefusal(`Piece ${row.next_piece} comes first.`)
    const whole = row.carry + text
    const cuts = recordCuts(whole, row.delimiter, SLICE, last)
    const end = cuts.at(-1) ?? 0
    if (whole.length - end > LONGEST_ROW) throw new ImportRefusal(`The row after line ${row.lines} is longer than 1 MB: a quote there was never closed.`)
    const read = new PieceReader(row.rules, row.delimiter, carriers, row.lines)
    const staging = await tx`copy ${tx(stagingOf(id))} (${tx(COLUMNS as unknown as string[])}) from stdin`.writable()
    await pipeline(Readable.from(read.rows(whole, cuts)), staging)
    if (read.rejects.length) {
      const rejects = await tx`copy import_rejects (crew_id, import_id, line, reason, row) from stdin`.writable()
      await pipeline(Readable.from(read.rejects.map(r => copyRow([crewId, id, r.line, r.reason, r.row]))), rejects)
    }
    await tx`update imports set next_piece = next_piece + 1, carry = ${whole.slice(end)}, lines = ${read.lines}, rows = rows + ${read.count}, kept = kept + ${read.kept}, changed_at = now() where crew_id = ${crewId} and id = ${id}`
  })
  return importState(db, crewId, id)
}

/** Reads the rows of one piece; what it cannot use is listed with its line. */
class PieceReader {
  readonly rejects: { line: number, reason: string, row: string }[] = []
  count = 0
  kept = 0

  constructor(private readonly rules: MastRules, private readonly delimiter: string, private readonly carriers: Map<string, string>, public lines: number) {}

  * rows(text: string, cuts: readonly number[]): Generator<string> {
    let from = 0
    for (const to of cuts) {
      const slice = text.slice(from, to)
      from = to
      let out = ''
      for (const { record, line } of this.records(slice)) {
        if (line === 1) continue
        this.count++
        try {
          out += stagingRow(readMastRow(record, this.rules, code => this.carriers.get(code)), line)
          this.kept++
        }
        catch (e) {
          if (!(e instanceof RangeError)) throw e
          this.rejects.push({ line, reason: e.message, row: record.join(this.delimiter).slice(0, 500) })
        }
      }
      if (out) yield out
    }
  }

  private records(slice: string): { record: string[], line: number }[] {
    const before = this.lines
    for (let i = slice.indexOf('\n'); i >= 0; i = slice.indexOf('\n', i + 1)) this.lines++
    if (slice && !slice.endsWith('\n')) this.lines++
    try {
      const options = { delimiter: this.delimiter, bom: before === 0, relax_column_count: true, relax_quotes: true, skip_empty_lines: true }
      // Where every line is a row its number needs no counting by the parser, which takes a third of its time.
      if (!LINES_DIFFER.test(slice)) return (parse(slice, options) as string[][]).map((record, i) => ({ record, line: before + i + 1 }))
      const found = parse(slice, { ...options, info: true }) as unknown as { record: string[], info: { lines: number } }[]
      return found.map(f => ({ record: f.record, line: before + f.info.lines }))
    }
    catch (e) {
      throw new ImportRefusal(`The file does not read as CSV near line ${before + 1}: ${e instanceof Error ? e.message : e}`)
    }
  }
}

let mastRead = { key: '', id: '' }

/** Rows of a mast mostly follow each other. */
function mastIdFrom(key: string): string {
  if (key !== mastRead.key) mastRead = { key, id: idFrom(key) }
  return mastRead.id
}

/** A cell's id begins as its mast's does: what is written mast by mast is then written in the order of both. */
const cellIdFrom = (key: string, mastId: string): string => mastId.slice(0, 8) + idFrom(key).slice(8)

const stagingRow = (r: MastRow, line: number): string => copyRow([
  mastIdFrom(r.mastKey), cellIdFrom(r.cellKey, mastIdFrom(r.mastKey)), r.name, r.latDeg, r.lonDeg, r.heightM, r.groundM, r.carrier, r.technology, r.band, r.channel, r.cellId, r.azimuthDeg, r.beamwidthDeg, r.powerDbm, r.accuracyM, r.seenOn, line,
])

async function carrierNames(db: Db, crewId: string): Promise<Map<string, string>> {
  const [crew] = await db.select({ carriers: crews.carriers }).from(crews).where(eq(crews.id, crewId))
  return new Map((crew?.carriers ?? []).flatMap(c => c.codes.map(code => [code, c.name] as const)))
}

/** The list is whole: it may be merged now. @throws ImportRefusal where no row of it can be used */
export async function closeImport(db: Db, crewId: string, id: string): Promise<MastImportState | null> {
  const at = await importState(db, crewId, id)
  if (!at || at.state !== 'receiving') return at
  if (!at.rows) throw new ImportRefusal('The file holds no rows under its header.')
  if (!at.kept) {
    const [first] = await clientOf(db)<{ line: number, reason: string }[]>`select line, reason from import_rejects where crew_id = ${crewId} and import_id = ${id} order by line limit 1`
    throw new ImportRefusal(`None of the ${at.rows} rows can be used. The first: line ${first?.line}, ${first?.reason}.`)
  }
  await db.update(imports).set({ state: 'merging', step: 'waiting', changedAt: sql`now()` as never }).where(and(eq(imports.crewId, crewId), eq(imports.id, id), eq(imports.state, 'receiving')))
  return importState(db, crewId, id)
}

/** The merge could not be queued: the list waits to be closed again. */
export async function reopenImport(db: Db, crewId: string, id: string): Promise<void> {
  await db.update(imports).set({ state: 'receiving', step: null }).where(and(eq(imports.crewId, crewId), eq(imports.id, id), eq(imports.state, 'merging')))
}

/** Stops an import wherever it stands; what was merged before stays, nothing of this one is kept. */
export async function cancelImport(db: Db, crewId: string, id: string): Promise<MastImportState | null> {
  const stopped = await db.update(imports).set({ state: 'cancelled', step: null, changedAt: sql`now()` as never })
    .where(and(eq(imports.crewId, crewId), eq(imports.id, id), sql`${imports.state} in ('receiving', 'merging')`)).returning({ id: imports.id })
  if (stopped.length) await clientOf(db)`drop table if exists ${clientOf(db)(stagingOf(id))}`.catch(() => {})
  return importState(db, crewId, id)
}

class Stopped extends Error {}

/**
 * Merges a whole list: cells gathered to masts, the newest of each kept, all at once.
 *
 * A mast's place is the mean of its rows' places on the sphere, each weighed by its accuracy.
 * Of two lists the one with the later day wins; of the same day, the later brought.
 */
export async function mergeImport(db: Db, crewId: string, id: string): Promise<void> {
  const client = clientOf(db)
  const say = (step: string) => client`update imports set step = ${step}, changed_at = now() where crew_id = ${crewId} and id = ${id} and state = 'merging'`
  try {
    await client.begin(async (tx) => {
      const going = async (step: string) => {
        const told = await say(step)
        if (!told.count) throw new Stopped()
      }
      await going('sorting the rows')
      const setId = await setOf(tx, crewId, id)
      const { masts, cells, changed } = await mergeRows(tx, crewId, setId, stagingOf(id), going)
      await tx`update imports set state = 'done', step = null, masts = ${masts}, cells = ${cells}, changed = ${changed}, set_id = ${setId}, changed_at = now() where crew_id = ${crewId} and id = ${id} and state = 'merging'`
    })
    await client`drop table if exists ${client(stagingOf(id))}`
    await client`analyze cells`
  }
  catch (e) {
    if (e instanceof Stopped) return
    await client`update imports set state = 'failed', step = null, error = ${'The merge failed; nothing of the list was kept. It can be brought again.'} where crew_id = ${crewId} and id = ${id} and state = 'merging'`
    await client`drop table if exists ${client(stagingOf(id))}`
    throw e
  }
}

/** The set is known by its list's name; its counts are those of the last time. */
async function setOf(tx: TransactionSql, crewId: string, importId: string): Promise<string> {
  const [im] = await tx<{ name: string, rows: number, kept: number, by: string, listed: string | null }[]>`select name, rows, kept, started_by as by, rules->>'listedOn' as listed from imports where crew_id = ${crewId} and id = ${importId}`
  const [there] = await tx<{ id: string }[]>`select id from mast_sets where crew_id = ${crewId} and name = ${im!.name} for update`
  if (there) {
    await tx`update mast_sets set rows = ${im!.rows}, kept = ${im!.kept}, imported_at = now(), imported_by = ${im!.by}, listed_on = ${im!.listed} where crew_id = ${crewId} and id = ${there.id}`
    return there.id
  }
  const setId = uuidv7()
  await tx`insert into mast_sets (crew_id, id, name, rows, kept, imported_by, listed_on) values (${crewId}, ${setId}, ${im!.name}, ${im!.rows}, ${im!.kept}, ${im!.by}, ${im!.listed})`
  return setId
}

async function mergeRows(tx: TransactionSql, crewId: string, setId: string, staging: string, going: (step: string) => Promise<void>): Promise<{ masts: number, cells: number, changed: number }> {
  await tx`set local work_mem = '192MB'`
  await tx`set local maintenance_work_mem = '192MB'`
  await tx`set local synchronous_commit = off`
  // The check of a foreign key is a question too: half a million of them are planned once.
  await tx`set local plan_cache_mode = auto`
  await tx`create temp table fresh on commit drop as
    select distinct on (cell_key) * from ${tx(staging)} order by cell_key, seen_on desc nulls last, line desc`
  await going('gathering cells to masts')
  await tx`analyze fresh`
  await tx`create temp table found on commit drop as
    select mast_id, name, carrier, height_m, ground_m, bands, seen_on, accuracy_m,
      case when one_place then lat else degrees(atan2(z, sqrt(x * x + y * y))) end as lat_deg,
      case when one_place then lon else degrees(atan2(y, x)) end as lon_deg
    from (
      select mast_id, min(name) as name, min(carrier) as carrier, max(height_m) as height_m, max(ground_m) as ground_m,
        array_agg(distinct band order by band) as bands, max(seen_on) as seen_on,
        case when bool_and(accuracy_m is not null) then 1 / sqrt(sum(1 / greatest(accuracy_m, 1) ^ 2)) end as accuracy_m,
        min(lat_deg) as lat, min(lon_deg) as lon, min(lat_deg) = max(lat_deg) and min(lon_deg) = max(lon_deg) as one_place,
        sum(w * cosd(lat_deg) * cosd(lon_deg)) as x, sum(w * cosd(lat_deg) * sind(lon_deg)) as y, sum(w * sind(lat_deg)) as z
      from (select *, 1 / greatest(coalesce(accuracy_m, 1), 1) ^ 2 as w from fresh) f
      group by mast_id
    ) g`
  await going('writing masts')
  const masts = await tx`insert into masts as m (crew_id, id, set_id, name, lat_deg, lon_deg, height_m, ground_m, carrier, accuracy_m, seen_on, bands)
    select ${crewId}, mast_id, ${setId}, name, lat_deg, lon_deg, height_m, ground_m, carrier, accuracy_m, seen_on, bands from found
    on conflict (crew_id, id) do update set set_id = excluded.set_id, name = excluded.name, lat_deg = excluded.lat_deg, lon_deg = excluded.lon_deg,
      height_m = coalesce(excluded.height_m, m.height_m), ground_m = coalesce(excluded.ground_m, m.ground_m), accuracy_m = excluded.accuracy_m, seen_on = excluded.seen_on,
      bands = array(select distinct b from unnest(m.bands || excluded.bands) b order by b)
    where (m.seen_on is null or excluded.seen_on is null or excluded.seen_on >= m.seen_on)
      and ((m.name, m.lat_deg, m.lon_deg, coalesce(excluded.height_m, m.height_m), coalesce(excluded.ground_m, m.ground_m), m.accuracy_m, m.seen_on)
          is distinct from (excluded.name, excluded.lat_deg, excluded.lon_deg, m.height_m, m.ground_m, excluded.accuracy_m, excluded.seen_on)
        or not m.bands @> excluded.bands)`
  await going('writing cells')
  // Without it the plans below, those of the checks of foreign keys too, are made for the few masts there were.
  await tx`analyze found`
  await tx`analyze masts`
  const cells = await tx`insert into cells as c (crew_id, id, mast_id, technology, band, cell_id, channel, azimuth_deg, beamwidth_deg, power_dbm)
    select ${crewId}, f.cell_key, f.mast_id, f.technology, f.band, f.cell_id, f.channel, f.azimuth_deg, f.beamwidth_deg, f.power_dbm
    from fresh f join found g using (mast_id) join masts m on m.crew_id = ${crewId} and m.id = f.mast_id
    where m.seen_on is null or f.seen_on is null or f.seen_on >= m.seen_on or g.seen_on = m.seen_on
    on conflict (crew_id, id) do update set channel = coalesce(excluded.channel, c.channel), beamwidth_deg = excluded.beamwidth_deg, power_dbm = excluded.power_dbm
    where (c.beamwidth_deg, c.power_dbm, coalesce(excluded.channel, c.channel)) is distinct from (excluded.beamwidth_deg, excluded.power_dbm, c.channel)`
  await going('closing')
  const [count] = await tx<{ masts: number, cells: number }[]>`select (select count(*)::int from found) as masts, (select count(*)::int from fresh) as cells`
  return { ...count!, changed: masts.count + cells.count }
}

/** Rows that were not taken, a page at a time, in the file's order. */
export async function* rejectedRows(db: Db, crewId: string, id: string): AsyncGenerator<{ line: number, reason: string, row: string }[]> {
  const client = clientOf(db)
  for await (const rows of client<{ line: number, reason: string, row: string }[]>`select line, reason, row from import_rejects where crew_id = ${crewId} and import_id = ${id} order by line`.cursor(1000)) yield rows
}

export async function firstRejects(db: Db, crewId: string, id: string, most = 50): Promise<{ line: number, reason: string, row: string }[]> {
  return clientOf(db)<{ line: number, reason: string, row: string }[]>`select line, reason, row from import_rejects where crew_id = ${crewId} and import_id = ${id} order by line limit ${most}`
}
