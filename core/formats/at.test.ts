import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cellAsHex, cellFromHex, lteSiteOf } from '../radio/cell-id'
import { answerTo, LineCutter, readAnswer, readFinal } from './at'

const heard = { technology: 'LTE', operator: 'Tern', cellId: '27439887', rsrpDbm: -97.4, rsrqDb: -11.2, sinrDb: 7 } as const

describe('a modem’s answers, by 3GPP TS 27.007', () => {
  // <rsrp> 0: under −140; n: n−141 to n−140; 97: −44 and up. <rsrq> 0: under −19.5, 0.5 dB a step, 34: −3 and up. 255: not known.
  it.each([
    ['+CESQ: 99,99,255,255,20,46', -95, -94, -10, -9.5],
    ['+CESQ: 99,99,255,255,1,1', -140, -139, -19.5, -19],
    ['+CESQ: 99,99,255,255,33,96', -45, -44, -3.5, -3],
  ])('%s', (line, low, high, qLow, qHigh) => {
    const s = readAnswer(line)!
    expect([s.rsrpDbm!.low, s.rsrpDbm!.high, s.rsrqDb!.low, s.rsrqDb!.high]).toEqual([low, high, qLow, qHigh])
    expect(s.rsrpDbm!.value).toBe((low + high) / 2)
  })
  it('end codes stand at their edge, 255 is not known', () => {
    expect(readAnswer('+CESQ: 99,99,255,255,0,0')).toMatchObject({ rsrpDbm: { value: -140 }, rsrqDb: { value: -19.5 } })
    expect(readAnswer('+CESQ: 99,99,255,255,34,97')).toMatchObject({ rsrpDbm: { value: -44 }, rsrqDb: { value: -3 } })
    expect(readAnswer('+CESQ: 99,99,255,255,255,255')).toEqual({ rsrpDbm: null, rsrqDb: null, sinrDb: null })
  })
  it('NR tells SINR as well (TS 38.133: 0.5 dB a step from −23)', () => {
    const s = readAnswer('+CESQ: 99,99,255,255,255,255,65,70,80')!
    expect(s.rsrpDbm).toEqual({ value: -86.5, low: -87, high: -86 })
    expect(s.rsrqDb).toEqual({ value: -10.75, low: -11, high: -10.5 })
    expect(s.sinrDb).toEqual({ value: 16.75, low: 16.5, high: 17 })
  })
  it('+CSQ: −113 + 2n dBm, 99 not known', () => {
    expect(readAnswer('+CSQ: 14,99')!.rssiDbm!.value).toBe(-85)
    expect(readAnswer('+CSQ: 99,99')!.rssiDbm).toBeNull()
  })
  it('+COPS and +CEREG: operator, technology, cell, asked for or told unasked', () => {
    expect(readAnswer('+COPS: 0,0,"Tern, north",7')).toEqual({ operator: 'Tern, north', technology: 'LTE' })
    expect(readAnswer('+COPS: 2')).toEqual({ operator: null })
    expect(readAnswer('+CEREG: 2,1,"00A1","01A2B30F",7')).toEqual({ registered: 'home', cellId: '27439887', technology: 'LTE' })
    expect(readAnswer('+CEREG: 5,"00A1","01a2b30f",7')).toEqual({ registered: 'roaming', cellId: '27439887', technology: 'LTE' })
    expect(readAnswer('+CEREG: 0,2')).toEqual({ registered: 'searching', cellId: null })
    expect(readAnswer('+CEREG: 0')).toEqual({ registered: 'not registered', cellId: null })
  })
  it('codes are hexadecimal, also of digits alone; what has too many bits is refused', () => {
    // 0x00012345 is 74565, of eNB 291. TS 27.007 (string type, hexadecimal) and TS 36.413 9.2.1.38.
    const cell = readAnswer('+CEREG: 2,1,"00A1","00012345",7')!.cellId!
    expect([cell, lteSiteOf(cell)]).toEqual(['74565', 291])
    expect(readAnswer('+CEREG: 2,1,"00A1","10000000",7')!.cellId).toBeNull()
    expect(readAnswer('+C5GREG: 2,1,"00A1F0","10000000A",11')!.cellId).toBe(String(0x10000000a))
    expect(readAnswer('+C5GREG: 2,1,"00A1F0","1000000000",11')!.cellId).toBeNull()
    fc.assert(fc.property(fc.integer({ min: 1, max: 2 ** 28 - 1 }), n => cellFromHex(cellAsHex(String(n)), 'LTE') === String(n)))
  })
  it('told unasked with slices, status and cell are still in their places', () => {
    expect(readAnswer('+C5GREG: 5,"00A1F0","0001A2B3F",11,5,"01.000001:02"')).toEqual({
      registered: 'roaming',
      cellId: String(0x1a2b3f),
      technology: 'NR',
    })
    expect(readAnswer('+C5GREG: 2,1,"00A1F0","0001A2B3F",11,5,"01.000001"')).toMatchObject({
      registered: 'home',
      technology: 'NR',
    })
  })
  it('every access technology and status of the standard', () => {
    const technology = (act: number) => readAnswer(`+CEREG: 2,1,"00A1","00012345",${act}`)!.technology
    expect([7, 10, 11, 12, 13].map(technology)).toEqual(['LTE', 'LTE', 'NR', undefined, 'LTE'])
    const status = (n: number) => readAnswer(`+CEREG: 2,${n}`)?.registered
    expect([6, 7, 8, 9, 10, 11].map(status)).toEqual(['home', 'roaming', null, 'home', 'roaming', undefined])
    // Of 12 the figures tell which radio it is.
    expect(readAnswer('+CESQ: 99,99,255,255,255,255,40,60,60')!.technology).toBe('NR')
    expect(readAnswer('+CESQ: 99,99,255,255,20,40,40,60,60')!.technology).toBeUndefined()
  })
  it.each(['', 'RING', '+CESQ: 99,99,25', '+CESQ: 99,99,255,255,xx,46', '+CSQ: ', '\u0000\u0003ÿ+CE', '+CEREG: abc'])(
    'garbage is nothing: %j',
    line => expect(readAnswer(line)).toBeNull(),
  )
  it('ends: OK, ERROR, and errors by number in words', () => {
    expect(readFinal('OK')).toEqual({ ok: true })
    expect(readFinal('+CME ERROR: 10')).toEqual({ ok: false, why: 'no SIM in the modem' })
    expect(readFinal('+CME ERROR: 731')).toEqual({ ok: false, why: 'the modem says error 731' })
    expect(readFinal('+CSQ: 1,99')).toBeNull()
  })
  it('what a stand-in writes is what is read, to its step', () => {
    for (let rsrpDbm = -139.6; rsrpDbm < -45; rsrpDbm += 3.7) {
      const s = readAnswer(answerTo('AT+CESQ', { ...heard, rsrpDbm })!)!
      expect(s.rsrpDbm!.low).toBeLessThanOrEqual(rsrpDbm)
      expect(s.rsrpDbm!.high).toBeGreaterThan(rsrpDbm)
    }
    const nr = readAnswer(answerTo('AT+CESQ', { ...heard, technology: 'NR', sinrDb: 12.3 })!)!
    expect(nr.sinrDb).toEqual({ value: 12.25, low: 12, high: 12.5 })
    expect(answerTo('AT+XYZ', heard)).toBeNull()
  })
})

describe('a stream of a port', () => {
  it('is cut into lines wherever it was torn', () => {
    const text = 'AT+CESQ\r\r\n+CESQ: 99,99,255,255,20,46\r\n\r\nOK\r\n'
    for (let cut = 0; cut <= text.length; cut++) {
      const c = new LineCutter()
      expect([...c.add(text.slice(0, cut)), ...c.add(text.slice(cut))]).toEqual(['AT+CESQ', '+CESQ: 99,99,255,255,20,46', 'OK'])
    }
  })
  it('a line that never ends does not grow', () => {
    const c = new LineCutter()
    for (let i = 0; i < 100; i++) expect(c.add('x'.repeat(100))).toEqual([])
    expect(c.add('\nOK\r\n')).toContain('OK')
  })
})
