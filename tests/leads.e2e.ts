/** Leads, data cables and names: what is fixed to a part or carries no radio is pulled like any cable, and called by its name. */
import { choose } from './support/choose'
import { copyOf } from './support/copy'
import { CLINIC, database, expect, KETCH, KILN, LOFT, openJob, sent, test, TRAILER } from './support/fixtures'

const MAIL_VAN = '0192f000-0070-7000-8000-000000000001'

test('the leads of a roof antenna are cables of their own: in the kit, pulled in Route, pulled on the card', async ({
  demoPage: page,
}) => {
  await openJob(page, MAIL_VAN, 'choose')
  await expect(page.locator('[data-test=own-lead]')).toContainText('own lead, RG-58, 5.0 m')
  await openJob(page, MAIL_VAN, 'route')
  const rows = page.locator('[data-test=cable-row]')
  // Two leads, and the one that feeds the router.
  await expect(rows).toHaveCount(3)
  await expect(rows.first()).toContainText('own lead, RG-58')
  await expect(rows.first()).toContainText('5.0 m')
  await openJob(page, MAIL_VAN, 'card')
  const pulled = page.locator('[data-test=step-pull]')
  await expect(pulled.filter({ hasText: 'Pull A1: Roof omni to ' })).toHaveCount(1)
  await expect(pulled.filter({ hasText: 'Pull A2: Roof omni to ' })).toHaveCount(1)
})

test('a modem outdoors has its data cable: taken out it is missed, and one press lays it again', async ({ demoPage: page }) => {
  await openJob(page, LOFT, 'choose')
  await page.locator('[data-test=variant-B]').click()
  const cables = page.locator('[data-test=data-cables]')
  await expect(cables.getByRole('listitem')).toHaveCount(2)
  await choose(cables.getByRole('combobox').first(), 'Data cable Cat 6, indoor')
  await sent(page)
  await cables.getByRole('button', { name: 'take out Injector' }).click()
  // Nothing that led to it alone is left in the air.
  await expect(cables).toHaveCount(0)
  await page.locator('[data-test=findings]').click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('No data cable comes to Outdoor modem')
  await dialog.getByRole('button', { name: /lay it to an injector/ }).click()
  await page.keyboard.press('Escape')
  await expect(cables.getByRole('listitem')).toHaveCount(2)
  await expect(cables).toContainText('Data arrestor to Injector')
  await sent(page)
  await page.reload()
  await page.locator('[data-test=variant-B]').click()
  await expect(page.locator('[data-test=data-cables]').getByRole('listitem')).toHaveCount(2)
  await openJob(page, LOFT, 'route')
  await page.locator('[data-test=variant-B]').click()
  await expect(page.locator('[data-test=cable-row]').filter({ hasText: 'Outdoor modem to Data arrestor' })).toHaveCount(1)
})

test('a part that somebody names is called so in Route, on the card and on the picture; emptied, by what it is again', async ({
  demoPage: page,
}) => {
  await openJob(page, KILN, 'card')
  await expect(page.locator('[data-test=step-raise]').first()).toBeVisible()
  const changed = await page.getByText('the plan changed since').count()
  await openJob(page, KILN, 'choose')
  await page.locator('[data-test=figures-outside]').first().click()
  const dialog = page.getByRole('dialog')
  const usual = (await dialog.getByRole('heading').first().textContent())!.trim()
  expect(usual).toMatch(/^Roof /)
  await dialog.locator('[data-test=part-name] input').fill('West pole')
  await dialog.locator('[data-test=part-name] input').blur()
  await expect(dialog.getByRole('heading').first()).toHaveText('West pole')
  await page.keyboard.press('Escape')
  await sent(page)
  await openJob(page, KILN, 'route')
  await expect(page.locator('[data-test=cable-row]').first()).toContainText('West pole to')
  await openJob(page, KILN, 'card')
  await expect(page.locator('[data-test=step-raise]').first()).toContainText('Raise West pole')
  // A name is no change of the plan: what was done stays done.
  await expect(page.getByText('the plan changed since')).toHaveCount(changed)
  await openJob(page, KILN, 'place')
  await expect(page.locator('[data-test=part-outside]').first()).toHaveAttribute('aria-label', /^West pole/)
  await openJob(page, KILN, 'choose')
  await page.locator('[data-test=figures-outside]').first().click()
  await dialog.locator('[data-test=part-name] input').fill('')
  await dialog.locator('[data-test=part-name] input').blur()
  await expect(dialog.getByRole('heading').first()).toHaveText(usual)
  // The next test finds it as it was.
  await sent(page)
})

