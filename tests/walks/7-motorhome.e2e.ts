/** Walk 7: a motorhome of 2.9 m: an antenna with its own foot and leads, one hole, its clamp, and the height at the wheel. */
import { DESK, expect, sent, test } from './harness'

test('a motorhome, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(180_000)
  await page.setViewportSize(DESK)
  await walker.beginAboard('vehicle', 'Dune motorhome', 'motorhome', { 'Length': '7.4', 'Width': '2.3', 'Ground to roof': '2.9' })
  await walker.mayDrill('yes')
  await walker.mast('Fell mast', '47.4500, -40.6300', 'Tern', 'B20 B3', '32')
  await walker.section('Survey')
  await walker.levels('Table', -112, { sinr: '2' })
  await walker.levels('Roof', -96, { sinr: '12' })

  // The crew’s own antenna: 250 mm high, foot and leads its own.
  await walker.act('Plan')
  await walker.lay('router')
  await page.locator('[data-test=kit-more]').click()
  await page.locator('[data-test=catalogue]').click()
  const parts = page.getByRole('dialog')
  await walker.choose(parts.locator('[data-test=part-like]'), /^Roof puck, two cellular feeds/)
  await parts.locator('[data-test=part-name] input').fill('Tall roof puck')
  const size = parts.getByLabel('Width, height, depth', { exact: true })
  await size.fill('130 250 130')
  await size.blur()
  await parts.locator('[data-test=keep-part]').click()
  await expect(parts).toContainText('Tall roof puck')
  await page.keyboard.press('Escape')
  await walker.swap('outside', 'Tall roof puck')
  await expect(page.locator('[data-test=own-lead]').first()).toContainText('own lead')

  // Nothing is noted: what holds it, what feeds it, whose yes it is.
  const bare = await walker.open('Plan')
  for (const lack of [/What holds .* is not noted/, /Which .*feed/]) expect(bare).toMatch(lack)
  await walker.layer('mounts')
  await walker.choose(page.locator('[data-test=mount-kind]'), 'roof bolt')
  await page.locator('[data-test=through-mm] input').fill('34')
  await page.locator('[data-test=through-mm] input').blur()
  await sent(page)
  // 2.90 m and 0.25 m, rounded up.
  await expect(page.locator('[data-test=height-after]')).toContainText('3.2 m')
  await walker.fedFrom12V()
  const noted = await walker.open('Plan')
  for (const met of [/What holds .* is not noted/, /Which .*feed/, /comes in nowhere/]) expect(noted).not.toMatch(met)
  // Its leads reach the router, or the plan says so: nothing of it is short.
  expect(noted).not.toMatch(/too short|does not reach/)

  // The card: one hole, of the foot’s own bit, behind climb and drill.
  await walker.card()
  await expect(walker.step('way')).toHaveCount(0)
  await walker.openStep('mount')
  const main = page.locator('main')
  await expect(main).toContainText('bit 25 mm; clamp for 34 mm of roof')
  await expect(main).toContainText(/pilot from the cramped side/)
  await expect(main).toContainText(/Dry fit, arrow forward/)
  for (const gate of ['climb', 'drill']) await expect(page.locator(`[data-gate=${gate}]`)).toHaveCount(1)
  await expect(page.locator('[data-test=step-done]')).toBeDisabled()
  await page.locator('[data-test=all-steps]').click()
  await walker.openStep('height')
  await expect(main).toContainText('3.2 m')
  await page.locator('[data-test=all-steps]').click()
  // Two leads and the one that feeds it.
  await expect(walker.step('pull')).toHaveCount(3)
  await page.setViewportSize(DESK)
  await walker.layer('cables')
  await page.locator('[data-test=labels]').click()
  await expect(page.locator('main, [role=dialog]').last()).toContainText('A1')
  await page.keyboard.press('Escape')

  await walker.act('Prove')
  await walker.proved(['14', '12.5', '15'], '4', '6 down')
  const paper = await walker.handOver('Its owner')
  for (const name of ['Tall roof puck', 'Vehicle router', 'Fuse tap']) await expect(paper).toContainText(name)
})
