/** SRTM height tiles: one degree square, big-endian 16-bit metres, rows from the north, −32768 for a void. */
import { nth } from '../sure'
import { inRange } from '../check'

export const VOID = -32768

export interface HeightTile {
  /** south-west corner, whole degrees */
  southDeg: number
  westDeg: number
  /** samples a side: 1201 (3″) or 3601 (1″) */
  side: number
  /** heights in metres, row 0 at the north edge; `VOID` where nothing is known */
  heights: Int16Array
}

/**
 * @returns the south-west corner named by a file such as `N46W042.hgt`
 * @throws RangeError where the name does not say where the tile lies
 */
export function cornerFromName(name: string): { southDeg: number; westDeg: number } {
  const m = /(?:^|[/\\])([NS])(\d{2})([EW])(\d{3})(?:\.[^/\\]*)?$/i.exec(name)
  if (!m)
    throw new RangeError(`“${name}” does not name a tile: SRTM files are named by their south-west corner, such as N46W042.hgt`)
  const southDeg = Number(m[2]) * (nth(m, 1).toUpperCase() === 'S' ? -1 : 1)
  const westDeg = Number(m[4]) * (nth(m, 3).toUpperCase() === 'W' ? -1 : 1)
  inRange('south edge', southDeg, -90, 89)
  inRange('west edge', westDeg, -180, 179)
  return { southDeg, westDeg }
}

/**
 * @throws RangeError where the size is that of no SRTM tile (a truncated or foreign file)
 * @source SRTM v3 user guide, from memory: 1201² or 3601² samples, big-endian, row-major from the north-west
 */
export function readHgt(name: string, bytes: Uint8Array): HeightTile {
  const corner = cornerFromName(name)
  const side = Math.sqrt(bytes.byteLength / 2)
  if (side !== 1201 && side !== 3601) {
    throw new RangeError(
      `“${name}” holds ${bytes.byteLength} bytes; an SRTM tile holds 2,884,802 (3″) or 25,934,402 (1″): the file is ` +
        `${bytes.byteLength === 0 ? 'empty' : 'cut short or of another kind'}`,
    )
  }
  const heights = new Int16Array(side * side)
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  for (let i = 0; i < heights.length; i++) heights[i] = view.getInt16(2 * i, false)
  return { ...corner, side, heights }
}

/** @returns the file's bytes and the name its corner gives it; `readHgt` reads it back unchanged */
export function writeHgt(tile: HeightTile): { name: string; bytes: Uint8Array } {
  const bytes = new Uint8Array(tile.heights.length * 2)
  const view = new DataView(bytes.buffer)
  tile.heights.forEach((h, i) => view.setInt16(2 * i, h, false))
  const ns = `${tile.southDeg < 0 ? 'S' : 'N'}${String(Math.abs(tile.southDeg)).padStart(2, '0')}`
  const ew = `${tile.westDeg < 0 ? 'W' : 'E'}${String(Math.abs(tile.westDeg)).padStart(3, '0')}`
  return { name: `${ns}${ew}.hgt`, bytes }
}
