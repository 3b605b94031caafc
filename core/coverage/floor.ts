/** The coverage of one floor of a job: its map, the share of each room above its need, and what stands beside it as a check. */
import { nth } from '../sure'
import { jobOf } from '../job/schema'
import type { Levels } from '../chain/levels'
import { facingOf, turned } from '../chain/tree'
import type { Tree, Turned } from '../chain/tree'
import { toDeg } from '../geo/angles'
import type { Job, JobDocument, Spot } from '../job/schema'
import { toLinear } from '../radio/levels'
import { gainToward, aboutAxisDb } from '../radio/pattern'
import { floorAt, surfacesBetween, toLocal, wallsDrawnAt } from '../site/building'
import type { Building } from '../site/building'
import { throughDb } from '../site/materials'
import { exponentOf, needAtDbm, needOfUseDbm } from '../site/use'
import { DEVICE_GAIN_DBI } from '../survey/devices'
import type { LogIndex } from '../survey/spots'
import { median } from '../survey/stats'
import { cellAt, coverageMap, levelAt } from './map'
import { readWithBooster } from './rooms'
import type { CoverageMap, Grid, PlanWall, Sender } from './map'

/** A phone is held this high over the floor, m. */
export const HELD_M = 1.2
/** @returns distance power coefficient of a map at a height, ordinary walls of its use in it */
export const coefficientAt = (b: Building, upM: number, frequencyMHz: number): number =>
  exponentOf(floorAt(b.floors, upM).use, frequencyMHz)
/** Readings further off than this say that something else is wrong, dB. Assumed. */
const MOST_CORRECTION_DB = 20

export interface RoomShare {
  spot: Spot
  needDbm: number
  /** of its floor above the need, 0…1 */
  share: number
  /** usual level in it, and the weakest tenth, dBm */
  medianDbm: number
  tenthDbm: number
  /** at its spot: by the map, by P.1238, and as measured with the booster on; null where not known */
  mapDbm: number | null
  checkDbm: number | null
  measuredDbm: number | null
}

export interface FloorCoverage {
  level: number
  map: CoverageMap
  /** what most of the floor needs, and what each cell does by its room, dBm */
  needDbm: number
  needsDbm: Float32Array
  rooms: RoomShare[]
  /** of all rooms together, weighed by the people in them */
  share: number
  /** added to the map, by what was measured in its rooms, dB; null where nothing was */
  correctionDb: number | null
  /** whether inside walls are drawn: without them their loss is within the coefficient, as in P.1238 */
  drawn: boolean
}

export interface FloorInput {
  doc: JobDocument
  building: Building
  tree: Tree
  levels: Levels
  log: LogIndex
  rooms: readonly { spot: Spot; rsrpDbm: number }[]
  level: number
  stepM: number
}

/** Walls of the building from above: those drawn, on every floor. */
export const planWalls = (b: Building, frequencyMHz: number): PlanWall[] =>
  b.walls.map(w => ({
    x1: w.from[0],
    y1: w.from[1],
    x2: w.to[0],
    y2: w.to[1],
    lossDb: w.lossDb ?? throughDb(w.material, frequencyMHz),
    fromM: w.fromM,
    toM: w.toM,
  }))

/** Cells over a floor, their middles half a step in from the walls. */
export function gridOf(b: Building, upM: number, stepM: number): Grid {
  const columns = Math.max(1, Math.round((2 * b.halfLengthM) / stepM))
  const rows = Math.max(1, Math.round((2 * b.halfDepthM) / stepM))
  return { x0: -b.halfLengthM + stepM / 2, y0: -b.halfDepthM + stepM / 2, stepM, columns, rows, upM }
}

/** An antenna as it sends onto a floor. */
export function senderOf(
  b: Building,
  at: Turned,
  { fedRsrpDbm, upM, frequencyMHz }: { fedRsrpDbm: number; upM: number; frequencyMHz: number },
): Sender {
  const { node } = at.at
  const [x, y] = toLocal(b, node)
  const down = { eastM: node.eastM, northM: node.northM, upM }
  const slabs = surfacesBetween(b, node, down, frequencyMHz).filter(s => s.kind === 'floor')
  return {
    x,
    y,
    upM: node.upM,
    fedRsrpDbm,
    slabsDb: slabs.reduce((sum, s) => sum + s.lossDb, 0),
    gainToward: linearGain(at, b.axisDeg),
    peak: toLinear(at.pattern.gainDbi),
  }
}

/** What is alike about its axis is looked up by the cosine of its angle: so many steps leave 0.02 dB. */
const CONE_STEPS = 1024

/** A pattern as a function of direction. A dome that looks straight down is the common case: its angle is the height alone. */
export function linearGain(at: Turned, axisDeg: number): Sender['gainToward'] {
  const { pattern } = at
  const about = pattern.aboutAxisDb
  if (about && at.tiltDeg === -90) {
    const table = Float64Array.from({ length: CONE_STEPS + 1 }, (_, i) => {
      const offDeg = toDeg(Math.acos(1 - (2 * i) / CONE_STEPS))
      return toLinear(pattern.gainDbi - aboutAxisDb(about, offDeg))
    })
    // Straight down is 0, level with the antenna half way.
    return (_dx, _dy, dz) => {
      const at = (dz + 1) * (CONE_STEPS / 2)
      const i = Math.min(CONE_STEPS - 1, Math.max(0, at | 0))
      return table[i]! + (at - i) * (table[i + 1]! - table[i]!)
    }
  }
  return (dx, dy, dz) =>
    toLinear(gainToward(pattern, at, axisDeg + toDeg(Math.atan2(dy, dx)), toDeg(Math.asin(Math.min(1, Math.max(-1, dz))))))
}

