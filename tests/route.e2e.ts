/** Route: a cable's way drawn on the picture changes what is needed at once; ways in by what may be drilled; what a box is fed by. */
import { database, expect, KILN, LOFT, openJob, sent, test, VAN } from './support/fixtures'

const metres = (text: string | null): number => Number(/[\d.]+/.exec(text!.replace('−', '-'))![0])

test('a way is drawn, a corner moved by hand and by keys; the cable that reaches is taken, and undo brings all back', async ({
  demoPage: page,
  app,
}) => {
  await openJob(page, LOFT, 'route')
  const rows = page.locator('[data-test=cable-row]')
  await expect(rows.first()).toBeVisible()
  const needs = async () => metres(await rows.first().locator('[data-test=cable-needs]').textContent())
  const guessed = await needs()
  await page.locator('[data-test=draw-way]').click()
  await expect(page.locator('[data-test=corner]').first()).toBeVisible()
  await expect(rows.first()).toContainText('drawn')
  await page.locator('[data-test=add-corner]').click()
  const count = await page.locator('[data-test=corner]').count()
  expect(count).toBeGreaterThanOrEqual(2)
  const drawn = await needs()
  const corner = page.locator('[data-test=corner]').first()
  const box = (await corner.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x - 140, box.y - 60, { steps: 6 })
  await page.mouse.up()
  await expect.poll(needs).toBeGreaterThan(drawn + 2)
  await expect(page.locator('[data-test=one-cable]')).not.toContainText('too short')
  await corner.focus()
  await page.keyboard.press('ArrowUp')
  await sent(page)
  const sql = database(app)
  const runs = () => sql`select r.way, r.length_m from runs r join jobs j on j.crew_id = r.crew_id and j.design_id = r.design_id
    where j.id = ${LOFT} and r.way is not null`
  const [run] = await runs()
  expect(run!.way).toHaveLength(count)
  expect(run!.length_m).toBeGreaterThanOrEqual((await needs()) - 0.1)
  await page.locator('[data-test=no-way]').click()
  await expect.poll(needs).toBeCloseTo(guessed, 1)
  await sent(page)
  expect(await runs()).toHaveLength(0)
  await sql.end()
})

test('where nothing may be drilled no hole is proposed; a flue is never a way', async ({ demoPage: page }) => {
  await openJob(page, KILN, 'route')
  const ways = page.locator('[data-test=ways-in]')
  await expect(ways).toContainText('carbon monoxide: never')
  await expect(ways.locator('li').filter({ hasText: 'through the wall' })).toContainText(/Hole \d+ mm, bit \d+/)
  await expect(ways.locator('li').first()).not.toContainText('hole')
})

test('a box on 12 V: every wire with what arrives, the thinnest that does, and its fuse', async ({ demoPage: page }) => {
  await openJob(page, VAN, 'route')
  await page.locator('[data-test=variant-B]').click()
  const feed = page.locator('[data-test=feed]').first()
  await expect(feed).toContainText('W by 12 V')
  await expect(feed.locator('tbody tr.on')).toHaveCount(1)
  await expect(feed).toContainText('within 178 mm of the source')
  await page.locator('[data-test=variant-A]').click()
  await sent(page)
  await page.setViewportSize({ width: 390, height: 844 })
  expect(await page.evaluate(() => [...document.querySelectorAll('main')].some(e => e.scrollWidth > innerWidth + 1))).toBe(false)
})
