/** Walk 10: a shop that is strong on its roof and dead inside: one amplifier, five inside antennas; met only where every room was tested. */
import { DESK, expect, sent, test } from './harness'

test('a shop, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(180_000)
  await page.setViewportSize(DESK)
  await walker.carrier('Tern', '99901')
  await walker.begin('building', 'Quay shop', { 'Position (may follow)': '47.42, -40.60', 'Agreed down': '5' })
  await walker.choose(page.locator('[data-test=carrier]'), 'Tern')
  const built = { 'Length': '31', 'Depth': '15', 'Storeys': '1', 'Storey height': '3.6', 'Roof above eaves, 0 is flat': '0' }
  await walker.type(built)
  await walker.keeps(built)
  await walker.choose(page.locator('.v-select', { hasText: 'Outside walls' }), 'concrete, 5 dB')
  await walker.choose(page.locator('.v-select', { hasText: 'Rules of' }), /Europe/)
  await walker.mast('Quay mast', '47.4150, -40.6100', 'Tern', 'B3 B7', '25')
  await walker.section('Survey')
  await page.screenshot({ path: '/tmp/w/s10.png' })
  console.log(
    await page.locator('.picture [role=button], .picture g.spot').evaluateAll(e => e.map(x => x.getAttribute('aria-label'))),
  )
  await page
    .getByRole('button', { name: /Roof|Ridge/ })
    .first()
    .click()
  for (const off of [0, 1, -1]) await walker.level({ rsrp: String(-70 + off), sinr: '20', band: 'B3', width: '20' })
  await walker.act('Plan')
  await page.waitForTimeout(1000)
  console.log(
    await page.locator('[data-test^=advice-]').evaluateAll(e => e.map(x => x.getAttribute('data-test') + ' ' + x.textContent)),
  )
  await page.screenshot({ path: '/tmp/w/p10.png' })
  await page.locator('[data-test^=lay-booster]').first().click()
  await expect(page.locator('.strip li.part, .tree').first()).toBeVisible()
  await sent(page)
  await page.screenshot({ path: '/tmp/w/p10b.png' })
  console.log(await walker.open('Plan'))
  await walker.section('Place')
  await page.waitForTimeout(1000)
  await page.screenshot({ path: '/tmp/w/place10.png' })
})
