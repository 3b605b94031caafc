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
import type { MastRules } from '../../core/formats/mast-columns'
import type { Feed, Fixing } from '../../core/job/fixing'
import type { OwnFigures, Part } from '../../core/job/part'
import type { Money } from '../../core/card/money'
import type { Enough, TableName } from '../../core/job/schema'
import type { JobState } from '../../shared/api'

const bytea = customType<{ data: Uint8Array; driverData: Uint8Array }>({ dataType: () => 'bytea' })
/** Instants come back as ISO 8601 in UTC, as the document holds them. */
const instant = customType<{ data: string; driverData: string | Date }>({
  dataType: () => 'timestamp with time zone',
  fromDriver: v => new Date(v).toISOString(),
})
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

const versioned = {
  crewId: uuid('crew_id').notNull(),
  id: uuid('id').notNull(),
  version: integer('version').notNull().default(0),
  fieldVersions: jsonb('field_versions').$type<Record<string, number>>().notNull().default({}),
}

export const jobs = pgTable(
  'jobs',
  {
    ...versioned,
    /** counts the changes of this job; every change takes the next */
    sequence: integer('sequence').notNull().default(0),
    name: text('name').notNull(),
    kind: text('kind').notNull().default('home'),
    customerName: text('customer_name'),
    customerContact: text('customer_contact'),
    customerAddress: text('customer_address'),
    agreedDownMbps: doublePrecision('agreed_down_mbps'),
    agreedUpMbps: doublePrecision('agreed_up_mbps'),
    agreedCalls: boolean('agreed_calls').notNull().default(true),
    agreedDrops: doublePrecision('agreed_drops'),
    carrier: text('carrier'),
    today: text('today'),
    mayDrill: text('may_drill').notNull().default('ask'),
    notes: text('notes'),
    nextOn: date('next_on', { mode: 'string' }),
    baselineSpotId: uuid('baseline_spot_id'),
    designId: uuid('design_id'),
    rules: text('rules').notNull().default('generic'),
    stopId: uuid('stop_id'),
    kFactor: doublePrecision('k_factor')
      .notNull()
      .default(4 / 3),
    methodId: uuid('method_id'),
    quoteMarginPercent: doublePrecision('quote_margin_percent'),
    quoteHours: doublePrecision('quote_hours'),
    needDataDbm: doublePrecision('need_data_dbm'),
    needCallsDbm: doublePrecision('need_calls_dbm'),
    rsrpEdges: jsonb('rsrp_edges').$type<number[]>(),
    sinrEdges: jsonb('sinr_edges').$type<number[]>(),
    busyHours: jsonb('busy_hours').$type<number[]>(),
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
    primaryKey({ columns: [t.crewId, t.id] }),
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

const ofJob = { ...versioned, jobId: uuid('job_id').notNull() }
/** Constraints every table of a job has: its key, its job, and an index by job. */
const jobKeys = (t: { crewId: typeof ofJob.crewId; id: typeof ofJob.id; jobId: typeof ofJob.jobId }, name: string) => {
  const c = t as unknown as Record<'crewId' | 'id' | 'jobId', typeof jobs.crewId>
  return [
    primaryKey({ columns: [c.crewId, c.id] as never }),
    foreignKey({ columns: [c.crewId, c.jobId] as never, foreignColumns: [jobs.crewId, jobs.id] as never }).onDelete('cascade'),
    // What other rows of the job name; it also finds the rows of a job.
    unique(`${name}_of_job`).on(c.crewId, c.jobId, c.id),
  ]
}
type RowOfJob = { crewId: unknown; jobId: unknown; id: unknown }
/** A row of the same crew. */
const within = (crewId: unknown, column: unknown, target: { crewId: unknown; id: unknown }) =>
  foreignKey({ columns: [crewId, column] as never, foreignColumns: [target.crewId, target.id] as never })
/**
 * A row of the same job, by the document's own name of the field: a refusal can say which field it was.
 * @see REFERENCES in core/job/references.ts
 */
const inJob = (table: TableName, field: string, t: RowOfJob, column: unknown, target: RowOfJob) =>
  foreignKey({
    name: `ref:${table}.${field}`,
    columns: [t.crewId, t.jobId, column] as never,
    foreignColumns: [target.crewId, target.jobId, target.id] as never,
  })

export const sites = pgTable(
  'sites',
  {
    ...ofJob,
    latDeg: doublePrecision('lat_deg'),
    lonDeg: doublePrecision('lon_deg'),
    groundM: doublePrecision('ground_m'),
    zone: text('zone').notNull().default('UTC'),
    axisDeg: doublePrecision('axis_deg').notNull().default(90),
    lengthM: doublePrecision('length_m').notNull(),
    depthM: doublePrecision('depth_m').notNull(),
    storeys: smallint('storeys').notNull(),
    storeyHeightM: doublePrecision('storey_height_m').notNull(),
    roofRiseM: doublePrecision('roof_rise_m').notNull(),
    mizzenRiseM: doublePrecision('mizzen_rise_m'),
    gustMs: doublePrecision('gust_ms'),
    wallMaterial: text('wall_material').notNull(),
    paneMaterial: text('pane_material').notNull(),
    panePercent: doublePrecision('pane_percent').notNull(),
    floorMaterial: text('floor_material').notNull(),
    roofMaterial: text('roof_material').notNull(),
    headingDeg: doublePrecision('heading_deg'),
    swingDeg: doublePrecision('swing_deg').notNull().default(0),
    deviation: jsonb('deviation').$type<{ headingDeg: number; deviationDeg: number }[]>(),
  },
  t => [
    ...jobKeys(t as never, 'sites'),
    unique('one_site_a_job').on(t.crewId, t.jobId),
    check('sites_lat', sql`${t.latDeg} between -90 and 90`),
    check('sites_lon', sql`${t.lonDeg} between -180 and 180`),
  ],
)

/** Floors that are not as the site says of all. */
export const floors = pgTable(
  'floors',
  {
    ...ofJob,
    level: smallint('level').notNull(),
    name: text('name'),
    heightM: doublePrecision('height_m'),
    material: text('material'),
  },
  t => jobKeys(t as never, 'floors'),
)

export const walls = pgTable(
  'walls',
  {
    ...ofJob,
    level: smallint('level').notNull(),
    fromEastM: doublePrecision('from_east_m').notNull(),
    fromNorthM: doublePrecision('from_north_m').notNull(),
    toEastM: doublePrecision('to_east_m').notNull(),
    toNorthM: doublePrecision('to_north_m').notNull(),
    material: text('material').notNull(),
    lossDb: doublePrecision('loss_db'),
  },
  t => jobKeys(t as never, 'walls'),
)

export const sheets = pgTable(
  'sheets',
  {
    ...ofJob,
    name: text('name').notNull(),
    eastM: doublePrecision('east_m').notNull(),
    northM: doublePrecision('north_m').notNull(),
    upM: doublePrecision('up_m').notNull(),
    azimuthDeg: doublePrecision('azimuth_deg').notNull(),
    tiltDeg: doublePrecision('tilt_deg').notNull(),
    widthM: doublePrecision('width_m').notNull(),
    heightM: doublePrecision('height_m').notNull(),
    material: text('material').notNull(),
    lossDb: doublePrecision('loss_db'),
  },
  t => jobKeys(t as never, 'sheets'),
)

/** Places a vehicle or boat goes to, each with its days. */
export const stops = pgTable(
  'stops',
  {
    ...ofJob,
    name: text('name').notNull(),
    latDeg: doublePrecision('lat_deg').notNull(),
    lonDeg: doublePrecision('lon_deg').notNull(),
    groundM: doublePrecision('ground_m'),
    zone: text('zone').notNull().default('UTC'),
    arriveOn: date('arrive_on', { mode: 'string' }),
    leaveOn: date('leave_on', { mode: 'string' }),
    headingDeg: doublePrecision('heading_deg'),
    swingDeg: doublePrecision('swing_deg').notNull().default(0),
    notes: text('notes'),
  },
  t => [
    ...jobKeys(t as never, 'stops'),
    check('stops_lat', sql`${t.latDeg} between -90 and 90`),
    check('stops_lon', sql`${t.lonDeg} between -180 and 180`),
  ],
)

/** What the terrain lacks, as seen from a place of the job. */
export const obstacles = pgTable(
  'obstacles',
  {
    ...ofJob,
    stopId: uuid('stop_id'),
    name: text('name').notNull(),
    fromDeg: doublePrecision('from_deg').notNull(),
    toDeg: doublePrecision('to_deg').notNull(),
    distanceM: doublePrecision('distance_m').notNull(),
    heightM: doublePrecision('height_m').notNull(),
  },
  t => [
    ...jobKeys(t as never, 'obstacles'),
    inJob('obstacles', 'stopId', t, t.stopId, stops).onDelete('cascade'),
    check('obstacles_distance', sql`${t.distanceM} > 0`),
  ],
)

export const landmarks = pgTable(
  'landmarks',
  {
    ...ofJob,
    stopId: uuid('stop_id'),
    name: text('name').notNull(),
    latDeg: doublePrecision('lat_deg').notNull(),
    lonDeg: doublePrecision('lon_deg').notNull(),
  },
  t => [...jobKeys(t as never, 'landmarks'), inJob('landmarks', 'stopId', t, t.stopId, stops).onDelete('cascade')],
)

/** A picture under the map: where it lies. */
export const pictures = pgTable(
  'pictures',
  {
    ...ofJob,
    name: text('name').notNull(),
    widthPx: integer('width_px').notNull(),
    heightPx: integer('height_px').notNull(),
    affine: jsonb('affine').$type<number[]>().notNull(),
    opacity: doublePrecision('opacity').notNull().default(0.8),
  },
  t => jobKeys(t as never, 'pictures'),
)

/** Plans of floors as pictures: where their pixels lie in the site frame. */
export const floorPlans = pgTable(
  'floor_plans',
  {
    ...ofJob,
    level: smallint('level').notNull(),
    name: text('name').notNull(),
    widthPx: integer('width_px').notNull(),
    heightPx: integer('height_px').notNull(),
    affine: jsonb('affine').$type<number[]>(),
    opacity: doublePrecision('opacity').notNull().default(0.6),
  },
  t => jobKeys(t as never, 'floor_plans'),
)

/** The picture itself; it may come before or after its place. */
export const pictureFiles = pgTable(
  'picture_files',
  {
    ...ofJob,
    mime: text('mime').notNull(),
    bytes: bytea('bytes').notNull(),
  },
  t => jobKeys(t as never, 'picture_files'),
)

interface Corner {
  eastM: number
  northM: number
  upM: number
}

/** What stands on the site and is no part of a plan: sockets, feeds, a satellite terminal, what takes room on a roof. */
export const fixtures = pgTable(
  'fixtures',
  {
    ...ofJob,
    kind: text('kind').notNull(),
    name: text('name').notNull(),
    eastM: doublePrecision('east_m').notNull(),
    northM: doublePrecision('north_m').notNull(),
    upM: doublePrecision('up_m').notNull(),
    widthM: doublePrecision('width_m'),
    heightM: doublePrecision('height_m'),
    azimuthDeg: doublePrecision('azimuth_deg'),
    tiltDeg: doublePrecision('tilt_deg'),
    halfFieldDeg: doublePrecision('half_field_deg'),
    entry: text('entry'),
    behind: text('behind'),
    behindFound: text('behind_found'),
    behindWhat: text('behind_what'),
    openMm: doublePrecision('open_mm'),
    wallMm: doublePrecision('wall_mm'),
    electrode: text('electrode'),
    bonded: text('bonded'),
    conductor: text('conductor'),
    corners: jsonb('corners').$type<Corner[]>(),
  },
  t => jobKeys(t as never, 'fixtures'),
)

/** Photographs taken on site; what they show may go, they stay. `stopId`, `spotId`, `nodeId`: keys in the migration, set null. */
export const photos = pgTable(
  'photos',
  {
    ...ofJob,
    stopId: uuid('stop_id'),
    caption: text('caption'),
    takenAtUtc: when('taken_at_utc').notNull(),
    widthPx: integer('width_px').notNull(),
    heightPx: integer('height_px').notNull(),
    eastM: doublePrecision('east_m'),
    northM: doublePrecision('north_m'),
    upM: doublePrecision('up_m'),
    bearingDeg: doublePrecision('bearing_deg'),
    spotId: uuid('spot_id'),
    nodeId: uuid('node_id'),
    stepKey: text('step_key'),
  },
  t => jobKeys(t as never, 'photos'),
)

/** Days on site; the board reads them over all jobs. */
export const visits = pgTable(
  'visits',
  {
    ...ofJob,
    onDay: date('on_day', { mode: 'string' }).notNull(),
    startsAt: text('starts_at').notNull(),
    hours: doublePrecision('hours').notNull(),
    team: text('team'),
    people: smallint('people').notNull(),
    weather: text('weather').notNull(),
    state: text('state').notNull(),
    note: text('note'),
  },
  t => [...jobKeys(t as never, 'visits'), index('visits_day').on(t.crewId, t.onDay)],
)

/** Where the things of the list are. */
export const supplies = pgTable(
  'supplies',
  {
    ...ofJob,
    key: text('key').notNull(),
    name: text('name'),
    quantity: doublePrecision('quantity'),
    state: text('state').notNull(),
    supplier: text('supplier'),
    dueOn: date('due_on', { mode: 'string' }),
  },
  t => jobKeys(t as never, 'supplies'),
)

/** Steps that somebody added to the card. */
export const ownSteps = pgTable(
  'own_steps',
  {
    ...ofJob,
    words: text('words').notNull(),
    stand: text('stand').notNull(),
    minutes: doublePrecision('minutes').notNull(),
    afterKey: text('after_key'),
    beforeKey: text('before_key'),
  },
  t => jobKeys(t as never, 'own_steps'),
)

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

export const spots = pgTable(
  'spots',
  {
    ...ofJob,
    name: text('name').notNull(),
    eastM: doublePrecision('east_m').notNull(),
    northM: doublePrecision('north_m').notNull(),
    upM: doublePrecision('up_m').notNull(),
    indoors: boolean('indoors').notNull(),
    needed: boolean('needed').notNull().default(false),
    people: doublePrecision('people'),
    use: text('use'),
    needDbm: doublePrecision('need_dbm'),
    station: text('station'),
    note: text('note'),
    hangs: text('hangs'),
  },
  t => jobKeys(t as never, 'spots'),
)

/** What reads. */
export const devices = pgTable(
  'devices',
  {
    ...ofJob,
    name: text('name').notNull(),
    kind: text('kind').notNull(),
    antennaDbi: doublePrecision('antenna_dbi'),
  },
  t => jobKeys(t as never, 'devices'),
)

export const sims = pgTable(
  'sims',
  {
    ...ofJob,
    name: text('name').notNull(),
    carrier: text('carrier'),
    plan: text('plan'),
    capDownMbps: doublePrecision('cap_down_mbps'),
    capUpMbps: doublePrecision('cap_up_mbps'),
    allowanceGb: doublePrecision('allowance_gb'),
    callsOverWifi: text('calls_over_wifi'),
  },
  t => jobKeys(t as never, 'sims'),
)

/** What readings and tests were made with. */
export const setups = pgTable(
  'setups',
  {
    ...ofJob,
    name: text('name'),
    deviceId: uuid('device_id'),
    simId: uuid('sim_id'),
    link: text('link').notNull(),
    antenna: text('antenna').notNull(),
    designId: uuid('design_id'),
    booster: text('booster').notNull(),
    bandLock: text('band_lock'),
    power: text('power'),
    ownAntennas: text('own_antennas'),
    place: text('place'),
    antennaUpM: doublePrecision('antenna_up_m'),
    antennaDeg: doublePrecision('antenna_deg'),
    mark: text('mark').$type<'before' | 'after'>(),
  },
  t => [
    ...jobKeys(t as never, 'setups'),
    inJob('setups', 'deviceId', t, t.deviceId, devices),
    inJob('setups', 'simId', t, t.simId, sims),
    // `ref:setups.designId` sets null: Drizzle has no words for one column of a key, the migration has.
  ],
)

const logColumns = {
  takenAtUtc: when('taken_at_utc').notNull(),
  setupId: uuid('setup_id'),
  replacesId: uuid('replaces_id'),
  withdrawn: boolean('withdrawn').notNull().default(false),
}

export const readings = pgTable(
  'readings',
  {
    ...ofJob,
    ...logColumns,
    stopId: uuid('stop_id'),
    spotId: uuid('spot_id').notNull(),
    technology: text('technology').notNull(),
    band: text('band'),
    channel: integer('channel'),
    bandwidthMHz: doublePrecision('bandwidth_mhz'),
    cellId: text('cell_id'),
    rsrpDbm: doublePrecision('rsrp_dbm'),
    rsrqDb: doublePrecision('rsrq_db'),
    sinrDb: doublePrecision('sinr_db'),
    capture: uuid('capture'),
    carrierRole: text('carrier_role').notNull().default('anchor'),
  },
  t => [
    ...jobKeys(t as never, 'readings'),
    inJob('readings', 'spotId', t, t.spotId, spots),
    inJob('readings', 'stopId', t, t.stopId, stops),
    inJob('readings', 'setupId', t, t.setupId, setups),
    inJob('readings', 'replacesId', t, t.replacesId, t),
    check('readings_rsrp', sql`${t.rsrpDbm} between -160 and -20`),
  ],
)

export const speedRuns = pgTable(
  'speed_runs',
  {
    ...ofJob,
    ...logColumns,
    stopId: uuid('stop_id'),
    spotId: uuid('spot_id').notNull(),
    downMbps: doublePrecision('down_mbps'),
    upMbps: doublePrecision('up_mbps'),
    pingMs: doublePrecision('ping_ms'),
    wouldNotLoad: boolean('would_not_load').notNull().default(false),
    via: text('via'),
    doubted: boolean('doubted').notNull().default(false),
    band: text('band'),
    cellId: text('cell_id'),
  },
  t => [
    ...jobKeys(t as never, 'speed_runs'),
    inJob('speedRuns', 'spotId', t, t.spotId, spots),
    inJob('speedRuns', 'stopId', t, t.stopId, stops),
    inJob('speedRuns', 'setupId', t, t.setupId, setups),
    inJob('speedRuns', 'replacesId', t, t.replacesId, t),
    check('speed_runs_down', sql`${t.downMbps} >= 0`),
  ],
)

/** Calls tried. */
export const calls = pgTable(
  'calls',
  {
    ...ofJob,
    ...logColumns,
    stopId: uuid('stop_id'),
    spotId: uuid('spot_id').notNull(),
    made: boolean('made').notNull(),
    heard: boolean('heard').notNull(),
    dropped: boolean('dropped').notNull(),
  },
  t => [
    ...jobKeys(t as never, 'calls'),
    inJob('calls', 'spotId', t, t.spotId, spots),
    inJob('calls', 'stopId', t, t.stopId, stops),
    inJob('calls', 'setupId', t, t.setupId, setups),
    inJob('calls', 'replacesId', t, t.replacesId, t),
  ],
)

export const watches = pgTable(
  'watches',
  {
    ...ofJob,
    ...logColumns,
    stopId: uuid('stop_id'),
    spotId: uuid('spot_id').notNull(),
    kind: text('kind').notNull(),
    seconds: doublePrecision('seconds').notNull(),
    drops: integer('drops').notNull(),
    longestS: doublePrecision('longest_s').notNull(),
    lostS: doublePrecision('lost_s').notNull(),
    switchS: doublePrecision('switch_s'),
    backS: doublePrecision('back_s'),
    broke: text('broke'),
  },
  t => [
    ...jobKeys(t as never, 'watches'),
    inJob('watches', 'spotId', t, t.spotId, spots),
    inJob('watches', 'stopId', t, t.stopId, stops),
    inJob('watches', 'setupId', t, t.setupId, setups),
    inJob('watches', 'replacesId', t, t.replacesId, t),
  ],
)

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
export const masts = pgTable(
  'masts',
  {
    ...versioned,
    jobId: uuid('job_id'),
    setId: uuid('set_id'),
    name: text('name').notNull(),
    latDeg: doublePrecision('lat_deg').notNull(),
    lonDeg: doublePrecision('lon_deg').notNull(),
    heightM: doublePrecision('height_m'),
    groundM: doublePrecision('ground_m'),
    carrier: text('carrier').notNull(),
    accuracyM: doublePrecision('accuracy_m'),
    seenOn: date('seen_on', { mode: 'string' }),
    /** names of the bands its cells send, for searching without joining them */
    bands: text('bands')
      .array()
      .notNull()
      .default(sql`'{}'`),
  },
  t => [
    primaryKey({ columns: [t.crewId, t.id] }),
    foreignKey({ columns: [t.crewId], foreignColumns: [crews.id] }).onDelete('cascade'),
    within(t.crewId, t.jobId, jobs).onDelete('cascade'),
    within(t.crewId, t.setId, mastSets).onDelete('cascade'),
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

export const cells = pgTable(
  'cells',
  {
    ...versioned,
    jobId: uuid('job_id'),
    mastId: uuid('mast_id').notNull(),
    technology: text('technology').notNull(),
    band: text('band').notNull(),
    cellId: text('cell_id'),
    channel: integer('channel'),
    azimuthDeg: doublePrecision('azimuth_deg'),
    beamwidthDeg: doublePrecision('beamwidth_deg'),
    powerDbm: doublePrecision('power_dbm'),
  },
  t => [
    primaryKey({ columns: [t.crewId, t.id] }),
    within(t.crewId, t.mastId, masts).onDelete('cascade'),
    index('cells_mast').on(t.crewId, t.mastId),
    index('cells_job')
      .on(t.crewId, t.jobId)
      .where(sql`job_id is not null`),
  ],
)

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

export const designs = pgTable(
  'designs',
  {
    ...ofJob,
    name: text('name').notNull(),
    approach: text('approach').notNull(),
    mastId: uuid('mast_id'),
    band: text('band'),
    bandwidthMHz: doublePrecision('bandwidth_mhz'),
    marginDb: doublePrecision('margin_db'),
    carriersInBand: smallint('carriers_in_band'),
    aimedDeg: doublePrecision('aimed_deg'),
    aimedAtUtc: when('aimed_at_utc'),
    aimedTiltDeg: doublePrecision('aimed_tilt_deg'),
    plugs: text('plugs').notNull().default('factory'),
    reason: text('reason'),
    // `ref:designs.wayInId` sets null, by the migration.
    wayInId: uuid('way_in_id'),
  },
  t => jobKeys(t as never, 'designs'),
)

export const nodes = pgTable(
  'nodes',
  {
    ...ofJob,
    designId: uuid('design_id').notNull(),
    partId: text('part_id').notNull(),
    part: jsonb('part').$type<Part>(),
    own: jsonb('own').$type<OwnFigures>(),
    eastM: doublePrecision('east_m').notNull(),
    northM: doublePrecision('north_m').notNull(),
    upM: doublePrecision('up_m').notNull(),
    azimuthDeg: doublePrecision('azimuth_deg'),
    tiltDeg: doublePrecision('tilt_deg').notNull().default(0),
    fixing: jsonb('fixing').$type<Fixing>(),
    feed: jsonb('feed').$type<Feed>(),
    // `ref:nodes.sourceId` sets null, by the migration.
    sourceId: uuid('source_id'),
    polarisation: text('polarisation'),
  },
  t => [...jobKeys(t as never, 'nodes'), inJob('nodes', 'designId', t, t.designId, designs).onDelete('cascade')],
)

export const runs = pgTable(
  'runs',
  {
    ...ofJob,
    designId: uuid('design_id').notNull(),
    fromNodeId: uuid('from_node_id').notNull(),
    fromPort: text('from_port'),
    toNodeId: uuid('to_node_id').notNull(),
    toPort: text('to_port'),
    partId: text('part_id'),
    part: jsonb('part').$type<Part>(),
    lengthM: doublePrecision('length_m').notNull(),
    measured: boolean('measured').notNull().default(false),
    spareM: doublePrecision('spare_m'),
    way: jsonb('way').$type<Corner[]>(),
    pieces: jsonb('pieces').$type<(number | null)[]>(),
  },
  t => [
    ...jobKeys(t as never, 'runs'),
    inJob('runs', 'designId', t, t.designId, designs).onDelete('cascade'),
    inJob('runs', 'fromNodeId', t, t.fromNodeId, nodes).onDelete('cascade'),
    inJob('runs', 'toNodeId', t, t.toNodeId, nodes).onDelete('cascade'),
    check('runs_length', sql`${t.lengthM} >= 0`),
  ],
)

/** What parts a donor and an inside antenna, where something else than the sum is believed. */
export const isolations = pgTable(
  'isolations',
  {
    ...ofJob,
    designId: uuid('design_id').notNull(),
    donorId: uuid('donor_id').notNull(),
    serverId: uuid('server_id').notNull(),
    makerDb: doublePrecision('maker_db'),
    measuredDb: doublePrecision('measured_db'),
    inForce: text('in_force').notNull(),
    reason: text('reason'),
  },
  t => [
    ...jobKeys(t as never, 'isolations'),
    inJob('isolations', 'designId', t, t.designId, designs).onDelete('cascade'),
    inJob('isolations', 'donorId', t, t.donorId, nodes).onDelete('cascade'),
    inJob('isolations', 'serverId', t, t.serverId, nodes).onDelete('cascade'),
  ],
)

export const sweeps = pgTable(
  'sweeps',
  {
    ...ofJob,
    stopId: uuid('stop_id'),
    designId: uuid('design_id').notNull(),
    startedAtUtc: when('started_at_utc').notNull(),
    setupId: uuid('setup_id'),
    quantity: text('quantity').notNull(),
    reference: text('reference').notNull(),
    stepDeg: doublePrecision('step_deg'),
    dwellS: doublePrecision('dwell_s'),
    struckDeg: jsonb('struck_deg').$type<number[]>(),
    band: text('band'),
    cellId: text('cell_id'),
    axis: text('axis').notNull().default('heading'),
    slow: boolean('slow').notNull().default(false),
  },
  t => [
    ...jobKeys(t as never, 'sweeps'),
    inJob('sweeps', 'stopId', t, t.stopId, stops),
    inJob('sweeps', 'setupId', t, t.setupId, setups),
    inJob('sweeps', 'designId', t, t.designId, designs).onDelete('cascade'),
  ],
)

export const steps = pgTable(
  'steps',
  {
    ...ofJob,
    takenAtUtc: when('taken_at_utc').notNull(),
    replacesId: uuid('replaces_id'),
    withdrawn: boolean('withdrawn').notNull().default(false),
    sweepId: uuid('sweep_id').notNull(),
    pass: smallint('pass').notNull(),
    headingDeg: doublePrecision('heading_deg').notNull(),
    tiltDeg: doublePrecision('tilt_deg'),
    value: doublePrecision('value').notNull(),
  },
  t => [
    ...jobKeys(t as never, 'steps'),
    inJob('steps', 'sweepId', t, t.sweepId, sweeps).onDelete('cascade'),
    inJob('steps', 'replacesId', t, t.replacesId, t),
  ],
)

export const checks = pgTable(
  'checks',
  {
    ...ofJob,
    kind: text('kind').notNull(),
    key: text('key').notNull(),
    done: boolean('done').notNull(),
    reason: text('reason'),
    by: text('by'),
    atUtc: when('at_utc'),
    // `ref:checks.stopId` sets null, by the migration.
    stopId: uuid('stop_id'),
    about: text('about'),
    value: doublePrecision('value'),
  },
  t => jobKeys(t as never, 'checks'),
)

/** What stands on the labels of boxes. */
export const labels = pgTable(
  'labels',
  {
    ...ofJob,
    nodeId: uuid('node_id').notNull(),
    serial: text('serial'),
    imei: text('imei'),
    mac: text('mac'),
  },
  t => [...jobKeys(t as never, 'labels'), inJob('labels', 'nodeId', t, t.nodeId, nodes).onDelete('cascade')],
)

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

/** The tables of a job document, by the names that changes use. */
export const documentTables = {
  jobs,
  sites,
  floors,
  walls,
  sheets,
  stops,
  obstacles,
  landmarks,
  pictures,
  floorPlans,
  fixtures,
  spots,
  masts,
  cells,
  designs,
  devices,
  sims,
  setups,
  readings,
  speedRuns,
  calls,
  watches,
  nodes,
  runs,
  isolations,
  photos,
  labels,
  visits,
  supplies,
  ownSteps,
  sweeps,
  steps,
  checks,
} as const
