/** Plan in depth: approaches, kits, variants, isolation, coverage, papers; and a job as a file. */
import type { Page } from '@playwright/test'
import { unzipSync } from 'fflate'
import { copyOf } from './support/copy'
import { choose } from './support/choose'
import { database, expect, LOFT, openJob, provoked, sent, test } from './support/fixtures'

const HALL = '0192f000-0060-7000-8000-000000000001'

/** Copies of demo jobs, each a test's own; they are gone afterwards. */
const made: string[] = []
async function ownCopy(page: Page, of: string): Promise<string> {
  const jobId = await copyOf(page.request, of)
  made.push(jobId)
  return jobId
}
test.afterEach(async ({ page }) => {
  for (const id of made.splice(0)) await page.request.delete(`/api/jobs/${id}`)
})

const white = async (page: Page, width: number, height: number): Promise<Buffer> =>
  Buffer.from(
    await page.evaluate(
      async ([w, h]) => {
        const c = new OffscreenCanvas(w!, h!)
        c.getContext('2d')!.fillRect(10, 10, 80, 40)
        return [...new Uint8Array(await (await c.convertToBlob({ type: 'image/png' })).arrayBuffer())]
      },
      [width, height],
    ),
  )

const dxf = (units: string) => `0
SECTION
2
HEADER
9
$ACADVER
1
AC1021
${units}0
ENDSEC
0
SECTION
2
ENTITIES
0
LINE
8
0
10
0
20
0
11
6000
21
0
0
LINE
8
0
10
6000
20
0
11
6000
21
4000
0
ENDSEC
0
EOF
`

test('three kits are proposed, one is laid out, and undo brings the old one back', async ({ demoPage: page }) => {
  const job = await ownCopy(page, LOFT)
  await openJob(page, job, 'choose')
  await page.locator('[data-test=propose]').click()
  await expect(page.locator('[data-test=kit-least-work]')).toContainText('Mbit/s down')
  await expect(page.locator('[data-test=proposals] ol > li')).toHaveCount(3)
  await page.locator('[data-test=take-best-result]').click()
  await expect(page.locator('.strip')).not.toContainText('Plugs do not mate')
  await sent(page)
  await page.locator('[data-test=undo]').click()
  await expect(page.locator('.strip')).toContainText('Log-periodic beam, wide band')
  await sent(page)
})

test('a variant is copied, compared and chosen with a reason; the other stays', async ({ demoPage: page, app }) => {
  const job = await ownCopy(page, LOFT)
  await openJob(page, job, 'choose')
  await page.locator('[data-test=copy-variant]').click()
  await expect(page.locator('[data-test=variant-C]')).toHaveAttribute('aria-checked', 'true')
  await page.locator('[data-test=compare-variants]').click()
  const sheet = page.locator('[data-test=variants]')
  await expect(sheet).toContainText('cost class')
  await expect(sheet.locator('thead th')).toHaveCount(4)
  await sheet.locator('[data-test=reason-C] input').fill('as good, and less to carry')
  await sheet.locator('[data-test=reason-C] input').blur()
  // Looking at C did not make it the plan; the press does.
  await expect(sheet.locator('thead')).toContainText(/A\s*chosen/)
  await sheet.locator('[data-test=choose-C]').click()
  await expect(sheet.locator('thead')).toContainText(/C\s*chosen/)
  // A name of its own; one that another has is refused beside it.
  const name = sheet.locator('[data-test=rename-C]')
  await name.locator('input').fill('A')
  await name.locator('input').blur()
  await expect(name).toContainText('another variant has this name')
  await name.locator('input').fill('Carried light')
  await name.locator('input').blur()
  await page.keyboard.press('Escape')
  await expect(page.locator('[data-test="variant-Carried light"]')).toHaveAttribute('aria-checked', 'true')
  await sent(page)
  const sql = database(app)
  const rows = await sql`select name, reason from designs where job_id = ${job} order by name`
  expect(rows.map(r => r.name)).toEqual(['A', 'B', 'Carried light'])
  expect(rows[2]!.reason).toBe('as good, and less to carry')
  await sql.end()
})

test('isolation measured on site is believed, with its reason, and the loop follows', async ({ demoPage: page }) => {
  const job = await ownCopy(page, LOFT)
  await openJob(page, job, 'place')
  await expect(page.locator('svg text').filter({ hasText: 'gain held back' }).first()).toBeVisible()
  await page.locator('[data-test=isolation]').click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.locator('[data-test=method-computed]')).toHaveAttribute('aria-checked', 'true')
  await expect(dialog.locator('[data-test=method-measured]')).toBeDisabled()
  await dialog.locator('[data-test=enter-measured] input').fill('74')
  await dialog.locator('[data-test=enter-measured] input').blur()
  await expect(dialog.locator('[data-test=method-measured]')).toHaveAttribute('aria-checked', 'true')
  await expect(dialog.locator('[data-test=loop-bands]')).toContainText('runs')
  await page.keyboard.press('Escape')
  await expect(page.locator('svg text').filter({ hasText: 'stable' }).first()).toBeVisible()
  await sent(page)
})

