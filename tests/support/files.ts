/** Files made for the tests: a mast table with some bad rows, and a height tile. */
import { mkdirSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeHgt } from '../../core/terrain/hgt'

const folder = join(tmpdir(), `multivox-files-${process.pid}`)
mkdirSync(folder, { recursive: true })

export function file(name: string, data: string | Uint8Array): string {
  const path = join(folder, name)
  writeFileSync(path, data)
  return path
}

/** 200 rows about 47.4 N 40.6 W, of which seven cannot be used; semicolons and decimal commas. */
export function mastTable(): string {
  const bad: Record<number, string> = { 12: '', 40: 'x', 77: '95,2', 101: '0', 133: 'B99', 150: 'sideways', 188: 'nameless' }
  const lines = ['Site;Latitude;Longitude;Operator;RAT;Band;Height;Azimuth']
  for (let i = 0; i < 200; i++) {
    const b = bad[i]
    const lat =
      b === '' || b === 'x' || b === '95,2' ? b : b === '0' ? '0' : (47.2 + (i % 20) * 0.018).toFixed(4).replace('.', ',')
    const lon = b === '0' ? '0' : (-40.9 + Math.floor(i / 20) * 0.05).toFixed(4).replace('.', ',')
    lines.push(
      [
        b === 'nameless' ? '' : `Site ${String(i).padStart(3, '0')}`,
        lat,
        lon,
        i % 2 ? 'Tern' : 'Gannet',
        'LTE',
        b === 'B99' ? 'B99' : i % 3 ? 'B20' : '1575',
        String(20 + (i % 15)),
        b === 'sideways' ? b : String((i * 36) % 360),
      ].join(';'),
    )
  }
  return file('masts.csv', lines.join('\r\n') + '\r\n')
}

/** N47W041: rolling land with a ridge along 47.3°. */
export function heightTile(): string {
  const side = 1201
  const heights = new Int16Array(side * side)
  for (let y = 0; y < side; y++) {
    const lat = 48 - y / 1200
    for (let x = 0; x < side; x++)
      heights[y * side + x] = Math.round(
        40 + 30 * Math.sin(x / 90) * Math.cos(y / 70) + 220 * Math.exp(-(((lat - 47.3) / 0.01) ** 2)),
      )
  }
  const { name, bytes } = writeHgt({ southDeg: 47, westDeg: -41, side, heights })
  return file(name, bytes)
}
