/**
 * Generic parts with plain names. A maker's figures for the actual part always win: they can be
 * entered on the part in the design.
 *
 * @source line constants from memory of data sheets (see each); gains, widths and losses common practice (no source)
 */
import type { LineConstants } from '../chain/line'
import type { Pattern } from '../radio/pattern'

export type Connector = 'N' | 'SMA' | 'RP-SMA' | 'TS9' | 'F' | 'FME'
export type Gender = 'plug' | 'socket'

export interface Port {
  connector: Connector
  gender: Gender
  impedanceOhm: 50 | 75
}

export interface AntennaPart {
  id: string
  kind: 'antenna'
  use: 'outside' | 'inside'
  shape: 'log-periodic' | 'Yagi' | 'panel' | 'omni' | 'dome' | 'whip'
  name: string
  ranges: { lowMHz: number; highMHz: number; gainDbi: number; beamwidthDeg: number }[]
  frontToBackDb: number
  /** feeds: 2 for a cross-polarised pair */
  feeds: number
  port: Port
  sizeM: number
}

export interface LinePart {
  id: string
  kind: 'line'
  name: string
  constants: LineConstants
  impedanceOhm: 50 | 75
  spreadPercent: number
  diameterMm: number
  bendMm: number
  stockM: number[]
  ends: Connector
}

export interface RouterPart {
  id: string
  kind: 'router'
  name: string
  port: Port
  ports: number
  bands: string[]
  /** fastest its Ethernet or Wi-Fi passes on, Mbit/s */
  portLimitMbps: number
  noiseFigureDb: number
}

export interface AmplifierPart {
  id: string
  kind: 'amplifier'
  name: string
  port: Port
  bands: string[]
  gainDb: number
  /** the least it can set itself to before it shuts down */
  lowestGainDb: number
  noiseFigureDb: number
  /** downlink output limit per band, dBm total */
  outputDbm: number
  uplinkOutputDbm: number
  /** above this total at the donor port it lowers its gain; above the second it shuts down, dBm */
  inputLimitDbm: number
  shutDownDbm: number
}

export interface Small<K extends string> {
  id: string
  kind: K
  name: string
  lossDb: number
  from: Port
  to: Port
}

export type SmallPart = Small<'arrestor'> | Small<'adapter'> | Small<'pad'>

export type Part = AntennaPart | LinePart | RouterPart | AmplifierPart | SmallPart

const nSocket: Port = { connector: 'N', gender: 'socket', impedanceOhm: 50 }
const smaSocket: Port = { connector: 'SMA', gender: 'socket', impedanceOhm: 50 }
const fSocket: Port = { connector: 'F', gender: 'socket', impedanceOhm: 75 }

const LOW_MID = ['B1', 'B2', 'B3', 'B4', 'B5', 'B7', 'B8', 'B12', 'B13', 'B17', 'B20', 'B25', 'B26', 'B28', 'B66', 'B71']

