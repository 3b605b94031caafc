/** What a new job starts with, and the usual kit of each approach laid out in the house. */
import { PARTS } from '../catalogue/parts'
import type { Change, Design, Job, JobDocument, Node, Run, Site, Spot } from './schema'
import { moveAlong, axisSign, eavesM, ridgeM, round2 } from '../site/frame'

type Maker = () => string

const insert = (newId: Maker, table: Change['table'], rowId: string, fields: object): Change => ({
  id: newId(),
  table,
  rowId,
  op: 'insert',
  baseVersion: 0,
  fields: fields as Record<string, unknown>,
})

export interface NewJob {
  name: string
  latDeg: number | null
  lonDeg: number | null
  zone: string
  kind?: Job['kind']
  job?: Partial<Omit<Job, 'id' | 'name' | 'kind'>>
}

const NOWHERE = {
  latDeg: null,
  lonDeg: null,
  groundM: null,
  zone: 'UTC',
  headingDeg: null,
  swingDeg: 0,
  deviation: null,
} as const

/** What each kind of site starts with. The section of what moves runs from stern to bow: its axis is straight ahead. */
export const DEFAULT_SITE: Record<Job['kind'], Omit<Site, 'id'>> = {
  home: { ...NOWHERE, axisDeg: 90, lengthM: 12, depthM: 8, storeys: 2, storeyHeightM: 2.7, roofRiseM: 3 },
  vehicle: { ...NOWHERE, axisDeg: 0, lengthM: 7, depthM: 2.2, storeys: 1, storeyHeightM: 2.9, roofRiseM: 0 },
  boat: { ...NOWHERE, axisDeg: 0, lengthM: 12, depthM: 3.8, storeys: 1, storeyHeightM: 1.8, roofRiseM: 13 },
}

const room = (name: string, alongM: number, upM: number, indoors: boolean, needed = false, across = false): Omit<Spot, 'id'> => ({
  name,
  eastM: across ? alongM : 0,
  northM: across ? 0 : alongM,
  upM,
  indoors,
  needed,
})

const ROOMS: Record<Job['kind'], Omit<Spot, 'id'>[]> = {
  home: [
    room('Store', -4.2, 1, true, false, true),
    room('Hall', 0, 1, true, false, true),
    room('Kitchen', 4.2, 1, true, true, true),
    room('Bedroom', -3, 3.7, true, false, true),
    room('Study', 3, 3.7, true, false, true),
    room('Beside the house', -8, 1.5, false, false, true),
    room('Ridge', -1, 8.6, false, false, true),
  ],
  vehicle: [
    room('Cab', 2.2, 1.5, true),
    room('Table', 0.2, 1.5, true, true),
    room('Bunk', -2.2, 1.5, true),
    room('Beside it', 4.8, 1.5, false),
    room('Roof', 0, 3.1, false),
  ],
  boat: [
    room('Saloon', 0.4, 0.9, true, true),
    room('Chart table', -1.3, 0.9, true),
    room('Fore cabin', 3.4, 0.9, true),
    room('Cockpit', -3.8, 1.9, false),
    room('Spreaders', 0.6, 9, false),
  ],
}

const BASELINE: Record<Job['kind'], string> = { home: 'Kitchen', vehicle: 'Table', boat: 'Saloon' }

/** @returns the inserts of a job, its site and usual rooms; the first id made is the job's */
export function newJobChanges(input: NewJob, newId: Maker): { jobId: string; changes: Change[] } {
  const kind = input.kind ?? 'home'
  const rooms = ROOMS[kind]
  const jobId = newId()
  const designId = newId()
  const spotIds = rooms.map(() => newId())
  const job: Omit<Job, 'id'> = {
    name: input.name,
    kind,
    customerName: null,
    customerContact: null,
    customerAddress: null,
    agreedDownMbps: null,
    agreedUpMbps: null,
    agreedCalls: true,
    carrier: null,
    planCapMbps: null,
    sims: null,
    today: null,
    mayDrill: 'ask',
    notes: null,
    baselineSpotId: null,
    designId: null,
    rules: 'generic',
    stopId: null,
    kFactor: 4 / 3,
    ...input.job,
  }
  return {
    jobId,
    changes: [
      insert(newId, 'jobs', jobId, job),
      insert(newId, 'sites', newId(), { ...DEFAULT_SITE[kind], latDeg: input.latDeg, lonDeg: input.lonDeg, zone: input.zone }),
      ...rooms.map((r, i) => insert(newId, 'spots', spotIds[i]!, r)),
      insert(newId, 'designs', designId, {
        name: 'A',
        approach: 'router',
        mastId: null,
        band: null,
        bandwidthMHz: null,
        marginDb: 15,
        carriersInBand: null,
        obstructionDb: ROOF_DB,
        aimedDeg: null,
        aimedAtUtc: null,
      } satisfies Omit<Design, 'id'>),
      // A row names only rows that are there: the job points at its design and its spot last.
      {
        id: newId(),
        table: 'jobs',
        rowId: jobId,
        op: 'update',
        baseVersion: 0,
        fields: { designId, baselineSpotId: spotIds[rooms.findIndex(r => r.name === BASELINE[kind])]! },
      },
    ],
  }
}

/** What roof and ceilings take between donor and inside antenna, dB. Assumed. @source common practice (no source) */
export const ROOF_DB = 6

/** Slack for bends, drip loop and both ends, m. @source common practice (no source) */
export const SLACK_M = 1.5

