/**
 * The database. Every row belongs to a crew and its key starts with it. Rows of a job carry the
 * version at which they last changed, and one per field, so that two people's edits merge by field.
 */
import { sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import {
  bigint,
  boolean,
  check,
  customType,
  date,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  smallint,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core'
import { documentTable, instant, jobKeys, ofJob, tableNamed } from './document-table'
import type { MastRules } from '../../core/formats'
import type { Enough, Part, TableName } from '../../core/job'
import type { Money } from '../../core/card'
import type { JobState } from '../../shared/api'

const bytea = customType<{ data: Uint8Array; driverData: Uint8Array }>({ dataType: () => 'bytea' })
const when = (name: string) => instant(name)
const now = sql`now()`

export const crews = pgTable('crews', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  carriers: jsonb('carriers').$type<{ name: string; codes: string[] }[]>().notNull().default([]),
  /** what counts as enough where nothing else is said: copied into every new job */
  enough: jsonb('enough').$type<Partial<Enough>>().notNull().default({}),
  /** currency, hour, margin of its quotes */
  money: jsonb('money').$type<Partial<Money>>().notNull().default({}),
  /** whom a customer calls; empty where it was not said */
  phone: text('phone').notNull().default(''),
  demo: boolean('demo').notNull().default(false),
  /** counts the changes of the crew's ground: a device asks what came since the count it holds */
  terrainVersion: integer('terrain_version').notNull().default(0),
  createdAt: when('created_at').notNull().default(now),
})

export const members = pgTable(
  'members',
  {
    crewId: uuid('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    email: text('email').notNull(),
    role: text('role').$type<'lead' | 'installer' | 'viewer'>().notNull(),
    passwordHash: text('password_hash'),
    active: boolean('active').notNull().default(true),
    /** from it the keys are made that seal this member's work on each device; it outlives a password */
    sealingSecret: bytea('sealing_secret')
      .notNull()
      .default(sql`decode(replace(gen_random_uuid()::text || gen_random_uuid()::text, '-', ''), 'hex')`),
    createdAt: when('created_at').notNull().default(now),
  },
  t => [
    primaryKey({ columns: [t.crewId, t.id] }),
    unique('members_email').on(t.email),
    check('members_role', sql`${t.role} in ('lead', 'installer', 'viewer')`),
  ],
)

export const sessions = pgTable(
  'sessions',
  {
    crewId: uuid('crew_id').notNull(),
    id: uuid('id').notNull(),
    memberId: uuid('member_id').notNull(),
    createdAt: when('created_at').notNull().default(now),
    expiresAt: when('expires_at').notNull(),
  },
  t => [
    primaryKey({ columns: [t.crewId, t.id] }),
    foreignKey({ columns: [t.crewId, t.memberId], foreignColumns: [members.crewId, members.id] }).onDelete('cascade'),
  ],
)

/** One-time links: an invitation, a new password, or the first set-up of an installation (no crew yet). Only hashes are kept. */
export const tokens = pgTable(
  'tokens',
  {
    hash: text('hash').primaryKey(),
    crewId: uuid('crew_id'),
    memberId: uuid('member_id'),
    kind: text('kind').$type<'invite' | 'reset' | 'set-up' | 'calendar'>().notNull(),
    role: text('role').$type<'lead' | 'installer' | 'viewer'>(),
    /** the member who made it: the link dies when that one is shut out; null where the installation made it */
    madeBy: uuid('made_by'),
    expiresAt: when('expires_at').notNull(),
    usedAt: when('used_at'),
  },
  t => [index('tokens_member').on(t.crewId, t.memberId), index('tokens_expiry').on(t.expiresAt)],
)

/** Counters of tries, kept by the limiter; `expire` is in milliseconds since 1970. */
export const rateLimits = pgTable(
  'rate_limits',
  {
    key: text('key').primaryKey(),
    points: integer('points').notNull().default(0),
    expire: bigint('expire', { mode: 'number' }),
  },
  t => [index('rate_limits_expire').on(t.expire)],
)

export const jobs = documentTable(
  'jobs',
  {
    /** counts the changes of this job; every change takes the next */
    sequence: integer('sequence').notNull().default(0),
    /** the furthest act that is done, kept for the list of jobs */
    state: text('state').$type<JobState>().notNull().default('new'),
    /** where the job stands in the list: by its next visit, without one after those, handed over last */
    queued: date('queued', { mode: 'string' }).generatedAlwaysAs(
      sql`case when state = 'keep' then date 'infinity' else coalesce(next_on, date '9999-12-31') end`,
    ),
    /** what the list is searched by */
    searched: text('searched').generatedAlwaysAs(
      sql`lower(name || ' ' || coalesce(customer_name, '') || ' ' || coalesce(customer_address, ''))`,
    ),
    createdAt: when('created_at').notNull().default(now),
    changedAt: when('changed_at').notNull().default(now),
  },
  t => [
    foreignKey({ columns: [t.crewId], foreignColumns: [crews.id] }).onDelete('cascade'),
    index('jobs_method').on(t.crewId, t.methodId),
    index('jobs_queued').on(t.crewId, t.queued, t.changedAt.desc().nullsFirst(), t.id.desc().nullsFirst()),
  ],
)

/** Who has worked on a job. */
export const jobMembers = pgTable(
  'job_members',
  {
    crewId: uuid('crew_id').notNull(),
    jobId: uuid('job_id').notNull(),
    memberId: uuid('member_id').notNull(),
  },
  t => [
    primaryKey({ columns: [t.crewId, t.memberId, t.jobId] }),
    foreignKey({ columns: [t.crewId, t.jobId], foreignColumns: [jobs.crewId, jobs.id] }).onDelete('cascade'),
    foreignKey({ columns: [t.crewId, t.memberId], foreignColumns: [members.crewId, members.id] }).onDelete('cascade'),
    index('job_members_job').on(t.crewId, t.jobId),
  ],
)

export const sites = documentTable('sites', {}, t => [
  unique('one_site_a_job').on(t.crewId, t.jobId),
  check('sites_lat', sql`${t.latDeg} between -90 and 90`),
  check('sites_lon', sql`${t.lonDeg} between -180 and 180`),
])

/** Floors that are not as the site says of all. */
export const floors = documentTable('floors')

export const zones = documentTable('zones')

export const walls = documentTable('walls')

export const sheets = documentTable('sheets')

/** Places a vehicle or boat goes to, each with its days. */
export const stops = documentTable('stops', {}, t => [
  check('stops_lat', sql`${t.latDeg} between -90 and 90`),
  check('stops_lon', sql`${t.lonDeg} between -180 and 180`),
])

/** What the terrain lacks, as seen from a place of the job. */
export const obstacles = documentTable('obstacles', {}, t => [check('obstacles_distance', sql`${t.distanceM} > 0`)])

export const landmarks = documentTable('landmarks')

/** A picture under the map: where it lies. */
export const pictures = documentTable('pictures')

/** Plans of floors as pictures: where their pixels lie in the site frame. */
export const floorPlans = documentTable('floorPlans')

/** The picture itself; it may come before or after its place. */
export const pictureFiles = pgTable(
  'picture_files',
  {
    ...ofJob,
    mime: text('mime').notNull(),
    bytes: bytea('bytes').notNull(),
  },
  t => jobKeys('picture_files', t),
)

/** What stands on the site and is no part of a plan: sockets, feeds, a satellite terminal, what takes room on a roof. */
export const fixtures = documentTable('fixtures')

/** Photographs taken on site; what they show may go, they stay. `stopId`, `spotId`, `nodeId`: keys in the migration, set null. */
export const photos = documentTable('photos')

/** Days on site; the board reads them over all jobs. */
export const visits = documentTable('visits', {}, t => [index('visits_day').on(t.crewId, t.onDay)])

/** Where the things of the list are. */
export const supplies = documentTable('supplies')

/** Steps that somebody added to the card. */
export const ownSteps = documentTable('ownSteps')

/** What a thing costs the crew, entered once for all its jobs; in the smallest unit of its currency. */
export const prices = pgTable(
  'prices',
  {
    crewId: uuid('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    key: text('key').notNull(),
    minor: bigint('minor', { mode: 'number' }),
    supplier: text('supplier'),
    leadDays: smallint('lead_days'),
    inVan: doublePrecision('in_van').notNull().default(0),
  },
  t => [primaryKey({ columns: [t.crewId, t.key] }), check('prices_minor', sql`${t.minor} >= 0`)],
)

export const spots = documentTable('spots')

/** What reads. */
export const devices = documentTable('devices')

export const sims = documentTable('sims')

/** What readings and tests were made with. */
export const setups = documentTable('setups')

export const readings = documentTable('readings', {}, t => [check('readings_rsrp', sql`${t.rsrpDbm} between -160 and -20`)])

export const speedRuns = documentTable('speedRuns', {}, t => [check('speed_runs_down', sql`${t.downMbps} >= 0`)])

/** Calls tried. */
export const calls = documentTable('calls')

export const watches = documentTable('watches')

export const mastSets = pgTable(
  'mast_sets',
  {
    crewId: uuid('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    rows: integer('rows').notNull(),
    kept: integer('kept').notNull(),
    importedAt: when('imported_at').notNull().default(now),
    importedBy: text('imported_by'),
    /** the day the list is of */
    listedOn: date('listed_on', { mode: 'string' }),
  },
  t => [primaryKey({ columns: [t.crewId, t.id] })],
)

/**
 * A list on its way in: pieces are read into a table of its own (`staging_…`), then merged in one
 * transaction. What is kept here lets any node, and a browser that lost its connection, go on.
 */
export const imports = pgTable(
  'imports',
  {
    crewId: uuid('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    state: text('state').$type<'receiving' | 'merging' | 'done' | 'failed' | 'cancelled'>().notNull().default('receiving'),
    rules: jsonb('rules').$type<MastRules>().notNull(),
    delimiter: text('delimiter').notNull(),
    nextPiece: integer('next_piece').notNull().default(0),
    /** the beginning of a row whose end is in the next piece */
    carry: text('carry').notNull().default(''),
    /** lines read so far, the header with them */
    lines: integer('lines').notNull().default(0),
    rows: integer('rows').notNull().default(0),
    kept: integer('kept').notNull().default(0),
    masts: integer('masts').notNull().default(0),
    cells: integer('cells').notNull().default(0),
    /** masts and cells that the merge really changed */
    changed: integer('changed').notNull().default(0),
    /** merges begun so far */
    tries: smallint('tries').notNull().default(0),
    setId: uuid('set_id'),
    step: text('step'),
    error: text('error'),
    startedBy: text('started_by'),
    startedAt: when('started_at').notNull().default(now),
    changedAt: when('changed_at').notNull().default(now),
  },
  t => [primaryKey({ columns: [t.crewId, t.id] })],
)

export const importRejects = pgTable(
  'import_rejects',
  {
    crewId: uuid('crew_id').notNull(),
    importId: uuid('import_id').notNull(),
    line: integer('line').notNull(),
    reason: text('reason').notNull(),
    row: text('row').notNull(),
  },
  t => [
    primaryKey({ columns: [t.crewId, t.importId, t.line] }),
    foreignKey({ columns: [t.crewId, t.importId], foreignColumns: [imports.crewId, imports.id] }).onDelete('cascade'),
  ],
)

/** How a crew read a table with these headings last time. */
export const mappings = pgTable(
  'mappings',
  {
    crewId: uuid('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    signature: text('signature').notNull(),
    rules: jsonb('rules').$type<MastRules>().notNull(),
    usedAt: when('used_at').notNull().default(now),
  },
  t => [primaryKey({ columns: [t.crewId, t.signature] })],
)

/** A place as a point of the unit sphere, so that "nearest" holds at the poles and across the antimeridian. */
export const placeOnSphere = (t: { latDeg: unknown; lonDeg: unknown }): SQL =>
  sql`cube(array[cos(radians(${t.latDeg})) * cos(radians(${t.lonDeg})), cos(radians(${t.latDeg})) *
    sin(radians(${t.lonDeg})), sin(radians(${t.latDeg}))])`

/**
 * Masts of a set belong to the crew; one entered by hand belongs to a job. A set's mast takes its id
 * from what names it in the list, so that the same list twice is the same masts; its cells' ids begin
 * as its own does, so that they lie together.
 */
export const masts = documentTable(
  'masts',
  {
    jobId: uuid('job_id'),
    setId: uuid('set_id'),
    /** names of the bands its cells send, for searching without joining them */
    bands: text('bands')
      .array()
      .notNull()
      .default(sql`'{}'`),
  },
  t => [
    foreignKey({ columns: [t.crewId], foreignColumns: [crews.id] }).onDelete('cascade'),
    foreignKey({ columns: [t.crewId, t.jobId], foreignColumns: [jobs.crewId, jobs.id] }).onDelete('cascade'),
    foreignKey({ columns: [t.crewId, t.setId], foreignColumns: [mastSets.crewId, mastSets.id] }).onDelete('cascade'),
    index('masts_job')
      .on(t.crewId, t.jobId)
      .where(sql`job_id is not null`),
    index('masts_carrier').on(t.crewId, t.carrier),
    index('masts_place').using('gist', t.crewId, t.carrier, placeOnSphere(t)),
    index('masts_set').on(t.crewId, t.setId),
    check('masts_lat', sql`${t.latDeg} between -90 and 90`),
    check('masts_lon', sql`${t.lonDeg} between -180 and 180`),
  ],
)

export const cells = documentTable('cells', { jobId: uuid('job_id') }, t => [
  foreignKey({ columns: [t.crewId, t.mastId], foreignColumns: [masts.crewId, masts.id] }).onDelete('cascade'),
  index('cells_mast').on(t.crewId, t.mastId),
  index('cells_job')
    .on(t.crewId, t.jobId)
    .where(sql`job_id is not null`),
])

/** The ground as it is asked for: the layers of a block laid over each other. */
export const terrainBlocks = pgTable(
  'terrain_blocks',
  {
    crewId: uuid('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    /** `row:column` in tenths of a degree */
    key: text('key').notNull(),
    side: smallint('side').notNull(),
    /** the layers it was made of */
    tile: text('tile').notNull(),
    heights: bytea('heights').notNull(),
  },
  t => [primaryKey({ columns: [t.crewId, t.key] })],
)

export const terrainTiles = pgTable(
  'terrain_tiles',
  {
    crewId: uuid('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    kind: text('kind').$type<'ground' | 'cover'>().notNull().default('ground'),
    /** samples a degree, plus one for a tile */
    side: integer('side').notNull(),
    voids: integer('voids').notNull(),
    importedAt: when('imported_at').notNull().default(now),
  },
  t => [primaryKey({ columns: [t.crewId, t.kind, t.name] })],
)

/** Each tile's own blocks, so that a tile can be taken away and the order of bringing them does not matter. */
export const terrainLayers = pgTable(
  'terrain_layers',
  {
    crewId: uuid('crew_id').notNull(),
    kind: text('kind').$type<'ground' | 'cover'>().notNull().default('ground'),
    tile: text('tile').notNull(),
    key: text('key').notNull(),
    side: smallint('side').notNull(),
    heights: bytea('heights').notNull(),
  },
  t => [
    primaryKey({ columns: [t.crewId, t.kind, t.key, t.tile] }),
    foreignKey({
      name: 'terrain_layers_of_tile',
      columns: [t.crewId, t.kind, t.tile],
      foreignColumns: [terrainTiles.crewId, terrainTiles.kind, terrainTiles.name],
    }).onDelete('cascade'),
    index('terrain_layers_tile').on(t.crewId, t.kind, t.tile),
  ],
)

/** The count at which each block last changed, taken away ones too. */
export const terrainChanges = pgTable(
  'terrain_changes',
  {
    crewId: uuid('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    key: text('key').notNull(),
    version: integer('version').notNull(),
  },
  t => [primaryKey({ columns: [t.crewId, t.key] }), index('terrain_changes_version').on(t.crewId, t.version)],
)

/** What grows and stands on the ground, metres, by the classes of a land-cover raster. */
export const coverBlocks = pgTable(
  'cover_blocks',
  {
    crewId: uuid('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    key: text('key').notNull(),
    side: smallint('side').notNull(),
    tile: text('tile').notNull(),
    heights: bytea('heights').notNull(),
  },
  t => [primaryKey({ columns: [t.crewId, t.key] })],
)

/** Parts a crew has entered with the maker's own figures. */
export const parts = pgTable(
  'parts',
  {
    crewId: uuid('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    id: text('id').notNull(),
    kind: text('kind').notNull(),
    name: text('name').notNull(),
    data: jsonb('data').$type<Part>().notNull(),
  },
  t => [primaryKey({ columns: [t.crewId, t.id] })],
)

export const designs = documentTable('designs')

export const nodes = documentTable('nodes')

export const runs = documentTable('runs', {}, t => [check('runs_length', sql`${t.lengthM} >= 0`)])

/** What parts a donor and an inside antenna, where something else than the sum is believed. */
export const isolations = documentTable('isolations')

export const sweeps = documentTable('sweeps')

export const steps = documentTable('steps')

export const checks = documentTable('checks')

/** What stands on the labels of boxes. */
export const labels = documentTable('labels')

/** Which SIM lies in which slot of a box. */
export const simSlots = documentTable('simSlots')
export const connections = documentTable('connections')
export const networks = documentTable('networks')
export const appliances = documentTable('appliances')
export const failovers = documentTable('failovers')
export const usageDays = documentTable('usageDays')
export const signatures = documentTable('signatures')

/** Every change that was taken, or refused, once. A repeat finds itself here and does nothing. */
export const appliedChanges = pgTable(
  'applied_changes',
  {
    crewId: uuid('crew_id').notNull(),
    id: uuid('id').notNull(),
    jobId: uuid('job_id').notNull(),
    sequence: integer('sequence').notNull(),
    table: text('table_name').notNull(),
    rowId: uuid('row_id').notNull(),
    op: text('op').$type<'insert' | 'update' | 'delete'>().notNull(),
    fields: jsonb('fields').$type<Record<string, unknown>>().notNull(),
    outcome: jsonb('outcome').$type<{
      conflicts?: unknown[]
      rejected?: string
      errors?: { field: string; message: string }[]
    }>(),
    memberId: uuid('member_id'),
    device: uuid('device'),
    at: when('at').notNull().default(now),
  },
  t => [
    primaryKey({ columns: [t.crewId, t.id] }),
    foreignKey({ columns: [t.crewId, t.jobId], foreignColumns: [jobs.crewId, jobs.id] }).onDelete('cascade'),
    unique('applied_changes_feed').on(t.crewId, t.jobId, t.sequence),
  ],
)

/** What a customer was handed: document, result and the engine that made it, frozen. */
export const handovers = pgTable(
  'handovers',
  {
    crewId: uuid('crew_id').notNull(),
    id: uuid('id').notNull(),
    jobId: uuid('job_id').notNull(),
    engine: text('engine').notNull(),
    document: jsonb('document').notNull(),
    result: jsonb('result').notNull(),
    madeAt: when('made_at').notNull().default(now),
    madeBy: text('made_by').notNull(),
  },
  t => [
    primaryKey({ columns: [t.crewId, t.id] }),
    foreignKey({ columns: [t.crewId, t.jobId], foreignColumns: [jobs.crewId, jobs.id] }).onDelete('cascade'),
  ],
)

/**
 * The customer's page of a job: whoever has its link reads what was handed over, and nothing else. Of the link the hash alone is
 * kept.
 */
export const customerPages = pgTable(
  'customer_pages',
  {
    crewId: uuid('crew_id').notNull(),
    id: uuid('id').notNull(),
    hash: text('hash').notNull().unique(),
    jobId: uuid('job_id').notNull(),
    handoverId: uuid('handover_id').notNull(),
    madeBy: text('made_by').notNull(),
    madeAt: when('made_at').notNull().default(now),
    endsAt: when('ends_at').notNull(),
    withdrawnAt: when('withdrawn_at'),
    openings: integer('openings').notNull().default(0),
    openedAt: when('opened_at'),
  },
  t => [
    foreignKey({ columns: [t.crewId, t.jobId], foreignColumns: [jobs.crewId, jobs.id] }).onDelete('cascade'),
    primaryKey({ columns: [t.crewId, t.id] }),
    foreignKey({ columns: [t.crewId, t.handoverId], foreignColumns: [handovers.crewId, handovers.id] }).onDelete('cascade'),
    index('customer_pages_job').on(t.crewId, t.jobId),
  ],
)

/** A table of the document by its name: of all of them only what every one has is known. */
export const documentTableOf = (name: TableName): typeof labels => tableNamed(name) as unknown as typeof labels
