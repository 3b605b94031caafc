/** Writes the browser's validators: compiled beforehand, so that the page needs no `unsafe-eval`. */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { importTs } from './lib/database.mjs'
import { ROOT } from './lib/system.mjs'

export async function generateValidators() {
  const [{ default: Ajv }, { default: addFormats }, { default: standalone }, { build }, { TABLES, partialSchema, rowSchema }] =
    await Promise.all([
      import('ajv'),
      import('ajv-formats'),
      import('ajv/dist/standalone/index.js'),
      import('esbuild'),
      importTs('core/job/schema.ts'),
    ])
  const ajv = new /** @type {any} */ (Ajv.default ?? Ajv)({
    allErrors: true,
    strict: false,
    code: { source: true, esm: true, optimize: 2 },
  })
  ;/** @type {any} */ (addFormats.default ?? addFormats)(ajv)
  /** @type {Record<string, string>} */
  const names = {}
  for (const t of TABLES) {
    ajv.addSchema(rowSchema(t), `${t}_row`)
    ajv.addSchema(partialSchema(t), `${t}_part`)
    names[`${t}_row`] = `${t}_row`
    names[`${t}_part`] = `${t}_part`
  }
  const code = /** @type {any} */ (standalone.default ?? standalone)(ajv, names)
  const folder = join(ROOT, 'app', 'generated')
  mkdirSync(folder, { recursive: true })
  const out = await build({
    stdin: { contents: code, resolveDir: ROOT },
    bundle: true,
    format: 'esm',
    platform: 'browser',
    target: 'es2022',
    minify: true,
    write: false,
    logLevel: 'error',
  })
  const file = join(folder, 'validators.js')
  const text = out.outputFiles[0].text
  if (!existsSync(file) || readFileSync(file, 'utf8') !== text) writeFileSync(file, text)
  writeFileSync(
    join(folder, 'validators.d.ts'),
    Object.keys(names)
      .map(
        n =>
          `export declare const ${n}: ((value: unknown) => boolean) & { errors?: { instancePath: string, keyword: string, ` +
          `message?: string, params: Record<string, unknown> }[] | null }\n`,
      )
      .join(''),
  )
}