test('a part is placed by its figures: what is screwed to it and its cables come along, and undo brings all back', async ({
  demoPage: page,
  app,
}) => {
  await openJob(page, KILN, 'place')
  await page.locator('[data-test=part-router]').first().focus()
  await page.locator('[data-test=by-figure]').click()
  const sql = database(app)
  const rows = () => sql`select id, east_m, north_m from nodes where job_id = ${KILN} order by id`
  const before = await rows()
  const along = page.locator('[data-test=place-along] input')
  const was = Number((await along.inputValue()).replace('−', '-'))
  await along.fill(String(was + 3))
  await along.blur()
  await expect.poll(async () => JSON.stringify(await rows())).not.toBe(JSON.stringify(before))
  await sent(page)
  const after = await rows()
  const moved = after.filter((r, i) => Math.hypot(r.east_m - before[i]!.east_m, r.north_m - before[i]!.north_m) > 0.01)
  // The router, and the adapters that are screwed to it.
  expect(moved.length).toBeGreaterThan(1)
  for (const r of moved) {
    const old = before.find(b => b.id === r.id)!
    expect(Math.hypot(r.east_m - old.east_m, r.north_m - old.north_m)).toBeCloseTo(3, 1)
  }
  await page.keyboard.press('Escape')
  await page.locator('[data-test=undo]').click()
  await sent(page)
  await expect.poll(async () => JSON.stringify(await rows())).toBe(JSON.stringify(before))
  await sql.end()
})

test('a panel is swapped for two single beams, crossed, and back, each in one press; its cables stay', async ({
  demoPage: page,
  app,
}) => {
  await openJob(page, KILN, 'choose')
  const sql = database(app)
  const parts = async () =>
    (
      await sql`select n.part_id from nodes n join jobs j on j.id = n.job_id and j.crew_id = n.crew_id and j.design_id = n.design_id
      where n.job_id = ${KILN} and n.part_id like 'ant-%' order by n.part_id`
    ).map(r => r.part_id as string)
  const before = await parts()
  expect(before).toHaveLength(1)
  await page.locator('[data-test=figures-outside]').first().click()
  await choose(page.locator('[data-test=pairing] .v-field'), 'Log-periodic beam, wide band')
  await expect.poll(parts).toEqual(['ant-lpda', 'ant-lpda'])
  await page.keyboard.press('Escape')
  for (const name of ['Roof log-periodic 1', 'Roof log-periodic 2']) await expect(page.locator('.tree')).toContainText(name)
  await page.locator('[data-test=undo]').click()
  await expect.poll(parts).toEqual(before)
  await sql.end()
})

test('a van’s router has its lead from a fuse tap: taken out it is missed, laid again by a press, on the card and in the list', async ({
  demoPage: page,
}) => {
  await openJob(page, MAIL_VAN, 'route')
  await page.locator('[data-test=layer-feeds]').click()
  const lead = page.locator('[data-test=supply-lead]')
  await expect(lead).toContainText('Fuse tap → Router')
  await page.getByRole('button', { name: 'take out Fuse tap' }).click()
  await expect(lead).toHaveCount(0)
  await page.locator('[data-test=findings]').click()
  await expect(page.getByRole('dialog')).toContainText('No lead to Router is planned')
  await page.keyboard.press('Escape')
  await page.locator('[data-test=lay-supply]').click()
  await expect(lead).toContainText('Fuse tap → Router')
  await page.locator('[data-test=converter]').click()
  await expect(lead).toContainText('Fuse tap → Converter → Router')
  await page.locator('[data-test=undo]').click()
  await expect(lead).toContainText('Fuse tap → Router')
  await page.locator('[data-test="wire-2.5"]').click()
  await sent(page)
  await page.reload()
  await page.locator('[data-test=layer-feeds]').click()
  await expect(page.locator('tr.on')).toContainText('2.5 mm²')
  await openJob(page, MAIL_VAN, 'card')
  await expect(page.locator('[data-test=step-pull]').filter({ hasText: 'Fuse tap to Router' })).toHaveCount(1)
  await expect(page.locator('[data-test=step-volts]')).toContainText('Read the volts at Router, under load')
})

