/**
 * Generic antennas, outside and inside.
 * @source gains, widths, masses and areas common practice (no source)
 */
import type { AntennaPart } from '../job/part'
import { antenna, feeds, range } from './build'
import type { End, Facts } from './build'

const POLE = { mount: 'pole clamp, two U-bolts', clampMm: [30, 52], outdoors: true, temperatureC: [-40, 65] } satisfies Facts
const WALL = { mount: 'bracket to wall or pole', clampMm: [30, 50], outdoors: true, temperatureC: [-40, 65] } satisfies Facts
const ROOF_BOLT = {
  mount: 'bolt through the skin, hole 25 mm, gasket',
  outdoors: true,
  temperatureC: [-40, 80],
} satisfies Facts
const MARINE = { mount: 'G 1¼ thread', outdoors: true, temperatureC: [-40, 70] } satisfies Facts
const CEILING = { mount: 'hole 20 mm and nut', outdoors: false, temperatureC: [-10, 50] } satisfies Facts
const INDOOR_WALL = { mount: 'two screws 4 mm', outdoors: false, temperatureC: [-10, 50] } satisfies Facts
const boxed = { inBox: ['clamp'], apart: ['cable', 'arrestor'] } satisfies Facts

const smaPlug: End = ['SMA', 'plug']

