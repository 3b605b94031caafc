/** Height tiles and rasters as blocks in layers, laid over each other, and blocks on the way out. */
import { and, eq, gt, inArray, sql } from 'drizzle-orm'
import { coverBlocks, crews, terrainBlocks, terrainChanges, terrainLayers, terrainTiles } from '../data/schema'
import type { Db, Tx } from '../data/db'
import { coarsen, cutTile, overlay, VOID, writeHgt } from '../../core/terrain'
import type { HeightBlock, HeightTile } from '../../core/terrain'
import type { TerrainReport } from '../../shared/api'

/** Blocks written by one statement: others are answered between two. */
const AT_ONCE = 6

export const tileName = (southDeg: number, westDeg: number): string =>
  writeHgt({ southDeg, westDeg, side: 1201, heights: new Int16Array(0) }).name.replace('.hgt', '')

/** Keeps a whole tile that is in memory. */
export function storeTile(db: Db, crewId: string, tile: HeightTile): Promise<TerrainReport> {
  return storeLayer(
    db,
    crewId,
    { name: tileName(tile.southDeg, tile.westDeg), kind: 'ground', side: tile.side, voids: voidsOf(tile) },
    cutTile(tile),
  )
}

/** `voids`: of the file itself where that is known; blocks share their edges and would count some twice */
interface Tile {
  name: string
  kind: 'ground' | 'cover'
  side: number
  voids?: number
}

const voidsOf = (b: { heights: Int16Array }): number => {
  let n = 0
  for (const h of b.heights) if (h === VOID) n++
  return n
}

/** Reading a large file takes longer than a request may; the crew's lock is waited for as long. */
const PATIENCE = sql`select set_config('idle_in_transaction_session_timeout', '300s', true), set_config('lock_timeout', '300s', true)`

/**
 * Laying layers over each other goes one after the other in a crew: of two imports at once the
 * second sees the layers of the first.
 */
