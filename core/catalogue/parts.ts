/**
 * Generic parts with plain names, as data. A maker's figures for the actual part always win: they are
 * entered on the part in the design, or as a part of the crew's own.
 *
 * @source line constants from memory of data sheets; gains, widths, losses and limits common practice (no source)
 */
import type {
  AmplifierPart,
  AntennaPart,
  Connector,
  Gender,
  LinePart,
  Part,
  PartKind,
  PartOf,
  PassingPart,
  Port,
  PortRole,
  RouterPart,
} from '../job/part'
import type { Pattern } from '../radio/pattern'

const port = (
  id: string,
  role: PortRole,
  connector: Connector = 'N',
  gender: Gender = 'socket',
  impedanceOhm: 50 | 75 = 50,
): Port => ({ id, role, connector, gender, impedanceOhm })

const feeds = (count: number, connector: Connector = 'N'): Port[] =>
  Array.from({ length: count }, (_, i) => port(String(i + 1), 'feed', connector))
const branches = (count: number, connector: Connector): Port[] =>
  Array.from({ length: count }, (_, i) => port(String(i + 1), 'cell', connector))

type Range = AntennaPart['ranges'][number]
const range = (lowMHz: number, highMHz: number, gainDbi: number, beamwidthDeg: number, verticalBeamwidthDeg: number): Range => ({
  lowMHz,
  highMHz,
  gainDbi,
  beamwidthDeg,
  verticalBeamwidthDeg,
})

const antenna = (
  id: string,
  name: string,
  use: AntennaPart['use'],
  shape: AntennaPart['shape'],
  ranges: Range[],
  frontToBackDb: number,
  ports: Port[],
  sizeM: number,
): AntennaPart => ({ id, kind: 'antenna', name, use, shape, ranges, frontToBackDb, ports, sizeM })

const ANTENNAS: AntennaPart[] = [
  antenna(
    'ant-lpda',
    'Log-periodic beam, wide band',
    'outside',
    'log-periodic',
    [range(617, 960, 8, 70, 80), range(1700, 2700, 10, 55, 60)],
    18,
    feeds(1),
    0.45,
  ),
  antenna(
    'ant-panel-x',
    'Cross-polarised panel, two feeds',
    'outside',
    'panel',
    [range(617, 960, 7, 75, 70), range(1700, 2700, 9, 65, 60), range(3300, 3800, 9, 60, 55)],
    16,
    feeds(2),
    0.3,
  ),
  antenna('ant-yagi-low', 'Low-band Yagi, ten elements', 'outside', 'Yagi', [range(790, 960, 11.5, 42, 48)], 17, feeds(1), 0.95),
  antenna(
    'ant-yagi-mid-x',
    'Mid-band beams, crossed pair',
    'outside',
    'Yagi',
    [range(1700, 2700, 13, 34, 38)],
    19,
    feeds(2),
    0.7,
  ),
  antenna(
    'ant-omni',
    'Omni, wide band',
    'outside',
    'omni',
    [range(617, 960, 2.5, 360, 80), range(1700, 3800, 4.5, 360, 50)],
    15,
    feeds(1),
    0.6,
  ),
  antenna(
    'ant-omni-x',
    'Omni with two feeds',
    'outside',
    'omni',
    [range(617, 960, 1.5, 360, 80), range(1700, 3800, 3.5, 360, 55)],
    13,
    feeds(2),
    0.35,
  ),
  antenna(
    'ant-dome',
    'Ceiling dome',
    'inside',
    'dome',
    [range(617, 960, 1.5, 180, 180), range(1700, 2700, 3.5, 180, 180)],
    10,
    feeds(1),
    0.18,
  ),
  antenna(
    'ant-panel-in',
    'Inside wall panel',
    'inside',
    'panel',
    [range(617, 960, 5, 85, 75), range(1700, 2700, 7, 70, 65)],
    17,
    feeds(1),
    0.21,
  ),
  antenna('ant-whip-in', 'Inside desk whip', 'inside', 'whip', [range(617, 2700, 1, 360, 90)], 12, feeds(1, 'SMA'), 0.12),
]

