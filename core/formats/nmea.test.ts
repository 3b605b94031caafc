import { describe, expect, it } from 'vitest'
import { readNmea, sayNmea } from './nmea'

/** XOR of all between `$` and `*`, two hexadecimal digits. @source NMEA 0183 */
const sumOf = (body: string): string =>
  [...body]
    .reduce((x, c) => x ^ c.charCodeAt(0), 0)
    .toString(16)
    .toUpperCase()
    .padStart(2, '0')
const sentence = (body: string) => `$${body}*${sumOf(body)}`

describe('NMEA 0183', () => {
  it('reads the textbook’s fix: 48°07.038′ N, 11°31′ E, 545.4 m, HDOP 0.9', () => {
    const said = readNmea('$GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*47')!
    expect(said.position!.latDeg).toBeCloseTo(48 + 7.038 / 60, 9)
    expect(said.position!.lonDeg).toBeCloseTo(11 + 31 / 60, 9)
    expect(said.position).toMatchObject({ heightM: 545.4 })
    expect(said.position!.accuracyM).toBeCloseTo(2.7, 6)
  })
  it('a wrong checksum, none, or a torn line says nothing', () => {
    expect(readNmea('$GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*48')).toBeNull()
    expect(readNmea('$HEHDT,274.07,T')).toBeNull()
    expect(readNmea('$HEHDT,27')).toBeNull()
    expect(readNmea('+CESQ: 99,99,255,255,20,46')).toBeNull()
  })
  it('headings true, magnetic, and with the compass’s own deviation taken off', () => {
    expect(readNmea('$HEHDT,274.07,T*19')).toEqual({ trueDeg: 274.07 })
    expect(readNmea(sentence('HCHDM,112.5,M'))).toEqual({ magneticDeg: 112.5 })
    expect(readNmea(sentence('HCHDG,358.0,4.0,E,12.0,W'))!.magneticDeg).toBeCloseTo(2, 9)
  })
  it('a fix of several systems, and a true heading with its state', () => {
    const fix = readNmea(sentence('GNGNS,123519,4807.038,N,01131.000,E,AAN,12,0.9,545.4,46.9,,'))!
    expect(fix.position!.latDeg).toBeCloseTo(48 + 7.038 / 60, 9)
    expect(fix.position).toMatchObject({ heightM: 545.4 })
    expect(readNmea(sentence('GNGNS,123519,4807.038,N,01131.000,E,NN,00,,,,,'))).toEqual({ noFix: true })
    expect(readNmea(sentence('HETHS,274.5,A'))).toEqual({ trueDeg: 274.5 })
    expect(readNmea(sentence('HETHS,274.5,V'))).toBeNull()
    expect(readNmea('$HETHS,274.5,A*00')).toBeNull()
  })
  it('no fix is told as none, not as a place in the sea', () => {
    expect(readNmea(sentence('GPGGA,123519,,,,,0,00,,,M,,M,,'))).toEqual({ noFix: true })
    expect(readNmea(sentence('GPRMC,123519,V,,,,,,,230394,,'))).toEqual({ noFix: true })
  })
  it('what a stand-in says is read again as it was, with checksums that hold', () => {
    const at = { latDeg: 46.8085, lonDeg: -41.362, heightM: 12.5, trueDeg: 271.25, time: new Date('2026-04-03T12:00:00Z') }
    const lines = sayNmea(at)
    for (const l of lines) expect(l.slice(-2).toUpperCase()).toBe(sumOf(l.slice(1, -3)))
    const [fix, look] = lines.map(l => readNmea(l)!)
    expect(fix!.position!.latDeg).toBeCloseTo(at.latDeg, 5)
    expect(fix!.position!.lonDeg).toBeCloseTo(at.lonDeg, 5)
    expect(look!.trueDeg).toBeCloseTo(271.3, 6)
  })
})