const BEAMS: AntennaPart[] = [
  antenna('ant-lpda', 'Log-periodic beam, wide band', {
    shape: 'log-periodic',
    ranges: [
      range(617, 960, { gainDbi: 8, beamwidthDeg: 94, verticalBeamwidthDeg: 62 }),
      range(1700, 2700, { gainDbi: 10, beamwidthDeg: 66, verticalBeamwidthDeg: 46 }),
    ],
    frontToBackDb: 18,
    ports: feeds(1),
    sizeM: 0.45,
    facts: { ...POLE, ...boxed, massKg: 0.9, sizeMm: [210, 45, 450], windM2: 0.03, priceClass: 1 },
  }),
  antenna('ant-lpda-long', 'Log-periodic beam, long, wide band', {
    shape: 'log-periodic',
    ranges: [
      range(617, 960, { gainDbi: 10, beamwidthDeg: 66, verticalBeamwidthDeg: 54 }),
      range(1700, 2700, { gainDbi: 11.5, beamwidthDeg: 50, verticalBeamwidthDeg: 44 }),
      range(3300, 3800, { gainDbi: 11, beamwidthDeg: 48, verticalBeamwidthDeg: 42 }),
    ],
    frontToBackDb: 20,
    ports: feeds(1),
    sizeM: 0.9,
    facts: { ...POLE, ...boxed, massKg: 1.7, sizeMm: [260, 50, 900], windM2: 0.05, priceClass: 2 },
  }),
  antenna('ant-lpda-x', 'Log-periodic pair at ±45°', {
    shape: 'log-periodic',
    ranges: [
      range(617, 960, { gainDbi: 8, beamwidthDeg: 76, verticalBeamwidthDeg: 76 }),
      range(1700, 2700, { gainDbi: 10, beamwidthDeg: 56, verticalBeamwidthDeg: 56 }),
    ],
    frontToBackDb: 18,
    ports: feeds(2),
    sizeM: 0.55,
    facts: { ...POLE, ...boxed, massKg: 2.2, sizeMm: [330, 330, 500], windM2: 0.08, priceClass: 2 },
  }),
  antenna('ant-yagi-low', 'Low-band Yagi, ten elements', {
    shape: 'Yagi',
    ranges: [range(790, 960, { gainDbi: 11.5, beamwidthDeg: 48, verticalBeamwidthDeg: 42 })],
    frontToBackDb: 17,
    ports: feeds(1),
    sizeM: 0.95,
    facts: {
      ...POLE,
      ...boxed,
      massKg: 1.1,
      sizeMm: [200, 40, 950],
      windM2: 0.04,
      priceClass: 1,
    },
  }),
  antenna('ant-yagi-700', 'Low-band Yagi, 700 MHz', {
    shape: 'Yagi',
    ranges: [range(694, 806, { gainDbi: 11, beamwidthDeg: 50, verticalBeamwidthDeg: 44 })],
    frontToBackDb: 16,
    ports: feeds(1),
    sizeM: 1.1,
    facts: {
      ...POLE,
      ...boxed,
      massKg: 1.3,
      sizeMm: [230, 40, 1100],
      windM2: 0.05,
      priceClass: 1,
    },
  }),
  antenna('ant-yagi-low-x', 'Low-band Yagis, crossed pair', {
    shape: 'Yagi',
    ranges: [range(694, 960, { gainDbi: 10.5, beamwidthDeg: 48, verticalBeamwidthDeg: 48 })],
    frontToBackDb: 17,
    ports: feeds(2),
    sizeM: 1,
    facts: {
      ...POLE,
      ...boxed,
      massKg: 2.6,
      sizeMm: [240, 240, 1000],
      windM2: 0.09,
      priceClass: 2,
    },
  }),
  antenna('ant-yagi-1800', 'Mid-band Yagi, 1800 MHz', {
    shape: 'Yagi',
    ranges: [range(1710, 1880, { gainDbi: 13.5, beamwidthDeg: 36, verticalBeamwidthDeg: 34 })],
    frontToBackDb: 19,
    ports: feeds(1),
    sizeM: 0.75,
    facts: {
      ...POLE,
      ...boxed,
      massKg: 0.8,
      sizeMm: [95, 40, 750],
      windM2: 0.02,
      priceClass: 1,
    },
  }),
  antenna('ant-yagi-mid-x', 'Mid-band beams, crossed pair', {
    shape: 'Yagi',
    ranges: [range(1700, 2700, { gainDbi: 13, beamwidthDeg: 36, verticalBeamwidthDeg: 36 })],
    frontToBackDb: 19,
    ports: feeds(2),
    sizeM: 0.7,
    facts: {
      ...POLE,
      ...boxed,
      massKg: 1.9,
      sizeMm: [180, 180, 700],
      windM2: 0.06,
      priceClass: 2,
    },
  }),
  antenna('ant-grid', 'Grid reflector, mid band', {
    shape: 'panel',
    ranges: [range(1700, 2700, { gainDbi: 19, beamwidthDeg: 16, verticalBeamwidthDeg: 21 })],
    frontToBackDb: 26,
    ports: feeds(1),
    sizeM: 0.9,
    facts: {
      ...POLE,
      apart: ['cable', 'arrestor'],
      massKg: 4.2,
      sizeMm: [900, 600, 380],
      windM2: 0.22,
      priceClass: 2,
    },
  }),
  antenna('ant-grid-x', 'Grid reflector, mid band, two feeds', {
    shape: 'panel',
    ranges: [range(1700, 2700, { gainDbi: 18, beamwidthDeg: 18, verticalBeamwidthDeg: 22 })],
    frontToBackDb: 25,
    ports: feeds(2),
    sizeM: 0.9,
    facts: {
      ...POLE,
      apart: ['two cables', 'two arrestors'],
      massKg: 4.6,
      sizeMm: [900, 600, 420],
      windM2: 0.22,
      priceClass: 3,
    },
  }),
]

