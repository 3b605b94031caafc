import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bandByName, bandFromEntry, BANDS, earfcnToMHz, nrarfcnToMHz, resourceBlocks } from './bands'
import { freeSpaceLossDb } from './freespace'
import { gradeRsrp, gradeSinr, noiseLimitedSinrDb } from './grades'
import { interferenceDbm, noisePerElementDbm, rsrpToTotalDbm, rsrqDb, sinrDb, sumDbm, totalToRsrpDbm } from './levels'
import { degreesForLoss, gainToward, meanOverSphereDb, offAxisDb } from './pattern'
import { carrierRateMbps, DOWNLINK, spectralEfficiency, UPLINK } from './rate'

describe('channel numbers', () => {
  // 3GPP TS 36.101 table 5.7.3-1: first downlink channel is F_low; the rest by 0.1 MHz.
  it.each([
    [0, 2110, 'B1'],
    [1200, 1805, 'B3'],
    [1575, 1842.5, 'B3'],
    [3450, 925, 'B8'],
    [6150, 791, 'B20'],
    [6300, 806, 'B20'],
    [9210, 758, 'B28'],
    [39650, 2496, 'B41'],
    [66436, 2110, 'B66'],
    [68586, 617, 'B71'],
  ])('EARFCN %i is %f MHz in %s', (n, mhz, band) => {
    const r = earfcnToMHz(n)
    expect(r.frequencyMHz).toBeCloseTo(mhz, 6)
    expect(r.band.name).toBe(band)
  })
  it('every LTE band held ends where its last channel does', () => {
    for (const b of BANDS.filter(b => b.offset !== undefined)) {
      expect(earfcnToMHz(b.last!).frequencyMHz).toBeCloseTo(b.dlHighMHz - 0.1, 6)
      expect(earfcnToMHz(b.offset!).band).toBe(b)
    }
  })
  // 3GPP TS 38.104 §5.4.2.1: 5 kHz raster below 3 GHz, 15 kHz from 600000, 60 kHz from 2016667.
  it.each([
    [0, 0],
    [156_510, 782.55],
    [600_000, 3000],
    [636_666, 3549.99],
    [2_016_667, 24250.08],
  ])('NR-ARFCN %i is %f MHz', (n, mhz) => expect(nrarfcnToMHz(n).frequencyMHz).toBeCloseTo(mhz, 6))
  // 3GPP TS 38.104 table 5.4.2.3-1, downlink ranges, from memory; every NR band held.
  it.each([
    ['n1', 422_000, 434_000],
    ['n2', 386_000, 398_000],
    ['n3', 361_000, 376_000],
    ['n5', 173_800, 178_800],
    ['n7', 524_000, 538_000],
    ['n8', 185_000, 192_000],
    ['n12', 145_800, 149_200],
    ['n14', 151_600, 153_600],
    ['n20', 158_200, 164_200],
    ['n25', 386_000, 399_000],
    ['n28', 151_600, 160_600],
    ['n38', 514_000, 524_000],
    ['n40', 460_000, 480_000],
    ['n41', 499_200, 537_999],
    ['n48', 636_667, 646_666],
    ['n66', 422_000, 440_000],
    ['n71', 123_400, 130_400],
    ['n77', 620_000, 680_000],
    ['n78', 620_000, 653_333],
  ] as const)('NR band %s runs from channel %i to %i', (name, first, last) => {
    const band = BANDS.find(b => b.name === name)!
    expect(nrarfcnToMHz(first).frequencyMHz).toBeCloseTo(band.dlLowMHz, 1)
    expect(nrarfcnToMHz(last).frequencyMHz).toBeCloseTo(band.dlHighMHz, 1)
    for (const n of [first, last]) expect(nrarfcnToMHz(n).bands.map(b => b.name)).toContain(name)
  })
  it('every NR band held was looked at', () => expect(BANDS.filter(b => b.technology === 'NR')).toHaveLength(19))
  it('an NR number gives a set of bands', () => expect(nrarfcnToMHz(636_666).bands.map(b => b.name)).toEqual(['n77', 'n78']))
  it('refuses a number that is not whole', () => expect(() => nrarfcnToMHz(1.5)).toThrow('must be whole, got 1.5'))
  // 3GPP TS 36.101 table 5.7.3-1: B30 from 9770 at 2350 MHz, B48 from 55240 at 3550 MHz.
  it.each([
    [9770, 2350, 'B30'],
    [55_240, 3550, 'B48'],
    [5280, 758, 'B14'],
  ])('EARFCN %i of North America is %f MHz in %s', (n, mhz, band) =>
    expect(earfcnToMHz(n)).toMatchObject({ frequencyMHz: mhz, band: { name: band } }),
  )
  it('refuses a number in no band', () => {
    expect(() => earfcnToMHz(700_000)).toThrow(RangeError)
    expect(() => earfcnToMHz(1.5)).toThrow(RangeError)
    expect(() => nrarfcnToMHz(4_000_000)).toThrow(RangeError)
  })
  it('reads what a status page shows', () => {
    expect(bandByName('LTE Band 20')?.name).toBe('B20')
    expect(bandFromEntry('20', 'LTE')?.name).toBe('B20')
    expect(bandFromEntry('6300', 'LTE')?.name).toBe('B20')
    expect(bandFromEntry('78', 'NR')?.name).toBe('n78')
    expect(bandFromEntry('B20', 'NR')).toBeUndefined()
    expect(bandFromEntry('rubbish', 'LTE')).toBeUndefined()
  })
  // TS 36.101 table 5.6-1 and TS 38.101-1 table 5.3.2-1.
  it.each([
    ['LTE', 10, 15, 50],
    ['LTE', 20, 15, 100],
    ['NR', 20, 15, 106],
    ['NR', 100, 30, 273],
    ['NR', 35, 15, 188],
    ['NR', 35, 30, 92],
    ['NR', 45, 15, 242],
    ['NR', 45, 30, 119],
    ['NR', 70, 30, 189],
  ] as const)('%s %f MHz at %i kHz has %i blocks', (t, w, s, n) => expect(resourceBlocks(t, w, s)).toBe(n))
  it('refuses a width that is not in the standard', () => expect(() => resourceBlocks('LTE', 7)).toThrow(/1.4, 3, 5, 10/))
})

