import { exportJob } from '../../../services/archive'
import { useDb } from '../../../data/db'
import { requireJob } from '../../../http/job'

/** The whole job as a ZIP of JSON with its schemas and pictures. */
export default defineEventHandler(async event => {
  const { me, snapshot } = await requireJob(event)
  const bytes = await exportJob(useDb(), me.crewId, snapshot, new Date().toISOString())
  setResponseHeaders(event, {
    'content-type': 'application/zip',
    'content-disposition': 'attachment; filename="job.zip"',
    'cache-control': 'no-store',
  })
  return Buffer.from(bytes)
})
