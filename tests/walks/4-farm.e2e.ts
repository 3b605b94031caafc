/** Walk 4: a farm office tried seven ways; each reading stays in the set-up that it was read in, and few tests say little. */
import { DESK, expect, sent, test } from './harness'

test('a farm office tried seven ways, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(180_000)
  await page.setViewportSize(DESK)

  // Ask: two SIMs, each with its own name.
  await walker.carrier('Tern', '99901')
  await walker.begin('home', 'Farm office', { 'Position (may follow)': '47.42, -40.60', 'Agreed down': '8' })
  await walker.choose(page.locator('[data-test=carrier]'), 'Tern')
  await walker.type({ SIM: 'Old SIM' }, page.locator('[data-test=sim]').first())
  await page.getByRole('button', { name: 'another SIM' }).click()
  await walker.type({ SIM: 'New SIM' }, page.locator('[data-test=sim]').last())
  await walker.mast('Fell mast', '47.3800, -40.6300', 'Tern', 'B3 B20', '32')

  await walker.section('Survey')
  await walker.spot('Kitchen')
  const change = async (press: string, name: string) => {
    await page.locator('[data-test=setup-change]').click()
    const sheet = page.getByRole('dialog')
    await sheet.getByRole('button', { name: press, exact: true }).first().click()
    await expect(sheet).toBeHidden()
    await page.locator('[data-test=setup-change]').click()
    await page.locator('[data-test=setup-name] input').fill(name)
    await page.locator('[data-test=setup-name] input').blur()
    await page.keyboard.press('Escape')
    await sent(page)
  }
  const tried = async (rsrp: number, sinr: string, downs: string[]) => {
    await walker.level({ rsrp: String(rsrp), sinr, band: 'B20', width: '10' })
    await page.getByRole('button', { name: 'speed', exact: true }).click()
    for (const down of downs) await walker.speed(down, '1')
    await page.getByRole('button', { name: 'level', exact: true }).click()
  }
  await tried(-112, '2', ['2.1', '1.9', '2.4'])
  for (const [press, name, rsrp, sinr, downs] of [
    ['+ router', 'Router on the shelf', -110, '4', ['3.1', '2.8', '3.4']],
    ['New SIM', 'Router, new SIM', -109, '4', ['3.2']],
    ['its lead', 'Router on its lead', -109, '4', ['3.0', '3.3', '2.9']],
    ['Wi-Fi 5', 'Router by Wi-Fi', -109, '5', ['2.9', '3.1', '3.0']],
    ['+ router', 'Loft router', -101, '9', ['7.2', '6.8', '7.9']],
    ['outside, of plan A', 'Roof antenna', -94, '14', ['14.5', '13.2', '15.1']],
  ] as const) {
    await change(press, name)
    await tried(rsrp, sinr, [...downs])
  }
  // Each reading stands in the set-up that was shown when it was typed; correcting the plan moves none of them.
  const log = page.locator('.log, main')
  for (const [name, n] of [
    ['Router on the shelf', 4],
    ['Router, new SIM', 2],
    ['Router on its lead', 4],
    ['Router by Wi-Fi', 4],
    ['Loft router', 4],
    ['Roof antenna', 4],
  ] as const)
    await expect(
      log
        .locator('tr, li, .row')
        .filter({ hasText: name })
        .filter({ has: page.getByRole('button', { name: /^Withdraw/ }) }),
      name,
    ).toHaveCount(n)

  // Prove: seven set-ups, and none of them is of the finished work; coming back, the set-up of the survey still stands.
  const chosen = page.getByLabel('Set-up', { exact: true })
  const shown = await chosen.inputValue()
  await walker.act('Prove')
  await expect(page.locator('[data-test=lines] .line:not(.heads)')).toHaveCount(7)
  await expect(page.locator('[data-test=verdict]')).toContainText('nothing measured after yet')
  await expect(page.locator('[data-test=verdict]')).not.toHaveClass(/met/)
  // One test of a SIM shows nothing.
  await expect(page.locator('.said dl')).toContainText('not enough to say')
  await walker.act('Scout')
  await walker.section('Survey')
  await expect(chosen).toHaveValue(shown)
  await page.screenshot({ path: '/tmp/w/s4c.png' })

  // The finished work is tested as such: below what was agreed it is short, above it is met.
  await walker.act('Prove')
  await walker.choose(page.locator('[data-test=after-spot]'), /^Kitchen/)
  await page.getByRole('button', { name: 'speed', exact: true }).click()
  for (const down of ['15.2', '14.1', '14.8']) await walker.speed(down, '3')
  await expect(page.locator('[data-test=verdict]')).toContainText('meets the 8 down agreed in Kitchen')
  await expect(page.locator('[data-test=lines] .line:not(.heads)')).toHaveCount(8)
  await sent(page)
  await page.reload()
  await expect(page.locator('[data-test=verdict]')).toContainText('meets the 8 down agreed in Kitchen')

  // What was read of the finished work is listed in Survey, and a mistyped one is taken back there for good.
  await walker.act('Scout')
  await walker.section('Survey')
  await walker.spot('Kitchen')
  const after = page.locator('main li').filter({ hasText: 'after ·' })
  await expect(after).toHaveCount(3)
  await after
    .filter({ hasText: '15.2' })
    .getByRole('button', { name: /^Withdraw/ })
    .click()
  await expect(after).toHaveCount(2)
  await sent(page)
  await page.reload()
  await expect(after).toHaveCount(2)

  const paper = await walker.handOver('The farmer')
  await expect(paper).toContainText(/says The farmer/)
  await expect(paper).toContainText('Before and after')
})
