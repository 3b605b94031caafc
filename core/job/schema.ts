/**
 * The job document: every row an installer's work writes, as TypeBox schemas. Types and validators
 * come from here; the database's tables carry the same names.
 *
 * Units: metres in the site frame (east, north, up from the site point at ground), degrees true,
 * MHz, dB, dBm, Mbit/s, UTC as ISO 8601.
 */
import { nth } from '../sure'
import * as Type from '@sinclair/typebox'
import type { Static, TProperties } from '@sinclair/typebox'
import { Day, fieldOf, Id, later, Num, oneOf, opt, optLater, ref, Text, Time, Whole } from './fields'
import { BEHINDS, ENTRIES, FeedSchema, FixingSchema } from './fixing'
import { MATERIAL_IDS } from './materials'
import { OwnFigures, PartSchema, POLARISATIONS } from './part'

/** Sequence numbers and versions are 32 bits in the database. */
export const MOST_SEQUENCE = 2_147_483_647

export const KINDS = ['home', 'building', 'vehicle', 'boat'] as const
export type JobKind = (typeof KINDS)[number]
/** A vehicle or a boat: its bearings turn with it, and next week it is elsewhere. */
export const movesAbout = (kind: JobKind): kind is 'vehicle' | 'boat' => kind === 'vehicle' || kind === 'boat'

const TECHNOLOGY = oneOf('LTE', 'NR')
const metres = () => opt(Num(-500, 500))
const Material = oneOf(...MATERIAL_IDS)
const metresFrom = { eastM: Num(-500, 500), northM: Num(-500, 500), upM: Num(-20, 300) }

/** What counts as enough, and as busy; null takes the trade's. */
const enough = {
  /** RSRP that a room needs on a phone, for data and for calls */
  needDataDbm: optLater(Num(-140, -40)),
  needCallsDbm: optLater(Num(-140, -40)),
  /** lower edges of the four upper grades of RSRP, and of SINR, best first */
  rsrpEdges: optLater(Type.Array(Num(-140, -40), { minItems: 4, maxItems: 4 })),
  sinrEdges: optLater(Type.Array(Num(-20, 40), { minItems: 4, maxItems: 4 })),
  /** local hours from and to which the cell is busy: speeds are compared within them */
  busyHours: optLater(Type.Array(Whole(0, 23), { minItems: 2, maxItems: 2 })),
}
export const EnoughSchema = Type.Object(enough, { additionalProperties: false })
export type Enough = Static<typeof EnoughSchema>

/** Where the trouble lies: between device and router, or between router and mast. */
export const COMPLAINTS = ['Wi-Fi', 'cellular', 'both'] as const
export type Complaint = (typeof COMPLAINTS)[number]

const jobs = {
  name: Text(120, 1),
  kind: oneOf(...KINDS),
  customerName: opt(Text(120)),
  customerContact: opt(Text(200)),
  customerAddress: opt(Text(300)),
  agreedDownMbps: opt(Num(0, 10_000)),
  agreedUpMbps: opt(Num(0, 10_000)),
  agreedCalls: Type.Boolean(),
  /** drop-outs an hour that are still borne */
  agreedDrops: optLater(Num(0, 3600)),
  carrier: opt(Text(60)),
  today: opt(Text(1000)),
  /** what the complaint is about, told apart by a device on a wire; null while nobody has */
  complaint: optLater(oneOf(...COMPLAINTS)),
  /** insulation, a roof, a neighbour, a letter of the carrier; empty while not asked */
  changedLately: optLater(Text(500)),
  mayDrill: oneOf('yes', 'no', 'ask'),
  /** which wall, which roof, and which not */
  drillWhere: optLater(Text(200)),
  /** longest power cut that is to be bridged, minutes; 0 where none matters, null while not asked */
  outageMin: optLater(Num(0, 10_000)),
  notes: opt(Text(4000)),
  /** day of the next visit */
  nextOn: optLater(Day),
  baselineSpotId: opt(ref('spots', 'lets go')),
  designId: opt(ref('designs', 'lets go')),
  rules: oneOf('generic', 'US', 'UK', 'EU', 'AU'),
  /** the stop a vehicle or boat is at now; null at its own position */
  stopId: optLater(ref('stops', 'lets go')),
  /** effective earth radius factor of every path */
  kFactor: later(4 / 3, Num(0.5, 5)),
  /** the finished job that this one was made from: one of a fleet */
  methodId: optLater(Id),
  /** of this quote; null takes the crew's margin, and the hours of the card */
  quoteMarginPercent: optLater(Num(0, 500)),
  quoteHours: optLater(Num(0, 2000)),
  ...enough,
}

/** Bodies of what moves, each drawn from its few figures. */
export const BODIES = [
  'van',
  'pick-up',
  'box truck',
  'motorhome',
  'bus',
  'caravan',
  'travel trailer',
  'fifth wheel',
  'sailing boat',
  'motor boat',
] as const
export type Body = (typeof BODIES)[number]

