/** Building blocks of the document's schemas. */
import { Type } from '@sinclair/typebox'
import type { TSchema } from '@sinclair/typebox'

export const opt = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()])

export const Id = Type.String({ pattern: '^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$' })
/** Neither NUL nor half of a surrogate pair: no text of a person holds them, and no database takes them. */
const SOUND = '^[^\\u0000\\uD800-\\uDFFF]*$'
export const Text = (maxLength: number, minLength = 0) => Type.String({ minLength, maxLength, pattern: SOUND })
export const Num = (minimum: number, maximum: number) => Type.Number({ minimum, maximum })
export const Whole = (minimum: number, maximum: number) => Type.Integer({ minimum, maximum })
/** An instant in UTC of the years 1970 to 2099. */
export const Time = Type.String({
  format: 'date-time',
  pattern: '^(19[7-9]|20\\d)\\d-\\d\\d-\\d\\dT([01]\\d|2[0-3]):[0-5]\\d:[0-5]\\d(\\.\\d{1,6})?Z$',
})
export const Day = Type.String({ format: 'date', pattern: '^(19[7-9]|20\\d)\\d-' })
export const oneOf = <T extends string>(...values: T[]) => Type.Unsafe<T>({ type: 'string', enum: values })
