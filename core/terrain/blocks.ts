/**
 * Terrain cut into blocks of 0.1° with shared edges, so that a path fetches only what it crosses.
 * A block's key is `row:column`, counted in tenths of a degree from the south pole and from 180° W.
 */
import { inRange } from '../check'
import { turn } from '../geo/angles'
import type { Position } from '../geo/geodesic'
import type { HeightTile } from './hgt'
import { VOID } from './hgt'

export interface HeightBlock {
  key: string
  /** samples a side, edges included: 121 (3″) or 361 (1″) */
  side: number
  /** metres, row 0 at the north edge */
  heights: Int16Array
}

export const PER_DEGREE = 10
const COLUMNS = 360 * PER_DEGREE

export const blockKey = (row: number, column: number): string => `${row}:${column}`

/** @returns row and column of a key. @throws RangeError where it names no block */
export function parseKey(key: string): { row: number; column: number } {
  const [row, column] = key.split(':').map(Number)
  if (!(row! >= 0 && row! < 180 * PER_DEGREE && column! >= 0 && column! < COLUMNS))
    throw new RangeError(`“${key}” names no block`)
  return { row: row!, column: column! }
}

/** @returns the block that holds a position */
export function keyAt(latDeg: number, lonDeg: number): string {
  const row = Math.min(Math.floor((latDeg + 90) * PER_DEGREE + 1e-9), 180 * PER_DEGREE - 1)
  const column = Math.floor((lonDeg + 180) * PER_DEGREE + 1e-9) % COLUMNS
  return blockKey(row, column)
}

/** @returns the middle of a block */
export function blockCentre(key: string): Position {
  const { row, column } = parseKey(key)
  return { latDeg: (row + 0.5) / PER_DEGREE - 90, lonDeg: (column + 0.5) / PER_DEGREE - 180 }
}

/**
 * Blocks that a circle touches, each with the distance of its middle, nearest first.
 * @param radiusM  at most 200 km
 */
export function blocksAround(at: Position, radiusM: number): { key: string; distanceM: number }[] {
  const perDegreeM = 111_320
  const reach = inRange('radiusM', radiusM, 1, 200_000) / perDegreeM
  const out: { key: string; distanceM: number }[] = []
  const low = Math.max(0, Math.floor((at.latDeg - reach + 90) * PER_DEGREE))
  const high = Math.min(180 * PER_DEGREE - 1, Math.floor((at.latDeg + reach + 90) * PER_DEGREE))
  for (let row = low; row <= high; row++) {
    const mid = (row + 0.5) / PER_DEGREE - 90
    const cos = Math.max(Math.cos((mid * Math.PI) / 180), 1e-3)
    const wide = Math.min(180, reach / cos)
    const from = Math.floor((at.lonDeg - wide + 180) * PER_DEGREE)
    const to = Math.min(from + COLUMNS - 1, Math.floor((at.lonDeg + wide + 180) * PER_DEGREE))
    for (let c = from; c <= to; c++) {
      const east = ((c + 0.5) / PER_DEGREE - 180 - at.lonDeg) * cos
      const distanceM = Math.hypot(mid - at.latDeg, east) * perDegreeM
      // A block is kept where its nearest corner may lie within the circle.
      if (distanceM <= radiusM + 8000) out.push({ key: blockKey(row, ((c % COLUMNS) + COLUMNS) % COLUMNS), distanceM })
    }
  }
  return out.sort((a, b) => a.distanceM - b.distanceM)
}

/** Samples a side of a block of 3″ terrain, and the distance beyond which no finer one is wanted. */
export const COARSE_SIDE = 121
export const FINE_WITHIN_M = 16_000

/** @returns true where a block lies so far from the site that 3″ do: fine near, coarse far */
export function isFar(site: Position, key: string): boolean {
  const c = blockCentre(key)
  const east = turn(site.lonDeg, c.lonDeg) * Math.cos((site.latDeg * Math.PI) / 180)
  return Math.hypot(c.latDeg - site.latDeg, east) * 111_320 > FINE_WITHIN_M
}

/** @returns the block thinned to 3″ by keeping every third sample, edges with it; a coarse block as it is */
export function coarsen(block: HeightBlock): HeightBlock {
  const every = (block.side - 1) / (COARSE_SIDE - 1)
  if (every <= 1 || !Number.isInteger(every)) return block
  const heights = new Int16Array(COARSE_SIDE * COARSE_SIDE)
  for (let y = 0; y < COARSE_SIDE; y++)
    for (let x = 0; x < COARSE_SIDE; x++) heights[y * COARSE_SIDE + x] = block.heights[y * every * block.side + x * every]!
  return { key: block.key, side: COARSE_SIDE, heights }
}