const line = (
  id: string,
  name: string,
  [k1, k2]: [number, number],
  impedanceOhm: 50 | 75,
  spreadPercent: number,
  [diameterMm, bendMm]: [number, number],
  stockM: number[],
  ends: Connector,
): LinePart => ({ id, kind: 'line', name, constants: { k1, k2 }, impedanceOhm, spreadPercent, diameterMm, bendMm, stockM, ends })

// 50 Ω low-loss from memory of data sheets, dB/100 m: k1·√f + k2·f, f in MHz.
const LINES: LinePart[] = [
  line('line-195', '195-type, 50 Ω', [1.168, 0.0016], 50, 5, [4.95, 13], [2, 5, 10], 'N'),
  line('line-240', '240-type, 50 Ω', [0.794, 0.0011], 50, 5, [6.1, 19], [5, 10, 15], 'N'),
  line('line-400', '400-type, 50 Ω', [0.401, 0.00085], 50, 4, [10.3, 25], [5, 10, 15, 20, 30], 'N'),
  line('line-600', '600-type, 50 Ω', [0.248, 0.00085], 50, 4, [15, 38], [10, 20, 30, 50], 'N'),
  line('line-rg6', 'RG-6, 75 Ω', [0.62, 0.0022], 75, 12, [6.9, 35], [5, 10, 15], 'F'),
  line('line-rg11', 'RG-11, 75 Ω', [0.4, 0.0015], 75, 12, [10.3, 60], [15, 25, 30], 'F'),
]

const ELSEWHERE = ['B1', 'B3', 'B7', 'B8', 'B20', 'B28', 'B38', 'B40']
const NORTH_AMERICA = ['B2', 'B4', 'B5', 'B12', 'B13', 'B14', 'B17', 'B25', 'B66', 'B71', 'B41']

const router = (id: string, name: string, bands: string[], ports: Port[], portLimitMbps: number): RouterPart => ({
  id,
  kind: 'router',
  name,
  bands,
  portLimitMbps,
  noiseFigureDb: 9,
  ports,
})

const ROUTERS: RouterPart[] = [
  router(
    'rtr-2',
    'Cellular router, two antenna ports',
    [...ELSEWHERE, 'B2', 'B4', 'B5', 'B12', 'B13', 'B17', 'B25', 'B26', 'B66', 'B71', 'B41'],
    branches(2, 'SMA'),
    940,
  ),
  router(
    'rtr-4',
    'Cellular router LTE and NR, four antenna ports',
    [...ELSEWHERE, 'B42', ...NORTH_AMERICA, 'B26', 'n1', 'n3', 'n7', 'n20', 'n28', 'n78'],
    branches(4, 'SMA'),
    940,
  ),
  router(
    'rtr-mini',
    'Pocket router, two small ports',
    [...ELSEWHERE, 'B2', 'B4', 'B5', 'B12', 'B13', 'B17', 'B25', 'B26', 'B66', 'B71'],
    branches(2, 'TS9'),
    95,
  ),
  router('rtr-na-2', 'North American LTE router, two antenna ports', NORTH_AMERICA, branches(2, 'SMA'), 940),
  router(
    'rtr-na-4',
    'North American LTE and NR router, four antenna ports',
    [...NORTH_AMERICA, 'B30', 'B48', 'n5', 'n41', 'n71', 'n77'],
    [...branches(4, 'SMA'), port('wifi', 'wifi', 'RP-SMA'), port('gps', 'position', 'SMA')],
    940,
  ),
  router('rtr-stick', 'Plug-in modem, one tiny port', [...ELSEWHERE], branches(1, 'CRC9'), 90),
]

const amplifier = (
  id: string,
  name: string,
  use: AmplifierPart['use'],
  bands: string[],
  f: Omit<AmplifierPart, 'id' | 'kind' | 'name' | 'use' | 'bands' | 'ports'>,
  [connector, impedanceOhm]: [Connector, 50 | 75] = ['N', 50],
): AmplifierPart => ({
  id,
  kind: 'amplifier',
  name,
  use,
  bands,
  ...f,
  ports: [port('donor', 'donor', connector, 'socket', impedanceOhm), port('server', 'server', connector, 'socket', impedanceOhm)],
})

