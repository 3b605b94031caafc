/**
 * Reads one file of ground or cover, away from the thread that answers requests, and hands its blocks
 * over a few at a time: the next few are read when the last were taken.
 */
import { readFileSync } from 'node:fs'
import { parentPort, workerData } from 'node:worker_threads'
import { cutTile, readHgt, VOID } from '../../core/terrain'
import type { HeightBlock } from '../../core/terrain'
import { openRaster, rasterBlocks, rasterClasses, sideOf } from '../services/raster'
import type { FromTerrainWorker, TerrainTask } from '../services/terrain-file'

const port = parentPort!
const { path, name, as, heights } = workerData as TerrainTask
/** Blocks handed over at one go. */
const AT_ONCE = 6

const say = (message: FromTerrainWorker, move: ArrayBuffer[] = []) => port.postMessage(message, move)
const asked = () => new Promise<void>(done => port.once('message', () => done()))

async function handOver(blocks: Iterable<HeightBlock> | AsyncIterable<HeightBlock>): Promise<void> {
  let batch: HeightBlock[] = []
  const flush = async () => {
    await asked()
    say(
      { blocks: batch },
      batch.map(b => b.heights.buffer as ArrayBuffer),
    )
    batch = []
  }
  for await (const block of blocks) {
    // A block of its own, so that its memory can be handed over.
    batch.push({ key: block.key, side: block.side, heights: Int16Array.from(block.heights) })
    if (batch.length >= AT_ONCE) await flush()
  }
  if (batch.length) await flush()
  await asked()
  say({ end: true })
}

async function work(): Promise<void> {
  if (as === 'hgt') {
    const tile = readHgt(name, readFileSync(path))
    let voids = 0
    for (const h of tile.heights) if (h === VOID) voids++
    say({ side: tile.side, southDeg: tile.southDeg, westDeg: tile.westDeg, voids })
    return handOver(cutTile(tile))
  }
  const raster = await openRaster(path)
  if (as === 'classes') return say({ classes: await rasterClasses(raster) })
  say({ side: sideOf(raster) })
  const heightOf = new Map(heights ?? [])
  return handOver(
    rasterBlocks(raster, as === 'ground' ? { kind: 'ground' } : { kind: 'cover', heightOf: v => heightOf.get(v) ?? null }),
  )
}

work().then(
  () => port.close(),
  (e: unknown) => {
    say(e instanceof RangeError ? { refused: e.message } : { failed: e instanceof Error ? e.name : 'unknown' })
    port.close()
  },
)
