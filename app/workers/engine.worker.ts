/** Heavy sums off the main thread: terrain, paths, skyline, relief, and the assessment. */
import { entryOf, nth } from '#core/sure'
import { expose } from 'comlink'
import { v7 as uuidv7 } from 'uuid'
import { contours as contourLines } from 'd3-contour'
import { assess } from '#core/judge'
import {
  advise,
  compareModems,
  compareSims,
  compareVariants,
  coverFloor,
  layZones,
  placesFor,
  proposeKits,
  solveCures,
} from '#core/solve'
import type { Assessment, Cure } from '#core/judge'
import type { Advised, ModemSide, Place, Proposal, SimSide, Variant } from '#core/solve'
import { PARTS } from '#core/catalogue'
import type { FloorCoverage } from '#core/coverage'
import type { Donors, Kit } from '#core/fitting'
import type { Change, Design, JobDocument, Part } from '#core/job'
import { heightCurve } from '#core/aim'
import { cellsByMast, MAST_RADIUS_M, pathInputs } from '#core/masts'
import type { HeightCurve } from '#core/aim'
import type { Evidence } from '#core/masts'
import { atPresentStop, positionOf, screensHere } from '#core/survey'
import type { Position } from '#core/geo'
import {
  blocksAround,
  computePath,
  hillshade,
  horizonRing,
  isFar,
  mercatorToLat,
  mercatorToLon,
  pathBlocks,
  reliefGrid,
  Terrain,
} from '#core/terrain'
import type { Extent, HeightBlock, Horizon, PathInput, PathResult, ShadePalette } from '#core/terrain'
import { openDevice } from '../replica/store'
import type { DeviceDb } from '../replica/store'

/** A block of ground as kept on this device, with what stands on it where that is known. */
interface KeptBlock extends HeightBlock {
  /** fetched thinned, since it was far from the place it was fetched for */
  thinned?: boolean
  cover?: HeightBlock
}

let opened: Promise<DeviceDb> | null = null
const device = (): Promise<DeviceDb> => (opened ??= openDevice())
/** whose ground it is: blocks of another crew are neither shown nor written over */
let crew = ''
const keptAs = (key: string): string => `${crew}|${key}`
const versionKey = (): string => `terrain:${crew}`

let terrain = new Terrain()
/** blocks that are held thinned though they may be wanted whole */
const thinned = new Set<string>()
const missing = new Set<string>()
let paths: Record<string, PathResult> = {}
/** the skyline of where it was last asked for */
let skyline: { key: string; horizon: Horizon } | null = null
const evidence = (): Evidence => ({ paths, horizon: skyline?.horizon ?? null })
/** results that were computed while some of their terrain could not be fetched */
const partial = new Set<string>()
const BATCH = 40
export const HORIZON_M = 40_000

function hold(block: KeptBlock): void {
  terrain.add(block)
  if (block.cover) terrain.addCover(block.cover)
  if (block.thinned) thinned.add(block.key)
  else thinned.delete(block.key)
}

const lacks = (site: Position, key: string): boolean =>
  !missing.has(key) && (!terrain.has(key) || (thinned.has(key) && !isFar(site, key)))

/**
 * Blocks from the server into memory and onto this device; what was held of them goes first.
 * @returns false where there is no connection
 */
async function download(keys: string[], coarse: boolean): Promise<boolean> {
  const response = await fetch(`/api/terrain/blocks?keys=${keys.join(',')}${coarse ? '&coarse=1' : ''}`).catch(() => null)
  if (!response?.ok) return false
  const got = parseBlocks(new Uint8Array(await response.arrayBuffer()), coarse)
  for (const key of keys) terrain.remove(key)
  const write = (await device()).transaction('blocks', 'readwrite')
  const come = new Set(got.map(b => b.key))
  for (const key of keys) if (!come.has(key)) void write.store.delete(keptAs(key))
  for (const b of got) {
    hold(b)
    void write.store.put(b, keptAs(b.key))
  }
  // A device that is full works from the server while it can.
  await write.done.catch(() => {})
  return true
}

