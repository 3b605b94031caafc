import { createHash } from 'node:crypto'
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import helmet from 'helmet'
import { bridgesAllowed } from '../http/bridges'
import { isSealed } from '../http/proxy'

const YEAR_S = 365 * 86_400

/** Hashes of the shell's inline scripts, so that the policy needs neither `unsafe-inline` nor `unsafe-eval` for scripts. */
function inlineScriptHashes(): string[] {
  const shell = join(dirname(process.argv[1] ?? ''), '..', 'public', 'index.html')
  if (!existsSync(shell)) return []
  return [...readFileSync(shell, 'utf8').matchAll(/<script(?![^>]*\bsrc=)[^>]*>([\s\S]*?)<\/script>/g)].map(
    m => `'sha256-${createHash('sha256').update(m[1]!).digest('base64')}'`,
  )
}

export default defineNitroPlugin(nitro => {
  const tiles = useRuntimeConfig().tiles
  const tilesFrom = tiles && URL.canParse(tiles.replace(/[{}]/g, '')) ? [new URL(tiles.replace(/[{}]/g, '')).origin] : []
  const common = {
    contentSecurityPolicy: import.meta.dev
      ? (false as const)
      : {
          useDefaults: false,
          directives: {
            defaultSrc: ["'self'"],
            scriptSrc: ["'self'", ...inlineScriptHashes()],
            styleSrc: ["'self'", "'unsafe-inline'"],
            imgSrc: ["'self'", 'data:', 'blob:', ...tilesFrom],
            fontSrc: ["'self'"],
            connectSrc: ["'self'", ...bridgesAllowed()],
            workerSrc: ["'self'"],
            objectSrc: ["'none'"],
            baseUri: ["'none'"],
            formAction: ["'self'"],
            frameAncestors: ["'none'"],
          },
        },
    referrerPolicy: { policy: 'same-origin' as const },
    xFrameOptions: { action: 'deny' as const },
  }
  const plain = helmet({ ...common, strictTransportSecurity: false })
  const sealed = helmet({ ...common, strictTransportSecurity: { maxAge: YEAR_S, includeSubDomains: false } })
  nitro.hooks.hook('request', event => {
    const { req, res } = event.node
    ;(isSealed(event) ? sealed : plain)(req, res, () => {})
    // Answers are of a member: nothing of them lies in the browser's own keeping after signing out.
    if (event.path.startsWith('/api/')) res.setHeader('cache-control', 'no-store')
    res.setHeader('permissions-policy', 'camera=(), microphone=(), payment=()')
  })
  nitro.hooks.hook('beforeResponse', event => event.node.res.removeHeader('x-powered-by'))
})
