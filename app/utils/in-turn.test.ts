import { describe, expect, it } from 'vitest'
import { inLine, inTurn } from './in-turn'

describe('work in turn', () => {
  it('runs once more for all that was asked meanwhile, and each waits for a run that began after it asked', async () => {
    let begun = 0
    let together = 0
    let most = 0
    const run = inTurn(async () => {
      begun++
      most = Math.max(most, ++together)
      await new Promise(done => setTimeout(done, 5))
      together--
    })
    const first = run()
    const later = [run(), run(), run()]
    expect(begun).toBe(1)
    await Promise.all([first, ...later])
    expect([begun, most]).toEqual([2, 1])
  })

  it('goes on after a run that failed', async () => {
    let n = 0
    const run = inTurn(async () => {
      if (!n++) throw new Error('once')
    })
    const first = run()
    const second = run()
    await expect(first).rejects.toThrow('once')
    await second
    expect(n).toBe(2)
  })
})

describe('calls in line', () => {
  it('each begins when the one before is through, with what it was called with; one that fails holds up none', async () => {
    let held = { a: 0, b: 0 }
    const save = inLine(async (more: Partial<typeof held>) => {
      const before = held
      await new Promise(done => setTimeout(done, 3))
      if (more.a === -1) throw new Error('refused')
      held = { ...before, ...more }
      return held
    })
    const calls = [save({ a: 1 }), save({ b: 2 }), save({ a: -1 }), save({ b: 3 })]
    await expect(calls[2]).rejects.toThrow('refused')
    expect(await calls[1]).toEqual({ a: 1, b: 2 })
    expect(await calls[3]).toEqual({ a: 1, b: 3 })
  })
})