test('a router goes on a UPS by a press, which says for how long, and off again', async ({ demoPage: page }) => {
  await openJob(page, KILN, 'route')
  await page.locator('[data-test=layer-feeds]').click()
  await page.locator('[data-test=put-ups]').click()
  await expect(page.locator('[data-test=ups-says]')).toContainText(/On UPS, .* W in all/)
  await sent(page)
  await openJob(page, KILN, 'card')
  await expect(page.locator('[data-test=step-bridge]')).toHaveCount(1)
  await openJob(page, KILN, 'route')
  await page.locator('[data-test=layer-feeds]').click()
  await page.locator('[data-test=off-ups]').click()
  await expect(page.locator('[data-test=put-ups]')).toBeVisible()
  // The next test takes a copy of it as it was.
  await sent(page)
})

test('a router ashore goes on an inverter by a press: its lead from the battery, its waste a day, its steps; and off again', async ({
  demoPage: page,
}) => {
  const job = await copyOf(page.request, KILN)
  await openJob(page, job, 'place')
  await page.locator('[data-test=pins]').first().click()
  await page.locator('[data-test=add-12-V-feed]').click()
  await page.keyboard.press('Escape')
  await sent(page)
  await openJob(page, job, 'route')
  await page.locator('[data-test=layer-feeds]').click()
  await page.locator('[data-test=put-inverter]').click()
  await expect(page.locator('[data-test=supply-lead]')).toContainText('Fuse tap → Inverter → Router')
  await expect(page.locator('[data-test=ah-a-day]')).toContainText('the inverter’s waste with it')
  await expect(page.locator('[data-test=put-ups]')).toHaveCount(0)
  await sent(page)
  await openJob(page, job, 'card')
  await expect(page.locator('[data-test=step-pull]').filter({ hasText: 'Fuse tap to Inverter' })).toHaveCount(1)
  await expect(page.locator('[data-test=step-volts]')).toContainText('Read the volts at Inverter, under load')
  await openJob(page, job, 'route')
  await page.locator('[data-test=layer-feeds]').click()
  await page.getByRole('button', { name: 'take out Inverter' }).click()
  await expect(page.locator('[data-test=put-inverter]')).toBeVisible()
  await expect(page.locator('[data-test=supply-lead]')).toHaveCount(0)
})

test('a plain switch in the cable of a modem outdoors gives it no power: told, changed for one that does in a press', async ({
  demoPage: page,
}) => {
  const job = await copyOf(page.request, LOFT)
  await openJob(page, job, 'choose')
  await page.locator('[data-test=variant-B]').click()
  await page.locator('[data-test=put-switch]').first().click()
  await expect(page.locator('[data-test=data-cables]')).toContainText('Switch')
  await page.locator('[data-test=findings]').click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('Switch gives Outdoor modem no power')
  await dialog.getByRole('button', { name: /another in its place/ }).click()
  await expect(dialog).not.toContainText('Switch gives Outdoor modem no power')
})

test('an antenna taken out, the others keep their numbers; the next one takes the number that is free', async ({
  demoPage: page,
  app,
}) => {
  const job = await copyOf(page.request, CLINIC)
  await openJob(page, job, 'choose')
  const names = async () =>
    (await page.locator('.tree td.name .plain').allTextContents()).flatMap(n => /^\s*(Dome \d+),/.exec(n)?.[1] ?? []).toSorted()
  const before = await names()
  expect(before).toContain('Dome 2')
  await page.getByRole('button', { name: /^change at Dome 2,/ }).click()
  await page.getByText('take it out').click()
  await expect.poll(names).toEqual(before.filter(n => n !== 'Dome 2'))
  await sent(page)
  const sql = database(app)
  const [row] =
    await sql`select count(*)::int as n, min(number)::int as least from nodes where job_id = ${job} and number is not null`
  expect(row).toMatchObject({ n: before.length - 2, least: 3 })
  await sql.end()
})

