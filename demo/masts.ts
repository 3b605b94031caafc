/** Masts of two carriers that do not exist; network codes of the test country 999. */
export const CARRIERS = [
  { name: 'Tern', codes: ['99901'] },
  { name: 'Gannet', codes: ['99902'] },
] as const

type Row = [
  name: string,
  lat: number,
  lon: number,
  heightM: number,
  carrier: 'Tern' | 'Gannet',
  bands: string,
  azimuths: number[],
]

const ROWS: Row[] = [
  ['Fulmar Head', 46.624, -41.646, 24, 'Tern', 'B20 B3', [20, 140, 260]],
  ['Lee Harbour', 46.8622, -41.3955, 18, 'Tern', 'B20 B3 B7', [10, 130, 250]],
  ['Stack', 46.725, -41.366, 30, 'Tern', 'B20 B3', [0, 120, 240]],
  ['Quay Town', 46.745, -41.4, 16, 'Tern', 'B3 B7 n78', [30, 150, 270]],
  ['East Ness', 46.855, -41.215, 28, 'Tern', 'B20', [250, 70]],
  ['Far Tarn', 46.6575, -41.1085, 32, 'Tern', 'B20 B3', [290, 50]],
  ['Gull Isle', 46.3662, -41.692, 40, 'Tern', 'B20', [60, 330]],
  ['Brine Works', 46.56, -41.66, 22, 'Tern', 'B20 B3', [0, 180]],
  ['Long Strand', 46.51, -41.205, 26, 'Tern', 'B20 B3', [340, 100, 220]],
  ['Reef Light', 46.732, -41.572, 35, 'Tern', 'B20', [45, 200]],
  ['Kittle Ridge', 46.85, -41.31, 20, 'Gannet', 'B20 B1', [90, 210, 330]],
  ['West Spine', 46.785, -41.469, 22, 'Gannet', 'B20 B3', [60, 180, 300]],
  ['Moss Road', 46.79, -41.325, 15, 'Gannet', 'B3 B7', [0, 120, 240]],
  ['Quay Chapel', 46.742, -41.405, 14, 'Gannet', 'B1 B3 n28', [0, 120, 240]],
  ['Salt Pans', 46.699, -41.3, 24, 'Gannet', 'B20', [330, 210]],
  ['Skerry Law', 46.521, -41.293, 20, 'Gannet', 'B20 B3', [30, 150, 270]],
  ['Hollow Farm', 46.602, -41.625, 25, 'Gannet', 'B20', [10, 190]],
  ['North Holm', 46.901, -41.7265, 30, 'Gannet', 'B20', [110, 200]],
  ['Sound Point', 46.3, -41.42, 34, 'Gannet', 'B20 B3', [0, 180]],
  ['Thrift', 46.183, -41.14, 28, 'Gannet', 'B20', [300, 60]],
]

/** The channel each band's carrier sits on here. */
const CHANNELS: Record<string, number> = { B20: 6300, B3: 1575, B7: 3100, B1: 300, n78: 636_666, n28: 154_600 }

export const DEMO_MASTS = ROWS.map(([name, latDeg, lonDeg, heightM, carrier, bands, azimuths], i) => ({
  name,
  latDeg,
  lonDeg,
  heightM,
  carrier,
  cells: bands.split(' ').flatMap((band, b) =>
    azimuths.map((azimuthDeg, s) => ({
      technology: band.startsWith('n') ? ('NR' as const) : ('LTE' as const),
      band,
      cellId: `${i + 1}${b + 1}${s + 1}`,
      azimuthDeg,
      channel: CHANNELS[band] ?? null,
      beamwidthDeg: 65,
      powerDbm: null,
    })),
  ),
}))
