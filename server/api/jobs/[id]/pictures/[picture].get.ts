import { and, eq } from 'drizzle-orm'
import { pictureFiles } from '../../../../database/schema'

export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event)
  const id = getRouterParam(event, 'picture')
  const [file] = validUuid(id)
    ? await useDb()
        .select()
        .from(pictureFiles)
        .where(and(eq(pictureFiles.crewId, me.crewId), eq(pictureFiles.jobId, jobId), eq(pictureFiles.id, id)))
    : []
  if (!file) problem(404, 'No such picture.')
  setResponseHeader(event, 'content-type', file.mime)
  setResponseHeader(event, 'cache-control', 'private, no-store')
  return Buffer.from(file.bytes)
})
