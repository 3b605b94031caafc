/**
 * Writes the widths of the shipped faces' characters, as a browser sets them with tabular figures, for labels to be kept apart
 * where nothing is drawn yet: `node scripts/face-widths.mjs`.
 */
import { readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { chromium } from 'playwright-core'

const FACES = /** @type {const} */ ([
  ['sans', 400],
  ['sans', 600],
  ['sans', 700],
  ['mono', 400],
  ['mono', 600],
])
const FILES = { sans: 'atkinson-hyperlegible-next', mono: 'atkinson-hyperlegible-mono' }
const CHARACTERS =
  Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i)).join('') +
  ' °±·×÷½⅓¼²³–—‘’“”…→↑↓−≤µΩ\u2009\u00a0\u202fßäöüéèáàåæøñç'

const require = createRequire(import.meta.url)
const face = (/** @type {'sans' | 'mono'} */ font, /** @type {number} */ weight) =>
  `@font-face{font-family:${font};font-weight:${weight};src:url(data:font/woff2;base64,${readFileSync(
    require.resolve(`@fontsource/${FILES[font]}/files/${FILES[font]}-latin-${weight}-normal.woff2`),
  ).toString('base64')})}`

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
const page = await browser.newPage()
await page.setContent(
  `<style>${FACES.map(([f, w]) => face(f, w)).join('')}
  span { font-size: 1000px; white-space: pre; font-variant-numeric: tabular-nums slashed-zero }</style><span id="s"></span>`,
)
const widths = await page.evaluate(
  async ({ faces, characters }) => {
    for (const [font, weight] of faces) await document.fonts.load(`${weight} 20px ${font}`)
    const span = /** @type {HTMLElement} */ (document.querySelector('#s'))
    return faces.map(([font, weight]) => {
      span.style.fontFamily = `${font}, sans-serif`
      span.style.fontWeight = String(weight)
      return [...characters].map(c => {
        // Between two letters, so that a space keeps its width.
        span.textContent = `n${c}n`
        const with_ = span.getBoundingClientRect().width
        span.textContent = 'nn'
        return Math.round(with_ - span.getBoundingClientRect().width)
      })
    })
  },
  { faces: FACES.map(f => [...f]), characters: CHARACTERS },
)
await browser.close()
const IN_LINE = 24
function inLines(/** @type {number[]} */ list) {
  const lines = Array.from({ length: Math.ceil(list.length / IN_LINE) }, (_, i) => list.slice(i * IN_LINE, (i + 1) * IN_LINE))
  return lines.map(l => `    ${l.join(', ')},`).join('\n')
}
const quoted = (/** @type {string} */ text) =>
  `'${text
    .replace(/[\\']/g, c => `\\${c}`)
    .replace(/[\u00a0\u2009\u202f]/g, c => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`)}'`
const HALF = 95
writeFileSync(
  new URL('../core/drawing/face.ts', import.meta.url),
  `/** Widths of the shipped faces' characters, thousandths of the size, figures tabular. Written by \`scripts/face-widths.mjs\`. */
export const CHARACTERS =
  ${quoted(CHARACTERS.slice(0, HALF))} +
  ${quoted(CHARACTERS.slice(HALF))}

// prettier-ignore
export const WIDTHS: Record<${FACES.map(([f, w]) => `'${f}${w}'`).join(' | ')}, readonly number[]> = {
${FACES.map(([f, w], i) => `  ${f}${w}: [\n${inLines(/** @type {number[][]} */ (widths)[i] ?? [])}\n  ],`).join('\n')}
}
`,
)
