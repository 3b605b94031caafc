import type { Kit } from '#core/fitting'
import type { TableName } from '#core/job'
import type { Met } from '#core/promise'
import type { LoopState } from '#core/separation'
import type { Calls } from '#core/solve'
import { num } from '#core/units'

/** What people call the fields and tables of a job. */
const FIELDS: Record<string, string> = {
  agreedDownMbps: 'download agreed',
  agreedUpMbps: 'upload agreed',
  name: 'name',
  number: 'number among those alike',
  upM: 'height',
  lengthM: 'length',
  partId: 'part',
  today: 'what is there today',
  complaint: 'Wi-Fi or cellular',
  changedLately: 'what changed lately',
  mayDrill: 'may we drill',
  drillWhere: 'where we may drill',
  outageMin: 'power cuts to be bridged',
  rsrpDbm: 'RSRP',
  rsrqDb: 'RSRQ',
  sinrDb: 'SINR',
  downMbps: 'download',
  upMbps: 'upload',
  takenAtUtc: 'time',
  spotId: 'spot',
  onDay: 'day',
  startsAt: 'beginning',
  dueOn: 'delivery day',
  quoteMarginPercent: 'margin',
  quoteHours: 'hours quoted',
}
const TABLES: Record<TableName, string> = {
  jobs: 'the job itself',
  sites: 'the site',
  floors: 'a floor',
  zones: 'a zone',
  walls: 'a wall',
  sheets: 'a sheet',
  stops: 'a stop',
  obstacles: 'an obstacle',
  landmarks: 'a landmark',
  pictures: 'a picture',
  floorPlans: 'a floor plan',
  fixtures: 'what stands on the site',
  photos: 'a photograph',
  labels: 'a label',
  simSlots: 'a SIM in its slot',
  connections: 'a connection',
  networks: 'a network',
  appliances: 'what hangs on a network',
  failovers: 'a failover test',
  usageDays: 'a day of use',
  signatures: 'a signature',
  visits: 'a visit',
  supplies: 'a line of the list',
  ownSteps: 'a step by hand',
  spots: 'a spot',
  devices: 'a device',
  sims: 'a SIM',
  setups: 'a set-up',
  calls: 'a call',
  watches: 'a watch for drop-outs',
  readings: 'a reading',
  speedRuns: 'a speed test',
  masts: 'a mast',
  cells: 'a cell',
  designs: 'a plan',
  nodes: 'a part',
  runs: 'a cable',
  isolations: 'an isolation',
  sweeps: 'a sweep',
  steps: 'a step of a sweep',
  checks: 'a tick',
}

export const fieldWord = (field: string): string => FIELDS[field] ?? field.replace(/([A-Z])/g, ' $1').toLowerCase()
export const tableWord = (table: TableName): string => TABLES[table]

/** A part by what it does in a design. */
const ROLES: Record<string, string> = { outside: 'outside antenna', inside: 'inside antenna', adapter: 'jumper' }
export const roleWords = (role: string): string => ROLES[role] ?? role

/** A part's figures as makers print them, with their unit. */
export const PART_FIGURES = {
  gainDb: ['Gain', 'dB'],
  lowestGainDb: ['Least gain it sets itself to', 'dB'],
  noiseFigureDb: ['Noise figure', 'dB'],
  outputDbm: ['Output limit down, total a band', 'dBm'],
  uplinkOutputDbm: ['Output limit up, total', 'dBm'],
  inputLimitDbm: ['Input limit, total', 'dBm'],
  shutDownDbm: ['Shuts down above, total', 'dBm'],
  frontToBackDb: ['Front to back, nulls', 'dB'],
  sizeM: ['Size', 'm'],
  lossDb: ['Loss', 'dB'],
  excessDb: ['Loss over the ideal', 'dB'],
  couplingDb: ['Down its side', 'dB'],
  givesW: ['Power it gives', 'W'],
  portLimitMbps: ['Fastest it passes on', 'Mbit/s'],
  spreadPercent: ['Spread of its loss', '%'],
  diameterMm: ['Diameter', 'mm'],
  bendMm: ['Bends no tighter than', 'mm'],
  massKg: ['Mass', 'kg'],
  windM2: ['Area in the wind', 'm²'],
  tailM: ['Its own leads', 'm'],
  powerW: ['Takes', 'W'],
} as const satisfies Record<string, readonly [label: string, unit: string]>

/** Where a figure stands on a scale from nothing to its end, for CSS; what lies beyond stands at the end. */
export const shareOf = (value: number, end: number): string => `${Math.min(100, Math.max(0, (value / end) * 100))}%`

/** Whether what was agreed is reached. */
export const MET_WORDS: Record<Met, string> = { likely: 'met', open: 'may do', unlikely: 'short' }

/** A kit, as it is called in a sentence. */
export const KIT_WORDS: Record<Kit, string> = {
  'router': 'router',
  'outdoors': 'modem outdoors',
  'window': 'router at the window',
  'stick': 'plug-in stick',
  'booster': 'booster',
  'booster and router': 'booster with a router',
  'extender': 'pair of extender units',
}

/** How calls go by an approach. */
export const CALL_WORDS: Record<Calls, string> = {
  'as phones are': 'yes',
  'over Wi-Fi': 'Wi-Fi',
  'not everywhere': 'in part',
  'not known': 'not known',
}

/** What a kit costs, as a class. */
export const COST_WORDS = ['nothing to buy', 'low cost', 'middle cost', 'high cost'] as const

/** What an amplifier does about its loop. */
export const loopWords = (loop: { state: LoopState; heldBackDb: number }): string =>
  ({ 'stable': 'runs', 'held back': `held back by ${num(loop.heldBackDb)} dB`, 'oscillating': 'oscillates' })[loop.state]

/** A day with its year and the time of day, in this device's zone. */
export const dayAndTime = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', year: 'numeric', hour: '2-digit', minute: '2-digit' })

/** The time of day at a place. @param zone  IANA */
export const clockTime = (iso: string, zone: string): string =>
  new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: zone })
/** A clock that counts up: minutes and seconds. */
export const minutesSeconds = (s: number): string => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`
