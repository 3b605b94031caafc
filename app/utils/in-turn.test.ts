import { describe, expect, it } from 'vitest'
import { inTurn } from './in-turn'

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
