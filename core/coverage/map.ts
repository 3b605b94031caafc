/**
 * What a phone shows all over a floor: from each inside antenna free space and every surface that the straight line
 * crosses, joined as powers with a scattered way; the strongest antenna counts.
 *
 * Losses of walls are summed by their shadows: seen from above, a wall hides a four-sided patch from an antenna, and
 * along each row of cells that patch is one interval. So a wall costs a row two additions, not a test for every cell.
 *
 * @source free space ITU-R P.525; surfaces ITU-R P.2040, straight through; scattered way as in `separation/isolation.ts`
 *   (25 dB more, half of what the straight line crosses, assumed). Left out: angle of incidence, edges, furniture.
 */
import { inRange, positive } from '../check'

/** A wall seen from above, in the building's own directions, m. */
export interface PlanWall {
  x1: number
  y1: number
  x2: number
  y2: number
  lossDb: number
  /** heights it stands between, m */
  fromM: number
  toM: number
}

/** An inside antenna as it sends. */
export interface Sender {
  x: number
  y: number
  upM: number
  /** RSRP that goes into it, dBm */
  fedRsrpDbm: number
  /** slabs between it and the floor looked at, dB */
  slabsDb: number
  /** gain toward a direction: along, across and up from the antenna, of length 1; linear */
  gainToward: (dx: number, dy: number, dz: number) => number
  /** the most that it gives, linear: where even that is not the strongest, nothing more is worked out */
  peak: number
}

export interface Grid {
  /** of the first cell's middle */
  x0: number
  y0: number
  stepM: number
  columns: number
  rows: number
  /** height of a phone, m */
  upM: number
}

export interface CoverageMap extends Grid {
  /** RSRP at a phone, dBm, row by row */
  rsrpDbm: Float32Array
  /** which sender is the strongest there */
  best: Uint8Array
}

export interface CoverageInput {
  grid: Grid
  walls: readonly PlanWall[]
  senders: readonly Sender[]
  frequencyMHz: number
  /** of the phone's own antenna, dBi */
  phoneDbi: number
  /** distance power coefficient with ordinary walls in it, 20 and more: what it has over 20 stands where drawn walls take less */
  coefficient: number
}

const SCATTERED = 10 ** -2.5
/** Amplitude that comes through a loss, 10^(−dB/20), in steps so fine that a level is out by 0.01 dB at most. */
const PER_DB = 64
const MOST_DB = 250
const THROUGH = Float64Array.from({ length: MOST_DB * PER_DB + 1 }, (_, i) => 10 ** (-i / PER_DB / 20))
const throughOf = (lossDb: number): number => (lossDb < MOST_DB ? THROUGH[(lossDb * PER_DB + 0.5) | 0]! : 0)
/** Nearer than this the far field does not hold, m². */
const LEAST_M2 = 0.25
/** So far is as good as without end, in lengths of the way to the wall. */
const FAR = 1e4

/** @throws RangeError where the grid has no cells, or more than four million */
export function coverageMap(o: CoverageInput): CoverageMap {
  const { grid, walls, senders } = o
  const { columns, rows, stepM } = grid
  const n = inRange('cells', columns * rows, 1, 4_000_000)
  positive('stepM', stepM)
  positive('frequencyMHz', o.frequencyMHz)
  const power = new Float64Array(n)
  const best = new Uint8Array(n)
  const crossed = new Float64Array(n + rows)
  // Free space over 1 m, dB. @source ITU-R P.525, 20·log10(4π/λ)
  const atOneM = 20 * Math.log10(o.frequencyMHz) - 27.55
  for (const [s, sender] of senders.entries()) {
    crossed.fill(0)
    for (const wall of walls) shade(crossed, grid, sender, wall)
    const base = 10 ** ((sender.fedRsrpDbm + o.phoneDbi - atOneM) / 10)
    cast({ power, best, crossed, grid }, sender, { s, base, coefficient: o.coefficient })
  }
  const rsrpDbm = new Float32Array(n)
  for (let i = 0; i < n; i++) rsrpDbm[i] = 10 * Math.log10(power[i]!)
  return { ...grid, rsrpDbm, best }
}

interface Field {
  power: Float64Array
  best: Uint8Array
  crossed: Float64Array
  grid: Grid
}

