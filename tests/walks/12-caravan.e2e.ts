/** Walk 12: a static caravan with an old aerial’s hole and cable: a small panel on a wall pole, a stick with nothing heavy on it. */
import { DESK, expect, sent, test } from './harness'

test('a static caravan, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(180_000)
  await page.setViewportSize(DESK)
  await walker.carrier('Tern', '99901')
  await walker.begin('home', 'Dune caravan', { 'Position (may follow)': '47.42, -40.60', 'Agreed down': '4' })
  await walker.choose(page.locator('[data-test=carrier]'), 'Tern')
  const built = { 'Length': '10', 'Depth': '3', 'Storeys': '1', 'Storey height': '2.2', 'Roof above eaves, 0 is flat': '0.3' }
  await walker.type(built)
  await walker.keeps(built)
  await page.locator('[data-test=site-details]').click()
  const busy = page.locator('[data-test=busy-hours] input')
  await busy.fill('18 to 22')
  await busy.blur()
  await sent(page)
  await walker.mast('Fell mast', '47.3800, -40.6300', 'Tern', 'B20 B3', '32')
  await walker.section('Survey')
  await walker.levels('Kitchen', -111, { sinr: '2' })
  await walker.levels('Ridge', -98, { sinr: '11' })
  // Tested when everybody is on it, and when nobody is.
  await walker.spot('Kitchen')
  await page.getByRole('button', { name: 'speed', exact: true }).click()
  for (const [hour, downs] of [
    ['20:10', ['1.1', '0.9', '1']],
    ['03:10', ['4.2', '3.9', '4']],
  ] as const) {
    await walker.takenAt(hour)
    for (const down of downs) await walker.speed(down, '0.4')
  }

  // The small kit: a stick with one feed, laid out at a press.
  await walker.act('Plan')
  await page.locator('[data-test=lay-stick]').click()
  await expect(page.locator('.strip')).toContainText('Plug-in modem')
  await expect(page.locator('.strip')).toContainText('Wide panel, one feed')
  await expect(page.locator('.strip')).toContainText(/[Jj]umper|lead 0\.15/)
  await sent(page)

  // What is there comes first: the old hole, the old cable as draw line with a spare line.
  await walker.layer('way-in')
  const ways = page.locator('[data-test=ways-in] li')
  await expect(ways.nth(0)).toContainText(/a port or gland that is there|an old cable as draw line/)
  await expect(ways.nth(1)).toContainText(/a port or gland that is there|an old cable as draw line/)
  await page.locator('[data-test=take-old-cable]').click()
  await sent(page)
  await expect(page.locator('[data-test=ways-in]')).toContainText('pull a spare line in with the new cable')
  await walker.layer('mounts')
  await walker.choose(page.locator('[data-test=mount-kind]'), 'side pole')
  const line = page.locator('[data-test=line-away] input')
  await line.fill('40')
  await line.blur()
  await page.locator('[data-test=layer-surge]').click()
  await page.locator('[data-test=add-electrode]').click()
  const electrode = page.locator('[data-test=electrode]')
  await walker.choose(electrode.locator('[data-test=electrode-kind]'), /rod/)
  await walker.choose(electrode.locator('[data-test=bonded]'), 'yes')
  await walker.choose(electrode.locator('.mv-choice').last(), /solid/)
  await walker.source('mains socket')
  await sent(page)
  // Everything is noted, and nothing is drilled: the plan is done.
  await expect(page.locator('header.acts [data-state=done]').filter({ hasText: 'Plan' })).toHaveCount(1)

  // The card: the stick last, its plug without weight; the old cable draws the new one, no hole is drilled for it.
  await walker.card()
  const main = page.locator('main')
  await walker.openStep('hang', /Plug in Stick/)
  await expect(main).toContainText('bears no weight')
  await page.locator('[data-test=all-steps]').click()
  await walker.openStep('way')
  await expect(page.locator('[data-gate=drill]')).toHaveCount(0)
  await expect(main).toContainText(/spare line/)

  // Quiet and busy hours stand apart.
  await page.setViewportSize(DESK)
  await walker.act('Prove')
  await walker.takenAt('20:40')
  await walker.proved(['9', '8.2', '8.6'], '2', '4 down')
  await expect(main).toContainText(/the download, busy hours.* alone/)
  const paper = await walker.handOver('Its owner')
  for (const name of ['Plug-in modem', 'Wide panel']) await expect(paper).toContainText(name)
})
