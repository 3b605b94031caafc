import { labelsPaper, pickListPaper } from '../../../../core/report/plan-papers'
import { renderPdf } from '../../../services/report'
import { queryText, queryWord } from '../../../utils/validate'

const PAPERS = { picklist: pickListPaper, labels: labelsPaper } as const

/** A paper of the plan as PDF: the pick list of a variant, or the labels of its cables. */
export default defineEventHandler(async event => {
  const units = queryWord(event, 'units', ['metric', 'imperial'] as const) ?? 'metric'
  const what = queryWord(event, 'what', ['picklist', 'labels'] as const) ?? 'picklist'
  const wanted = queryText(event, 'design', 36)
  const { me, snapshot } = await requireJob(event)
  const { document } = snapshot
  const id = wanted ?? document.jobs[0]?.designId
  const design = document.designs.find(d => d.id === id)
  if (!design) return problem(404, 'No such variant in this job.')
  const pdf = await renderPdf(PAPERS[what]({ document, design, units, crew: me.crewName }))
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `attachment; filename="${what === 'picklist' ? 'pick-list' : 'labels'}.pdf"`,
    'cache-control': 'no-store',
  })
  return pdf
})
