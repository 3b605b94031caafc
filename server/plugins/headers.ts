import { createHash } from 'node:crypto'
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'

/** Hashes of the shell's inline scripts, so that the policy needs neither `unsafe-inline` nor `unsafe-eval` for scripts. */
function inlineScriptHashes(): string[] {
  const shell = join(dirname(process.argv[1] ?? ''), '..', 'public', 'index.html')
  if (!existsSync(shell)) return []
  return [...readFileSync(shell, 'utf8').matchAll(/<script(?![^>]*\bsrc=)[^>]*>([\s\S]*?)<\/script>/g)]
    .map(m => `'sha256-${createHash('sha256').update(m[1]!).digest('base64')}'`)
}

export default defineNitroPlugin((nitro) => {
  const tiles = useRuntimeConfig().tiles
  const tilesFrom = tiles && URL.canParse(tiles.replace(/[{}]/g, '')) ? ` ${new URL(tiles.replace(/[{}]/g, '')).origin}` : ''
  const policy = [
    'default-src \'self\'', `script-src 'self' ${inlineScriptHashes().join(' ')}`, 'style-src \'self\' \'unsafe-inline\'', `img-src 'self' data: blob:${tilesFrom}`, 'font-src \'self\'',
    'connect-src \'self\'', 'worker-src \'self\'', 'object-src \'none\'', 'base-uri \'none\'', 'form-action \'self\'', 'frame-ancestors \'none\'',
  ].join('; ')
  nitro.hooks.hook('request', (event) => {
    if (!import.meta.dev) setResponseHeader(event, 'content-security-policy', policy)
    setResponseHeaders(event, {
      'x-content-type-options': 'nosniff', 'referrer-policy': 'same-origin', 'permissions-policy': 'camera=(), microphone=(), payment=()', 'cross-origin-opener-policy': 'same-origin',
    })
  })
})
