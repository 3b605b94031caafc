import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'

/** A booster in a house whose loop is not the limit; rooms read with it on, so far off the sum. */
function fitted(off: Record<string, number>) {
  const h = new House('booster').reads('Ridge', -92)
  const device = h.add('devices', { name: 'Phone', kind: 'phone', antennaDbi: null })
  const setupId = h.add('setups', {
    name: null,
    deviceId: device,
    simId: null,
    link: 'device',
    antenna: 'built in',
    designId: null,
    booster: 'on',
    bandLock: null,
    power: null,
    mark: 'after',
  })
  const sum = new Map(h.assess().rooms.map(r => [r.spot.name, r.rsrpDbm]))
  for (const [name, db] of Object.entries(off)) h.read(name, Math.round(sum.get(name)! + db), 15, { setupId, phase: 'after' })
  return h
}

describe('read after fitting, beside the sum', () => {
  it('one room 10 dB under it is told, with what may be behind it', () => {
    const h = fitted({ Kitchen: -10, Hall: 1, Study: 0 })
    const f = h.finding('level.room-off')!
    expect(f.title).toBe('Kitchen reads 10 dB less than the sum')
    expect(f.sentence).toContain('not drawn')
    expect(h.finding('level.rooms-off')).toBeUndefined()
  })
  it('of one room alone nothing is said of the others', () => {
    expect(fitted({ Kitchen: -10 }).finding('level.room-off')?.because).toContain('read one more')
    expect(fitted({ Kitchen: -10, Hall: 1, Study: 0 }).finding('level.room-off')?.because).toContain('2 other rooms read as')
  })
  it('all of them under it point at what they share, before the inside antennas', () => {
    const h = fitted({ Kitchen: -10, Hall: -8, Study: -9 })
    const f = h.finding('level.rooms-off')!
    expect(f.title).toBe('All rooms read about 9 dB less than the sum')
    expect(f.sentence).toContain('lowers its own gain')
    expect(h.finding('level.room-off')).toBeUndefined()
  })
  it('within what such a sum is good to nothing is told', () => {
    const h = fitted({ Kitchen: -4, Hall: 3, Study: 6 })
    expect(h.finding('level.room-off')).toBeUndefined()
    expect(h.finding('level.rooms-off')).toBeUndefined()
  })
  it('one that reads more is asked whether it hears the mast itself', () => {
    expect(fitted({ Kitchen: 12, Hall: 0, Study: -1 }).finding('level.room-off')?.sentence).toContain('booster off')
  })
})

describe('a pad', () => {
  it('is told to weaken the way up by as much', () => {
    const h = new House('booster', 'building').reads('Roof', -60)
    expect(h.finding('level.pad-up')).toBeUndefined()
    h.cured('level.overload')
    const pad = h.doc.nodes.find(n => n.part?.kind === 'pad')!.part as { lossDb: number }
    expect(h.finding('level.pad-up')?.title).toBe(`The pad takes ${pad.lossDb} dB from the way up too`)
  })
})
