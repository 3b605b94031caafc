/** Writes the picture of the first page, drawn from the demo by the program itself. */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { importTs } from './lib/database.mjs'
import { ROOT } from './lib/system.mjs'

export async function generateFirstPicture() {
  const { firstPicture } = await importTs('demo/first-picture.ts')
  const folder = join(ROOT, 'app', 'generated')
  mkdirSync(folder, { recursive: true })
  const file = join(folder, 'first-picture.json')
  const text = JSON.stringify(firstPicture())
  if (!existsSync(file) || readFileSync(file, 'utf8') !== text) writeFileSync(file, text)
}
