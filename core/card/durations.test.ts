/** Whole jobs, by what the trade says of them. */
import { describe, expect, it } from 'vitest'
import { demoScenario } from '../../demo/scenario'
import { assess } from '../judge/assess'
import { planDay } from './day'
import { pulling, TAKES } from './durations'
import type { Minutes } from './durations'
import { byOne } from './order'
import { stepsOf } from './steps'

/** What is done on site of a demo job. */
function onSite(kind: string) {
  const { document } = demoScenario().jobs.find(j => j.document.jobs[0]!.kind === kind && j.document.nodes.length)!
  const steps = stepsOf(document, assess(document, { paths: {} }, { atUtc: '2026-04-09T10:00:00.000Z' }))
  return steps.filter(s => s.stand !== 'in coverage')
}
const hours = (minutes: number) => minutes / 60

// Each source: common practice (no source).
describe('how long it takes', () => {
  it('an owner’s kit, bracket in reach and cables through a window, takes one to three hours', () => {
    const { labels, dryRun, build, mount, raise, box, hung, join, plugIn, aim, seal, prove, clear } = TAKES
    const kit: Minutes[] = [labels, dryRun, build, mount, raise, box, hung, join, plugIn, aim, seal, prove, clear]
    const took = hours(byOne([...kit, pulling(6, false), pulling(4, false)].map(minutes => ({ minutes }))).likely)
    expect(took).toBeGreaterThan(1)
    expect(took).toBeLessThan(3)
  })
  it('a roof and a router take two people half a day', () => {
    const took = hours(planDay(onSite('home'), 2).lengthMin)
    expect(took).toBeGreaterThan(3)
    expect(took).toBeLessThan(5)
  })
  it('a boat takes two days: more work than fits one, and a core that hardens overnight', () => {
    const steps = onSite('boat')
    expect(hours(byOne(steps).likely)).toBeGreaterThan(8)
    expect(hours(planDay(steps, 2).lengthMin)).toBeGreaterThan(14)
    expect(hours(byOne(steps).likely)).toBeLessThan(16)
  })
})
