/**
 * A table of the job document as the database keeps it: columns, nulls, values of before, words of a list and keys follow
 * from the fields of `core/job/schema.ts`. What the database alone needs stands beside it, in `schema.ts`.
 */
import { sql } from 'drizzle-orm'
import type { BuildColumns, BuildExtraConfigColumns, NotNull } from 'drizzle-orm'
import {
  boolean,
  check,
  customType,
  date,
  doublePrecision,
  foreignKey,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  smallint,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core'
import type {
  PgColumn,
  PgColumnBuilderBase,
  PgCustomColumnBuilder,
  PgTableExtraConfigValue,
  PgTableWithColumns,
} from 'drizzle-orm/pg-core'
import { fieldOf, REFERENCES, TABLE_FIELDS } from '../../core/job'
import type { FieldFacts, Reference, Row, TableName } from '../../core/job'

/** Instants come back as ISO 8601 in UTC, as the document holds them. */
export const instant = customType<{ data: string; driverData: string | Date }>({
  dataType: () => 'timestamp with time zone',
  fromDriver: v => new Date(v).toISOString(),
})

/** `kFactor` → `k_factor`, `bandwidthMHz` → `bandwidth_mhz` */
export const snake = (name: string): string => name.replace('MHz', 'Mhz').replace(/[A-Z]/g, c => `_${c.toLowerCase()}`)

/** Largest value of PostgreSQL's smallint. */
const SMALL = 32_767

/** The column of a field, by what it holds. */
function columnOf(field: string, { kind, nullable, maximum, before }: FieldFacts): PgColumnBuilderBase {
  const name = snake(field)
  const column = {
    id: () => uuid(name),
    instant: () => instant(name),
    day: () => date(name, { mode: 'string' }),
    text: () => text(name),
    number: () => doublePrecision(name),
    whole: () => (maximum !== undefined && maximum <= SMALL ? smallint(name) : integer(name)),
    flag: () => boolean(name),
    parts: () => jsonb(name),
  }[kind]() as ReturnType<typeof text>
  const told = nullable ? column : column.notNull()
  return before === undefined || before === null ? told : told.default(before as string)
}

/** A column as the server's code sees it: of the field's own type. */
type Column<T> = PgCustomColumnBuilder<{
  name: string
  dataType: 'custom'
  columnType: 'PgCustomColumn'
  data: T
  driverParam: unknown
  enumValues: undefined
}>
type ColumnOf<V> = null extends V ? Column<NonNullable<V>> : NotNull<Column<V>>
type Fields<T extends TableName> = { [F in keyof Omit<Row<T>, 'id' | 'version'> & string]: ColumnOf<Row<T>[F]> }

const factsOf = (table: TableName): [field: string, facts: FieldFacts][] =>
  Object.entries(TABLE_FIELDS[table]).map(([field, schema]) => [field, fieldOf(schema)])

/** Every row of a document has these: its key starts with its crew, and each field knows when it last changed. */
const versioned = {
  crewId: uuid('crew_id').notNull(),
  id: uuid('id').notNull(),
  version: integer('version').notNull().default(0),
  fieldVersions: jsonb('field_versions').$type<Record<string, number>>().notNull().default({}),
}
/** A row of a job. */
export const ofJob = { ...versioned, jobId: uuid('job_id').notNull() }

type Own = Record<string, PgColumnBuilderBase>
type ColumnsOf<T extends TableName, X extends Own> = Omit<T extends 'jobs' ? typeof versioned : typeof ofJob, keyof X> &
  Fields<T> &
  X
type Keyed = Record<string, PgColumn>
type TableOf<T extends TableName, X extends Own> = PgTableWithColumns<{
  name: T
  schema: undefined
  columns: BuildColumns<T, ColumnsOf<T, X>, 'pg'>
  dialect: 'pg'
}>

/** Tables made so far: a reference finds its target among them when the database's schema is asked for. */
const made = new Map<TableName, Keyed>()

/** @throws Error where the schema has made no such table */
export function tableNamed(name: TableName): Keyed {
  const table = made.get(name)
  if (!table) throw new Error(`no table for ${name}`)
  return table
}

/** Masts and their cells may be the crew's and no job's: their keys are their own. */
const isOfJob = (table: TableName): boolean => table !== 'jobs' && table !== 'masts' && table !== 'cells'

/** Its key, its job, and what other rows of the job name; the last finds the rows of a job, too. */
export function jobKeys(name: string, t: Keyed): PgTableExtraConfigValue[] {
  const jobs = tableNamed('jobs')
  const key = primaryKey({ columns: [t.crewId!, t.id!] })
  const job = foreignKey({ columns: [t.crewId!, t.jobId!], foreignColumns: [jobs.crewId!, jobs.id!] })
  return [key, job.onDelete('cascade'), unique(`${name}_of_job`).on(t.crewId!, t.jobId!, t.id!)]
}

/** References that a key of the database holds, those written by Drizzle: see `LET_GO`. */
const keyed = (r: Reference): boolean => isOfJob(r.table) && isOfJob(r.target) && r.whenGone !== 'lets go'

/** Rows of the same job, by the document's own name of the field: a refusal can say which field it was. */
const referencesOf = (table: TableName, t: Keyed): PgTableExtraConfigValue[] =>
  REFERENCES.filter(r => r.table === table && keyed(r)).map(r => {
    const target = tableNamed(r.target)
    const key = foreignKey({
      name: `ref:${table}.${r.field}`,
      columns: [t.crewId!, t.jobId!, t[r.field]!],
      foreignColumns: [target.crewId!, target.jobId!, target.id!],
    })
    return r.whenGone === 'goes too' ? key.onDelete('cascade') : key
  })

/** A field that is one word of a list holds no other. */
const wordsOf = (table: TableName, t: Keyed): PgTableExtraConfigValue[] =>
  factsOf(table).flatMap(([field, { words }]) => {
    if (!words) return []
    const list = sql.raw(words.map(w => `'${w.replaceAll("'", "''")}'`).join(', '))
    return [check(`${snake(table)}_${snake(field)}_word`, sql`${t[field]!} in (${list})`)]
  })

/**
 * The table of the document's rows of that name.
 * @param own  columns that the database has besides the document's fields
 * @param more  constraints and indices that do not follow from the fields
 */
export function documentTable<T extends TableName, X extends Own = Record<never, never>>(
  name: T,
  own?: X,
  more: (t: BuildExtraConfigColumns<T, ColumnsOf<T, X>, 'pg'>) => PgTableExtraConfigValue[] = () => [],
): TableOf<T, X> {
  const fields = Object.fromEntries(factsOf(name).map(([field, facts]) => [field, columnOf(field, facts)]))
  const columns: Own = { ...(name === 'jobs' ? versioned : ofJob), ...fields, ...own }
  const table = pgTable(snake(name), columns, t => {
    const keys = t as unknown as Keyed
    const own = isOfJob(name) ? jobKeys(snake(name), keys) : [primaryKey({ columns: [keys.crewId!, keys.id!] })]
    return [...own, ...referencesOf(name, keys), ...wordsOf(name, keys), ...more(t as unknown as Parameters<typeof more>[0])]
  })
  made.set(name, table as unknown as Keyed)
  return table as unknown as TableOf<T, X>
}

/**
 * Keys that let go of what they name. Drizzle has no words for a key that sets one of its columns null, so a migration
 * is given these besides what Drizzle writes.
 */
export const LET_GO: readonly { name: string; statement: string }[] = REFERENCES.filter(
  r => r.whenGone === 'lets go' && isOfJob(r.target),
).map(r => {
  const name = `ref:${r.table}.${r.field}`
  const job = r.table === 'jobs' ? 'id' : 'job_id'
  return {
    name,
    statement:
      `ALTER TABLE "${snake(r.table)}" ADD CONSTRAINT "${name}" FOREIGN KEY ("crew_id","${job}","${snake(r.field)}") ` +
      `REFERENCES "public"."${snake(r.target)}"("crew_id","job_id","id") ON DELETE SET NULL ("${snake(r.field)}");`,
  }
})
