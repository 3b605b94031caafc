import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Busy, threadFor } from './thread'

const folder = mkdtempSync(join(tmpdir(), 'mv-thread-'))
const started = process.argv[1]!
const PROGRAM = `
  import { parentPort } from 'node:worker_threads'
  parentPort.on('message', task => {
    if (task === 'refuse') parentPort.postMessage({ refused: 'not this one' })
    else if (task === 'fail') parentPort.postMessage({ failed: 'at once' })
    else if (task === 'late') { parentPort.postMessage({ done: 'late' }); setTimeout(() => { throw new Error('afterwards') }, 20) }
    else if (task === 'end') process.exit(1)
    else if (task === 'spin') for (;;);
    else parentPort.postMessage({ done: task })
  })`

beforeAll(() => {
  mkdirSync(join(folder, 'workers'))
  writeFileSync(join(folder, 'workers', 'echo.mjs'), PROGRAM)
  process.argv[1] = join(folder, 'index.mjs')
})
afterAll(() => {
  process.argv[1] = started
  rmSync(folder, { recursive: true })
})

const LIMITS = { heapMb: 64, longestMs: 20_000, mostWaiting: 2, tooMuch: 'too much' }

describe('work in a thread of its own', () => {
  it('answers one task after another, also after one that was refused, failed, or ended it', async () => {
    const run = threadFor<string, string>('echo', LIMITS)
    for (const round of ['a', 'b', 'c']) {
      expect(await run(round)).toBe(round)
      await expect(run('refuse')).rejects.toThrow(RangeError)
      await expect(run('fail')).rejects.toThrow('at once')
      await expect(run('end')).rejects.toThrow('the thread echo ended')
      expect(await run('late')).toBe('late')
      await new Promise(done => setTimeout(done, 80))
    }
    expect(await run('still')).toBe('still')
  })
  it('ends a task that takes too long, and goes on', async () => {
    const run = threadFor<string, string>('echo', { ...LIMITS, longestMs: 5000 })
    await expect(run('spin')).rejects.toThrow('too much')
    expect(await run('next')).toBe('next')
  })
  it('takes no more than may wait', async () => {
    const run = threadFor<string, string>('echo', LIMITS)
    const some = ['1', '2', '3'].map(t => run(t))
    expect(() => run('4')).toThrow(Busy)
    expect(await Promise.all(some)).toEqual(['1', '2', '3'])
  })
})