test('the pick list counts, is cut from the drum, and goes out as CSV and PDF with labels', async ({ demoPage: page }) => {
  const job = await ownCopy(page, HALL)
  await openJob(page, job, 'choose')
  await page.keyboard.press('k')
  const dialog = page.getByRole('dialog')
  await expect(dialog.locator('[data-test=pick-rows]')).toContainText('15Ceiling dome')
  await dialog.locator('[data-test=crimped]').check()
  await expect(dialog.locator('[data-test=pick-rows]')).toContainText('plugs to crimp')
  await expect(dialog.locator('[data-test=cable-sum]')).toContainText('left over')
  const [csv] = await Promise.all([page.waitForEvent('download'), dialog.locator('[data-test=list-csv]').click()])
  expect(csv.suggestedFilename()).toBe('pick-list.csv')
  await sent(page)
  for (const [link, name] of [
    ['list-pdf', 'pick-list.pdf'],
    ['labels-pdf', 'labels.pdf'],
  ] as const) {
    const [pdf] = await Promise.all([page.waitForEvent('download'), dialog.locator(`[data-test=${link}]`).click()])
    expect(pdf.suggestedFilename()).toBe(name)
  }
})

test('before you drill: what is assumed, what hurts first, and the dry run’s card', async ({ demoPage: page }) => {
  await openJob(page, LOFT, 'level')
  await page.keyboard.press('d')
  const dialog = page.getByRole('dialog')
  await expect(dialog.locator('[data-test=assumed] tbody tr').first()).toContainText('Where does it come in')
  await expect(dialog.locator('[data-test=dry-run]')).toContainText('total at the donor port')
  await expect(dialog.locator('[data-test=dry-run]')).toContainText('under')
})

test('coverage of a floor: a wall drawn lowers it, places are proposed, a plan lies under it', async ({
  demoPage: page,
  app,
}) => {
  const job = await ownCopy(page, HALL)
  await openJob(page, job, 'level')
  await expect(page.locator('[data-test=bands] tbody tr')).toHaveCount(2)
  await page.locator('[data-test=coverage]').click()
  await expect(page.locator('[data-test=coverage-state]')).toHaveText('to 0.25 m')
  const workshop = page.locator('[data-test=room-shares] tr').filter({ hasText: 'Workshop' })
  const served = async () => Number.parseInt(await workshop.locator('td', { hasText: '%' }).innerText(), 10)
  const before = await served()
  expect(before).toBeGreaterThan(50)
  // From end to end of the floor. One of brick takes no more than the ordinary walls that are allowed for.
  await choose(page.locator('[data-test=draw-material]'), 'reinforced concrete')
  await page.locator('[data-test=draw-walls]').click()
  const pane = (await page.locator('.plan').boundingBox())!
  for (const share of [0.12, 0.88]) await page.mouse.click(pane.x + pane.width * share, pane.y + pane.height * 0.56)
  await expect.poll(served).toBeLessThan(before)
  await page.locator('[data-test=draw-walls]').click()
  await sent(page)
  await page.locator('[data-test=propose-places]').click()
  await expect(page.locator('[data-test=places] li').first()).toContainText('served')

  await page.locator('[data-test=floor-plan]').click()
  const dialog = page.getByRole('dialog')
  const file = dialog.locator('[data-test=plan-file]')
  await file.setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('x') })
  await expect(dialog.getByRole('alert')).toContainText('a picture (PNG, JPEG), a page of a PDF, a DXF or a GeoJSON')
  await file.setInputFiles({ name: 'big.png', mimeType: 'image/png', buffer: Buffer.alloc(13_000_000) })
  await expect(dialog.getByRole('alert')).toContainText('The file has 13 MB')
  await file.setInputFiles({ name: 'walls.dxf', mimeType: 'image/vnd.dxf', buffer: Buffer.from(dxf('')) })
  await expect(dialog.getByRole('alert')).toContainText('does not say what its unit is')
  await expect(dialog.locator('[data-test=take-walls]')).toBeDisabled()
  await file.setInputFiles({ name: 'plan.png', mimeType: 'image/png', buffer: await white(page, 400, 220) })
  const picture = dialog.locator('[data-test=plan-picture]')
  const box = (await picture.boundingBox())!
  await expect(dialog.locator('[data-test=lay-plan]')).toBeDisabled()
  await page.mouse.click(box.x + 10, box.y + 10)
  await page.mouse.click(box.x + box.width - 10, box.y + 10)
  await dialog.locator('[data-test=lay-plan]').click()
  await expect(page.locator('.plan image')).toHaveCount(1)
  await sent(page)
  const sql = database(app)
  await expect.poll(async () => (await sql`select count(*)::int as n from picture_files where job_id = ${job}`)[0]!.n).toBe(1)
  await sql.end()
})

