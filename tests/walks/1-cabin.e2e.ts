/** Walk 1: a cabin of one storey on 12 V, a panel on the gable and a router; what is not known stays open until it is noted. */
import { readFileSync } from 'node:fs'
import { DESK, expect, ROOF, sent, test } from './harness'

test('a cabin, from an empty crew to the frozen handover', async ({ walker, page, quiet }) => {
  test.setTimeout(180_000)
  await page.setViewportSize(DESK)

  // Ask: what is typed is kept; the building is one storey, and every room lies under its roof.
  await walker.carrier('Tern', '99901')
  await walker.begin('home', 'Fell cabin', {
    'Position (may follow)': '47.42, -40.60',
    'Agreed down': '6',
    'Agreed up': '1,5',
  })
  await walker.choose(page.locator('[data-test=carrier]'), 'Tern')
  const built = { 'Length': '9', 'Depth': '6', 'Storeys': '1', 'Storey height': '2.5', 'Roof above eaves, 0 is flat': '1.5' }
  await walker.type({ ...built, Customer: 'K. Oss' })
  await walker.keeps({ ...built, Down: '6', Up: '1.5', Customer: 'K. Oss' })
  await walker.section('Survey')
  const spots = page.locator('.picture g.spot')
  await expect(spots.first()).toBeVisible()
  await page.getByText('the spot itself').click()
  for (let i = 0; i < (await spots.count()); i++) {
    await spots.nth(i).focus()
    await page.keyboard.press('Enter')
    const upM = Number(await page.getByLabel('Height over ground', { exact: true }).inputValue())
    if (await page.getByLabel('Indoors').isChecked()) expect(upM).toBeLessThan(2.5)
    else expect(upM).toBeLessThanOrEqual(4.5)
  }

  // Bearings: one mast, entered by hand.
  await walker.mast('Fell mast', '47.3800, -40.6300', 'Tern', 'B20 B3', '32')

  // Survey: the kitchen as it is, the ridge as it could be.
  await walker.section('Survey')
  await walker.spot('Kitchen')
  for (const [rsrp, sinr] of [
    ['-113', '3'],
    ['-112', '4'],
    ['-114', '3'],
  ] as const)
    await walker.level({ rsrp, sinr, band: 'B20', width: '10' })
  await page.getByRole('button', { name: 'speed', exact: true }).click()
  for (const [down, up] of [
    ['2.1', '0.3'],
    ['1.8', '0.3'],
    ['2.4', '0.2'],
  ] as const)
    await walker.speed(down, up)
  await page.getByRole('button', { name: 'level', exact: true }).click()
  await walker.spot('Ridge')
  for (const [rsrp, sinr] of [
    ['-97', '13'],
    ['-96', '14'],
    ['-98', '13'],
  ] as const)
    await walker.level({ rsrp, sinr, band: 'B20', width: '10' })

  // Plan: laid out, and nothing is noted yet: every demand stands open.
  await walker.act('Plan')
  await expect(page.locator('[data-test=advice-nothing]')).toContainText(/short/)
  await page.locator('[data-test=lay-router]').click()
  // A router that runs on the battery of the solar panel, in the place of the one for a socket.
  const router = page.locator('.strip li.part').filter({ hasText: 'router' })
  await walker.choose(router.locator('.mv-choice'), 'Vehicle router, two cellular ports')
  await expect(router).toContainText('Vehicle router')
  await sent(page)
  const bare = await walker.open('Plan')
  for (const lack of [/earth/i, /come in|way in/i, /holds|held/i, /overhead line/i, /socket|feeds/i]) expect(bare).toMatch(lack)
  await expect(page.locator('header.acts [data-state=done]').filter({ hasText: 'Plan' })).toHaveCount(0)

  // Route: each goes when it is met, and not before.
  await walker.section('Route')
  await page.locator('[data-test=layer-mounts]').click()
  await expect(page.locator('[data-test=no-mount]')).toHaveCount(1)
  await walker.choose(page.locator('[data-test=mount-kind]'), 'side pole')
  await expect(page.locator('[data-test=no-mount]')).toHaveCount(0)
  const line = page.locator('[data-test=line-away] input')
  await line.fill('40')
  await line.blur()
  await sent(page)
  const mounted = await walker.open('Plan')
  expect(mounted).not.toMatch(/overhead line/i)
  expect(mounted).toMatch(/earth/i)

  await page.locator('[data-test=layer-way-in]').click()
  await page.locator('[data-test=take-wall]').click()
  await expect(page.locator('[data-test=route-finding]').filter({ hasText: 'What is behind' })).toContainText('STOP')
  await walker.choose(page.locator('[data-test=behind]'), 'nothing in the way')
  await expect(page.locator('[data-test=route-finding]').filter({ hasText: 'What is behind' })).toHaveCount(0)

  await page.locator('[data-test=layer-surge]').click()
  await page.locator('[data-test=add-electrode]').click()
  const electrode = page.locator('[data-test=electrode]')
  // Added, and nothing said of it: that is no earth yet.
  expect(await walker.open('Plan')).toMatch(/earth/i)
  await walker.choose(electrode.locator('[data-test=electrode-kind]'), /rod/)
  await walker.choose(electrode.locator('[data-test=bonded]'), 'yes')
  await walker.choose(electrode.locator('.mv-choice').last(), /solid/)
  await sent(page)
  await expect(page.locator('[data-test=surge-row]').first()).toBeVisible()

  // What feeds it: by the wire that leaves it enough, behind its fuse.
  await walker.source('12 V feed')
  await walker.section('Route')
  await page.locator('[data-test=layer-feeds]').click()
  await expect(page.locator('[data-test=feed]')).toHaveCount(1)
  await expect(page.locator('[data-test=feed] tbody tr').first()).toContainText(/V/)
  await expect(page.locator('[data-test=feed]')).toContainText(/fuse/i)
  expect(await walker.open('Plan')).not.toMatch(/feeds? Vehicle router/)

  // The card: nothing is drilled, climbed or powered before its facts.
  await page.setViewportSize(ROOF)
  await page
    .getByRole('link', { name: 'Job card' })
    .or(page.locator('header.acts').getByRole('button', { name: /Fit/ }))
    .last()
    .click()
  await expect(page.locator('[data-test=step-words]')).toBeVisible()
  await page.locator('[data-test=all-steps]').click()
  await page.locator('[data-test=step-way]').first().click()
  await expect(page.locator('[data-gate=drill]')).not.toHaveClass(/open/)
  await expect(page.locator('[data-test=step-done]')).toBeDisabled()

  // Aim, on the roof and with no network: few readings, locked.
  await page.goto(page.url().replace(/\/card.*/, '/aim'))
  await expect(page.locator('[data-test=tick-falls]')).toBeVisible()
  await sent(page)
  await page.context().setOffline(true)
  for (const tick of await page.locator('[data-test^=tick-]').all()) await tick.click()
  await page.locator('[data-test=how]').click()
  await page.locator('[data-test=sweep-45]').click()
  for (let i = 0; i < 8; i++) {
    const now = Number((await page.locator('.tell b').textContent())!.replace('°', ''))
    const off = Math.abs(((now - 207 + 540) % 360) - 180)
    await page.locator('[data-test=aim-value]').fill((18 - 12 * Math.min(1, (off / 100) ** 2)).toFixed(1))
    await page.locator('[data-test=keep-step]').click()
    await expect(page.locator('[data-test=aim-value]')).toHaveValue('')
  }
  await page.locator('[data-test=lock]').click()
  await expect(page.locator('[data-test=lock]')).toContainText('locked at')
  await expect(page.locator('[data-test=link]')).toContainText('not sent yet')
  await page.context().setOffline(false)
  await sent(page)
  quiet.splice(0)
  await page.setViewportSize(DESK)

  // Prove: not met before it was tested, nor before upload was.
  await walker.act('Prove')
  await expect(page.locator('[data-test=verdict]')).toContainText('nothing measured after yet')
  await page.getByRole('button', { name: 'speed', exact: true }).click()
  for (const [down, up] of [
    ['14.2', '4.1'],
    ['13.1', '3.8'],
    ['15', '4.4'],
  ] as const)
    await walker.speed(down, up)
  await expect(page.locator('[data-test=verdict]')).toContainText('meets the 6 down and 1.5 up agreed')
  await expect(page.locator('.picture')).toContainText(/times/)

  // Keep: what is open is named, somebody takes it over, and it is frozen.
  await walker.act('Keep')
  const paper = page.locator('.paper')
  await expect(paper).toContainText('K. Oss')
  await expect(paper).toContainText('Steps not done')
  await page.locator('[data-test=hand-over]').click()
  await expect(page.locator('[data-test=take-open]')).toBeDisabled()
  await page.locator('[data-test=taken-by] input').fill('K. Oss')
  await page.locator('[data-test=take-open]').click()
  await expect(page.locator('[data-test=frozen]')).toHaveCount(1)
  await expect(paper).toContainText(/\d+ steps are open, says K\. Oss/)
  const download = page.waitForEvent('download')
  await page.locator('[data-test=pdf]').click()
  const pdf = readFileSync(await (await download).path())
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')

  // The customer can be forgotten: the name is on no paper any more, the one that took it over included.
  await page.locator('[data-test=forget]').click()
  await page.locator('[data-test=forget-yes]').click()
  await expect(paper).not.toContainText('K. Oss')
  await page.reload()
  await expect(paper).toContainText('Steps not done')
  await expect(paper).not.toContainText('K. Oss')
})
