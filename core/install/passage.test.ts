import { expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { BARE_FIXTURE } from '../job/defaults'
import { applyChanges } from '../job/changes'
import { buildingOf } from '../site/building'
import { passersOf } from './passage'
import { kitChanges } from '../fitting/usual-kit'

it('the lead of a box outdoors goes to the source that was chosen, else to the nearest', () => {
  const h = new House('router')
  h.doc = applyChanges(h.doc, kitChanges(h.doc, h.doc.designs[0]!, 'outdoors', { bearingDeg: 270, newId: h.id }))
  // Its data cable is not planned: where it would go is supposed.
  for (const r of h.doc.runs.filter(x => x.partId === 'data-6-out')) h.remove('runs', r.id)
  const socket = (eastM: number) =>
    h.add('fixtures', { ...BARE_FIXTURE, kind: 'mains socket', name: '', eastM, northM: 0, upM: 0.4 })
  const [near, far] = [socket(-5), socket(5)]
  const { eastM } = h.part('router')
  expect(Math.abs(eastM + 5)).toBeLessThan(Math.abs(eastM - 5))
  const leadTo = () => {
    const { tree } = h.assess()
    const building = buildingOf(h.doc)
    const lead = passersOf(tree!, [], 'factory', { building, fixtures: h.doc.fixtures }).find(p => p.name.startsWith('lead of'))
    return (lead!.to as { id?: string }).id
  }
  expect(leadTo()).toBe(near)
  h.set('nodes', h.part('router').id, { sourceId: far })
  expect(leadTo()).toBe(far)
})
