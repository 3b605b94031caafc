import { Type } from '@sinclair/typebox'
import { PartSchema } from '../../../core/job'
import { keepParts } from '../../services/parts'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { readValid } from '../../http/validate'

/** Parts of one table at most. */
const MOST_PARTS = 500

const Body = Type.Object(
  { parts: Type.Array(PartSchema, { minItems: 1, maxItems: MOST_PARTS }) },
  { additionalProperties: false },
)

/** Keeps parts of the crew's own, over those of the same id. The ids of the catalogue are taken. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'installer')
  const { parts } = await readValid(event, Body)
  return { kept: await keepParts(useDb(), me.crewId, parts) }
})
