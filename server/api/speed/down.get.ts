import { randomBytes } from 'node:crypto'
import { Readable } from 'node:stream'
import { requireMember } from '../../http/member'
import { problem } from '../../http/problem'

const MOST_BYTES = 32_000_000
const PIECE_BYTES = 65_536
/** The same noise again and again: nothing on the way presses it together within what it remembers. */
const PIECES = Array.from({ length: 32 }, () => randomBytes(PIECE_BYTES))

/** So many bytes of noise, as fast as they are taken. */
export default defineEventHandler(async event => {
  await requireMember(event)
  const wanted = Number(getQuery(event).bytes)
  if (!Number.isInteger(wanted) || wanted < 1 || wanted > MOST_BYTES)
    problem(400, `Between 1 and ${MOST_BYTES} bytes.`, [{ field: 'bytes', message: 'is out of range' }])
  setResponseHeaders(event, {
    'content-type': 'application/octet-stream',
    'content-length': wanted,
    'cache-control': 'no-store',
    'content-encoding': 'identity',
  })
  function* pieces() {
    for (let left = wanted, i = 0; left > 0; left -= PIECE_BYTES, i++) {
      const piece = PIECES[i % PIECES.length]!
      yield left < PIECE_BYTES ? piece.subarray(0, left) : piece
    }
  }
  return sendStream(event, Readable.from(pieces()))
})