const sites = {
  latDeg: opt(Num(-90, 90)),
  lonDeg: opt(Num(-180, 180)),
  groundM: opt(Num(-450, 9000)),
  zone: Text(64, 1),
  axisDeg: Num(0, 360),
  lengthM: Num(2, 400),
  depthM: Num(1, 400),
  storeys: Whole(1, 40),
  /** of a storey; of a vehicle to its roof, of a boat from the water to the coachroof */
  storeyHeightM: Num(0.5, 20),
  /** ridge over the eaves, 0 for a flat roof; of a boat: its mast above the coachroof */
  roofRiseM: Num(0, 60),
  /** of what moves; null is a van, or a sailing boat */
  body: optLater(oneOf(...BODIES)),
  /** of a boat with two masts: the one further aft above the coachroof; null with one mast */
  mizzenRiseM: optLater(Num(0.5, 60)),
  /** of the outside walls, or of the skin of what moves */
  wallMaterial: later('brick', Material),
  paneMaterial: later('glass', Material),
  /** share of the outside walls that is panes, % */
  panePercent: later(15, Num(0, 100)),
  floorMaterial: later('timber floor', Material),
  roofMaterial: later('tiles', Material),
  /** true heading of nose or bow */
  headingDeg: optLater(Num(0, 360)),
  /** how far it may swing either way from that heading: 0 parked, 180 any way */
  swingDeg: later(0, Num(0, 180)),
  /** strongest gust its poles are to stand, m/s; null takes what is usual */
  gustMs: optLater(Num(5, 95)),
  /** deviation card of its own compass, by compass heading, east positive */
  deviation: optLater(
    Type.Array(Type.Object({ headingDeg: Num(0, 360), deviationDeg: Num(-45, 45) }, { additionalProperties: false }), {
      maxItems: 72,
    }),
  ),
}

/** What a floor is used as: it tells how its ordinary walls stand, and the level it is designed for. */
export const USES = ['home', 'office', 'shop', 'store', 'hall', 'ward'] as const
export type Use = (typeof USES)[number]

/** A floor that is not as the site says of all: 0 is the ground floor. */
const floors = {
  level: Whole(0, 39),
  name: opt(Text(60)),
  heightM: opt(Num(1.8, 20)),
  /** of the slab above it */
  material: opt(Material),
  /** what it is used as; null as most of its rooms are */
  use: optLater(oneOf(...USES)),
}

/**
 * A part of a building that one amplifier serves, over one floor or several; metres along the site's axis and across it, from
 * its middle.
 */
const zones = {
  name: Text(60, 1),
  fromLevel: Whole(0, 39),
  toLevel: Whole(0, 39),
  alongFromM: Num(-200, 200),
  alongToM: Num(-200, 200),
  acrossFromM: Num(-200, 200),
  acrossToM: Num(-200, 200),
  /** what it is used as; null as its floors are */
  use: opt(oneOf(...USES)),
  /** level that its rooms are designed for, dBm RSRP, where they say none; null as is usual of their use */
  needDbm: optLater(Num(-140, -40)),
  /** usually there, over all of its rooms; null where nobody said */
  people: optLater(Num(0, 10_000)),
}

/** An inside wall, from floor to ceiling of one level. */
const walls = {
  level: Whole(0, 39),
  fromEastM: Num(-500, 500),
  fromNorthM: Num(-500, 500),
  toEastM: Num(-500, 500),
  toNorthM: Num(-500, 500),
  material: Material,
  /** as measured through it */
  lossDb: opt(Num(0, 60)),
}

/** A sheet or mesh hung up to part two antennas; `azimuthDeg` is the way it faces, tilt 90 lies flat. */
const sheets = {
  name: Text(80, 1),
  ...metresFrom,
  azimuthDeg: Num(0, 360),
  tiltDeg: Num(-90, 90),
  widthM: Num(0.1, 20),
  heightM: Num(0.1, 20),
  material: Material,
  lossDb: opt(Num(0, 60)),
}

const stops = {
  name: Text(80, 1),
  latDeg: Num(-90, 90),
  lonDeg: Num(-180, 180),
  groundM: opt(Num(-450, 9000)),
  zone: Text(64, 1),
  arriveOn: opt(Day),
  leaveOn: opt(Day),
  headingDeg: opt(Num(0, 360)),
  swingDeg: Num(0, 180),
  notes: opt(Text(1000)),
}

/** What the terrain lacks, as seen from the site: bearings clockwise from one to the other, its top above the ground there. */
const obstacles = {
  stopId: opt(ref('stops', 'goes too')),
  name: Text(80, 1),
  fromDeg: Num(0, 360),
  toDeg: Num(0, 360),
  distanceM: Num(2, 30_000),
  heightM: Num(0.5, 500),
}

/** Something to be seen from the site, to aim or to swing by. */
const landmarks = {
  stopId: opt(ref('stops', 'goes too')),
  name: Text(80, 1),
  latDeg: Num(-90, 90),
  lonDeg: Num(-180, 180),
}

