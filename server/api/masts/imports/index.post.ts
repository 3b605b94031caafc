import { Type } from '@sinclair/typebox'
import { lackingFields, MAST_FIELDS } from '../../../../core/formats'
import type { MastRules } from '../../../../core/formats'
import { startImport } from '../../../services/mast-import'
import { requireMember } from '../../../http/member'
import { problem } from '../../../http/problem'
import { readValid } from '../../../http/validate'

const Body = Type.Object(
  {
    name: Type.String({ minLength: 1, maxLength: 120 }),
    delimiter: Type.Union([',', ';', '\t', '|'].map(d => Type.Literal(d))),
    signature: Type.String({ minLength: 1, maxLength: 4000 }),
    rules: Type.Object(
      {
        mapping: Type.Object(Object.fromEntries(MAST_FIELDS.map(f => [f, Type.Integer({ minimum: -1, maximum: 500 })])), {
          additionalProperties: false,
        }),
        heightUnit: Type.Union([Type.Literal('m'), Type.Literal('ft')]),
        swapped: Type.Boolean(),
        fallbackBand: Type.Union([Type.String({ maxLength: 8 }), Type.Null()]),
        wholeCarrier: Type.Optional(Type.Union([Type.String({ minLength: 1, maxLength: 60 }), Type.Null()])),
        listedOn: Type.Union([Type.String({ format: 'date', pattern: '^(19[7-9]|20\\d)\\d-' }), Type.Null()]),
      },
      { additionalProperties: false },
    ),
  },
  { additionalProperties: false },
)

/** Opens an import of a list of masts; its pieces follow. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'installer')
  const body = (await readValid(event, Body)) as { name: string; delimiter: string; signature: string; rules: MastRules }
  const lacking = lackingFields(body.rules.mapping, body.rules.wholeCarrier)
  if (lacking.length)
    problem(
      422,
      `Still to map: ${lacking.join(', ')}.`,
      lacking.map(field => ({ field, message: 'is needed' })),
    )
  return startImport(me, body)
})
