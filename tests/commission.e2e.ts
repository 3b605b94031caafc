/** Commission and hand over, as they are pressed: read back from the server, and again after a reload. */
import type { Locator, Page } from '@playwright/test'
import AxeBuilder from '@axe-core/playwright'
import ICAL from 'ical.js'
import type { JobDocument } from '../core/job/schema'
import type { JobSnapshot } from '../shared/api'
import { choose } from './support/choose'
import { copyOf } from './support/copy'
import { CROFT, expect, KILN, openJob, sent, test, TRAILER } from './support/fixtures'

async function stored(page: Page, jobId: string): Promise<JobDocument> {
  await sent(page)
  const answer = await page.request.get(`/api/jobs/${jobId}`)
  return ((await answer.json()) as JobSnapshot).document
}
/** A phrase typed where it stands. */
async function say(within: Locator, label: string, value: string) {
  const field = within.getByLabel(label, { exact: true })
  await field.fill(value)
  await field.blur()
}
const pick = (within: Locator, label: string, word: string | RegExp | number) =>
  choose(within.locator('.mv-choice', { has: within.page().getByLabel(label, { exact: true }) }), word)

const SHED = '0192f000-0120-7000-8000-000000000001'

test('what the plan tells is laid out in one press, and what nobody told stays open', async ({ demoPage: page }) => {
  const job = await copyOf(page.request, SHED)
  await openJob(page, job, 'commission')
  await page.locator('[data-test=commission-begin]').click()
  await expect(page.locator('[data-test=lane-1]')).toContainText('not in yet')
  await expect(page.locator('[data-test=network-house]')).toContainText('password not told')
  const doc = await stored(page, job)
  expect(doc.connections).toHaveLength(1)
  expect(doc.connections[0]!.simId).toBe(doc.sims[0]!.id)
  expect(doc.networks.map(n => n.kind).sort()).toEqual(['house', 'management'])
  // Cured where it stands: both doors looked at.
  await expect(page.getByText('were not looked at').first()).toBeVisible()
  await page.getByRole('button', { name: /looked at: both off/ }).click()
  await expect(page.getByText('were not looked at')).toHaveCount(0)
  expect((await stored(page, job)).labels).toMatchObject([{ wps: 'off', adminFromOutside: 'off' }])
  // Undo takes it all back.
  await page.locator('[data-test=undo]').click()
  await page.locator('[data-test=undo]').click()
  await expect(page.locator('[data-test=commission-begin]')).toBeVisible()
  expect((await stored(page, job)).connections).toHaveLength(0)
})

