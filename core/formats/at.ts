/**
 * A modem's answers to AT commands, read and written: registration, operator, and signal.
 * @source 3GPP TS 27.007 (+CSQ 8.5, +CESQ 8.69, +COPS 7.3, +CEREG 10.1.22, +C5GREG 10.1.47), from memory
 */
import { nth } from '../sure'
import { cellAsHex, cellFromHex } from '../radio/cell-id'

/** A figure that a modem codes by steps: the middle of its step, and its edges. */
export interface Coded {
  value: number
  low: number
  high: number
}

/** What the standard's commands tell; null where the modem says it does not know. */
export interface ModemState {
  registered: 'home' | 'roaming' | 'searching' | 'denied' | 'not registered' | null
  operator: string | null
  technology: 'LTE' | 'NR' | 'UTRA' | 'GSM' | null
  /** decimal, as lists of masts have it; a modem tells it in hexadecimal */
  cellId: string | null
  rssiDbm: Coded | null
  rsrpDbm: Coded | null
  rsrqDb: Coded | null
  /** NR alone: the standard has none for LTE */
  sinrDb: Coded | null
}

export const unknownState = (): ModemState => ({
  registered: null,
  operator: null,
  technology: null,
  cellId: null,
  rssiDbm: null,
  rsrpDbm: null,
  rsrqDb: null,
  sinrDb: null,
})

/** A coded scale: from `first` at code 1 in steps, code 0 under it, the last code at and over it. */
interface Scale {
  first: number
  step: number
  last: number
  /** code of "not known or not detectable" */
  unknown: number
  /** span told where the end codes stand for all under or over, for their edges */
  ends: [number, number]
}

/** @source TS 27.007 8.69, mapping of TS 36.133 9.1.4 (RSRP) and 9.1.7 (RSRQ), TS 38.133 10.1.6, 10.1.11, 10.1.16 */
const SCALES = {
  rsrq: { first: -19.5, step: 0.5, last: 34, unknown: 255, ends: [-34, 2.5] },
  rsrp: { first: -140, step: 1, last: 97, unknown: 255, ends: [-156, -30] },
  ssRsrq: { first: -43, step: 0.5, last: 126, unknown: 255, ends: [-50, 25] },
  ssRsrp: { first: -156, step: 1, last: 126, unknown: 255, ends: [-165, -20] },
  ssSinr: { first: -23, step: 0.5, last: 127, unknown: 255, ends: [-30, 45] },
} satisfies Record<string, Scale>

/** @returns the step that a code stands for; null for "not known" and for codes the standard does not have */
function decoded(code: number | null, s: Scale): Coded | null {
  if (code === null || code === s.unknown || code < 0 || code > s.last) return null
  const low = code === 0 ? s.ends[0] : s.first + (code - 1) * s.step
  const high = code === 0 ? s.first : code === s.last ? s.ends[1] : s.first + code * s.step
  // The end codes have no middle: all that is known is which side of their edge.
  const value = code === 0 ? high : code === s.last ? low : (low + high) / 2
  return { value, low, high }
}

/** @returns the code of a figure, as a modem would give it */
function coded(value: number | null, s: Scale): number {
  if (value === null) return s.unknown
  return Math.min(s.last, Math.max(0, Math.floor((value - s.first) / s.step) + 1))
}

/** `+CSQ`: −113 dBm and less at 0, 2 dB a step, −51 and more at 31. */
function rssiOf(code: number | null): Coded | null {
  if (code === null || code < 0 || code > 31) return null
  const value = -113 + 2 * code
  return { value, low: code === 0 ? -125 : value, high: code === 31 ? -30 : value + 2 }
}

/** By code; 6 and 7 are for messages alone, 8 for emergency alone, 9 and 10 without calls over the older networks. */
const REGISTERED = [
  'not registered',
  'home',
  'searching',
  'denied',
  null,
  'roaming',
  'home',
  'roaming',
  null,
  'home',
  'roaming',
] as const
/**
 * Access technology of `+COPS`, `+CEREG` and `+C5GREG`. 12 is either radio on a 5G core: the figures tell which; 13 is LTE with
 * NR beside it.
 */
const TECHNOLOGIES: Record<number, ModemState['technology']> = {
  0: 'GSM',
  2: 'UTRA',
  3: 'GSM',
  4: 'UTRA',
  5: 'UTRA',
  6: 'UTRA',
  7: 'LTE',
  9: 'LTE',
  10: 'LTE',
  11: 'NR',
  13: 'LTE',
}

/** Fields after a response's name: numbers and quoted words, with commas inside quotes kept. */
function fieldsOf(text: string): string[] {
  const out: string[] = []
  let word = ''
  let quoted = false
  for (const c of text) {
    if (c === '"') quoted = !quoted
    else if (c === ',' && !quoted) {
      out.push(word.trim())
      word = ''
    } else word += c
  }
  out.push(word.trim())
  return out
}

const whole = (text: string | undefined): number | null => (text !== undefined && /^\d{1,5}$/.test(text) ? Number(text) : null)

/**
 * Reads one line of an answer into what is known.
 * @returns what it says; null where the line is none of these answers, or is garbled
 */
