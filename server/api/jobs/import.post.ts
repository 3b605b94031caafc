import { importJob } from '../../services/archive'
import { LARGEST_ARCHIVE } from '../../services/archive-read'
import { Busy } from '../../services/thread'
import { withUpload } from '../../http/upload'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { problem } from '../../http/problem'

/** A job out of an archive, as the body: it comes under new ids. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'installer')
  return withUpload(event, LARGEST_ARCHIVE, async path => {
    try {
      return await importJob(useDb(), me, path)
    } catch (e) {
      if (e instanceof RangeError) problem(422, e.message, [{ field: 'file', message: e.message }])
      if (e instanceof Busy) problem(429, 'Others bring archives just now: try again in a minute.')
      throw e
    }
  })
})
