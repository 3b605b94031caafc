const MOST_BYTES = 4_000_000

/** Takes what comes and lets it go. */
export default defineEventHandler(async event => {
  await requireMember(event)
  let bytes = 0
  for await (const piece of event.node.req) {
    bytes += (piece as Buffer).length
    if (bytes > MOST_BYTES) problem(413, `At most ${MOST_BYTES} bytes at once.`, [{ field: 'file', message: 'is too large' }])
  }
  return { bytes }
})
