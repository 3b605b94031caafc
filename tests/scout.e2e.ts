/**
 * Scout in depth through the real interface: lists in every shape, map, skyline, heights, compass, stops, and all of
 * it with the network off.
 */
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import type { Page } from '@playwright/test'
import { choose } from './support/choose'
import { CROFT, database, expect, KETCH, KILN, openJob, provoked, sent, test, VAN } from './support/fixtures'
import { file, heightTile } from './support/files'

const fixture = (name: string) => new URL(`fixtures/${name}`, import.meta.url).pathname
const line = (page: Page) => page.locator('.strip svg')

async function bringIn(page: Page, path: string): Promise<void> {
  await page.locator('[data-test=import-masts]').click()
  await page.locator('[data-test=mast-file]').setInputFiles(path)
}
const close = (page: Page) => page.getByRole('button', { name: /^Close/ }).click()

test('lists come gzipped, in UTF-16, exchanged and without bands, and the crew’s mapping is remembered', async ({
  demoPage: page,
}) => {
  await openJob(page, CROFT, 'bearings')
  const rows = Array.from(
    { length: 30 },
    (_, i) => `S${i};${(46.6 + i / 300).toFixed(4).replace('.', ',')};-41,${6000 + i};Tern;LTE;${i % 2 ? '6300' : 'B3'}`,
  )
  const utf16 = Buffer.concat([
    Buffer.from([0xff, 0xfe]),
    Buffer.from(`Mast;Lat;Lng;Netz;RAT;Kanal\r\n${rows.join('\r\n')}\r\n`, 'utf16le'),
  ])
  await bringIn(page, file('utf16.csv.gz', gzipSync(utf16)))
  // No heading says “carrier”; the column of one network's name does. One of bands and channels mixed is for the person.
  await expect(page.locator('[data-test=by-content]')).toContainText('No heading says carrier: proposed by what stands')
  await choose(page.locator('[data-test=map-band]'), 'Kanal')
  await expect(page.locator('.tried li').first()).toContainText('S0: 46.6000, −41.6000, Tern B3')
  await page.locator('[data-test=import]').click()
  await expect(page.locator('[data-test=import-report]')).toContainText('30 of 30 rows kept: 30 masts, 30 cells.')
  await close(page)
  await expect(page.locator('.means')).not.toHaveText('19 masts')

  // The same headings again: read as before, and nothing changes.
  await bringIn(page, file('again.csv', utf16))
  await expect(page.locator('.note')).toContainText('Read as your crew read a list with these headings before.')
  await page.locator('[data-test=import]').click()
  await expect(page.locator('[data-test=import-report]')).toContainText('All of it was known: nothing changed.')
  await close(page)

  await bringIn(page, file('exchanged.csv', 'name,lat,lon,carrier,band\nX1,-41.61,46.64,Tern,B20\nX2,-41.62,46.65,Tern,B20\n'))
  await expect(page.locator('[data-test=swapped]')).toBeVisible()
  await expect(page.locator('.tried li').first()).toContainText('X1: 46.6400, −41.6100')
  await page.locator('[data-test=import]').click()
  await expect(page.locator('[data-test=import-report]')).toContainText('2 of 2 rows kept')
})

test('a stray quote costs its own row', async ({ demoPage: page, app }) => {
  await openJob(page, KILN, 'bearings')
  const rows = [
    'Pier,22.1,31.1,Tern,B20',
    '"Mole,22.2,31.2,Tern,B20',
    '"Quay, upper",22.3,31.3,Tern,B20',
    'Dock 12" pole,22.4,31.4,Tern,B20',
  ]
  await bringIn(page, file('quotes.csv', `name,lat,lon,carrier,band\n${rows.join('\n')}\n`))
  await page.locator('[data-test=import]').click()
  await expect(page.locator('[data-test=import-report]')).toContainText('3 of 4 rows kept')
  await expect(page.locator('[data-test=import-report]')).toContainText('a quote is opened and never closed')
  const sql = database(app)
  const names =
    await sql`select m.name from masts m join mast_sets s on s.id = m.set_id where s.name = 'quotes.csv' order by m.name`
  expect(names.map(r => r.name as string)).toEqual(['Dock 12" pole', 'Pier', 'Quay, upper'])
  await sql`delete from mast_sets where name = 'quotes.csv'`
  await sql.end()
})

