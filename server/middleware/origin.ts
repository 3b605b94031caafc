/** Writes from another site are refused; the cookie's same-site rule is the first line, this the second. */
export default defineEventHandler((event) => {
  if (!event.path.startsWith('/api/') || ['GET', 'HEAD', 'OPTIONS'].includes(event.method)) return
  const origin = getHeader(event, 'origin')
  if (origin && new URL(origin).host !== getRequestHost(event, { xForwardedHost: true })) problem(403, 'This address takes writes only from its own pages.')
})
