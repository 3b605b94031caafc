/** Reading numbers and tables as people keep them. */

/**
 * Reads a number with a comma or a point; true minus signs, thin spaces and plain spaces are accepted.
 * @returns null for an empty field
 * @throws RangeError where the text is not a number
 */
export function parseNumber(text: string): number | null {
  if (/^-?\d+(\.\d+)?$/.test(text)) return Number(text)
  const clean = text
    .trim()
    .replace(/[−–]/g, '-')
    .replace(/[\s\u2009\u202f\u00a0]/g, '')
  if (!clean) return null
  if (!/^[+-]?(\d+([.,]\d*)?|[.,]\d+)$/.test(clean)) throw new RangeError(`“${text.trim()}” is not a number`)
  return Number(clean.replace(',', '.'))
}

/** @returns the value made negative where only negative makes sense: `95` is −95 dBm */
export const asNegative = (value: number | null): number | null => (value !== null && value > 0 ? -value : value)

/** @returns the separator that the header line uses most: comma, semicolon, tab or bar */
export function guessDelimiter(headerLine: string): string {
  const counts = [',', ';', '\t', '|'].map(d => [d, headerLine.split(d).length] as const)
  return counts.reduce((a, b) => (b[1] > a[1] ? b : a))[0]
}

/**
 * Places where a text of CSV may be cut between rows: the last row end before every `size`
 * characters, and the last of all. A line end inside quotes is none.
 *
 * @param whole  the text ends with the table, so that its end counts too
 * @returns ascending positions after a row; what follows the last belongs to the next piece
 */
export function recordCuts(text: string, delimiter: string, size: number, whole = false): number[] {
  const cuts: number[] = []
  const delim = delimiter.charCodeAt(0)
  let last = 0
  let from = 0
  if (!text.includes('"')) {
    while (text.length - from > size) {
      const at = text.lastIndexOf('\n', from + size)
      if (at < from) break
      cuts.push((from = at + 1))
    }
    last = text.lastIndexOf('\n') + 1
  } else {
    let quoted = false
    let fieldStart = true
    for (let i = 0; i < text.length; i++) {
      const c = text.charCodeAt(i)
      if (quoted) {
        if (c !== 34) continue
        if (text.charCodeAt(i + 1) === 34) i++
        else quoted = false
      } else if (c === 34 && fieldStart) {
        quoted = true
        fieldStart = false
      } else if (c === 10) {
        if (i + 1 - from > size && last > from) cuts.push((from = last))
        last = i + 1
        fieldStart = true
      } else {
        fieldStart = c === delim
      }
    }
  }
  if (last > (cuts.at(-1) ?? 0)) cuts.push(last)
  if (whole && text.length > (cuts.at(-1) ?? 0)) cuts.push(text.length)
  return cuts
}

/** A cell that a spreadsheet would run as a formula is written with a leading apostrophe. @source OWASP, CSV injection */
export function csvCell(value: string | number | null): string {
  let s = value === null ? '' : String(value)
  if (typeof value === 'string' && /^[=+\-@\t\r]/.test(s)) s = `'${s}`
  return /[",\n\r]/.test(s) ? `"${s.replace(/"/g, '""')}"` : s
}

export const csvLine = (cells: readonly (string | number | null)[]): string => cells.map(csvCell).join(',') + '\r\n'