/** A picture laid under the map: where its pixels lie; the picture itself is kept beside the job. */
const pictures = {
  name: Text(120, 1),
  widthPx: Type.Integer({ minimum: 1, maximum: 20_000 }),
  heightPx: Type.Integer({ minimum: 1, maximum: 20_000 }),
  /** lon = a·x + b·y + c, lat = d·x + e·y + f */
  affine: Type.Array(Num(-1e6, 1e6), { minItems: 6, maxItems: 6 }),
  opacity: Num(0, 1),
}

/** A floor's plan as a picture: where its pixels lie in the site frame; the picture itself is kept beside the job. */
const floorPlans = {
  level: Whole(0, 39),
  name: Text(120, 1),
  widthPx: Whole(1, 20_000),
  heightPx: Whole(1, 20_000),
  /** east = a·x + b·y + c, north = d·x + e·y + f, m; null until it has a scale */
  affine: opt(Type.Array(Num(-1e6, 1e6), { minItems: 6, maxItems: 6 })),
  opacity: Num(0, 1),
}

/** What stands on the site and is no part of a design: what kit is fed from, and what takes room or sky. */
export const FIXTURES = ['mains socket', '12 V feed', 'satellite terminal', 'roof unit', 'way in', 'duct', 'electrode'] as const
const Corners = Type.Array(Type.Object(metresFrom, { additionalProperties: false }), { maxItems: 40 })
const fixtures = {
  kind: oneOf(...FIXTURES),
  name: Text(80),
  ...metresFrom,
  /** of what takes room: across, and over where it stands */
  widthM: opt(Num(0.05, 50)),
  heightM: opt(Num(0.05, 50)),
  /** of a satellite terminal: the way it looks, its tilt from the zenith, and half the width of the sky it uses */
  azimuthDeg: opt(Num(0, 360)),
  tiltDeg: opt(Num(0, 90)),
  halfFieldDeg: opt(Num(5, 90)),
  /** of a way in: which it is, what is known of behind it, its free opening and what it goes through, mm */
  entry: optLater(oneOf(...ENTRIES)),
  behind: optLater(oneOf('known', 'looked at')),
  behindFound: optLater(oneOf(...BEHINDS)),
  behindWhat: optLater(Text(200)),
  /** free inside, across; of a duct its inside diameter */
  openMm: optLater(Num(2, 1000)),
  wallMm: optLater(Num(0.3, 3000)),
  /** of an electrode: what it is, whether it is bonded to the building's earthing, and the conductor from the arrestor to it */
  electrode: optLater(oneOf('rod', 'house earthing', 'hull plate', 'water pipe', 'gas pipe')),
  bonded: optLater(oneOf('yes', 'no')),
  conductor: optLater(oneOf('solid', 'braid')),
  corners: optLater(Corners),
}

/** A photograph taken on site: where it was taken or what it shows, and which way; its bytes are kept beside the job. */
const photos = {
  stopId: opt(ref('stops', 'lets go')),
  caption: opt(Text(300)),
  takenAtUtc: Time,
  widthPx: Whole(1, 20_000),
  heightPx: Whole(1, 20_000),
  eastM: metres(),
  northM: metres(),
  upM: opt(Num(-20, 300)),
  /** true bearing the camera looked along */
  bearingDeg: opt(Num(0, 360)),
  /** what it shows */
  spotId: opt(ref('spots', 'lets go')),
  nodeId: opt(ref('nodes', 'lets go')),
  /** the step of the card at which it was taken */
  stepKey: optLater(Text(160)),
}

/** What stands on a box's label, read before it is hidden. */
const labels = {
  nodeId: ref('nodes', 'goes too'),
  serial: opt(Text(60)),
  imei: opt(Type.String({ pattern: '^\\d{15}$' })),
  /** six pairs of hexadecimal digits with colons */
  mac: opt(Type.String({ pattern: '^[0-9A-F]{2}(:[0-9A-F]{2}){5}$' })),
  /** what its maker's page asks for at least, and what was found in it */
  firmwareNeeded: optLater(Text(40)),
  firmwareFound: optLater(Text(40)),
  /** whether a press alone lets a device in, and whether it is administered from outside */
  wps: optLater(oneOf('off', 'on')),
  adminFromOutside: optLater(oneOf('off', 'on')),
}

/** Which SIM lies in which slot of a box: slots are counted over all its modems, from 1. */
const simSlots = {
  nodeId: ref('nodes', 'goes too'),
  slot: Whole(1, 32),
  simId: ref('sims', 'goes too'),
}

export const CONNECTION_KINDS = ['cellular', 'cable line', 'satellite', 'site Wi-Fi', 'tether'] as const
export type ConnectionKind = (typeof CONNECTION_KINDS)[number]
/** What a connection may carry, the most first. */
export const CARRIES = ['everything', 'no tunnels', 'calls and mail', 'only its check'] as const
/** How far a connection has come, as modems report it, or a person reads it off lamps. */
export const CONNECTION_STATES = [
  'not in yet',
  'off',
  'no SIM',
  'PIN',
  'searching',
  'denied',
  'no data',
  'no internet',
  'slow',
  'up',
] as const
export type ConnectionState = (typeof CONNECTION_STATES)[number]

