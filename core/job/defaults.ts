/** What a new job starts with. */
import { nth } from '../sure'
import type { Change, Design, Device, Fixture, Job, Label, SetupRow, Sim, Site, Spot } from './schema'

export type Maker = () => string

export const insertChange = (newId: Maker, table: Change['table'], rowId: string, fields: object): Change => ({
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
  /** of its first SIM */
  sim?: Partial<Omit<Sim, 'id'>>
}

const NOWHERE = {
  latDeg: null,
  lonDeg: null,
  groundM: null,
  zone: 'UTC',
  headingDeg: null,
  swingDeg: 0,
  deviation: null,
  body: null,
  mizzenRiseM: null,
  gustMs: null,
} as const

/** What each kind of site starts with. The section of what moves runs from stern to bow: its axis is straight ahead. */
export const DEFAULT_SITE: Record<Job['kind'], Omit<Site, 'id'>> = {
  home: {
    ...NOWHERE,
    ...{ axisDeg: 90, lengthM: 12, depthM: 8, storeys: 2, storeyHeightM: 2.7, roofRiseM: 3 },
    ...{ wallMaterial: 'brick', paneMaterial: 'glass', panePercent: 15, floorMaterial: 'timber floor', roofMaterial: 'tiles' },
  },
  building: {
    ...NOWHERE,
    ...{ axisDeg: 90, lengthM: 28, depthM: 16, storeys: 3, storeyHeightM: 3.4, roofRiseM: 0 },
    ...{ wallMaterial: 'block', paneMaterial: 'coated glass', panePercent: 35 },
    ...{ floorMaterial: 'reinforced concrete', roofMaterial: 'reinforced concrete' },
  },
  vehicle: {
    ...NOWHERE,
    ...{ axisDeg: 0, lengthM: 7, depthM: 2.2, storeys: 1, storeyHeightM: 2.9, roofRiseM: 0 },
    ...{ wallMaterial: 'sheet metal', paneMaterial: 'glass', panePercent: 0 },
    ...{ floorMaterial: 'timber', roofMaterial: 'sheet metal' },
  },
  boat: {
    ...NOWHERE,
    ...{ axisDeg: 0, lengthM: 12, depthM: 3.8, storeys: 1, storeyHeightM: 1.8, roofRiseM: 13 },
    ...{ wallMaterial: 'plastic', paneMaterial: 'glass', panePercent: 10, floorMaterial: 'plastic', roofMaterial: 'plastic' },
  },
}

/** What a fixture of another kind leaves empty. */
export const BARE_FIXTURE: Omit<Fixture, 'id' | 'kind' | 'name' | 'eastM' | 'northM' | 'upM'> = {
  widthM: null,
  heightM: null,
  azimuthDeg: null,
  tiltDeg: null,
  halfFieldDeg: null,
  entry: null,
  behind: null,
  behindFound: null,
  behindWhat: null,
  openMm: null,
  wallMm: null,
  electrode: null,
  bonded: null,
  conductor: null,
  corners: null,
}

/** A SIM of which nothing was said. */
export const BARE_SIM: Omit<Sim, 'id' | 'name'> = {
  carrier: null,
  plan: null,
  capDownMbps: null,
  capUpMbps: null,
  allowanceGb: null,
  callsOverWifi: null,
  iccid: null,
  size: null,
  resetDay: null,
  usedUp: null,
  slowMbps: null,
}

/** A label of which nothing was read. */
export const BARE_LABEL: Omit<Label, 'id' | 'nodeId'> = {
  serial: null,
  imei: null,
  mac: null,
  firmwareNeeded: null,
  firmwareFound: null,
  wps: null,
  adminFromOutside: null,
}

/** A set-up of which nothing was said: a device by itself. */
export const BARE_SETUP: Omit<SetupRow, 'id'> = {
  name: null,
  deviceId: null,
  simId: null,
  link: 'device',
  antenna: 'built in',
  designId: null,
  booster: 'none',
  bandLock: null,
  power: null,
  ownAntennas: null,
  place: null,
  antennaUpM: null,
  antennaDeg: null,
  mark: null,
}

const room = (
  name: string,
  alongM: number,
  upM: number,
  { indoors, needed = false, across = false }: { indoors: boolean; needed?: boolean; across?: boolean },
): Omit<Spot, 'id'> => ({
  name,
  eastM: across ? alongM : 0,
  northM: across ? 0 : alongM,
  upM,
  indoors,
  needed,
  people: null,
  use: null,
  needDbm: null,
  hangs: null,
  station: null,
  note: null,
})

const ROOMS: Record<Job['kind'], Omit<Spot, 'id'>[]> = {
  home: [
    room('Store', -4.2, 1, { indoors: true, needed: false, across: true }),
    room('Hall', 0, 1, { indoors: true, needed: false, across: true }),
    room('Kitchen', 4.2, 1, { indoors: true, needed: true, across: true }),
    room('Bedroom', -3, 3.7, { indoors: true, needed: false, across: true }),
    room('Study', 3, 3.7, { indoors: true, needed: false, across: true }),
    room('Beside the house', -8, 1.5, { indoors: false, needed: false, across: true }),
    room('Ridge', -1, 8.6, { indoors: false, needed: false, across: true }),
  ],
  building: [
    room('Reception', -9, 1, { indoors: true, needed: true, across: true }),
    room('Workshop', 4, 1, { indoors: true, needed: false, across: true }),
    room('Open office', -4, 4.4, { indoors: true, needed: true, across: true }),
    room('Meeting room', 9, 4.4, { indoors: true, needed: false, across: true }),
    room('Studio', -7, 7.8, { indoors: true, needed: false, across: true }),
    room('Plant room', 11, 7.8, { indoors: true, needed: false, across: true }),
    room('Pavement', -17, 1.5, { indoors: false, needed: false, across: true }),
    room('Roof', -12, 11.4, { indoors: false, needed: false, across: true }),
  ],
  vehicle: [
    room('Cab', 2.2, 1.5, { indoors: true }),
    room('Table', 0.2, 1.5, { indoors: true, needed: true }),
    room('Bunk', -2.2, 1.5, { indoors: true }),
    room('Beside it', 4.8, 1.5, { indoors: false }),
    room('Roof', 0, 3.1, { indoors: false }),
  ],
  boat: [
    room('Saloon', 0.4, 0.9, { indoors: true, needed: true }),
    room('Chart table', -1.3, 0.9, { indoors: true }),
    room('Fore cabin', 3.4, 0.9, { indoors: true }),
    room('Cockpit', -3.8, 1.9, { indoors: false }),
    room('Spreaders', 0.6, 9, { indoors: false }),
  ],
}

const BASELINE: Record<Job['kind'], string> = {
  home: 'Kitchen',
  building: 'Open office',
  vehicle: 'Table',
  boat: 'Saloon',
}

/** @returns the inserts of a job, its site and usual rooms; the first id made is the job's */
export function newJobChanges(input: NewJob, newId: Maker): { jobId: string; changes: Change[] } {
  const kind = input.kind ?? 'home'
  const rooms = ROOMS[kind]
  const jobId = newId()
  const designId = newId()
  const spotIds = rooms.map(() => newId())
  const [deviceId, simId, setupId] = [newId(), newId(), newId()]
  const job: Omit<Job, 'id'> = {
    name: input.name,
    kind,
    customerName: null,
    customerContact: null,
    customerAddress: null,
    agreedDownMbps: null,
    agreedUpMbps: null,
    agreedCalls: false,
    agreedDrops: null,
    carrier: null,
    today: null,
    complaint: null,
    changedLately: null,
    mayDrill: 'ask',
    drillWhere: null,
    outageMin: null,
    notes: null,
    baselineSpotId: null,
    designId: null,
    rules: 'generic',
    stopId: null,
    kFactor: 4 / 3,
    nextOn: null,
    methodId: null,
    quoteMarginPercent: null,
    quoteHours: null,
    needDataDbm: null,
    needCallsDbm: null,
    rsrpEdges: null,
    busyHours: null,
    sinrEdges: null,
    ...input.job,
  }
  return {
    jobId,
    changes: [
      insertChange(newId, 'jobs', jobId, job),
      insertChange(newId, 'sites', newId(), {
        ...DEFAULT_SITE[kind],
        latDeg: input.latDeg,
        lonDeg: input.lonDeg,
        zone: input.zone,
      }),
      ...rooms.map((r, i) => insertChange(newId, 'spots', nth(spotIds, i), r)),
      insertChange(newId, 'devices', deviceId, { name: 'Phone', kind: 'phone', antennaDbi: null } satisfies Omit<Device, 'id'>),
      insertChange(newId, 'sims', simId, {
        ...BARE_SIM,
        name: input.job?.carrier ? `${input.job.carrier} SIM` : 'SIM',
        carrier: input.job?.carrier ?? null,
        ...input.sim,
      } satisfies Omit<Sim, 'id'>),
      insertChange(newId, 'setups', setupId, { ...BARE_SETUP, deviceId, simId, mark: 'before' } satisfies Omit<SetupRow, 'id'>),
      insertChange(newId, 'designs', designId, {
        name: 'A',
        approach: 'router',
        mastId: null,
        band: null,
        bandwidthMHz: null,
        marginDb: null,
        carriersInBand: null,
        aimedDeg: null,
        aimedAtUtc: null,
        aimedTiltDeg: null,
        plugs: 'factory',
        reason: null,
        wayInId: null,
      } satisfies Omit<Design, 'id'>),
      // A row names only rows that are there: the job points at its design and its spot last.
      {
        id: newId(),
        table: 'jobs',
        rowId: jobId,
        op: 'update',
        baseVersion: 0,
        fields: {
          designId,
          baselineSpotId: nth(
            spotIds,
            rooms.findIndex(r => r.name === BASELINE[kind]),
          ),
        },
      },
    ],
  }
}