test('SIMs lie in the slots of two modems: each has its own mast and promise, and what is taken out is missed', async ({
  demoPage: page,
}) => {
  await openJob(page, TRAILER, 'choose')
  const map = page.locator('[data-test=modems]')
  for (const name of ['Tern unlimited', 'Tern by the day, stands by', 'Gannet 100 GB'])
    await expect(map.getByRole('img')).toContainText(name)
  await expect(map.getByRole('img')).toContainText('Roof omni, 4')
  await expect(page.locator('[data-test=modem-1]')).toContainText(/Mbit\/s down, .* on /)
  await expect(page.locator('[data-test=modem-2]')).toContainText(/Mbit\/s down, .* on /)
  // Moved to the other modem, a SIM leaves the slot it was in.
  await choose(page.locator('[data-test=slot-4]'), 'Tern by the day, Tern')
  await sent(page)
  await page.reload()
  await expect(page.locator('[data-test=slot-4]')).toContainText('Tern by the day')
  await expect(page.locator('[data-test=slot-2]')).not.toContainText('Tern by the day')
  await page.locator('[data-test=slot-3]').hover()
  await page.locator('[data-test=slot-3] .v-field__clearable').click()
  await page.locator('[data-test=slot-4]').hover()
  await page.locator('[data-test=slot-4] .v-field__clearable').click()
  await expect(page.locator('main')).toContainText('No SIM is planned for modem 2 of Router')
  await openJob(page, TRAILER, 'card')
  await page.locator('[data-test=step-sim]').click()
  await expect(page.locator('main')).toContainText('slot 1: Tern unlimited, Tern')
})

test('other services aboard are added and taken out whole, each with its height, its cable and its way to pull it', async ({
  demoPage: page,
}) => {
  const id = await copyOf(page.request, KETCH)
  await openJob(page, id, 'choose')
  const services = page.locator('[data-test=services]')
  await expect(services.getByRole('listitem')).toHaveCount(4)
  await expect(page.locator('[data-test=service-VHF]')).toContainText(/sees .* to the horizon/)
  await page.getByRole('button', { name: 'take out AIS antenna' }).click()
  await expect(services.getByRole('listitem')).toHaveCount(3)
  await choose(page.locator('[data-test=add-service]'), 'AIS, sees ships and is seen')
  await expect(services.getByRole('listitem')).toHaveCount(4)
  // Beside the VHF antenna and as high: one deafens the other.
  const height = page.locator('[data-test=service-Wi-Fi] input')
  await height.fill('15.1')
  await height.blur()
  await sent(page)
  await openJob(page, id, 'place')
  await expect(page.locator('main')).toContainText('stand in each other’s way')
  await openJob(page, id, 'card')
  await expect(page.locator('[data-test=step-pull]').filter({ hasText: 'AIS antenna' })).toHaveCount(1)
})

test('a booster that feeds a router by air: both are in the plan, what it hears is said, and it is taken out for good', async ({
  demoPage: page,
}) => {
  const id = await copyOf(page.request, LOFT)
  await openJob(page, id, 'choose')
  await page.locator('[data-test=compare]').click()
  await page.locator('[data-test=lay-booster-and-router]').click()
  const byAir = page.locator('[data-test=by-air]')
  await expect(byAir).toContainText(/hears Dome.* by air: RSRP/)
  await sent(page)
  await page.reload()
  await expect(byAir).toContainText(/hears Dome.* by air: RSRP/)
  await byAir.getByRole('button', { name: 'maker’s figures' }).click()
  await expect(page.getByRole('dialog').getByRole('heading').first()).toContainText('Router')
  await page.keyboard.press('Escape')
  await byAir.getByRole('button', { name: /^take out/ }).click()
  await expect(byAir).toHaveCount(0)
  await sent(page)
  await page.reload()
  await expect(page.locator('[data-role=amplifier]')).toBeVisible()
  await expect(byAir).toHaveCount(0)
})
