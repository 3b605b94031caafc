/**
 * Work in a thread of its own: one task at a time, within stated memory and time, a few waiting. Whoever answers requests never
 * waits for it, and a task that runs away takes its thread along and nothing else.
 */
import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { Worker } from 'node:worker_threads'
import pLimit from 'p-limit'

/** Why no more is taken just now. */
export class Busy extends Error {}

export type FromThread<R> = { done: R } | { refused: string } | { failed: string }

interface Limits {
  heapMb: number
  longestMs: number
  mostWaiting: number
  /** said where a task runs out of memory or time */
  tooMuch: string
}

/** The thread's program lies beside the server's, built with it. */
export function program(name: string): string {
  const beside = join(dirname(process.argv[1] ?? ''), 'workers', `${name}.mjs`)
  if (!existsSync(beside)) throw new Error(`the program ${name} was not built`)
  return beside
}

/**
 * A thread that is kept for the next task.
 * @returns what runs one task in it; throws RangeError where it is refused, Busy where too many wait
 */
export function threadFor<T, R>(name: string, limits: Limits): (task: T) => Promise<R> {
  const gate = pLimit(1)
  let held: Worker | null = null
  const start = () => {
    const worker = new Worker(program(name), {
      resourceLimits: { maxOldGenerationSizeMb: limits.heapMb, maxYoungGenerationSizeMb: 64 },
    })
    // One that ends between two tasks is not asked again.
    const ended = () => {
      if (held === worker) held = null
    }
    worker.on('error', ended)
    worker.on('exit', ended)
    return worker
  }

  async function run(task: T): Promise<R> {
    const worker = (held ??= start())
    worker.ref()
    try {
      return await new Promise<R>((done, fail) => {
        const end = (settle: () => void) => {
          clearTimeout(timer)
          worker.off('message', onMessage)
          worker.off('error', onError)
          worker.off('exit', onExit)
          settle()
        }
        const gone = (why: Error) => {
          held = null
          void worker.terminate()
          end(() => fail(why))
        }
        const onMessage = (m: FromThread<R>) => {
          if ('done' in m) end(() => done(m.done))
          else if ('refused' in m) end(() => fail(new RangeError(m.refused)))
          // What failed unforeseen left the thread in a state that nobody knows.
          else gone(new Error(m.failed))
        }
        const onError = (e: { code?: string }) =>
          gone(e.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new RangeError(limits.tooMuch) : new Error(`the thread ${name} failed`))
        const onExit = () => gone(new Error(`the thread ${name} ended`))
        const timer = setTimeout(() => gone(new RangeError(limits.tooMuch)), limits.longestMs)
        worker.on('message', onMessage)
        worker.on('error', onError)
        worker.on('exit', onExit)
        worker.postMessage(task)
      })
    } finally {
      // A thread that waits for its next task keeps no process alive.
      held?.unref()
    }
  }

  return task => {
    if (gate.pendingCount >= limits.mostWaiting) throw new Busy()
    return gate(() => run(task))
  }
}