const PANELS: AntennaPart[] = [
  antenna('ant-panel-x', 'Cross-polarised panel, two feeds', {
    shape: 'panel',
    ranges: [
      range(617, 960, { gainDbi: 7, beamwidthDeg: 75, verticalBeamwidthDeg: 70 }),
      range(1700, 2700, { gainDbi: 9, beamwidthDeg: 65, verticalBeamwidthDeg: 60 }),
      range(3300, 3800, { gainDbi: 9, beamwidthDeg: 60, verticalBeamwidthDeg: 55 }),
    ],
    frontToBackDb: 16,
    ports: feeds(2),
    sizeM: 0.3,
    facts: { ...WALL, ...boxed, massKg: 1.4, sizeMm: [300, 300, 80], windM2: 0.09, priceClass: 2 },
  }),
  antenna('ant-panel-small', 'Small panel, two feeds on leads', {
    shape: 'panel',
    ranges: [
      range(694, 960, { gainDbi: 4, beamwidthDeg: 95, verticalBeamwidthDeg: 95 }),
      range(1700, 3800, { gainDbi: 6, beamwidthDeg: 75, verticalBeamwidthDeg: 75 }),
    ],
    frontToBackDb: 12,
    ports: feeds(2, smaPlug),
    sizeM: 0.2,
    facts: {
      ...WALL,
      massKg: 0.7,
      sizeMm: [200, 200, 55],
      windM2: 0.04,
      tailM: 5,
      priceClass: 1,
      inBox: ['clamp', 'two leads of 5 m'],
      apart: ['arrestors'],
    },
  }),
  antenna('ant-panel-high', 'Cross-polarised panel, high gain', {
    shape: 'panel',
    ranges: [
      range(1700, 2700, { gainDbi: 14, beamwidthDeg: 36, verticalBeamwidthDeg: 35 }),
      range(3300, 3800, { gainDbi: 15, beamwidthDeg: 30, verticalBeamwidthDeg: 30 }),
    ],
    frontToBackDb: 22,
    ports: feeds(2),
    sizeM: 0.42,
    facts: { ...POLE, ...boxed, massKg: 2.4, sizeMm: [420, 420, 60], windM2: 0.18, priceClass: 3 },
  }),
  antenna('ant-panel-4', 'Panel with four feeds', {
    shape: 'panel',
    ranges: [
      range(617, 960, { gainDbi: 6, beamwidthDeg: 80, verticalBeamwidthDeg: 75 }),
      range(1700, 2700, { gainDbi: 8.5, beamwidthDeg: 68, verticalBeamwidthDeg: 62 }),
      range(3300, 4200, { gainDbi: 9, beamwidthDeg: 60, verticalBeamwidthDeg: 55 }),
    ],
    frontToBackDb: 16,
    ports: feeds(4),
    sizeM: 0.38,
    facts: { ...WALL, ...boxed, massKg: 2.3, sizeMm: [380, 380, 90], windM2: 0.15, priceClass: 3 },
  }),
  antenna('ant-panel-wide', 'Wide panel, one feed', {
    shape: 'panel',
    ranges: [
      range(694, 960, { gainDbi: 6, beamwidthDeg: 90, verticalBeamwidthDeg: 80 }),
      range(1700, 2700, { gainDbi: 8, beamwidthDeg: 80, verticalBeamwidthDeg: 65 }),
    ],
    frontToBackDb: 15,
    ports: feeds(1),
    sizeM: 0.28,
    facts: {
      ...WALL,
      ...boxed,
      massKg: 1,
      sizeMm: [210, 280, 60],
      windM2: 0.06,
      priceClass: 1,
    },
  }),
  antenna('ant-panel-nr', 'Panel for 3.5 GHz, two feeds', {
    shape: 'panel',
    ranges: [range(3300, 4200, { gainDbi: 16, beamwidthDeg: 26, verticalBeamwidthDeg: 26 })],
    frontToBackDb: 24,
    ports: feeds(2),
    sizeM: 0.32,
    facts: {
      ...POLE,
      ...boxed,
      massKg: 1.8,
      sizeMm: [320, 320, 40],
      windM2: 0.1,
      priceClass: 2,
    },
  }),
  antenna('ant-window', 'Window panel, two feeds on leads', {
    shape: 'panel',
    ranges: [
      range(694, 960, { gainDbi: 3, beamwidthDeg: 110, verticalBeamwidthDeg: 110 }),
      range(1700, 3800, { gainDbi: 5, beamwidthDeg: 90, verticalBeamwidthDeg: 90 }),
    ],
    frontToBackDb: 8,
    ports: feeds(2, smaPlug),
    sizeM: 0.18,
    facts: { mount: 'suction cups on a pane', outdoors: true, massKg: 0.3, sizeMm: [180, 120, 20], tailM: 3, priceClass: 1 },
  }),
]

