import { describe, expect, it } from 'vitest'
import { readStatusPage } from './status-page'

describe('a status page as it is copied', () => {
  it('names and figures parted by tabs', () => {
    const { figures } = readStatusPage(
      'Network type\tLTE\nBand\tB20\nBandwidth\t10 MHz\nRSRP\t-97 dBm\nRSRQ\t-11 dB\nSINR\t7 dB\nCell ID\t01A2B30F',
    )
    expect(figures).toEqual({
      rsrpDbm: -97,
      rsrqDb: -11,
      sinrDb: 7,
      rssiDbm: null,
      band: 'B20',
      bandwidthMHz: 10,
      cellId: '27439887',
      technology: 'LTE',
    })
  })
  it('a cell told with 0x, or with a letter, is hexadecimal; digits alone are decimal as lists have it', () => {
    const cell = (text: string) => readStatusPage(`Cell ID: ${text}`).figures.cellId
    expect([cell('0x00012345'), cell('1A2B30F'), cell('74565')]).toEqual(['74565', '27439887', '74565'])
  })
  it('several on one line, with colons or equal signs, comma decimals and a true minus', () => {
    expect(readStatusPage('RSRP: −97,5 dBm, RSRQ: −11 dB, SNR: 7,2').figures).toMatchObject({
      rsrpDbm: -97.5,
      rsrqDb: -11,
      sinrDb: 7.2,
    })
    expect(readStatusPage('rsrp=-101 rsrq=-12 sinr=3 rssi=-71').figures).toMatchObject({
      rsrpDbm: -101,
      rsrqDb: -12,
      sinrDb: 3,
      rssiDbm: -71,
    })
  })
  it('a name over its figure', () => {
    expect(readStatusPage('RSRP\n-88 dBm\nSINR\n14 dB').figures).toMatchObject({ rsrpDbm: -88, sinrDb: 14 })
  })
  it('RSSI is not taken for RSRP, nor the reverse', () => {
    const { figures } = readStatusPage('RSSI: -65 dBm')
    expect(figures.rsrpDbm).toBeNull()
    expect(figures.rssiDbm).toBe(-65)
  })
  it('the new radio, its band and its own names', () => {
    expect(readStatusPage('Access: 5G NR\nActive band: n78\nSS-RSRP: -92\nSS-SINR: 18').figures).toMatchObject({
      technology: 'NR',
      band: 'n78',
      rsrpDbm: -92,
      sinrDb: 18,
    })
  })
  it('what is out of all range, or under no name known, is told and not taken', () => {
    const r = readStatusPage('RSRP: 97\nUptime: 3 days\nTX power: 12 dBm')
    expect(r.figures.rsrpDbm).toBeNull()
    expect(r.notUnderstood).toEqual(['RSRP: 97', 'Uptime: 3 days', 'TX power: 12 dBm'])
  })
  it('two figures of one name: the first is taken, and it is told', () => {
    const r = readStatusPage('RSRP: -97 dBm\nRSRP: -103 dBm')
    expect(r.figures.rsrpDbm).toBe(-97)
    expect(r.several).toEqual(['rsrpDbm'])
  })
  it('nothing in it is nothing; a book is refused', () => {
    expect(Object.values(readStatusPage('hello\nthere').figures).every(v => v === null)).toBe(true)
    expect(() => readStatusPage('x'.repeat(200_000))).toThrow(RangeError)
  })
})
