import { jobOf } from '../../../../core/job'
import { cardPaper, labelsPaper, listPaper, pickListPaper, quotePaper, stopSheet } from '../../../../core/report'
import { cardOf, quoteJob } from '../../../../core/card'
import type { JobDocument } from '../../../../core/job'
import { atPresentStop } from '../../../../core/survey'
import type { Units } from '../../../../core/units'
import { withNear } from '../../../../shared/api'
import { priceBook } from '../../../services/prices'
import { assessOnServer, renderPdf } from '../../../services/report'
import { queryText, queryWord } from '../../../http/validate'
import { useDb } from '../../../data/db'
import { requireJob } from '../../../http/job'
import { problem } from '../../../http/problem'

const PAPERS = { picklist: pickListPaper, labels: labelsPaper } as const
const FILES = {
  picklist: 'pick-list',
  labels: 'labels',
  list: 'list',
  quote: 'quote',
  card: 'job-card',
  stop: 'stop-sheet',
} as const

/** A paper of the plan as PDF: the pick list of a variant, the labels of its cables; the job's list, its quote, its card. */
export default defineEventHandler(async event => {
  const units = queryWord(event, 'units', ['metric', 'imperial'] as const) ?? 'metric'
  const what = queryWord(event, 'what', ['picklist', 'labels', 'list', 'quote', 'card', 'stop'] as const) ?? 'picklist'
  const wanted = queryText(event, 'design', 36)
  const { me, snapshot } = await requireJob(event)
  const { document } = snapshot
  const id = wanted ?? document.jobs[0]?.designId
  const design = document.designs.find(d => d.id === id)
  if (!design) return problem(404, 'No such variant in this job.')
  const near = () => withNear(document, snapshot.near)
  const paper =
    what === 'picklist' || what === 'labels'
      ? PAPERS[what]({ document, design, units, crew: me.crewName })
      : what === 'card'
        ? await paperOfCard(me, near(), units)
        : what === 'stop'
          ? await paperOfStop(me, near(), units)
          : await moneyPaper(me, near(), what)
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

async function paperOfStop(me: { crewId: string; crewName: string }, document: JobDocument, units: Units) {
  const a = await assessOnServer(useDb(), me.crewId, document, new Date().toISOString())
  return stopSheet(document, a, { units, crew: me.crewName, prepared: null })
}

async function paperOfCard(me: { crewId: string; crewName: string }, whole: JobDocument, units: Units) {
  const atUtc = new Date().toISOString()
  const a = await assessOnServer(useDb(), me.crewId, whole, atUtc)
  const document = atPresentStop(whole)
  const { lines } = quoteJob(document, a, await priceBook(useDb(), me.crewId))
  const onDay = jobOf(whole).nextOn ?? atUtc.slice(0, 10)
  const card = cardOf(document, a, { lines, onDay, atUtc })
  return cardPaper({ document, a, card, units, crew: me.crewName, day: atUtc.slice(0, 10) })
}
