/** One cluster of the tests' own, with a template database that each worker copies. */
import { join } from 'node:path'

export default async function setup(): Promise<() => Promise<void>> {
  const { startCluster, ensureDatabase } = await import('../../scripts/lib/cluster.mjs')
  const { importTs, migrate } = await import('../../scripts/lib/database.mjs')
  const { DATA } = await import('../../scripts/lib/system.mjs')
  const { default: postgres } = await import('postgres')
  const cluster = await startCluster(join(DATA, 'test'))
  const admin = postgres(cluster.url('postgres'), { max: 1, onnotice: () => {} })
  const old = await admin<{ datname: string }[]>`select datname from pg_database where datname like 'mv\\_%'`
  for (const { datname } of old) await admin.unsafe(`drop database "${datname}" with (force)`)
  await admin.end()
  await ensureDatabase(cluster, 'mv_template')
  await migrate(cluster.url('mv_template'))
  const { seedDemo } = await importTs('server/services/seed.ts')
  await seedDemo(cluster.url('mv_template'), true)
  process.env.MULTIVOX_TEST_URL = cluster.url('DATABASE')
  return () => cluster.stop()
}
