/**
 * Parts as data: what the shipped catalogue, a crew's own list and the copies in a design all hold.
 *
 * Units: MHz, dB, dBi, dBm, ohm, m, mm; line loss constants per 100 m.
 */
import * as Type from '@sinclair/typebox'
import type { Static } from '@sinclair/typebox'
import { Num, oneOf, Text } from './fields'

export const CONNECTORS = ['N', 'SMA', 'RP-SMA', 'TS9', 'CRC9', 'F', 'FME', 'TNC', 'BNC', 'RJ45', 'DC', 'mains'] as const
export type Connector = (typeof CONNECTORS)[number]
export type Gender = 'plug' | 'socket'

/**
 * What a port is for. `cell` carries a modem's branch, `wifi` and `position` only look like it; `lan` is a socket for a data
 * cable; by `power` a part is fed, by `supply` it feeds others; `service` is of what is
 * no cellular service.
 */
export const PORT_ROLES = [
  'feed',
  'cell',
  'wifi',
  'position',
  'lan',
  'power',
  'supply',
  'service',
  'donor',
  'server',
  'in',
  'out',
  'through',
  'tap',
] as const
export type PortRole = (typeof PORT_ROLES)[number]

const PortSchema = Type.Object(
  {
    id: Text(16, 1),
    role: oneOf(...PORT_ROLES),
    connector: oneOf(...CONNECTORS),
    gender: oneOf('plug', 'socket'),
    impedanceOhm: oneOfNumber(50, 75, 100),
  },
  { additionalProperties: false },
)
export type Port = Static<typeof PortSchema>

function oneOfNumber<T extends number>(...values: T[]) {
  return Type.Unsafe<T>({ type: 'number', enum: values })
}

const Bands = Type.Array(Text(12, 1), { maxItems: 80 })

/** Thin coax that leads are made of. */
export const LEAD_COAX = ['195', 'RG-58', 'RG-174'] as const
export type LeadCoax = (typeof LEAD_COAX)[number]

export const SUPPLIES = ['mains', '12 V', 'PoE', 'passive PoE', 'USB', 'over the coax'] as const

/** What any part may say of itself beside its radio figures: for fixing, feeding and buying it. */
const facts = {
  massKg: Type.Optional(Num(0, 500)),
  /** width, height, depth */
  sizeMm: Type.Optional(Type.Array(Num(1, 10_000), { minItems: 3, maxItems: 3 })),
  /** seen by the wind from its worst side */
  windM2: Type.Optional(Num(0, 20)),
  /** what it is fixed by, thread included: `clamp`, `four screws M5`, `G 1¼ thread` */
  mount: Type.Optional(Text(80)),
  clampMm: Type.Optional(Type.Array(Num(1, 500), { minItems: 2, maxItems: 2 })),
  /** lead that is fixed to it, m */
  tailM: Type.Optional(Num(0, 50)),
  /** what that lead is made of */
  tailCoax: Type.Optional(oneOf(...LEAD_COAX)),
  powerW: Type.Optional(Num(0, 500)),
  supply: Type.Optional(oneOf(...SUPPLIES)),
  /** lowest and highest of its surroundings */
  temperatureC: Type.Optional(Type.Array(Num(-60, 120), { minItems: 2, maxItems: 2 })),
  outdoors: Type.Optional(Type.Boolean()),
  /** 1 low, 2 middle, 3 high, among parts of its kind */
  priceClass: Type.Optional(oneOfNumber(1, 2, 3)),
  /** what comes with it, and what must be bought apart */
  inBox: Type.Optional(Type.Array(Text(80, 1), { maxItems: 20 })),
  apart: Type.Optional(Type.Array(Text(80, 1), { maxItems: 20 })),
  /** of a foot that goes through a skin: its hole, and how thick that skin may be, mm */
  foot: Type.Optional(
    Type.Object({ holeMm: Num(3, 200), leastMm: Num(0, 300), mostMm: Num(0.3, 300) }, { additionalProperties: false }),
  ),
}
const part = <K extends string, P extends Record<string, import('@sinclair/typebox').TSchema>>(kind: K, fields: P) =>
  Type.Object(
    {
      id: Text(40, 1),
      kind: Type.Unsafe<K>({ type: 'string', const: kind }),
      name: Text(80, 1),
      ...facts,
      ...fields,
    },
    { additionalProperties: false },
  )

