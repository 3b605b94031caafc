import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { looseSteps, removeSteps } from '../fitting/edits'
import { cableLabels } from '../install/pick-list'
import { changesOf } from '../job/edits'
import { endNames, isCable, treeOf } from './tree'
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
  it('those that stay keep their numbers when one is taken out, and a new one takes the number that is free', () => {
    const h = new House('booster', 'building')
    const before = new Map(tree(h).servers.map(d => [d.node.id, shortName(d.name)]))
    const [, second] = tree(h).servers
    h.apply(changesOf(removeSteps(tree(h), second!), h.id))
    const after = tree(h).servers
    expect(after).toHaveLength(before.size - 1)
    for (const d of after) expect(shortName(d.name)).toBe(before.get(d.node.id))
    h.apply(changesOf(looseSteps(h.doc.designs[0]!, second!.part, second!.node), h.id))
    const free = [...before.values()][1]
    expect(
      names(h)
        .map(shortName)
        .filter(n => n === free),
    ).toHaveLength(1)
  })
  it('of two with one number the first keeps it, and the last that is left keeps its own', () => {
    const h = new House('booster', 'building')
    const [a, b, ...others] = tree(h).servers
    for (const n of [a!, b!]) h.set('nodes', n.node.id, { number: 7 })
    expect(shortName(named(h, a!.node.id))).toBe('Dome 7')
    expect(shortName(named(h, b!.node.id))).toBe('Dome 1')
    for (const n of [b!, ...others]) h.remove('nodes', n.node.id)
    expect(shortName(named(h, a!.node.id))).toBe('Dome 7')
  })
  it('a cable is called by what it leads to, behind the adapter that is screwed on its end', () => {
    const h = new House('router')
    const joint = tree(h).joints.find(j => [j.from, j.to].some(e => e.at.part.kind === 'adapter') && isCable(j))!
    expect(joint).toBeDefined()
    expect(endNames(joint)).toMatch(/Router|Roof panel|Arrestor/)
    expect(endNames(joint)).not.toMatch(/Adapter/)
    for (const l of cableLabels(tree(h), 'A')) expect(`${l.from} ${l.to}`).not.toMatch(/Adapter/)
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