const OMNIS: AntennaPart[] = [
  antenna('ant-omni', 'Omni, wide band', {
    shape: 'omni',
    ranges: [
      range(617, 960, { gainDbi: 2.1, beamwidthDeg: 360, verticalBeamwidthDeg: 78 }),
      range(1700, 3800, { gainDbi: 4.5, beamwidthDeg: 360, verticalBeamwidthDeg: 38 }),
    ],
    frontToBackDb: 15,
    ports: feeds(1),
    sizeM: 0.6,
    facts: {
      ...WALL,
      ...boxed,
      massKg: 0.6,
      sizeMm: [40, 600, 40],
      windM2: 0.024,
      priceClass: 1,
    },
  }),
  antenna('ant-omni-x', 'Omni with two feeds', {
    shape: 'omni',
    ranges: [
      range(617, 960, { gainDbi: 1.5, beamwidthDeg: 360, verticalBeamwidthDeg: 80 }),
      range(1700, 3800, { gainDbi: 3.5, beamwidthDeg: 360, verticalBeamwidthDeg: 50 }),
    ],
    frontToBackDb: 13,
    ports: feeds(2),
    sizeM: 0.35,
    facts: {
      ...WALL,
      ...boxed,
      massKg: 0.9,
      sizeMm: [90, 350, 90],
      windM2: 0.03,
      priceClass: 2,
    },
  }),
  antenna('ant-omni-4', 'Omni with four feeds', {
    shape: 'omni',
    ranges: [
      range(617, 960, { gainDbi: 1.5, beamwidthDeg: 360, verticalBeamwidthDeg: 80 }),
      range(1700, 4200, { gainDbi: 4, beamwidthDeg: 360, verticalBeamwidthDeg: 43 }),
    ],
    frontToBackDb: 13,
    ports: feeds(4),
    sizeM: 0.4,
    facts: {
      ...WALL,
      ...boxed,
      massKg: 1.5,
      sizeMm: [180, 400, 180],
      windM2: 0.07,
      priceClass: 3,
    },
  }),
  antenna('ant-omni-low', 'Omni, low band, tall', {
    shape: 'omni',
    ranges: [range(790, 960, { gainDbi: 6, beamwidthDeg: 360, verticalBeamwidthDeg: 22 })],
    frontToBackDb: 15,
    ports: feeds(1),
    sizeM: 1.4,
    facts: {
      ...POLE,
      ...boxed,
      massKg: 1.3,
      sizeMm: [38, 1400, 38],
      windM2: 0.053,
      priceClass: 2,
    },
  }),
  antenna('ant-stick', 'Stub omni on a bracket', {
    shape: 'omni',
    ranges: [
      range(694, 960, { gainDbi: 1, beamwidthDeg: 360, verticalBeamwidthDeg: 85 }),
      range(1700, 2700, { gainDbi: 2.5, beamwidthDeg: 360, verticalBeamwidthDeg: 65 }),
    ],
    frontToBackDb: 12,
    ports: feeds(1),
    sizeM: 0.22,
    facts: {
      ...WALL,
      massKg: 0.25,
      sizeMm: [28, 220, 28],
      windM2: 0.006,
      priceClass: 1,
    },
  }),
  antenna('ant-marine', 'Marine omni, 1¼ thread', {
    shape: 'omni',
    ranges: [
      range(694, 960, { gainDbi: 3, beamwidthDeg: 360, verticalBeamwidthDeg: 58 }),
      range(1700, 2700, { gainDbi: 5, beamwidthDeg: 360, verticalBeamwidthDeg: 33 }),
    ],
    frontToBackDb: 14,
    ports: feeds(1),
    sizeM: 0.75,
    facts: {
      ...MARINE,
      massKg: 0.8,
      sizeMm: [35, 750, 35],
      windM2: 0.026,
      priceClass: 2,
      apart: ['mount with thread', 'cable'],
    },
  }),
  antenna('ant-marine-x', 'Marine omni with two feeds', {
    shape: 'omni',
    ranges: [
      range(694, 960, { gainDbi: 2, beamwidthDeg: 360, verticalBeamwidthDeg: 70 }),
      range(1700, 3800, { gainDbi: 4, beamwidthDeg: 360, verticalBeamwidthDeg: 43 }),
    ],
    frontToBackDb: 13,
    ports: feeds(2),
    sizeM: 0.5,
    facts: {
      ...MARINE,
      massKg: 1.1,
      sizeMm: [75, 500, 75],
      windM2: 0.038,
      priceClass: 3,
      apart: ['mount with thread', 'two cables'],
    },
  }),
  antenna('ant-roof-2', 'Roof puck, two cellular feeds', {
    shape: 'omni',
    ranges: [
      range(694, 960, { gainDbi: 4.4, beamwidthDeg: 360, verticalBeamwidthDeg: 60 }),
      range(1700, 3800, { gainDbi: 4.6, beamwidthDeg: 360, verticalBeamwidthDeg: 60 }),
    ],
    frontToBackDb: 10,
    ports: feeds(2, smaPlug),
    sizeM: 0.13,
    facts: {
      overMetal: true,
      ...ROOF_BOLT,
      massKg: 0.5,
      sizeMm: [130, 60, 130],
      tailM: 5,
      priceClass: 2,
      inBox: ['leads of 5 m', 'gasket', 'nut'],
    },
  }),
  antenna('ant-roof-4', 'Roof puck, four cellular feeds', {
    shape: 'omni',
    ranges: [
      range(617, 960, { gainDbi: 4.4, beamwidthDeg: 360, verticalBeamwidthDeg: 60 }),
      range(1700, 4200, { gainDbi: 4.6, beamwidthDeg: 360, verticalBeamwidthDeg: 60 }),
    ],
    frontToBackDb: 10,
    ports: feeds(4, smaPlug),
    sizeM: 0.22,
    facts: {
      overMetal: true,
      ...ROOF_BOLT,
      massKg: 1.1,
      sizeMm: [220, 75, 220],
      tailM: 5,
      priceClass: 3,
      inBox: ['leads of 5 m', 'gasket', 'nut'],
    },
  }),
  antenna('ant-fin', 'Fin on the roof, one feed', {
    shape: 'omni',
    ranges: [
      range(694, 960, { gainDbi: 3.9, beamwidthDeg: 360, verticalBeamwidthDeg: 60 }),
      range(1700, 2700, { gainDbi: 4.2, beamwidthDeg: 360, verticalBeamwidthDeg: 60 }),
    ],
    frontToBackDb: 9,
    ports: feeds(1, smaPlug),
    sizeM: 0.1,
    facts: {
      overMetal: true,
      ...ROOF_BOLT,
      massKg: 0.25,
      sizeMm: [80, 70, 180],
      tailM: 3,
      priceClass: 1,
      inBox: ['lead of 3 m', 'gasket', 'nut'],
    },
  }),
  antenna('ant-magnet', 'Whip on a magnet', {
    shape: 'omni',
    ranges: [
      range(694, 960, { gainDbi: 4.4, beamwidthDeg: 360, verticalBeamwidthDeg: 60 }),
      range(1700, 2700, { gainDbi: 4.6, beamwidthDeg: 360, verticalBeamwidthDeg: 60 }),
    ],
    frontToBackDb: 10,
    ports: feeds(1, smaPlug),
    sizeM: 0.35,
    facts: {
      overMetal: true,
      mount: 'magnet on a steel plate',
      outdoors: true,
      massKg: 0.35,
      sizeMm: [70, 350, 70],
      tailM: 4,
      priceClass: 1,
    },
  }),
  antenna('ant-bullbar', 'Whip with a spring, bull bar', {
    shape: 'omni',
    ranges: [
      range(694, 960, { gainDbi: 4.5, beamwidthDeg: 360, verticalBeamwidthDeg: 37 }),
      range(1700, 2700, { gainDbi: 5.5, beamwidthDeg: 360, verticalBeamwidthDeg: 28 }),
    ],
    frontToBackDb: 13,
    ports: feeds(1, ['FME', 'socket']),
    sizeM: 1,
    facts: {
      mount: 'bolt M14 on a bracket, spring',
      outdoors: true,
      massKg: 0.9,
      sizeMm: [40, 1000, 40],
      tailM: 4.5,
      priceClass: 2,
    },
  }),
  antenna('ant-truck', 'Heavy whip, low gain, hills', {
    shape: 'omni',
    ranges: [
      range(694, 960, { gainDbi: 2, beamwidthDeg: 360, verticalBeamwidthDeg: 80 }),
      range(1700, 2700, { gainDbi: 2.5, beamwidthDeg: 360, verticalBeamwidthDeg: 67 }),
    ],
    frontToBackDb: 10,
    ports: feeds(1, ['FME', 'socket']),
    sizeM: 0.5,
    facts: {
      mount: 'bolt M14 on a bracket, spring',
      outdoors: true,
      massKg: 0.7,
      sizeMm: [36, 500, 36],
      tailM: 4.5,
      priceClass: 1,
    },
  }),
]

