/** Walk 13: a trailer of 5 m in which nothing may be drilled: a small booster, a magnet, the far corner, and down before driving. */
import { DESK, expect, sent, test } from './harness'

test('a small trailer without a hole, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(180_000)
  await page.setViewportSize(DESK)
  await walker.beginAboard('vehicle', 'Small trailer', 'travel trailer', {
    'Length': '5',
    'Width': '2.1',
    'Ground to roof': '2.5',
  })
  await walker.mayDrill('no')
  await walker.mast('Fell mast', '47.4500, -40.6300', 'Tern', 'B20 B3', '32')
  await walker.section('Survey')
  await walker.levels('Table', -116, { sinr: '0' })
  await walker.levels('Roof', -98, { sinr: '11' })

  // A booster of the smallest gain, a magnet, the far corner: five metres are what there is.
  await walker.act('Plan')
  await walker.lay('booster')
  await walker.swap('outside', 'Whip on a magnet')
  await walker.swap('amplifier', 'Cradle booster for one phone, 23 dB')
  await expect(page.locator('main')).not.toContainText(/bolt through/)
  await walker.section('Place')
  // Its middle is 2.5 m from either end.
  await walker.place('inside', { along: '2.2' })
  await expect(page.locator('main')).toContainText(/isolation/i)

  await walker.layer('mounts')
  await walker.choose(page.locator('[data-test=mount-kind]'), 'magnet')
  await expect(page.locator('[data-test=route-finding]').filter({ hasText: 'comes down before it drives' })).toHaveCount(1)
  await walker.layer('way-in')
  // No hole anywhere in the list of ways.
  for (const hole of ['take-hatch', 'take-roof']) await expect(page.locator(`[data-test=${hole}]`)).toHaveCount(0)
  await page.locator('[data-test=take-fridge-vent]').click()
  await sent(page)
  await walker.fedFrom12V()

  await walker.card()
  // Nothing drills; the vent opens only with gas off and cold, its seal made good, the alarm told.
  await expect(page.locator('[data-gate=drill]')).toHaveCount(0)
  await walker.openStep('way')
  const gas = page.locator('[data-gate=gas]')
  await expect(gas).not.toHaveClass(/open/)
  await expect(gas).toContainText('Gas off at the bottle, the burner out and cold')
  await expect(gas).toContainText('carbon monoxide alarm')
  await expect(page.locator('main')).toContainText(/seal/)
  await expect(page.locator('[data-test=step-done]')).toBeDisabled()
  for (const fact of ['flame', 'alarm']) await gas.locator(`[data-test=fact-${fact}]`).check()
  await expect(gas).toHaveClass(/open/)
  await page.locator('[data-test=all-steps]').click()
  for (const step of await page.locator('[data-test^=step-]').allTextContents()) expect(step).not.toMatch(/[Dd]rill/)
  await walker.openStep('strike')
  await expect(page.locator('main')).toContainText('Strike and stow Roof whip before driving')

  // The way by a flat lead instead: the gate of the vent is gone with it.
  await page.setViewportSize(DESK)
  await walker.layer('way-in')
  await page.locator('[data-test=take-window]').click()
  await sent(page)
  await walker.card()
  await walker.openStep('way')
  await expect(page.locator('[data-gate=gas]')).toHaveCount(0)

  await page.setViewportSize(DESK)
  await walker.act('Prove')
  await walker.proved(['8', '7.1', '7.6'], '2', '6 down')
  const paper = await walker.handOver('Its owner')
  await expect(paper).toContainText('Cradle booster')
  await expect(paper).not.toContainText(/Hole \d/)
})