export const PARTS: readonly Part[] = [
  {
    id: 'ant-lpda',
    kind: 'antenna',
    use: 'outside',
    shape: 'log-periodic',
    name: 'Log-periodic beam, wide band',
    ranges: [
      { lowMHz: 690, highMHz: 960, gainDbi: 8, beamwidthDeg: 70 },
      { lowMHz: 1700, highMHz: 2700, gainDbi: 10, beamwidthDeg: 55 },
    ],
    frontToBackDb: 18,
    feeds: 1,
    port: nSocket,
    sizeM: 0.45,
  },
  {
    id: 'ant-panel-x',
    kind: 'antenna',
    use: 'outside',
    shape: 'panel',
    name: 'Cross-polarised panel, two feeds',
    ranges: [
      { lowMHz: 690, highMHz: 960, gainDbi: 7, beamwidthDeg: 75 },
      { lowMHz: 1700, highMHz: 2700, gainDbi: 9, beamwidthDeg: 65 },
      { lowMHz: 3300, highMHz: 3800, gainDbi: 9, beamwidthDeg: 60 },
    ],
    frontToBackDb: 16,
    feeds: 2,
    port: nSocket,
    sizeM: 0.3,
  },
  {
    id: 'ant-yagi-low',
    kind: 'antenna',
    use: 'outside',
    shape: 'Yagi',
    name: 'Low-band Yagi, ten elements',
    ranges: [{ lowMHz: 790, highMHz: 960, gainDbi: 11.5, beamwidthDeg: 42 }],
    frontToBackDb: 17,
    feeds: 1,
    port: nSocket,
    sizeM: 0.95,
  },
  {
    id: 'ant-yagi-mid-x',
    kind: 'antenna',
    use: 'outside',
    shape: 'Yagi',
    name: 'Mid-band beams, crossed pair',
    ranges: [{ lowMHz: 1700, highMHz: 2700, gainDbi: 13, beamwidthDeg: 34 }],
    frontToBackDb: 19,
    feeds: 2,
    port: nSocket,
    sizeM: 0.7,
  },
  {
    id: 'ant-omni',
    kind: 'antenna',
    use: 'outside',
    shape: 'omni',
    name: 'Omni, wide band',
    ranges: [
      { lowMHz: 690, highMHz: 960, gainDbi: 2.5, beamwidthDeg: 360 },
      { lowMHz: 1700, highMHz: 3800, gainDbi: 4.5, beamwidthDeg: 360 },
    ],
    frontToBackDb: 0,
    feeds: 1,
    port: nSocket,
    sizeM: 0.6,
  },
  {
    id: 'ant-omni-x',
    kind: 'antenna',
    use: 'outside',
    shape: 'omni',
    name: 'Omni with two feeds',
    ranges: [
      { lowMHz: 690, highMHz: 960, gainDbi: 1.5, beamwidthDeg: 360 },
      { lowMHz: 1700, highMHz: 3800, gainDbi: 3.5, beamwidthDeg: 360 },
    ],
    frontToBackDb: 0,
    feeds: 2,
    port: nSocket,
    sizeM: 0.35,
  },
  {
    id: 'ant-dome',
    kind: 'antenna',
    use: 'inside',
    shape: 'dome',
    name: 'Ceiling dome',
    ranges: [
      { lowMHz: 690, highMHz: 960, gainDbi: 1.5, beamwidthDeg: 360 },
      { lowMHz: 1700, highMHz: 2700, gainDbi: 3.5, beamwidthDeg: 360 },
    ],
    frontToBackDb: 0,
    feeds: 1,
    port: nSocket,
    sizeM: 0.18,
  },
  {
    id: 'ant-panel-in',
    kind: 'antenna',
    use: 'inside',
    shape: 'panel',
    name: 'Inside wall panel',
    ranges: [
      { lowMHz: 690, highMHz: 960, gainDbi: 5, beamwidthDeg: 85 },
      { lowMHz: 1700, highMHz: 2700, gainDbi: 7, beamwidthDeg: 70 },
    ],
    frontToBackDb: 14,
    feeds: 1,
    port: nSocket,
    sizeM: 0.21,
  },
  {
    id: 'ant-whip-in',
    kind: 'antenna',
    use: 'inside',
    shape: 'whip',
    name: 'Inside desk whip',
    ranges: [{ lowMHz: 690, highMHz: 2700, gainDbi: 1, beamwidthDeg: 360 }],
    frontToBackDb: 0,
    feeds: 1,
    port: smaSocket,
    sizeM: 0.12,
  },
  // Line constants 50 Ω low-loss from memory of data sheets, dB/100 m: k1·√f + k2·f, f in MHz.
  {
    id: 'line-195',
    kind: 'line',
    name: '195-type, 50 Ω',
    constants: { k1: 1.168, k2: 0.0016 },
    impedanceOhm: 50,
    spreadPercent: 5,
    diameterMm: 4.95,
    bendMm: 13,
    stockM: [2, 5, 10],
    ends: 'N',
  },
  {
    id: 'line-240',
    kind: 'line',
    name: '240-type, 50 Ω',
    constants: { k1: 0.794, k2: 0.0011 },
    impedanceOhm: 50,
    spreadPercent: 5,
    diameterMm: 6.1,
    bendMm: 19,
    stockM: [5, 10, 15],
    ends: 'N',
  },
  {
    id: 'line-400',
    kind: 'line',
    name: '400-type, 50 Ω',
    constants: { k1: 0.401, k2: 0.00085 },
    impedanceOhm: 50,
    spreadPercent: 4,
    diameterMm: 10.3,
    bendMm: 25,
    stockM: [5, 10, 15, 20, 30],
    ends: 'N',
  },
  {
    id: 'line-600',
    kind: 'line',
    name: '600-type, 50 Ω',
    constants: { k1: 0.248, k2: 0.00085 },
    impedanceOhm: 50,
    spreadPercent: 4,
    diameterMm: 15,
    bendMm: 38,
    stockM: [10, 20, 30, 50],
    ends: 'N',
  },
  {
    id: 'line-rg6',
    kind: 'line',
    name: 'RG-6, 75 Ω',
    constants: { k1: 0.62, k2: 0.0022 },
    impedanceOhm: 75,
    spreadPercent: 12,
    diameterMm: 6.9,
    bendMm: 35,
    stockM: [5, 10, 15],
    ends: 'F',
  },
  {
    id: 'line-rg11',
    kind: 'line',
    name: 'RG-11, 75 Ω',
    constants: { k1: 0.4, k2: 0.0015 },
    impedanceOhm: 75,
    spreadPercent: 12,
    diameterMm: 10.3,
    bendMm: 60,
    stockM: [15, 25, 30],
    ends: 'F',
  },
  {
    id: 'rtr-2',
    kind: 'router',
    name: 'Cellular router, two antenna ports',
    port: smaSocket,
    ports: 2,
    bands: [...LOW_MID, 'B38', 'B40', 'B41'],
    portLimitMbps: 940,
    noiseFigureDb: 9,
  },
  {
    id: 'rtr-4',
    kind: 'router',
    name: 'Cellular router LTE and NR, four antenna ports',
    port: smaSocket,
    ports: 4,
    bands: [...LOW_MID, 'B38', 'B40', 'B41', 'B42', 'n1', 'n3', 'n7', 'n20', 'n28', 'n78'],
    portLimitMbps: 940,
    noiseFigureDb: 9,
  },
  {
    id: 'rtr-mini',
    kind: 'router',
    name: 'Pocket router, two small ports',
    port: { connector: 'TS9', gender: 'socket', impedanceOhm: 50 },
    ports: 2,
    bands: [...LOW_MID],
    portLimitMbps: 95,
    noiseFigureDb: 9,
  },
  {
    id: 'amp-home',
    kind: 'amplifier',
    name: 'Home booster, several bands, 62 dB',
    port: nSocket,
    bands: ['B1', 'B3', 'B7', 'B8', 'B20'],
    gainDb: 62,
    lowestGainDb: 35,
    noiseFigureDb: 6,
    outputDbm: 12,
    uplinkOutputDbm: 22,
    inputLimitDbm: -45,
    shutDownDbm: -30,
  },
  {
    id: 'amp-single',
    kind: 'amplifier',
    name: 'Single-band booster, 55 dB',
    port: nSocket,
    bands: ['B20'],
    gainDb: 55,
    lowestGainDb: 30,
    noiseFigureDb: 6,
    outputDbm: 10,
    uplinkOutputDbm: 20,
    inputLimitDbm: -48,
    shutDownDbm: -33,
  },
  {
    id: 'amp-75',
    kind: 'amplifier',
    name: 'Home booster with 75 Ω ports, 58 dB',
    port: fSocket,
    bands: ['B1', 'B3', 'B8', 'B20', 'B28'],
    gainDb: 58,
    lowestGainDb: 38,
    noiseFigureDb: 7,
    outputDbm: 10,
    uplinkOutputDbm: 21,
    inputLimitDbm: -45,
    shutDownDbm: -30,
  },
  {
    id: 'arr-gas',
    kind: 'arrestor',
    name: 'Gas-tube arrestor, N socket and plug',
    lossDb: 0.2,
    from: nSocket,
    to: { connector: 'N', gender: 'plug', impedanceOhm: 50 },
  },
  {
    id: 'pad-3',
    kind: 'pad',
    name: 'Attenuator 3 dB',
    lossDb: 3,
    from: nSocket,
    to: { connector: 'N', gender: 'plug', impedanceOhm: 50 },
  },
  {
    id: 'pad-6',
    kind: 'pad',
    name: 'Attenuator 6 dB',
    lossDb: 6,
    from: nSocket,
    to: { connector: 'N', gender: 'plug', impedanceOhm: 50 },
  },
  {
    id: 'pad-10',
    kind: 'pad',
    name: 'Attenuator 10 dB',
    lossDb: 10,
    from: nSocket,
    to: { connector: 'N', gender: 'plug', impedanceOhm: 50 },
  },
  {
    id: 'adp-n-sma',
    kind: 'adapter',
    name: 'Jumper 0.3 m, N plug to SMA plug',
    lossDb: 0.3,
    from: { connector: 'N', gender: 'plug', impedanceOhm: 50 },
    to: { connector: 'SMA', gender: 'plug', impedanceOhm: 50 },
  },
]

const byId = new Map(PARTS.map(p => [p.id, p]))

export function partById(id: string | null | undefined): Part | undefined {
  return id ? byId.get(id) : undefined
}

/** @returns the part where it is of that kind, else undefined */
export function partOfKind<K extends Part['kind']>(
  id: string | null | undefined,
  kind: K,
): Extract<Part, { kind: K }> | undefined {
  const p = partById(id)
  return p?.kind === kind ? (p as Extract<Part, { kind: K }>) : undefined
}

/** @returns gain and width at a frequency, and whether the maker's range covers it; the nearest range answers outside */
export function antennaAt(part: AntennaPart, frequencyMHz: number): { pattern: Pattern; covered: boolean } {
  const gap = (r: AntennaPart['ranges'][number]) => Math.max(r.lowMHz - frequencyMHz, frequencyMHz - r.highMHz, 0)
  const range = part.ranges.reduce((a, b) => (gap(b) < gap(a) ? b : a))
  return {
    pattern: { gainDbi: range.gainDbi, beamwidthDeg: range.beamwidthDeg, frontToBackDb: part.frontToBackDb },
    covered: gap(range) === 0,
  }
}
