/** Route: a cable's way drawn on the picture changes what is needed at once; ways in by what may be drilled; what a box is fed by. */
import { choose } from './support/choose'
import { CROFT, database, expect, KILN, LOFT, openJob, sent, test, VAN } from './support/fixtures'

const WORKS = '0192f000-0060-7000-8000-000000000001'

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
  const count = (await page.locator('[data-test=corner]').count()) + 1
  await page.locator('[data-test=add-corner]').click()
  await expect(page.locator('[data-test=corner]')).toHaveCount(count)
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
  // A tape over one piece counts at once; a corner beside it that moves takes it back to the drawing.
  const before = await needs()
  await page.locator('[data-test=piece]').first().click()
  const tape = page.locator('[data-test=piece-tape] input')
  const said = Number((await tape.getAttribute('placeholder'))!.replace(',', '.'))
  await tape.fill(String(said + 2))
  await tape.blur()
  await expect.poll(needs).toBeGreaterThan(before + 1.8)
  await expect(page.locator('[data-test=ribbon] .taped')).toHaveCount(1)
  await corner.focus()
  await page.keyboard.press('ArrowUp')
  await expect(page.locator('[data-test=ribbon] .taped')).toHaveCount(0)
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
  await page.locator('[data-test=layer-way-in]').click()
  const ways = page.locator('[data-test=ways-in]')
  await expect(ways).toContainText('carbon monoxide: never')
  await expect(ways.locator('li').filter({ hasText: 'through the wall' })).toContainText(/Hole \d+ mm, bit \d+/)
  await expect(ways.locator('li').first()).not.toContainText('hole')
})

test('a box on 12 V: every wire with what arrives, the thinnest that does, and its fuse', async ({ demoPage: page }) => {
  await openJob(page, VAN, 'route')
  await page.locator('[data-test=variant-B]').click()
  await page.locator('[data-test=layer-feeds]').click()
  const feed = page.locator('[data-test=feed]').first()
  await expect(feed).toContainText('W by 12 V')
  await expect(feed.locator('tbody tr.on')).toHaveCount(1)
  await expect(feed).toContainText('within 178 mm of the source')
  await page.locator('[data-test=variant-A]').click()
  await sent(page)
  await page.setViewportSize({ width: 390, height: 844 })
  expect(await page.evaluate(() => [...document.querySelectorAll('main')].some(e => e.scrollWidth > innerWidth + 1))).toBe(false)
})

test('what is behind a hole is a stop until somebody looked; nobody accepts it away', async ({ demoPage: page, app }) => {
  await openJob(page, WORKS, 'route')
  await expect(page.locator('[data-test=layer-way-in] .count')).toHaveText('1')
  await page.locator('[data-test=layer-way-in]').click()
  const stop = page.locator('[data-test=route-finding]').filter({ hasText: 'What is behind' })
  await expect(stop).toContainText('STOP')
  await page.keyboard.press('f')
  const listed = page.locator('[data-code="route.behind"]').last()
  await expect(listed).toContainText('cannot be accepted')
  await expect(listed.getByRole('button', { name: 'accept with a reason' })).toHaveCount(0)
  await page.keyboard.press('Escape')
  // Gas behind it: no hole there, whatever else is said; the card's gate says the same.
  await choose(page.locator('[data-test=behind]').first(), 'a gas pipe')
  await expect(stop).toHaveCount(0)
  const gas = page.locator('[data-test=route-finding]').filter({ hasText: 'a gas pipe behind it' })
  await expect(gas).toContainText('STOP')
  await page.goto(`/job/${WORKS}/card`)
  await page.locator('[data-test=step-way]').first().click()
  await expect(page.locator('[data-gate=drill]')).toContainText('gas is there: another place')
  await expect(page.locator('[data-test=fact-behind]')).toBeDisabled()
  await openJob(page, WORKS, 'route')
  await page.locator('[data-test=layer-way-in]').click()
  await choose(page.locator('[data-test=behind]').first(), 'nothing in the way')
  await expect(gas).toHaveCount(0)
  // Another way that makes no hole is taken instead, and stands on the picture.
  await page.locator('[data-test=take-port]').click()
  await expect(page.locator('[data-test=taken]')).toContainText('a port or gland that is there')
  await page.locator('[data-test=open-mm] input').fill('12')
  await page.locator('[data-test=open-mm] input').blur()
  await expect(page.locator('[data-test=route-finding]').filter({ hasText: 'do not pass' })).toBeVisible()
  await sent(page)
  const sql = database(app)
  const rows =
    await sql`select f.entry, f.open_mm, f.behind from fixtures f join designs d on d.crew_id = f.crew_id and d.way_in_id = f.id
    join jobs j on j.crew_id = d.crew_id and j.design_id = d.id where j.id = ${WORKS}`
  expect(rows).toEqual([{ entry: 'port', open_mm: 12, behind: null }])
  await sql.end()
})

