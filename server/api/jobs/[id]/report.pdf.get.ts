import { makeReport } from '../../../../core/job/report'
import { assessOnServer, renderPdf } from '../../../services/report'

export default defineEventHandler(async (event) => {
  const { me, snapshot } = await requireJob(event)
  const units = getQuery(event).units === 'imperial' ? 'imperial' as const : 'metric' as const
  const assessment = await assessOnServer(useDb(), me.crewId, snapshot.document, new Date().toISOString())
  const pdf = await renderPdf(makeReport(snapshot.document, assessment, { units, crew: me.crewName, by: me.name }))
  setResponseHeaders(event, { 'content-type': 'application/pdf', 'content-disposition': 'attachment; filename="handover.pdf"', 'cache-control': 'no-store' })
  return pdf
})
