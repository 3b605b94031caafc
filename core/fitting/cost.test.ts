import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { treeOf } from '../chain/tree'
import { boughtCables, costClassOf, costPoints, hoursOf } from './cost'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)

describe('what a kit takes', () => {
  it('an owner’s home kit is one to three hours and half a day with a roof; a building is days', () => {
    // Common practice (no source).
    const home = hoursOf(tree(new House('booster')), 2, 'factory')
    expect(home).toBeGreaterThanOrEqual(3)
    expect(home).toBeLessThanOrEqual(8)
    expect(hoursOf(tree(new House('booster', 'building')), 10, 'factory')).toBeGreaterThan(2 * home)
  })
  it('crimping on site takes longer, a hole more takes longer', () => {
    const t = tree(new House('router'))
    expect(hoursOf(t, 1, 'crimped')).toBeGreaterThan(hoursOf(t, 1, 'factory'))
    expect(hoursOf(t, 5, 'factory')).toBeGreaterThan(hoursOf(t, 1, 'factory'))
  })
  it('nothing costs nothing; a router kit is dearer than nothing, a building dearest', () => {
    expect(costClassOf(0)).toBe(0)
    const router = costClassOf(costPoints(tree(new House('router'))))
    const building = costClassOf(costPoints(tree(new House('booster', 'building'))))
    expect(router).toBeGreaterThanOrEqual(1)
    expect(building).toBe(3)
    expect(router).toBeLessThan(building)
  })
  it('a longer cable is never cheaper', () => {
    const h = new House('router')
    const before = costPoints(tree(h))
    const run = boughtCables(tree(h))[0]!.run
    h.set('runs', run.id, { lengthM: run.lengthM + 20 })
    expect(costPoints(tree(h))).toBeGreaterThan(before)
  })
})
