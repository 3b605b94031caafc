/**
 * Faces of the papers: our own for Latin, another for what it lacks. Each face comes in parts by script, and a text is split by
 * what each part really holds, so that no letter of a name is printed as a box.
 */
import { createRequire } from 'node:module'
import { openSync } from 'fontkit'
import type { Font } from 'fontkit'

const require = createRequire(import.meta.url)

interface Part {
  /** as the PDF writer knows it */
  name: string
  pkg: string
  script: string
}
const SANS = 'Atkinson Hyperlegible Next'
const MONO = 'Atkinson Hyperlegible Mono'
/** In the order in which they are asked: our own, then what other scripts want. */
const PARTS: readonly Part[] = [
  { name: SANS, pkg: 'atkinson-hyperlegible-next', script: 'latin' },
  { name: `${SANS} ext`, pkg: 'atkinson-hyperlegible-next', script: 'latin-ext' },
  ...['latin', 'latin-ext', 'greek', 'greek-ext', 'cyrillic', 'cyrillic-ext'].map(script => ({
    name: `Noto Sans ${script}`,
    pkg: 'noto-sans',
    script,
  })),
]
const file = (pkg: string, script: string, weight: number): string =>
  require.resolve(`@fontsource/${pkg}/files/${pkg}-${script}-${weight}-normal.woff`)

/** @returns every part with its files, as the PDF writer takes them */
export function faces(): Record<string, { normal: string; bold: string; italics: string; bolditalics: string }> {
  const four = (pkg: string, script: string, bold: number) => {
    const [normal, heavy] = [file(pkg, script, 400), file(pkg, script, bold)]
    return { normal, bold: heavy, italics: normal, bolditalics: heavy }
  }
  return {
    ...Object.fromEntries(PARTS.map(p => [p.name, four(p.pkg, p.script, 700)])),
    [MONO]: four('atkinson-hyperlegible-mono', 'latin', 600),
  }
}

let opened: { name: string; font: Font }[] | null = null
const parts = () => (opened ??= PARTS.map(p => ({ name: p.name, font: openSync(file(p.pkg, p.script, 400)) as Font })))

/** @returns the first part that holds a letter; null where none does */
const faceOf = (codePoint: number): string | null => parts().find(p => p.font.hasGlyphForCodePoint(codePoint))?.name ?? null

export interface Run {
  text: string
  /** null where it is of the paper's own face */
  font: string | null
}

/** What no part holds is printed as a question mark, not as a box that says nothing. */
const UNKNOWN = '?'

/** A text in runs of one face each; marks that combine stay with the letter before them. */
export function runsOf(text: string): Run[] {
  const out: Run[] = []
  for (const sign of text.normalize('NFC')) {
    const isSpace = /\s/.test(sign)
    const found = isSpace ? null : faceOf(sign.codePointAt(0)!)
    const font = found === SANS ? null : found
    const letter = isSpace || found ? sign : UNKNOWN
    const last = out.at(-1)
    if (last && (last.font === font || isSpace)) last.text += letter
    else out.push({ text: letter, font })
  }
  return out
}

/** Texts of a drawing in runs of one face each. */
export function svgInFaces(svg: string): string {
  return svg.replace(/(<text [^>]*>)([^<]*)(<\/text>)/g, (whole, open: string, text: string, close: string) => {
    const runs = runsOf(text)
    if (runs.every(r => r.font === null)) return whole
    return open + runs.map(r => (r.font ? `<tspan font-family="${r.font}">${r.text}</tspan>` : r.text)).join('') + close
  })
}
