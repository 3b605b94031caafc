/** Files that a build writes for the interface, beside what people write. */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from './system.mjs'

const FOLDER = join(ROOT, 'app', 'generated')

/** @param {string} name */
export const isGenerated = name => existsSync(join(FOLDER, name))

/**
 * Written only where it differs, so that nothing is built again for nothing.
 *
 * @param {string} name
 * @param {string} text
 */
export function writeGenerated(name, text) {
  mkdirSync(FOLDER, { recursive: true })
  const file = join(FOLDER, name)
  if (!existsSync(file) || readFileSync(file, 'utf8') !== text) writeFileSync(file, text)
}
