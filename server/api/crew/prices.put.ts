import { Type } from '@sinclair/typebox'
import { sql } from 'drizzle-orm'
import { MOST_MINOR } from '../../../core/card/money'
import { Num, opt, Text, Whole } from '../../../core/job/fields'
import { prices } from '../../database/schema'

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
  const { prices: given } = await readValid(event, Body)
  const rows = [...new Map(given.map(p => [p.key, { ...p, crewId: me.crewId }])).values()]
  await useDb()
    .insert(prices)
    .values(rows)
    .onConflictDoUpdate({
      target: [prices.crewId, prices.key],
      set: {
        minor: sql`excluded.minor`,
        supplier: sql`excluded.supplier`,
        leadDays: sql`excluded.lead_days`,
        inVan: sql`excluded.in_van`,
      },
    })
  return { kept: rows.length }
})
