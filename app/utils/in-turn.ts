/**
 * Runs work one at a time. What is asked for while it runs is one more run after it, since that which
 * runs may not have seen what has changed meanwhile; whoever asked waits for that one.
 */
export function inTurn(work: () => Promise<void>): () => Promise<void> {
  let running: Promise<void> | null = null
  let next: Promise<void> | null = null
  const begin = (): Promise<void> => {
    running = work().finally(() => (running = null))
    return running
  }
  return () => {
    if (!running) return begin()
    const again = () => {
      next = null
      return begin()
    }
    next ??= running.then(again, again)
    return next
  }
}

/**
 * Calls of one work one after another, each with what it was called with: a call sees all that the one before has done.
 * @returns the same, in line
 */
export function inLine<A extends unknown[], R>(work: (...of: A) => Promise<R>): (...of: A) => Promise<R> {
  let last: Promise<unknown> = Promise.resolve()
  return (...of) => {
    const mine = last.then(() => work(...of))
    last = mine.catch(() => undefined)
    return mine
  }
}
