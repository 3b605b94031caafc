import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { luhnFits, parseImei, parseMac, readBarCodes } from './box-label'

describe('the label of a box', () => {
  it('the worked example of ISO/IEC 7812-1 handbooks, 7992739871 with check digit 3 (from memory)', () => {
    expect(luhnFits('79927398713')).toBe(true)
    for (const d of '012456789') expect(luhnFits(`7992739871${d}`)).toBe(false)
  })
  it('an IMEI of fifteen digits that check is taken, with the strokes that labels print', () => {
    expect(parseImei('49-015420-323751-8')).toBe('490154203237518') // the usual example of handbooks, from memory
    expect(() => parseImei('490154203237517')).toThrow('check digit')
    expect(() => parseImei('49015420323751')).toThrow('15 digits')
  })
  it('any one digit misread, and any two neighbours swapped but 0 and 9, are noticed', () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 14, maxLength: 14 }),
        fc.nat(14),
        fc.integer({ min: 1, max: 9 }),
        (body, at, by) => {
          const check = [...'0123456789'].find(d => luhnFits(body.join('') + d))!
          const digits = [...body, Number(check)]
          const misread = digits.map((d, i) => (i === at ? (d + by) % 10 : d))
          expect(luhnFits(misread.join(''))).toBe(false)
          const next = (at + 1) % 15
          const [a, b] = [digits[at]!, digits[next]!]
          if (next === 0 || a === b || (Math.min(a, b) === 0 && Math.max(a, b) === 9)) return
          const swapped = digits.map((d, i) => (i === at ? b : i === next ? a : d))
          expect(luhnFits(swapped.join(''))).toBe(false)
        },
      ),
    ))
  it('a MAC is written one way, however it was printed', () => {
    for (const text of ['02005e100001', '02-00-5E-10-00-01', '0200.5e10.0001', '02:00:5e:10:00:01'])
      expect(parseMac(text)).toBe('02:00:5E:10:00:01')
    expect(() => parseMac('02005e10000g')).toThrow('12 digits')
  })
  it('bar codes are told apart: serial, IMEI, MAC; a misread IMEI is none', () => {
    expect(readBarCodes(['02005E100001', 'S/N:MV-D-000117', '490154203237518'])).toEqual({
      serial: 'MV-D-000117',
      imei: '490154203237518',
      mac: '02:00:5E:10:00:01',
    })
    expect(readBarCodes(['490154203237517']).imei).toBeNull()
    expect(readBarCodes([])).toEqual({ serial: null, imei: null, mac: null })
  })
})
