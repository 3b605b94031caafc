import { withNear } from '../../../../shared/api'
import { makeReport } from '../../../../core/report'
import { readFrozen } from '../../../services/handover'
import { assessOnServer, renderPdf } from '../../../services/report'
import { queryText, queryWord } from '../../../http/validate'
import { validUuid } from '../../../data/check'
import { useDb } from '../../../data/db'
import { requireJob, requireJobId } from '../../../http/job'
import { problem } from '../../../http/problem'

/** The report as PDF: of the job as it stands, or with `handover=` as it was handed over. */
export default defineEventHandler(async event => {
  const units = queryWord(event, 'units', ['metric', 'imperial'] as const) ?? 'metric'
  const handover = queryText(event, 'handover', 36)
  const { me, jobId } = await requireJobId(event)
  const made = handover === null ? await present() : await frozen(handover)
  const pdf = await renderPdf(makeReport(made.document, made.result, { units, crew: me.crewName, by: made.by }))
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': 'attachment; filename="handover.pdf"',
    'cache-control': 'no-store',
  })
  return pdf

  async function present() {
    const { snapshot } = await requireJob(event)
    const document = withNear(snapshot.document, snapshot.near)
    return { document, result: await assessOnServer(useDb(), me.crewId, document, new Date().toISOString()), by: me.name }
  }

  async function frozen(id: string) {
    const found = validUuid(id) ? await readFrozen(useDb(), me.crewId, jobId, id) : null
    return found ? { document: found.document, result: found.result, by: found.madeBy } : problem(404, 'No such handover.')
  }
})
