/** A building by zones: divided at a press, laid out at another, each zone with its floors, its area and its use. */
import { choose } from './support/choose'
import { CLINIC, database, expect, openJob, SAILS, sent, test } from './support/fixtures'

test('a building is laid out by zones in four presses: an amplifier each, and undo brings back what was there', async ({
  demoPage: page,
  app,
}) => {
  await openJob(page, SAILS, 'choose')
  const sql = database(app)
  const parts = async (like: string) =>
    Number(
      (
        await sql`select count(*) from nodes n join jobs j on j.id = n.job_id and j.crew_id = n.crew_id and j.design_id = n.design_id
        where n.job_id = ${SAILS} and n.part_id like ${like}`
      )[0]!.count,
    )
  const before = await parts('%')
  await page.locator('[data-test=zones]').click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('No zone yet')
  await choose(dialog.locator('[data-test=divide]'), 'two zones along its length')
  await expect(dialog.locator('[data-test=zone-2]')).toContainText(/m² a floor, \d+ antennas in all/)
  await dialog.locator('[data-test=lay-zones]').click()
  await expect(dialog).toHaveCount(0)
  await sent(page)
  expect([await parts('amp-%'), await parts('ant-lpda')]).toEqual([2, 2])
  await page.locator('[data-test=undo]').click()
  await sent(page)
  await expect.poll(() => parts('%')).toBe(before)
  await sql.end()
})

test('a zone keeps what is said of it; one beyond the walls says so and is not laid out', async ({ demoPage: page }) => {
  await openJob(page, CLINIC, 'choose')
  await page.locator('[data-test=zones]').click()
  const zone = page.getByRole('dialog').locator('[data-test=zone-1]')
  const fill = async (key: string, value: string) => {
    const field = zone.locator(`[data-test=zone-${key}] input`)
    await field.fill(value)
    await field.blur()
  }
  const name = zone.getByLabel('Zone 1', { exact: true })
  await name.fill('Outpatients west')
  await name.blur()
  await choose(zone.locator('.v-select').nth(0), 'Wards')
  await choose(zone.locator('.v-select').nth(1), 'Wards')
  await choose(zone.locator('[data-test=zone-use]'), /^stores/)
  await fill('alongFromM', '-40')
  await fill('alongToM', '-20')
  await fill('acrossFromM', '-24')
  await fill('acrossToM', '20')
  await expect(zone).toContainText('880 m² a floor, 7 antennas in all')
  // 5 dB more over stores: an antenna serves 140 × 10^(−10/22) = 49 m².
  await fill('needDbm', '-90')
  await fill('people', '60')
  await expect(zone).toContainText('880 m² a floor, 18 antennas in all')
  await page.keyboard.press('Escape')
  await sent(page)
  await page.reload()
  await page.locator('[data-test=zones]').click()
  await expect(name).toHaveValue('Outpatients west')
  await expect(zone).toContainText('880 m² a floor, 18 antennas in all')
  await expect(zone.locator('[data-test=zone-people] input')).toHaveValue('60')
  await expect(zone.locator('[data-test=zone-use]')).toContainText('stores')
  await fill('alongFromM', '100')
  await fill('alongToM', '120')
  await expect(zone).toContainText('lies outside the walls')
  await expect(page.locator('[data-test=lay-zones]')).toBeDisabled()
})

test('a floor says what it is used as, and its rooms are designed for that', async ({ demoPage: page }) => {
  await openJob(page, SAILS, 'ask')
  await page.getByRole('button', { name: 'floors, inside walls, sheets' }).click()
  await choose(page.locator('[data-test=floor-use]').first(), 'open hall')
  await sent(page)
  await page.reload()
  await page.getByRole('button', { name: 'floors, inside walls, sheets' }).click()
  await expect(page.locator('[data-test=floor-use]').first()).toContainText('open hall')
})