/** Blocks from this device first, then from the server; those the server has not are remembered for this visit. */
async function fetchBlocks(site: Position, keys: string[]): Promise<boolean> {
  let wanted = keys.filter(k => lacks(site, k))
  if (!wanted.length) return true
  const tx = (await device()).transaction('blocks')
  for (const held of await Promise.all(wanted.map(k => tx.store.get(keptAs(k)))))
    if (held && 'heights' in (held as object)) hold(held as KeptBlock)
  wanted = wanted.filter(k => lacks(site, k))
  let complete = true
  for (const coarse of [false, true]) {
    const group = wanted.filter(k => isFar(site, k) === coarse)
    for (let i = 0; i < group.length; i += BATCH) {
      const part = group.slice(i, i + BATCH)
      if (!(await download(part, coarse))) {
        complete = false
        continue
      }
      for (const key of part) if (!terrain.has(key)) missing.add(key)
    }
  }
  return complete
}

function parseBlocks(bytes: Uint8Array, coarse: boolean): KeptBlock[] {
  let end = 0
  while (!(bytes[end] === 10 && (end === 0 || bytes[end - 1] === 10))) {
    if (end >= bytes.length) return []
    end++
  }
  const head = new TextDecoder().decode(bytes.subarray(0, end)).split('\n').filter(Boolean)
  let at = end + 1
  const ground = new Map<string, KeptBlock>()
  for (const line of head) {
    const [key, side, kind] = line.split(' ') as [string, string, string]
    const n = Number(side) ** 2 * 2
    const copy = bytes.slice(at, at + n)
    at += n
    const block: HeightBlock = { key, side: Number(side), heights: new Int16Array(copy.buffer) }
    if (kind === 'ground') ground.set(key, { ...block, thinned: coarse })
    else if (ground.has(key)) entryOf(ground, key).cover = block
  }
  return [...ground.values()]
}

/** What a shaded map is drawn as, pixels. */
interface Shaded {
  width: number
  height: number
  palette: ShadePalette
}

const inputOf = (doc: JobDocument, mastId: string): PathInput | null => pathInputs(doc).find(i => i.mastId === mastId) ?? null

/** Masts whose profile goes to the page with every answer; of the others it is asked for. */
const SKETCHED = 6

/** What the page needs of an assessment: four hundred profiles would be copied for nothing. */
function slim(a: Assessment): Assessment {
  const masts = a.masts.map((m, i) =>
    m.path && i >= SKETCHED && m !== a.chosen ? { ...m, path: { ...m.path, sketch: { distanceM: [], groundM: [] } } } : m,
  )
  return { ...a, masts }
}

/** Hills further off stand too low to hide a satellite. */
const SKY_RADIUS_M = 10_000

/** The skyline round a satellite terminal, where there is one. @returns 1 where it was computed */
async function ensureSkyline(doc: JobDocument): Promise<number> {
  const terminal = doc.fixtures.find(f => f.kind === 'satellite terminal')
  const here = atPresentStop(doc)
  const at = positionOf(here)
  if (!terminal || !at) {
    skyline = null
    return 0
  }
  const heightM = Math.max(0, terminal.upM)
  const key = `${at.latDeg} ${at.lonDeg} ${heightM} ${here.sites[0]?.groundM}`
  if (skyline?.key === key) return 0
  await fetchBlocks(
    at,
    blocksAround(at, SKY_RADIUS_M).map(b => b.key),
  )
  const horizon = horizonRing(terrain, at, heightM, { radiusM: SKY_RADIUS_M, rays: 180, groundM: here.sites[0]?.groundM })
  skyline = { key, horizon }
  return 1
}

/** Paths computed between two words to the page. */
const FIRST = 8
const EACH = 40

let packing = 0

export interface Relief {
  rgba: Uint8ClampedArray<ArrayBuffer>
  width: number
  height: number
  extent: Extent
  contours: { heightM: number; polygons: number[][][][] }[]
  stepM: number
  unknown: number
}

