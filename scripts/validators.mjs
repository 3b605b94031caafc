/** Writes the browser's validators: compiled beforehand, so that the page needs no `unsafe-eval`. */
import { importTs } from './lib/database.mjs'
import { writeGenerated } from './lib/generated.mjs'
import { ROOT } from './lib/system.mjs'

/** Of a field's schema as JSON, in characters: shorter ones are compiled where they stand. */
const LARGE = 60

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
    inlineRefs: false,
    code: { source: true, esm: true, optimize: 2 },
  })
  ;/** @type {any} */ (addFormats.default ?? addFormats)(ajv)
  /** @type {Map<string, string>} */
  const shared = new Map()
  /** A large field is compiled once: a part alone is a third of a megabyte of checks. */
  const sharing = (/** @type {any} */ schema) => ({
    ...schema,
    properties: Object.fromEntries(
      Object.entries(schema.properties).map(([field, of]) => {
        const text = JSON.stringify(of)
        if (text.length < LARGE) return [field, of]
        if (!shared.has(text)) {
          shared.set(text, `shared_${shared.size}`)
          ajv.addSchema(JSON.parse(text), shared.get(text))
        }
        return [field, { $ref: shared.get(text) }]
      }),
    ),
  })
  /** @type {Record<string, string>} */
  const names = {}
  for (const t of TABLES) {
    ajv.addSchema(sharing(rowSchema(t)), `${t}_row`)
    ajv.addSchema(sharing(partialSchema(t)), `${t}_part`)
    names[`${t}_row`] = `${t}_row`
    names[`${t}_part`] = `${t}_part`
  }
  const code = /** @type {any} */ (standalone.default ?? standalone)(ajv, names)
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
  writeGenerated('validators.js', out.outputFiles[0].text)
  writeGenerated(
    'validators.d.ts',
    Object.keys(names)
      .map(
        n =>
          `export declare const ${n}: ((value: unknown) => boolean) & { errors?: { instancePath: string, keyword: string, ` +
          `message?: string, params: Record<string, unknown> }[] | null }\n`,
      )
      .join(''),
  )
}
