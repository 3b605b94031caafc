/** What a proxy before the server says of the request: heeded only where it comes from one that the installation names. */
import type { H3Event } from 'h3'
import { getHeader } from 'h3'
import proxyAddr from 'proxy-addr'

type Trust = (address: string, i: number) => boolean
let trust: { of: string; check: Trust } | null = null

/** `NUXT_TRUSTED_PROXY`: addresses, subnets, or the words loopback, linklocal, uniquelocal; none by default. */
function trusts(): Trust {
  const of = useRuntimeConfig().trustedProxy
  if (trust?.of !== of) trust = { of, check: of ? proxyAddr.compile(of.split(',').map(p => p.trim())) : () => false }
  return trust.check
}

const fromProxy = (event: H3Event): boolean => trusts()(event.node.req.socket.remoteAddress ?? '', 0)

/** The address of whoever asks. */
export function clientAddress(event: H3Event): string {
  try {
    return proxyAddr(event.node.req, trusts())
  } catch {
    return event.node.req.socket.remoteAddress ?? 'unknown'
  }
}

/** The host by which the page was asked for. */
export const trustedHost = (event: H3Event): string | undefined =>
  (fromProxy(event) ? getHeader(event, 'x-forwarded-host')?.split(',')[0]?.trim() : undefined) ?? getHeader(event, 'host')

/** Whether the browser's own connection is sealed: by TLS here, or by what a trusted proxy says. */
export const isSealed = (event: H3Event): boolean =>
  (fromProxy(event) && getHeader(event, 'x-forwarded-proto')?.split(',')[0]?.trim() === 'https') ||
  'encrypted' in event.node.req.socket
