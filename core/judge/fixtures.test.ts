import { said } from '../../tests/support/said'
import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { BARE_FIXTURE } from '../job/defaults'
import { ridgeM } from '../site/frame'
import type { Fixture } from '../job/schema'

const thing = (kind: Fixture['kind'], at: { eastM: number; northM: number; upM: number }, more: Partial<Fixture> = {}) => ({
  kind,
  name: '',
  ...BARE_FIXTURE,
  ...at,
  ...more,
})
const codes = (h: House, code: string) => h.assess().findings.filter(f => f.code === code)
const amp = (h: House) => h.doc.nodes.find(n => n.part?.kind === 'amplifier')!

describe('a socket within the lead of the box', () => {
  it('while none was looked for it is open, and stands before a hole', () => {
    const h = new House()
    expect(codes(h, 'place.socket')).toEqual([])
    expect(codes(h, 'place.no-feed')).toHaveLength(1)
    expect(h.assess().drill.assumed.some(a => said(a.what).startsWith('Which socket'))).toBe(true)
  })
  it('one beside the box settles it', () => {
    const h = new House()
    const { eastM, northM, upM } = amp(h)
    h.add('fixtures', thing('mains socket', { eastM: eastM + 0.5, northM, upM: upM - 0.8 }))
    expect(codes(h, 'place.socket')).toEqual([])
    expect(codes(h, 'place.no-feed')).toEqual([])
    expect(h.assess().drill.assumed.some(a => said(a.what).startsWith('Which socket'))).toBe(false)
  })
  it('one four metres off does not reach, and the box goes to it at a press', () => {
    const h = new House()
    const { eastM, northM, upM } = amp(h)
    h.add('fixtures', thing('12 V feed', { eastM, northM, upM }))
    h.add('fixtures', thing('mains socket', { eastM: eastM + 4, northM, upM: 0.4 }))
    const [f] = codes(h, 'place.socket')
    expect(f!.severity).toBe('fix')
    h.cure(f!.cures[0]!)
    expect(codes(h, 'place.socket')).toEqual([])
    expect(amp(h).eastM).toBe(eastM + 4)
  })
})

describe('a satellite terminal', () => {
  const over = (h: House) => ({ eastM: 0, northM: 0, upM: ridgeM(h.doc.sites[0]!) + 0.6 })
  it('over the ridge, with nothing about, has its sky', () => {
    const h = new House('router')
    h.add('fixtures', thing('satellite terminal', over(h)))
    expect(codes(h, 'place.sky').map(f => f.severity)).toEqual(['good'])
  })
  it('trees to the south hide their share, and less of a narrower window', () => {
    const h = new House('router')
    const id = h.add('fixtures', thing('satellite terminal', over(h)))
    h.add('obstacles', { stopId: null, name: 'Oaks', fromDeg: 150, toDeg: 230, distanceM: 12, heightM: 24 })
    const wide = codes(h, 'place.sky')[0]!
    expect(wide.severity).toBe('fix')
    expect(wide.sentence).toContain('Oaks')
    h.set('fixtures', id, { halfFieldDeg: 30 })
    expect(codes(h, 'place.sky')[0]!.severity).toBe('good')
  })
  it('behind a roof unit is better elsewhere on the roof, and the cure does what it says', () => {
    const h = new House('router')
    const { eastM, northM, upM } = over(h)
    h.add('fixtures', thing('satellite terminal', { eastM, northM, upM: upM - 0.2 }))
    h.add(
      'fixtures',
      thing('roof unit', { eastM: eastM + 0.5, northM, upM: upM - 0.6 }, { widthM: 1, heightM: 1.4, name: 'Cowl' }),
    )
    const before = codes(h, 'place.sky')[0]!
    expect(before.severity).toBe('fix')
    const cures = h.cures('place.sky')
    expect(cures.length).toBeGreaterThan(0)
    const said = cures[0]!
    h.cure(said)
    const after = codes(h, 'place.sky')[0]!
    expect(said.enough).toBe(after.severity === 'good')
  })
  it('is judged where nothing is laid out yet', () => {
    const h = new House(null)
    h.add('fixtures', thing('satellite terminal', over(h)))
    expect(codes(h, 'place.sky')).toHaveLength(1)
  })
})

describe('the router’s own Wi-Fi', () => {
  it('that does not reach the camera at the gate is said with the level it has there', () => {
    const h = new House('router')
    h.set('spots', h.spot('Beside the house').id, { hangs: 'camera at the gate', eastM: -260 })
    const [f] = codes(h, 'choose.wifi')
    expect(f!.severity).toBe('fix')
    expect(f!.title).toMatch(/camera at the gate −\d+ dBm/)
    h.set('spots', h.spot('Beside the house').id, { eastM: -12 })
    expect(codes(h, 'choose.wifi')).toEqual([])
  })
  it('slower than what was agreed caps the promise, unless it is used on a lead', () => {
    const h = new House('router', 'home', { agreedDownMbps: 30 })
    h.read('Kitchen', -85, 15)
    const router = h.doc.nodes.find(n => n.part?.kind === 'router')!
    h.set('nodes', router.id, { part: { ...router.part, wifiMbps: 3 } as never })
    expect(codes(h, 'choose.hands-on')[0]!.title).toContain('3 Mbit/s by its Wi-Fi')
    expect(h.assess().promise!.down.high).toBeLessThanOrEqual(3)
  })
})
