import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { betterThanUsual, sends, USUAL_CONTROL } from './upload'

/** A mast of 18 dBm an element: so much is lost where this is read. */
const at = (rsrpDbm: number) => ({ heardDb: 18 - rsrpDbm, upDb: 18 - rsrpDbm })

describe('what a device sends', () => {
  it('far off it is at its limit and gains by every dB; near, power control takes the gain back', () => {
    const gains = (rsrp: number) => sends(at(rsrp + 6), USUAL_CONTROL, 10) / sends(at(rsrp), USUAL_CONTROL, 10)
    expect(gains(-116)).toBeGreaterThan(2)
    expect(gains(-82)).toBeLessThan(1.15)
  })
  it('never falls as the path gets better, nor reaches beyond the ceiling of 2 bit/s/Hz (TR 36.942 annex A)', () => {
    let last = 0
    for (let rsrp = -140; rsrp <= -60; rsrp++) {
      const now = sends(at(rsrp), USUAL_CONTROL, 10)
      expect(now).toBeGreaterThanOrEqual(last)
      last = now
    }
    expect(sends(at(-60), USUAL_CONTROL, 10, 40)).toBeCloseTo(20, 6)
  })
  it('power as TS 36.213 §5.1.1.1 has it, by hand: one block over 120 dB at P0 −95, α 1 asks for 25 dBm and gets 23', () => {
    // 23 − 120 dB arrive over −174 + 10·log 180 kHz + 5 + 3 = −113.45 dBm: 16.4 dB, which gives the ceiling of 0.18 MHz.
    const one = sends({ heardDb: 120, upDb: 120 }, { p0Dbm: -95, alpha: 1 }, 0.2)
    expect(one).toBeCloseTo(0.2 * 2, 6)
    expect(sends({ heardDb: 120, upDb: 130 }, { p0Dbm: -95, alpha: 1 }, 0.2)).toBeCloseTo(
      0.2 * 0.4 * Math.log2(1 + 10 ** ((23 - 130 + 113.45) / 10)),
      2,
    )
  })
  it('what a measured upload tells gives it back', () => {
    for (const rsrp of [-120, -110, -100, -90, -80])
      for (const mbps of [0.2, 0.4, 2, 9]) {
        const better = betterThanUsual(mbps, at(rsrp), USUAL_CONTROL, 10)
        expect(sends(at(rsrp), USUAL_CONTROL, 10, better), `${mbps} at ${rsrp}`).toBeCloseTo(mbps, 2)
      }
  })
})

describe('an upload promised', () => {
  /** 0.4 Mbit/s where so much was read, −80 outside. */
  const promised = (roomDbm: number, ridgeDbm = -80) => {
    const h = new House('router')
    for (let i = 0; i < 3; i++) h.reads('Kitchen', roomDbm, 6).speed('Kitchen', 3, 0.4).reads('Ridge', ridgeDbm, 12)
    return h.assess().promise!.up
  }
  it('becomes several where the device was at its limit', () => {
    const up = promised(-116)
    expect(up.median).toBeGreaterThan(2)
    expect(up.high).toBeLessThan(20)
  })
  it('hardly changes where it was not', () => {
    const up = promised(-88)
    expect(up.median).toBeGreaterThan(0.35)
    expect(up.median).toBeLessThan(0.8)
  })
  it('is reckoned to where the antenna will be: a ridge of −110 and one of −80 are not alike', () => {
    expect(promised(-116, -80).median).toBeGreaterThan(1.4 * promised(-116, -110).median)
  })
  it('stands on no other place’s test: without a level there it is assumed, and said', () => {
    const h = new House('router')
    for (let i = 0; i < 3; i++) h.reads('Ridge', -80, 12).speed('Kitchen', 3, 0.4)
    const p = h.assess().promise!
    expect(p.assumptions.map(a => a.code)).toContain('upload')
    for (let i = 0; i < 3; i++) h.reads('Kitchen', -116, 6)
    expect(h.assess().promise!.assumptions.map(a => a.code)).not.toContain('upload')
  })
})
