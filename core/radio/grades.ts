/**
 * Grades of RSRP by what noise alone allows, not by folklore.
 * Each is the level at which a receiver of 9 dB noise figure has that much noise-limited SINR.
 */
import { noisePerElementDbm } from './levels'

export interface Grade {
  id: 'strong' | 'workable' | 'thin' | 'too weak'
  fromDbm: number
  words: string
  steps: number
}

const NOISE = noisePerElementDbm()

/** @source derived: −174 dBm/Hz, 15 kHz, NF 9 dB (3GPP TR 36.942) give −123.2 dBm; +20, +10, +3 dB */
export const RSRP_GRADES: readonly Grade[] = [
  { id: 'strong', fromDbm: Math.round(NOISE + 20), words: 'noise leaves 20 dB and more', steps: 4 },
  { id: 'workable', fromDbm: Math.round(NOISE + 10), words: 'noise leaves 10 to 20 dB', steps: 3 },
  { id: 'thin', fromDbm: Math.round(NOISE + 3), words: 'noise leaves 3 to 10 dB', steps: 2 },
  { id: 'too weak', fromDbm: -Infinity, words: 'noise leaves under 3 dB', steps: 1 },
]

export const GRADE_SOURCE =
  'derived from thermal noise, 15 kHz and a 9 dB noise figure (3GPP TR 36.942): −103, −113 and −120 dBm RSRP allow 20, 10 and 3 dB'

export const gradeRsrp = (rsrpDbm: number): Grade => RSRP_GRADES.find(g => rsrpDbm >= g.fromDbm)!
