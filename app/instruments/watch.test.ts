import { describe, expect, it } from 'vitest'
import { LinkWatch } from './watch'

/** A link of its own clock: `at(s)` tells by which way it answers then, or null where it does not. */
async function watched(untilS: number, at: (s: number) => string | null, during: Record<number, (w: LinkWatch) => void> = {}) {
  let ms = 0
  const stop = new AbortController()
  const pending = new Map(Object.entries(during).map(([s, run]) => [Number(s) * 1000, run]))
  const step = (by: number) => {
    ms += by
    for (const [when, run] of pending)
      if (ms >= when) {
        pending.delete(when)
        run(watch)
      }
    if (ms >= untilS * 1000) stop.abort()
  }
  const watch: LinkWatch = new LinkWatch({
    everyMs: 1000,
    now: () => ms,
    told: () => {},
    ask: () => {
      const via = at(ms / 1000)
      step(via === null ? 2000 : 40)
      return via === null ? Promise.reject(new Error('nothing')) : Promise.resolve(via)
    },
    pause: by => {
      step(by)
      return Promise.resolve()
    },
  })
  return { state: await watch.run(stop.signal), drill: watch.drill }
}

describe('a link that is watched', () => {
  it('without a gap loses nothing', async () => {
    const { state } = await watched(600, () => 'a')
    expect(state).toMatchObject({ drops: 0, lostS: 0, longestS: 0, down: false, via: 'a' })
    expect(state.seconds).toBeGreaterThanOrEqual(600)
  })
  it('counts each gap once, however often it asked in it, and how long it was', async () => {
    const { state } = await watched(300, s => ((s >= 50 && s < 61) || (s >= 200 && s < 203) ? null : 'a'))
    expect(state.drops).toBe(2)
    expect(state.longestS).toBeGreaterThan(10)
    expect(state.longestS).toBeLessThan(14)
    expect(state.lostS).toBeGreaterThan(13)
    expect(state.lostS).toBeLessThan(19)
  })
  it('still lost at the end: the open gap counts', async () => {
    const { state } = await watched(100, s => (s >= 60 ? null : 'a'))
    expect(state).toMatchObject({ drops: 1, down: true })
    expect(state.lostS).toBeGreaterThan(38)
  })
  it('a drill: the other address answers, and the first one again', async () => {
    const way = (s: number) => (s < 20 ? 'a' : s < 34 ? null : s < 75 ? 'b' : 'a')
    const { drill } = await watched(120, way, { 20: w => w.pull(), 60: w => w.putBack() })
    expect(drill.switchS).toBeGreaterThan(13)
    expect(drill.switchS).toBeLessThan(18)
    expect(drill.backS).toBeGreaterThan(14)
    expect(drill.backS).toBeLessThan(18)
  })
  it('a drill behind one address: the gap tells; without a gap nothing is made up', async () => {
    const gap = await watched(120, s => (s >= 20 && s < 30 ? null : 'a'), { 20: w => w.pull() })
    expect(gap.drill.switchS).toBeGreaterThan(9)
    const none = await watched(60, () => 'a', { 20: w => w.pull() })
    expect(none.drill).toEqual({ switchS: null, backS: null })
  })
})