describe('levels', () => {
  // ITU-R P.525: 32.4 + 60, 0.05 low
  it('free space over 1 km at 1 GHz is 92.45 dB', () => expect(freeSpaceLossDb(1000, 1000)).toBeCloseTo(92.45, 2))
  it('RSRP and a full 10 MHz carrier lie 27.8 dB apart', () => expect(rsrpToTotalDbm(-100, 50)).toBeCloseTo(-72.2, 1)) // 10·log10(600)
  it('total and RSRP turn into each other', () =>
    fc.assert(
      fc.property(fc.double({ min: -150, max: 0, noNaN: true }), fc.integer({ min: 6, max: 273 }), (r, n) => {
        expect(totalToRsrpDbm(rsrpToTotalDbm(r, n), n)).toBeCloseTo(r, 9)
      }),
    ))
  it('an unloaded carrier of one port has an RSRQ of −3 dB at most', () => {
    // TS 36.214: with reference symbols only, RSSI holds 2 elements a block: N·RSRP/(2·N·RSRP) = 1/2.
    expect(rsrqDb(-100, -100 + 10 * Math.log10(2 * 50), 50)).toBeCloseTo(-3.01, 2)
  })
  // −174 + 10·log10(15000) + 9
  it('noise in a resource element at 9 dB is −123.2 dBm', () => expect(noisePerElementDbm()).toBeCloseTo(-123.24, 2))
  it('splitting a reading into interference and noise puts it together again', () => {
    fc.assert(
      fc.property(fc.double({ min: -115, max: -60, noNaN: true }), fc.double({ min: -8, max: 6, noNaN: true }), (rsrp, sinr) => {
        expect(sinrDb(rsrp, interferenceDbm(rsrp, sinr), noisePerElementDbm())).toBeCloseTo(sinr, 6)
      }),
    )
  })
  it('two equal powers add 3 dB', () => expect(sumDbm([-60, -60])).toBeCloseTo(-56.99, 2))
  // The trade's scale, common practice (no source).
  it.each([
    [-80, 'very good'],
    [-81, 'good'],
    [-90, 'good'],
    [-95, 'weak'],
    [-105, 'poor'],
    [-110, 'poor'],
    [-111, 'marginal'],
  ])('RSRP %i dBm is %s', (rsrp, grade) => expect(gradeRsrp(rsrp).id).toBe(grade))
  it.each([
    [20, 'very good'],
    [13, 'good'],
    [5, 'weak'],
    [0, 'poor'],
    [-1, 'marginal'],
  ])('SINR %i dB is %s', (sinr, grade) => expect(gradeSinr(sinr).id).toBe(grade))
  it('a crew’s own edges count', () => expect(gradeRsrp(-88, [-70, -85, -95, -105]).id).toBe('weak'))
  // −174 dBm/Hz, 15 kHz, NF 9 dB (3GPP TR 36.942): −123.2 dBm.
  it('noise alone would leave 20 dB at −103 and 10 at −113', () => {
    expect(noiseLimitedSinrDb(-103)).toBeCloseTo(20, 0)
    expect(noiseLimitedSinrDb(-113)).toBeCloseTo(10, 0)
  })
})

