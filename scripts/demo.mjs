/** `npm run demo`: everything on this machine, the demo loaded, the address printed. `-- --reset` loads it again. */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import {
  DATA,
  claimFolder,
  endLeftOver,
  endTogether,
  ensureBuild,
  ensureNodeModules,
  ensurePackages,
  freePort,
  say,
  secret,
  startServer,
} from './lib/system.mjs'

/** The simulated mast stands about where the finished demo job's own does. */
const STAND_IN_DEG = 182

const reset = process.argv.includes('--reset')
ensurePackages()
ensureNodeModules()
const { startCluster, ensureDatabase } = await import('./lib/cluster.mjs')
const { importTs, migrate } = await import('./lib/database.mjs')
const { startStandins } = await import('./lib/standins.mjs')

const folder = join(DATA, 'demo')
mkdirSync(folder, { recursive: true })
const held = claimFolder(folder)
const build = await ensureBuild()
const cluster = await startCluster(folder)
const running = endTogether(cluster, held)
try {
  await ensureDatabase(cluster, 'multivox')
  await migrate(cluster.url('multivox'))
  const { seedDemo } = await importTs('server/services/seed.ts')
  say(
    (await seedDemo(cluster.url('multivox'), reset)) === 'loaded'
      ? 'Demo loaded.'
      : 'Demo kept as it was; `npm run demo -- --reset` loads it again.',
  )
  await endLeftOver(join(folder, 'server.pid'))
  const portFile = join(folder, 'port')
  const port = await freePort(existsSync(portFile) ? Number(readFileSync(portFile, 'utf8')) : 4310)
  writeFileSync(portFile, String(port))
  const origin = `http://localhost:${port}`
  const code = await secret(folder, 'standin')
  running.standins = await startStandins({
    seed: 1,
    port: await freePort(port + 2),
    receiverPort: await freePort(port + 3),
    code,
    origins: [origin],
    aboutDeg: STAND_IN_DEG,
  })
  running.server = await startServer({
    build,
    port,
    pidFile: join(folder, 'server.pid'),
    env: {
      NUXT_DATABASE_URL: cluster.url('multivox'),
      NUXT_DATA_DIR: folder,
      NUXT_SESSION_PASSWORD: await secret(folder, 'session'),
      NUXT_SESSION_COOKIE_SECURE: 'false',
      NUXT_DEMO: '1',
      NUXT_BRIDGES: running.standins.urls,
      NUXT_STANDIN: code,
    },
  })
  held.tell(origin)
  say(`\n  Multivox demo:  ${origin}\n\n  Ctrl-C ends it; what you enter stays, in ${cluster.folder}.`)
  running.server.child.once('exit', code => void running.stop(code ?? 1))
} catch (e) {
  process.stderr.write(`${e instanceof Error ? e.message : e}\n`)
  await running.stop(1)
}