/** A way by which a box comes to the internet; they are tried by their rank, the lowest first. */
const connections = {
  name: Text(60, 1),
  kind: oneOf(...CONNECTION_KINDS),
  rank: Num(0, 100_000),
  /** the box whose modem or port it comes in by */
  nodeId: opt(ref('nodes', 'lets go')),
  simId: opt(ref('sims', 'lets go')),
  use: oneOf('in order', 'bonded', 'by hand'),
  carries: oneOf(...CARRIES),
  /** what it is held to: all of it, each device, and what is kept free for calls, Mbit/s; null where it is not */
  throttleDownMbps: opt(Num(0.05, 10_000)),
  throttleUpMbps: opt(Num(0.05, 10_000)),
  deviceMbps: opt(Num(0.05, 10_000)),
  reserveMbps: opt(Num(0.05, 10_000)),
  /** how often the box asks whether it still answers, at how many places, and how many lost answers it takes */
  checkS: opt(Num(1, 86_400)),
  checkPlaces: opt(Whole(1, 8)),
  checkMisses: opt(Whole(1, 100)),
  /** a month, of what has no SIM; null where nothing is counted */
  allowanceGb: opt(Num(0, 1_000_000)),
  /** the address it gives: the box's own, shared by the carrier, or behind another router */
  address: opt(oneOf('own', 'shared', 'behind a router')),
  /** mast, and of the fixtures: the socket its box is fed by, and the way in of its cable */
  mastId: opt(ref('masts', 'lets go')),
  socketId: opt(ref('fixtures', 'lets go')),
  entryId: opt(ref('fixtures', 'lets go')),
  state: oneOf(...CONNECTION_STATES),
  stateAtUtc: opt(Time),
  /** power-on of its first connection; null before, and once it was started anew */
  poweredAtUtc: opt(Time),
}

export const NETWORK_KINDS = ['house', 'guests', 'management'] as const
/** A network that a box makes. Its password is said by its state alone: never typed, stored or photographed. */
const networks = {
  name: Text(40, 1),
  kind: oneOf(...NETWORK_KINDS),
  /** whether what hung on the old one finds its name again */
  named: oneOf('old name kept', 'new name'),
  radio: opt(oneOf('2.4 GHz', '5 GHz', 'both', 'wire')),
  /** whether it sees the others: tried, not believed */
  apart: opt(oneOf('apart', 'sees the others')),
  deviceMbps: opt(Num(0.05, 10_000)),
  password: opt(oneOf('as delivered', 'changed')),
  passwordBy: opt(Text(80)),
  passwordTo: opt(Text(80)),
  passwordOn: opt(Day),
}

/** What hangs on a network. */
export const USAGES = ['films', 'calls with picture', 'calls', 'work', 'camera', 'music', 'updates', 'little'] as const
const appliances = {
  networkId: ref('networks', 'goes too'),
  name: Text(80, 1),
  /** when it was seen to work again */
  backAtUtc: opt(Time),
  /** it works through a tunnel */
  tunnel: Type.Boolean(),
  usage: opt(oneOf(...USAGES)),
  hoursDay: opt(Num(0, 24)),
  /** a figure of its own, MB an hour; null takes what is usual of its use */
  mbHour: opt(Num(0, 100_000)),
}

export const TAKEN_AWAY = [
  'line pulled',
  'line without internet',
  'SIM out',
  'box without power',
  'mains off',
  'antenna lead off',
] as const
/** A connection taken away on purpose, by the clock: each instant is noted when it is pressed or heard. */
const failovers = {
  connectionId: ref('connections', 'goes too'),
  how: oneOf(...TAKEN_AWAY),
  pulledAtUtc: Time,
  /** the first answer by another, and which */
  answeredAtUtc: opt(Time),
  otherId: opt(ref('connections', 'lets go')),
  /** put back in, and the first answer by it again */
  backInAtUtc: opt(Time),
  backAtUtc: opt(Time),
  /** what did not live through it, in words; empty where all lived */
  broke: opt(Text(300)),
  address: opt(oneOf('same', 'changed')),
  withdrawn: Type.Boolean(),
}

export const SIGNED = ['accepted', 'accepted with remarks', 'refused'] as const
/** Put under what was handed over, on the screen, by the customer's own hand. */
const signatures = {
  what: oneOf('handover', 'access'),
  said: oneOf(...SIGNED),
  name: Text(120, 1),
  atUtc: Time,
  remarks: opt(Text(1000)),
  /** what was open when it was put there, in words; null where nothing was */
  open: opt(Text(2000)),
  /** each stroke as x and y in turn, in thousandths of the field's width */
  strokes: Type.Array(Type.Array(Whole(0, 1000), { minItems: 2, maxItems: 4000 }), { minItems: 1, maxItems: 200 }),
}

