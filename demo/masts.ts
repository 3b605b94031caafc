/** Masts of two carriers that do not exist; network codes of the test country 999. */
export const CARRIERS = [{ name: 'Tern', codes: ['99901'] }, { name: 'Gannet', codes: ['99902'] }] as const

type Row = [name: string, lat: number, lon: number, heightM: number, carrier: 'Tern' | 'Gannet', bands: string, azimuths: number[]]

const ROWS: Row[] = [
  ['Fulmar Head', 46.6240, -41.6460, 24, 'Tern', 'B20 B3', [20, 140, 260]],
  ['Lee Harbour', 46.8622, -41.3955, 18, 'Tern', 'B20 B3 B7', [10, 130, 250]],
  ['Stack', 46.7250, -41.3660, 30, 'Tern', 'B20 B3', [0, 120, 240]],
  ['Quay Town', 46.7450, -41.4000, 16, 'Tern', 'B3 B7 n78', [30, 150, 270]],
  ['East Ness', 46.8550, -41.2150, 28, 'Tern', 'B20', [250, 70]],
  ['Far Tarn', 46.6575, -41.1085, 32, 'Tern', 'B20 B3', [290, 50]],
  ['Gull Isle', 46.3662, -41.6920, 40, 'Tern', 'B20', [60, 330]],
  ['Brine Works', 46.5600, -41.6600, 22, 'Tern', 'B20 B3', [0, 180]],
  ['Long Strand', 46.5100, -41.2050, 26, 'Tern', 'B20 B3', [340, 100, 220]],
  ['Reef Light', 46.7320, -41.5720, 35, 'Tern', 'B20', [45, 200]],
  ['Kittle Ridge', 46.8500, -41.3100, 20, 'Gannet', 'B20 B1', [90, 210, 330]],
  ['West Spine', 46.7850, -41.4690, 22, 'Gannet', 'B20 B3', [60, 180, 300]],
  ['Moss Road', 46.7900, -41.3250, 15, 'Gannet', 'B3 B7', [0, 120, 240]],
  ['Quay Chapel', 46.7420, -41.4050, 14, 'Gannet', 'B1 B3 n28', [0, 120, 240]],
  ['Salt Pans', 46.6990, -41.3000, 24, 'Gannet', 'B20', [330, 210]],
  ['Skerry Law', 46.5210, -41.2930, 20, 'Gannet', 'B20 B3', [30, 150, 270]],
  ['Hollow Farm', 46.6020, -41.6250, 25, 'Gannet', 'B20', [10, 190]],
  ['North Holm', 46.9010, -41.7265, 30, 'Gannet', 'B20', [110, 200]],
  ['Sound Point', 46.3000, -41.4200, 34, 'Gannet', 'B20 B3', [0, 180]],
  ['Thrift', 46.1830, -41.1400, 28, 'Gannet', 'B20', [300, 60]],
]

/** The channel each band's carrier sits on here. */
const CHANNELS: Record<string, number> = { B20: 6300, B3: 1575, B7: 3100, B1: 300, n78: 636_666, n28: 154_600 }

export const DEMO_MASTS = ROWS.map(([name, latDeg, lonDeg, heightM, carrier, bands, azimuths], i) => ({
  name, latDeg, lonDeg, heightM, carrier,
  cells: bands.split(' ').flatMap((band, b) => azimuths.map((azimuthDeg, s) => ({
    technology: band.startsWith('n') ? 'NR' as const : 'LTE' as const, band, cellId: `${i + 1}${b + 1}${s + 1}`, azimuthDeg, channel: CHANNELS[band] ?? null, beamwidthDeg: 65, powerDbm: null,
  }))),
}))
