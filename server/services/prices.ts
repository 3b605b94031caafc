/** The crew's price book. */
import { asc, eq, sql } from 'drizzle-orm'
import { BARE_MONEY } from '../../core/card'
import type { PriceBook } from '../../core/card'
import { crews, prices } from '../data/schema'
import type { Db } from '../data/db'

export async function priceBook(db: Db, crewId: string): Promise<PriceBook> {
  const [[crew], rows] = await Promise.all([
    db.select({ money: crews.money }).from(crews).where(eq(crews.id, crewId)),
    db.select().from(prices).where(eq(prices.crewId, crewId)).orderBy(asc(prices.key)),
  ])
  return {
    money: { ...BARE_MONEY, ...crew?.money },
    prices: rows.map(({ key, minor, supplier, leadDays, inVan }) => ({ key, minor, supplier, leadDays, inVan })),
  }
}

/** Keeps prices over those of the same thing: the one sent last counts. @returns how many */
export async function keepPrices(db: Db, crewId: string, given: PriceBook['prices']): Promise<number> {
  const rows = [...new Map(given.map(p => [p.key, { ...p, crewId }])).values()]
  await db
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
  return rows.length
}
