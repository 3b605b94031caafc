/** Walk 4: a farm office tried seven ways; each reading stays in the set-up that it was read in. */
import { DESK, expect, sent, test } from './harness'

test('a farm office tried seven ways, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(180_000)
  await page.setViewportSize(DESK)
  await walker.carrier('Tern', '99901')
  await walker.begin('home', 'Farm office', { 'Position (may follow)': '47.42, -40.60', 'Agreed down': '8' })
  await walker.choose(page.locator('[data-test=carrier]'), 'Tern')
  await walker.mast('Fell mast', '47.3800, -40.6300', 'Tern', 'B3 B20', '32')
  await walker.section('Survey')
  await page.screenshot({ path: '/tmp/w/s4.png' })
  await page.locator('[data-test=setup-change]').click()
  await page.waitForTimeout(500)
  await page.screenshot({ path: '/tmp/w/s4b.png' })
  console.log(await page.getByRole('dialog').textContent())
})
