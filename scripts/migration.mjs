/**
 * Writes the next migration from the database's schema: `npm run migration -- name`. Drizzle writes what it knows; keys
 * that let go of what they name are added, since it has no words for them.
 */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { importTs } from './lib/database.mjs'
import { ROOT, run } from './lib/system.mjs'

const FOLDER = join(ROOT, 'server/data/migrations')
const name = process.argv[2]
if (!name || !/^[a-z_]+$/.test(name)) {
  console.error('usage: npm run migration -- what_changes')
  process.exit(2)
}
const files = () =>
  readdirSync(FOLDER)
    .filter(f => f.endsWith('.sql'))
    .sort()
const before = new Set(files())
const failed = run('npx', ['drizzle-kit', 'generate', '--name', name])
if (failed) process.exit(failed)
const { LET_GO } = await importTs('server/data/document-table.ts')
const written = files()
  .map(f => readFileSync(join(FOLDER, f), 'utf8'))
  .join('\n')
const missing = LET_GO.filter(k => !written.includes(`"${k.name}"`))
const made = files().find(f => !before.has(f))
if (made && missing.length) {
  const path = join(FOLDER, made)
  const text = [readFileSync(path, 'utf8'), ...missing.map(k => k.statement)].join('--> statement-breakpoint\n')
  writeFileSync(path, text)
}
console.log(made ? `written: ${made}${missing.length ? `, with ${missing.map(k => k.name).join(', ')}` : ''}` : 'nothing changed')
