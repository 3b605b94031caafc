import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import Ajv from 'ajv'
import { returnLossDb, vswrFrom } from '../formats/touchstone'
import { antennaAt, partById, partOfKind, PARTS, US_BOOSTER_BANDS } from '../catalogue/parts'
import { amplifierOn, isCoax, PartSchema, withOwn } from '../job/part'
import { cascadeNoiseFigureDb, lineLossDb, lossStage, mismatchLossDb, splitterLossDb, vswrOf } from './line'

const line = (id: string) => partOfKind(id, 'line')!.constants

describe('lines', () => {
  // From memory of low-loss coaxial data sheets, dB/100 m.
  it.each([
    ['line-400', 900, 12.8],
    ['line-195', 900, 36.5],
    ['line-240', 900, 24.8],
    ['line-600', 900, 8.2],
  ])('a %s at %i MHz loses about %f dB/100 m', (id, f, db) => expect(lineLossDb(line(id), 100, f)).toBeCloseTo(db, 0))
  it('loss is never negative, grows with length and with frequency', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PARTS.filter(isCoax)),
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.double({ min: 400, max: 3800, noNaN: true }),
        (p, m, f) => {
          const loss = lineLossDb(p.constants, m, f)
          expect(loss).toBeGreaterThanOrEqual(0)
          expect(lineLossDb(p.constants, m + 1, f)).toBeGreaterThan(loss)
          expect(lineLossDb(p.constants, m, f + 100)).toBeGreaterThanOrEqual(loss)
        },
      ),
    )
  })
  it('two pieces lose what the whole does', () =>
    expect(lineLossDb(line('line-400'), 4, 806) + lineLossDb(line('line-400'), 6, 806)).toBeCloseTo(
      lineLossDb(line('line-400'), 10, 806),
      9,
    ))
  it('refuses a length that is no number', () => {
    expect(() => lineLossDb(line('line-400'), NaN, 800)).toThrow(RangeError)
    expect(() => lineLossDb(line('line-400'), -1, 800)).toThrow('lengthM must be within 0…10000, got -1')
  })
})

describe('joints', () => {
  it('50 against 75 Ω: VSWR 1.5 and 0.18 dB', () => {
    expect(vswrOf(50, 75)).toBe(1.5)
    expect(mismatchLossDb(1.5)).toBeCloseTo(0.177, 3) // −10·log10(1 − 0.2²)
  })
  it.each([
    // VSWR, return loss dB, mismatch loss dB: as printed in mismatch tables, from memory of antenna handbooks.
    [1.1, 26.44, 0.01],
    [1.2, 20.83, 0.036],
    [1.5, 13.98, 0.177],
    [2, 9.54, 0.512],
    [3, 6.02, 1.249],
  ])('VSWR %f returns %f dB down and loses %f dB', (vswr, returned, lost) => {
    const gamma = (vswr - 1) / (vswr + 1)
    expect(returnLossDb({ re: gamma, im: 0 })).toBeCloseTo(returned, 2)
    expect(mismatchLossDb(vswr)).toBeCloseTo(lost, 2)
    expect(vswrFrom({ re: 0, im: gamma })).toBeCloseTo(vswr, 9)
  })
  it('a matched joint loses nothing', () => expect(mismatchLossDb(1)).toBeCloseTo(0, 9))
  it('a two-way splitter halves', () => expect(splitterLossDb(2, 0)).toBeCloseTo(3.01, 2))
})

describe('noise of a cascade', () => {
  it('a matched loss in front adds itself', () =>
    expect(cascadeNoiseFigureDb([lossStage(3), { gainDb: 60, noiseFigureDb: 6 }])).toBeCloseTo(9, 6)) // Friis 1944
  it('behind a high gain a loss adds next to nothing', () =>
    expect(cascadeNoiseFigureDb([{ gainDb: 60, noiseFigureDb: 6 }, lossStage(10)])).toBeCloseTo(6, 3))
  it('worked example: 20 dB at NF 3 before NF 10 gives 3.2 dB', () =>
    expect(
      cascadeNoiseFigureDb([
        { gainDb: 20, noiseFigureDb: 3 },
        { gainDb: 10, noiseFigureDb: 10 },
      ]),
    ).toBeCloseTo(10 * Math.log10(1.9953 + 9 / 100), 2))
})

describe('catalogue', () => {
  it('holds about a hundred and fifty parts, each id and each name once', () => {
    expect(PARTS.length).toBeGreaterThanOrEqual(140)
    expect(new Set(PARTS.map(p => p.id)).size).toBe(PARTS.length)
    expect(new Set(PARTS.map(p => p.name)).size).toBe(PARTS.length)
  })
  it('every part is one that the schema takes', () => {
    const valid = new Ajv({ strict: false }).compile(PartSchema)
    for (const p of PARTS) expect(valid(p), `${p.id}: ${JSON.stringify(valid.errors?.slice(-2))}`).toBe(true)
  })
  it('every outside antenna says what it weighs and how it is fixed, every box what feeds it', () => {
    for (const p of PARTS) {
      if (p.kind === 'antenna') expect(p.massKg && p.mount && p.sizeMm, p.id).toBeTruthy()
      if (p.kind === 'amplifier' || p.kind === 'router') expect(p.powerW && p.supply && p.temperatureC, p.id).toBeTruthy()
      if (p.kind === 'line') expect(p.grade && p.plugMm, p.id).toBeTruthy()
    }
  })
  it('every amplifier’s limits are in order', () => {
    for (const p of PARTS) {
      if (p.kind !== 'amplifier') continue
      expect(p.lowestGainDb).toBeLessThanOrEqual(p.gainDb)
      expect(p.inputLimitDbm).toBeLessThan(p.shutDownDbm)
      if (!p.bands.every(b => (US_BOOSTER_BANDS as readonly string[]).includes(b))) continue
      // 47 CFR 20.21(e), from memory: 17 dBm down, 30 dBm up.
      expect(p.outputDbm).toBeLessThanOrEqual(17)
      expect(p.uplinkOutputDbm).toBeLessThanOrEqual(30)
    }
  })
  it('an amplifier has its own figures on a band, and what is entered never raises them', () => {
    const amp = partOfKind('amp-building-24', 'amplifier')!
    expect(amplifierOn(amp, 'B3').gainDb).toBe(80)
    expect(amplifierOn(amp, 'B20').gainDb).toBe(77)
    expect(amplifierOn(withOwn(amp, { gainDb: 70 }), 'B20').gainDb).toBe(70)
    expect(amplifierOn(withOwn(amp, { gainDb: 79 }), 'B20').gainDb).toBe(77)
  })
  it('says where an antenna is not made for the band', () => {
    const yagi = partById('ant-yagi-low')!
    expect(yagi.kind === 'antenna' && antennaAt(yagi, 806).covered).toBe(true)
    expect(yagi.kind === 'antenna' && antennaAt(yagi, 1842).covered).toBe(false)
  })
})