/** One plane of a pattern: how far below the peak, dB, each `360 / length` degrees clockwise from the axis (in elevation: upward). */
const Plane = Type.Array(Num(0, 80), { minItems: 24, maxItems: 360 })
const Ports = Type.Array(PortSchema, { minItems: 1, maxItems: 40 })

/** How an antenna is turned about its own axis; `slant` is ±45°. */
export const POLARISATIONS = ['vertical', 'horizontal', 'slant'] as const
export type Polarisation = (typeof POLARISATIONS)[number]

export const SHAPES = ['log-periodic', 'Yagi', 'panel', 'omni', 'dome', 'whip'] as const

const AntennaPart = part('antenna', {
  use: oneOf('outside', 'inside'),
  shape: oneOf(...SHAPES),
  ranges: Type.Array(
    Type.Object(
      {
        lowMHz: Num(100, 100_000),
        highMHz: Num(100, 100_000),
        gainDbi: Num(-20, 40),
        /** half-power widths; 360 across for an omni, whose pattern is in elevation alone */
        beamwidthDeg: Num(1, 360),
        verticalBeamwidthDeg: Num(1, 360),
        /** as measured, in both planes; the widths stand where none was */
        azimuthDb: Type.Optional(Plane),
        elevationDb: Type.Optional(Plane),
      },
      { additionalProperties: false },
    ),
    { minItems: 1, maxItems: 12 },
  ),
  /** how far back lobes and nulls lie below the peak at most */
  frontToBackDb: Num(0, 60),
  /** made to stand on a metal roof: its peak is well above the horizon */
  overMetal: Type.Optional(Type.Boolean()),
  sizeM: Num(0.01, 10),
  ports: Ports,
})
const LinePart = part('line', {
  /** coax where nothing is said; twisted pairs of `data` and wires of a `supply` carry no radio */
  medium: Type.Optional(oneOf('coax', 'data', 'supply')),
  /** of a supply: its conductors, by their name in the table of wires */
  wire: Type.Optional(Text(12, 1)),
  constants: Type.Object({ k1: Num(0, 100), k2: Num(0, 10) }, { additionalProperties: false }),
  impedanceOhm: oneOfNumber(50, 75, 100),
  spreadPercent: Num(0, 100),
  diameterMm: Num(0.5, 60),
  bendMm: Num(1, 2000),
  /** across the widest of its plug */
  plugMm: Type.Optional(Num(1, 120)),
  grade: Type.Optional(oneOf('indoor', 'outdoor', 'buried', 'ceiling void')),
  jacket: Type.Optional(Text(40)),
  /** lengths of a drum that it is cut from; sold with plugs only where there are none */
  drumM: Type.Optional(Type.Array(Num(1, 1000), { maxItems: 6 })),
  stockM: Type.Array(Num(0.05, 500), { maxItems: 20 }),
  ends: oneOf(...CONNECTORS),
})
const RouterPart = part('router', {
  bands: Bands,
  /** fastest its Ethernet or Wi-Fi passes on, Mbit/s */
  portLimitMbps: Num(0.1, 100_000),
  lanPorts: Type.Optional(Type.Integer({ minimum: 0, maximum: 64 })),
  /** what its Wi-Fi passes on at a few metres; 0 where it has none */
  wifiMbps: Type.Optional(Num(0, 100_000)),
  wifiBands: Type.Optional(Type.Array(oneOf('2.4', '5', '6'), { maxItems: 3 })),
  simSlots: Type.Optional(Type.Integer({ minimum: 0, maximum: 8 })),
  simSize: Type.Optional(oneOf('mini', 'micro', 'nano', 'eSIM')),
  /** of a box with several modems: the antenna ports and the SIM slots of each; one modem has all where nothing is said */
  modems: Type.Optional(
    Type.Array(
      Type.Object(
        { ports: Type.Array(Text(16, 1), { maxItems: 8 }), slots: Type.Integer({ minimum: 0, maximum: 8 }) },
        { additionalProperties: false },
      ),
      { minItems: 1, maxItems: 4 },
    ),
  ),
  noiseFigureDb: Num(0, 30),
  ports: Ports,
})
const AmplifierPart = part('amplifier', {
  /** bought for a home, a building or a vehicle: what rules and kits go by */
  use: oneOf('fixed', 'mobile'),
  bands: Bands,
  gainDb: Num(0, 120),
  /** the least it can set itself to before it shuts down; the gain itself where it does not watch its loop */
  lowestGainDb: Num(0, 120),
  noiseFigureDb: Num(0, 30),
  /** downlink output limit per band, total */
  outputDbm: Num(-30, 60),
  uplinkOutputDbm: Num(-30, 60),
  /** total at the donor port above which it lowers its gain, and above which it shuts down */
  inputLimitDbm: Num(-120, 30),
  shutDownDbm: Num(-120, 30),
  /** how it is registered: repeats everything in a band, or one carrier's channels */
  class: Type.Optional(oneOf('wideband', 'one carrier')),
  /** its own figures on a band, where they differ */
  perBand: Type.Optional(
    Type.Array(
      Type.Object(
        {
          band: Text(12, 1),
          gainDb: Type.Optional(Num(0, 120)),
          outputDbm: Type.Optional(Num(-30, 60)),
          uplinkGainDb: Type.Optional(Num(0, 120)),
          uplinkOutputDbm: Type.Optional(Num(-30, 60)),
        },
        { additionalProperties: false },
      ),
      { maxItems: 40 },
    ),
  ),
  /** what its maker wants between donor and inside antennas, and between the box and an inside antenna */
  separation: Type.Optional(
    Type.Object(
      { upM: Type.Optional(Num(0, 100)), alongM: Type.Optional(Num(0, 200)), boxM: Type.Optional(Num(0, 30)) },
      { additionalProperties: false },
    ),
  ),
  ports: Ports,
})
const passing = <K extends 'arrestor' | 'pad' | 'adapter'>(kind: K) => part(kind, { lossDb: Num(0, 60), ports: Ports })
const SplitterPart = part('splitter', {
  /** what the real part adds to 10·log10 of its outputs */
  excessDb: Num(0, 10),
  ports: Ports,
})
/** Puts power on a data cable: a socket for what comes from the network, and one for the box that it feeds. A plain switch puts none. */
const InjectorPart = part('injector', { gives: oneOf('PoE', 'passive PoE', 'nothing'), givesW: Num(0, 200), ports: Ports })
/** Where a supply begins or is changed: a fuse tap or board takes nothing, as it stands at a feed of the site. */
const SourcePart = part('source', {
  takes: oneOf('nothing', 'mains', 'DC'),
  gives: oneOf('mains', 'DC'),
  /** of a DC supply that it makes itself; what feeds it is passed on where nothing is said */
  volts: Type.Optional(Num(3, 60)),
  /** most that it gives, of all its sockets */
  mostW: Type.Optional(Num(1, 10_000)),
  /** usable, of the battery that bridges a failure */
  batteryWh: Type.Optional(Num(1, 100_000)),
  ports: Ports,
})
/** What stands aboard beside cellular service: its antenna, or the set that it leads to. */
export const SERVICES = ['VHF', 'AIS', 'Wi-Fi', 'position', 'broadcast'] as const
export type Service = (typeof SERVICES)[number]
const ServicePart = part('service', {
  service: oneOf(...SERVICES),
  /** a splitter lets the antenna of one service stand in for that of another */
  does: oneOf('antenna', 'set', 'splitter'),
  lowMHz: Num(0.1, 100_000),
  highMHz: Num(0.1, 100_000),
  ports: Ports,
})
const TapPart = part('tap', { couplingDb: Num(1, 40), excessDb: Num(0, 10), ports: Ports })

