import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { cardOf } from '../card/card'
import { cardPaper } from './card-paper'
import type { Block } from './report'

const done = (h: House, key: string) => h.check('step', key)
function paper(h: House, units: 'metric' | 'imperial' = 'metric') {
  const a = h.assess()
  const card = cardOf(h.doc, a)
  return { card, report: cardPaper({ document: h.doc, a, card, units, crew: 'Harbour crew', day: '2026-04-03' }) }
}
const tables = (blocks: Block[]) => blocks.flatMap(b => (b.kind === 'table' ? [b] : []))
const stepRows = (blocks: Block[]) => tables(blocks).flatMap(b => (b.head.includes('Step') ? b.rows : []))

describe('the card on paper', () => {
  it('has every open step once, in the order of the card, and none that is done', () => {
    const h = new House('booster')
    done(h, 'fetch')
    const { card, report } = paper(h)
    const open = card.steps.filter(s => !s.done)
    expect(stepRows(report.blocks).map(r => r[1])).toEqual(open.map(s => s.words))
    expect(stepRows(report.blocks).some(r => r[1] === 'Fetch what needs a network')).toBe(false)
  })
  it('names each gate that an open step stands behind with all its facts, and room for a figure', () => {
    const gates = tables(paper(new House('booster')).report.blocks).filter(b => b.head.includes('True now'))
    expect(gates.map(g => g.title.split(':')[0])).toEqual([
      'Not planned yet',
      'Before anyone climbs',
      'Before a stepladder indoors',
      'Before a hole',
      'Before anything is raised',
      'Before there is power',
      'Before it transmits',
    ])
    const rows = gates.flatMap(g => g.rows.map(r => r[1]!))
    expect(rows).toContain('Gust now, by a meter or the nearest report: ____ m/s')
    // What was said of one hole is asked for anew at the next.
    expect(rows.filter(r => r.startsWith('The owner said yes to this hole')).length).toBeGreaterThan(1)
  })
  it('what goes up stands before its climb, and once', () => {
    const { blocks } = paper(new House('router')).report
    const bundles = blocks.flatMap((b, i) => (b.kind === 'list' && b.title === 'To take up' ? [i] : []))
    expect(bundles.length).toBeGreaterThan(0)
    for (const i of bundles) expect(blocks[i + 1]).toMatchObject({ title: expect.stringMatching(/^One climb/) as unknown })
  })
  it('lengths are told in feet where feet are wanted', () => {
    const needs = (units: 'metric' | 'imperial') =>
      stepRows(paper(new House('router'), units).report.blocks).flatMap(
        r => /needs [\d.]+.(\w+) of [\d.]+.(\w+)/.exec(r[3]!)?.slice(1) ?? [],
      )
    expect(new Set(needs('metric'))).toEqual(new Set(['m']))
    expect(new Set(needs('imperial'))).toEqual(new Set(['ft']))
    expect(needs('imperial').length).toBe(needs('metric').length)
  })
  it('where nothing is laid out it says so by having no step', () => {
    expect(stepRows(paper(new House(null)).report.blocks)).toEqual([])
  })
})
