/**
 * `npm run standins`: a simulated modem and a position receiver, each behind a bridge, for trying and for learning.
 * `-- --seed N` another place · `--port N` · `--nr` a modem of the new radio · `--origin URL` pages that may connect.
 */
import { ensureNodeModules, freePort, say } from './lib/system.mjs'
import { closeAtEnd, options, pairingCode } from './lib/options.mjs'

ensureNodeModules()
const o = options(['seed', 'port', 'origin', 'code'], ['nr'])
const { startStandins } = await import('./lib/standins.mjs')
const code = o.code ?? pairingCode()
const running = await startStandins({
  seed: Number(o.seed ?? 1),
  port: await freePort(Number(o.port ?? 4312)),
  code,
  origins: (o.origin ?? 'http://localhost:4310').split(','),
  technology: o.nr ? 'NR' : 'LTE',
})
say(
  `\n  Simulated modem:     ws://localhost:${running.port}\n` +
    `  Simulated receiver:  ws://localhost:${running.receiverPort}\n  Pairing code ${code}\n\n  Ctrl-C ends it.`,
)
closeAtEnd(running)