test('a sweep of an analyser is read: VSWR in the bands, and where a cable is at fault; a pattern stands for the widths', async ({
  demoPage: page,
}) => {
  const job = await ownCopy(page, LOFT)
  await openJob(page, job, 'choose')
  await page.locator('[data-test=kit-more]').click()
  await page.locator('[data-test=sweep]').click()
  const dialog = page.getByRole('dialog')
  const file = dialog.locator('[data-test=sweep-file]')
  await file.setInputFiles({ name: 'x.s1p', mimeType: 'text/plain', buffer: Buffer.from('# MHZ Z RI R 50\n1 2 3\n') })
  await expect(dialog.getByRole('alert')).toContainText('Z-parameters; S-parameters are wanted')
  // Half of it comes back from 8 m along a foam cable.
  const rows = Array.from({ length: 201 }, (_, i) => {
    const mhz = 700 + i * 2
    const phase = (-4 * Math.PI * mhz * 1e6 * 8) / (299_792_458 * 0.85)
    return `${mhz} ${0.5 * Math.cos(phase)} ${0.5 * Math.sin(phase)}`
  })
  await file.setInputFiles({
    name: 'down-lead.s1p',
    mimeType: 'text/plain',
    buffer: Buffer.from(`# MHZ S RI R 50\n${rows.join('\n')}\n`),
  })
  await expect(dialog.locator('[data-test=sweep-says]')).toContainText('B20: VSWR 3.00 at worst')
  await dialog.locator('[data-test=sweep-fault]').click()
  await expect(dialog.locator('[data-test=sweep-says]')).toContainText(/Most comes back from [78]\.\d.m: 6 dB/)
  await page.keyboard.press('Escape')

  await page.locator('[data-test=figures-outside]').click()
  const table = dialog.locator('[data-test=pattern-file]')
  const pattern = (from: number, to: number) =>
    ['angle,across,upright', ...Array.from({ length: (to - from) / 10 }, (_, i) => `${from + i * 10},${i % 18},${i % 12}`)].join(
      '\n',
    )
  await table.setInputFiles({ name: 'p.csv', mimeType: 'text/csv', buffer: Buffer.from(pattern(0, 200)) })
  await expect(dialog.getByRole('alert')).toContainText('the azimuth has a hole from 190° to 0°')
  await table.setInputFiles({ name: 'p.csv', mimeType: 'text/csv', buffer: Buffer.from(pattern(0, 360)) })
  await expect(dialog).toContainText('measured in both planes')
  await sent(page)
})

test('a DXF with its unit becomes walls', async ({ demoPage: page }) => {
  const job = await ownCopy(page, HALL)
  await openJob(page, job, 'level')
  await page.locator('[data-test=coverage]').click()
  await page.locator('[data-test=floor-plan]').click()
  const dialog = page.getByRole('dialog')
  await dialog
    .locator('[data-test=plan-file]')
    .setInputFiles({ name: 'walls.dxf', mimeType: 'image/vnd.dxf', buffer: Buffer.from(dxf('9\n$INSUNITS\n70\n4\n')) })
  await expect(dialog).toContainText('2 lines in the drawing')
  await dialog.locator('[data-test=take-walls]').click()
  await expect(page.getByText('4 on this floor')).toBeVisible()
  await sent(page)
})