describe('rate', () => {
  // 3GPP TR 36.942 annex A.1: α 0.6 and 4.4 bit/s/Hz down, 0.4 and 2.0 up, nothing below −10 dB.
  it('downlink stops at 4.4 and uplink at 2.0 bit/s/Hz', () => {
    expect(spectralEfficiency(40)).toBe(4.4)
    expect(spectralEfficiency(40, UPLINK)).toBe(2.0)
    expect(spectralEfficiency(-10.1)).toBe(0)
  })
  it('0 dB gives 0.6 bit/s/Hz down', () => expect(spectralEfficiency(0, DOWNLINK)).toBeCloseTo(0.6, 9))
  it('a second layer begins to pay at 8 to 12 dB', () => {
    // Common practice (no source): modems report rank 1 below, rank 2 above.
    const gain = (db: number) => carrierRateMbps(db, 10, 2) / carrierRateMbps(db, 10, 1)
    expect(gain(7)).toBe(1)
    expect(gain(13)).toBeGreaterThan(1.1)
    expect(gain(28)).toBeGreaterThan(1.7)
    expect(gain(28)).toBeLessThanOrEqual(2)
  })
  it('never falls as SINR rises, and a second feed never costs', () => {
    fc.assert(
      fc.property(fc.double({ min: -15, max: 40, noNaN: true }), fc.double({ min: 0, max: 10, noNaN: true }), (s, d) => {
        expect(spectralEfficiency(s + d)).toBeGreaterThanOrEqual(spectralEfficiency(s))
        expect(carrierRateMbps(s, 10, 2)).toBeGreaterThanOrEqual(carrierRateMbps(s, 10, 1))
      }),
    )
  })
})

describe('pattern', () => {
  const beam = { gainDbi: 10, beamwidthDeg: 60, verticalBeamwidthDeg: 60, frontToBackDb: 18 }
  const level = { azimuthDeg: 0, tiltDeg: 0 }
  it('loses 3 dB at half the half-power width', () => expect(offAxisDb(30, 60, 18)).toBeCloseTo(3, 9)) // 12·(½)² by TR 36.814
  it('never loses more than front to back, in either plane or both', () => {
    expect(gainToward(beam, level, 180)).toBe(-8)
    expect(gainToward(beam, level, 180, 80)).toBe(-8)
    expect(gainToward(beam, level, 0, 90)).toBe(-8)
  })
  it('an omni is the same all round, and has its nulls above and below', () => {
    const omni = { gainDbi: 3, beamwidthDeg: 360, verticalBeamwidthDeg: 70, frontToBackDb: 15 }
    expect(gainToward(omni, level, 123)).toBe(3)
    expect(gainToward(omni, level, 123, 90)).toBe(-12)
  })
  it('what is alike about its axis is read by the angle off it, straight lines between its samples', () => {
    const dome = { gainDbi: 2, beamwidthDeg: 360, verticalBeamwidthDeg: 90, frontToBackDb: 10, aboutAxisDb: [9, 0, 3] }
    const down = { azimuthDeg: 0, tiltDeg: -90 }
    expect(gainToward(dome, down, 77, -90)).toBeCloseTo(-7, 9)
    expect(gainToward(dome, down, 77, 0)).toBeCloseTo(2, 9)
    expect(gainToward(dome, down, 77, 90)).toBeCloseTo(-1, 9)
    expect(gainToward(dome, down, 12, -45)).toBeCloseTo(-2.5, 9)
  })
  it('a half-wave dipole of 2.15 dBi and 78° radiates what it is fed', () => {
    // Balanis, Antenna Theory, 4.6: directivity 1.643, half-power width 78°; its mean over the sphere is 1 by definition.
    const losses = Array.from({ length: 181 }, (_, deg) => {
      const t = Math.max(1e-3, (deg * Math.PI) / 180)
      const field = Math.cos((Math.PI / 2) * Math.cos(t)) / Math.max(1e-3, Math.abs(Math.sin(t)))
      return Math.min(60, -20 * Math.log10(Math.max(1e-3, Math.abs(field))))
    })
    const up = { gainDbi: 2.15, beamwidthDeg: 360, verticalBeamwidthDeg: 78, frontToBackDb: 60, aboutAxisDb: losses }
    // Looked at from its own axis: the sum over the sphere is the same whichever way it stands.
    expect(meanOverSphereDb(up, 2)).toBeCloseTo(0, 1)
  })
  it('tilting up brings the peak up', () => expect(gainToward(beam, { azimuthDeg: 10, tiltDeg: 20 }, 10, 20)).toBeCloseTo(10, 9))
  it('says how far off costs 1 dB', () => {
    expect(degreesForLoss(beam, 1)).toBeCloseTo(60 / Math.sqrt(12), 9)
    expect(degreesForLoss({ ...beam, beamwidthDeg: 360 }, 1)).toBeNull()
  })
})