/** What went over a connection on a day, and in each of its hours where that was counted, MB. */
const usageDays = {
  connectionId: ref('connections', 'goes too'),
  onDay: Day,
  mb: Num(0, 100_000_000),
  hours: opt(Type.Array(Num(0, 100_000_000), { minItems: 24, maxItems: 24 })),
}

/** A day or part of one on site. */
export const WEATHER = ['any', 'dry', 'dry and calm'] as const
export const VISIT_STATES = ['planned', 'confirmed', 'done', 'called off'] as const
const visits = {
  onDay: Day,
  /** local time of the site */
  startsAt: Type.String({ pattern: '^([01]\\d|2[0-3]):[0-5]\\d$' }),
  hours: Num(0.25, 16),
  /** who goes: a team of the crew, by its name; null while nobody is down for it */
  team: opt(Text(60, 1)),
  people: Whole(1, 8),
  weather: oneOf(...WEATHER),
  state: oneOf(...VISIT_STATES),
  note: opt(Text(500)),
}

/** A line of the list: where its things are; of a line by hand what they are too. */
export const SUPPLY_STATES = ['to get', 'ordered', 'here', 'packed', 'brought back'] as const
const supplies = {
  /** of the computed list; `own:` and an id for a line by hand */
  key: Text(160, 1),
  name: opt(Text(160, 1)),
  quantity: opt(Num(0, 10_000)),
  state: oneOf(...SUPPLY_STATES),
  supplier: opt(Text(80)),
  dueOn: opt(Day),
}

/** A step that somebody added to the card. */
const ownSteps = {
  words: Text(160, 1),
  stand: oneOf('in coverage', 'ground', 'up'),
  minutes: Num(1, 960),
  /** key of the step it comes after, or of the one it comes before; neither for whenever there is time */
  afterKey: opt(Text(160)),
  beforeKey: optLater(Text(160)),
}

/** Places of a survey walk, in the order they are walked. */
export const STATIONS = ['device', 'corner', 'window', 'outside', 'high', 'donor'] as const
export type Station = (typeof STATIONS)[number]

const spots = {
  name: Text(80, 1),
  /** which of the walk's places it is */
  station: optLater(oneOf(...STATIONS)),
  note: optLater(Text(500)),
  ...metresFrom,
  indoors: Type.Boolean(),
  needed: Type.Boolean(),
  /** usually there: what its share of a floor weighs by; null counts as one */
  people: optLater(Num(0, 10_000)),
  /** what the room is used as, and the level it is designed for, dBm RSRP; null as is usual of the site, and of that use */
  use: optLater(oneOf(...USES)),
  needDbm: optLater(Num(-140, -40)),
  /** what hangs on today's Wi-Fi or wire there, and would lose it if the router moved */
  hangs: optLater(Text(200)),
}

/** What reads: a phone, a router, a modem. */
const devices = {
  name: Text(80, 1),
  kind: oneOf('phone', 'router', 'modem'),
  /** of its own antenna; null takes what is usual of its kind */
  antennaDbi: opt(Num(-20, 20)),
}

const sims = {
  name: Text(80, 1),
  carrier: opt(Text(60)),
  plan: opt(Text(300)),
  capDownMbps: opt(Num(0.01, 10_000)),
  capUpMbps: opt(Num(0.01, 10_000)),
  allowanceGb: opt(Num(0, 1_000_000)),
  /** whether its plan, and the phones, carry calls over Wi-Fi */
  callsOverWifi: optLater(oneOf('yes', 'no')),
  /** number on the card */
  iccid: optLater(Type.String({ pattern: '^\\d{19,20}$' })),
  size: optLater(oneOf('mini', 'micro', 'nano', 'eSIM')),
  /** day of the month at which its allowance begins anew, and what happens when it is used up */
  resetDay: optLater(Whole(1, 31)),
  usedUp: optLater(oneOf('stops', 'slows', 'costs')),
  slowMbps: optLater(Num(0.01, 10_000)),
}

/** What a reading or a test was made with. The next one is a copy with one thing changed. */
const setups = {
  name: opt(Text(80)),
  deviceId: opt(ref('devices', 'forbids')),
  simId: opt(ref('sims', 'forbids')),
  link: oneOf('device', 'LAN', 'Wi-Fi 2.4', 'Wi-Fi 5'),
  antenna: oneOf('built in', 'outside'),
  /** whose antenna, where it is an outside one */
  designId: opt(ref('designs', 'lets go')),
  booster: oneOf('none', 'off', 'on'),
  bandLock: opt(Text(40)),
  /** what it was fed by: on a battery some devices send and listen with less */
  power: optLater(oneOf('battery', 'lead')),
  /** whether the device's own antennas were on it: taken off, they listen and send no more */
  ownAntennas: optLater(oneOf('in', 'out')),
  /** where an outside antenna was held or fixed, how high above ground, and where it pointed, degrees true */
  place: optLater(Text(60)),
  antennaUpM: optLater(Num(-20, 300)),
  antennaDeg: optLater(Num(0, 360)),
  /** before anything was changed, or as it is to stay; null for what was tried between */
  mark: opt(oneOf('before', 'after')),
}

