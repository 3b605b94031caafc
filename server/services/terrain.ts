/** Height tiles and rasters cut into blocks on the way in, laid over each other, and blocks on the way out. */
import { and, eq, inArray, sql } from 'drizzle-orm'
import { coverBlocks, terrainBlocks, terrainLayers, terrainTiles } from '../database/schema'
import type { Db, Tx } from '../utils/db'
import { coarsen, cutTile, overlay } from '../../core/terrain/blocks'
import type { HeightBlock } from '../../core/terrain/blocks'
import { readHgt, VOID, writeHgt } from '../../core/terrain/hgt'
import type { HeightTile } from '../../core/terrain/hgt'
import type { TerrainReport } from '../../shared/api'

const AT_ONCE = 20

/** @throws RangeError where the file is no SRTM tile */
export async function importHgt(db: Db, crewId: string, fileName: string, bytes: Uint8Array): Promise<TerrainReport> {
  return storeTile(db, crewId, readHgt(fileName, bytes))
}

export async function storeTile(db: Db, crewId: string, tile: HeightTile): Promise<TerrainReport> {
  const name = writeHgt({ ...tile, heights: new Int16Array(0) }).name.replace('.hgt', '')
  const voids = tile.heights.reduce((n, h) => n + Number(h === VOID), 0)
  return storeLayer(db, crewId, { name, kind: 'ground', side: tile.side, voids }, cutTile(tile))
}

/**
 * Keeps a tile's blocks as a layer of their own and lays the layers of every block touched over each
 * other again. A tile of the same name is replaced.
 */
export async function storeLayer(db: Db, crewId: string, tile: { name: string, kind: 'ground' | 'cover', side: number, voids?: number }, blocks: Iterable<HeightBlock> | AsyncIterable<HeightBlock>): Promise<TerrainReport> {
  let count = 0
  let voids = 0
  let keys: string[] = []
  await db.transaction(async (tx) => {
    const before = await tx.select({ key: terrainLayers.key }).from(terrainLayers).where(and(eq(terrainLayers.crewId, crewId), eq(terrainLayers.tile, tile.name)))
    await tx.delete(terrainTiles).where(and(eq(terrainTiles.crewId, crewId), eq(terrainTiles.name, tile.name)))
    await tx.insert(terrainTiles).values({ crewId, name: tile.name, kind: tile.kind, side: tile.side, voids: 0 })
    const touched = new Set(before.map(b => b.key))
    let batch: HeightBlock[] = []
    const flush = async () => {
      if (batch.length) await tx.insert(terrainLayers).values(batch.map(b => ({ crewId, tile: tile.name, key: b.key, side: b.side, heights: packHeights(b) })))
      batch = []
    }
    for await (const block of blocks) {
      const empty = block.heights.reduce((n, h) => n + Number(h === VOID), 0)
      voids += empty
      if (empty === block.heights.length) continue
      count++
      touched.add(block.key)
      batch.push(block)
      if (batch.length >= AT_ONCE) await flush()
    }
    await flush()
    if (!count) throw new RangeError('The raster holds no height at all.')
    voids = tile.voids ?? voids
    await tx.update(terrainTiles).set({ voids }).where(and(eq(terrainTiles.crewId, crewId), eq(terrainTiles.name, tile.name)))
    keys = [...touched]
    await relay(tx, crewId, tile.kind, keys)
  })
  return { name: tile.name, kind: tile.kind, side: tile.side, blocks: count, voids, keys }
}

/** Takes a tile away again; what lay under it shows. @returns false where there is none of that name */
export async function removeLayer(db: Db, crewId: string, name: string): Promise<boolean> {
  return db.transaction(async (tx) => {
    const keys = await tx.select({ key: terrainLayers.key }).from(terrainLayers).where(and(eq(terrainLayers.crewId, crewId), eq(terrainLayers.tile, name)))
    const [gone] = await tx.delete(terrainTiles).where(and(eq(terrainTiles.crewId, crewId), eq(terrainTiles.name, name))).returning()
    if (!gone) return false
    await relay(tx, crewId, gone.kind, keys.map(k => k.key))
    return true
  })
}

/** Makes the blocks that are asked for out of the layers that are held. */
async function relay(tx: Tx, crewId: string, kind: 'ground' | 'cover', keys: string[]): Promise<void> {
  const table = kind === 'ground' ? terrainBlocks : coverBlocks
  for (let i = 0; i < keys.length; i += AT_ONCE) {
    const part = keys.slice(i, i + AT_ONCE)
    const rows = await tx.select({ key: terrainLayers.key, side: terrainLayers.side, heights: terrainLayers.heights, tile: terrainLayers.tile }).from(terrainLayers)
      .innerJoin(terrainTiles, and(eq(terrainTiles.crewId, terrainLayers.crewId), eq(terrainTiles.name, terrainLayers.tile), eq(terrainTiles.kind, kind)))
      .where(and(eq(terrainLayers.crewId, crewId), inArray(terrainLayers.key, part))).orderBy(terrainLayers.tile)
    const made = part.flatMap((key) => {
      const mine = rows.filter(r => r.key === key)
      const block = overlay(mine.map(asBlock))
      return block ? [{ crewId, key, side: block.side, tile: mine.map(r => r.tile).join('+').slice(0, 200), heights: packHeights(block) }] : []
    })
    const held = new Set(made.map(m => m.key))
    const bare = part.filter(k => !held.has(k))
    if (bare.length) await tx.delete(table).where(and(eq(table.crewId, crewId), inArray(table.key, bare)))
    if (made.length) await tx.insert(table).values(made).onConflictDoUpdate({ target: [table.crewId, table.key], set: { side: sql`excluded.side`, tile: sql`excluded.tile`, heights: sql`excluded.heights` } })
  }
}

/** Little-endian 16-bit metres, as typed arrays hold them. */
export const packHeights = (b: HeightBlock): Uint8Array => new Uint8Array(b.heights.buffer, b.heights.byteOffset, b.heights.byteLength)

function asBlock(r: { key: string, side: number, heights: Uint8Array }): HeightBlock {
  const copy = new Uint8Array(r.side * r.side * 2)
  copy.set(r.heights.subarray(0, copy.length))
  return { key: r.key, side: r.side, heights: new Int16Array(copy.buffer) }
}

/** @param coarse  thinned to 3″, as far ground is wanted */
export async function readBlocks(db: Db, crewId: string, keys: readonly string[], kind: 'ground' | 'cover' = 'ground', coarse = false): Promise<HeightBlock[]> {
  if (!keys.length) return []
  const table = kind === 'ground' ? terrainBlocks : coverBlocks
  const rows = await db.select().from(table).where(and(eq(table.crewId, crewId), inArray(table.key, [...keys])))
  return rows.map(r => (coarse ? coarsen(asBlock(r)) : asBlock(r)))
}
