/** Walk 8: a yawl of two masts: cellular at the spreaders, four services, one duct, and a splitter by which two stand in for each other. */
import { DESK, expect, sent, test } from './harness'

/** A day from today on, as a field of a date takes it. */
const day = (ahead: number): string => new Date(Date.now() + ahead * 86_400_000).toISOString().slice(0, 10)

test('a yawl, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(240_000)
  await page.setViewportSize(DESK)
  await walker.beginAboard('boat', 'Yawl', 'sailing boat', {
    'Length': '13',
    'Width': '3.9',
    'Mast above the coachroof': '14',
    'A mizzen, above the coachroof': '8',
  })
  await walker.type({ 'Next visit': day(3) })
  await walker.mast('Fell mast', '47.4500, -40.6300', 'Tern', 'B20 B3', '32')
  await walker.section('Survey')
  await walker.levels('Saloon', -112, { sinr: '2' })
  await walker.levels('Spreaders', -95, { sinr: '12' })

  // Choose: the usual kit at the spreaders, and what shares the masts with it.
  await walker.act('Plan')
  await walker.lay('router')
  const services = page.locator('[data-test=services]')
  for (const service of [/^VHF radio/, /^AIS/, /^long-range Wi-Fi/])
    await walker.choose(page.locator('[data-test=add-service]'), service)
  await expect(services.locator('li')).toHaveCount(3)
  await expect(page.locator('[data-test=service-VHF]')).toContainText(/sees .* to the horizon/)
  // AIS and VHF stand in for each other.
  await page.locator('[data-test=stand-in]').click()
  await expect(page.locator('[data-test=splitter]')).toContainText('either')
  await sent(page)
  await page.reload()
  await expect(page.locator('[data-test=splitter]')).toBeVisible()
  const bare = await walker.open('Plan')
  for (const part of ['Mast omni', 'VHF antenna', 'AIS antenna', 'Wi-Fi antenna'])
    expect(bare).toMatch(new RegExp(`What holds ${part} is not noted`))
  expect(bare).not.toMatch(/stand in each other’s way/)

  // Route: what holds each; the duct to the spreaders; no gland under the mast’s foot.
  await walker.layer('mounts')
  const mounts = page.locator('[data-test=mount-kind]')
  await expect(mounts).toHaveCount(4)
  for (const [part, kind] of [
    ['Mast omni', 'spreader'],
    ['VHF antenna', 'masthead'],
    ['AIS antenna', 'masthead'],
    ['Wi-Fi antenna', 'spreader'],
  ] as const)
    await walker.choose(page.locator('[data-test=mount]').filter({ hasText: part }).locator('[data-test=mount-kind]'), kind)
  await expect(page.locator('[data-test=no-mount]')).toHaveCount(0)
  await walker.layer('way-in')
  await page.locator('[data-test=take-deck]').click()
  await walker.choose(page.locator('[data-test=behind]'), 'a core between two skins')
  await page.locator('[data-test=add-duct]').click()
  await page.locator('[data-test=duct-mm] input').fill('40')
  await page.locator('[data-test=duct-mm] input').blur()
  await sent(page)
  await walker.fedFrom12V()

  // The card: three settings of the splitter, halyards and lamps, a core that is filled, a case that is never on the hull.
  await walker.card()
  await expect(walker.step('stand-in')).toHaveCount(3)
  for (const setting of ['each radio on its own antenna', 'both radios on VHF antenna', 'both radios on AIS antenna'])
    await expect(walker.step('stand-in', setting)).toHaveCount(1)
  await expect(walker.step('clear-of').first()).toContainText('Hoist every halyard past')
  await expect(walker.step('fill')).toHaveCount(1)
  const main = page.locator('main')
  await walker.openStep('power', /Router/)
  await expect(main).toContainText('never to the hull')
  await page.locator('[data-test=all-steps]').click()
  await walker.openStep('mount')
  await expect(main).toContainText(/Riveted plate/)

  // The list has rivets, pads and the sleeve; a late part reorders the work.
  await page.setViewportSize(DESK)
  await walker.section('List')
  for (const thing of ['Rivets, monel', 'Pad that parts two metals', 'Sleeve where a lead goes into a spar'])
    await expect(main).toContainText(thing)
  const ordered = page.locator('[data-test^="line-cable"]').first()
  await ordered.locator('[data-test=state]').selectOption('ordered')
  await ordered.locator('input[type=date]').fill(day(12))
  await ordered.locator('input[type=date]').blur()
  await sent(page)
  await expect(page.locator('[data-test=late-lines]')).toContainText('after the visit')
  await walker.card()
  await expect(walker.step('pull').filter({ hasText: 'due' }).first()).toBeVisible()

  await page.setViewportSize(DESK)
  await walker.act('Prove')
  await walker.proved(['12', '10.5', '11'], '3', '6 down')
  const paper = await walker.handOver('Her owner')
  for (const name of ['VHF', 'AIS', 'Wi-Fi', 'splitter']) await expect(paper).toContainText(name)
})