/** One antenna over all cells: where it is the strongest so far, it is put down. */
function cast(
  { power, best, crossed, grid }: Field,
  sender: Sender,
  { s, base, coefficient }: { s: number; base: number; coefficient: number },
): void {
  const { x0, y0, stepM, columns, rows } = grid
  const { peak, slabsDb, gainToward } = sender
  const dz = grid.upM - sender.upM
  const dz2 = dz * dz
  // Of ordinary walls, dB a decade of the distance squared.
  const ordinary = (coefficient - 20) / 2
  for (let r = 0; r < rows; r++) {
    const dy = y0 + r * stepM - sender.y
    const flat2 = dy * dy + dz2
    let i = r * columns
    let shadow = r * (columns + 1)
    let walls = 0
    // The root of what comes through: amplitude, so that the scattered way's half of the dB is the same figure.
    let through = throughOf(slabsDb)
    let arriving = base * through
    let most = arriving * (through * peak + SCATTERED)
    for (let c = 0; c < columns; c++, i++, shadow++) {
      const change = crossed[shadow]!
      if (change !== 0) {
        walls += change
        through = throughOf(slabsDb + walls)
        arriving = base * through
        most = arriving * (through * peak + SCATTERED)
      }
      const dx = x0 + c * stepM - sender.x
      const d2 = dx * dx + flat2
      const spread = d2 > LEAST_M2 ? d2 : LEAST_M2
      const held = power[i]!
      if (most <= held * spread) continue
      const d = Math.sqrt(d2)
      const allowed = ordinary > 0 ? ordinary * Math.log10(d2) : 0
      const t = allowed > walls ? throughOf(slabsDb + allowed) : through
      const p = ((base * t) / spread) * (t * gainToward(dx / d, dy / d, dz / d) + SCATTERED)
      if (p > held) {
        power[i] = p
        best[i] = s
      }
    }
  }
}

/**
 * Adds a wall's loss to every cell behind it, as differences along each row.
 *
 * The line to a cell climbs evenly: it is between the wall's foot and head for a part of its length that is the same for
 * all cells. So the patch lies between two copies of the wall, drawn out from the antenna.
 */
function shade(crossed: Float64Array, grid: Grid, from: Sender, wall: PlanWall): void {
  const rise = grid.upM - from.upM
  let t1 = 0
  let t2 = 1
  if (Math.abs(rise) < 1e-9) {
    if (from.upM < wall.fromM || from.upM > wall.toM) return
  } else {
    const a = (wall.fromM - from.upM) / rise
    const b = (wall.toM - from.upM) / rise
    t1 = Math.max(t1, Math.min(a, b))
    t2 = Math.min(t2, Math.max(a, b))
    if (t1 >= t2) return
  }
  const near = 1 / t2
  const far = t1 > 1 / FAR ? 1 / t1 : FAR
  const ax = wall.x1 - from.x
  const ay = wall.y1 - from.y
  const bx = wall.x2 - from.x
  const by = wall.y2 - from.y
  const px = [from.x + ax * near, from.x + bx * near, from.x + bx * far, from.x + ax * far]
  const py = [from.y + ay * near, from.y + by * near, from.y + by * far, from.y + ay * far]
  fill(crossed, grid, { px, py, value: wall.lossDb })
}

/** Adds a value to the cells whose middles lie in a four-sided patch, as a difference at both ends of each row's interval. */
function fill(
  crossed: Float64Array,
  grid: Grid,
  { px, py, value }: { px: readonly number[]; py: readonly number[]; value: number },
): void {
  const { x0, y0, stepM, columns, rows } = grid
  const low = Math.min(py[0]!, py[1]!, py[2]!, py[3]!)
  const high = Math.max(py[0]!, py[1]!, py[2]!, py[3]!)
  const first = Math.max(0, Math.ceil((low - y0) / stepM))
  const last = Math.min(rows - 1, Math.floor((high - y0) / stepM))
  for (let r = first; r <= last; r++) {
    const y = y0 + r * stepM
    let left = Infinity
    let right = -Infinity
    for (let i = 0; i < 4; i++) {
      const j = (i + 1) & 3
      const ya = py[i]!
      const yb = py[j]!
      if (ya <= y === yb <= y) continue
      const x = px[i]! + ((y - ya) / (yb - ya)) * (px[j]! - px[i]!)
      if (x < left) left = x
      if (x > right) right = x
    }
    if (left > right) continue
    const from = Math.max(0, Math.ceil((left - x0) / stepM))
    const to = Math.min(columns, Math.floor((right - x0) / stepM) + 1)
    if (from >= to) continue
    const at = r * (columns + 1)
    crossed[at + from]! += value
    crossed[at + to]! -= value
  }
}

/** @returns the map's level at a place, dBm; null outside it */
export function levelAt(map: CoverageMap, x: number, y: number): number | null {
  const i = cellAt(map, x, y)
  return i === null ? null : map.rsrpDbm[i]!
}

/** @returns which cell a place lies in; null beside the grid */
export function cellAt(grid: Grid, x: number, y: number): number | null {
  const c = Math.round((x - grid.x0) / grid.stepM)
  const r = Math.round((y - grid.y0) / grid.stepM)
  return c < 0 || r < 0 || c >= grid.columns || r >= grid.rows ? null : r * grid.columns + c
}
