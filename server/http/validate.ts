import { readRawBody, getHeader, getQuery } from 'h3'
import type { H3Event } from 'h3'
import type { Static, TSchema } from '@sinclair/typebox'
import { errorsOf } from '../data/check'
import { problem } from './problem'

const LIMIT = 1_000_000

/** Where a text in a value holds NUL or half of a surrogate pair, which no database takes. @returns its path, or null */
function unsoundAt(value: unknown, path = ''): string | null {
  if (typeof value === 'string') return value.includes(String.fromCharCode(0)) || !value.isWellFormed() ? path || 'value' : null
  if (value === null || typeof value !== 'object') return null
  for (const [k, v] of Object.entries(value)) {
    const at = unsoundAt(k) ? path || 'value' : unsoundAt(v, path ? `${path}.${k}` : k)
    if (at) return at
  }
  return null
}

/**
 * Reads a JSON body of at most 1 MB and checks it.
 * @param o.each  its parts are checked one by one afterwards, each refused alone
 */
export async function readValid<S extends TSchema>(event: H3Event, schema: S, o: { each?: boolean } = {}): Promise<Static<S>> {
  const length = getHeader(event, 'content-length')
  if (length === undefined) problem(411, 'Say how long the request is.')
  if (Number(length) > LIMIT) problem(413, 'The request is larger than 1 MB.')
  if (!/^application\/json/.test(getHeader(event, 'content-type') ?? '')) problem(415, 'This address takes application/json.')
  let body: unknown
  try {
    // Parsed as it is: what a key is called is for the schema to judge, and one odd change must not spoil its batch.
    body = JSON.parse((await readRawBody(event, 'utf8')) ?? '')
  } catch {
    problem(400, 'The body is not JSON.')
  }
  const errors = errorsOf(schema, body)
  if (errors.length) problem(422, errors[0]!.message, errors)
  const unsound = o.each ? null : unsoundAt(body)
  if (unsound)
    problem(422, `${unsound} holds a character that cannot be kept.`, [
      { field: unsound, message: 'holds a character that cannot be kept' },
    ])
  return body as Static<S>
}

/** One value of the address; a parameter given twice is taken once. */
export function queryOf(event: H3Event, field: string): string | undefined {
  const v = getQuery(event)[field]
  const one = Array.isArray(v) ? v[0] : v
  return one === undefined || one === null ? undefined : String(one)
}

/** A number in the address, within a range, whole where that is asked. @throws a problem that names the field and the range */
export function queryNumber(
  event: H3Event,
  field: string,
  o: { low: number; high: number; whole?: boolean; otherwise?: number },
): number {
  const text = queryOf(event, field)
  if (text === undefined && o.otherwise !== undefined) return o.otherwise
  const v = text === undefined || !/^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i.test(text.trim()) ? NaN : Number(text)
  if (!(v >= o.low && v <= o.high) || (o.whole && !Number.isInteger(v))) {
    const range = `must be ${o.whole ? 'a whole number ' : ''}within ${o.low}…${o.high}`
    problem(422, `${field} ${range}.`, [{ field, value: text?.slice(0, 40), message: range }])
  }
  return v
}

/** One of some words in the address; `null` where it is not given. */
export function queryWord<T extends string>(event: H3Event, field: string, words: readonly T[]): T | null {
  const text = queryOf(event, field)
  if (text === undefined || text === '') return null
  if (!(words as readonly string[]).includes(text)) {
    problem(422, `${field} must be one of ${words.join(', ')}.`, [
      { field, value: text.slice(0, 40), message: `must be one of ${words.join(', ')}` },
    ])
  }
  return text as T
}

/** A text in the address, without what no database takes. */
export function queryText(event: H3Event, field: string, most: number): string | null {
  const text = queryOf(event, field)
  if (text === undefined || text === '') return null
  if (text.length > most)
    problem(422, `${field} is longer than ${most} characters.`, [{ field, message: `at most ${most} characters` }])
  return text.toWellFormed().replaceAll(String.fromCharCode(0), '')
}

/** A day in the address: 2026-03-24. */
export function queryDay(event: H3Event, field: string): string | null {
  const text = queryOf(event, field)
  if (text === undefined || text === '') return null
  const at = /^(19[7-9]|20\d)\d-\d{2}-\d{2}$/.test(text) ? new Date(`${text}T00:00:00Z`) : new Date(NaN)
  if (Number.isNaN(at.getTime()) || at.toISOString().slice(0, 10) !== text) {
    problem(422, `${field} must be a day such as 2026-03-24.`, [{ field, value: text.slice(0, 40), message: 'is not a day' }])
  }
  return text
}

/** Longest span of days that is answered at once. */
const MOST_DAYS = 400
const DAY_MS = 86_400_000
const isoDay = (ms: number): string => new Date(ms).toISOString().slice(0, 10)

/** Two days in the address, `from` and `to`, both with them; without them a week back and two months on. */
export function queryDays(event: H3Event): { from: string; to: string } {
  const from = queryDay(event, 'from') ?? isoDay(Date.now() - 7 * DAY_MS)
  const to = queryDay(event, 'to') ?? isoDay(Date.parse(from) + 67 * DAY_MS)
  const days = (Date.parse(to) - Date.parse(from)) / DAY_MS
  if (!(days >= 0 && days <= MOST_DAYS))
    problem(422, `to must be within ${MOST_DAYS} days after from.`, [
      { field: 'to', value: to, message: 'is too far, or before from' },
    ])
  return { from, to }
}
