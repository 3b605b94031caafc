/**
 * Bridges to modems that pages may connect to, as the installation names them.
 * Unsealed ones are of this very machine alone: what a modem says must not cross a network in the open.
 */
export function bridgesAllowed(): string[] {
  return useRuntimeConfig()
    .bridges.split(/[\s,]+/)
    .filter(a => URL.canParse(a))
    .map(a => new URL(a))
    .filter(u => u.protocol === 'wss:' || (u.protocol === 'ws:' && ['localhost', '127.0.0.1'].includes(u.hostname)))
    .map(u => u.origin)
}
