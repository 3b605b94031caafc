/** Migrations, and TypeScript of this repository run from plain scripts. */
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { ROOT } from './system.mjs'

export async function migrate(/** @type {string} */ url, folder = join(ROOT, 'server/data/migrations')) {
  const [{ drizzle }, { migrate: up }, { withClient }] = await Promise.all([
    import('drizzle-orm/node-postgres'),
    import('drizzle-orm/node-postgres/migrator'),
    import('./cluster.mjs'),
  ])
  await withClient(url, client => up(drizzle(client), { migrationsFolder: folder }))
}

/** What reads files of its own beside it, and so is used where it was installed. */
const UNBUNDLED = ['pdfmake', 'fontkit']

/** Bundles one TypeScript file of the repository with what it uses, to run by itself. */
export async function bundle(/** @type {string} */ path, /** @type {string} */ outfile) {
  const banner = { js: 'import { createRequire as mvRequire } from "node:module"; const require = mvRequire(import.meta.url);' }
  await build(path, outfile, { banner, external: UNBUNDLED })
}

/** Bundles one TypeScript file of the repository for Node.js. */
async function build(
  /** @type {string} */ path,
  /** @type {string} */ outfile,
  /** @type {import('esbuild').BuildOptions} */ options,
) {
  const esbuild = await import('esbuild')
  await esbuild.build({
    entryPoints: [join(ROOT, path)],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'error',
    alias: { '#core': join(ROOT, 'core') },
    ...options,
  })
}

/** Bundles one TypeScript file of the repository and imports it. @returns {Promise<any>} */
export async function importTs(/** @type {string} */ path) {
  const folder = join(ROOT, 'node_modules', '.multivox')
  mkdirSync(folder, { recursive: true })
  const outfile = join(folder, `${path.replace(/[^a-z0-9]+/gi, '-')}.${process.pid}.mjs`)
  await build(path, outfile, { packages: 'external' })
  return import(pathToFileURL(outfile).href)
}
