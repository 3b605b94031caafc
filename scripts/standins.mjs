/**
 * `npm run standins`: a simulated modem behind a bridge, for trying and for learning.
 * `-- --seed N` another place · `--port N` · `--nr` a modem of the new radio · `--origin URL` pages that may connect.
 */
import { randomInt } from 'node:crypto'
import { ensureNodeModules, freePort, say } from './lib/system.mjs'
import { options } from './lib/options.mjs'

ensureNodeModules()
const o = options(['seed', 'port', 'origin', 'code'], ['nr'])
const { startStandins } = await import('./lib/standins.mjs')
const code = o.code ?? String(randomInt(100_000, 1_000_000))
const running = await startStandins({
  seed: Number(o.seed ?? 1),
  port: await freePort(Number(o.port ?? 4312)),
  code,
  origins: (o.origin ?? 'http://localhost:4310').split(','),
  technology: o.nr ? 'NR' : 'LTE',
})
say(`\n  Simulated modem:  ws://localhost:${running.port}   pairing code ${code}\n\n  Ctrl-C ends it.`)
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM']))
  process.once(signal, () => void running.close().then(() => process.exit(0)))