export const PartSchema = Type.Union([
  AntennaPart,
  LinePart,
  RouterPart,
  AmplifierPart,
  passing('arrestor'),
  passing('pad'),
  passing('adapter'),
  SplitterPart,
  TapPart,
  InjectorPart,
  SourcePart,
  ServicePart,
])

export type Part = Static<typeof PartSchema>
export type PartKind = Part['kind']
export type PartOf<K extends PartKind> = Extract<Part, { kind: K }>
export type AntennaPart = PartOf<'antenna'>
export type LinePart = PartOf<'line'>
export type RouterPart = PartOf<'router'>
export type AmplifierPart = PartOf<'amplifier'>
export type InjectorPart = PartOf<'injector'>
/** @returns whether it makes another voltage of a battery's */
export const isConverter = (p: Pick<SourcePart, 'takes' | 'gives'>): boolean => p.takes === 'DC' && p.gives === 'DC'
/** @returns whether it makes mains of a battery's voltage */
export const isInverter = (p: Pick<SourcePart, 'takes' | 'gives'>): boolean => p.takes === 'DC' && p.gives === 'mains'
export type SourcePart = PartOf<'source'>
export type ServicePart = PartOf<'service'>
export type PassingPart = PartOf<'arrestor' | 'pad' | 'adapter'>

