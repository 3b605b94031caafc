/**
 * The site's solid: floors, walls, roof and sheets of a house or building, the shell of a vehicle or boat.
 * One question serves isolation, rooms, an indoor donor and the entry loss: what does a straight line cross?
 */
import { nth } from '../sure'
import { jobOf, movesAbout, siteOf } from '../job/schema'
import { toRad } from '../geo/angles'
import type { MaterialId } from '../job/materials'
import type { Job, JobDocument, Site, Use } from '../job/schema'
import { toLinear } from '../radio/levels'
import { knifeEdgeLossDb } from '../terrain/diffraction'
import { wavelengthM } from '../radio/freespace'
import { along, eavesM, moveAlong, round2 } from './frame'
import type { Point } from './frame'
import { mixedDb, throughDb } from './materials'
import { usualUse } from './use'

export type SurfaceKind = 'outer wall' | 'wall' | 'floor' | 'roof' | 'skin' | 'sheet'

export interface Crossing {
  kind: SurfaceKind
  /** row that the surface is; null for what the site itself says */
  subjectId: string | null
  material: MaterialId
  lossDb: number
  /** where the line meets it, 0…1 of its way */
  at: number
}

export interface Floor {
  level: number
  name: string | null
  /** its floor and its ceiling over the ground, m */
  fromM: number
  toM: number
  /** of the slab above it */
  material: MaterialId
  /** what most of its rooms are used as */
  use: Use
}

interface Wall {
  id: string
  from: Local
  to: Local
  fromM: number
  toM: number
  material: MaterialId
  lossDb: number | null
}

interface Sheet {
  id: string
  centre: Local
  /** unit vectors: out of it, along its width, along its height */
  out: Local
  across: Local
  up: Local
  halfWidthM: number
  halfHeightM: number
  material: MaterialId
  lossDb: number | null
}

/** Along the site's axis, across it, up. */
export type Local = readonly [x: number, y: number, z: number]

export interface Building {
  kind: Job['kind']
  axisDeg: number
  halfLengthM: number
  halfDepthM: number
  floors: Floor[]
  eavesM: number
  /** of a pitched roof above the eaves; 0 for a flat one */
  riseM: number
  wall: MaterialId
  pane: MaterialId
  paneShare: number
  roof: MaterialId
  walls: Wall[]
  sheets: Sheet[]
  /** what both sides of the outside wall read, dB; null until both were */
  measuredEntryDb: number | null
}

/** @returns the site's solid; rows that make no sense are left out rather than refused */
export function buildingOf(doc: JobDocument, measuredEntryDb: number | null = null): Building {
  const site = siteOf(doc)
  const kind = jobOf(doc).kind
  const floors = floorsOf(doc)
  const local = (p: Point): Local => toLocal(site, p)
  return {
    kind,
    axisDeg: site.axisDeg,
    halfLengthM: site.lengthM / 2,
    halfDepthM: site.depthM / 2,
    floors,
    eavesM: floors.at(-1)?.toM ?? eavesM(site),
    riseM: movesAbout(kind) ? 0 : site.roofRiseM,
    wall: site.wallMaterial,
    pane: site.paneMaterial,
    paneShare: site.panePercent / 100,
    roof: site.roofMaterial,
    walls: doc.walls.flatMap(w => {
      const floor = floors[w.level]
      if (!floor) return []
      return [
        {
          id: w.id,
          from: local({ eastM: w.fromEastM, northM: w.fromNorthM, upM: 0 }),
          to: local({ eastM: w.toEastM, northM: w.toNorthM, upM: 0 }),
          fromM: floor.fromM,
          toM: floor.toM,
          material: w.material,
          lossDb: w.lossDb,
        },
      ]
    }),
    sheets: doc.sheets.map(s => {
      const azimuth = toRad(s.azimuthDeg)
      const tilt = toRad(s.tiltDeg)
      const flat = { eastM: Math.sin(azimuth), northM: Math.cos(azimuth) }
      return {
        id: s.id,
        centre: local(s),
        out: local({ eastM: flat.eastM * Math.cos(tilt), northM: flat.northM * Math.cos(tilt), upM: Math.sin(tilt) }),
        across: local({ eastM: flat.northM, northM: -flat.eastM, upM: 0 }),
        up: local({ eastM: -flat.eastM * Math.sin(tilt), northM: -flat.northM * Math.sin(tilt), upM: Math.cos(tilt) }),
        halfWidthM: s.widthM / 2,
        halfHeightM: s.heightM / 2,
        material: s.material,
        lossDb: s.lossDb,
      }
    }),
    measuredEntryDb,
  }
}