export function readAnswer(line: string): Partial<ModemState> | null {
  const match = /^\+(CSQ|CESQ|COPS|CEREG|C5GREG):\s*(.*)$/.exec(line.trim())
  if (!match) return null
  const f = fieldsOf(nth(match, 2))
  switch (match[1]) {
    case 'CSQ':
      return whole(f[0]) === null ? null : { rssiDbm: rssiOf(whole(f[0])) }
    case 'CESQ': {
      // <rxlev>,<ber>,<rscp>,<ecno>,<rsrq>,<rsrp>[,<ss_rsrq>,<ss_rsrp>,<ss_sinr>]
      if (f.length < 6 || f.slice(0, 9).some(x => whole(x) === null)) return null
      const [rsrq, rsrp, ssRsrq, ssRsrp, ssSinr] = [4, 5, 6, 7, 8].map(i => whole(f[i]))
      const isNr = !decoded(rsrp!, SCALES.rsrp) && !!decoded(ssRsrp!, SCALES.ssRsrp)
      return {
        ...(isNr ? { technology: 'NR' as const } : {}),
        rsrqDb: decoded(rsrq!, SCALES.rsrq) ?? decoded(ssRsrq!, SCALES.ssRsrq),
        rsrpDbm: decoded(rsrp!, SCALES.rsrp) ?? decoded(ssRsrp!, SCALES.ssRsrp),
        sinrDb: decoded(ssSinr!, SCALES.ssSinr),
      }
    }
    case 'COPS': {
      const technology = TECHNOLOGIES[whole(f[3]) ?? -1] ?? null
      return f.length < 3 ? { operator: null } : { operator: f[2] || null, ...(technology ? { technology } : {}) }
    }
    default: {
      // Asked for: <n>,<stat>[,<tac>,<ci>,<AcT>…]; by itself: <stat>[,<tac>,<ci>,<AcT>…], where an area has four figures and more.
      const asked = /^\d{1,2}$/.test(f[1] ?? '')
      const [stat, , ci, act] = asked ? f.slice(1) : f
      const code = whole(stat)
      if (code === null || code >= REGISTERED.length) return null
      const technology = TECHNOLOGIES[whole(act) ?? -1] ?? null
      return {
        registered: REGISTERED[code] ?? null,
        cellId: ci ? cellFromHex(ci, match[1] === 'C5GREG' && technology !== 'LTE' ? 'NR' : 'LTE') : null,
        ...(technology ? { technology } : {}),
      }
    }
  }
}

/** How an answer ends. */
export type Final = { ok: true } | { ok: false; why: string }

/** @returns how a command ended; null for a line that is not an end */
export function readFinal(line: string): Final | null {
  const text = line.trim()
  if (text === 'OK') return { ok: true }
  if (text === 'ERROR') return { ok: false, why: 'the modem refused the command' }
  const match = /^\+(CME|CMS) ERROR:\s*(.*)$/.exec(text)
  if (!match) return null
  const code = nth(match, 2)
  return { ok: false, why: CME[code] ?? `the modem says error ${code}` }
}

/** @source TS 27.007 9.2, the ones met in practice */
const CME: Record<string, string> = {
  '3': 'the modem does not allow it now',
  '4': 'the modem does not know the command',
  '10': 'no SIM in the modem',
  '11': 'the SIM asks for its PIN',
  '13': 'the SIM does not answer',
  '14': 'the modem is busy with its SIM',
  '30': 'no network',
  '100': 'the modem gives no reason',
}

/** Commands that ask for what a reading needs, in the order in which they are asked. */
export const SIGNAL_COMMANDS = ['AT+CESQ', 'AT+CEREG?', 'AT+COPS?', 'AT+CSQ'] as const

/**
 * Cuts a stream into lines: what came is added, whole lines are handed out, the rest waits.
 * Garbage is bounded: a line that never ends is given up.
 */
export class LineCutter {
  private rest = ''

  add(chunk: string): string[] {
    this.rest += chunk
    const parts = this.rest.split(/[\r\n]+/)
    this.rest = parts.pop() ?? ''
    if (this.rest.length > LONGEST_LINE) this.rest = ''
    return parts.map(l => l.trim()).filter(Boolean)
  }
}
const LONGEST_LINE = 2000

/** The other side: what a modem answers, for a stand-in. */
export interface Heard {
  technology: 'LTE' | 'NR'
  operator: string
  cellId: string
  rsrpDbm: number
  rsrqDb: number
  sinrDb: number
}

/** @returns the answer to one command without its end, as a modem by the standard gives it; null for one it does not know */
export function answerTo(command: string, h: Heard): string | null {
  const lte = h.technology === 'LTE'
  switch (command.trim().toUpperCase()) {
    case 'AT':
    case 'ATE0':
    case 'ATE1':
    case 'AT+CEREG=2':
      return ''
    case 'AT+CSQ':
      return `+CSQ: ${Math.min(31, Math.max(0, Math.floor((h.rsrpDbm + 28 + 113) / 2)))},99`
    case 'AT+CESQ':
      return lte
        ? `+CESQ: 99,99,255,255,${coded(h.rsrqDb, SCALES.rsrq)},${coded(h.rsrpDbm, SCALES.rsrp)}`
        : `+CESQ: 99,99,255,255,255,255,${[
            coded(h.rsrqDb, SCALES.ssRsrq),
            coded(h.rsrpDbm, SCALES.ssRsrp),
            coded(h.sinrDb, SCALES.ssSinr),
          ].join()}`
    case 'AT+COPS?':
      return `+COPS: 0,0,"${h.operator}",${lte ? 7 : 11}`
    case 'AT+CEREG?':
      return `+CEREG: 2,1,"00A1","${cellAsHex(h.cellId)}",${lte ? 7 : 11}`
    default:
      return null
  }
}
