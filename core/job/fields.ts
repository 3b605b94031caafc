/** Building blocks of the document's schemas. */
import { sure } from '../sure'
import * as Type from '@sinclair/typebox'
import type { Static, TSchema } from '@sinclair/typebox'

export const opt = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()])

/** What a row does when the row it names goes: it goes as well; it lets go of it (null); or it keeps it from going. */
export type WhenGone = 'goes too' | 'lets go' | 'forbids'

const ID = '^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$'
export const Id = Type.String({ pattern: ID })
/** The id of another row of the same job, or of a mast of the crew. */
export const ref = (references: string, whenGone: WhenGone) => Type.String({ pattern: ID, references, whenGone })
/** A field that came later: what a row written before it holds. */
export const later = <T extends TSchema>(before: Static<T>, schema: T): T => ({ ...schema, before })
/** A field that came later and may be null: null in a row written before it. */
export const optLater = <T extends TSchema>(schema: T) => later(null as Static<ReturnType<typeof opt<T>>>, opt(schema))
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

/** What a field holds, as a table keeps it: an id, an instant, a day, a text, a number, a whole number, yes or no, or parts of its own. */
export type FieldKind = 'id' | 'instant' | 'day' | 'text' | 'number' | 'whole' | 'flag' | 'parts'
export interface FieldFacts {
  kind: FieldKind
  nullable: boolean
  /** the words it may be, where it is one of a list */
  words?: readonly string[]
  /** largest value of a number */
  maximum?: number
  /** what a row written before the field holds; undefined where every row has the field */
  before?: unknown
  reference?: { target: string; whenGone: WhenGone }
}

/** The parts of a JSON schema that tell what a field holds. */
interface Told {
  anyOf?: Told[]
  type?: string
  format?: string
  pattern?: string
  enum?: string[]
  maximum?: number
  before?: unknown
  references?: string
  whenGone?: WhenGone
}
const KIND_OF: Record<string, FieldKind> = { 'date-time': 'instant', 'date': 'day' }
function kindOf({ type, format, pattern }: Told): FieldKind {
  if (type === 'number') return 'number'
  if (type === 'integer') return 'whole'
  if (type === 'boolean') return 'flag'
  if (type !== 'string') return 'parts'
  return pattern === ID ? 'id' : (KIND_OF[format ?? ''] ?? 'text')
}

/** @returns what a field holds, read from its schema: tables, references and defaults follow from it */
export function fieldOf(schema: TSchema): FieldFacts {
  const whole = schema as Told
  const nullable = whole.anyOf?.some(s => s.type === 'null') ?? false
  const one = nullable ? sure(whole.anyOf!.find(s => s.type !== 'null')) : whole
  return {
    kind: kindOf(one),
    nullable,
    ...(one.enum ? { words: one.enum } : {}),
    ...(one.maximum === undefined ? {} : { maximum: one.maximum }),
    ...(whole.before === undefined ? {} : { before: whole.before }),
    ...(one.references ? { reference: { target: one.references, whenGone: one.whenGone! } } : {}),
  }
}
