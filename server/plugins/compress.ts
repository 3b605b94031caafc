import { gzip } from 'node:zlib'
import { promisify } from 'node:util'
import { getHeader, setResponseHeader } from 'h3'

const packed = promisify(gzip)
/** Less than this is not worth it, bytes. */
const LEAST = 1200

/** Answers of the API cross the wire packed: a list of jobs is a tenth of its size then. Secrets and speed tests go as they are. */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('beforeResponse', async (event, response) => {
    if (!event.path.startsWith('/api/') || /^\/api\/(auth|speed)\//.test(event.path)) return
    const { body } = response
    const isText = typeof body === 'string'
    const isData =
      typeof body === 'object' && body !== null && (Array.isArray(body) || Object.getPrototypeOf(body) === Object.prototype)
    if (!isText && !isData) return
    if (!/\bgzip\b/.test(getHeader(event, 'accept-encoding') ?? '')) return
    if (event.node.res.getHeader('content-encoding')) return
    const text = isText ? body : JSON.stringify(body)
    if (text.length < LEAST) return
    if (isData) setResponseHeader(event, 'content-type', 'application/json')
    setResponseHeader(event, 'content-encoding', 'gzip')
    setResponseHeader(event, 'vary', 'accept-encoding')
    response.body = await packed(text)
  })
})