const engine = {
  assess(doc: JobDocument, atUtc: string): Assessment {
    return slim(assess(doc, evidence(), { atUtc }))
  },

  /** Every approach worked out and ranked; what stands so far is told after each. */
  advise(doc: JobDocument, atUtc: string, each: (soFar: Advised) => void): Advised {
    return advise(doc, evidence(), atUtc, each)
  },

  /** The plan's variants side by side. */
  compare(doc: JobDocument, atUtc: string): Variant[] {
    return compareVariants(doc, evidence(), atUtc)
  },

  /** Each modem of a box with several, by its own SIM and ports alone. */
  modems(doc: JobDocument, atUtc: string): ModemSide[] {
    return compareModems(doc, evidence(), atUtc)
  },

  /** The job's zones laid out in a design, padded and evened out. */
  zones(doc: JobDocument, design: Design, donors: Donors, atUtc: string): Change[] {
    return layZones(doc, design, { evidence: evidence(), atUtc, donors, newId: uuidv7 })
  },

  /** Each carrier that there is a SIM of, with the same plan aimed at its best mast. */
  sims(doc: JobDocument, atUtc: string): SimSide[] {
    return compareSims(doc, evidence(), atUtc)
  },

  /** Kits proposed for an approach, the crew's own parts among those that are searched. */
  proposals(doc: JobDocument, kit: Kit, own: Part[], atUtc: string): Proposal[] {
    return proposeKits(doc, evidence(), atUtc, { kit, parts: [...own, ...PARTS] })
  },

  /** What a phone shows all over a floor, by one step after the other. */
  coverage(
    doc: JobDocument,
    atUtc: string,
    floor: { level: number; stepsM: number[] },
    each: (soFar: FloorCoverage | null) => void,
  ): FloorCoverage | null {
    return coverFloor(doc, evidence(), atUtc, { ...floor, each })
  },

  /** Where antennas would serve a floor best. */
  places(doc: JobDocument, level: number, most: number, atUtc: string): Place[] | null {
    return placesFor(doc, evidence(), atUtc, { level, most })
  },

  /** Cures of one finding that take a search. */
  cures(doc: JobDocument, key: string, atUtc: string): Cure[] {
    return solveCures(doc, evidence(), key, atUtc)
  },

  /**
   * Computes the paths that are not held, nearest masts first; calls back after each handful.
   * @returns how many were computed
   */
  async ensurePaths(doc: JobDocument, progress: (done: number, of: number) => void): Promise<number> {
    const open = pathInputs(doc).filter(i => !paths[i.key] || partial.has(i.key))
    let done = 0
    while (done < open.length) {
      const part = open.slice(done, done + (done ? EACH : FIRST))
      const complete = await fetchBlocks(nth(part, 0).site, [...new Set(part.flatMap(pathBlocks))])
      for (const input of part) {
        const result = computePath(terrain, input)
        if (result) paths[input.key] = result
        if (complete) partial.delete(input.key)
        else partial.add(input.key)
      }
      done += part.length
      if (done < open.length) progress(done, open.length)
    }
    return done + (await ensureSkyline(doc))
  },

  /** The whole path to one mast, its profile with it. */
  async path(doc: JobDocument, mastId: string): Promise<PathResult | null> {
    const input = inputOf(doc, mastId)
    if (!input) return null
    await fetchBlocks(input.site, pathBlocks(input))
    return paths[input.key] ?? computePath(terrain, input)
  },

  /** The skyline round the present place. @returns null where there is no position */
  async horizon(doc: JobDocument, heightM: number): Promise<Horizon | null> {
    const here = atPresentStop(doc)
    const at = positionOf(here)
    if (!at) return null
    await fetchBlocks(
      at,
      blocksAround(at, HORIZON_M).map(b => b.key),
    )
    return horizonRing(terrain, at, heightM, {
      radiusM: HORIZON_M,
      k: here.jobs[0]?.kFactor,
      groundM: here.sites[0]?.groundM,
      screens: screensHere(here),
    })
  },

  /** Level against height toward one mast. */
  async heights(doc: JobDocument, mastId: string, band: string, offsetDb: number): Promise<HeightCurve | null> {
    const input = inputOf(doc, mastId)
    if (!input) return null
    await fetchBlocks(input.site, pathBlocks(input))
    return heightCurve(terrain, input, cellsByMast(doc.cells).get(mastId) ?? [], { bandName: band, offsetDb })
  },

  /** Shaded ground and contours of a map's extent. */
  async relief(at: Position | null, extent: Extent, { width, height, palette }: Shaded): Promise<Relief> {
    const middle = { latDeg: mercatorToLat((extent[1] + extent[3]) / 2), lonDeg: mercatorToLon((extent[0] + extent[2]) / 2) }
    const radiusM = Math.min(
      150_000,
      (Math.hypot(extent[2] - extent[0], extent[3] - extent[1]) / 2) * Math.cos((middle.latDeg * Math.PI) / 180),
    )
    await fetchBlocks(
      at ?? middle,
      blocksAround(middle, radiusM)
        .slice(0, 800)
        .map(b => b.key),
    )
    const heights = reliefGrid(terrain, extent, width, height)
    const cellM = ((extent[2] - extent[0]) / width) * Math.cos((middle.latDeg * Math.PI) / 180)
    const rgba = hillshade(heights, { width, height, cellM, palette }) as Uint8ClampedArray<ArrayBuffer>
    let top = 0
    let unknown = 0
    for (const h of heights) {
      if (h > top) top = h
      if (h !== h) unknown++
    }
    const stepM = [10, 20, 25, 50, 100, 200, 250, 500].find(s => top / s <= 8) ?? 1000
    const levels = Array.from({ length: Math.floor(top / stepM) }, (_, i) => (i + 1) * stepM)
    const contours = contourLines()
      .size([width, height])
      .thresholds(levels)(Array.from(heights, h => (h !== h ? 0 : h)))
      .map(c => ({
        heightM: c.value,
        polygons: (c.coordinates as number[][][][]).map(p =>
          p.map(ring =>
            ring.map(([x, y]) => [
              extent[0] + (x! / width) * (extent[2] - extent[0]),
              extent[3] - (y! / height) * (extent[3] - extent[1]),
            ]),
          ),
        ),
      }))
    return { rgba, width, height, extent, contours, stepM, unknown: unknown / heights.length }
  },

  /**
   * Brings the ground within 60 km onto this device: 1″ near, 3″ far.
   * @returns bytes now kept for this place, or null where it was stopped or the connection was lost
   */
  async pack(
    at: Position,
    progress: (done: number, of: number, bytes: number) => void,
  ): Promise<{ bytes: number; blocks: number; complete: boolean } | null> {
    const mine = ++packing
    const keys = blocksAround(at, MAST_RADIUS_M).map(b => b.key)
    let complete = true
    for (let i = 0; i < keys.length; i += BATCH) {
      if (mine !== packing) return null
      complete = (await fetchBlocks(at, keys.slice(i, i + BATCH))) && complete
      progress(Math.min(keys.length, i + BATCH), keys.length, bytesOf(keys))
    }
    return { bytes: bytesOf(keys), blocks: keys.filter(k => terrain.has(k)).length, complete }
  },

  stopPack(): void {
    packing++
  },

  /**
   * New terrain was loaded: what was missing may be there now, blocks that changed are fetched again
   * as far as this device kept them, and every path is to be computed anew.
   */
  async forgetTerrain(changed: string[]): Promise<void> {
    missing.clear()
    paths = {}
    skyline = null
    const db = await device()
    for (const coarse of [false, true]) {
      const held = await Promise.all(changed.map(k => db.get('blocks', keptAs(k)) as Promise<KeptBlock | undefined>))
      const keys = held.filter((b): b is KeptBlock => !!b && !!b.thinned === coarse).map(b => b.key)
      for (let i = 0; i < keys.length; i += BATCH) await download(keys.slice(i, i + BATCH), coarse)
    }
  },

  /** Whose ground is worked with from here on. */
  async setCrew(crewId: string): Promise<void> {
    if (crewId === crew) return
    crew = crewId
    terrain = new Terrain()
    thinned.clear()
    missing.clear()
    partial.clear()
    paths = {}
  },

  /**
   * Brings what this device keeps of the crew's ground up to the crew's count: blocks that another
   * device has changed are fetched again.
   */
  async catchUp(version: number): Promise<void> {
    const db = await device()
    const held = (await db.get('device', versionKey())) as number | undefined
    if (held === version) return
    if (held !== undefined) {
      const response = await fetch(`/api/terrain/changes?since=${held}`).catch(() => null)
      if (!response?.ok) return
      const { keys, all } = (await response.json()) as { keys: string[]; all: boolean }
      const mine = all
        ? (await db.getAllKeys('blocks', IDBKeyRange.bound(`${crew}|`, `${crew}|\uFFFF`))).map(k => k.slice(crew.length + 1))
        : keys
      await engine.forgetTerrain(mine)
    }
    await db.put('device', version, versionKey())
  },
}

const bytesOf = (keys: readonly string[]): number => keys.reduce((sum, k) => sum + (terrain.get(k)?.heights.byteLength ?? 0), 0)

export type Engine = typeof engine

expose(engine)
// Who started it waits for a first word.
postMessage('running')
