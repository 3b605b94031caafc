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

/** A quoted field longer than this was never meant as one: its quote is a stray. */
const LONGEST_QUOTED = 4000
const QUOTE = 34
const LINE_END = 10

/**
 * Where a quoted field ends.
 *
 * A quote inside it that no separator follows is a letter of it on its own line; on a later one it shows that the
 * field never was a quoted one.
 *
 * @param open  position of its first quote
 * @returns position of its last quote; `stray` where nothing closes it; `open` where the text ends before that shows
 */
function closingQuote(text: string, open: number, delimiter: string, whole: boolean): number | 'stray' | 'open' {
  let at = open
  for (;;) {
    at = text.indexOf('"', at + 1)
    if (at < 0) return whole || text.length - open > LONGEST_QUOTED ? 'stray' : 'open'
    if (at - open > LONGEST_QUOTED) return 'stray'
    const next = text[at + 1]
    if (next === undefined) return whole ? at : 'open'
    if (next === '"') at++
    else if (next === delimiter || next === '\n' || next === '\r') return at
    else if (text.slice(open, at).includes('\n')) return 'stray'
  }
}

/** Goes through the rows of a text of CSV, as far as it can be told where they end. */
function eachRow(
  text: string,
  delimiter: string,
  whole: boolean,
  on: { rowEnd?: (after: number) => void; stray?: (quote: number) => void },
): void {
  const delim = delimiter.charCodeAt(0)
  let fieldStart = true
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    if (c === QUOTE && fieldStart) {
      fieldStart = false
      const end = closingQuote(text, i, delimiter, whole)
      if (end === 'open') return
      if (end === 'stray') on.stray?.(i)
      else i = end
    } else if (c === LINE_END) {
      on.rowEnd?.(i + 1)
      fieldStart = true
    } else {
      fieldStart = c === delim
    }
  }
}

/**
 * Places where a text of CSV may be cut between rows: the last row end before every `size`
 * characters, and the last of all. A line end inside quotes is none; a quote that nothing closes is none either.
 *
 * @param whole  the text ends with the table, so that its end counts too
 * @returns ascending positions after a row; what follows the last belongs to the next piece
 */
export function recordCuts(text: string, delimiter: string, size: number, whole = false): number[] {
  const cuts: number[] = []
  let last = 0
  let from = 0
  if (!text.includes('"')) {
    while (text.length - from > size) {
      const at = text.lastIndexOf('\n', from + size)
      if (at < from) break
      cuts.push((from = at + 1))
    }
    last = text.lastIndexOf('\n') + 1
  } else
    eachRow(text, delimiter, whole, {
      rowEnd: after => {
        if (after - from > size && last > from) cuts.push((from = last))
        last = after
      },
    })
  if (last > (cuts.at(-1) ?? 0)) cuts.push(last)
  if (whole && text.length > (cuts.at(-1) ?? 0)) cuts.push(text.length)
  return cuts
}

/** Stands before a quote that nothing closes, so that the parser takes it for a letter. */
export const STRAY_MARK = '\u0001'

/** @returns whole rows with every stray quote marked: it spoils its own row and no other */
export function markStrays(rows: string, delimiter: string): string {
  if (!rows.includes('"')) return rows
  const strays: number[] = []
  eachRow(rows, delimiter, true, { stray: at => strays.push(at) })
  let out = ''
  let from = 0
  for (const at of strays) {
    out += rows.slice(from, at) + STRAY_MARK
    from = at
  }
  return out + rows.slice(from)
}

/** A cell that a spreadsheet would run as a formula is written with a leading apostrophe. @source OWASP, CSV injection */
export function csvCell(value: string | number | null): string {
  let s = value === null ? '' : String(value)
  if (typeof value === 'string' && /^[=+\-@\t\r]/.test(s)) s = `'${s}`
  return /[",\n\r]/.test(s) ? `"${s.replace(/"/g, '""')}"` : s
}

export const csvLine = (cells: readonly (string | number | null)[]): string => cells.map(csvCell).join(',') + '\r\n'
