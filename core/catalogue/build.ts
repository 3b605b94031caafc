/** Short ways to write parts down as data. */
import type {
  AmplifierPart,
  AntennaPart,
  Connector,
  Gender,
  LinePart,
  Part,
  PartOf,
  PassingPart,
  Port,
  PortRole,
  RouterPart,
  SourcePart,
} from '../job/part'

/** What a part says of itself beside its radio figures. */
export type Facts = Pick<
  Part,
  | 'massKg'
  | 'sizeMm'
  | 'windM2'
  | 'mount'
  | 'clampMm'
  | 'tailM'
  | 'tailCoax'
  | 'powerW'
  | 'supply'
  | 'temperatureC'
  | 'outdoors'
  | 'priceClass'
  | 'inBox'
  | 'apart'
  | 'foot'
>
type Ohm = 50 | 75 | 100
export type End = [connector: Connector, gender: Gender, impedanceOhm?: Ohm]
export type Range = AntennaPart['ranges'][number]

export const port = (id: string, role: PortRole, [connector, gender, impedanceOhm = 50]: End = ['N', 'socket']): Port => ({
  id,
  role,
  connector,
  gender,
  impedanceOhm,
})

export const feeds = (count: number, end: End = ['N', 'socket']): Port[] =>
  Array.from({ length: count }, (_, i) => port(String(i + 1), 'feed', end))
export const branches = (count: number, connector: Connector): Port[] =>
  Array.from({ length: count }, (_, i) => port(String(i + 1), 'cell', [connector, 'socket']))

export const range = (
  lowMHz: number,
  highMHz: number,
  { gainDbi, beamwidthDeg, verticalBeamwidthDeg }: { gainDbi: number; beamwidthDeg: number; verticalBeamwidthDeg: number },
): Range => ({ lowMHz, highMHz, gainDbi, beamwidthDeg, verticalBeamwidthDeg })

export const antenna = (
  id: string,
  name: string,
  {
    shape,
    ranges,
    frontToBackDb,
    ports,
    sizeM,
    facts = {},
  }: {
    shape: AntennaPart['shape']
    ranges: Range[]
    frontToBackDb: number
    ports: Port[]
    sizeM: number
    facts?: Facts & Pick<AntennaPart, 'overMetal'>
  },
): AntennaPart => ({
  id,
  kind: 'antenna',
  name,
  use: shape === 'dome' || facts.outdoors === false ? 'inside' : 'outside',
  shape,
  ranges,
  frontToBackDb,
  ports,
  sizeM,
  ...facts,
})

export const line = (
  id: string,
  name: string,
  {
    loss: [k1, k2],
    impedance: [impedanceOhm, spreadPercent],
    size: [diameterMm, bendMm, plugMm],
    stockM,
    ends,
    more = {},
  }: {
    loss: [number, number]
    impedance: [Ohm, number]
    size: [number, number, number]
    stockM: number[]
    ends: Connector
    more?: Facts & Pick<LinePart, 'grade' | 'jacket' | 'drumM' | 'medium' | 'wire'>
  },
): LinePart => ({
  id,
  kind: 'line',
  name,
  constants: { k1, k2 },
  impedanceOhm,
  spreadPercent,
  diameterMm,
  bendMm,
  plugMm,
  stockM,
  ends,
  ...more,
})

export const router = (
  id: string,
  name: string,
  {
    bands,
    ports,
    portLimitMbps,
    more = {},
  }: {
    bands: readonly string[]
    ports: Port[]
    portLimitMbps: number
    more?: Facts & Pick<RouterPart, 'lanPorts' | 'wifiMbps' | 'wifiBands' | 'simSlots' | 'simSize' | 'modems'>
  },
): RouterPart => ({ id, kind: 'router', name, bands: [...bands], portLimitMbps, noiseFigureDb: 9, ports, ...more })