/** @returns the floors from the ground up: as the site says, unless a floor has a row of its own */
export function floorsOf(doc: Pick<JobDocument, 'sites' | 'floors' | 'spots' | 'jobs'>): Floor[] {
  const site = siteOf(doc)
  const usual = usualUse(doc.jobs[0]?.kind ?? 'home')
  const rooms = doc.spots.filter(s => s.indoors)
  const own = new Map(doc.floors.map(f => [f.level, f]))
  const out: Floor[] = []
  let at = 0
  for (let level = 0; level < site.storeys; level++) {
    const row = own.get(level)
    const heightM = row?.heightM ?? site.storeyHeightM
    out.push({
      level,
      name: row?.name ?? null,
      fromM: round2(at),
      toM: round2(at + heightM),
      material: row?.material ?? site.floorMaterial,
      use:
        row?.use ??
        commonest(
          rooms.filter(s => s.upM >= at && s.upM < at + heightM).map(s => s.use ?? usual),
          usual,
        ),
    })
    at += heightM
  }
  return out
}

/** @returns what occurs most often, the first of equals; `else_` where there is nothing */
function commonest(uses: readonly Use[], else_: Use): Use {
  const count = new Map<Use, number>()
  for (const u of uses) count.set(u, (count.get(u) ?? 0) + 1)
  return [...count].reduce<readonly [Use, number]>((a, b) => (b[1] > a[1] ? b : a), [else_, 0])[0]
}

export const floorWords = (f: Pick<Floor, 'name' | 'level'>): string =>
  f.name ?? (f.level === 0 ? 'the ground floor' : `floor ${f.level}`)

/** @returns the floor that a height lies in; the nearest one below ground or over the eaves */
export const floorAt = (floors: readonly Floor[], upM: number): Floor =>
  floors.find(f => upM < f.toM) ?? floors.at(-1) ?? { level: 0, name: null, fromM: 0, toM: 3, material: 'open', use: 'home' }

/** A phone or a router is held this high over the floor, and outside over the ground, m. */
const HELD_M = 1
const HELD_OUTSIDE_M = 1.5

/**
 * Where a new spot stands until it is moved: a room in the widest gap of its floor, one outside beyond an end of the
 * site where none stands yet.
 *
 * @param upM  a height on the floor wanted
 */
export function placeForSpot(
  floors: readonly Floor[],
  site: Pick<Site, 'axisDeg' | 'lengthM'>,
  { spots, indoors, upM }: { spots: readonly (Point & { indoors: boolean })[]; indoors: boolean; upM: number },
): Point {
  const half = site.lengthM / 2
  const at = (x: number, up: number): Point => ({
    ...moveAlong(site, { eastM: 0, northM: 0, upM: up }, x, 1),
    upM: round2(up),
  })
  if (!indoors) {
    const taken = spots.filter(s => !s.indoors && s.upM < 3).map(s => along(site, s, 1))
    for (let beyondM = 2.5; ; beyondM += 3)
      for (const x of [-(half + beyondM), half + beyondM]) if (taken.every(t => Math.abs(t - x) > 1)) return at(x, HELD_OUTSIDE_M)
  }
  const floor = floorAt(floors, upM)
  const here = spots.filter(s => s.indoors && s.upM >= floor.fromM && s.upM < floor.toM).map(s => along(site, s, 1))
  const edges = [-half, ...here.filter(x => Math.abs(x) < half).sort((a, b) => a - b), half]
  let widest = 0
  for (let i = 1; i < edges.length - 1; i++)
    if (nth(edges, i + 1) - nth(edges, i) > nth(edges, widest + 1) - nth(edges, widest)) widest = i
  return at((nth(edges, widest) + nth(edges, widest + 1)) / 2, floor.fromM + HELD_M)
}

/** A point in the building's own directions: along its axis, across it (clockwise of the axis), up. */
export function toLocal(site: Pick<Site, 'axisDeg'>, p: Point): Local {
  const a = toRad(site.axisDeg)
  return [p.eastM * Math.sin(a) + p.northM * Math.cos(a), p.eastM * Math.cos(a) - p.northM * Math.sin(a), p.upM]
}

/** A place in the building's own directions, in the site frame: `toLocal` turned back. */
export function fromLocal(axisDeg: number, x: number, y: number): Pick<Point, 'eastM' | 'northM'> {
  const a = toRad(axisDeg)
  return { eastM: x * Math.sin(a) + y * Math.cos(a), northM: x * Math.cos(a) - y * Math.sin(a) }
}

