/** Writes the browser's validators: compiled beforehand, so that the page needs no `unsafe-eval`. */
import { importTs } from './lib/database.mjs'
import { writeGenerated } from './lib/generated.mjs'
import { ROOT } from './lib/system.mjs'

export async function generateValidators() {
  const [{ default: Ajv }, { default: addFormats }, { default: standalone }, { build }, { TABLES, TABLE_FIELDS }] =
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
    messages: false,
    code: { source: true, esm: true, optimize: 2 },
  })
  ;/** @type {any} */ (addFormats.default ?? addFormats)(ajv)
  /** Fields that hold the same are checked by the same function: a text of 80 characters is one, whoever has it. */
  /** @type {Map<string, string>} */
  const names = new Map()
  const plain = (/** @type {any} */ schema) => JSON.stringify(schema, (key, value) => (OURS.has(key) ? undefined : value))
  const nameOf = (/** @type {any} */ schema) => {
    const text = plain(schema)
    if (!names.has(text)) {
      names.set(text, `f${names.size}`)
      ajv.addSchema(sharing(JSON.parse(text)), names.get(text))
    }
    return names.get(text)
  }
  /** The figures of a part stand in the schemas of many kinds: each is compiled once. */
  const sharing = (/** @type {any} */ schema) => {
    if (!schema.properties) return schema.anyOf ? { ...schema, anyOf: schema.anyOf.map(sharing) } : schema
    const properties = Object.entries(schema.properties).map(([field, of]) => [
      field,
      plain(of).length < SMALL ? of : { $ref: nameOf(of) },
    ])
    return { ...schema, properties: Object.fromEntries(properties) }
  }
  const tables = TABLES.map((/** @type {string} */ t) => {
    const fields = Object.entries(TABLE_FIELDS[t]).map(([field, schema]) => `${field}: ${nameOf(schema)}`)
    return `  ${t}: { ${fields.join(', ')} },`
  })
  const functions = Object.fromEntries([...names.values()].map(n => [n, n]))
  const code = /** @type {any} */ (standalone.default ?? standalone)(ajv, functions)
  const out = await build({
    stdin: { contents: `${code}\nexport const FIELDS = {\n${tables.join('\n')}\n}`, resolveDir: ROOT },
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
    `interface FieldError { instancePath: string, keyword: string, params: Record<string, unknown> }
export type CheckField = ((value: unknown) => boolean) & { errors?: FieldError[] | null }
export declare const FIELDS: Record<string, Record<string, CheckField>>
`,
  )
}

/** Of a schema's JSON, in characters: shorter ones are compiled where they stand. */
const SMALL = 40

/** Words of our own in a field's schema, which say nothing of what it may hold. */
const OURS = new Set(['references', 'whenGone', 'before'])