/** @returns the amplifier with its own figures on a band over those of all its bands */
export function amplifierOn(part: AmplifierPart, band: string): AmplifierPart {
  const own = part.perBand?.find(b => b.band === band)
  if (!own) return part
  const gainDb = own.gainDb ?? part.gainDb
  return {
    ...part,
    gainDb,
    lowestGainDb: Math.min(part.lowestGainDb, gainDb),
    outputDbm: own.outputDbm ?? part.outputDbm,
    uplinkOutputDbm: own.uplinkOutputDbm ?? part.uplinkOutputDbm,
  }
}

/** Figures of a maker that stand over the part's own, on one part of a design. An antenna's gain holds on every band. */
export const OwnFigures = Type.Object(
  {
    gainDbi: Type.Optional(Num(-20, 40)),
    gainDb: Type.Optional(Num(0, 120)),
    lowestGainDb: Type.Optional(Num(0, 120)),
    noiseFigureDb: Type.Optional(Num(0, 30)),
    outputDbm: Type.Optional(Num(-30, 60)),
    uplinkOutputDbm: Type.Optional(Num(-30, 60)),
    inputLimitDbm: Type.Optional(Num(-120, 30)),
    shutDownDbm: Type.Optional(Num(-120, 30)),
    frontToBackDb: Type.Optional(Num(0, 60)),
    lossDb: Type.Optional(Num(0, 60)),
    excessDb: Type.Optional(Num(0, 10)),
    couplingDb: Type.Optional(Num(1, 40)),
    portLimitMbps: Type.Optional(Num(0.1, 100_000)),
    bands: Type.Optional(Bands),
    ports: Type.Optional(Ports),
  },
  { additionalProperties: false },
)
export type OwnFigures = Static<typeof OwnFigures>

type BandFigures = NonNullable<AmplifierPart['perBand']>[number]
const BAND_FIGURES = ['gainDb', 'outputDbm', 'uplinkOutputDbm'] as const

/** Figures entered for the whole part never raise a band's own. */
const overBand = (b: BandFigures, own: Omit<OwnFigures, 'gainDbi'>): Partial<BandFigures> =>
  Object.fromEntries(
    BAND_FIGURES.flatMap(f => (typeof own[f] === 'number' && b[f] !== undefined ? [[f, Math.min(own[f], b[f])]] : [])),
  )

/** @returns the part with the maker's own figures over it; what the part does not have is left out */
export function withOwn<P extends Part>(base: P, own: OwnFigures | null | undefined): P {
  if (!own) return base
  const { gainDbi, ...rest } = own
  const fields = Object.fromEntries(Object.entries(rest).filter(([k, v]) => v !== undefined && v !== null && k in base))
  // What its maker says of the very part holds on every band.
  const perBand =
    base.kind === 'amplifier' && base.perBand ? { perBand: base.perBand.map(b => ({ ...b, ...overBand(b, rest) })) } : {}
  const ranges =
    base.kind === 'antenna' && gainDbi !== undefined && gainDbi !== null
      ? { ranges: base.ranges.map(r => ({ ...r, gainDbi })) }
      : {}
  return { ...base, ...fields, ...perBand, ...ranges }
}

/** @returns whether an antenna has no front: there is nothing to aim */
export const isOmni = ({ ranges }: Pick<AntennaPart, 'ranges'>): boolean => ranges.every(r => r.beamwidthDeg >= 360)
/** @returns whether an amplifier is the room unit of an extender: what its window unit hears comes to it as data */
export const isExtender = (part: Part): boolean =>
  part.kind === 'amplifier' && part.ports.some(p => p.role === 'donor' && p.connector === 'RJ45')
/** @returns whether a part is a line that carries radio */
export const isCoax = (part: Part): part is LinePart => part.kind === 'line' && (part.medium ?? 'coax') === 'coax'
