const ESCAPES: Record<string, string> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' }
const NUL = String.fromCharCode(0)

/** @returns the text as the format writes it; the one character it cannot hold is dropped */
function escaped(v: string): string {
  const clean = v.includes(NUL) ? v.replaceAll(NUL, '') : v
  return /[\\\t\n\r]/.test(clean) ? clean.replace(/[\\\t\n\r]/g, c => ESCAPES[c]!) : clean
}

/** One line of PostgreSQL's COPY text format. @source PostgreSQL manual, COPY, "Text Format" */
export function copyRow(values: readonly (string | number | null)[]): string {
  let out = ''
  for (let i = 0; i < values.length; i++) {
    const v = values[i]!
    if (i) out += '\t'
    out += v === null ? '\\N' : typeof v === 'number' ? String(v) : escaped(v)
  }
  return out + '\n'
}