test('a mast is held, stands or does not in the wind, and a press leaves its top section in', async ({ demoPage: page }) => {
  await openJob(page, WORKS, 'route')
  await page.locator('[data-test=layer-mounts]').click()
  const stands = page.locator('[data-test=stands]')
  await expect(stands).toContainText('of what the tube bears')
  await expect(page.locator('[data-test=pole-words]')).toContainText('at 40 m/s')
  await page.locator('[data-test=gust] input').fill('85')
  await page.locator('[data-test=gust] input').blur()
  const finding = page.locator('[data-test=route-finding]').filter({ hasText: 'of what it may' })
  await expect(finding).toContainText('fix')
  await expect(page.locator('[data-test=pole-section]')).toHaveCount(2)
  await finding.getByRole('button', { name: 'leave the top section in' }).click()
  await expect(page.locator('[data-test=pole-section]')).toHaveCount(1)
  // A pole that nobody can reckon is no number but a refusal.
  await page.locator('[data-test=pole-section] input').nth(2).fill('29')
  await page.locator('[data-test=pole-section] input').nth(2).blur()
  await expect(stands).toContainText('an engineer decide')
  await page.locator('[data-test=pole-section] input').nth(1).fill('-2')
  await page.locator('[data-test=pole-section] input').nth(1).blur()
  await expect(page.locator('[data-test=pole-section]')).toContainText('0.3 to 50 mm')
})

test('a surge to a gas pipe is a stop; to a bonded rod it is not, and its conductor is drawn', async ({ demoPage: page }) => {
  await openJob(page, KILN, 'route')
  await page.locator('[data-test=layer-surge]').click()
  await expect(page.locator('[data-test=surge-row]').first()).toContainText('rod')
  await choose(page.locator('[data-test=electrode-kind]').first(), 'gas pipe')
  const stop = page.locator('[data-test=route-finding]').filter({ hasText: 'A gas pipe is no earth' })
  await expect(stop).toContainText('STOP')
  await choose(page.locator('[data-test=electrode-kind]').first(), 'rod')
  await expect(stop).toHaveCount(0)
  await page.locator('[data-test=draw-surge]').click()
  await expect(page.locator('[data-test=corner]').first()).toBeVisible()
  await page.locator('[data-test=corner]').first().focus()
  await page.keyboard.press('ArrowDown')
  await sent(page)
})

test('a fuse that burns its wire is refused beside it; the job of another kind has its own feeds', async ({ demoPage: page }) => {
  await openJob(page, VAN, 'route')
  await page.locator('[data-test=layer-feeds]').click()
  await page.locator('[data-test=wire-awg18]').click()
  await page.locator('[data-test=fuse] input').fill('20')
  await page.locator('[data-test=fuse] input').blur()
  await expect(page.locator('[data-test=fuse-says]')).toContainText('more than 18 AWG bears')
  await page.locator('[data-test=fuse] input').fill('3')
  await page.locator('[data-test=fuse] input').blur()
  await expect(page.locator('[data-test=fuse-says]')).toContainText('stands between')
  await expect(page.locator('[data-test=ah-a-day]')).toContainText('Ah')
  await page.locator('[data-test=fumes]').check()
  await expect(page.locator('[data-test=route-finding]').filter({ hasText: 'petrol or gas' })).toContainText('STOP')
  await page.locator('[data-test=fumes]').uncheck()
  await page.locator('[data-test=layer-mounts]').click()
  await expect(page.locator('[data-test=height-after]')).toContainText(/3\.\d.m by the plan, rounded up/)
  await openJob(page, CROFT, 'route')
  await page.locator('[data-test=layer-way-in]').click()
  await expect(page.locator('[data-test=ways-in]').or(page.getByText('No cable comes in from outside.'))).toBeVisible()
})

test('every layer by thumb: nothing runs off the side, targets are large', async ({ demoPage: page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await openJob(page, WORKS, 'route')
  for (const layer of ['cables', 'way-in', 'mounts', 'feeds', 'surge']) {
    const tab = page.locator(`[data-test=layer-${layer}]`)
    await tab.click()
    expect((await tab.boundingBox())!.height, layer).toBeGreaterThanOrEqual(56)
    expect(await page.evaluate(() => document.documentElement.scrollWidth), layer).toBeLessThanOrEqual(390)
  }
})
