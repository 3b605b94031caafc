/** Papers: a job worked out over its ground, and a report as PDF. Pure work, done in a thread of its own. */
import pdfmake from 'pdfmake'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { createRequire } from 'node:module'
import { assess } from '../../core/judge/assess'
import type { Assessment } from '../../core/judge/assess'
import type { JobDocument } from '../../core/job/schema'
import type { Block, Report } from '../../core/report/report'
import { toSvg } from '../../core/drawing/primitives'
import { Terrain } from '../../core/terrain/blocks'
import type { HeightBlock } from '../../core/terrain/blocks'
import { computePaths } from '../../core/terrain/path'
import type { PathInput } from '../../core/terrain/path'

export interface AssessTask {
  document: JobDocument
  inputs: PathInput[]
  ground: HeightBlock[]
  cover: HeightBlock[]
  atUtc: string
}
export type PaperTask = AssessTask | { report: Report }

export function assessOver({ document, inputs, ground, cover, atUtc }: AssessTask): Assessment {
  const paths = computePaths(new Terrain(ground, cover), inputs)
  return assess(document, { paths }, { atUtc })
}

let ready = false
function fonts(): void {
  if (ready) return
  const require = createRequire(import.meta.url)
  const file = (pkg: string, name: string, weight: number) =>
    require.resolve(`@fontsource/${pkg}/files/${name}-latin-${weight}-normal.woff`)
  const sans = (w: number) => file('atkinson-hyperlegible-next', 'atkinson-hyperlegible-next', w)
  const mono = (w: number) => file('atkinson-hyperlegible-mono', 'atkinson-hyperlegible-mono', w)
  pdfmake.addFonts({
    'Atkinson Hyperlegible Next': { normal: sans(400), bold: sans(700), italics: sans(400), bolditalics: sans(700) },
    'Atkinson Hyperlegible Mono': { normal: mono(400), bold: mono(600), italics: mono(400), bolditalics: mono(600) },
  })
  pdfmake.setUrlAccessPolicy(() => false)
  pdfmake.setLocalAccessPolicy((path: string) => path.includes('@fontsource'))
  ready = true
}

const PAGE_WIDTH = 515

/** Signs that the shipped Latin faces do not hold, in words. */
export const printable = <T>(value: T): T =>
  JSON.parse(
    JSON.stringify(value)
      .replace(/[\u2009 ]?Ω/g, ' ohm')
      .replace(/→/g, 'to')
      .replace(/[↓]/g, 'down')
      .replace(/[↑]/g, 'up')
      .replace(/ν/g, 'v')
      .replace(/λ/g, 'lambda')
      .replace(/θ/g, 'theta'),
  ) as T

function content(b: Block): Content {
  const title: Content = { text: b.title, style: 'h2', headlineLevel: 1 }
  if (b.kind === 'facts')
    return [
      title,
      { layout: 'noBorders', table: { widths: [110, '*'], body: b.rows.map(([k, v]) => [{ text: k, color: '#5d636b' }, v]) } },
    ]
  if (b.kind === 'list') return [title, { ul: b.items }]
  if (b.kind === 'table')
    return [
      title,
      {
        layout: 'lightHorizontalLines',
        table: {
          headerRows: 1,
          keepWithHeaderRows: 1,
          dontBreakRows: true,
          widths: b.head.map((h, i) => (i === b.head.length - 1 ? '*' : 'auto')),
          body: [b.head.map(h => ({ text: h, color: '#5d636b' })), ...b.rows],
        },
      },
    ]
  // A drawing as wide as a page fills it; a square one keeps to half.
  const width = b.drawing.width > 1.4 * b.drawing.height ? PAGE_WIDTH : PAGE_WIDTH / 2
  return { unbreakable: true, stack: [title, { svg: toSvg(b.drawing), width }, { text: b.caption, style: 'caption' }] }
}

export async function renderPdf(made: Report): Promise<Buffer> {
  fonts()
  const report = printable(made)
  const definition: TDocumentDefinitions = {
    info: { title: report.title },
    pageSize: 'A4',
    pageMargins: [40, 44, 40, 48],
    defaultStyle: { font: 'Atkinson Hyperlegible Next', fontSize: 9.5, color: '#191d22', lineHeight: 1.2 },
    styles: {
      h1: { fontSize: 20, bold: true },
      h2: { fontSize: 12, bold: true, margin: [0, 12, 0, 4] },
      caption: { fontSize: 8, color: '#5d636b', margin: [0, 2, 0, 0] },
    },
    content: [{ text: report.title, style: 'h1' }, { text: report.subtitle, color: '#5d636b' }, ...report.blocks.map(content)],
    // A heading stands on the page of what it heads.
    pageBreakBefore: (node, others) => node.headlineLevel === 1 && !others.getFollowingNodesOnPage().length,
    footer: (page, pages) => ({
      margin: [40, 12],
      fontSize: 7.5,
      color: '#5d636b',
      columns: [report.foot, { text: `${page} of ${pages}`, alignment: 'right', width: 50 }],
    }),
  }
  return await pdfmake.createPdf(definition).getBuffer()
}