/** Which carrier answered: the anchor, where several were used together. */
const answered = { band: optLater(Text(12)), cellId: optLater(Text(40)) }

/** What every log's row holds. `stopId`: where a vehicle or boat stood; null at its own place, and for a home. */
const log = (table: 'readings' | 'speedRuns' | 'calls' | 'watches') => ({
  stopId: optLater(ref('stops', 'forbids')),
  takenAtUtc: Time,
  setupId: optLater(ref('setups', 'forbids')),
  replacesId: opt(ref(table, 'forbids')),
  withdrawn: Type.Boolean(),
})

const readings = {
  ...log('readings'),
  spotId: ref('spots', 'forbids'),
  technology: TECHNOLOGY,
  band: opt(Text(12)),
  channel: opt(Whole(0, 3_279_165)),
  bandwidthMHz: opt(Num(1.4, 100)),
  cellId: opt(Text(40)),
  rsrpDbm: opt(Num(-160, -20)),
  rsrqDb: opt(Num(-50, 10)),
  sinrDb: opt(Num(-30, 60)),
  /** rows of one moment, a carrier each, share a number */
  capture: optLater(Id),
  /** which of the carriers used together it is */
  carrierRole: later('anchor', oneOf('anchor', 'added', 'NR')),
}

const speedRuns = {
  ...log('speedRuns'),
  ...answered,
  spotId: ref('spots', 'forbids'),
  downMbps: opt(Num(0, 10_000)),
  upMbps: opt(Num(0, 10_000)),
  pingMs: opt(Num(0, 100_000)),
  wouldNotLoad: Type.Boolean(),
  /** of a test against our own server: a mark of the public address it came from */
  via: optLater(Text(64)),
  /** it went another way than the set-up's earlier ones: it stays, and counts in no median */
  doubted: later(false, Type.Boolean()),
}

/** A call tried, never to an emergency number. */
const calls = {
  ...log('calls'),
  spotId: ref('spots', 'forbids'),
  made: Type.Boolean(),
  heard: Type.Boolean(),
  dropped: Type.Boolean(),
}

/** How long the link was lost: watched for a while, or with the main line pulled on purpose. */
const watches = {
  ...log('watches'),
  spotId: ref('spots', 'forbids'),
  kind: oneOf('watch', 'drill'),
  seconds: Num(0, 1_000_000),
  drops: Whole(0, 100_000),
  longestS: Num(0, 1_000_000),
  lostS: Num(0, 1_000_000),
  /** of a drill: from the line pulled to the first answer by the other way, and from its return to the way back */
  switchS: opt(Num(0, 100_000)),
  backS: opt(Num(0, 100_000)),
  /** of a drill: what did not live through it */
  broke: opt(Text(500)),
}

const masts = {
  name: Text(120, 1),
  latDeg: Num(-90, 90),
  lonDeg: Num(-180, 180),
  heightM: opt(Num(0, 700)),
  groundM: opt(Num(-450, 9000)),
  carrier: Text(60),
  /** radius within which a position gathered from others' phones holds, m; null where it was surveyed */
  accuracyM: optLater(Num(0, 100_000)),
  /** the day the source last saw it */
  seenOn: optLater(Day),
}

const cells = {
  mastId: ref('masts', 'goes too'),
  technology: TECHNOLOGY,
  band: Text(12),
  cellId: opt(Text(40)),
  channel: optLater(Whole(0, 3_279_165)),
  azimuthDeg: opt(Num(0, 360)),
  beamwidthDeg: opt(Num(1, 360)),
  powerDbm: opt(Num(-30, 70)),
}

const designs = {
  name: Text(40),
  approach: oneOf('router', 'booster'),
  mastId: opt(ref('masts', 'lets go')),
  band: opt(Text(12)),
  bandwidthMHz: opt(Num(1.4, 100)),
  /** kept between gain and isolation; null takes what the amplifier asks for */
  marginDb: opt(Num(0, 40)),
  carriersInBand: opt(Type.Integer({ minimum: 1, maximum: 40 })),
  aimedDeg: opt(Num(0, 360)),
  aimedAtUtc: opt(Time),
  /** elevation it was locked at, degrees over the horizon */
  aimedTiltDeg: optLater(Num(-90, 90)),
  /** cables bought with plugs on, or cut from a drum and crimped on site */
  plugs: later('factory', oneOf('factory', 'crimped')),
  /** why this one was chosen over the others */
  reason: optLater(Text(500)),
  /** of the fixtures: by which its cables come in */
  wayInId: optLater(ref('fixtures', 'lets go')),
}