test('a connection lost while a list is sent: it goes on by itself, and another day from where it was', async ({
  demoPage: page,
  app,
  quiet,
}) => {
  test.setTimeout(300_000)
  await openJob(page, KILN, 'bearings')
  // Several pieces long by a column that nobody reads, so that its rows are soon in.
  const remark = 'nothing to remark '.repeat(9)
  const rows = Array.from(
    { length: 20_000 },
    (_, i) =>
      `Site number ${i},${(20 + i / 10_000).toFixed(4)},30.5,Petrel,LTE,B20,${20 + (i % 30)},2026-01-0${1 + (i % 9)},${remark}`,
  )
  const path = file('long.csv', `name,lat,lon,carrier,tech,band,height,seen,remark\n${rows.join('\n')}\n`)
  let fails = 2
  await page.route('**/pieces/1*', async route => {
    if (fails-- > 0) await route.abort('connectionreset')
    else await route.continue()
  })
  await bringIn(page, path)
  await page.locator('[data-test=import]').click()
  await expect(page.locator('[data-test=import-progress]')).toContainText('goes on by itself')
  await expect(page.locator('[data-test=import-progress]')).toContainText(/now|rows/)
  await expect(page.locator('[data-test=import-report]')).toContainText('20 000 of 20 000 rows kept: 20 000 masts', {
    timeout: 120_000,
  })
  quiet.splice(0, quiet.length, ...quiet.filter(q => !/pieces\/1|ERR_CONNECTION_RESET/.test(q)))
  await page.unroute('**/pieces/1*')
  await close(page)

  // The page is closed in the middle; the same file later goes on.
  await page.route('**/pieces/1*', route => route.abort('connectionreset'))
  const second = file(
    'second.csv',
    `name,lat,lon,carrier,tech,band,height,seen,remark\n${rows.join('\n').replaceAll('Petrel', 'Shag')}\n`,
  )
  await bringIn(page, second)
  await page.locator('[data-test=import]').click()
  await expect(page.locator('[data-test=import-progress]')).toContainText('goes on by itself')
  await page.unrouteAll({ behavior: 'ignoreErrors' })
  await page.reload()
  quiet.splice(0, quiet.length, ...quiet.filter(q => !/pieces\/1|ERR_CONNECTION_RESET/.test(q)))
  await expect(page.locator('[data-test=import-masts]')).toBeVisible()
  await bringIn(page, second)
  await expect(page.locator('.note')).toContainText('It goes on from there.')
  await page.locator('[data-test=import]').click()
  await expect(page.locator('[data-test=import-report]')).toContainText('20 000 of 20 000 rows kept', { timeout: 120_000 })
  const sql = database(app)
  expect((await sql`select count(*)::int as n from imports where name = 'second.csv'`)[0]!.n).toBe(1)
  expect((await sql`select count(*)::int as n from masts where carrier = 'Shag'`)[0]!.n).toBe(20_000)
  await sql`delete from mast_sets where name in ('long.csv', 'second.csv')`
  await sql.end()
})

