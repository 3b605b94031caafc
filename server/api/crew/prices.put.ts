import { Type } from '@sinclair/typebox'
import { MOST_MINOR } from '../../../core/card'
import { Num, opt, Text, Whole } from '../../../core/job'
import { keepPrices } from '../../services/prices'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { readValid } from '../../http/validate'

const MOST_PRICES = 2000

const Body = Type.Object(
  {
    prices: Type.Array(
      Type.Object(
        {
          key: Text(160, 1),
          minor: opt(Whole(0, MOST_MINOR)),
          supplier: opt(Text(80)),
          leadDays: opt(Whole(0, 400)),
          inVan: Num(0, 100_000),
        },
        { additionalProperties: false },
      ),
      { minItems: 1, maxItems: MOST_PRICES },
    ),
  },
  { additionalProperties: false },
)

/** Keeps prices over those of the same thing: the one sent last counts. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'installer')
  const { prices } = await readValid(event, Body)
  return { kept: await keepPrices(useDb(), me.crewId, prices) }
})