/** A part in its place. The part is a copy: what the catalogue says later does not change what was planned. */
const nodes = {
  designId: ref('designs', 'goes too'),
  partId: Text(40),
  part: optLater(PartSchema),
  /** what somebody calls it; null as it is called by what it is and where it stands */
  name: optLater(Text(40)),
  /** by which it is told from those alike, once one of them was taken out; null as it was put in */
  number: optLater(Whole(1, 9999)),
  /** the maker's figures of the very part */
  own: optLater(OwnFigures),
  ...metresFrom,
  azimuthDeg: opt(Num(0, 360)),
  tiltDeg: Num(-90, 90),
  /** what holds it, and what feeds it; null while nobody has said */
  fixing: optLater(FixingSchema),
  feed: optLater(FeedSchema),
  /** of the fixtures: which of the feeds noted it is fed by; null takes the nearest */
  sourceId: optLater(ref('fixtures', 'lets go')),
  /** of an antenna: how it is fitted about its own axis; null as its kind usually is */
  polarisation: optLater(oneOf(...POLARISATIONS)),
}

/** A cable from port to port; without a line, one part is screwed to the other. A port left out is the part's next free one. */
const runs = {
  designId: ref('designs', 'goes too'),
  fromNodeId: ref('nodes', 'goes too'),
  fromPort: optLater(Text(16)),
  toNodeId: ref('nodes', 'goes too'),
  toPort: optLater(Text(16)),
  partId: opt(Text(40)),
  part: optLater(PartSchema),
  lengthM: Num(0, 500),
  measured: Type.Boolean(),
  spareM: metres(),
  /** corners of its way from part to part, in order; null where nobody has drawn it */
  way: optLater(Corners),
  /** of its pieces, in order, what a tape said, m; null where it was only drawn */
  pieces: optLater(Type.Array(opt(Num(0, 500)), { maxItems: 41 })),
}

/** What parts a donor and an inside antenna, where something else than the sum is to be believed. */
const isolations = {
  designId: ref('designs', 'goes too'),
  donorId: ref('nodes', 'goes too'),
  serverId: ref('nodes', 'goes too'),
  /** the maker's figure for such a lay-out, and what was measured on site, dB */
  makerDb: opt(Num(0, 200)),
  measuredDb: opt(Num(0, 200)),
  inForce: oneOf('computed', 'quick', 'maker', 'measured'),
  reason: opt(Text(300)),
}

const sweeps = {
  ...answered,
  stopId: optLater(ref('stops', 'forbids')),
  designId: ref('designs', 'goes too'),
  startedAtUtc: Time,
  setupId: optLater(ref('setups', 'forbids')),
  /** what is read at each step: lamps from 0 to 5, down and up in Mbit/s */
  quantity: oneOf('SINR', 'RSRP', 'RSRQ', 'down', 'up', 'lamps'),
  reference: oneOf('true', 'magnetic'),
  /** what is compared: headings round the mast, tilts up and down, or the branches of a pair as they stand, pass 1 and 2 */
  axis: later('heading', oneOf('heading', 'tilt', 'branch')),
  /** turned slowly without a stop, read on the way */
  slow: later(false, Type.Boolean()),
  stepDeg: opt(Num(1, 90)),
  /** how long each step is held before it is read, s */
  dwellS: optLater(Num(1, 600)),
  /** positions of the bracket that cannot be reached, true degrees */
  struckDeg: optLater(Type.Array(Num(0, 360), { maxItems: 72 })),
}

const steps = {
  sweepId: ref('sweeps', 'goes too'),
  pass: Type.Integer({ minimum: 1, maximum: 50 }),
  headingDeg: Num(0, 360),
  /** of a sweep up and down */
  tiltDeg: optLater(Num(-90, 90)),
  value: Num(-160, 10_000),
  takenAtUtc: Time,
  replacesId: opt(ref('steps', 'forbids')),
  withdrawn: Type.Boolean(),
}

const checks = {
  /** a caution ticked, a finding accepted, a step done or not, a fact of a gate, a figure of the dry run, what a step taught */
  kind: oneOf('tick', 'accept', 'step', 'fact', 'read', 'lesson'),
  key: Text(160),
  done: Type.Boolean(),
  reason: opt(Text(500)),
  by: opt(Text(120)),
  atUtc: opt(Time),
  /** where it was ticked, and what it named then: it holds for nothing else */
  stopId: optLater(ref('stops', 'lets go')),
  about: optLater(Text(400)),
  /** of a fact that is a figure: a gust, m/s, a distance, m */
  value: optLater(Num(-1000, 100_000)),
}

/** Fields of each table, without the id that every row has. */
export const TABLE_FIELDS = {
  jobs,
  sites,
  floors,
  zones,
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
  // After what they show.
  photos,
  labels,
  simSlots,
  connections,
  networks,
  appliances,
  failovers,
  usageDays,
  signatures,
  visits,
  supplies,
  ownSteps,
  sweeps,
  steps,
  checks,
} satisfies Record<string, TProperties>

export type TableName = keyof typeof TABLE_FIELDS
export const TABLES = Object.keys(TABLE_FIELDS) as TableName[]

/**
 * What a row of before holds in fields that came since: a change kept in the outbox of an older app is taken as it was
 * meant.
 */
