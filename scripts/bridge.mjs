/**
 * `npm run bridge -- --serial /dev/ttyUSB2` or `-- --tcp 192.168.1.1:5000`: a modem's port for a page in a browser.
 * It serves this machine; for another one a certificate is wanted: `--cert FILE --key FILE`, then it is `wss` on all addresses.
 * `--origin URL` the installation whose pages may connect (several by commas) · `--port N`.
 */
import { readFileSync } from 'node:fs'
import { ensureNodeModules, fail, say } from './lib/system.mjs'
import { closeAtEnd, options, pairingCode } from './lib/options.mjs'

ensureNodeModules()
const o = options(['serial', 'tcp', 'port', 'origin', 'cert', 'key', 'baud'])
if (!o.serial === !o.tcp) fail('Say which port: --serial /dev/ttyUSB2, or --tcp ADDRESS:PORT.')
if (!o.cert !== !o.key) fail('A certificate and its key go together: --cert FILE --key FILE.')
const { importTs } = await import('./lib/database.mjs')
const { serveBridge } = await importTs('standins/bridge.ts')
const { serialPort, tcpPort } = await importTs('standins/serial.ts')
const code = pairingCode()
const at = o.tcp?.split(':') ?? []
const open = () => (o.serial ? serialPort(o.serial, Number(o.baud ?? 115_200)) : tcpPort(at[0], Number(at[1])))
const running = await serveBridge({
  port: Number(o.port ?? 4312),
  host: o.cert ? '0.0.0.0' : '127.0.0.1',
  code,
  origins: (o.origin ?? 'http://localhost:4310').split(','),
  tls: o.cert ? { cert: readFileSync(o.cert, 'utf8'), key: readFileSync(o.key, 'utf8') } : null,
  open,
})
say(`\n  Bridge:  ${o.cert ? 'wss' : 'ws'}://localhost:${running.port}   pairing code ${code}\n\n  Ctrl-C ends it.`)
closeAtEnd(running)