/**
 * Lays blocks of one place over each other. At every sample the finest that knows the ground is
 * taken, the first of equal ones; so the order in which tiles were brought does not matter, and a
 * void is filled from the next.
 *
 * @param layers  finest and best first is not needed: they are ordered here by side, then as given
 * @returns null where none is given
 */
export function overlay(layers: readonly HeightBlock[]): HeightBlock | null {
  if (!layers.length) return null
  const order = [...layers].sort((a, b) => b.side - a.side)
  const top = order[0]!
  if (order.length === 1) return top
  const { side } = top
  const heights = top.heights.slice()
  for (const under of order.slice(1)) {
    const step = (under.side - 1) / (side - 1)
    for (let i = 0; i < heights.length; i++) {
      if (heights[i] !== VOID) continue
      const v = sampleBlock(under, (i % side) * step, Math.floor(i / side) * step)
      if (!Number.isNaN(v)) heights[i] = Math.round(v)
    }
  }
  return { key: top.key, side, heights }
}

/** @returns the tile as 100 blocks, northern edge first inside each */
export function cutTile(tile: HeightTile): HeightBlock[] {
  const inner = (tile.side - 1) / PER_DEGREE
  const side = inner + 1
  const blocks: HeightBlock[] = []
  for (let r = 0; r < PER_DEGREE; r++) {
    for (let c = 0; c < PER_DEGREE; c++) {
      const heights = new Int16Array(side * side)
      const top = tile.side - 1 - (r + 1) * inner
      for (let y = 0; y < side; y++) {
        const from = (top + y) * tile.side + c * inner
        heights.set(tile.heights.subarray(from, from + side), y * side)
      }
      blocks.push({ key: blockKey((tile.southDeg + 90) * PER_DEGREE + r, (tile.westDeg + 180) * PER_DEGREE + c), side, heights })
    }
  }
  return blocks
}

/** @returns every block crossed by straight steps between the positions, in order of first touch */
export function keysAlong(latDeg: ArrayLike<number>, lonDeg: ArrayLike<number>): string[] {
  const keys = new Set<string>()
  for (let i = 0; i < latDeg.length; i++) keys.add(keyAt(latDeg[i]!, wrap(lonDeg[i]!)))
  return [...keys]
}

const wrap = (lonDeg: number): number => ((((lonDeg + 180) % 360) + 360) % 360) - 180

/** Bilinear height in a block at a column and row that need not be whole; NaN where all corners are void. */
function sampleBlock(block: HeightBlock, x: number, y: number): number {
  const { side, heights: h } = block
  const x0 = Math.min(x | 0, side - 2)
  const y0 = Math.min(y | 0, side - 2)
  const fx = x - x0
  const fy = y - y0
  const i = y0 * side + x0
  const a = h[i]!
  const b = h[i + 1]!
  const c = h[i + side]!
  const d = h[i + side + 1]!
  if (a !== VOID && b !== VOID && c !== VOID && d !== VOID) {
    const top = a + (b - a) * fx
    return top + (c + (d - c) * fx - top) * fy
  }
  const wa = a === VOID ? 0 : (1 - fx) * (1 - fy)
  const wb = b === VOID ? 0 : fx * (1 - fy)
  const wc = c === VOID ? 0 : (1 - fx) * fy
  const wd = d === VOID ? 0 : fx * fy
  const weight = wa + wb + wc + wd
  return weight > 1e-9 ? (a * wa + b * wb + c * wc + d * wd) / weight : NaN
}

/** Heights by position over whatever blocks are held, and what grows or stands on the ground where that is known. */
export class Terrain {
  private readonly blocks = new Map<number, HeightBlock>()
  private readonly cover = new Map<number, HeightBlock>()
  /** the block at hand, and where it lies in tenths of a degree */
  private last: HeightBlock | undefined
  private heights: Int16Array | null = null
  private inner = 1
  private top = NaN
  private column = NaN

  constructor(blocks: Iterable<HeightBlock> = [], cover: Iterable<HeightBlock> = []) {
    for (const b of blocks) this.add(b)
    for (const b of cover) this.addCover(b)
  }

  add(block: HeightBlock): void {
    this.blocks.set(idOf(block.key), block)
    this.top = NaN
  }

  /** Heights of land cover above the ground, metres; 0 in the open, `VOID` where no class is known. */
  addCover(block: HeightBlock): void {
    this.cover.set(idOf(block.key), block)
  }

