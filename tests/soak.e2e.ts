/**
 * Two people in three tabs edit one job through cuts of the network and kills of browser, server and
 * database: nothing lost, nothing doubled, all copies equal. `SOAK_EDITS` and `SOAK_CUTS` make it longer.
 */
import type { Browser, BrowserContext, Page } from '@playwright/test'
import postgres from 'postgres'
import { seeded } from '../core/random'
import type { JobSnapshot } from '../shared/api'
import { expect, KILN, openJob } from './support/fixtures'
import { test } from './support/own-cluster'

const EDITS = Number(process.env.SOAK_EDITS ?? 360)
const CUTS = Number(process.env.SOAK_CUTS ?? 6)
const KINDS = ['network', 'tab', 'server', 'database'] as const

interface Told {
  reading?: string
  spot?: string
  upM?: number
}

/** Edits one after the other in a page, telling of each when it is kept. Readings are added; a tab's own spot is moved. */
async function edit(page: Page, spotId: string, from: number, n: number): Promise<void> {
  await page.evaluate(
    async ({ spotId, from, n }) => {
      type Commit = (
        edits: { table: string; op: string; rowId?: string; fields: Record<string, unknown> }[],
        label: string,
      ) => Promise<unknown[]>
      const vue = (
        document.querySelector('#__nuxt') as unknown as {
          __vue_app__: { config: { globalProperties: { $pinia: { _s: Map<string, { commit: Commit }> } } } }
        }
      ).__vue_app__
      const store = vue.config.globalProperties.$pinia._s.get('job')!
      const tell = (window as unknown as { tell: (t: Told) => Promise<void> }).tell
      for (let i = from; i < from + n; i++) {
        if (i % 4 === 0) {
          const id = crypto.randomUUID().replace(/^(.{14})4/, '$17')
          const fields = {
            spotId,
            takenAtUtc: new Date().toISOString(),
            setupId: null,
            replacesId: null,
            withdrawn: false,
            technology: 'LTE',
            band: 'B20',
            channel: null,
            bandwidthMHz: 10,
            cellId: null,
            rsrpDbm: -60 - (i % 80),
            rsrqDb: null,
            sinrDb: null,
            capture: null,
            carrierRole: 'anchor',
          }
          const bad = await store.commit([{ table: 'readings', op: 'insert', rowId: id, fields }], 'soak')
          if (bad.length) throw new Error(JSON.stringify(bad))
          await tell({ reading: id })
        } else {
          const upM = ((i * 7) % 900) / 10
          const bad = await store.commit([{ table: 'spots', op: 'update', rowId: spotId, fields: { upM } }], 'soak')
          if (bad.length) throw new Error(JSON.stringify(bad))
          await tell({ spot: spotId, upM })
        }
      }
    },
    { spotId, from, n },
  )
}

