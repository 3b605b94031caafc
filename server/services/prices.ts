/** The crew's price book. */
import { asc, eq } from 'drizzle-orm'
import { BARE_MONEY } from '../../core/card/money'
import type { PriceBook } from '../../core/card/quote'
import { crews, prices } from '../database/schema'
import type { Db } from '../utils/db'

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