export const LATER_FIELDS = Object.fromEntries(
  TABLES.map(t => [
    t,
    Object.fromEntries(
      Object.entries(TABLE_FIELDS[t]).flatMap(([field, schema]) => {
        const { before } = fieldOf(schema)
        return before === undefined ? [] : [[field, before]]
      }),
    ),
  ]),
) as Record<TableName, Record<string, unknown>>

/** Fields that are no more: a change of before that names them is taken without them. */
export const GONE_FIELDS: { [T in TableName]?: readonly string[] } = {
  jobs: ['planCapMbps', 'sims'],
  designs: ['obstructionDb'],
  nodes: ['role', 'gainDb'],
  readings: ['phase', 'device'],
  speedRuns: ['phase'],
}

/** Tables whose rows hold at one place: a new row is of the stop at which the job stands. */
export const PLACED = [
  'obstacles',
  'landmarks',
  'photos',
  'readings',
  'speedRuns',
  'calls',
  'watches',
  'sweeps',
] as const satisfies readonly TableName[]
export const PLACED_TABLES: ReadonlySet<TableName> = new Set(PLACED)

/** Logs only grow: a correction names the row it replaces, a deletion is a row that withdraws. */
export const APPEND_ONLY: ReadonlySet<TableName> = new Set(['readings', 'speedRuns', 'calls', 'watches', 'steps'])

type FieldsOf<P extends TProperties> = Static<ReturnType<typeof Type.Object<P>>>
export type Row<T extends TableName> = FieldsOf<(typeof TABLE_FIELDS)[T]> & { id: string; version?: number }

export type Job = Row<'jobs'>
export type Site = Row<'sites'>
export type FloorRow = Row<'floors'>
export type Zone = Row<'zones'>
export type WallRow = Row<'walls'>
export type SheetRow = Row<'sheets'>
export type Stop = Row<'stops'>
export type Obstacle = Row<'obstacles'>
export type Landmark = Row<'landmarks'>
export type Picture = Row<'pictures'>
export type FloorPlan = Row<'floorPlans'>
export type Fixture = Row<'fixtures'>
export type Photo = Row<'photos'>
export type Label = Row<'labels'>
export type SimSlot = Row<'simSlots'>
export type Connection = Row<'connections'>
export type Network = Row<'networks'>
export type Appliance = Row<'appliances'>
export type Failover = Row<'failovers'>
export type Signature = Row<'signatures'>
export type UsageDay = Row<'usageDays'>
export type Visit = Row<'visits'>
export type Supply = Row<'supplies'>
export type OwnStep = Row<'ownSteps'>
export type Spot = Row<'spots'>
export type Reading = Row<'readings'>
export type SpeedRun = Row<'speedRuns'>
export type Device = Row<'devices'>
export type Sim = Row<'sims'>
export type SetupRow = Row<'setups'>
export type Call = Row<'calls'>
export type Watch = Row<'watches'>
export type Mast = Row<'masts'>
export type Cell = Row<'cells'>
export type Design = Row<'designs'>
export type Node = Row<'nodes'>
export type Run = Row<'runs'>
export type IsolationRow = Row<'isolations'>
export type Sweep = Row<'sweeps'>
export type Step = Row<'steps'>
export type Check = Row<'checks'>

/** Everything of one job. `masts` and `cells` hold the job's own and the crew's near its present place. */
export type JobDocument = { [T in TableName]: Row<T>[] }

/** @returns the one row that an open job's document has of the table. @throws RangeError where the document is empty */
export const jobOf = (doc: Pick<JobDocument, 'jobs'>): Job => nth(doc.jobs, 0)
export const siteOf = (doc: Pick<JobDocument, 'sites'>): Site => nth(doc.sites, 0)

/** Full-row and partial-row schemas per table, for inserts and updates. */
export const rowSchema = (t: TableName) => Type.Object(TABLE_FIELDS[t] as TProperties, { additionalProperties: false })
export const partialSchema = (t: TableName) => Type.Partial(rowSchema(t), { additionalProperties: false, minProperties: 1 })

/** An edit on its way: it stays untyped, because it may be of an older program. */
export interface Change {
  id: string
  table: TableName
  rowId: string
  op: 'insert' | 'update' | 'delete'
  /** version of the row that it was made on */
  baseVersion: number
  fields: Record<string, unknown>
}

/** Fields that hold an instant, per table: those a wrong clock spoils. */
export const TIME_FIELDS: { [T in TableName]?: readonly string[] } = Object.fromEntries(
  TABLES.flatMap(t => {
    const fields = Object.entries(TABLE_FIELDS[t])
      .filter(([, schema]) => JSON.stringify(schema).includes('"date-time"'))
      .map(([f]) => f)
    return fields.length ? [[t, fields]] : []
  }),
)

export const without = <T extends Record<string, unknown>>(row: T, fields: readonly string[]): T =>
  Object.fromEntries(Object.entries(row).filter(([k]) => !fields.includes(k))) as T

export const emptyDocument = (): JobDocument => Object.fromEntries(TABLES.map(t => [t, []])) as unknown as JobDocument
