/** A database and nodes of a test file's own, to be stopped, crashed and killed. */
import { join } from 'node:path'
import type { APIRequestContext } from '@playwright/test'
import { ensureDatabase, startCluster } from '../../scripts/lib/cluster.mjs'
import { importTs, migrate } from '../../scripts/lib/database.mjs'
import { DATA, freePort, startServer } from '../../scripts/lib/system.mjs'
import { test as base } from './fixtures'

export interface Own {
  cluster: Awaited<ReturnType<typeof startCluster>>
  url: string
  /** starts a node; on the port given where one is to come back where it was */
  node: (port?: number) => Promise<Awaited<ReturnType<typeof startServer>> & { request: APIRequestContext; origin: string }>
}

/** A cluster of a test file's own: it is stopped and crashed. */
export const test = base.extend<object, { own: Own }>({
  own: [
    async ({ playwright }, use) => {
      const cluster = await startCluster(join(DATA, `test-away-${process.pid}`), { passing: true })
      await ensureDatabase(cluster, 'away')
      const url = cluster.url('away')
      await migrate(url)
      const { seedDemo } = await importTs('server/services/seed.ts')
      await seedDemo(url, true)
      const nodes: { stop: (s?: NodeJS.Signals) => Promise<void> }[] = []
      await use({
        cluster,
        url,
        node: async wanted => {
          const port = wanted ?? (await freePort())
          const server = await startServer({
            build: process.env.MULTIVOX_BUILD!,
            port,
            quiet: true,
            env: {
              NUXT_DATABASE_URL: url,
              NUXT_SESSION_PASSWORD: 'a password of the tests, long enough for sealing',
              NUXT_SESSION_COOKIE_SECURE: 'false',
              NUXT_DEMO: '1',
            },
          })
          nodes.push(server)
          const request = await playwright.request.newContext({ baseURL: `http://localhost:${port}` })
          await request.post('/api/auth/demo', { data: {} })
          return { ...server, request, origin: `http://localhost:${port}` }
        },
      })
      for (const n of nodes) await n.stop('SIGKILL').catch(() => {})
      await cluster.stop()
    },
    { scope: 'worker', timeout: 120_000 },
  ],
})
