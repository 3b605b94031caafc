import { and, eq, sql } from 'drizzle-orm'
import { jobs, pictureFiles } from '../../../../database/schema'
import { imageKind } from '../../../../utils/image-kind'
import { limited, readAll } from '../../../../utils/limited'

const LIMIT = 12_000_000
/** The picture that lies under the map, as the body: PNG, JPEG or WebP. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event, 'installer')
  const id = getRouterParam(event, 'picture')
  if (!validUuid(id)) problem(404, 'No such picture.')
  const [job] = await useDb()
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.crewId, me.crewId), eq(jobs.id, jobId)))
  if (!job) problem(404, 'No such job.')
  const bytes = await readAll(limited(event, LIMIT))
  const mime = imageKind(bytes)
  if (!mime) problem(415, 'A PNG, JPEG or WebP picture is wanted.', [{ field: 'file', message: 'is of another kind' }])
  const stored = await useDb()
    .insert(pictureFiles)
    .values({ crewId: me.crewId, id, jobId, mime, bytes })
    .onConflictDoUpdate({
      target: [pictureFiles.crewId, pictureFiles.id],
      set: { mime: sql`excluded.mime`, bytes: sql`excluded.bytes` },
      setWhere: eq(pictureFiles.jobId, jobId),
    })
    .returning({ id: pictureFiles.id })
  if (!stored.length) problem(404, 'No such picture.')
  return { id, mime, bytes: bytes.length }
})
