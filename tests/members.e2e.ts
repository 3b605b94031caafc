/** Two crews and two members in one tab: nothing of the one is shown to, undone by, or sent for the other. */
import { randomBytes } from 'node:crypto'
import { onDevice } from './support/device'
import { expect, sent, test, Walker } from './walks/harness'

test('after signing out nothing of a member is left in the tab: back, undo, parts, counts, caches', async ({
  walker,
  page,
  own,
  browser,
}) => {
  // A second crew, made on another device; its lead then signs in here.
  const other = await browser.newContext({ baseURL: own.origin })
  const second = new Walker(await other.newPage())
  await second.join(await second.link(own.databaseUrl))
  await other.close()

  const secret = `Unique ${randomBytes(3).toString('hex')}`
  await walker.begin('home', `${secret} house`, { 'Position (may follow)': '47.42, -40.60' })
  await walker.type({ Customer: `${secret} customer`, Notes: `${secret} gate code` })
  await sent(page)
  const jobPath = new URL(page.url()).pathname
  // A part of this crew's own, and a price of its own.
  await walker.mast('Fell mast', '47.3800, -40.6300', 'Tern', 'B20')
  await walker.act('Plan')
  await page.locator('[data-test=lay-router]').click()
  await expect(page.locator('.strip li.part').first()).toBeVisible()
  await page.locator('[data-test=kit-more]').click()
  await page.locator('[data-test=catalogue]').click()
  const sheet = page.getByRole('dialog')
  await walker.choose(sheet.locator('[data-test=part-like]'), 'Ceiling dome')
  await sheet.locator('[data-test=part-name] input').fill(`${secret} dome`)
  await sheet.locator('form.draft button[type=submit]').click()
  await expect(sheet).toContainText(`${secret} dome`)
  await page.keyboard.press('Escape')
  await sent(page)

  await page.getByTitle('All jobs').click()
  await expect(page.locator('[data-test=job]')).toHaveCount(1)
  await Promise.all([page.waitForEvent('load'), page.locator('[data-test=sign-out]').click()])
  await page.getByLabel('Address', { exact: true }).fill(second.address)
  await page.getByLabel('Password', { exact: true }).fill(second.password)
  await page.getByLabel('Password', { exact: true }).press('Enter')
  await expect(page.locator('[data-test=new-job]')).toBeVisible()
  await expect(page.locator('[data-test=job]')).toHaveCount(0)
  await expect(page.locator('[data-test=unsent]')).toHaveCount(0)

  // Back, as often as there is anything to go back to: neither job nor customer, and nothing to be undone.
  const asked: string[] = []
  page.on('request', r => r.method() === 'POST' && /\/changes/.test(r.url()) && asked.push(r.url()))
  for (let i = 0; i < 3; i++) {
    await page.goBack().catch(() => null)
    await page.waitForLoadState()
    await page.keyboard.press('Control+z')
    await expect(page.locator('body')).not.toContainText(secret)
  }
  await page.goto(jobPath)
  await expect(page.getByText('There is no such job in your crew')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.locator('body')).not.toContainText(secret)
  expect(asked).toEqual([])
  expect(await onDevice(page)).not.toContain(secret)

  // Its own job, with no part of the other's.
  await page.goto('/')
  await second.on(page).begin('home', 'A house of theirs', { 'Position (may follow)': '47.42, -40.60' })
  await walker.mast('Fell mast', '47.3800, -40.6300', 'Tern', 'B20')
  await walker.act('Plan')
  await page.locator('[data-test=lay-router]').click()
  await expect(page.locator('.strip li.part').first()).toBeVisible()
  await page.locator('[data-test=kit-more]').click()
  await page.locator('[data-test=catalogue]').click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await expect(page.getByRole('dialog')).not.toContainText(secret)
  await page.keyboard.press('Escape')
  await page.locator('[data-test=add-part]').click()
  await expect(page.locator('.v-overlay-container').getByRole('option').first()).toBeVisible()
  await expect(page.locator('.v-overlay-container')).not.toContainText(secret)
  await page.keyboard.press('Escape')
  walker.forgive(404)
})