test('stopping a list in the middle keeps nothing of it', async ({ demoPage: page, app }) => {
  await openJob(page, KILN, 'bearings')
  await page.route('**/pieces/1*', () => {})
  const rows = Array.from(
    { length: 60_000 },
    (_, i) => `Long name of site number ${i},21,${(30 + i / 10_000).toFixed(4)},Dunlin,LTE,B20,20,2026-01-01`,
  )
  await bringIn(page, file('stop.csv', `name,lat,lon,carrier,tech,band,height,seen,remark\n${rows.join('\n')}\n`))
  await page.locator('[data-test=import]').click()
  await expect(page.locator('[data-test=import-progress]')).toContainText('rows')
  await page.locator('[data-test=import-stop]').click()
  const sql = database(app)
  await expect.poll(async () => (await sql`select state from imports where name = 'stop.csv'`)[0]?.state).toBe('cancelled')
  expect((await sql`select count(*)::int as n from masts where carrier = 'Dunlin'`)[0]!.n).toBe(0)
  await sql.end()
})

test('GPX and KML of another writer come in, and every kind goes out and comes back the same', async ({
  demoPage: page,
  app,
}) => {
  test.setTimeout(240_000)
  const sql = database(app)
  await openJob(page, CROFT, 'bearings')
  for (const name of ['extensions.gpx', 'posts.gpx', 'posts.kml']) {
    await bringIn(page, fixture(name))
    await expect(page.locator('.tried li').first()).toContainText('North post: 10.0600, 20.0500, Tern B20 toward 120°')
    await page.locator('[data-test=import]').click()
    await expect(page.locator('[data-test=import-report]')).toContainText('2 of 2 rows kept: 2 masts, 2 cells.')
    await close(page)
  }
  expect((await sql`select count(*)::int as n from masts where name like '% post'`)[0]!.n).toBe(2)
  for (const kind of ['csv', 'geojson', 'gpx', 'kml']) {
    await page.locator('[data-test=import-masts]').click()
    const [download] = await Promise.all([page.waitForEvent('download'), page.locator(`[data-test=save-${kind}]`).click()])
    const text = readFileSync(await download.path(), 'utf8')
    expect(text).toContain('Fulmar Head')
    await page
      .locator('[data-test=mast-file]')
      .setInputFiles({ name: `back.${kind}`, mimeType: 'text/plain', buffer: Buffer.from(text) })
    await expect(page.locator('.tried li').first()).not.toHaveClass(/error/)
    await page.locator('[data-test=import]').click()
    await expect(page.locator('[data-test=import-report]')).toContainText(/(\d+) of \1 rows kept/)
    await close(page)
  }
  // Four writings of the same masts, at places that differ by less than any of them rounds, are one mast each.
  expect(
    (
      await sql`select count(*)::int as n, count(distinct round(lat_deg::numeric, 4))::int as places from masts m join
        mast_sets s on s.id = m.set_id where m.name = 'Fulmar Head' and s.name like 'back.%'`
    )[0],
  ).toMatchObject({ n: 1, places: 1 })
  await sql`delete from mast_sets where name like 'back.%' or name like 'posts.%'
    or name in ('extensions.gpx', 'utf16.csv.gz', 'again.csv', 'exchanged.csv')`
  await sql.end()
})

test('what a modem shows finds its mast', async ({ demoPage: page }) => {
  await openJob(page, KILN, 'bearings')
  await page.locator('[data-test=find]').fill('6300')
  await expect(page.locator('.means')).toHaveText('806.0 MHz, B20')
  await page.locator('[data-test=find]').fill('311')
  await expect(page.locator('.list .mast')).toHaveCount(1)
  await expect(page.locator('.list .mast')).toContainText('Stack')
  await page.locator('[data-test=find]').fill('no such mast')
  await expect(page.locator('.list .empty')).toContainText('matches “no such mast”')
})

