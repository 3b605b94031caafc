import { labelsPaper, pickListPaper } from '../../../../core/report/plan-papers'
import { listPaper, quotePaper } from '../../../../core/report/list-papers'
import { quoteJob } from '../../../../core/card/quote'
import type { JobDocument } from '../../../../core/job/schema'
import { withNear } from '../../../../shared/api'
import { atPresentStop } from '../../../../core/survey/place'
import { priceBook } from '../../../services/prices'
import { assessOnServer, renderPdf } from '../../../services/report'
import { queryText, queryWord } from '../../../utils/validate'

const PAPERS = { picklist: pickListPaper, labels: labelsPaper } as const
const FILES = { picklist: 'pick-list', labels: 'labels', list: 'list', quote: 'quote' } as const

/** A paper of the plan as PDF: the pick list of a variant, the labels of its cables; the job's list, and its quote. */
export default defineEventHandler(async event => {
  const units = queryWord(event, 'units', ['metric', 'imperial'] as const) ?? 'metric'
  const what = queryWord(event, 'what', ['picklist', 'labels', 'list', 'quote'] as const) ?? 'picklist'
  const wanted = queryText(event, 'design', 36)
  const { me, snapshot } = await requireJob(event)
  const { document } = snapshot
  const id = wanted ?? document.jobs[0]?.designId
  const design = document.designs.find(d => d.id === id)
  if (!design) return problem(404, 'No such variant in this job.')
  const paper =
    what === 'picklist' || what === 'labels'
      ? PAPERS[what]({ document, design, units, crew: me.crewName })
      : await moneyPaper(me, withNear(document, snapshot.near), what)
  const pdf = await renderPdf(paper)
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `attachment; filename="${FILES[what]}.pdf"`,
    'cache-control': 'no-store',
  })
  return pdf
})

async function moneyPaper(me: { crewId: string; crewName: string }, document: JobDocument, what: 'list' | 'quote') {
  const atUtc = new Date().toISOString()
  const [a, book] = await Promise.all([assessOnServer(useDb(), me.crewId, document, atUtc), priceBook(useDb(), me.crewId)])
  const quoted = quoteJob(atPresentStop(document), a, book)
  const paper = { document, quoted, money: book.money, crew: me.crewName, day: atUtc.slice(0, 10) }
  return what === 'list' ? listPaper(paper) : quotePaper({ ...paper, promise: a.promise })
}
