import { trustedHost } from '../http/proxy'
import { problem } from '../http/problem'

const READS = ['GET', 'HEAD', 'OPTIONS']

/** Writes from another site are refused; the cookie's same-site rule is the first line, this the second. */
export default defineEventHandler(event => {
  if (!event.path.startsWith('/api/') || READS.includes(event.method)) return
  const origin = getHeader(event, 'origin')
  const site = getHeader(event, 'sec-fetch-site')
  const own = origin === undefined || (URL.canParse(origin) && new URL(origin).host === trustedHost(event))
  // A browser says itself whether a page of this very address asks, and no page can forge that.
  if (site === 'same-origin' || (own && (site === undefined || site === 'none'))) return
  problem(403, 'This address takes writes only from its own pages.')
})