test('skyline, sight line and height tell the same mast; the map picks it', async ({ demoPage: page }) => {
  await openJob(page, KILN, 'bearings')
  await expect(
    line(page)
      .locator('text')
      .filter({ hasText: /\d+ Stack, .* in sight/ }),
  ).toBeVisible()
  await page.locator('[data-test="mast-Lee Harbour"]').click()
  await expect(
    line(page)
      .locator('text')
      .filter({ hasText: /Lee Harbour, .*behind the ridge at 3\.\d/ }),
  ).toBeVisible()
  await page.keyboard.press('h')
  await expect(page.locator('[data-test=heights]')).toContainText('the ridge is not cleared within 30 m')
  await expect(page.locator('[data-test=heights] table')).toContainText('400-type')
  await page.keyboard.press('l')
  await expect(line(page)).toHaveAttribute('aria-label', 'Sight line to the mast')
  // A mast far down the list has its profile fetched when it is looked at.
  await page.locator('[data-test=find]').fill('North Holm')
  await page.locator('[data-test="mast-North Holm"]').click()
  await expect(line(page)).toBeVisible()
  await page.locator('[data-test=find]').fill('')
  await page.keyboard.press('Escape')
  await page.locator('.list ol').focus()
  await page.keyboard.press('v')
  await expect(page.locator('[data-test=map] canvas').first()).toBeVisible()
  await expect(page.locator('.map .words')).toContainText('contours every')
})

test('an obstacle noted counts in the path and stands on the skyline; taken back, it is gone', async ({ demoPage: page }) => {
  await openJob(page, KILN, 'bearings')
  await page.locator('[data-test=seen]').click()
  for (const [f, v] of [
    ['ob-name', 'Barn'],
    ['ob-from', '170'],
    ['ob-to', '195'],
    ['ob-far', '60'],
    ['ob-high', 'tall'],
  ] as const)
    await page.locator(`[data-test=${f}] input`).fill(v)
  await page.locator('[data-test=add-obstacle]').click()
  await expect(page.getByRole('alert')).toContainText('height: “tall” is not a number')
  await page.locator('[data-test=ob-high] input').fill('24')
  await page.locator('[data-test=add-obstacle]').click()
  await expect(page.locator('[data-test=obstacle]')).toContainText('Barn')
  await close(page)
  // A knife edge some 15 m over the eye at 60 m costs 26 dB at 800 MHz (ITU-R P.526 §4.1); the ground adds to it.
  await expect(page.locator('[data-test="mast-Stack"]')).toContainText(/loses [23]\d dB behind Barn/)
  await expect(line(page).locator('text').filter({ hasText: 'Barn' })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-test="mast-Stack"]')).not.toContainText('Barn')
  await sent(page)
})

test('a landmark clicked on the map is aimed by', async ({ demoPage: page }) => {
  await openJob(page, KILN, 'bearings')
  await page.locator('[data-test=seen]').click()
  await page.locator('[data-test=pick-place]').click()
  const map = page.locator('[data-test=map]')
  await expect(map).toBeVisible()
  await expect(page.locator('.map .words')).toHaveText('click the place')
  const box = (await map.boundingBox())!
  await map.click({ position: { x: box.width / 2 + 40, y: box.height / 2 + 110 } })
  await page.locator('[data-test=mark-name] input').fill('Mill stack')
  await page.locator('[data-test=add-landmark]').click()
  await expect(page.locator('[data-test=landmark]')).toContainText('Mill stack')
  await close(page)
  await expect(page.locator('[data-test=aim-words]')).toContainText(/\d+° (left|right) of Mill stack/)
  await sent(page)
})

