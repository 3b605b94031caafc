import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { buildingOf } from '../site/building'
import { wifiReach, wifiShort } from './wifi'

const house = () => new House('router')
const reach = (h: House, eastM = 0) => wifiReach(h.doc, buildingOf(h.doc), { eastM, northM: 0, upM: 1 })

describe('a router’s own Wi-Fi', () => {
  it('is asked for where it must be proved and where something hangs on it, nowhere else', () => {
    const h = house()
    expect(reach(h).map(r => r.spot.name)).toEqual(['Kitchen'])
    h.set('spots', h.spot('Beside the house').id, { hangs: 'camera at the gate' })
    expect(
      reach(h)
        .map(r => r.spot.name)
        .sort(),
    ).toEqual(['Beside the house', 'Kitchen'])
  })
  it('works well a room away, and not at a gate two hundred metres off', () => {
    // Common practice (no source).
    const h = house()
    expect(reach(h, 2)[0]!.state).toBe('good')
    h.set('spots', h.spot('Beside the house').id, { hangs: 'camera', eastM: -200 })
    expect(wifiShort(reach(h, 5)).map(s => s.name)).toEqual(['Beside the house'])
  })
  it('a camera thirty metres from the house still hangs on it', () => {
    // Common practice (no source): some 45 m inside a building and 90 m in the open at 2.4 GHz are what is told.
    const h = house()
    h.set('spots', h.spot('Beside the house').id, { hangs: 'camera', eastM: -35 })
    expect(wifiShort(reach(h, 0))).toEqual([])
  })
  it('the slower band reaches further, always', () => {
    for (const r of reach(house(), -5)) expect(r.slowDbm).toBeGreaterThan(r.fastDbm)
  })
})
