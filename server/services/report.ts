/** The report as PDF: the same blocks as on screen, drawings as the same primitives. */
import pdfmake from 'pdfmake'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { createRequire } from 'node:module'
import { assess } from '../../core/judge/assess'
import type { Assessment } from '../../core/judge/assess'
import { pathInputs } from '../../core/aim/bearings'
import { positionOf } from '../../core/survey/place'
import type { JobDocument } from '../../core/job/schema'
import type { Block, Report } from '../../core/report/report'
import { toSvg } from '../../core/drawing/primitives'
import { isFar, Terrain } from '../../core/terrain/blocks'
import { computePaths, pathBlocks } from '../../core/terrain/path'
import type { Db } from '../utils/db'
import { readBlocks } from './terrain'

/** Masts worth computing for a paper: the nearest, and the one chosen. */
const MOST_PATHS = 40

/** The assessment over the crew's terrain, as the worker on screen makes it. */
export async function assessOnServer(db: Db, crewId: string, doc: JobDocument, atUtc: string): Promise<Assessment> {
  const chosen = new Set(doc.designs.map(d => d.mastId))
  const inputs = pathInputs(doc).filter((p, i) => i < MOST_PATHS || chosen.has(p.mastId))
  const site = positionOf(doc)
  const keys = [...new Set(inputs.flatMap(pathBlocks))]
  const near = keys.filter(k => site && !isFar(site, k))
  const far = keys.filter(k => !site || isFar(site, k))
  const terrain = new Terrain(
    [...(await readBlocks(db, crewId, near)), ...(await readBlocks(db, crewId, far, 'ground', true))],
    [...(await readBlocks(db, crewId, near, 'cover')), ...(await readBlocks(db, crewId, far, 'cover', true))],
  )
  const paths = computePaths(terrain, inputs)
  return assess(doc, { paths }, { atUtc })
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
