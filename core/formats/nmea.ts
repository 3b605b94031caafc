/** What a position receiver or a compass says by NMEA 0183: where it is, and which way it looks. */
import { nth } from '../sure'
import { encodeNmeaPacket, parseNmeaSentence } from 'nmea-simple'

export interface NmeaSaid {
  position?: { latDeg: number; lonDeg: number; heightM: number | null; accuracyM: number | null }
  /** it says by itself that it has no fix */
  noFix?: true
  trueDeg?: number
  magneticDeg?: number
}

/** One standard deviation of a range, m: with it a receiver's dilution becomes an accuracy. @source common practice (no source) */
const RANGE_SIGMA_M = 3

const there = (latDeg: number, lonDeg: number): boolean =>
  Number.isFinite(latDeg) && Number.isFinite(lonDeg) && Math.abs(latDeg) <= 90 && Math.abs(lonDeg) <= 180
const heading = (deg: number): number | undefined => (Number.isFinite(deg) && deg >= 0 && deg <= 360 ? deg % 360 : undefined)

/** @source IEC 61162-1: exclusive or of what stands between `$` and `*` */
const sumHolds = (line: string): boolean => {
  const [body, sum] = line.slice(1).split('*') as [string, string]
  return [...body].reduce((x, c) => x ^ c.charCodeAt(0), 0) === Number.parseInt(sum, 16)
}

/**
 * @param line  one sentence without its end
 * @returns null for a sentence that says nothing of place or heading, or whose checksum does not hold
 * @source IEC 61162-1 (NMEA 0183): GGA, GNS, GLL, RMC, HDT, HDG, HDM read by nmea-simple; THS
 */
export function readNmea(line: string): NmeaSaid | null {
  // The library takes a sentence without its checksum too; here none is taken on trust.
  if (!/^[$!].+\*[0-9A-Fa-f]{2}$/.test(line)) return null
  const ths = /^\$[A-Z]{2}THS,([\d.]+),([A-Z])\*/.exec(line)
  // The library does not know it: a true heading, and whether it holds (A its own, E reckoned).
  if (ths) return sumHolds(line) && /[AE]/.test(nth(ths, 2)) ? { trueDeg: heading(Number(ths[1])) } : null
  try {
    const p = parseNmeaSentence(line)
    if (p.sentenceId === 'GGA' || p.sentenceId === 'GNS') {
      // GNS tells by a letter for each system whether it has a fix.
      const none = p.sentenceId === 'GGA' ? p.fixType === 'none' : /^N*$/.test(p.modeIndicator)
      if (none || !there(p.latitude, p.longitude)) return { noFix: true }
      const accuracyM =
        Number.isFinite(p.horizontalDilution) && p.horizontalDilution > 0 ? p.horizontalDilution * RANGE_SIGMA_M : null
      const heightM = Number.isFinite(p.altitudeMeters) ? p.altitudeMeters : null
      return { position: { latDeg: p.latitude, lonDeg: p.longitude, heightM, accuracyM } }
    }
    if (p.sentenceId === 'RMC' || p.sentenceId === 'GLL') {
      if (p.status !== 'valid' || !there(p.latitude, p.longitude)) return { noFix: true }
      return { position: { latDeg: p.latitude, lonDeg: p.longitude, heightM: null, accuracyM: null } }
    }
    if (p.sentenceId === 'HDT') return { trueDeg: heading(p.heading) }
    if (p.sentenceId === 'HDM') return { magneticDeg: heading(p.heading) }
    if (p.sentenceId === 'HDG') {
      const deviation = p.deviationDirection === 'E' ? p.deviation : p.deviationDirection === 'W' ? -p.deviation : 0
      return { magneticDeg: heading((p.heading + (Number.isFinite(deviation) ? deviation : 0) + 360) % 360) }
    }
    return null
  } catch {
    return null
  }
}

/** The other side, for a stand-in: where it is and which way it looks, as a receiver with a compass says it each second. */
export function sayNmea(at: { latDeg: number; lonDeg: number; heightM: number; trueDeg: number; time: Date }): string[] {
  const rounded = Math.round(at.trueDeg * 10) / 10
  return [
    encodeNmeaPacket(
      {
        sentenceId: 'GGA',
        time: at.time,
        latitude: at.latDeg,
        longitude: at.lonDeg,
        fixType: 'fix',
        satellitesInView: 9,
        horizontalDilution: 0.9,
        altitudeMeters: at.heightM,
        geoidalSeperation: 0,
      } as never,
      'GP',
    ),
    encodeNmeaPacket({ sentenceId: 'HDT', heading: rounded % 360 } as never, 'HE'),
  ]
}