/** @returns whether inside walls are drawn at a height: where none are, a formula's coefficient holds them */
export const wallsDrawnAt = (b: Building, upM: number): boolean => b.walls.some(w => w.fromM < upM && upM < w.toM)

const roofAt = (b: Building, x: number): number => b.eavesM + Math.max(0, 1 - Math.abs(x) / b.halfLengthM) * b.riseM

/** @returns height of the roof over a place, m; null beside the building */
export function roofOver(b: Building, p: Pick<Point, 'eastM' | 'northM'>): number | null {
  const [x, y] = toLocal(b, { ...p, upM: 0 })
  return Math.abs(x) <= b.halfLengthM && Math.abs(y) <= b.halfDepthM ? roofAt(b, x) : null
}

/** @returns whether a point lies under the roof and within the walls */
export function inside(b: Building, p: Point): boolean {
  const [x, y, z] = toLocal(b, p)
  return Math.abs(x) <= b.halfLengthM && Math.abs(y) <= b.halfDepthM && z >= -3 && z < roofAt(b, x)
}

const EDGE = 1e-6

/**
 * What a straight line from one point to another goes through, in the order it is met.
 *
 * @param frequencyMHz  at which the losses hold
 * @returns crossings; none where nothing stands between
 */
export function surfacesBetween(b: Building, p: Point, q: Point, frequencyMHz: number): Crossing[] {
  const from = toLocal(b, p)
  const to = toLocal(b, q)
  const out: Crossing[] = []
  const way: Local = [to[0] - from[0], to[1] - from[1], to[2] - from[2]]
  const meet = (t: number): Local => [from[0] + t * way[0], from[1] + t * way[1], from[2] + t * way[2]]
  /** Where the line meets a plane of one coordinate, if it does between its ends. */
  const atPlane = (axis: 0 | 1 | 2, value: number): number | null => {
    if (Math.abs(way[axis]) < EDGE) return null
    const t = (value - from[axis]) / way[axis]
    return t > EDGE && t < 1 - EDGE ? t : null
  }
  const shell = movesAbout(b.kind)
  const outer = (t: number) =>
    out.push({
      kind: shell ? 'skin' : 'outer wall',
      subjectId: null,
      material: b.wall,
      lossDb: b.measuredEntryDb ?? mixedDb(b.wall, b.pane, b.paneShare, frequencyMHz),
      at: t,
    })
  for (const side of [-1, 1]) {
    const end = atPlane(0, side * b.halfLengthM)
    if (end !== null) {
      const [, y, z] = meet(end)
      if (Math.abs(y) <= b.halfDepthM && z >= 0 && z <= b.eavesM) outer(end)
    }
    const long = atPlane(1, side * b.halfDepthM)
    if (long !== null) {
      const [x, , z] = meet(long)
      if (Math.abs(x) <= b.halfLengthM && z >= 0 && z <= roofAt(b, x)) outer(long)
    }
  }
  const within = ([x, y]: Local) => Math.abs(x) <= b.halfLengthM && Math.abs(y) <= b.halfDepthM
  const pitched = b.riseM > 0
  for (const floor of b.floors) {
    // Under a pitched roof the last ceiling is a floor like the others; a flat roof is the slab itself.
    if (!pitched && floor === b.floors.at(-1)) continue
    const t = atPlane(2, floor.toM)
    if (t !== null && within(meet(t)))
      out.push({
        kind: 'floor',
        subjectId: null,
        material: floor.material,
        lossDb: throughDb(floor.material, frequencyMHz),
        at: t,
      })
  }
  for (const t of roofCrossings(b, from, way))
    out.push({
      kind: shell ? 'skin' : 'roof',
      subjectId: null,
      material: b.roof,
      lossDb: throughDb(b.roof, frequencyMHz),
      at: t,
    })
  for (const w of b.walls) {
    const t = crossesWall(w, from, to)
    if (t === null) continue
    const z = from[2] + t * way[2]
    if (z >= w.fromM && z <= w.toM)
      out.push({
        kind: 'wall',
        subjectId: w.id,
        material: w.material,
        lossDb: w.lossDb ?? throughDb(w.material, frequencyMHz),
        at: t,
      })
  }
  const distanceM = Math.hypot(...way)
  for (const s of b.sheets) {
    const hit = crossesSheet(s, { from, way, distanceM, frequencyMHz })
    if (hit) out.push({ kind: 'sheet', subjectId: s.id, material: s.material, ...hit })
  }
  return out.sort((x, y) => x.at - y.at)
}