type Radio = Pick<
  AmplifierPart,
  | 'gainDb'
  | 'lowestGainDb'
  | 'noiseFigureDb'
  | 'outputDbm'
  | 'uplinkOutputDbm'
  | 'inputLimitDbm'
  | 'shutDownDbm'
  | 'class'
  | 'perBand'
  | 'separation'
>

export const amplifier = (
  id: string,
  name: string,
  {
    use,
    bands,
    radio,
    facts = {},
    end = ['N', 'socket'],
    donorEnd = end,
  }: { use: AmplifierPart['use']; bands: readonly string[]; radio: Radio; facts?: Facts; end?: End; donorEnd?: End },
): AmplifierPart => ({
  id,
  kind: 'amplifier',
  name,
  use,
  bands: [...bands],
  ...radio,
  ...facts,
  ports: [port('donor', 'donor', donorEnd), port('server', 'server', end)],
})

export const passing = (
  id: string,
  kind: PassingPart['kind'],
  { name, lossDb, ends: [a, b], facts = {} }: { name: string; lossDb: number; ends: [End, End]; facts?: Facts },
): PassingPart => ({
  id,
  kind,
  name,
  lossDb,
  ...facts,
  ports: [port('in', 'in', a), port('out', 'out', b)],
})

export const splitter = (
  id: string,
  ways: number,
  { excessDb, end = ['N', 'socket'], facts = {} }: { excessDb: number; end?: End; facts?: Facts },
) =>
  ({
    id,
    kind: 'splitter',
    name: `Splitter, ${ways} ways${end[2] === 75 ? ', 75 Ω' : ''}`,
    excessDb,
    ...facts,
    ports: [port('in', 'in', end), ...Array.from({ length: ways }, (_, i) => port(String(i + 1), 'out', end))],
  }) satisfies PartOf<'splitter'>

export const tap = (
  id: string,
  couplingDb: number,
  { excessDb, end = ['N', 'socket'], facts = {} }: { excessDb: number; end?: End; facts?: Facts },
) =>
  ({
    id,
    kind: 'tap',
    name: `Tap ${couplingDb} dB${end[2] === 75 ? ', 75 Ω' : ''}`,
    couplingDb,
    excessDb,
    ...facts,
    ports: [port('in', 'in', end), port('through', 'through', end), port('tap', 'tap', end)],
  }) satisfies PartOf<'tap'>

export const injector = (
  id: string,
  name: string,
  { gives, givesW, fed = 1, facts = {} }: Pick<PartOf<'injector'>, 'gives' | 'givesW'> & { fed?: number; facts?: Facts },
): PartOf<'injector'> => ({
  id,
  kind: 'injector',
  name,
  gives,
  givesW,
  mount: 'stands by a socket',
  outdoors: false,
  temperatureC: [0, 40],
  supply: 'mains',
  massKg: 0.2,
  sizeMm: [60, 35, 120],
  priceClass: 1,
  ...facts,
  ports: [
    ...Array.from({ length: fed }, (_, i) => port(i ? `out${i + 1}` : 'out', 'lan', ['RJ45', 'socket', 100])),
    port('in', 'lan', ['RJ45', 'socket', 100]),
  ],
})

/** Sockets by which a part feeds others. */
const outlets = (count: number, end: End): Port[] => Array.from({ length: count }, (_, i) => port(String(i + 1), 'supply', end))

export const source = (
  id: string,
  name: string,
  {
    takes,
    gives,
    sockets,
    more = {},
  }: Pick<SourcePart, 'takes' | 'gives'> & {
    sockets: number
    more?: Facts & Pick<SourcePart, 'volts' | 'mostW' | 'batteryWh'>
  },
): SourcePart => ({
  id,
  kind: 'source',
  name,
  takes,
  gives,
  outdoors: false,
  ...more,
  ports: [
    ...(takes === 'nothing' ? [] : [port('power', 'power', [takes, takes === 'mains' ? 'plug' : 'socket'])]),
    // A converter has a short lead of its own toward the box.
    ...outlets(sockets, [gives, takes === 'DC' && gives === 'DC' ? 'plug' : 'socket']),
  ],
})
