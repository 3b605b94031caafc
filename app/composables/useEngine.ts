import { proxy, releaseProxy, wrap } from 'comlink'
import type { Remote } from 'comlink'
import type { Engine } from '../workers/engine.worker'

let running: { worker: Worker; engine: Remote<Engine> } | null = null

function start(): { worker: Worker; engine: Remote<Engine> } {
  const worker = new Worker(new URL('../workers/engine.worker.ts', import.meta.url), { type: 'module', name: 'engine' })
  return { worker, engine: wrap<Engine>(worker) }
}

/** Always the worker that runs now: what asks keeps hold of this, and never of one that was ended. */
const engine = new Proxy({} as Remote<Engine>, {
  get: (_none, name) => (running ??= start()).engine[name as keyof Remote<Engine>],
})

// What a worker holds in memory is one member's: masts, paths, ground of the crew.
ofMember(() => {
  running?.engine[releaseProxy]()
  running?.worker.terminate()
  running = null
})

/** The worker, made when it is first asked for and anew for every member. */
export function useEngine(): { engine: Remote<Engine>; proxy: typeof proxy } {
  return { engine, proxy }
}
