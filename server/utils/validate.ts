import { readBody, getHeader } from 'h3'
import type { H3Event } from 'h3'
import Ajv from 'ajv'
import type { ValidateFunction, ErrorObject } from 'ajv'
import addFormats from 'ajv-formats'
import type { Static, TSchema } from '@sinclair/typebox'
import { problem } from './problem'

const ajv = addFormats(new Ajv({ allErrors: true, coerceTypes: false, strict: false }))
const compiled = new WeakMap<TSchema, ValidateFunction>()

/** @returns errors in words, each at its field; empty where the value fits */
export function errorsOf(schema: TSchema, value: unknown): { field: string, value?: unknown, message: string }[] {
  let validate = compiled.get(schema)
  if (!validate) {
    validate = ajv.compile(schema)
    compiled.set(schema, validate)
  }
  if (validate(value)) return []
  return readable(validate.errors ?? [])
}

function readable(errors: ErrorObject[]) {
  const leaf = errors.filter(e => e.keyword !== 'anyOf' && !(e.keyword === 'type' && (e.params as { type: string }).type === 'null'))
  return (leaf.length ? leaf : errors).map((e) => {
    const field = e.instancePath.slice(1).replace(/\//g, '.') || String((e.params as { missingProperty?: string, additionalProperty?: string }).missingProperty ?? (e.params as { additionalProperty?: string }).additionalProperty ?? '')
    return { field, message: `${field || 'value'} ${e.message ?? 'does not fit'}` }
  })
}

const LIMIT = 1_000_000

/** Reads a JSON body of at most 1 MB and checks it. */
export async function readValid<S extends TSchema>(event: H3Event, schema: S): Promise<Static<S>> {
  const length = getHeader(event, 'content-length')
  if (length === undefined) problem(411, 'Say how long the request is.')
  if (Number(length) > LIMIT) problem(413, 'The request is larger than 1 MB.')
  if (!/^application\/json/.test(getHeader(event, 'content-type') ?? '')) problem(415, 'This address takes application/json.')
  let body: unknown
  try {
    body = await readBody(event)
  }
  catch {
    problem(400, 'The body is not JSON.')
  }
  const errors = errorsOf(schema, body)
  if (errors.length) problem(422, errors[0]!.message, errors)
  return body as Static<S>
}

export const validUuid = (s: string | undefined): s is string => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(s ?? '')
