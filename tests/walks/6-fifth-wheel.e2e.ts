/** Walk 6, to where commissioning begins: a fifth wheel of 12 m, two modems on one combined antenna, a satellite terminal beside it. */
import { DESK, expect, sent, test } from './harness'

test('a fifth wheel with two modems, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(240_000)
  await page.setViewportSize(DESK)
  await walker.carrier('Gannet', '99902')
  await walker.beginAboard('vehicle', 'Long trailer', 'fifth-wheel trailer', {
    'Length': '12',
    'Width': '2.5',
    'Ground to roof': '3.9',
  })
  await walker.mayDrill('yes')
  await page.locator('[data-test=add-sim]').click()
  const sims = page.locator('[data-test=sim]')
  await expect(sims).toHaveCount(2)
  await walker.type({ SIM: 'Gannet 100 GB' }, sims.nth(1))
  await walker.choose(sims.nth(1).locator('.mv-choice').first(), 'Gannet')
  await sent(page)
  await walker.mast('Fell mast', '47.4500, -40.6300', 'Tern', 'B20 B3', '32')
  await walker.mast('Dune mast', '47.4100, -40.5600', 'Gannet', 'B20 B7', '30')
  await page.locator('[data-test="mast-Fell mast"]').click()
  await page.locator('[data-test=choose-mast]').click()
  await walker.section('Survey')
  await walker.levels('Table', -111, { sinr: '3' })
  await walker.levels('Roof', -94, { sinr: '13' })

  // One antenna, one router, joined by role in one press.
  await walker.act('Plan')
  await walker.lay('router')
  await walker.swap('outside', 'Roof puck, four cellular feeds, two Wi-Fi, position')
  await walker.swap('router', 'Router with two modems, four ports')
  await page.locator('[data-test=join-by-role]').click()
  await sent(page)
  await expect(page.locator('[data-test=join-by-role]')).toHaveCount(0)
  // Which SIM lies where; each modem has its own mast, level and promise.
  await walker.choose(page.locator('[data-test=slot-1]'), /^Tern SIM/)
  await walker.choose(page.locator('[data-test=slot-3]'), /^Gannet 100 GB/)
  await sent(page)
  await page.reload()
  await expect(page.locator('[data-test=slot-3]')).toContainText('Gannet 100 GB')
  await expect(page.locator('[data-test=modem-1]')).toContainText(/on Fell mast/)
  await expect(page.locator('[data-test=modem-2]')).toContainText(/on Dune mast/)
  for (const n of [1, 2]) await expect(page.locator(`[data-test=modem-${n}]`)).toContainText(/Mbit\/s down.*RSRP/s)

  // The terminal and the sky it wants.
  await walker.planned('Place')
  await page.locator('[data-test=pins]').first().click()
  await page.locator('[data-test=add-satellite-terminal]').click()
  await expect(page.locator('[data-test="fixture-satellite terminal"]')).toHaveCount(1)
  await page.keyboard.press('Escape')
  await walker.layer('mounts')
  await walker.choose(page.locator('[data-test=mount-kind]'), 'roof bolt')
  await page.locator('[data-test=through-mm] input').fill('38')
  await page.locator('[data-test=through-mm] input').blur()
  await expect(page.locator('[data-test=height-after]')).toContainText('4.0 m')
  await walker.fedFrom12V()
  await expect(page.locator('[data-test=feed]').first()).toContainText(/mm²/)
  await sent(page)

  // Seven leads of the antenna and the one that feeds the router: pulled, labelled, by one hole.
  await walker.card()
  await expect(walker.step('pull')).toHaveCount(8)
  await expect(walker.step('way')).toHaveCount(0)
  await expect(walker.step('mount')).toHaveCount(1)
  await walker.openStep('mount')
  await expect(page.locator('main')).toContainText('clamp for 38 mm of roof')
  await page.locator('[data-test=all-steps]').click()
  await walker.openStep('sim')
  await expect(page.locator('main')).toContainText('slot 1: Tern SIM')
  await expect(page.locator('main')).toContainText('slot 3: Gannet 100 GB')

  await page.setViewportSize(DESK)
  await walker.act('Prove')
  await walker.proved(['14', '12.5', '15'], '4', '6 down')
  const paper = await walker.handOver('Its owner')
  await expect(paper).toContainText('SIMs and their slots')
  for (const name of ['Gannet 100 GB', 'Router', 'Fuse tap']) await expect(paper).toContainText(name)
})