test('a house is commissioned: what is said of connections, cards, boxes and networks is kept', async ({ demoPage: page }) => {
  test.setTimeout(180_000)
  const job = await copyOf(page.request, KILN)
  await openJob(page, job, 'commission')
  await page.locator('[data-test=lane-1]').click()
  const editor = page.locator('[data-test=connection-editor]')
  await say(editor, 'Name', 'Tern by the roof')
  await pick(editor, 'Carries', 'no tunnels')
  await say(editor, 'Down', '8,5')
  await say(editor, 'Up', '2')
  await say(editor, 'Each device', '3')
  await say(editor, 'Kept for calls', '1')
  await say(editor, 'Check every', '5')
  await say(editor, 'Places', '2')
  await say(editor, 'Lost answers', '4')
  // 168 bytes each 5 s at two places are twice 87 MB a month.
  await expect(editor.locator('[data-test=check-follows]')).toContainText('174 MB a month')
  await pick(editor, 'Address', 'an address shared by the carrier')
  await pick(editor, 'Mast', 0)
  await pick(editor, 'Socket', 0)
  await pick(editor, 'Way in', 0)
  await pick(editor, 'Card', 'micro')
  await say(editor, 'Number on the card', '8999 0123 4567 8901 23')
  await expect(editor.getByRole('alert')).toContainText('19 or 20 digits, got 18')
  await say(editor, 'Number on the card', '8999 9012 3456 7890 124')
  await say(editor, 'Allowance', '40')
  await say(editor, 'First day', '12')
  await pick(editor, 'Used up', 'it slows down')
  await say(editor, 'Slow', '2')
  await pick(editor, 'State', 'not in yet')
  // A cable line comes first, and the SIM stands in for it.
  await page.locator('[data-test=add-connection]').click()
  await page.locator('[data-test=add-cable-line]').click()
  await page.locator('[data-test=lane-2]').click()
  await page.locator('[data-test=lane-up]').click()
  await expect(page.locator('[data-test=lane-1]')).toContainText('Cable line')
  await say(editor, 'Allowance', '500')
  await pick(editor, 'State', 'up')
  await pick(editor, 'Use', 'in its order')
  // Power on by the clock, which a reload does not stop; nothing is said of why within the two usual minutes.
  await page.keyboard.press('Escape')
  await page.locator('[data-test=power-on]').click()
  await expect(page.locator('[data-test=first-connection]').getByRole('timer')).toContainText(/0:0\d/)
  await sent(page)
  await page.reload()
  await expect(page.locator('[data-test=first-connection]').getByRole('timer')).toContainText(/0:\d\d/)
  await page.locator('[data-test=says-denied]').click()
  await expect(page.locator('[data-test=next-test]')).toContainText('phone with this SIM')
  await page.locator('[data-test=test-yes]').click()
  await expect(page.locator('.causes li').first()).toContainText('the network refuses this box')
  await page.locator('[data-test=it-answers]').click()
  await expect(page.locator('[data-test=all-up]')).toBeVisible()
  // Boxes and networks.
  const box = page.locator('[data-test=box-facts]').first()
  await say(box, 'Firmware needed', '2.4')
  await say(box, 'Firmware found', '2.1')
  await expect(page.getByText('firmware 2.4 is needed, 2.1 found').first()).toBeVisible()
  await pick(box, 'WPS', 'off')
  await pick(box, 'Administered from outside', 'off')
  await page.locator('[data-test=add-network-guests]').click()
  await page.locator('[data-test=network-guests]').click()
  const net = page.locator('[data-test=network-editor]')
  await pick(net, 'Tried', 'nothing of the house')
  await pick(net, 'Radio', '2.4 GHz')
  await say(net, 'Each device', '10')
  await page.locator('[data-test=network-house]').click()
  await say(net, 'Name', 'netloft')
  await pick(net, 'Network’s name', 'old name kept')
  await pick(net, 'Password', 'changed')
  await say(net, 'Changed by', 'Wen Sallow')
  await say(net, 'Given to', 'the tenant')
  await say(net, 'Given on', '2026-04-02')
  await page.locator('[data-test=appliance-name] input').fill('camera at the shed')
  await page.locator('[data-test=appliance-add]').click()
  await expect(page.locator('[data-test=appliance]')).toHaveCount(3)
  const camera = page.locator('[data-test=appliance]').last()
  await camera.getByLabel('tunnel').check()
  await pick(camera, 'Use', /^camera/)
  await say(camera, 'Hours a day', '4')
  await say(camera, 'MB an hour', '300')
  await page.locator('[data-test=back]').last().check()

  const doc = await stored(page, job)
  const sim = doc.sims.find(s => s.iccid)!
  expect(sim).toMatchObject({
    iccid: '8999901234567890124',
    size: 'micro',
    allowanceGb: 40,
    resetDay: 12,
    usedUp: 'slows',
    slowMbps: 2,
  })
  const [line, tern] = [...doc.connections].sort((a, b) => a.rank - b.rank)
  expect(line).toMatchObject({ kind: 'cable line', state: 'up', allowanceGb: 500, use: 'in order' })
  expect(tern).toMatchObject({
    name: 'Tern by the roof',
    kind: 'cellular',
    simId: sim.id,
    carries: 'no tunnels',
    throttleDownMbps: 8.5,
    throttleUpMbps: 2,
    deviceMbps: 3,
    reserveMbps: 1,
    checkS: 5,
    checkPlaces: 2,
    checkMisses: 4,
    address: 'shared',
    state: 'up',
    poweredAtUtc: null,
  })
  expect(tern!.mastId).not.toBeNull()
  expect(doc.fixtures.find(f => f.id === tern!.socketId)?.kind).toBe('mains socket')
  expect(doc.fixtures.find(f => f.id === tern!.entryId)?.kind).toBe('way in')
  expect(tern!.nodeId).not.toBeNull()
  expect(doc.labels).toMatchObject([{ firmwareNeeded: '2.4', firmwareFound: '2.1', wps: 'off', adminFromOutside: 'off' }])
  expect(doc.networks.find(n => n.kind === 'guests')).toMatchObject({ apart: 'apart', radio: '2.4 GHz', deviceMbps: 10 })
  expect(doc.networks.find(n => n.kind === 'house')).toMatchObject({
    name: 'netloft',
    named: 'old name kept',
    password: 'changed',
    passwordBy: 'Wen Sallow',
    passwordTo: 'the tenant',
    passwordOn: '2026-04-02',
  })
  const shed = doc.appliances.find(a => a.name === 'camera at the shed')!
  expect(shed).toMatchObject({ tunnel: true, usage: 'camera', hoursDay: 4, mbHour: 300 })
  expect(shed.backAtUtc).not.toBeNull()
  await page.reload()
  await expect(page.locator('[data-test=lane-1]')).toContainText('Cable line')
  await expect(page.locator('[data-test=network-house]')).toContainText('password changed')
})

