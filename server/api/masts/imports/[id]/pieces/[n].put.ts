import { gunzip } from 'node:zlib'
import { promisify } from 'node:util'
import { ImportRefusal, takePiece } from '../../../../../services/mast-import'
import { requireImport } from '../../../../../http/imports'
import { limited, readAll } from '../../../../../http/limited'
import { problem } from '../../../../../http/problem'

/** Of one piece, as sent and unpacked. */
const LIMIT = 8_000_000
const unpack = promisify(gunzip)

/** One piece of a list as UTF-8 text, gzipped where `content-encoding` says so; `?last=1` on the last. */
export default defineEventHandler(async event => {
  const { me, state } = await requireImport(event, 'installer')
  const n = Number(getRouterParam(event, 'n'))
  if (!Number.isInteger(n) || n < 0)
    problem(422, 'A piece has a number from 0.', [{ field: 'n', message: 'is not a whole number' }])
  const body = await readAll(limited(event, LIMIT))
  let bytes = Buffer.from(body)
  if (getHeader(event, 'content-encoding') === 'gzip') {
    bytes = await unpack(bytes, { maxOutputLength: LIMIT }).catch(() =>
      problem(422, 'The piece does not unpack, or unpacks to more than 8 MB.'),
    )
  }
  try {
    return await takePiece(me.crewId, state.id, { n, text: bytes.toString('utf8'), last: getQuery(event).last === '1' })
  } catch (e) {
    if (e instanceof ImportRefusal) problem(422, e.message, [{ field: 'file', message: e.message }])
    throw e
  }
})
