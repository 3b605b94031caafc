/** Walk 2: a house, foil in its loft, a booster by American rules: every hole its own yes, nothing green that was not checked. */
import { ASKED_OF_THE_OWNER, DESK, expect, NOTED_ON_THE_PLAN, ROOF, sent, test } from './harness'

test('a house and a booster, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(180_000)
  await page.setViewportSize(DESK)

  // Ask: calls that drop, the rules of the United States, foil over the ceiling.
  await walker.carrier('Tern', '99901')
  await walker.begin('home', 'Orchard house', { 'Position (may follow)': '47.42, -40.60', 'Agreed down': '10' })
  await walker.choose(page.locator('[data-test=carrier]'), 'Tern')
  await page.locator('[data-test=site-details]').click()
  await walker.choose(page.locator('.mv-choice', { hasText: 'Rules of' }), /United States/)
  await page.getByLabel('Calls must work').click()
  await page.locator('[data-test=inside]').click()
  await page.locator('[data-test=add-sheet]').click()
  const sheet = page.locator('.building .rows .item').filter({ hasText: 'Measured' }).last()
  await walker.type({ 'Sheet': 'Loft foil', 'Up': '5.5', 'Wide': '10', 'High': '6', 'Tilt, 90 lies flat': '90' }, sheet)
  await walker.mast('Weir mast', '47.3800, -40.6300', 'Tern', 'B2 B12', '32')
  await walker.section('Survey')
  for (const [spot, rsrp, sinr] of [
    ['Kitchen', -116, '1'],
    ['Bedroom', -114, '2'],
    ['Ridge', -88, '14'],
  ] as const) {
    await walker.spot(spot)
    for (const off of [0, 1, -1]) await walker.level({ rsrp: String(rsrp + off), sinr, band: 'B12', width: '10' })
  }

  // Plan: the American kit, on bands it may repeat; nothing noted yet, so every demand is open.
  await walker.act('Plan')
  await expect(page.locator('[data-test=advice-booster]')).toContainText(/1 hole out, 1 in ceilings/)
  await page.locator('[data-test=lay-booster]').click()
  await expect(page.locator('.strip')).toContainText(/North American/)
  await expect(page.locator('[data-test=finding], .finding').filter({ hasText: 'United States' }).first()).toContainText(
    'registered',
  )
  await sent(page)
  const bare = await walker.open('Plan')
  for (const lack of [...NOTED_ON_THE_PLAN, ASKED_OF_THE_OWNER]) expect(bare).toMatch(lack)

  // Place: donor and dome keep 6 m up or 15 m along, or a finding says what they keep.
  await walker.section('Place')
  await expect(page.locator('svg').filter({ hasText: 'Hall' }).filter({ hasText: 'along' }).first()).toBeVisible()
  const pair = (await page.locator('svg').filter({ hasText: ' along' }).first().textContent())!.replaceAll('\u2009', ' ')
  const [along, up] = [/([\d.]+) m along/, /([\d.]+) m up/].map(r => Number(r.exec(pair)![1]))
  expect(up! >= 6 || along! >= 15, pair).toBe(true)
  await walker.source('mains socket')
  expect(await walker.open('Plan')).not.toMatch(/Which socket/)

  await walker.route('side pole')
  const left = await walker.open('Plan')
  for (const met of NOTED_ON_THE_PLAN) expect(left).not.toMatch(met)
  // Consent stays open: nobody was asked yet.
  expect(left).toMatch(ASKED_OF_THE_OWNER)

  // The card, on the roof: the dry run stands before the hole, and every hole wants its own yes.
  await page.setViewportSize(ROOF)
  await page.goto(page.url().replace(/\/route.*/, '/card'))
  const words = page.locator('[data-test=step-words]')
  await expect(words).toContainText('Fetch')
  while (!/Dry run/.test((await words.textContent())!)) await walker.done()
  await expect(page.locator('[data-gate=transmit]')).toBeVisible()
  await expect(page.locator('[data-test=step-done]')).toBeDisabled()
  await page.locator('[data-test=all-steps]').click()
  await page.locator('[data-test=step-way]').click()
  const drill = page.locator('[data-gate=drill]')
  await expect(drill.locator('[data-test=fact-tried]')).toBeDisabled()
  await page.locator('[data-test=all-steps]').click()
  await page.locator('[data-test=step-dry-run]').click()
  const sum = Number(
    (await page.locator('[data-test=dry-reads] .sum').first().textContent())!.replace('−', '-').match(/-\d+/)![0],
  )
  await walker.done(String(sum))
  await expect(words).toContainText('Hole')
  for (const fact of ['asbestos', 'eyes', 'owner']) await drill.locator(`[data-test=fact-${fact}]`).check()
  await expect(drill).toHaveClass(/open/)
  await walker.done()
  // The ceiling's hole is another: the yes to the wall does not open it.
  await page.locator('[data-test=all-steps]').click()
  await page.locator('[data-test=step-hang]').filter({ hasText: 'dome' }).click()
  await expect(drill).not.toHaveClass(/open/)
  await expect(drill.locator('[data-test=fact-owner]')).not.toBeChecked()
  await expect(drill.locator('[data-test=fact-behind]')).not.toBeChecked()
  await sent(page)

  // Prove: levels after stand beside the sum, and calls that were agreed must be made.
  await page.setViewportSize(DESK)
  await walker.act('Prove')
  await expect(page.locator('[data-test=verdict]')).toContainText('nothing measured after yet')
  for (const [spot, rsrp] of [
    ['Kitchen', -75],
    ['Bedroom', -79],
  ] as const) {
    await walker.choose(page.locator('[data-test=after-spot]'), new RegExp(`^${spot}`))
    for (const off of [0, 1, -1]) await walker.level({ rsrp: String(rsrp + off), sinr: '13', band: 'B12', width: '10' })
  }
  await expect(page.locator('[data-test=verdict]')).toContainText('levels read after')
  await walker.choose(page.locator('[data-test=after-spot]'), /^Kitchen/)
  await page.getByRole('button', { name: 'speed', exact: true }).click()
  for (const down of ['14', '13.1', '15.2']) await walker.speed(down, '3')
  await expect(page.locator('[data-test=verdict]')).toContainText('calls not tested')
  await page.locator('[data-test=kind-call]').click()
  for (let n = 1; n <= 3; n++) {
    await page.locator('[data-test=call-held]').click()
    await sent(page)
  }
  await expect(page.locator('[data-test=verdict]')).toContainText('meets the 10 down and calls agreed in Kitchen')

  // Keep: what is open is named, with who takes it over; one bearing has one width.
  const paper = await walker.handOver('The owner')
  await expect(paper).toContainText(/1 finding and \d+ steps are open, says The owner/)
  for (const words of ['Steps not done', 'Hang Dome, Hall', 'Ask before anything is drilled'])
    await expect(paper).toContainText(words)
  const widths = new Set([...(await paper.textContent())!.matchAll(/220° magnetic ± ([\d.]+)°/g)].map(m => m[1]))
  expect([...widths]).toEqual(['3'])
})
