/** Loads the demo crew: masts, terrain, jobs, and members who sign in with one click. */
import { and, eq } from 'drizzle-orm'
import {
  cells,
  crews,
  documentTableOf,
  handovers,
  jobs,
  masts,
  mastSets,
  members,
  pictureFiles,
  prices,
  supplies,
  visits,
} from '../data/schema'
import { connect } from '../data/db'
import { jobOf, TABLES } from '../../core/job'
import { assess } from '../../core/judge'
import { pathInputs } from '../../core/masts'
import { computePaths } from '../../core/terrain'
import { countedIds, DEMO, demoScenario } from '../../demo/scenario'
import { DEMO_MONEY } from '../../demo/prices'
import { demoPhoto } from '../../demo/photos'
import { demoTile } from '../../demo/terrain'
import { settleState } from './job-state'
import { storeTile } from './terrain'

/** @param reset  load again over what is there; otherwise a demo that is there stays as it is */
export async function seedDemo(url: string, reset: boolean): Promise<'loaded' | 'kept'> {
  const { client, db } = connect(url, 2)
  try {
    const [there] = await db.select().from(crews).where(eq(crews.demo, true))
    if (there && !reset) return 'kept'
    const scenario = demoScenario()
    const id = countedIds(2)
    const crewId = id()
    await db.transaction(async tx => {
      if (there) await tx.delete(crews).where(eq(crews.id, there.id))
      await tx.insert(crews).values({
        id: crewId,
        name: DEMO.crew,
        demo: true,
        carriers: DEMO.carriers.map(c => ({ name: c.name, codes: [...c.codes] })),
        money: DEMO_MONEY,
        phone: DEMO.phone,
      })
      await tx.insert(prices).values(scenario.prices.map(p => ({ ...p, crewId })))
      await tx.insert(members).values(DEMO.members.map(m => ({ crewId, id: id(), ...m })))
      const setId = id()
      await tx.insert(mastSets).values({
        crewId,
        id: setId,
        name: 'Archipelago survey',
        rows: scenario.cells.length,
        kept: scenario.cells.length,
        importedBy: DEMO.members[0].name,
      })
      const bands = (mastId: string) => [...new Set(scenario.cells.filter(c => c.mastId === mastId).map(c => c.band))].sort()
      await tx.insert(masts).values(scenario.masts.map(m => ({ ...m, crewId, setId, bands: bands(m.id) })))
      await tx.insert(cells).values(scenario.cells.map(c => ({ ...c, crewId })))
      for (const { jobId, document, visitInDays, days } of scenario.jobs) {
        const { designId, baselineSpotId, stopId, ...job } = jobOf(document)
        await tx
          .insert(jobs)
          .values({ ...job, nextOn: dayFromNow(visitInDays), crewId, id: jobId, version: 1, sequence: 1 } as never)
        for (const name of TABLES) {
          if (name === 'jobs' || name === 'masts' || name === 'cells') continue
          const rows = document[name] as { id: string }[]
          if (rows.length)
            await tx.insert(documentTableOf(name)).values(rows.map(r => ({ ...r, crewId, jobId, version: 1 })) as never)
        }
        const row = () => ({ crewId, jobId, id: id(), version: 1 })
        if (days.visits.length)
          await tx.insert(visits).values(days.visits.map(({ inDays, ...v }) => ({ ...v, ...row(), onDay: dayFromNow(inDays)! })))
        if (days.supplies.length)
          await tx
            .insert(supplies)
            .values(days.supplies.map(({ dueInDays, ...s }) => ({ ...s, ...row(), dueOn: dayFromNow(dueInDays) })))
        await tx
          .update(jobs)
          .set({ designId, baselineSpotId, stopId })
          .where(and(eq(jobs.crewId, crewId), eq(jobs.id, jobId)))
        for (const photo of document.photos)
          await tx
            .insert(pictureFiles)
            .values({ crewId, jobId, id: photo.id, mime: 'image/png', bytes: demoPhoto(scenario.terrain, document, photo) })
        await settleState(tx, crewId, jobId)
        if (document.checks.some(c => c.key === 'handover' && c.done)) {
          // As it was handed over, frozen: the customer's page is made from it.
          const madeAt = document.checks.find(c => c.key === 'handover')!.atUtc!
          const result = assess(document, { paths: computePaths(scenario.terrain, pathInputs(document)) }, { atUtc: madeAt })
          await tx
            .insert(handovers)
            .values({ crewId, id: id(), jobId, engine: result.engine, document, result, madeAt, madeBy: DEMO.members[0].name })
        }
      }
    })
    await storeTile(db, crewId, demoTile())
    return 'loaded'
  } finally {
    await client.end()
  }
}

/** The demo's readings have their days; its next visits are always ahead. */
const dayFromNow = (days: number | null): string | null =>
  days === null ? null : new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)