test('a picture with its world file lies under the map; one without is laid by two points', async ({
  demoPage: page,
  app,
  quiet,
}) => {
  await openJob(page, KILN, 'bearings')
  const png = await page.evaluate(async () => {
    const c = new OffscreenCanvas(200, 100)
    c.getContext('2d')!.fillRect(20, 20, 60, 60)
    return [...new Uint8Array(await (await c.convertToBlob({ type: 'image/png' })).arrayBuffer())]
  })
  const image = { name: 'yard.png', mimeType: 'image/png', buffer: Buffer.from(png) }
  await page.locator('[data-test=seen]').click()
  await page
    .locator('[data-test=picture-file]')
    .setInputFiles([{ name: 'yard.txt', mimeType: 'text/plain', buffer: Buffer.from('no') }])
  await expect(page.getByRole('alert')).toContainText('PNG, JPEG or WebP')
  await page
    .locator('[data-test=picture-file]')
    .setInputFiles([image, { name: 'yard.pgw', mimeType: 'text/plain', buffer: Buffer.from('10\n0\n0\n-10\n350000\n5200000') }])
  await expect(page.getByRole('alert')).toContainText('in metres of some grid')
  await page
    .locator('[data-test=picture-file]')
    .setInputFiles([
      image,
      { name: 'yard.pgw', mimeType: 'text/plain', buffer: Buffer.from('0.0001\n0\n0\n-0.0001\n-41.37\n46.81') },
    ])
  await expect(page.locator('[data-test=picture]')).toContainText('yard.png')
  await page.locator('[data-test=picture-file]').setInputFiles(image)
  await page.locator('.photo').click({ position: { x: 10, y: 10 } })
  await page.locator('.photo').click({ position: { x: 180, y: 80 } })
  await page.locator('[data-test=tie-1] input').fill('46.8110, -41.3700')
  await page.locator('[data-test=tie-2] input').fill('46.8050, -41.3500')
  await page.locator('[data-test=lay]').click()
  await expect(page.locator('[data-test=picture]')).toHaveCount(1)
  await close(page)
  await sent(page)
  const sql = database(app)
  expect((await sql`select affine from pictures where job_id = ${KILN}`)[0]!.affine).toHaveLength(6)
  // The row never waits for its bytes: they come after it.
  await expect
    .poll(async () => (await sql`select count(*)::int as n from picture_files where job_id = ${KILN}`)[0]!.n)
    .toBeGreaterThan(0)
  await sql.end()
  const wrong = await page.request.put(`/api/jobs/${KILN}/pictures/0192f000-0000-7000-8000-000000000001`, {
    data: Buffer.from('GIF89a'),
    headers: { 'content-type': 'application/octet-stream' },
  })
  expect(wrong.status()).toBe(415)
  expect(quiet).toEqual([])
})

test('terrain and land cover come in as GeoTIFF; a wrong one is told why', async ({ demoPage: page, quiet }) => {
  await openJob(page, CROFT, 'bearings')
  await page.locator('[data-test=terrain]').click()
  const hgt = page.locator('[data-test=hgt-file]')
  await hgt.setInputFiles(fixture('no-georeference.tif'))
  await expect(page.getByRole('alert')).toContainText('carries no georeference')
  await hgt.setInputFiles(fixture('other-grid.tif'))
  await expect(page.getByRole('alert')).toContainText('EPSG:3035')
  await hgt.setInputFiles(fixture('utm-float.tif'))
  await expect(page.locator('[data-test=terrain-done]')).toContainText('utm-float ground, 3″, 6 blocks')
  await expect(page.locator('[data-test=terrain-done]')).toContainText('void')
  await page.locator('[data-test=cover-file]').setInputFiles(fixture('classes.tif'))
  await page.locator('[data-test=class-3]').fill('300')
  await page.locator('[data-test=keep-cover]').click()
  await expect(page.getByRole('alert')).toContainText('class 3: 0 to 200 m')
  await page.locator('[data-test=class-3]').fill('14,5')
  await page.locator('[data-test=keep-cover]').click()
  await expect(page.locator('[data-test=terrain-done]')).toContainText('classes land cover')
  provoked(quiet, 422, 2)
  await page.request.delete('/api/terrain/tiles/classes')
  await page.request.delete('/api/terrain/tiles/utm-float')
})

