import { importJob, LARGEST_ARCHIVE } from '../../services/archive'
import { limited, readAll } from '../../utils/limited'

/** A job out of an archive, as the body: it comes under new ids. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'installer')
  const bytes = await readAll(limited(event, LARGEST_ARCHIVE))
  try {
    return await importJob(useDb(), me, bytes)
  } catch (e) {
    if (e instanceof RangeError) problem(422, e.message, [{ field: 'file', message: e.message }])
    throw e
  }
})
