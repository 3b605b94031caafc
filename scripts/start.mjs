/**
 * `npm start`: a real installation, to stand behind an HTTPS proxy.
 *
 * MULTIVOX_DATABASE_URL  a PostgreSQL service; without it a private cluster in the data folder
 * MULTIVOX_DATA          the data folder (.data)
 * MULTIVOX_TRUSTED_PROXY whose word on address, host and TLS counts: `loopback`, addresses, subnets
 * HOST, PORT             127.0.0.1 and 4300
 */
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import {
  DATA,
  claimFolder,
  endTogether,
  ensureBuild,
  ensureNodeModules,
  ensurePackages,
  fail,
  say,
  secret,
  startServer,
} from './lib/system.mjs'

if (process.env.NUXT_DEMO) fail('NUXT_DEMO is set: a real installation takes no demo sign-in. Use `npm run demo`.')
const outside = process.env.MULTIVOX_DATABASE_URL
if (!outside) ensurePackages()
ensureNodeModules()
const { startCluster, ensureDatabase } = await import('./lib/cluster.mjs')
const { importTs, migrate } = await import('./lib/database.mjs')

const folder = join(DATA, 'live')
mkdirSync(folder, { recursive: true })
const held = claimFolder(folder)
const build = await ensureBuild()
const cluster = outside ? null : await startCluster(folder)
const running = endTogether(cluster, held)
try {
  if (cluster) await ensureDatabase(cluster, 'multivox')
  const url = outside ?? cluster?.url('multivox') ?? ''
  await migrate(url)
  const { firstToken } = await importTs('server/services/setup.ts')
  const token = await firstToken(url)
  const port = Number(process.env.PORT ?? 4300)
  const host = process.env.HOST ?? '127.0.0.1'
  running.server = await startServer({
    build,
    port,
    host,
    pidFile: join(folder, 'server.pid'),
    env: {
      NUXT_DATABASE_URL: url,
      NUXT_DATA_DIR: folder,
      NUXT_SESSION_PASSWORD: await secret(folder, 'session'),
      NUXT_TRUSTED_PROXY: process.env.MULTIVOX_TRUSTED_PROXY ?? '',
    },
  })
  held.tell(`port ${port} of ${host}`)
  say(`Multivox serves on port ${port}; put an HTTPS proxy before it.`)
  if (cluster) say(`Its data lie in ${cluster.folder}.`)
  if (token) say(`\n  First start. Make the first crew, once, within a day, at\n\n    https://<your address>/join#${token}\n`)
  running.server.child.once('exit', code => void running.stop(code ?? 1))
} catch (e) {
  process.stderr.write(`${e instanceof Error ? e.message : e}\n`)
  await running.stop(1)
}
