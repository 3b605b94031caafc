/** Whether a value fits a schema, in words, each at its field. */
import Ajv from 'ajv'
import type { ValidateFunction, ErrorObject } from 'ajv'
import addFormats from 'ajv-formats'
import type { TSchema } from '@sinclair/typebox'

const ajv = addFormats(new Ajv({ allErrors: true, coerceTypes: false, strict: false }))
const compiled = new WeakMap<TSchema, ValidateFunction>()

/** @returns errors in words, each at its field; empty where the value fits */
export function errorsOf(schema: TSchema, value: unknown): { field: string; value?: unknown; message: string }[] {
  let validate = compiled.get(schema)
  if (!validate) {
    validate = ajv.compile(schema)
    compiled.set(schema, validate)
  }
  if (validate(value)) return []
  return readable(validate.errors ?? [])
}

function readable(errors: ErrorObject[]) {
  const leaf = errors.filter(
    e => e.keyword !== 'anyOf' && !(e.keyword === 'type' && (e.params as { type: string }).type === 'null'),
  )
  return (leaf.length ? leaf : errors).map(e => {
    const field =
      e.instancePath.slice(1).replace(/\//g, '.') ||
      String(
        (e.params as { missingProperty?: string; additionalProperty?: string }).missingProperty ??
          (e.params as { additionalProperty?: string }).additionalProperty ??
          '',
      )
    return {
      field: sound(field),
      message: sound(`${field || 'value'} ${e.keyword === 'pattern' ? WORDS_OF_PATTERN : (e.message ?? 'does not fit')}`),
    }
  })
}

const WORDS_OF_PATTERN = 'holds what is not allowed there'

/** What came is repeated in an answer, and kept with a refusal, without what no text may hold. */
const sound = (text: string): string => text.toWellFormed().replaceAll(String.fromCharCode(0), '').slice(0, 200)

export const validUuid = (s: unknown): s is string =>
  typeof s === 'string' && /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(s)
