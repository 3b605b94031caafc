import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { treeOf } from './tree'
import { shortName } from './names'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const names = (h: House) => tree(h).nodes.map(n => n.name)
const named = (h: House, id: string) => tree(h).nodes.find(n => n.node.id === id)!.name

describe('what parts are called', () => {
  it('by what they are and where they stand; one box of its kind without its room', () => {
    const h = new House('booster')
    const room = h.add('spots', { name: 'Kitchen', eastM: 0.6, northM: 0, upM: 1.2, indoors: true, needed: true })
    expect(named(h, h.donor.id)).toBe('Roof log-periodic')
    expect(named(h, h.server.id)).toBe('Dome, Kitchen')
    expect(names(h)).toContain('Amplifier')
    expect(names(h)).toContain('Arrestor')
    h.set('spots', room, { name: 'Pantry' })
    expect(named(h, h.server.id)).toBe('Dome, Pantry')
  })
  it('two of a kind are numbered as they were put in, each with its room', () => {
    const h = new House('booster', 'building')
    const domes = tree(h).servers
    expect(domes.length).toBeGreaterThan(1)
    domes.forEach((d, i) => expect(d.name).toMatch(new RegExp(`^Dome ${i + 1}(, .+)?$`)))
    expect(new Set(domes.map(d => d.name)).size).toBe(domes.length)
  })
  it('what is no adapter has a name of its own in every kit', () => {
    for (const kind of ['home', 'building', 'vehicle', 'boat'] as const)
      for (const approach of ['router', 'booster'] as const) {
        const own = tree(new House(approach, kind)).nodes.filter(n => n.part.kind !== 'adapter')
        expect(new Set(own.map(n => n.name)).size, `${kind} ${approach}`).toBe(own.length)
        for (const n of own) expect(n.name.length).toBeLessThanOrEqual(40)
      }
  })
  it('a pole on a boat is its mast, on a van its roof; under the eaves it is the wall', () => {
    expect(tree(new House('router', 'boat')).donors[0]!.name).toBe('Mast omni')
    expect(tree(new House('router', 'vehicle')).donors[0]!.name).toBe('Roof omni')
    const h = new House('router')
    h.set('nodes', h.donor.id, { upM: 2, eastM: -9 })
    expect(named(h, h.donor.id)).toBe('Wall panel')
  })
  it('a name that somebody gave stands, and blanks are none', () => {
    const h = new House('booster')
    h.set('nodes', h.server.id, { name: 'Sam’s dome' })
    expect(named(h, h.server.id)).toBe('Sam’s dome')
    h.set('nodes', h.server.id, { name: '  ' })
    expect(named(h, h.server.id)).toMatch(/^Dome/)
  })
  it('without its room it fits beside a part', () => {
    expect(shortName('Dome 3, Workshop')).toBe('Dome 3')
    expect(shortName('Roof panel')).toBe('Roof panel')
  })
})