const INSIDE: AntennaPart[] = [
  antenna('ant-dome', 'Ceiling dome', {
    shape: 'dome',
    ranges: [
      range(617, 960, { gainDbi: 1.4, beamwidthDeg: 360, verticalBeamwidthDeg: 80 }),
      range(1700, 2700, { gainDbi: 3.5, beamwidthDeg: 360, verticalBeamwidthDeg: 90 }),
    ],
    frontToBackDb: 10,
    ports: feeds(1),
    sizeM: 0.18,
    facts: {
      ...CEILING,
      massKg: 0.3,
      sizeMm: [180, 90, 180],
      priceClass: 1,
      apart: ['cable'],
    },
  }),
  antenna('ant-dome-wide', 'Ceiling dome, to 3.8 GHz', {
    shape: 'dome',
    ranges: [
      range(617, 960, { gainDbi: 1.4, beamwidthDeg: 360, verticalBeamwidthDeg: 80 }),
      range(1700, 3800, { gainDbi: 3.5, beamwidthDeg: 360, verticalBeamwidthDeg: 90 }),
    ],
    frontToBackDb: 10,
    ports: feeds(1),
    sizeM: 0.2,
    facts: {
      ...CEILING,
      massKg: 0.4,
      sizeMm: [200, 95, 200],
      priceClass: 2,
      apart: ['cable'],
    },
  }),
  antenna('ant-dome-f', 'Ceiling dome, 75 Ω', {
    shape: 'dome',
    ranges: [
      range(694, 960, { gainDbi: 1.4, beamwidthDeg: 360, verticalBeamwidthDeg: 80 }),
      range(1700, 2700, { gainDbi: 3, beamwidthDeg: 360, verticalBeamwidthDeg: 90 }),
    ],
    frontToBackDb: 10,
    ports: feeds(1, ['F', 'socket', 75]),
    sizeM: 0.17,
    facts: {
      ...CEILING,
      massKg: 0.3,
      sizeMm: [170, 85, 170],
      priceClass: 1,
      apart: ['cable'],
    },
  }),
  antenna('ant-dome-flat', 'Flat ceiling disc', {
    shape: 'dome',
    ranges: [
      range(694, 960, { gainDbi: 1, beamwidthDeg: 360, verticalBeamwidthDeg: 80 }),
      range(1700, 2700, { gainDbi: 2.5, beamwidthDeg: 360, verticalBeamwidthDeg: 90 }),
    ],
    frontToBackDb: 9,
    ports: feeds(1),
    sizeM: 0.22,
    facts: {
      ...CEILING,
      mount: 'over plasterboard or four screws',
      massKg: 0.35,
      sizeMm: [220, 12, 220],
      priceClass: 2,
      apart: ['cable'],
    },
  }),
  antenna('ant-dome-x', 'Ceiling dome, two feeds', {
    shape: 'dome',
    ranges: [
      range(694, 960, { gainDbi: 1.4, beamwidthDeg: 360, verticalBeamwidthDeg: 80 }),
      range(1700, 3800, { gainDbi: 3.5, beamwidthDeg: 360, verticalBeamwidthDeg: 90 }),
    ],
    frontToBackDb: 10,
    ports: feeds(2),
    sizeM: 0.24,
    facts: {
      ...CEILING,
      massKg: 0.6,
      sizeMm: [240, 60, 240],
      priceClass: 3,
      apart: ['two cables'],
    },
  }),
  antenna('ant-panel-in', 'Inside wall panel', {
    shape: 'panel',
    ranges: [
      range(617, 960, { gainDbi: 5, beamwidthDeg: 85, verticalBeamwidthDeg: 75 }),
      range(1700, 2700, { gainDbi: 7, beamwidthDeg: 70, verticalBeamwidthDeg: 65 }),
    ],
    frontToBackDb: 17,
    ports: feeds(1),
    sizeM: 0.21,
    facts: {
      ...INDOOR_WALL,
      massKg: 0.6,
      sizeMm: [180, 210, 45],
      priceClass: 1,
      apart: ['cable'],
    },
  }),
  antenna('ant-panel-f', 'Inside wall panel, 75 Ω', {
    shape: 'panel',
    ranges: [
      range(694, 960, { gainDbi: 5, beamwidthDeg: 85, verticalBeamwidthDeg: 75 }),
      range(1700, 2700, { gainDbi: 7, beamwidthDeg: 70, verticalBeamwidthDeg: 65 }),
    ],
    frontToBackDb: 17,
    ports: feeds(1, ['F', 'socket', 75]),
    sizeM: 0.21,
    facts: {
      ...INDOOR_WALL,
      massKg: 0.6,
      sizeMm: [180, 210, 45],
      priceClass: 1,
      apart: ['cable'],
    },
  }),
  antenna('ant-panel-hall', 'Panel for halls and corridors', {
    shape: 'panel',
    ranges: [
      range(694, 960, { gainDbi: 7, beamwidthDeg: 65, verticalBeamwidthDeg: 65 }),
      range(1700, 2700, { gainDbi: 9, beamwidthDeg: 55, verticalBeamwidthDeg: 55 }),
    ],
    frontToBackDb: 20,
    ports: feeds(1),
    sizeM: 0.3,
    facts: {
      ...INDOOR_WALL,
      massKg: 1,
      sizeMm: [260, 300, 50],
      priceClass: 2,
      apart: ['cable'],
    },
  }),
  antenna('ant-panel-flat', 'Flat panel on a lead, vehicle', {
    shape: 'panel',
    ranges: [
      range(694, 960, { gainDbi: 2, beamwidthDeg: 110, verticalBeamwidthDeg: 110 }),
      range(1700, 2700, { gainDbi: 4, beamwidthDeg: 90, verticalBeamwidthDeg: 90 }),
    ],
    frontToBackDb: 9,
    ports: feeds(1, smaPlug),
    sizeM: 0.14,
    facts: {
      ...INDOOR_WALL,
      mount: 'adhesive pad',
      massKg: 0.2,
      sizeMm: [140, 90, 12],
      tailM: 2,
      priceClass: 1,
    },
  }),
  antenna('ant-whip-in', 'Inside desk whip', {
    shape: 'whip',
    ranges: [range(617, 2700, { gainDbi: 1, beamwidthDeg: 360, verticalBeamwidthDeg: 90 })],
    frontToBackDb: 12,
    ports: feeds(1, ['SMA', 'socket']),
    sizeM: 0.12,
    facts: {
      mount: 'stands on a desk',
      outdoors: false,
      massKg: 0.15,
      sizeMm: [40, 120, 40],
      priceClass: 1,
    },
  }),
  antenna('ant-corridor', 'Corridor antenna, two ways', {
    shape: 'panel',
    ranges: [
      range(694, 960, { gainDbi: 3, beamwidthDeg: 110, verticalBeamwidthDeg: 70 }),
      range(1700, 2700, { gainDbi: 4.5, beamwidthDeg: 80, verticalBeamwidthDeg: 55 }),
    ],
    frontToBackDb: 6,
    ports: feeds(1),
    sizeM: 0.25,
    facts: {
      ...CEILING,
      massKg: 0.5,
      sizeMm: [250, 40, 90],
      priceClass: 2,
      apart: ['cable'],
    },
  }),
]

/** Sheets of the catalogue in the order a choice offers them. */
export const ANTENNAS: readonly AntennaPart[] = [...BEAMS, ...PANELS, ...OMNIS, ...INSIDE]