test('the bow: heading by its own compass, a card typed in, a swing made, a beam that cannot follow', async ({
  demoPage: page,
}) => {
  await openJob(page, KETCH, 'bearings')
  await expect(page.locator('[data-test=aim-words]')).toContainText('to starboard of the bow')
  await page.locator('[data-test=compass]').click()
  await expect(page.locator('[data-test=declination]')).toContainText('° W')
  await expect(page.locator('[data-test=heading-words]')).toContainText('cannot follow')
  await page.locator('[data-test=card] textarea').first().fill('000 2 W\n090 1 X')
  await page.locator('[data-test=keep-card]').click()
  await expect(page.getByRole('alert')).toContainText('“090 1 X”')
  await page.locator('[data-test=card] textarea').first().fill('000 2 W\n090 1.5 E\n180 2 E\n270 1 W')
  await page.locator('[data-test=keep-card]').click()
  await expect(page.getByRole('dialog')).toContainText('4 headings; at the present one')
  // On 045 by its compass: magnetic 044.75, so true is that less the declination of 13.3° W.
  const heading = page.getByLabel('Heading', { exact: true })
  await heading.fill('45')
  await heading.blur()
  await expect(page.locator('[data-test=heading-words]')).toContainText(/^03[12]° true/)
  // Swinging by the beacon, eight headings, each two degrees out to the east.
  await page.locator('[data-test=swing-by]').click()
  await page.getByRole('option', { name: 'Beacon post' }).click()
  const bearingText = await page.locator('[data-test=declination]').textContent()
  const west = Number(/([\d.]+)° W/.exec(bearingText!)![1])
  for (const h of [0, 45, 90, 135, 180, 225, 270, 315]) {
    await page.locator('[data-test=steer] input').fill(String(h))
    // The beacon stands at about 48.3° true, 61.6° magnetic; the compass shows two less.
    await page.locator('[data-test=look] input').fill((48.3 + west - 2).toFixed(1))
    await page.locator('[data-test=keep-look]').click()
  }
  await expect(page.locator('[data-test=looks]')).toContainText(/000° [12]\.\d° E/)
  await page.locator('[data-test=make-card]').click()
  await expect(page.getByRole('dialog')).toContainText('24 headings')
  await close(page)
  await sent(page)
})

test('what was read at a stop stays with it, and the stop with what was read there', async ({ demoPage: page }) => {
  await openJob(page, VAN, 'survey')
  const entries = page.locator('.side li')
  const table = page.getByRole('button', { name: /^Table:/ })
  await table.click()
  await expect(entries).toHaveCount(5)
  await openJob(page, VAN, 'ask')
  await expect(page.getByRole('button', { name: 'Take Harbour yard away' })).toBeDisabled()
  await page.locator('[data-test="stop-Moss Road bend"] .where').click()
  await expect(page.locator('[data-test="stop-Moss Road bend"]')).toHaveClass(/here/)
  await sent(page)
  await openJob(page, VAN, 'survey')
  await table.click()
  await expect(page.locator('.side')).toContainText('Nothing read here yet, at Moss Road bend.')
  await page.locator('[data-test=more]').click()
  await page.locator('[data-test=no-load]').click()
  await expect(entries).toHaveCount(1)
  await sent(page)
  await openJob(page, VAN, 'ask')
  await expect(page.getByRole('button', { name: 'Take Moss Road bend away' })).toBeDisabled()
  await page.locator('[data-test=own-place] .where').click()
  await expect(page.locator('[data-test=own-place]')).toHaveClass(/here/)
  await sent(page)
  await openJob(page, VAN, 'survey')
  await table.click()
  await expect(entries).toHaveCount(0)
  await openJob(page, VAN, 'ask')
  await page.locator('[data-test="stop-Harbour yard"] .where').click()
  await expect(page.locator('[data-test="stop-Harbour yard"]')).toHaveClass(/here/)
  await sent(page)
  await openJob(page, VAN, 'survey')
  await table.click()
  await expect(entries).toHaveCount(5)
  await sent(page)
})