test('a line is pulled by the clock, and a reload does not stop it', async ({ demoPage: page }) => {
  const job = await copyOf(page.request, TRAILER)
  await openJob(page, job, 'commission')
  const strip = page.locator('[data-test=failover]')
  await page.locator('[data-test=failover-begin]').click()
  await choose(page.locator('[data-test=failover-how]'), 'its SIM out')
  await page.locator('[data-test=failover-pull]').click()
  await expect(strip.getByRole('timer')).toContainText(/0:0\d/)
  await sent(page)
  await page.reload()
  await expect(strip.getByRole('timer')).toContainText(/0:\d\d/)
  await page.locator('[data-test=failover-answered]').click()
  await expect(page.locator('[data-test=switched]')).toContainText('until the other answered')
  await page.locator('[data-test=failover-back-in]').click()
  await page.locator('[data-test=failover-is-back]').click()
  await expect(page.locator('[data-test=returned]')).toBeVisible()
  await say(strip, 'Broke', 'the call')
  await pick(strip, 'Public address', 'changed')
  await pick(strip, 'Answered by', /Gannet/)
  let doc = await stored(page, job)
  expect(doc.failovers).toMatchObject([{ how: 'SIM out', broke: 'the call', address: 'changed', withdrawn: false }])
  const [t] = doc.failovers
  expect(Date.parse(t!.answeredAtUtc!)).toBeGreaterThan(Date.parse(t!.pulledAtUtc))
  expect(Date.parse(t!.backAtUtc!)).toBeGreaterThanOrEqual(Date.parse(t!.backInAtUtc!))
  expect(doc.connections.find(c => c.id === t!.otherId)?.name).toContain('Gannet')
  await page.locator('[data-test=failover-withdraw]').click()
  await expect(page.locator('[data-test=switched]')).toHaveCount(0)
  doc = await stored(page, job)
  expect(doc.failovers[0]!.withdrawn).toBe(true)
})

test('usage of a month comes from a file, and what cannot be read is said', async ({ demoPage: page }) => {
  const job = await copyOf(page.request, TRAILER)
  await openJob(page, job, 'commission')
  const bring = (name: string, text: string) =>
    page.locator('[data-test=usage-file]').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })
  await bring('colours.csv', 'name,colour\nx,red\n')
  await expect(page.locator('[data-test=usage]').getByRole('alert')).toContainText('No column of it says a day')
  await bring('march.csv', 'Date,Download (MB),Upload (MB)\n2020-03-01,100,20\n')
  await expect(page.locator('[data-test=usage-read]')).toContainText('none of them is of the month that runs')
  await page.locator('[data-test=usage]').getByRole('button', { name: 'leave it' }).click()
  const month = new Date().toISOString().slice(0, 7)
  await bring('now.csv', `Time;Download (MB);Upload (MB)\n${month}-01 08:00;1000,5;20\n${month}-01 09:00;500;0\nsoon;1;1\n`)
  await expect(page.locator('[data-test=usage-read]')).toContainText('1 days, 1.5 GB')
  await expect(page.locator('[data-test=usage-read]')).toContainText('“soon” is no day')
  await page.locator('[data-test=usage-keep]').click()
  await expect(page.locator('[data-test=month]')).toContainText('1.5 of 100 GB by day 1')
  const doc = await stored(page, job)
  const gannet = doc.connections.find(c => c.name.startsWith('Gannet'))!
  expect(doc.usageDays).toMatchObject([{ connectionId: gannet.id, onDay: `${month}-01`, mb: 1520.5 }])
  expect(doc.usageDays[0]!.hours![8]).toBe(1020.5)
  expect(doc.usageDays[0]!.hours![9]).toBe(500)
})

