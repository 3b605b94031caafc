/** A database and a server for each worker; a page that fails its test on any console error. */
import { test as base, expect } from '@playwright/test'
import type { BrowserContext, Page } from '@playwright/test'
import postgres from 'postgres'
import { ensureDatabase } from '../../scripts/lib/cluster.mjs'
import { startStandins } from '../../scripts/lib/standins.mjs'
import { freePort, startServer } from '../../scripts/lib/system.mjs'

interface App {
  origin: string
  databaseUrl: string
  pid: () => number
  stop: (signal?: NodeJS.Signals) => Promise<void>
  start: () => Promise<void>
}

export const KILN = '0192f000-0010-7000-8000-000000000001'
export const LOFT = '0192f000-0020-7000-8000-000000000001'
export const CROFT = '0192f000-0030-7000-8000-000000000001'
export const VAN = '0192f000-0040-7000-8000-000000000001'
/** Of each worker's simulated modem. */
export const STANDIN_CODE = '428913'
export const TRAILER = '0192f000-0100-7000-8000-000000000001'
export const CLINIC = '0192f000-0110-7000-8000-000000000001'
export const SAILS = '0192f000-0060-7000-8000-000000000001'
export const KETCH = '0192f000-0050-7000-8000-000000000001'

/**
 * A device of each address, its scripts compiled and its offline copy made once in a worker; each test finds it with
 * nothing kept on it. A test that turns its clock, which no device takes back, has one of its own (`ownDevice`).
 */
const withDevice = base.extend<{ ownDevice: boolean }, { devices: Map<string, BrowserContext> }>({
  ownDevice: [false, { option: true }],
  devices: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const devices = new Map<string, BrowserContext>()
      await use(devices)
      for (const d of devices.values()) await d.close()
    },
    { scope: 'worker' },
  ],
  context: async ({ browser, baseURL, viewport, actionTimeout, ownDevice, devices }, use) => {
    const make = async () => {
      const made = await browser.newContext({ baseURL, viewport })
      made.setDefaultTimeout(actionTimeout)
      return made
    }
    if (ownDevice) {
      const own = await make()
      await use(own)
      return own.close()
    }
    const device = devices.get(baseURL!) ?? (await make())
    devices.set(baseURL!, device)
    await use(device)
    await device.setOffline(false)
    await device.unrouteAll({ behavior: 'ignoreErrors' })
    await device.clearPermissions()
    await emptied(device, baseURL!)
  },
})

/** Nothing of who used it stays: pages, cookies, what was kept. The copy of the program does, as on any device. */
async function emptied(device: BrowserContext, origin: string): Promise<void> {
  const last = await device.newPage()
  for (const p of device.pages()) if (p !== last) await p.close()
  const session = await device.newCDPSession(last)
  await session.send('Storage.clearDataForOrigin', { origin, storageTypes: 'cookies,local_storage,indexeddb,file_systems' })
  await last.close()
}

export const test = withDevice.extend<{ quiet: string[]; demoPage: Page }, { app: App }>({
  app: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use, info) => {
      const name = `mv_w${info.parallelIndex}_${Date.now()}`
      const pattern = process.env.MULTIVOX_TEST_URL!
      const url = (d: string) => pattern.replace('DATABASE', d)
      await ensureDatabase({ url }, name, 'mv_template')
      const port = await freePort()
      const standins = await startStandins({
        seed: 4,
        port: await freePort(),
        code: STANDIN_CODE,
        origins: [`http://localhost:${port}`],
      })
      const env = {
        NUXT_BRIDGES: standins.urls,
        NUXT_STANDIN: STANDIN_CODE,
        NUXT_DATABASE_URL: url(name),
        NUXT_SESSION_PASSWORD: 'a password of the tests, long enough for sealing',
        NUXT_SESSION_COOKIE_SECURE: 'false',
        NUXT_DEMO: '1',
      }
      let server = await startServer({ build: process.env.MULTIVOX_BUILD!, port, env, quiet: true })
      await use({
        origin: `http://localhost:${port}`,
        databaseUrl: url(name),
        pid: () => server.child.pid!,
        stop: signal => server.stop(signal),
        start: async () => {
          server = await startServer({ build: process.env.MULTIVOX_BUILD!, port, env, quiet: true })
        },
      })
      await server.stop()
      await standins.close()
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ app }, use) => use(app.origin),
  // eslint-disable-next-line no-empty-pattern
  quiet: async ({}, use) => use([]),
  demoPage: async ({ page, app, quiet }, use) => {
    watchErrors(page, quiet)
    await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
    await use(page)
    expect(quiet, 'console errors and failed requests').toEqual([])
  },
})

/** Console errors, page errors and failed requests; a test that provokes one takes it off the list. */
export function watchErrors(page: Page, list: string[]): void {
  page.on('console', m => m.type() === 'error' && list.push(m.text()))
  page.on('pageerror', e => list.push(e.message))
  page.on(
    'requestfailed',
    r => r.failure()?.errorText !== 'net::ERR_ABORTED' && list.push(`${r.method()} ${r.url()} ${r.failure()?.errorText}`),
  )
}

export async function openJob(page: Page, id: string, section: string): Promise<void> {
  await page.goto(`/job/${id}/${section}`)
  await expect(page.locator('[data-test=promise]')).toBeVisible()
  await expect(page.locator('[data-test=opening]')).toHaveCount(0)
  await expect(page.locator('main > *')).not.toHaveCount(0)
}

/** Answers of the server that a test provoked are looked for and taken off the list. */
export function provoked(list: string[], status: number, times: number): void {
  const mine = list.filter(e => e.includes(`status of ${status}`))
  expect(mine).toHaveLength(times)
  for (const e of mine) list.splice(list.indexOf(e), 1)
}

export const sent = (page: Page) => expect(page.locator('[data-test=link]')).toHaveText('all sent')

export function database(app: App) {
  return postgres(app.databaseUrl, { max: 1, onnotice: () => {} })
}

export { expect }
