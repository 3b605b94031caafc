import { imageKind } from '../../../../services/image-kind'
import { keepPicture, sequenceOf } from '../../../../services/jobs'
import { validUuid } from '../../../../data/check'
import { useDb } from '../../../../data/db'
import { requireJobId } from '../../../../http/job'
import { limited, readAll } from '../../../../http/limited'
import { problem } from '../../../../http/problem'

const LIMIT = 12_000_000
/** The picture that lies under the map, as the body: PNG, JPEG or WebP. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event, 'installer')
  const id = getRouterParam(event, 'picture')
  if (!validUuid(id)) problem(404, 'No such picture.')
  if ((await sequenceOf(useDb(), me.crewId, jobId)) === null) problem(404, 'No such job.')
  const bytes = await readAll(limited(event, LIMIT))
  const mime = imageKind(bytes)
  if (!mime) problem(415, 'A PNG, JPEG or WebP picture is wanted.', [{ field: 'file', message: 'is of another kind' }])
  if (!(await keepPicture(useDb(), me.crewId, jobId, { id, mime, bytes }))) problem(404, 'No such picture.')
  return { id, mime, bytes: bytes.length }
})
