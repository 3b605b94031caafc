import { proxy, wrap } from 'comlink'
import type { Remote } from 'comlink'
import type { Engine } from '../workers/engine.worker'

let engine: Remote<Engine> | null = null

/** The worker, made once. */
export function useEngine(): { engine: Remote<Engine>; proxy: typeof proxy } {
  engine ??= wrap<Engine>(new Worker(new URL('../workers/engine.worker.ts', import.meta.url), { type: 'module', name: 'engine' }))
  return { engine, proxy }
}