const alone = (tx: Tx, crewId: string) => tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${crewId}, 11))`)

/**
 * Keeps a tile's blocks as a layer of their own and lays the layers of every block touched over each
 * other again. A tile of the same kind and name is replaced.
 */
export async function storeLayer(
  db: Db,
  crewId: string,
  tile: Tile,
  blocks: Iterable<HeightBlock> | AsyncIterable<HeightBlock>,
): Promise<TerrainReport> {
  let count = 0
  let voids = 0
  let keys: string[] = []
  await db.transaction(async tx => {
    await tx.execute(PATIENCE)
    const mine = and(eq(terrainTiles.crewId, crewId), eq(terrainTiles.kind, tile.kind), eq(terrainTiles.name, tile.name))
    const layers = and(eq(terrainLayers.crewId, crewId), eq(terrainLayers.kind, tile.kind), eq(terrainLayers.tile, tile.name))
    await tx
      .insert(terrainTiles)
      .values({ crewId, name: tile.name, kind: tile.kind, side: tile.side, voids: 0 })
      .onConflictDoUpdate({
        target: [terrainTiles.crewId, terrainTiles.kind, terrainTiles.name],
        set: { side: tile.side, importedAt: sql`now()` as never },
      })
    const before = await tx.delete(terrainLayers).where(layers).returning({ key: terrainLayers.key })
    const touched = new Set(before.map(b => b.key))
    let batch: HeightBlock[] = []
    const flush = async () => {
      if (batch.length) {
        await tx
          .insert(terrainLayers)
          .values(
            batch.map(b => ({ crewId, kind: tile.kind, tile: tile.name, key: b.key, side: b.side, heights: packHeights(b) })),
          )
      }
      batch = []
    }
    for await (const block of blocks) {
      const empty = voidsOf(block)
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
    await tx.update(terrainTiles).set({ voids }).where(mine)
    keys = [...touched].sort()
    await alone(tx, crewId)
    await relay(tx, crewId, tile.kind, keys)
  })
  return { name: tile.name, kind: tile.kind, side: tile.side, blocks: count, voids, keys }
}

/** Takes a tile away again; what lay under it shows. @returns the blocks that changed; null where there is none of that name */
export async function removeLayer(db: Db, crewId: string, kind: 'ground' | 'cover', name: string): Promise<string[] | null> {
  return db.transaction(async tx => {
    await tx.execute(PATIENCE)
    await alone(tx, crewId)
    const mine = and(eq(terrainLayers.crewId, crewId), eq(terrainLayers.kind, kind), eq(terrainLayers.tile, name))
    const keys = (await tx.select({ key: terrainLayers.key }).from(terrainLayers).where(mine)).map(k => k.key).sort()
    const gone = await tx
      .delete(terrainTiles)
      .where(and(eq(terrainTiles.crewId, crewId), eq(terrainTiles.kind, kind), eq(terrainTiles.name, name)))
      .returning()
    if (!gone.length) return null
    await relay(tx, crewId, kind, keys)
    return keys
  })
}

/** Makes the blocks that are asked for out of the layers that are held, and counts them as changed. */
async function relay(tx: Tx, crewId: string, kind: 'ground' | 'cover', keys: string[]): Promise<void> {
  const table = kind === 'ground' ? terrainBlocks : coverBlocks
  for (let i = 0; i < keys.length; i += AT_ONCE) {
    const part = keys.slice(i, i + AT_ONCE)
    const rows = await tx
      .select({ key: terrainLayers.key, side: terrainLayers.side, heights: terrainLayers.heights, tile: terrainLayers.tile })
      .from(terrainLayers)
      .where(and(eq(terrainLayers.crewId, crewId), eq(terrainLayers.kind, kind), inArray(terrainLayers.key, part)))
      .orderBy(terrainLayers.tile)
    const made = part.flatMap(key => {
      const mine = rows.filter(r => r.key === key)
      const block = overlay(mine.map(asBlock))
      return block
        ? [
            {
              crewId,
              key,
              side: block.side,
              tile: mine
                .map(r => r.tile)
                .join('+')
                .slice(0, 200),
              heights: packHeights(block),
            },
          ]
        : []
    })
    const held = new Set(made.map(m => m.key))
    const bare = part.filter(k => !held.has(k))
    if (bare.length) await tx.delete(table).where(and(eq(table.crewId, crewId), inArray(table.key, bare)))
    if (made.length) {
      await tx
        .insert(table)
        .values(made)
        .onConflictDoUpdate({
          target: [table.crewId, table.key],
          set: { side: sql`excluded.side`, tile: sql`excluded.tile`, heights: sql`excluded.heights` },
        })
    }
  }
  if (!keys.length) return
  const [crew] = await tx
    .update(crews)
    .set({ terrainVersion: sql`${crews.terrainVersion} + 1` })
    .where(eq(crews.id, crewId))
    .returning({ version: crews.terrainVersion })
  for (let i = 0; i < keys.length; i += 1000) {
    await tx
      .insert(terrainChanges)
      .values(keys.slice(i, i + 1000).map(key => ({ crewId, key, version: crew!.version })))
      .onConflictDoUpdate({ target: [terrainChanges.crewId, terrainChanges.key], set: { version: sql`excluded.version` } })
  }
}

/** Blocks that changed after a count, and the count now; `all` where so many did that everything held is to be asked for again. */
export async function changedBlocks(
  db: Db,
  crewId: string,
  since: number,
): Promise<{ version: number; keys: string[]; all: boolean }> {
  const [crew] = await db.select({ version: crews.terrainVersion }).from(crews).where(eq(crews.id, crewId))
  const version = crew?.version ?? 0
  if (since === version) return { version, keys: [], all: false }
  const rows = await db
    .select({ key: terrainChanges.key })
    .from(terrainChanges)
    .where(and(eq(terrainChanges.crewId, crewId), gt(terrainChanges.version, since)))
    .limit(MOST_TOLD + 1)
  const all = rows.length > MOST_TOLD || since > version
  return { version, keys: all ? [] : rows.map(r => r.key), all }
}

const MOST_TOLD = 5000

/** Little-endian 16-bit metres, as typed arrays hold them. */
export const packHeights = (b: HeightBlock): Uint8Array =>
  new Uint8Array(b.heights.buffer, b.heights.byteOffset, b.heights.byteLength)

function asBlock(r: { key: string; side: number; heights: Uint8Array }): HeightBlock {
  const copy = new Uint8Array(r.side * r.side * 2)
  copy.set(r.heights.subarray(0, copy.length))
  return { key: r.key, side: r.side, heights: new Int16Array(copy.buffer) }
}

/** @param coarse  thinned to 3″, as far ground is wanted */
export async function readBlocks(
  db: Db,
  crewId: string,
  keys: readonly string[],
  { kind = 'ground', coarse = false }: { kind?: 'ground' | 'cover'; coarse?: boolean } = {},
): Promise<HeightBlock[]> {
  if (!keys.length) return []
  const table = kind === 'ground' ? terrainBlocks : coverBlocks
  const rows = await db
    .select()
    .from(table)
    .where(and(eq(table.crewId, crewId), inArray(table.key, [...keys])))
  return rows.map(r => (coarse ? coarsen(asBlock(r)) : asBlock(r)))
}
