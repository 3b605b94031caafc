/**
 * Files of ground and cover, read in a thread of their own within stated memory: one at a time on a
 * node, a few waiting. What a file declares to be too large is refused before it is unpacked.
 */
import { Worker } from 'node:worker_threads'
import pLimit from 'p-limit'
import type { HeightBlock } from '../../core/terrain'
import { Busy, program } from './thread'

export interface TerrainTask {
  path: string
  /** as the file was called: an SRTM tile says in it where it lies */
  name: string
  as: 'hgt' | 'ground' | 'cover' | 'classes'
  /** of a cover: class and its height, m */
  heights?: [number, number][]
}

/** What a file says of itself; an SRTM tile also where it lies, and its own voids: neighbours share edges. */
export interface TerrainHead {
  side: number
  southDeg?: number
  westDeg?: number
  voids?: number
}

export type FromTerrainWorker =
  | TerrainHead
  | { blocks: HeightBlock[] }
  | { classes: { value: number; share: number }[] }
  | { end: true }
  | { refused: string }
  | { failed: string }

/** Objects of the thread, MB; samples come on top, at most about 200 MB at once (see raster.ts). */
const HEAP_MB = 384
/** A file that takes longer is given up. */
const LONGEST_MS = 10 * 60_000
const MOST_WAITING = 4

const gate = pLimit(1)

/** A thread at work on one file. */
class Reading {
  private readonly worker: Worker
  private readonly waiting: FromTerrainWorker[] = []
  private wake: (() => void) | null = null
  private ended: string | null = null
  private readonly timer: ReturnType<typeof setTimeout>

  constructor(task: TerrainTask) {
    this.worker = new Worker(program('terrain'), {
      workerData: task,
      resourceLimits: { maxOldGenerationSizeMb: HEAP_MB, maxYoungGenerationSizeMb: 64 },
    })
    const tell = () => {
      this.wake?.()
      this.wake = null
    }
    this.worker.on('message', (m: FromTerrainWorker) => {
      this.waiting.push(m)
      tell()
    })
    this.worker.on('error', (e: { code?: string }) => {
      this.ended = e.code === 'ERR_WORKER_OUT_OF_MEMORY' ? 'The file unpacks to more than is read here.' : ''
      tell()
    })
    this.worker.on('exit', () => {
      this.ended ??= ''
      tell()
    })
    this.timer = setTimeout(() => {
      this.ended = 'The file takes longer than ten minutes to read: bring it in parts.'
      tell()
    }, LONGEST_MS)
  }

  ask(): void {
    this.worker.postMessage('next')
  }

  /** @throws RangeError where the file is refused */
  async next(): Promise<FromTerrainWorker> {
    while (!this.waiting.length) {
      if (this.ended) throw new RangeError(this.ended)
      if (this.ended !== null) throw new Error('the thread that read a terrain file ended')
      await new Promise<void>(done => (this.wake = done))
    }
    const m = this.waiting.shift()!
    if ('refused' in m) throw new RangeError(m.refused)
    if ('failed' in m) throw new RangeError('The file does not read: it is damaged or of another kind.')
    return m
  }

  async stop(): Promise<void> {
    clearTimeout(this.timer)
    await this.worker.terminate()
  }
}

export interface OpenTerrain extends TerrainHead {
  blocks: AsyncGenerator<HeightBlock>
}

/**
 * Reads a file and does something with it.
 * @throws RangeError where it is refused, Busy where too many wait already
 */
export function withTerrainFile<T>(task: TerrainTask, work: (file: OpenTerrain) => Promise<T>): Promise<T> {
  return reading(task, async r => {
    const head = (await r.next()) as TerrainHead
    async function* blocks() {
      for (;;) {
        r.ask()
        const m = await r.next()
        if ('blocks' in m) yield* m.blocks
        else return
      }
    }
    return work({ ...head, blocks: blocks() })
  })
}

/** Classes of a land-cover raster with their share, most common first. */
export function terrainClasses(task: TerrainTask): Promise<{ value: number; share: number }[]> {
  return reading(task, async r => ((await r.next()) as { classes: { value: number; share: number }[] }).classes)
}

function reading<T>(task: TerrainTask, work: (r: Reading) => Promise<T>): Promise<T> {
  if (gate.pendingCount >= MOST_WAITING) throw new Busy()
  return gate(async () => {
    const r = new Reading(task)
    try {
      return await work(r)
    } finally {
      await r.stop()
    }
  })
}