test('a job goes out as a ZIP of JSON and comes in again, the same under other ids; and as the next one like it', async ({
  demoPage: page,
  app,
  quiet,
}) => {
  await openJob(page, LOFT, 'handover')
  const bytes = await (await page.request.get(`/api/jobs/${LOFT}/archive.zip`)).body()
  const files = unzipSync(bytes)
  const read = (name: string) => JSON.parse(new TextDecoder().decode(files[name])) as Record<string, Record<string, unknown>[]>
  expect(Object.keys(files)).toEqual(
    expect.arrayContaining(['manifest.json', 'job.json', 'schemas/jobs.json', 'schemas/readings.json']),
  )
  await page.goto('/')
  await page.locator('[data-test=new-job]').click()
  await page
    .locator('[data-test=import-job]')
    .setInputFiles({ name: 'x.zip', mimeType: 'application/zip', buffer: Buffer.from('no zip') })
  await expect(page.getByRole('alert')).toContainText('no ZIP archive')
  provoked(quiet, 422, 1)
  await page.locator('[data-test=import-job]').setInputFiles({ name: 'job.zip', mimeType: 'application/zip', buffer: bytes })
  await page.waitForURL(/\/job\/[0-9a-f-]{36}\/ask/)
  const copy = /job\/([0-9a-f-]{36})/.exec(page.url())![1]!
  expect(copy).not.toBe(LOFT)
  made.push(copy)
  const again = unzipSync(await (await page.request.get(`/api/jobs/${copy}/archive.zip`)).body())
  const other = JSON.parse(new TextDecoder().decode(again['job.json'])) as Record<string, Record<string, unknown>[]>
  const strip = (rows: Record<string, unknown>[]) =>
    rows.map(r => JSON.stringify(r).replace(/[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f-]{22}/g, '*')).sort()
  const first = read('job.json')
  for (const table of Object.keys(first)) expect(strip(other[table]!), table).toEqual(strip(first[table]!))

  await openJob(page, LOFT, 'handover')
  await page.locator('[data-test=template]').click()
  await page.locator('[data-test=template-name] input').fill('Loft next door')
  await page.locator('[data-test=template-make]').click()
  await page.waitForURL(u => u.pathname.endsWith('/ask') && !u.pathname.includes(LOFT))
  made.push(/job\/([0-9a-f-]{36})/.exec(page.url())![1]!)
  await expect(page.locator('header, .frame').first()).toContainText('Loft next door')
  const sql = database(app)
  const [row] = await sql`select customer_name, (select count(*)::int from readings r where r.job_id = j.id) as readings,
    (select count(*)::int from nodes n where n.job_id = j.id) as nodes from jobs j where name = 'Loft next door'`
  expect(row).toMatchObject({ customer_name: null, readings: 0 })
  expect(row!.nodes).toBeGreaterThan(3)
  await sql.end()
})

test('a photograph and a socket are pinned to the place, and stay after a reload', async ({ demoPage: page, app }) => {
  const sql = database(app)
  const job = await ownCopy(page, LOFT)
  // What another test photographed there came along.
  await sql`delete from photos where job_id = ${job}`
  await openJob(page, job, 'place')
  await page.locator('[data-test=pins]').click()
  await page.locator('[data-test=bring-photo]').setInputFiles({
    name: 'wall.png',
    mimeType: 'image/png',
    buffer: await white(page, 2400, 1200),
  })
  await expect(page.locator('[data-test=photo] img')).toBeVisible()
  await page
    .locator('[data-test=bring-photo]')
    .setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no') })
  await expect(page.getByRole('alert').filter({ hasText: 'no picture that can be read' })).toBeVisible()
  await page.getByLabel('what it shows').fill('The wall behind the box')
  await page.locator('[data-test=add-mains-socket]').click()
  await expect(page.locator('[data-test="fixture-mains socket"]')).toHaveCount(2)
  await sent(page)
  await page.keyboard.press('Escape')
  await page.reload()
  await expect(page.locator('svg [aria-label="The wall behind the box, drag"]').first()).toBeVisible()
  const rows = await sql`
    select p.width_px, p.caption, length(f.bytes) > 100 as kept, f.mime from photos p
    join picture_files f on f.crew_id = p.crew_id and f.id = p.id where p.job_id = ${job}`
  expect([...rows]).toEqual([{ width_px: 1600, caption: 'The wall behind the box', kept: true, mime: 'image/jpeg' }])
  // Out and in again as a file, pinned to a part as it was.
  const [node] = await sql`select id from nodes where job_id = ${job} limit 1`
  await sql`update photos set node_id = ${node!.id} where job_id = ${job}`
  const again = await ownCopy(page, job)
  const [copied] = await sql`
    select p.caption, n.job_id = p.job_id as pinned, f.bytes is not null as kept from photos p
    join nodes n on n.crew_id = p.crew_id and n.id = p.node_id
    join picture_files f on f.crew_id = p.crew_id and f.id = p.id where p.job_id = ${again}`
  expect(copied).toEqual({ caption: 'The wall behind the box', pinned: true, kept: true })
  await sql.end()
})

test('the van’s satellite terminal says what hides its sky, and is moved clear at a press', async ({ demoPage: page }) => {
  const job = await ownCopy(page, '0192f000-0040-7000-8000-000000000001')
  await openJob(page, job, 'place')
  await page.locator('[data-test=pins]').click()
  await page.locator('[data-test="fixture-roof unit"]').getByLabel('high').fill('1,6')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Escape')
  await page.keyboard.press('f')
  const dialog = page.getByRole('dialog')
  const hidden = dialog.locator('article').filter({ hasText: 'sky is hidden' }).first()
  await expect(hidden).toContainText('air-conditioner')
  await hidden.locator('.cure').first().click()
  await expect(dialog.locator('article').filter({ hasText: 'clear sky' }).first()).toBeVisible()
})
