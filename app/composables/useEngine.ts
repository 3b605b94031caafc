import { proxy, wrap } from 'comlink'
import type { Remote } from 'comlink'
import type { Engine } from '../workers/engine.worker'

/** Resolves once its program runs. @throws Error where its file did not come */
function started(worker: Worker): Promise<void> {
  return new Promise((done, failed) => {
    worker.addEventListener('message', () => done(), { once: true })
    worker.addEventListener('error', () => failed(new Error('The sums did not load.')), { once: true })
  })
}

/** One worker of one member, from its first call to its end; calls wait until it runs, in their order. */
class Running {
  private over = false
  private worker: Worker | null = null
  readonly engine = this.start()

  private async start(): Promise<Remote<Engine>> {
    // Its file may not come over a bad link.
    for (let tried = 1; ; tried++) {
      const worker = new Worker(new URL('../workers/engine.worker.ts', import.meta.url), { type: 'module', name: 'engine' })
      this.worker = worker
      try {
        await started(worker)
        return wrap<Engine>(worker)
      } catch {
        worker.terminate()
        await new Promise(r => setTimeout(r, pauseMs(tried)))
        // Of a member who has left nothing is answered any more.
        if (this.over) return new Promise(() => {})
      }
    }
  }

  end(): void {
    this.over = true
    this.worker?.terminate()
  }
}

let running: Running | null = null

/** Always the worker that runs now: what asks keeps hold of this, and never of one that was ended. */
const engine = new Proxy({} as Remote<Engine>, {
  get:
    (_none, name) =>
    async (...given: unknown[]) => {
      const ours = await (running ??= new Running()).engine
      return (ours[name as keyof Remote<Engine>] as (...a: unknown[]) => unknown)(...given)
    },
})

// What a worker holds in memory is one member's: masts, paths, ground of the crew.
ofMember(() => {
  running?.end()
  running = null
})

/** The worker, made when it is first asked for and anew for every member. */
export function useEngine(): { engine: Remote<Engine>; proxy: typeof proxy } {
  return { engine, proxy }
}
