import { pictureOf } from '../../../../services/jobs'
import { useDb } from '../../../../data/db'
import { validUuid } from '../../../../data/check'
import { requireJobId } from '../../../../http/job'
import { problem } from '../../../../http/problem'

export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event)
  const id = getRouterParam(event, 'picture')
  const file = validUuid(id) ? await pictureOf(useDb(), me.crewId, jobId, id) : null
  if (!file) problem(404, 'No such picture.')
  setResponseHeader(event, 'content-type', file.mime)
  setResponseHeader(event, 'cache-control', 'private, no-store')
  return Buffer.from(file.bytes)
})