test('a van on its round: stops, and one made ready works with the network off', async ({ page, app }) => {
  test.setTimeout(300_000)
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  await openJob(page, VAN, 'ask')
  await page.evaluate(() => navigator.serviceWorker.ready)
  await page.reload()
  await page.waitForFunction(async () => (await caches.keys()).length > 0 && !!navigator.serviceWorker.controller)
  const reef = page.locator('[data-test="stop-Reef view"]')
  await reef.locator('[data-test=prepare]').click()
  await expect(reef.locator('[data-test=pack]')).toContainText(/on this device: \d+\.\d MB, \d+ masts/, { timeout: 60_000 })
  const mb = Number(/([\d.]+) MB/.exec((await reef.locator('[data-test=pack]').textContent())!)![1])
  expect(mb).toBeGreaterThan(0.5)
  expect(mb).toBeLessThan(40)
  // Everything of the section is on the device once the app was installed; the job was opened.
  await openJob(page, VAN, 'bearings')
  await expect(line(page)).toBeVisible()
  await openJob(page, VAN, 'ask')
  await page.context().setOffline(true)
  await page.reload()
  await reef.locator('.where').click()
  await expect(reef).toHaveClass(/here/)
  await page.getByRole('link', { name: 'Bearings' }).click()
  await expect(page.locator('.list li').first()).toContainText(/km/)
  await expect(
    line(page)
      .locator('text')
      .filter({ hasText: /in sight|behind the ridge/ }),
  ).toBeVisible()
  await page.locator('[data-test=view]').click()
  await expect(page.locator('.map .words')).toContainText('contours every')
  await page.keyboard.press('h')
  await expect(page.locator('[data-test=heights] table')).toContainText('400-type')
  await expect(page.locator('[data-test=link]')).toContainText('not sent yet')
  await page.context().setOffline(false)
  await sent(page)
  const sql = database(app)
  expect((await sql`select s.name from jobs j join stops s on s.id = j.stop_id where j.id = ${VAN}`)[0]!.name).toBe('Reef view')
  await sql.end()
})

test('a stop is added, moved to and taken away; what cannot be is said', async ({ demoPage: page }) => {
  await openJob(page, VAN, 'ask')
  await page.locator('[data-test=stop-name] input').fill('North quay')
  await page.locator('[data-test=stop-position] input').fill('nowhere')
  await page.locator('[data-test=add-stop]').click()
  await expect(page.locator('.stops .error')).toContainText('does not read as latitude and longitude')
  await page.locator('[data-test=stop-position] input').fill('46.9010, -41.7265')
  await page.locator('[data-test=add-stop]').click()
  const stop = page.locator('[data-test="stop-North quay"]')
  await stop.locator('.where').click()
  await expect(stop).toHaveClass(/here/)
  await expect(page.locator('[data-test=position] input')).toHaveValue('46.9010° N 41.7265° W')
  await sent(page)
  await page.waitForLoadState('networkidle')
  await stop.getByRole('button', { name: 'Take North quay away' }).click()
  await expect(stop).toHaveCount(0)
  await sent(page)
  await page.keyboard.press('Control+z')
  await expect(stop).toHaveCount(1)
  await sent(page)
  await page.waitForLoadState('networkidle')
  await page.keyboard.press('Control+Shift+z')
  await sent(page)
})

test('a new vehicle and a new boat begin whole', async ({ demoPage: page }) => {
  for (const [kind, word] of [
    ['vehicle', 'nose'],
    ['boat', 'bow'],
  ] as const) {
    await page.goto('/')
    await page.locator('[data-test=new-job]').click()
    await choose(page.locator('[data-test=kind]'), kind)
    await page.getByLabel('Job', { exact: true }).fill(`A ${kind}`)
    await page.getByLabel('Position (may follow)').fill('46.80, -41.36')
    await page.locator('[data-test=create]').click()
    await expect(page).toHaveURL(/\/ask$/)
    await expect(page.locator('.picture svg text').filter({ hasText: word })).toBeVisible()
    await sent(page)
  }
})

