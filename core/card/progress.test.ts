import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { stepsOf } from './steps'
import { fitState, progressOf } from './progress'

const minutes = (m: number) => [m, m, m] as const
const step = (id: string, m: number) => ({ id, minutes: minutes(m), shown: false })

describe('how far a card is', () => {
  it('nothing laid out: nothing to be far in', () => {
    const h = new House(null)
    expect(progressOf(stepsOf(h.doc, h.assess()), h.doc)).toBeNull()
  })
  it('counts by the last word on each step, and adds up what is open', () => {
    const h = new House('router')
    const say = (key: string, done: boolean, atUtc: string, reason: string | null = null) =>
      h.check('step', key, { done, reason, atUtc })
    const steps = [step('a', 30), step('b', 60), step('c', 90)]
    const now = () => progressOf(steps, h.doc)!
    expect(fitState(now())).toMatchObject({ words: '3 steps, about 3 h', done: 0, state: 'empty' })
    say('a', true, '2026-04-03T10:00:00.000Z')
    expect(fitState(now())).toMatchObject({ words: '1 of 3 steps, 2.5 h left', state: 'open' })
    say('b', false, '2026-04-03T10:10:00.000Z', 'a loom is behind it')
    expect(fitState(now())).toMatchObject({ words: 'one step not so', state: 'trouble' })
    say('a', false, '2026-04-03T10:20:00.000Z')
    say('b', false, '2026-04-03T10:30:00.000Z')
    expect(now()).toMatchObject({ done: 0, stopped: 0, leftMin: 180 })
    for (const s of steps) say(s.id, true, '2026-04-03T11:00:00.000Z')
    expect(fitState(now())).toMatchObject({ words: 'all 3 steps done', done: 1, state: 'done' })
  })
  it('less than an hour is told in fives of minutes', () => {
    const h = new House('router')
    expect(fitState(progressOf([step('a', 22)], h.doc)!).words).toBe('one step, about 25 min')
  })
})
