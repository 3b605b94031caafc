/**
 * Lists of masts on their way in. A list comes in pieces; each is one transaction that reads its
 * whole rows into a table of the import's own by COPY, so a lost connection, a double click or a
 * killed node repeats a piece and nothing else. The merge is one transaction more: until it ends,
 * nobody sees any of it.
 *
 * All of it runs in the pool for long work: a list can hold up other lists, and nobody else.
 */
import { createHash, hash } from 'node:crypto'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { parse } from 'csv-parse/sync'
import { from as copyFrom } from 'pg-copy-streams'
import { v7 as uuidv7 } from 'uuid'
import { copyRow } from '../data/copy'
import { inTransaction, longRows, useLongDb } from '../data/long-db'
import type { PoolClient } from '../data/long-db'
import { isRefusedValue } from '../data/sql-state'
import { markStrays, readMastRow, recordCuts, STRAY_MARK } from '../../core/formats'
import type { MastRow, MastRules } from '../../core/formats'
import type { MastImportState } from '../../shared/api'

/** Why an import cannot go on, said to who brings it. */
export class ImportRefusal extends Error {}

/** Text parsed at one go: the server answers others between two. */
const SLICE = 256_000
/** A row longer than this is a quote that was never closed. */
const LONGEST_ROW = 1_000_000

/** A quote may hold a line end, an empty line is no row. */
const LINES_DIFFER = /"|^\r?\n|\n\r?\n/

const COLUMNS = [
  'mast_id',
  'cell_key',
  'name',
  'lat_deg',
  'lon_deg',
  'height_m',
  'ground_m',
  'carrier',
  'technology',
  'band',
  'channel',
  'cell_id',
  'azimuth_deg',
  'beamwidth_deg',
  'power_dbm',
  'accuracy_m',
  'seen_on',
  'line',
] as const

const STAGING = `(mast_id uuid, cell_key uuid, name text, lat_deg float8, lon_deg float8, height_m float8, ground_m float8, carrier text,
  technology text, band text, channel int, cell_id text, azimuth_deg float8, beamwidth_deg float8, power_dbm float8, accuracy_m float8,
  seen_on date, line int) with (autovacuum_enabled = off)`

/** The import's own table, by its id; the id is one that the server made. */
const stagingOf = (id: string): string => `staging_${id.replaceAll('-', '')}`
/** A merge that holds the table is not waited for: it drops it itself. */
const dropStaging = (id: string): Promise<unknown> =>
  inTransaction(async tx => {
    await tx.query('set local lock_timeout = 500')
    await tx.query(`drop table if exists ${stagingOf(id)}`)
  })

