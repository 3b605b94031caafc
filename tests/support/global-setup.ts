/** One cluster of the tests' own, with a template database that each worker copies. */
import { join } from 'node:path'

export default async function setup(): Promise<() => Promise<void>> {
  const { startCluster, ensureDatabase } = await import('../../scripts/lib/cluster.mjs')
  const { importTs, migrate } = await import('../../scripts/lib/database.mjs')
  const { DATA, ensureBuild } = await import('../../scripts/lib/system.mjs')
  process.env.MULTIVOX_BUILD ??= await ensureBuild()
  const cluster = await startCluster(join(DATA, 'test'), { passing: true })
  await ensureDatabase(cluster, 'mv_template')
  await migrate(cluster.url('mv_template'))
  const { seedDemo } = await importTs('server/services/seed.ts')
  await seedDemo(cluster.url('mv_template'), true)
  process.env.MULTIVOX_TEST_URL = cluster.url('DATABASE')
  return () => cluster.stop()
}
