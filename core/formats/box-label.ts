/** What stands on the label of a box: serial, IMEI, MAC; typed, or read off its bar codes. */
import { sure } from '../sure'

/** @returns whether the last digit is what the others make it. @source ISO/IEC 7812-1 Annex B (Luhn) */
export function luhnFits(digits: string): boolean {
  let sum = 0
  for (let i = 0; i < digits.length; i++) {
    const d = Number(digits[digits.length - 1 - i])
    sum += i % 2 ? (d * 2 > 9 ? d * 2 - 9 : d * 2) : d
  }
  return sum % 10 === 0
}

/**
 * @returns fifteen digits
 * @throws RangeError where it has not fifteen, or its check digit does not fit: one was misread
 * @source 3GPP TS 23.003, 6.2.1 and Annex B
 */
export function parseImei(text: string): string {
  const digits = text.replace(/[\s./-]/g, '')
  if (!/^\d{15}$/.test(digits)) throw new RangeError(`an IMEI has 15 digits, got ${digits.length}`)
  if (!luhnFits(digits)) throw new RangeError('its check digit does not fit: read it again')
  return digits
}

/** @returns six pairs with colons, upper case. @throws RangeError where it has not twelve hexadecimal digits. @source IEEE 802 */
export function parseMac(text: string): string {
  const digits = text.replace(/[\s:.-]/g, '').toUpperCase()
  if (!/^[0-9A-F]{12}$/.test(digits)) throw new RangeError('a MAC address has 12 digits, 0 to 9 and A to F')
  return sure(digits.match(/../g)).join(':')
}

export interface BoxLabel {
  serial: string | null
  imei: string | null
  mac: string | null
}

/**
 * Sorts what bar codes of a label say: fifteen digits that check are an IMEI, twelve hexadecimal ones a MAC, the
 * longest of the rest the serial.
 */
export function readBarCodes(codes: readonly string[]): BoxLabel {
  const out: BoxLabel = { serial: null, imei: null, mac: null }
  const rest: string[] = []
  for (const code of codes.flatMap(c => c.split(/[\s;,]+/)).map(c => c.replace(/^(S\/?N|IMEI|MAC)[:=]?/i, ''))) {
    if (/^\d{15}$/.test(code) && luhnFits(code)) out.imei ??= code
    else if (/^[0-9A-F]{2}([:-]?[0-9A-F]{2}){5}$/i.test(code) && !/^\d{12}$/.test(code)) out.mac ??= parseMac(code)
    else if (/^[\w/-]{4,60}$/.test(code)) rest.push(code)
  }
  out.serial = rest.sort((a, b) => b.length - a.length)[0] ?? null
  return out
}