/** An id made of what names a thing in any list: RFC 9562 version 8. */
function idFrom(key: string): string {
  const h = hash('md5', key)
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-8${h.slice(13, 16)}-a${h.slice(17, 20)}-${h.slice(20)}`
}

interface Opening {
  name: string
  delimiter: string
  rules: MastRules
  signature: string
}

/** Headings may be as long as a page; what a crew's mapping is found by is not. */
export const mappingKey = (signature: string): string => createHash('sha256').update(signature).digest('hex')

/** Opens an import: a row that tells its state, and a table that only it sees. */
export async function startImport(who: { crewId: string; name: string }, o: Opening): Promise<MastImportState> {
  await sweepOld()
  const id = uuidv7()
  await inTransaction(async tx => {
    await tx.query('insert into imports (crew_id, id, name, delimiter, rules, started_by) values ($1, $2, $3, $4, $5, $6)', [
      who.crewId,
      id,
      o.name,
      o.delimiter,
      o.rules,
      who.name,
    ])
    await tx.query(`create unlogged table ${stagingOf(id)} ${STAGING}`)
    await tx.query(
      `insert into mappings (crew_id, signature, rules) values ($1, $2, $3) on conflict (crew_id, signature) do update set
        rules = excluded.rules, used_at = now()`,
      [who.crewId, mappingKey(o.signature), o.rules],
    )
  })
  return (await importState(who.crewId, id))!
}

/** Imports that nobody has gone on with for a day give their tables back. */
async function sweepOld(): Promise<void> {
  const old = await longRows<{ id: string }>(
    `update imports set state = 'cancelled', error = 'left for more than a day' where state = 'receiving' and changed_at <
      now() - interval '1 day' returning id`,
  )
  for (const { id } of old) await dropStaging(id).catch(() => {})
}

export async function importState(crewId: string, id: string): Promise<MastImportState | null> {
  const [row] = await longRows<MastImportState>(
    `select id, name, state, next_piece as "nextPiece", rows, kept, masts, cells, changed, step, error from imports where
      crew_id = $1 and id = $2`,
    [crewId, id],
  )
  return row ?? null
}

interface Receiving {
  state: string
  next_piece: number
  carry: string
  lines: number
  rows: number
  kept: number
  rules: MastRules
  delimiter: string
}

const RECEIVING =
  'select state, next_piece, carry, lines, rows, kept, rules, delimiter from imports where crew_id = $1 and id = $2 for update'

/**
 * Takes piece `n` of the list as text. A piece that was taken before does nothing; a row that the
 * database refuses is rejected like any other, and the piece goes on.
 * @throws ImportRefusal where pieces are missing before it, or the text is no table
 */
export async function takePiece(
  crewId: string,
  id: string,
  { n, text, last }: { n: number; text: string; last: boolean },
): Promise<MastImportState | null> {
  const carriers = await carrierNames(crewId)
  await inTransaction(async tx => {
    const {
      rows: [row],
    } = await tx.query<Receiving>(RECEIVING, [crewId, id])
    if (!row) return
    if (row.state !== 'receiving')
      throw new ImportRefusal(row.state === 'cancelled' ? 'This import was stopped.' : 'This import takes no more pieces.')
    if (row.kept && !(await holds(tx, id, 1))) return beginAgain(tx, crewId, id)
    if (n < row.next_piece) return
    if (n > row.next_piece) throw new ImportRefusal(`Piece ${row.next_piece} comes first.`)
    // The one character that no database takes is nobody's text.
    const whole = row.carry + text.replaceAll(String.fromCharCode(0), '')
    const cuts = recordCuts(whole, row.delimiter, SLICE, last)
    const end = cuts.at(-1) ?? 0
    if (whole.length - end > LONGEST_ROW)
      throw new ImportRefusal(`The row after line ${row.lines} is longer than 1 MB: a quote there was never closed.`)
    const read = new PieceReader(row.rules, row.delimiter, carriers, row.lines)
    const parts = [...read.rows(whole, cuts)]
    const refused = await copyParts(tx, id, parts)
    if (read.rejects.length + refused.length) await keepRejects(tx, crewId, id, [...read.rejects, ...refused])
    await tx.query(
      `update imports set next_piece = next_piece + 1, carry = $3, lines = $4, rows = rows + $5, kept = kept + $6,
        changed_at = now() where crew_id = $1 and id = $2`,
      [crewId, id, whole.slice(end), read.lines, read.count, read.kept - refused.length],
    )
  })
  return importState(crewId, id)
}

/** Whether the import's own table still holds rows: a database that crashed empties it. */
async function holds(tx: PoolClient, id: string, least: number): Promise<boolean> {
  const { rows } = await tx.query(`select 1 from ${stagingOf(id)} limit ${least}`)
  return rows.length >= least
}

/** The database lost what had come: the list is asked for from its beginning. */
async function beginAgain(tx: PoolClient, crewId: string, id: string): Promise<void> {
  await tx.query(`truncate ${stagingOf(id)}`)
  await tx.query('delete from import_rejects where crew_id = $1 and import_id = $2', [crewId, id])
  await tx.query(
    `update imports set state = 'receiving', next_piece = 0, carry = '', lines = 0, rows = 0, kept = 0, tries = 0,
      step = 'the database was restarted: begun again', changed_at = now() where crew_id = $1 and id = $2`,
    [crewId, id],
  )
}

interface Reject {
  line: number
  reason: string
  row: string
}

/** Copies a piece's rows; where the database refuses one, it is found by halving, and the others stay. */
async function copyParts(tx: PoolClient, id: string, parts: readonly string[]): Promise<Reject[]> {
  if (!parts.length) return []
  await tx.query('savepoint piece')
  try {
    await copyText(tx, id, parts)
    await tx.query('release savepoint piece')
    return []
  } catch (e) {
    if (!isRefusedValue(e)) throw e
    await tx.query('rollback to savepoint piece')
    return copyHalves(
      tx,
      id,
      parts
        .join('')
        .split('\n')
        .filter(Boolean)
        .map(l => `${l}\n`),
    )
  }
}

async function copyHalves(tx: PoolClient, id: string, lines: readonly string[]): Promise<Reject[]> {
  await tx.query('savepoint half')
  try {
    await copyText(tx, id, [lines.join('')])
    await tx.query('release savepoint half')
    return []
  } catch (e) {
    if (!isRefusedValue(e)) throw e
    await tx.query('rollback to savepoint half')
    if (lines.length > 1) {
      const middle = lines.length >> 1
      return [...(await copyHalves(tx, id, lines.slice(0, middle))), ...(await copyHalves(tx, id, lines.slice(middle)))]
    }
    const fields = lines[0]!.trimEnd().split('\t')
    return [
      {
        line: Number(fields.at(-1)),
        reason: 'a value is of a kind or size that cannot be kept',
        row: fields.slice(2, -1).join(' ').slice(0, 500),
      },
    ]
  }
}

const copyText = (tx: PoolClient, id: string, parts: readonly string[]): Promise<void> =>
  pipeline(Readable.from(parts), tx.query(copyFrom(`copy ${stagingOf(id)} (${COLUMNS.join(', ')}) from stdin`)))

async function keepRejects(tx: PoolClient, crewId: string, id: string, rejects: readonly Reject[]): Promise<void> {
  const lines = rejects.map(r => copyRow([crewId, id, r.line, r.reason, r.row]))
  await pipeline(
    Readable.from(lines),
    tx.query(copyFrom('copy import_rejects (crew_id, import_id, line, reason, row) from stdin')),
  )
}

/** Reads the rows of one piece; what it cannot use is listed with its line. */
class PieceReader {
  readonly rejects: Reject[] = []
  count = 0
  kept = 0

  constructor(
    private readonly rules: MastRules,
    private readonly delimiter: string,
    private readonly carriers: Map<string, string>,
    public lines: number,
  ) {}

  *rows(text: string, cuts: readonly number[]): Generator<string> {
    let from = 0
    for (const to of cuts) {
      const slice = text.slice(from, to)
      from = to
      let out = ''
      for (const { record, line } of this.records(slice)) {
        if (line === 1) continue
        this.count++
        try {
          out += stagingRow(
            readMastRow(record, this.rules, code => this.carriers.get(code)),
            line,
          )
          this.kept++
        } catch (e) {
          if (!(e instanceof RangeError)) throw e
          this.rejects.push({
            line,
            reason: e.message,
            row: record.join(this.delimiter).replaceAll(STRAY_MARK, '').slice(0, 500),
          })
        }
      }
      if (out) yield out
    }
  }

  private records(rows: string): { record: string[]; line: number }[] {
    const slice = markStrays(rows, this.delimiter)
    const before = this.lines
    for (let i = slice.indexOf('\n'); i >= 0; i = slice.indexOf('\n', i + 1)) this.lines++
    if (slice && !slice.endsWith('\n')) this.lines++
    try {
      const options = {
        delimiter: this.delimiter,
        bom: before === 0,
        relax_column_count: true,
        relax_quotes: true,
        skip_empty_lines: true,
      }
      // Where every line is a row its number needs no counting by the parser, which takes a third of its time.
      if (!LINES_DIFFER.test(slice))
        return (parse(slice, options) as string[][]).map((record, i) => ({ record, line: before + i + 1 }))
      const found = parse(slice, { ...options, info: true }) as unknown as { record: string[]; info: { lines: number } }[]
      return found.map(f => ({ record: f.record, line: before + f.info.lines }))
    } catch (e) {
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

const stagingRow = (r: MastRow, line: number): string =>
  copyRow([
    mastIdFrom(r.mastKey),
    cellIdFrom(r.cellKey, mastIdFrom(r.mastKey)),
    r.name,
    r.latDeg,
    r.lonDeg,
    r.heightM,
    r.groundM,
    r.carrier,
    r.technology,
    r.band,
    r.channel,
    r.cellId,
    r.azimuthDeg,
    r.beamwidthDeg,
    r.powerDbm,
    r.accuracyM,
    r.seenOn,
    line,
  ])

async function carrierNames(crewId: string): Promise<Map<string, string>> {
  const [crew] = await longRows<{ carriers: { name: string; codes: string[] }[] }>('select carriers from crews where id = $1', [
    crewId,
  ])
  return new Map((crew?.carriers ?? []).flatMap(c => c.codes.map(code => [code, c.name] as const)))
}

/** The list is whole: it may be merged now. @throws ImportRefusal where no row of it can be used */
export async function closeImport(crewId: string, id: string): Promise<MastImportState | null> {
  const at = await importState(crewId, id)
  if (!at || at.state !== 'receiving') return at
  if (!at.rows)
    throw new ImportRefusal(
      at.step ? `The database was restarted meanwhile: bring the list again.` : 'The file holds no rows under its header.',
    )
  if (!at.kept) {
    const [first] = await firstRejects(crewId, id, 1)
    throw new ImportRefusal(`None of the ${at.rows} rows can be used. The first: line ${first?.line}, ${first?.reason}.`)
  }
  await longRows(
    `update imports set state = 'merging', step = 'waiting', changed_at = now() where crew_id = $1 and id = $2 and state = 'receiving'`,
    [crewId, id],
  )
  return importState(crewId, id)
}

/** Stops an import wherever it stands; what was merged before stays, nothing of this one is kept. */
export async function cancelImport(crewId: string, id: string): Promise<MastImportState | null> {
  const stopped = await longRows(
    `update imports set state = 'cancelled', step = null, changed_at = now() where crew_id = $1 and id = $2 and state in
      ('receiving', 'merging') returning id`,
    [crewId, id],
  )
  if (stopped.length) await dropStaging(id).catch(() => {})
  return importState(crewId, id)
}

class Stopped extends Error {}

/** Merges of one import, on whatever nodes, one at a time: the lock is the session's and goes with a killed node. */
const LOCK = 'hashtextextended($1, 7)'

/** Imports whose merge nobody does: their node was killed, or they came back with a restored database. */
export const abandonedMerges = (): Promise<{ crewId: string; importId: string }[]> =>
  longRows(`
  select crew_id as "crewId", id as "importId" from imports where state = 'merging' and changed_at < now() - interval '10 seconds'
    and not exists (select 1 from pg_locks where locktype = 'advisory' and granted
      and (classid::bigint << 32) | objid::bigint = hashtextextended(imports.id::text, 7))`)

/** Tables of imports that ended without clearing up: their node was killed. */
export async function dropLeftovers(): Promise<void> {
  const left = await longRows<{
    name: string
  }>(`select tablename as name from pg_tables where schemaname = 'public' and tablename like 'staging\\_%'
    and not exists (select 1 from imports where state in ('receiving', 'merging') and 'staging_' || replace(id::text,
      '-', '') = tablename)`)
  for (const { name } of left) if (/^staging_[0-9a-f]{32}$/.test(name)) await useLongDb().query(`drop table if exists ${name}`)
}

const MOST_TRIES = 3

/**
 * Merges a whole list: cells gathered to masts, the newest of each kept, all at once.
 *
 * A mast's place is the mean of its rows' places on the sphere, each weighed by its accuracy.
 * Of two lists the one with the later day wins; of the same day, the later brought.
 *
 * @throws what failed, where it may be tried again; the import then still waits to be merged
 */
export async function mergeImport(crewId: string, id: string): Promise<void> {
  const say = (step: string) =>
    longRows(
      `update imports set step = $3, changed_at = now() where crew_id = $1 and id = $2 and state = 'merging' returning id`,
      [crewId, id, step],
    )
  const going = async (step: string) => {
    if (!(await say(step)).length) throw new Stopped()
  }
  let tries = 0
  const begin = async () => {
    const [begun] = await longRows<{ tries: number }>(
      `update imports set tries = tries + 1, step = 'sorting the rows', changed_at = now() where crew_id = $1 and id = $2
        and state = 'merging' returning tries`,
      [crewId, id],
    )
    if (!begun) throw new Stopped()
    tries = begun.tries
    if (tries > MOST_TRIES) throw new Error('tried too often')
  }
  try {
    await inTransaction(async tx => {
      const {
        rows: [mine],
      } = await tx.query<{ mine: boolean }>(`select pg_try_advisory_xact_lock(${LOCK}) as mine`, [id])
      if (!mine!.mine) throw new Stopped()
      await begin()
      const {
        rows: [count],
      } = await tx.query<{ there: number; kept: number }>(
        `select (select count(*)::int from ${stagingOf(id)}) as there, kept from imports where crew_id = $1 and id = $2`,
        [crewId, id],
      )
      if (count!.there !== count!.kept) return beginAgain(tx, crewId, id)
      const setId = await setOf(tx, crewId, id)
      const { masts, cells, changed } = await mergeRows(tx, crewId, setId, { staging: stagingOf(id), going })
      const done = await tx.query(
        `update imports set state = 'done', step = null, masts = $3, cells = $4, changed = $5, set_id = $6, changed_at = now()
          where crew_id = $1 and id = $2 and state = 'merging'`,
        [crewId, id, masts, cells, changed, setId],
      )
      // Stopped at the last moment: nothing of it is kept.
      if (!done.rowCount) throw new Stopped()
    })
  } catch (e) {
    if (e instanceof Stopped) {
      if ((await importState(crewId, id))?.state === 'cancelled') await dropStaging(id)
      return
    }
    if (tries < MOST_TRIES) {
      await say(`failed, tried again (${tries} of ${MOST_TRIES})`)
      throw e
    }
    await longRows(
      `update imports set state = 'failed', step = null, error = $3, changed_at = now() where crew_id = $1 and id = $2 and
        state = 'merging'`,
      [crewId, id, 'The merge failed; nothing of the list was kept. It can be brought again.'],
    )
    await dropStaging(id)
    throw e
  }
  const after = await importState(crewId, id)
  if (after?.state !== 'done') return
  await dropStaging(id)
  await longRows('analyze cells')
}

/** The set is known by its list's name; its counts are those of the last time. */
async function setOf(tx: PoolClient, crewId: string, importId: string): Promise<string> {
  const {
    rows: [im],
  } = await tx.query<{ name: string; rows: number; kept: number; by: string; listed: string | null }>(
    `select name, rows, kept, started_by as by, rules->>'listedOn' as listed from imports where crew_id = $1 and id = $2`,
    [crewId, importId],
  )
  const told = [crewId, im!.name, im!.rows, im!.kept, im!.by, im!.listed]
  const {
    rows: [there],
  } = await tx.query<{ id: string }>(
    `update mast_sets set rows = $3, kept = $4, imported_at = now(), imported_by = $5, listed_on = $6 where crew_id = $1
      and name = $2 returning id`,
    told,
  )
  if (there) return there.id
  const setId = uuidv7()
  await tx.query(
    'insert into mast_sets (crew_id, name, rows, kept, imported_by, listed_on, id) values ($1, $2, $3, $4, $5, $6, $7)',
    [...told, setId],
  )
  return setId
}

/** What each row of the list becomes; the newest of each cell. */
const FRESH = (staging: string) => `create temp table fresh on commit drop as
  select distinct on (cell_key) * from ${staging} order by cell_key, seen_on desc nulls last, line desc`

const FOUND = `create temp table found on commit drop as
  select mast_id, name, carrier, height_m, ground_m, bands, seen_on, accuracy_m,
    case when one_place then lat else degrees(atan2(z, sqrt(x * x + y * y))) end as lat_deg,
    case when one_place then lon else degrees(atan2(y, x)) end as lon_deg
  from (
    select mast_id, min(name) as name, min(carrier) as carrier, max(height_m) as height_m, max(ground_m) as ground_m,
      coalesce(array_agg(distinct band order by band) filter (where band <> ''), '{}') as bands, max(seen_on) as seen_on,
      case when bool_and(accuracy_m is not null) then 1 / sqrt(sum(1 / greatest(accuracy_m, 1) ^ 2)) end as accuracy_m,
      min(lat_deg) as lat, min(lon_deg) as lon, min(lat_deg) = max(lat_deg) and min(lon_deg) = max(lon_deg) as one_place,
      sum(w * cosd(lat_deg) * cosd(lon_deg)) as x, sum(w * cosd(lat_deg) * sind(lon_deg)) as y, sum(w * sind(lat_deg)) as z
    from (select *, 1 / greatest(coalesce(accuracy_m, 1), 1) ^ 2 as w from fresh) f
    group by mast_id
  ) g`

const WRITE_MASTS = `insert into masts as m (crew_id, id, set_id, name, lat_deg, lon_deg, height_m, ground_m, carrier,
  accuracy_m, seen_on, bands)
  select $1, mast_id, $2, name, lat_deg, lon_deg, height_m, ground_m, carrier, accuracy_m, seen_on, bands from found
  on conflict (crew_id, id) do update set set_id = excluded.set_id, name = excluded.name, lat_deg = excluded.lat_deg,
    lon_deg = excluded.lon_deg,
    height_m = coalesce(excluded.height_m, m.height_m), ground_m = coalesce(excluded.ground_m, m.ground_m),
    accuracy_m = excluded.accuracy_m, seen_on = excluded.seen_on,
    bands = array(select distinct b from unnest(m.bands || excluded.bands) b order by b)
  where (m.seen_on is null or excluded.seen_on is null or excluded.seen_on >= m.seen_on)
    and ((m.name, m.lat_deg, m.lon_deg, coalesce(excluded.height_m, m.height_m), coalesce(excluded.ground_m,
      m.ground_m), m.accuracy_m, m.seen_on)
        is distinct from (excluded.name, excluded.lat_deg, excluded.lon_deg, m.height_m, m.ground_m, excluded.accuracy_m, excluded.seen_on)
      or not m.bands @> excluded.bands)`

/** What the list holds is of this list from now on, changed or not: taking an older list out takes none of it away. */
const CLAIM_MASTS = `update masts m set set_id = $2 from found f
  where m.crew_id = $1 and m.id = f.mast_id and m.set_id is distinct from $2`

const WRITE_CELLS = `insert into cells as c (crew_id, id, mast_id, technology, band, cell_id, channel, azimuth_deg,
  beamwidth_deg, power_dbm)
  select $1, f.cell_key, f.mast_id, f.technology, f.band, f.cell_id, f.channel, f.azimuth_deg, f.beamwidth_deg, f.power_dbm
  from fresh f join found g using (mast_id) join masts m on m.crew_id = $1 and m.id = f.mast_id
  where m.seen_on is null or f.seen_on is null or f.seen_on >= m.seen_on or g.seen_on = m.seen_on
  on conflict (crew_id, id) do update set channel = coalesce(excluded.channel, c.channel),
    beamwidth_deg = excluded.beamwidth_deg, power_dbm = excluded.power_dbm
  where (c.beamwidth_deg, c.power_dbm, coalesce(excluded.channel, c.channel)) is distinct from (excluded.beamwidth_deg,
    excluded.power_dbm, c.channel)`

async function mergeRows(
  tx: PoolClient,
  crewId: string,
  setId: string,
  { staging, going }: { staging: string; going: (step: string) => Promise<void> },
): Promise<{ masts: number; cells: number; changed: number }> {
  for (const setting of ["work_mem = '192MB'", "maintenance_work_mem = '192MB'", 'synchronous_commit = off'])
    await tx.query(`set local ${setting}`)
  await tx.query(FRESH(staging))
  await going('gathering cells to masts')
  await tx.query('analyze fresh')
  await tx.query(FOUND)
  await going('writing masts')
  const masts = await tx.query(WRITE_MASTS, [crewId, setId])
  await tx.query(CLAIM_MASTS, [crewId, setId])
  await going('writing cells')
  // Without it the plans below, those of the checks of foreign keys too, are made for the few masts there were.
  await tx.query('analyze found')
  await tx.query('analyze masts')
  const cells = await tx.query(WRITE_CELLS, [crewId])
  await going('closing')
  const {
    rows: [count],
  } = await tx.query<{ masts: number; cells: number }>(
    'select (select count(*)::int from found) as masts, (select count(*)::int from fresh) as cells',
  )
  return { ...count!, changed: (masts.rowCount ?? 0) + (cells.rowCount ?? 0) }
}

const PAGE = 1000

/** Rows that were not taken, a page at a time, in the file's order. */
export async function* rejectedRows(crewId: string, id: string): AsyncGenerator<Reject[]> {
  for (let after = -1; ;) {
    const rows = await longRows<Reject>(
      'select line, reason, row from import_rejects where crew_id = $1 and import_id = $2 and line > $3 order by line limit $4',
      [crewId, id, after, PAGE],
    )
    if (rows.length) yield rows
    if (rows.length < PAGE) return
    after = rows.at(-1)!.line
  }
}

export const firstRejects = (crewId: string, id: string, most = 50): Promise<Reject[]> =>
  longRows<Reject>('select line, reason, row from import_rejects where crew_id = $1 and import_id = $2 order by line limit $3', [
    crewId,
    id,
    most,
  ])