/** @returns null where the floor is not there, or nothing is sent */
export function coverageOf(o: FloorInput): FloorCoverage | null {
  const { doc, building: b, tree, levels, level } = o
  const floor = b.floors[level]
  if (!floor) return null
  const { frequencyMHz } = levels.carrier
  const upM = floor.fromM + HELD_M
  const alive = levels.servers.filter(s => s.amplifier && s.amplifier.limitedBy !== 'shut down' && s.amplifier.gainDb > 0)
  if (!alive.length) return null
  const senders = alive.map(s =>
    senderOf(b, turned(s.at, frequencyMHz, facingOf(tree, s.at)), { fedRsrpDbm: s.fedRsrpDbm, upM, frequencyMHz }),
  )
  const map = coverageMap({
    grid: gridOf(b, upM, o.stepM),
    walls: planWalls(b, frequencyMHz),
    senders,
    frequencyMHz,
    phoneDbi: DEVICE_GAIN_DBI.phone,
    coefficient: coefficientAt(b, upM, frequencyMHz),
  })
  const here = doc.spots.filter(s => s.indoors && floorAt(b.floors, s.upM).level === level)
  const correctionDb = corrected(o, map, here)
  if (correctionDb !== null) for (let i = 0; i < map.rsrpDbm.length; i++) map.rsrpDbm[i]! += correctionDb
  const owner = roomOfCell(b, map, here)
  const needDbm = needOfUseDbm(jobOf(doc), floor.use)
  const needsDbm = needsOfCells(jobOf(doc), owner, here, needDbm)
  const rooms = roomShares(o, map, here, owner)
  const weight = (r: RoomShare) => r.spot.people ?? 1
  const total = rooms.reduce((sum, r) => sum + weight(r), 0)
  return {
    level,
    map,
    needDbm,
    needsDbm,
    rooms,
    share: total > 0 ? rooms.reduce((sum, r) => sum + r.share * weight(r), 0) / total : shareAbove(map.rsrpDbm, needsDbm),
    correctionDb,
    drawn: wallsDrawnAt(b, upM),
  }
}

/** What the rooms of a floor read with the booster on, against the map at their spots. */
function corrected(o: FloorInput, map: CoverageMap, here: readonly Spot[]): number | null {
  const off = here.flatMap(spot => {
    const read = measuredAt(o, spot)
    const [x, y] = toLocal(o.building, spot)
    const at = levelAt(map, x, y)
    return read === null || at === null ? [] : [read - at]
  })
  if (!off.length) return null
  return Math.min(MOST_CORRECTION_DB, Math.max(-MOST_CORRECTION_DB, median(off)))
}

const measuredAt = ({ log, levels }: FloorInput, spot: Spot): number | null =>
  readWithBooster(log, spot, levels.carrier.band.name)

const shareAbove = (levels: Float32Array, needsDbm: Float32Array): number =>
  levels.reduce((n, v, i) => n + Number(v >= needsDbm[i]!), 0) / levels.length

/** @returns what each cell needs by its room, dBm; `elseDbm` where it has none */
export function needsOfCells(job: Job, owner: Int16Array, here: readonly Spot[], elseDbm: number): Float32Array {
  const needs = here.map(s => needAtDbm(job, s))
  return Float32Array.from(owner, o => (o < 0 ? elseDbm : nth(needs, o)))
}

/** Each cell belongs to the room whose spot is nearest. @returns the index of its room by cell; −1 where there is none */
export function roomOfCell(b: Building, grid: Grid, here: readonly Spot[]): Int16Array {
  const out = new Int16Array(grid.columns * grid.rows).fill(-1)
  const at = here.map(s => toLocal(b, s))
  for (let r = 0; r < grid.rows; r++)
    for (let c = 0; c < grid.columns; c++) {
      const x = grid.x0 + c * grid.stepM
      const y = grid.y0 + r * grid.stepM
      let nearest = Infinity
      for (let i = 0; i < at.length; i++) {
        const d = (at[i]![0] - x) ** 2 + (at[i]![1] - y) ** 2
        if (d < nearest) {
          nearest = d
          out[r * grid.columns + c] = i
        }
      }
    }
  return out
}

/** @returns what the room at a place of a map needs, dBm */
export const needAt = (c: FloorCoverage, x: number, y: number): number => c.needsDbm[cellAt(c.map, x, y) ?? -1] ?? c.needDbm

function roomShares(o: FloorInput, map: CoverageMap, here: readonly Spot[], owner: Int16Array): RoomShare[] {
  const cells: number[][] = here.map(() => [])
  map.rsrpDbm.forEach((v, i) => nth(owner, i) >= 0 && nth(cells, nth(owner, i)).push(v))
  return here.flatMap((spot, i): RoomShare[] => {
    const own = nth(cells, i).sort((a, b) => a - b)
    if (!own.length) return []
    const [x, y] = toLocal(o.building, spot)
    const needDbm = needAtDbm(jobOf(o.doc), spot)
    return [
      {
        spot,
        needDbm,
        share: own.filter(v => v >= needDbm).length / own.length,
        medianDbm: nth(own, Math.floor(own.length / 2)),
        tenthDbm: nth(own, Math.floor(own.length / 10)),
        mapDbm: levelAt(map, x, y),
        checkDbm: o.rooms.find(r => r.spot.id === spot.id)?.rsrpDbm ?? null,
        measuredDbm: measuredAt(o, spot),
      },
    ]
  })
}