/** Bands a consumer booster may repeat in the United States. @source 47 CFR 20.21(e)(3), from memory */
export const US_BOOSTER_BANDS = ['B2', 'B4', 'B5', 'B12', 'B13', 'B17', 'B25', 'B66'] as const
/** Of B66 only what is AWS-1, downlink MHz. @source 47 CFR 20.21(e)(3), from memory */
export const AWS_1_DOWN_MHZ = [2110, 2155] as const

const AMPLIFIERS: AmplifierPart[] = [
  amplifier('amp-home', 'Home booster, several bands, 62 dB', 'fixed', ['B1', 'B3', 'B7', 'B8', 'B20'], {
    gainDb: 62,
    lowestGainDb: 35,
    noiseFigureDb: 6,
    outputDbm: 12,
    uplinkOutputDbm: 22,
    inputLimitDbm: -45,
    shutDownDbm: -30,
  }),
  amplifier('amp-single', 'Single-band booster, 55 dB', 'fixed', ['B20'], {
    gainDb: 55,
    lowestGainDb: 30,
    noiseFigureDb: 6,
    outputDbm: 10,
    uplinkOutputDbm: 20,
    inputLimitDbm: -48,
    shutDownDbm: -33,
  }),
  amplifier(
    'amp-75',
    'Home booster with 75 Ω ports, 58 dB',
    'fixed',
    ['B1', 'B3', 'B8', 'B20', 'B28'],
    {
      gainDb: 58,
      lowestGainDb: 38,
      noiseFigureDb: 7,
      outputDbm: 10,
      uplinkOutputDbm: 21,
      inputLimitDbm: -45,
      shutDownDbm: -30,
    },
    ['F', 75],
  ),
  amplifier('amp-na-home', 'North American home booster, 62 dB', 'fixed', [...US_BOOSTER_BANDS], {
    gainDb: 62,
    lowestGainDb: 35,
    noiseFigureDb: 6,
    outputDbm: 12,
    uplinkOutputDbm: 23,
    inputLimitDbm: -45,
    shutDownDbm: -30,
  }),
  amplifier('amp-building', 'Building amplifier, 75 dB', 'fixed', ['B1', 'B3', 'B7', 'B8', 'B20', 'B28'], {
    gainDb: 75,
    lowestGainDb: 40,
    noiseFigureDb: 5,
    outputDbm: 17,
    uplinkOutputDbm: 24,
    inputLimitDbm: -50,
    shutDownDbm: -35,
  }),
  amplifier('amp-mobile', 'Mobile booster, 50 dB', 'mobile', ['B1', 'B3', 'B7', 'B8', 'B20'], {
    gainDb: 50,
    lowestGainDb: 23,
    noiseFigureDb: 6,
    outputDbm: 8,
    uplinkOutputDbm: 22,
    inputLimitDbm: -42,
    shutDownDbm: -27,
  }),
  amplifier('amp-na-mobile', 'North American mobile booster, 50 dB', 'mobile', [...US_BOOSTER_BANDS], {
    gainDb: 50,
    lowestGainDb: 23,
    noiseFigureDb: 6,
    outputDbm: 8,
    uplinkOutputDbm: 23,
    inputLimitDbm: -42,
    shutDownDbm: -27,
  }),
]

type End = [connector: Connector, gender: Gender, impedanceOhm?: 50 | 75]
const passing = (id: string, kind: PassingPart['kind'], name: string, lossDb: number, a: End, b: End): PassingPart => ({
  id,
  kind,
  name,
  lossDb,
  ports: [port('in', 'in', a[0], a[1], a[2]), port('out', 'out', b[0], b[1], b[2])],
})

const nSocket: End = ['N', 'socket']
const nPlug: End = ['N', 'plug']

