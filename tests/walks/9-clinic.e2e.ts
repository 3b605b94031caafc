/** Walk 9: a clinic of 84 × 50 m behind coated glass: three zones laid out in a few presses, padded, domes numbered, met where proved. */
import { ASKED_OF_THE_OWNER, DESK, expect, NOTED_ON_THE_PLAN, ROOF, sent, test } from './harness'

test('a clinic, from an empty crew to the frozen handover', async ({ walker, page }) => {
  test.setTimeout(240_000)
  await page.setViewportSize(DESK)

  // Ask: its measures are kept; its floors are wards.
  await walker.carrier('Tern', '99901')
  await walker.begin('building', 'Dune clinic', { 'Position (may follow)': '47.42, -40.60', 'Agreed down': '5' })
  await walker.choose(page.locator('[data-test=carrier]'), 'Tern')
  const built = { 'Length': '84', 'Depth': '50', 'Storeys': '2', 'Storey height': '3.6', 'Roof above eaves, 0 is flat': '0' }
  await walker.type(built)
  await walker.keeps(built)
  await page.locator('[data-test=inside]').click()
  for (const n of [0, 1]) await walker.choose(page.locator('[data-test=floor-use]').nth(n), 'wards and treatment rooms')
  await walker.mast('Quay mast', '47.4150, -40.6100', 'Tern', 'B3 B7', '25')

  // Survey: two rooms must be proved; the donor comes in strong.
  await walker.section('Survey')
  await page.getByText('the spot itself').click()
  for (const room of ['Reception', 'Open office']) {
    await walker.spot(room)
    await page.getByLabel('Must be proved here').check()
    await page.getByLabel('People there').fill('30')
    await page.getByLabel('People there').blur()
    await walker.level({ rsrp: '-120', sinr: '-3', band: 'B3', width: '20' })
  }
  await walker.spot('Roof')
  for (const off of [0, 1, -1]) await walker.level({ rsrp: String(-68 + off), sinr: '21', band: 'B3', width: '20' })

  // Plan: by zones, in four presses.
  await walker.act('Plan')
  await page.locator('[data-test=zones]').click()
  const dialog = page.getByRole('dialog')
  await walker.choose(dialog.locator('[data-test=divide]'), 'three zones along its length')
  // 28 × 50 m of wards on two floors, one antenna for 110 m².
  for (const n of [1, 2, 3])
    await expect(dialog.locator(`[data-test=zone-${n}]`)).toContainText('1400 m² a floor, 26 antennas in all')
  await dialog.locator('[data-test=lay-zones]').click()
  await expect(dialog).toHaveCount(0)
  const tree = page.locator('.tree')
  for (const part of ['Amplifier 1', 'Amplifier 2', 'Amplifier 3', 'Roof log-periodic 3', 'Dome 1,', 'Dome 78,'])
    await expect(tree).toContainText(part)
  // What comes in too strong is padded before each of them.
  await expect(tree).toContainText(/Pad \d+ dB/)
  await sent(page)
  const bare = await walker.open('Plan')
  expect(bare).not.toMatch(/Overload/)
  for (const lack of [...NOTED_ON_THE_PLAN, ASKED_OF_THE_OWNER]) expect(bare).toMatch(lack)

  // Level: every zone has its loop; Place: its floor shows the antennas by number.
  await walker.section('Level')
  await expect(page.locator('main')).toContainText('the loop')
  await walker.section('Place')
  await expect(page.getByRole('button', { name: /^Amplifier 3/ }).first()).toBeVisible()

  // Each demand goes when it is met: three mounts, three distances, one way in, one earth.
  await walker.source('mains socket')
  await walker.section('Route')
  await page.locator('[data-test=layer-mounts]').click()
  const mounts = page.locator('[data-test=mount-kind]')
  await expect(mounts).toHaveCount(3)
  for (const n of [0, 1, 2]) {
    await walker.choose(mounts.nth(n), 'side pole')
    const line = page.locator('[data-test=line-away] input').nth(n)
    await line.fill('60')
    await line.blur()
  }
  await walker.route('side pole')
  const left = await walker.open('Plan')
  for (const met of NOTED_ON_THE_PLAN) expect(left).not.toMatch(met)

  // The card: the hole of each dome has a gate of its own.
  await page.setViewportSize(ROOF)
  await page.goto(page.url().replace(/\/route.*/, '/card'))
  await expect(page.locator('[data-test=step-words]')).toBeVisible()
  await page.locator('[data-test=all-steps]').click()
  const domes = page.locator('[data-test=step-hang]').filter({ hasText: /Hang Dome/ })
  await expect(domes).toHaveCount(78)
  for (const n of [0, 40]) {
    await domes.nth(n).click()
    await expect(page.locator('[data-gate=drill]')).not.toHaveClass(/open/)
    await expect(page.locator('[data-gate=drill] [data-test=fact-owner]')).not.toBeChecked()
    if (n === 0) for (const fact of ['behind', 'owner']) await page.locator(`[data-gate=drill] [data-test=fact-${fact}]`).check()
    await page.locator('[data-test=all-steps]').click()
  }
  await sent(page)

  // Prove: one of the rooms that must be proved is not both.
  await page.setViewportSize(DESK)
  await walker.act('Prove')
  const verdict = page.locator('[data-test=verdict]')
  const test3 = async (room: string) => {
    await walker.choose(page.locator('[data-test=after-spot]'), new RegExp(`^${room}`))
    await page.getByRole('button', { name: 'speed', exact: true }).click()
    for (const down of ['24', '21.5', '26']) await walker.speed(down, '7')
  }
  await test3('Reception')
  await expect(verdict).toContainText('Open office not tested yet')
  await expect(verdict).not.toHaveClass(/met/)
  await test3('Open office')
  await expect(verdict).toContainText('meets the 5 down agreed')

  const paper = await walker.handOver('The clinic')
  for (const name of ['Amplifier 3', 'Dome 78', 'Roof log-periodic 2']) await expect(paper).toContainText(name)
})
