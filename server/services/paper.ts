/** Papers: a job worked out over its ground, and a report as PDF. Pure work, done in a thread of its own. */
import pdfmake from 'pdfmake'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { assess } from '../../core/judge'
import type { Assessment } from '../../core/judge'
import type { JobDocument } from '../../core/job'
import type { Block, Report } from '../../core/report'
import { toSvg } from '../../core/drawing'
import { computePaths, Terrain } from '../../core/terrain'
import type { HeightBlock, PathInput } from '../../core/terrain'
import { faces, runsOf, svgInFaces } from './faces'

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
  pdfmake.addFonts(faces())
  pdfmake.setUrlAccessPolicy(() => false)
  pdfmake.setLocalAccessPolicy((path: string) => path.includes('@fontsource'))
  ready = true
}

/** A text in the faces that hold it. */
const set = (text: string, style: object = {}): Content => ({
  text: runsOf(text).map(r => (r.font ? { text: r.text, font: r.font } : r.text)),
  ...style,
})

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
      .replace(/θ/g, 'theta')
      .replace(/∞/g, 'no limit')
      .replace(/√/g, 'sqrt ')
      .replace(/≤/g, '<=')
      .replace(/⅓/g, '1/3'),
  ) as T

function content(b: Block): Content {
  const title = set(b.title, { style: 'h2', headlineLevel: 1 })
  if (b.kind === 'facts')
    return [
      title,
      {
        layout: 'noBorders',
        table: { widths: [110, '*'], body: b.rows.map(([k, v]) => [set(k, { color: '#5d636b' }), set(v)]) },
      },
    ]
  if (b.kind === 'list') return [title, { ul: b.items.map(i => set(i)) }]
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
          body: [b.head.map(h => set(h, { color: '#5d636b' })), ...b.rows.map(r => r.map(x => set(x)))],
        },
      },
    ]
  // A drawing as wide as a page fills it; a square one keeps to half.
  const width = b.drawing.width > 1.4 * b.drawing.height ? PAGE_WIDTH : PAGE_WIDTH / 2
  return { unbreakable: true, stack: [title, { svg: svgInFaces(toSvg(b.drawing)), width }, set(b.caption, { style: 'caption' })] }
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
    content: [set(report.title, { style: 'h1' }), set(report.subtitle, { color: '#5d636b' }), ...report.blocks.map(content)],
    // A heading stands on the page of what it heads.
    pageBreakBefore: (node, others) => node.headlineLevel === 1 && !others.getFollowingNodesOnPage().length,
    footer: (page, pages) => ({
      margin: [40, 12],
      fontSize: 7.5,
      color: '#5d636b',
      columns: [set(report.foot), { text: `${page} of ${pages}`, alignment: 'right', width: 50 }],
    }),
  }
  return await pdfmake.createPdf(definition).getBuffer()
}