test('nothing is lost and nothing doubled through cuts and kills, and all copies end equal', async ({ own, browser }) => {
  test.setTimeout(1_800_000)
  const random = seeded(20260403)
  let node = await own.node()
  const port = node.port
  const before = ((await (await node.request.get(`/api/jobs/${KILN}`)).json()) as JobSnapshot).document
  const spots = before.spots.slice(0, 3).map(s => s.id)
  const readingsBefore = before.readings.length
  const kept = new Set<string>()
  const last = new Map<string, number>()

  const contexts = [await person(browser, node.origin, 'lead'), await person(browser, node.origin, 'installer')]
  const contextOf = (tab: number): BrowserContext => contexts[tab < 2 ? 0 : 1]!
  const tabs: Page[] = []
  const openTab = async (tab: number) => {
    const page = await contextOf(tab).newPage()
    await page.exposeFunction('tell', (t: Told) => {
      if (t.reading) kept.add(t.reading)
      if (t.spot) last.set(t.spot, t.upM!)
    })
    await openJob(page, KILN, 'ask')
    tabs[tab] = page
  }
  for (const tab of [0, 1, 2]) await openTab(tab)

  const PER_ROUND = Math.ceil(EDITS / 3 / (CUTS + 1))
  let made = 0
  for (let round = 0; round <= CUTS; round++) {
    const working = tabs.map((page, tab) =>
      edit(page, spots[tab]!, made, PER_ROUND).catch((e: Error) => {
        if (!/closed|navigat|destroyed|crash/i.test(e.message)) throw e
      }),
    )
    if (round < CUTS) {
      const kind = KINDS[Math.floor(random() * KINDS.length)]!
      await new Promise(done => setTimeout(done, 50 + random() * 400))
      if (kind === 'network') {
        const context = contexts[random() < 0.6 ? 0 : 1]!
        await context.setOffline(true)
        await new Promise(done => setTimeout(done, 300 + random() * 900))
        await context.setOffline(false)
      } else if (kind === 'server') {
        await node.stop('SIGKILL')
        node = await own.node(port)
      } else if (kind === 'database') {
        await own.cluster.down(random() < 0.5 ? 'immediate' : 'fast')
        await own.cluster.up()
      } else {
        const tab = Math.floor(random() * 3)
        await tabs[tab]!.close()
        await openTab(tab)
      }
    }
    await Promise.all(working)
    made += PER_ROUND
  }
  for (const page of tabs) await expect(page.locator('[data-test=link]')).toHaveText('all sent', { timeout: 120_000 })

  const sql = postgres(own.url, { max: 1 })
  const inDatabase = (await sql`select id from readings where job_id = ${KILN}`).map(r => r.id as string)
  // Every reading whose keeping was told is there; one that was on its way when its tab was killed may be.
  for (const id of kept) expect(inDatabase).toContain(id)
  expect(inDatabase.length).toBeGreaterThanOrEqual(readingsBefore + kept.size)
  expect(inDatabase.length).toBeLessThanOrEqual(readingsBefore + kept.size + CUTS)
  expect(new Set(inDatabase).size).toBe(inDatabase.length)
  const [log] = await sql`select count(*)::int as n, count(distinct id)::int as ids, count(distinct sequence)::int as numbers from
      applied_changes where job_id = ${KILN}`
  expect([log!.ids, log!.numbers]).toEqual([log!.n, log!.n])
  // The last place that a tab gave its spot stands, but for one that its killed tab was about to give.
  for (const [spot, upM] of last) {
    const [row] = await sql`select up_m from spots where id = ${spot}`
    if (row!.up_m !== upM)
      expect(
        (await sql`select 1 from applied_changes where row_id = ${spot} and (fields->>'upM')::float8 = ${upM}`).length,
      ).toBeGreaterThan(0)
  }
  const { document: truth } = (await (await node.request.get(`/api/jobs/${KILN}`)).json()) as JobSnapshot
  const shown = truth.spots.map(({ version: _version, ...row }) => row)
  for (const page of tabs) {
    await expect
      .poll(
        async () =>
          page.evaluate(() => {
            const vue = (
              document.querySelector('#__nuxt') as unknown as {
                __vue_app__: {
                  config: {
                    globalProperties: {
                      $pinia: { _s: Map<string, { doc: { spots: { version?: number }[]; readings: { id: string }[] } }> }
                    }
                  }
                }
              }
            ).__vue_app__
            const { doc } = vue.config.globalProperties.$pinia._s.get('job')!
            // When a row was last written is no part of what is shown.
            const spots = doc.spots.map(({ version: _version, ...row }) => row)
            return { spots, readings: doc.readings.map(r => r.id).sort() }
          }),
        { timeout: 30_000 },
      )
      .toEqual({ spots: expect.arrayContaining(shown), readings: truth.readings.map(r => r.id).sort() })
  }
  await sql.end()
  process.stdout.write(
    `soak: ${made * 3} edits, ${CUTS} cuts, ${kept.size} readings told as kept, ${inDatabase.length - readingsBefore} there\n`,
  )
  for (const c of contexts) await c.close()
  await node.stop()
})

async function person(browser: Browser, origin: string, role: string): Promise<BrowserContext> {
  const context = await browser.newContext({ baseURL: origin, serviceWorkers: 'block' })
  await context.request.post('/api/auth/demo', { data: { role } })
  return context
}
