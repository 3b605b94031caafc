/**
 * A day on the roof: readings and photographs of one phone, kept through cuts of the network, killed tabs and killed
 * servers, and all of it on the server at the end, once. `DAY_READINGS`, `DAY_PHOTOS` and `DAY_CUTS` make it a long one.
 */
import type { BrowserContext, Page } from '@playwright/test'
import { PNG } from 'pngjs'
import postgres from 'postgres'
import { seeded } from '../core/random'
import type { JobSnapshot } from '../shared/api'
import { expect, KILN, openJob } from './support/fixtures'
import { test } from './support/own-cluster'

const READINGS = Number(process.env.DAY_READINGS ?? 240)
const PHOTOS = Number(process.env.DAY_PHOTOS ?? 6)
const CUTS = Number(process.env.DAY_CUTS ?? 4)
const KINDS = ['network', 'tab', 'server'] as const

/** A photograph of its own colour, as a camera's file. */
function shot(n: number): { name: string; mimeType: string; buffer: Buffer } {
  const png = new PNG({ width: 64, height: 48 })
  for (let i = 0; i < png.data.length; i += 4) png.data.set([n & 255, (n * 37) & 255, (n * 101) & 255, 255], i)
  return { name: `shot-${n}.png`, mimeType: 'image/png', buffer: PNG.sync.write(png) }
}

/** Readings one after the other, each told once the device has it. */
const read = (page: Page, spotId: string, from: number, n: number): Promise<void> =>
  page.evaluate(
    async ({ spotId, from, n }) => {
      type Commit = (edits: object[], label: string) => Promise<unknown[]>
      const vue = (
        document.querySelector('#__nuxt') as unknown as {
          __vue_app__: { config: { globalProperties: { $pinia: { _s: Map<string, { commit: Commit }> } } } }
        }
      ).__vue_app__
      const store = vue.config.globalProperties.$pinia._s.get('job')!
      const { tell } = window as unknown as { tell: (id: string) => Promise<void> }
      const common = { setupId: null, replacesId: null, withdrawn: false, technology: 'LTE', band: 'B20', channel: null }
      const unknown = { cellId: null, rsrqDb: null, sinrDb: null, capture: null, carrierRole: 'anchor', bandwidthMHz: 10 }
      for (let i = from; i < from + n; i++) {
        const id = crypto.randomUUID().replace(/^(.{14})4/, '$17')
        const fields = { ...common, ...unknown, spotId, takenAtUtc: new Date().toISOString(), rsrpDbm: -60 - (i % 80) }
        const bad = await store.commit([{ table: 'readings', op: 'insert', rowId: id, fields }], 'a reading')
        if (bad.length) throw new Error(JSON.stringify(bad))
        await tell(id)
      }
    },
    { spotId, from, n },
  )

test('a day of readings and photographs through cuts and kills: none lost, none doubled', async ({ own, browser }) => {
  test.setTimeout(3_600_000)
  const random = seeded(20_261_126)
  let node = await own.node()
  const port = node.port
  const { document } = (await (await node.request.get(`/api/jobs/${KILN}`)).json()) as JobSnapshot
  const spotId = document.spots[0]!.id
  const before = { readings: document.readings.length, photos: document.photos.length }
  const context: BrowserContext = await browser.newContext({
    baseURL: node.origin,
    serviceWorkers: 'block',
    viewport: { width: 390, height: 844 },
  })
  await context.request.post('/api/auth/demo', { data: {} })
  const kept = new Set<string>()
  let page!: Page
  const openTab = async () => {
    page = await context.newPage()
    await page.exposeFunction('tell', (id: string) => void kept.add(id))
    await openJob(page, KILN, 'survey')
  }
  await openTab()
  let photos = 0
  /** Photographs brought by the page's own button; kept once the button is free again. */
  const photograph = async (n: number) => {
    const files = Array.from({ length: n }, (_, i) => shot(photos + i))
    await page.locator('[data-test=spot-photo]').setInputFiles(files)
    await expect(page.locator('.at .thumb')).toHaveCount(photos + n, { timeout: 60_000 })
    photos += n
  }
  const per = { readings: Math.ceil(READINGS / (CUTS + 1)), photos: Math.floor(PHOTOS / (CUTS + 1)) }
  await page
    .getByRole('heading', { level: 2, name: document.spots[0]!.name })
    .waitFor({ timeout: 5000 })
    .catch(() => {})
  for (let round = 0; round <= CUTS; round++) {
    const left = round === CUTS ? PHOTOS - photos : per.photos
    if (left) await photograph(left)
    const working = read(page, spotId, round * per.readings, per.readings).catch((e: Error) => {
      if (!/closed|navigat|destroyed|crash/i.test(e.message)) throw e
    })
    if (round < CUTS) {
      const kind = KINDS[Math.floor(random() * KINDS.length)]!
      await new Promise(done => setTimeout(done, 30 + random() * 300))
      if (kind === 'network') {
        await context.setOffline(true)
        await new Promise(done => setTimeout(done, 200 + random() * 600))
        await context.setOffline(false)
      } else if (kind === 'server') {
        await node.stop('SIGKILL')
        node = await own.node(port)
      } else {
        await page.close()
        await openTab()
      }
    }
    await working
  }
  await expect(page.locator('[data-test=link]')).toHaveText('all sent', { timeout: 300_000 })
  const sql = postgres(own.url, { max: 1 })
  const inDatabase = (await sql`select id from readings where job_id = ${KILN}`).map(r => r.id as string)
  const missing = [...kept].filter(id => !inDatabase.includes(id))
  expect(missing).toEqual([])
  expect(new Set(inDatabase).size).toBe(inDatabase.length)
  // One that was on its way when its tab was killed may be there untold; no more.
  expect(inDatabase.length - before.readings - kept.size).toBeGreaterThanOrEqual(0)
  expect(inDatabase.length - before.readings - kept.size).toBeLessThanOrEqual(CUTS)
  const rows = await sql`select id from photos where job_id = ${KILN}`
  expect(rows.length).toBe(before.photos + PHOTOS)
  // The bytes too, each picture once and readable.
  for (const { id } of rows) {
    await expect
      .poll(async () => (await node.request.get(`/api/jobs/${KILN}/pictures/${id}`)).status(), { timeout: 60_000 })
      .toBe(200)
  }
  await sql.end()
  process.stdout.write(
    `day: ${kept.size} readings told as kept, ${PHOTOS} photographs, ${CUTS} cuts; there: ` +
      `${inDatabase.length - before.readings} readings, ${rows.length - before.photos} photographs\n`,
  )
  await context.close()
  await node.stop()
})
