/** Walk 3: a shed with two single beams crossed on one pole: one mount, one aim, two unlike cables. */
import { DESK, expect, sent, test } from './harness'

test('a shed with a crossed pair, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(180_000)
  await page.setViewportSize(DESK)
  await walker.carrier('Tern', '99901')
  await walker.begin('home', 'Long shed', { 'Position (may follow)': '47.42, -40.60', 'Agreed down': '8' })
  await walker.choose(page.locator('[data-test=carrier]'), 'Tern')
  await walker.type({ 'Length': '10', 'Depth': '6', 'Storeys': '1', 'Storey height': '2.6', 'Roof above eaves, 0 is flat': '1' })
  await walker.mayDrill('yes')
  await walker.mast('Fell mast', '47.3800, -40.6300', 'Tern', 'B20 B3', '32')
  await walker.section('Survey')
  await walker.levels('Kitchen', -112, { sinr: '2' })
  await walker.levels('Ridge', -97, { sinr: '12' })

  // A panel, swapped for two single beams in one press, and named as what they are.
  await walker.act('Plan')
  await walker.lay('router')
  await page.locator('[data-test=figures-outside]').first().click()
  await walker.choose(page.locator('[data-test=pairing]'), 'Log-periodic beam, wide band')
  await page.keyboard.press('Escape')
  const tree = page.locator('.tree')
  for (const name of ['Roof log-periodic 1', 'Roof log-periodic 2']) await expect(tree).toContainText(name)
  await sent(page)
  const crossed = await walker.open('Plan')
  expect(crossed).not.toMatch(/Two single beams: one at/)
  expect(crossed).not.toMatch(/are no pair/)

  // One of them 1.5 m over the other, on one pole: one mount is noted, and none is missing.
  await walker.planned('Place')
  const second = page.locator('[data-test=part-outside]').nth(1)
  await second.focus()
  await page.locator('[data-test=by-figure]').click()
  const up = page.locator('[data-test=place-up] input')
  const along = page.locator('[data-test=place-along] input')
  const across = page.locator('[data-test=place-across] input')
  await page.locator('[data-test=part-outside]').first().focus()
  const [upM, alongM, acrossM] = [await up.inputValue(), await along.inputValue(), await across.inputValue()]
  await second.focus()
  for (const [field, value] of [
    [along, alongM],
    [across, acrossM],
    [up, (Number(upM) - 1.5).toFixed(2)],
  ] as const) {
    await field.fill(value)
    await field.blur()
  }
  await sent(page)
  await walker.layer('mounts')
  await expect(page.locator('[data-test=mount]')).toHaveCount(2)
  await walker.choose(page.locator('[data-test=mount-kind]').first(), 'side pole')
  await expect(page.locator('[data-test=on-pole]')).toHaveCount(1)
  await expect(page.locator('[data-test=no-mount]')).toHaveCount(0)
  await expect(page.locator('[data-test=line-away]')).toHaveCount(1)
  await page.locator('[data-test=line-away] input').fill('40')
  await page.locator('[data-test=line-away] input').blur()
  await sent(page)
  const held = await walker.open('Plan')
  expect(held).not.toMatch(/What holds .* is not noted/)
  expect(held).not.toMatch(/overhead line/)

  // Cables of 10 and 15 m: told as unlike, with what that costs.
  await walker.planned('Choose')
  const lengths = tree.locator('[data-test=tree-length] input')
  // Antenna to arrestor, arrestor to router, of each branch.
  await expect(lengths).toHaveCount(4)
  for (const [n, value] of [
    [0, '10'],
    [2, '15'],
  ] as const) {
    await lengths.nth(n).fill(value)
    await lengths.nth(n).blur()
  }
  await sent(page)
  await expect(page.locator('main')).toContainText(/Cables of the pair are unlike/)

  await walker.route('side pole')
  await walker.source('mains socket')

  // The card: one mount, one raise, the second clamped to the pole before it goes up, one aim for both.
  await walker.card()
  await expect(walker.step('mount')).toHaveCount(1)
  await expect(walker.step('raise')).toHaveCount(1)
  await expect(walker.step('aim')).toHaveCount(1)
  const clamp = walker.step('hang', /Clamp Roof log-periodic 2 to the pole of Roof log-periodic 1/)
  await expect(clamp).toHaveCount(1)
  await clamp.click()
  await expect(page.locator('main')).toContainText(/1\.5\s?m under it/)
  await expect(page.locator('main')).toContainText('one at +45°, one at −45°')
  // SINR by branch, read one by one.
  await page.goto(page.url().replace(/\/card.*/, '/aim'))
  await expect(page.locator('[data-test=tick-falls]')).toBeVisible()
  for (const tick of await page.locator('[data-test^=tick-]').all()) await tick.click()
  await page.locator('[data-test=branches-open]').click()
  await expect(page.locator('[data-test=branches]')).toBeVisible()
  await page.keyboard.press('Escape')

  await page.setViewportSize(DESK)
  await walker.act('Prove')
  await walker.proved(['14', '12.5', '15'], '4', '8 down')
  // The old network's name is kept, and both cameras are ticked as they come back.
  await walker.section('Commission')
  await page.locator('[data-test=commission-begin]').click()
  await page.locator('[data-test=network-house]').click()
  const net = page.locator('[data-test=network-editor]')
  await walker.says('Name', 'longshed', net)
  await walker.says('Network’s name', 'old name kept', net)
  for (const camera of ['camera at the gate', 'camera at the door']) {
    await page.locator('[data-test=appliance-name] input').fill(camera)
    await page.locator('[data-test=appliance-add]').click()
    await expect(page.locator('[data-test=appliance-name] input')).toHaveValue('')
  }
  await page.keyboard.press('Escape')
  const main = page.locator('main')
  await expect(main).toContainText('not seen to work yet: camera at the gate, camera at the door')
  await page.locator('[data-test=power-on]').click()
  await page.locator('[data-test=says-no-data]').click()
  await expect(main).toContainText('the access point’s name is wrong')
  await page.locator('[data-test=it-answers]').click()
  for (const i of [0, 1]) await page.locator('[data-test=back]').nth(i).check()
  await expect(main).not.toContainText('not seen to work yet')
  await walker.handAccess('Its owner')
  await expect(main).toContainText('Nothing is open here.')
  await sent(page)
  const paper = await walker.handOver('Its owner')
  await expect(paper).toContainText('camera at the gate, camera at the door')
  await expect(paper).toContainText('old name kept')
  for (const name of ['Roof log-periodic 1', 'Roof log-periodic 2']) await expect(paper).toContainText(name)
})