  has(key: string): boolean {
    return this.blocks.has(idOf(key))
  }

  get(key: string): HeightBlock | undefined {
    return this.blocks.get(idOf(key))
  }

  remove(key: string): void {
    this.blocks.delete(idOf(key))
    this.cover.delete(idOf(key))
    this.top = NaN
  }

  clear(): void {
    this.blocks.clear()
    this.cover.clear()
    this.top = NaN
  }

  get size(): number {
    return this.blocks.size
  }

  get hasCover(): boolean {
    return this.cover.size > 0
  }

  /**
   * Bilinear height, metres; a void corner gives its weight to the others.
   * @returns NaN where no block is held or all four corners are void
   */
  heightAt(latDeg: number, lonDeg: number): number {
    this.turnTo(latDeg, lonDeg)
    if (!this.last) return NaN
    const x = ((wrap(lonDeg) + 180) * PER_DEGREE - this.column) * this.inner
    const y = (this.top - (latDeg + 90) * PER_DEGREE) * this.inner
    return sampleBlock(this.last, Math.min(Math.max(x, 0), this.inner), Math.min(Math.max(y, 0), this.inner))
  }

  /**
   * Heights of a line of positions, as `heightAt` gives them one by one; longitudes may run past ±180°.
   * The block last asked is kept at hand: along a line nearly every sample lies in it.
   *
   * @param out  as long as `latDeg`; NaN where nothing is known
   */
  heightsAlong(latDeg: Float64Array, lonDeg: Float64Array, out: Float64Array): void {
    let heights: Int16Array | null = null
    let inner = 1
    let top = NaN
    let column = NaN
    for (let i = 0; i < out.length; i++) {
      let x = (lonDeg[i]! + 180) * PER_DEGREE - column
      let y = top - (latDeg[i]! + 90) * PER_DEGREE
      if (!(x >= 0 && x < 1 && y > 0 && y <= 1)) {
        out[i] = this.heightAt(latDeg[i]!, lonDeg[i]!)
        ;({ heights, inner, top, column } = this)
        continue
      }
      if (heights === null) {
        out[i] = NaN
        continue
      }
      x *= inner
      y *= inner
      let x0 = x | 0
      let y0 = y | 0
      if (x0 >= inner) x0 = inner - 1
      if (y0 >= inner) y0 = inner - 1
      const k = y0 * (inner + 1) + x0
      const a = heights[k]!
      const b = heights[k + 1]!
      const c = heights[k + inner + 1]!
      const d = heights[k + inner + 2]!
      // Ground lies within −430…8849 m: only with a void among them do four sum to less than −2000.
      if (a + b + c + d < -2000 && (a === VOID || b === VOID || c === VOID || d === VOID)) {
        out[i] = sampleBlock(this.last!, x, y)
        continue
      }
      const fx = x - x0
      const upper = a + (b - a) * fx
      out[i] = upper + (c + (d - c) * fx - upper) * (y - y0)
    }
  }

  /** Makes the block of a position the one at hand. */
  private turnTo(latDeg: number, lonDeg: number): void {
    const south = (latDeg + 90) * PER_DEGREE
    const row = Math.min(Math.floor(south + 1e-9), 180 * PER_DEGREE - 1)
    const column = Math.floor((wrap(lonDeg) + 180) * PER_DEGREE + 1e-9) % COLUMNS
    this.last = this.blocks.get(row * COLUMNS + column)
    this.top = row + 1
    this.column = column
    this.heights = this.last?.heights ?? null
    this.inner = (this.last?.side ?? 2) - 1
  }

  /** @returns height of what stands on the ground, m; 0 where no class is known. The nearest cell's own: classes are not blended. */
  coverAt(latDeg: number, lonDeg: number): number {
    const lon = wrap(lonDeg)
    const key = keyAt(latDeg, lon)
    const block = this.cover.get(idOf(key))
    if (!block) return 0
    const { row, column } = parseKey(key)
    const inner = block.side - 1
    const x = Math.min(inner, Math.max(0, Math.round(((lon + 180) * PER_DEGREE - column) * inner)))
    const y = Math.min(inner, Math.max(0, Math.round((row + 1 - (latDeg + 90) * PER_DEGREE) * inner)))
    const v = block.heights[y * block.side + x]!
    return v === VOID ? 0 : v
  }
}

const idOf = (key: string): number => {
  const { row, column } = parseKey(key)
  return row * COLUMNS + column
}
