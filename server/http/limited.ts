import { Transform } from 'node:stream'
import type { H3Event } from 'h3'
import { getHeader } from 'h3'
import { problem } from './problem'

/** The request's body as a stream that stops at a size. */
export function limited(event: H3Event, most: number): Transform {
  const said = Number(getHeader(event, 'content-length') ?? 0)
  const words = `The file is larger than ${Math.round(most / 1e6)} MB.`
  if (said > most) problem(413, words)
  let seen = 0
  const gate = new Transform({
    transform(chunk: Uint8Array, _encoding, done) {
      seen += chunk.byteLength
      if (seen > most) done(createError({ statusCode: 413, message: words }))
      else done(null, chunk)
    },
  })
  const req = event.node.req
  req.on('aborted', () => gate.destroy(new Error('the connection was lost')))
  req.on('error', e => gate.destroy(e))
  return req.pipe(gate)
}

export async function readAll(stream: AsyncIterable<Uint8Array>): Promise<Uint8Array> {
  const parts: Uint8Array[] = []
  for await (const part of stream) parts.push(part)
  return Buffer.concat(parts)
}
