import type { Server } from 'node:http'

/** Longer than a proxy or a client keeps an idle connection: one that is closed as it is used again costs a request. ms */
const KEPT_MS = 75_000

/** A connection is kept longer here than by who asks; by itself the server ends it after five seconds. */
export default defineNitroPlugin(nitro => {
  const seen = new WeakSet<Server>()
  nitro.hooks.hook('request', event => {
    const { server } = event.node.req.socket as unknown as { server?: Server }
    if (!server || seen.has(server)) return
    seen.add(server)
    server.keepAliveTimeout = KEPT_MS
    server.headersTimeout = KEPT_MS + 1000
  })
})