/** Shortest stock length that reaches, else the length itself. */
export function stockLength(partId: string, neededM: number): number {
  const line = PARTS.find(p => p.id === partId)
  if (line?.kind !== 'line') return round2(neededM)
  return line.stockM.find(s => s >= neededM) ?? round2(neededM)
}

/**
 * Lays out the usual kit of an approach: antenna on the mast-side gable, arrestor at the entrance,
 * router or amplifier in the store, dome in the hall ceiling; aboard, an omni on the roof or at the
 * spreaders and the box below it. What the design held before is removed.
 *
 * @param bearingDeg  of the mast in the site frame
 */
export function kitChanges(
  doc: JobDocument,
  design: Design,
  approach: Design['approach'],
  bearingDeg: number | null,
  newId: Maker,
): Change[] {
  const site = doc.sites[0]!
  const kind = doc.jobs[0]!.kind
  const sign = kind === 'home' ? axisSign(site, bearingDeg) : 1
  const changes: Change[] = []
  const gone = (table: 'nodes' | 'runs', rows: { id: string; designId: string; version?: number }[]) => {
    for (const r of rows.filter(r => r.designId === design.id))
      changes.push({ id: newId(), table, rowId: r.id, op: 'delete', baseVersion: r.version ?? 0, fields: {} })
  }
  gone('runs', doc.runs)
  gone('nodes', doc.nodes)
  changes.push({
    id: newId(),
    table: 'designs',
    rowId: design.id,
    op: 'update',
    baseVersion: design.version ?? 0,
    fields: { approach },
  })
  const lay: Layer = {
    node(role, partId, alongM, upM) {
      const id = newId()
      const at = moveAlong(site, { eastM: 0, northM: 0, upM }, alongM, sign)
      changes.push(
        insert(newId, 'nodes', id, {
          designId: design.id,
          role,
          partId,
          ...at,
          upM: round2(upM),
          azimuthDeg: null,
          tiltDeg: 0,
          gainDb: null,
        } satisfies Omit<Node, 'id'>),
      )
      return id
    },
    run(fromNodeId, toNodeId, partId, neededM) {
      changes.push(
        insert(newId, 'runs', newId(), {
          designId: design.id,
          fromNodeId,
          toNodeId,
          partId,
          lengthM: stockLength(partId, neededM),
          measured: false,
          spareM: null,
        } satisfies Omit<Run, 'id'>),
      )
    },
  }
  if (kind === 'home') layHome(lay, site, approach)
  else layAboard(lay, site, kind, approach)
  return changes
}

interface Layer {
  node: (role: Node['role'], partId: string, alongM: number, upM: number) => string
  run: (fromNodeId: string, toNodeId: string, partId: string, neededM: number) => void
}

function layHome({ node, run }: Layer, site: Site, approach: Design['approach']): void {
  const half = site.lengthM / 2
  const mountM = Math.max(eavesM(site) + 1.6, ridgeM(site) - 0.4)
  const x = -half + 0.4
  const arrestorAt = { x: -half - 0.15, up: 1.2 }
  if (approach === 'router') {
    const antenna = node('outside', 'ant-panel-x', x, mountM)
    const arrestor = node('arrestor', 'arr-gas', arrestorAt.x, arrestorAt.up)
    const router = node('router', 'rtr-2', -half + 1.6, 1.1)
    run(antenna, arrestor, 'line-400', mountM - arrestorAt.up + SLACK_M)
    run(arrestor, router, 'line-240', 1.75 + SLACK_M)
  } else {
    const antenna = node('outside', 'ant-lpda', x, mountM)
    const arrestor = node('arrestor', 'arr-gas', arrestorAt.x, arrestorAt.up)
    const amplifier = node('amplifier', 'amp-home', -half + 1.6, 1.3)
    const ceiling = site.storeyHeightM - 0.15
    const inside = node('inside', 'ant-dome', 0.6, ceiling)
    run(antenna, arrestor, 'line-400', mountM - arrestorAt.up + SLACK_M)
    run(arrestor, amplifier, 'line-400', 1.75 + SLACK_M)
    run(amplifier, inside, 'line-400', half - 1 + ceiling - 1.3 + SLACK_M)
  }
}

/** Spreaders stand about three fifths up the mast. @source common practice (no source) */
export const spreadersM = (site: Pick<Site, 'storeys' | 'storeyHeightM' | 'roofRiseM'>): number =>
  round2(eavesM(site) + 0.6 * (ridgeM(site) - eavesM(site)))

function layAboard({ node, run }: Layer, site: Site, kind: 'vehicle' | 'boat', approach: Design['approach']): void {
  const mountM = kind === 'boat' ? spreadersM(site) : eavesM(site) + 0.25
  const mountAt = kind === 'boat' ? 0.05 * site.lengthM : -0.15 * site.lengthM
  const boxM = kind === 'boat' ? site.storeyHeightM * 0.6 : site.storeyHeightM * 0.72
  const antenna = node('outside', approach === 'router' ? 'ant-omni-x' : 'ant-omni', mountAt, mountM)
  const box = node(
    approach === 'router' ? 'router' : 'amplifier',
    approach === 'router' ? 'rtr-2' : 'amp-single',
    mountAt - (kind === 'boat' ? 0.2 : 0.08) * site.lengthM,
    boxM,
  )
  run(antenna, box, 'line-240', mountM - boxM + 0.1 * site.lengthM + SLACK_M)
  if (approach === 'booster') {
    const inside = node('inside', 'ant-panel-in', mountAt + 0.35 * site.lengthM, boxM)
    run(box, inside, 'line-195', 0.45 * site.lengthM + SLACK_M)
  }
}
