/** Walk 5: a work truck on 12 V: booster, whip on the bull bar, small antenna under the dash; then five more of them. */
import { DESK, expect, sent, test } from './harness'

test('a work truck and its fleet, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(240_000)
  await page.setViewportSize(DESK)
  await walker.beginAboard('vehicle', 'Truck 1', 'box truck', { 'Length': '7.2', 'Width': '2.2', 'Ground to roof': '3.3' })
  await walker.mayDrill('yes')
  await walker.mast('Fell mast', '47.4500, -40.6300', 'Tern', 'B20 B3', '32')
  await walker.section('Survey')
  await walker.levels('Cab', -114, { sinr: '1' })
  await walker.levels('Beside it', -99, { sinr: '10' })

  await walker.act('Plan')
  await walker.lay('booster')
  await walker.swap('outside', 'Whip with a spring, bull bar')
  await walker.swap('inside', 'Flat panel on a lead, vehicle')
  await expect(page.locator('[data-test=own-lead]').first()).toContainText('own lead')
  // Under the dash, before the box: its lead and the whip’s reach the booster.
  await walker.section('Place')
  for (const [part, along, up] of [
    ['outside', '3.7', '1.1'],
    ['amplifier', '2.4', '1.2'],
    ['inside', '2.9', '1.3'],
  ] as const)
    await walker.place(part, { along, up })
  // The whip’s own lead reaches: the cable behind it goes.
  await walker.planned('Choose')
  await page.locator('[data-test=findings]').click()
  const sheet = page.getByRole('dialog')
  await sheet
    .getByRole('button', { name: /its own lead alone/ })
    .first()
    .click()
  await expect(sheet).not.toContainText('The own lead of Outside whip reaches by itself')
  await page.keyboard.press('Escape')
  await sent(page)

  // Nobody hangs a sheet of steel in a cab.
  const open = await walker.open('Plan')
  expect(open).not.toMatch(/steel sheet/i)

  await walker.layer('mounts')
  await walker.choose(page.locator('[data-test=mount-kind]'), 'bull bar')
  await walker.layer('way-in')
  await page.locator('[data-test=take-grommet]').click()
  await sent(page)
  await walker.fedFrom12V()
  await expect(page.locator('[data-test=feed]').first()).toContainText(/fuse/i)
  const fuse = /(\d+(?:\.\d)?) A/.exec((await page.locator('[data-test=feed]').first().textContent())!)![1]!
  await sent(page)

  await walker.card()
  const main = page.locator('main')
  await walker.openStep('power')
  await expect(main).toContainText(`fuse ${fuse} A`)
  await page.locator('[data-test=all-steps]').click()
  // The whip’s own lead is pulled and labelled like any, and reaches.
  const pulled = walker.step('pull', /whip/i)
  await expect(pulled).toHaveCount(1)
  await pulled.click()
  await expect(main).toContainText(/needs [\d.]+\sm of 4\.5\sm/)
  await page.locator('[data-test=all-steps]').click()
  await walker.openStep('way')
  await expect(main).toContainText('grommet')

  // Serials by what the label says; then five more of the method, each with its own.
  await page.setViewportSize(DESK)
  await walker.act('Prove')
  await walker.choose(page.locator('[data-test=after-spot]'), /^Cab/)
  for (const rsrp of ['-88', '-87', '-89']) await walker.level({ rsrp, sinr: '9', band: 'B20', width: '10' })
  const paper = await walker.handOver('The yard')
  for (const name of ['Whip with a spring', 'Mobile booster', 'Fuse tap']) await expect(paper).toContainText(name)
  const job = page.url().replace(/.*\/job\/([^/]+).*/, '$1')
  await page.goto(`/job/${job}/card`)
  await page.getByRole('link', { name: 'more like it' }).click()
  await page.locator('[data-test=unit-names] textarea').first().fill('Truck 2\nTruck 3\nTruck 4\nTruck 5\nTruck 6')
  await page.locator('[data-test=make-units]').click()
  await expect(page.locator('[data-test=unit]')).toHaveCount(6)
  await page.locator('[data-test=unit]').filter({ hasText: 'Truck 4' }).click()
  await expect(page).toHaveURL(/\/card$/)
  await page.locator('[data-test=all-steps]').click()
  await expect(walker.step('pull', /whip/i)).toHaveCount(1)
})