test('four hundred masts are ranked, the rest left out; thirty are listed until more are wanted', async ({
  demoPage: page,
  app,
}) => {
  test.setTimeout(240_000)
  const { bring } = await import('./support/masts')
  const rows = Array.from({ length: 500 }, (_, i) => [
    `Grid ${i}`,
    (46.64 + 0.012 * (i % 25)).toFixed(4),
    (-41.6 + 0.02 * Math.floor(i / 25)).toFixed(4),
    'Tern',
    'LTE',
    i % 2 ? 'B20' : 'B3',
    '30',
    '2026-01-01',
  ])
  await bring(page.request, 'grid.csv', rows)
  await openJob(page, KILN, 'bearings')
  await expect(page.locator('.means')).toHaveText('400 masts', { timeout: 30_000 })
  await page.getByRole('button', { name: '370 more' }).click()
  await expect(page.locator('.list .mast')).toHaveCount(400)
  const sql = database(app)
  await sql`delete from mast_sets where name = 'grid.csv'`
  await sql.end()
})

test('a tile brought while the job is open changes its ground', async ({ demoPage: page }) => {
  await openJob(page, CROFT, 'bearings')
  const first = page.locator('.list li').first()
  // Paths come in one by one: what is compared is what stands when all are there.
  let before = ''
  await expect(async () => {
    before = (await first.textContent())!
    await page.waitForTimeout(1500)
    expect(await first.textContent()).toBe(before)
  }).toPass()
  await page.locator('[data-test=terrain]').click()
  await page.locator('[data-test=hgt-file]').setInputFiles(heightTile())
  await expect(page.locator('[data-test=terrain-done]')).toContainText('N47W041')
  await close(page)
  // The tile lies elsewhere: nothing here may move.
  await expect(first).toHaveText(before)
})

test('SIMs of two carriers stand side by side, each with its masts and its promise; the plan is turned to one, and back', async ({
  demoPage: page,
}) => {
  await openJob(page, CROFT, 'bearings')
  await page.locator('[data-test=sims-beside]').click()
  const sides = page.locator('[data-test=sims]')
  await expect(sides.locator('thead th')).toHaveText([/the usual kit/, /Tern/, /Gannet/])
  await expect(sides.locator('li')).toHaveCount(6)
  const down = sides.locator('tr', { hasText: 'down, Mbit/s' }).locator('td')
  await expect(down).toHaveText([/\d/, /\d/])
  const [tern, gannet] = await down.allInnerTexts()
  expect(tern).not.toBe(gannet)
  await page.locator('[data-test=take-Gannet]').click()
  await expect(sides.locator('th', { hasText: 'Gannet' })).toContainText('planned')
  // Turned to it, the figures are the same that were told before.
  await expect(down.nth(1)).toHaveText(gannet!)
  await page.keyboard.press('Escape')
  await expect(page.locator('.list .chosen')).toContainText('chosen, ')
  await page.locator('[data-test=undo]').click()
  await expect(page.locator('.list .chosen')).toHaveCount(0)
  await sent(page)
})

test('the sheet of a stop says pitch, mast, what comes down and what is next, and goes out as PDF', async ({
  demoPage: page,
}) => {
  await openJob(page, VAN, 'ask')
  await page.locator('[data-test=stop-sheet-open]').click()
  const sheet = page.getByRole('dialog')
  for (const what of ['Nose', 'Mast', 'Bearing', 'Wind', 'Comes down first', 'Height to drive with', 'Minutes'])
    await expect(sheet.locator('dt').filter({ hasText: what }).first()).toBeVisible()
  await expect(sheet).toContainText(/to put up and aim, \d+ to strike/)
  const pdf = await page.request.get((await sheet.locator('[data-test=stop-pdf]').getAttribute('href'))!)
  expect(pdf.headers()['content-type']).toBe('application/pdf')
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-')
})