test('the customer signs, and reads the page by its link until it is withdrawn', async ({ demoPage: page, browser, baseURL }) => {
  await openJob(page, KILN, 'handover')
  const signatures = page.locator('[data-test=signatures]')
  await page.locator('[data-test=sign]').click()
  const pad = page.locator('[data-test=pad]')
  const at = (await pad.boundingBox())!
  await page.locator('[data-test=signer]').locator('input').fill('Mara Fenn')
  // One dot is no signature.
  await page.mouse.click(at.x + 40, at.y + 40)
  await page.locator('[data-test=sign-keep]').click()
  await expect(signatures.getByRole('alert')).toContainText('too little')
  await page.mouse.move(at.x + 40, at.y + 60)
  await page.mouse.down()
  for (let i = 1; i <= 12; i++) await page.mouse.move(at.x + 40 + i * 14, at.y + 60 + (i % 2 ? 24 : -18))
  await page.mouse.up()
  await choose(page.locator('[data-test=said]'), 'accepted with remarks')
  await page.locator('[data-test=remarks]').locator('input').fill('the clip at the gable comes on Friday')
  await page.locator('[data-test=sign-keep]').click()
  await expect(page.locator('[data-test=signed]')).toContainText('Mara Fenn')
  const doc = await stored(page, KILN)
  expect(doc.signatures).toMatchObject([
    {
      what: 'handover',
      said: 'accepted with remarks',
      name: 'Mara Fenn',
      remarks: 'the clip at the gable comes on Friday',
      open: null,
    },
  ])
  expect(doc.signatures[0]!.strokes.flat().length).toBeGreaterThan(12)
  expect(doc.signatures[0]!.atUtc).toMatch(/Z$/)

  await page.locator('[data-test=page-make]').click()
  const link = (await page.locator('[data-test=page-link]').textContent())!.trim()
  const stranger = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 } })
  try {
    const read = await stranger.newPage()
    const answer = (await read.goto(link))!
    expect(answer.status()).toBe(200)
    expect(answer.headers()).toMatchObject({ 'referrer-policy': 'no-referrer', 'cache-control': 'private, no-store' })
    expect(answer.headers()['x-robots-tag']).toContain('noindex')
    expect((await answer.body()).length).toBeLessThan(60_000)
    await expect(read.getByRole('heading', { level: 1 })).toHaveText('Your internet at Lime kiln house')
    await expect(read.locator('body')).toContainText('20 was agreed. 26: as agreed')
    await expect(read.locator('body')).toContainText('Do not climb. Call us.')
    expect(await read.locator('script').count()).toBe(0)
    expect((await new AxeBuilder({ page: read }).analyze()).violations).toEqual([])
    // Nothing of the crew's own besides: neither the customer, nor masts, nor position.
    const html = await read.content()
    const kiln = await stored(page, KILN)
    for (const secret of [
      kiln.jobs[0]!.customerName,
      kiln.jobs[0]!.customerContact,
      kiln.masts[0]?.name,
      '46.8',
      kiln.jobs[0]!.id,
    ])
      if (secret) expect(html).not.toContain(secret)
    const calendar = new ICAL.Component(ICAL.parse(await (await stranger.request.get(`${link}.ics`)).text()))
    const events = calendar.getAllSubcomponents('vevent')
    expect(events).toHaveLength(3)
    for (const e of events) expect(new ICAL.Event(e).startDate.isDate).toBe(true)

    // Sixty and one strangers' guesses, a withdrawn link and a foreign one: one answer.
    const bad = await (await stranger.request.get('/c/never-made')).text()
    const token = link.split('/c/')[1]!
    const altered = `${token.slice(0, -1)}${token.endsWith('A') ? 'B' : 'A'}`
    for (const guess of [
      altered,
      token.slice(0, -1),
      `${token}x`,
      token.toUpperCase(),
      `../c/x`,
      '%00',
      'a'.repeat(5000),
      `${altered}.ics`,
    ]) {
      const got = await stranger.request.get(`/c/${encodeURIComponent(guess)}`)
      expect(got.status(), guess.slice(0, 40)).toBe(404)
      expect(await got.text()).toBe(bad)
    }
    await page.reload()
    await expect(page.locator('[data-test=page-state]')).toContainText('opened once')
    await page.locator('[data-test=page-withdraw]').click()
    await expect(page.locator('[data-test=page-state]')).toHaveCount(0)
    const gone = await stranger.request.get(link)
    expect(gone.status()).toBe(404)
    expect(await gone.text()).toBe(bad)
    // Ten in a row and more: the same answer, also once that address asks too often, and then for a good link too.
    await page.locator('[data-test=page-make]').click()
    const again = (await page.locator('[data-test=page-link]').textContent())!.trim()
    for (let i = 0; i < 70; i++) expect(await (await stranger.request.get(`/c/guess-${i}`)).text()).toBe(bad)
    expect(await (await stranger.request.get(again)).text()).toBe(bad)
  } finally {
    await stranger.close()
  }
})

test('a link is made of the own crew’s handover alone', async ({ demoPage: page }) => {
  await openJob(page, CROFT, 'handover')
  const none = await page.request.post(`/api/jobs/${CROFT}/pages`, {
    data: { handoverId: '0192f000-0099-7000-8000-00000000dead' },
  })
  expect(none.status()).toBe(404)
  await expect(page.locator('[data-test=customer-page]')).toContainText('hand over first')
})