/** @returns what a line goes through in all, dB */
export const crossedDb = (crossings: readonly Crossing[]): number => crossings.reduce((sum, c) => sum + c.lossDb, 0)

function roofCrossings(b: Building, from: Local, way: Local): number[] {
  const hits: number[] = []
  const planes = b.riseM > 0 ? [-1, 1] : [0]
  for (const side of planes) {
    // z = eaves + rise·(1 − side·x/half), or z = eaves where it is flat.
    const slope = side ? (-side * b.riseM) / b.halfLengthM : 0
    const level = b.eavesM + b.riseM
    const base = side ? level : b.eavesM
    const gap = from[2] - base - slope * from[0]
    const closing = way[2] - slope * way[0]
    if (Math.abs(closing) < EDGE) continue
    const t = -gap / closing
    if (t <= EDGE || t >= 1 - EDGE) continue
    const x = from[0] + t * way[0]
    const y = from[1] + t * way[1]
    if (Math.abs(x) > b.halfLengthM || Math.abs(y) > b.halfDepthM) continue
    if (side && x * side < 0) continue
    hits.push(t)
  }
  return hits
}

function crossesWall(w: Wall, from: Local, to: Local): number | null {
  const [x1, y1] = from
  const dx = to[0] - x1
  const dy = to[1] - y1
  const wx = w.to[0] - w.from[0]
  const wy = w.to[1] - w.from[1]
  const cross = dx * wy - dy * wx
  if (Math.abs(cross) < EDGE) return null
  const t = ((w.from[0] - x1) * wy - (w.from[1] - y1) * wx) / cross
  const u = ((w.from[0] - x1) * dy - (w.from[1] - y1) * dx) / cross
  return t > EDGE && t < 1 - EDGE && u >= 0 && u <= 1 ? t : null
}

const dot = (a: Local, b: Local): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

/** What arrives round four edges at once may be in phase. @source method of moments, computed for this project */
const IN_PHASE_DB = 3

/**
 * What a sheet takes by what bends round its four edges, which hung square and centred arrive in phase, dB, >= 0.
 *
 * @param edgesM  from the straight line to each edge, m, above zero
 * @source finite screen of ITU-R P.526 §4, v = h·√(2(d1 + d2)/(λ·d1·d2)), less 3 dB: against the method of moments on
 *   average 1.6 dB too little, spread 4.2, one in fifty too much by over 4
 */
export function aroundSheetDb(edgesM: readonly number[], d1: number, d2: number, frequencyMHz: number): number {
  const perM = Math.sqrt((2 * (d1 + d2)) / (wavelengthM(frequencyMHz) * d1 * d2))
  const leaks = edgesM.reduce((sum, h) => sum + toLinear(-knifeEdgeLossDb(h * perM)), 0)
  return Math.max(0, -10 * Math.log10(leaks) - IN_PHASE_DB)
}

/** A sheet keeps out what its material does, yet no more than what bends round it. */
function crossesSheet(
  s: Sheet,
  { from, way, distanceM, frequencyMHz }: { from: Local; way: Local; distanceM: number; frequencyMHz: number },
): { lossDb: number; at: number } | null {
  const closing = dot(way, s.out)
  if (Math.abs(closing) < EDGE) return null
  const toCentre: Local = [s.centre[0] - from[0], s.centre[1] - from[1], s.centre[2] - from[2]]
  const t = dot(toCentre, s.out) / closing
  if (t <= EDGE || t >= 1 - EDGE) return null
  const off: Local = [t * way[0] - toCentre[0], t * way[1] - toCentre[1], t * way[2] - toCentre[2]]
  const [across, up] = [dot(off, s.across), dot(off, s.up)]
  const edgesM = [s.halfWidthM - across, s.halfWidthM + across, s.halfHeightM - up, s.halfHeightM + up]
  if (Math.min(...edgesM) <= 0) return null
  const aroundDb = aroundSheetDb(edgesM, t * distanceM, (1 - t) * distanceM, frequencyMHz)
  return { lossDb: Math.min(s.lossDb ?? SHEET_DB[s.material] ?? throughDb(s.material, frequencyMHz), aroundDb), at: t }
}

/** A whole sheet has no seams: what leaks is what goes round it. @source common practice (no source) */
const SHEET_DB: Partial<Record<MaterialId, number>> = { 'sheet metal': 40, 'foil': 25 }