const SMALL: Part[] = [
  passing('arr-gas', 'arrestor', 'Gas-tube arrestor, two N sockets', 0.2, nSocket, nSocket),
  passing('arr-gas-np', 'arrestor', 'Gas-tube arrestor, N socket and plug', 0.2, nSocket, nPlug),
  passing('arr-gas-f', 'arrestor', 'Gas-tube arrestor, two F sockets', 0.3, ['F', 'socket', 75], ['F', 'socket', 75]),
  ...[3, 6, 10, 20].map(db => passing(`pad-${db}`, 'pad', `Attenuator ${db} dB`, db, nSocket, nPlug)),
  passing('adp-n-sma', 'adapter', 'Jumper 0.3 m, N socket to SMA plug', 0.3, nSocket, ['SMA', 'plug']),
  passing('adp-n-ts9', 'adapter', 'Jumper 0.2 m, N socket to TS9 plug', 0.4, nSocket, ['TS9', 'plug']),
  passing('adp-n-crc9', 'adapter', 'Jumper 0.2 m, N socket to CRC9 plug', 0.4, nSocket, ['CRC9', 'plug']),
  passing('adp-n-fme', 'adapter', 'Adapter, N socket to FME plug', 0.2, nSocket, ['FME', 'plug']),
  passing('adp-n-tnc', 'adapter', 'Adapter, N socket to TNC plug', 0.2, nSocket, ['TNC', 'plug']),
  passing('adp-n-bnc', 'adapter', 'Adapter, N socket to BNC plug', 0.2, nSocket, ['BNC', 'plug']),
  passing('adp-n-n', 'adapter', 'Adapter, two N sockets', 0.1, nSocket, nSocket),
  passing('adp-window', 'adapter', 'Flat window lead 0.3 m, two N sockets', 0.9, nSocket, nSocket),
  passing('adp-f-n', 'adapter', 'Adapter, F socket to N plug', 0.3, ['F', 'socket', 75], nPlug),
  passing('adp-n-f', 'adapter', 'Adapter, N socket to F plug', 0.3, nSocket, ['F', 'plug', 75]),
  ...[2, 3, 4].map((n): PartOf<'splitter'> => ({
    id: `spl-${n}`,
    kind: 'splitter',
    name: `Splitter, ${n} ways`,
    excessDb: 0.4,
    ports: [port('in', 'in'), ...Array.from({ length: n }, (_, i) => port(String(i + 1), 'out'))],
  })),
  ...[6, 10, 15].map((db): PartOf<'tap'> => ({
    id: `tap-${db}`,
    kind: 'tap',
    name: `Tap ${db} dB`,
    couplingDb: db,
    excessDb: 0.3,
    ports: [port('in', 'in'), port('through', 'through'), port('tap', 'tap')],
  })),
]

export const PARTS: readonly Part[] = [...ANTENNAS, ...LINES, ...ROUTERS, ...AMPLIFIERS, ...SMALL]

const byId = new Map(PARTS.map(p => [p.id, p]))

export function partById(id: string | null | undefined): Part | undefined {
  return id ? byId.get(id) : undefined
}

/** @returns the part where it is of that kind, else undefined */
export function partOfKind<K extends PartKind>(id: string | null | undefined, kind: K): PartOf<K> | undefined {
  const p = partById(id)
  return p?.kind === kind ? (p as PartOf<K>) : undefined
}

/** @returns gain and widths at a frequency, and whether the maker's range covers it; the nearest range answers outside */
export function antennaAt(part: AntennaPart, frequencyMHz: number): { pattern: Pattern; covered: boolean } {
  const gap = (r: Range) => Math.max(r.lowMHz - frequencyMHz, frequencyMHz - r.highMHz, 0)
  const found = part.ranges.reduce((a, b) => (gap(b) < gap(a) ? b : a))
  const { gainDbi, beamwidthDeg, verticalBeamwidthDeg } = found
  return {
    pattern: {
      gainDbi,
      beamwidthDeg,
      verticalBeamwidthDeg,
      frontToBackDb: part.frontToBackDb,
      ...(part.shape === 'dome' ? { cone: true } : {}),
    },
    covered: gap(found) === 0,
  }
}

/** @returns whether one part can stand in the place of another: of its kind, an antenna for the same side of the wall */
export const isLike = (a: Part, b: Part): boolean =>
  a.kind === b.kind && (a.kind !== 'antenna' || b.kind !== 'antenna' || a.use === b.use)
