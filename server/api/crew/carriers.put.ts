import { Type } from '@sinclair/typebox'
import { agree } from '../../services/crew'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { problem } from '../../http/problem'
import { readValid } from '../../http/validate'

const Body = Type.Object(
  {
    carriers: Type.Array(
      Type.Object(
        {
          name: Type.String({ minLength: 1, maxLength: 60 }),
          codes: Type.Array(Type.String({ pattern: '^\\d{5,6}$' }), { maxItems: 30 }),
        },
        { additionalProperties: false },
      ),
      { maxItems: 100 },
    ),
  },
  { additionalProperties: false },
)

/** Whose network a code is, in the crew's own words. Masts brought before keep the name they came with. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'lead')
  const { carriers } = await readValid(event, Body)
  const codes = carriers.flatMap(c => c.codes)
  const twice = codes.find((c, i) => codes.indexOf(c) !== i)
  if (twice)
    problem(422, `Code ${twice} stands with two carriers.`, [{ field: 'carriers', value: twice, message: 'stands twice' }])
  await agree(useDb(), me.crewId, { carriers })
  return { carriers }
})
