import type { Readers } from '../workers/files'

type Answer<R> = { value: R } | { refused: string }

const worker = (): Worker => new Worker(new URL('../workers/files.worker.ts', import.meta.url), { type: 'module', name: 'files' })

/** Longest that a file is read, ms: a plan of the largest size takes about one second. */
export const LONGEST_MS = 10_000

/**
 * Reads a file in a worker of its own, which is ended when it has answered or has taken too long.
 * @throws RangeError with what is wrong with the file
 */
export function parsed<K extends keyof Readers>(
  what: K,
  input: Parameters<Readers[K]>[0],
  { longestMs = LONGEST_MS, make = worker } = {},
): Promise<Awaited<ReturnType<Readers[K]>>> {
  const reader = make()
  return new Promise<Awaited<ReturnType<Readers[K]>>>((done, fail) => {
    const late = setTimeout(
      () => fail(new RangeError(`Reading the file took more than ${longestMs / 1000} s and was stopped: it may be damaged.`)),
      longestMs,
    )
    const end = (then: () => void) => () => {
      clearTimeout(late)
      then()
    }
    reader.addEventListener('message', (e: MessageEvent<Answer<Awaited<ReturnType<Readers[K]>>>>) =>
      end(() => ('value' in e.data ? done(e.data.value) : fail(new RangeError(e.data.refused))))(),
    )
    reader.addEventListener(
      'error',
      end(() => fail(new RangeError('What reads this file did not load: try again.'))),
    )
    reader.postMessage({ what, input })
  }).finally(() => reader.terminate())
}
