/** What tests on the roof do before anything else: tick what is asked, and listen to the simulated modem. */
import { expect } from '@playwright/test'
import type { Page } from '@playwright/test'
import { STANDIN_CODE } from './fixtures'

export const ROOF = { width: 390, height: 844 }

export async function climb(page: Page): Promise<void> {
  for (const key of ['falls', 'overhead', 'storm']) {
    const box = page.locator(`[data-test=tick-${key}]`)
    if (await box.count()) await box.click()
  }
}
/** In a sheet of ports that is open: through the bridge that is offered. */
export async function pair(page: Page): Promise<void> {
  await expect(page.locator('[data-test=pair-code] input')).toHaveValue(STANDIN_CODE)
  await page.locator('[data-test=modem-bridge]').click()
}
export async function listen(page: Page): Promise<void> {
  await page.locator('[data-test=listen]').click()
  await pair(page)
  await expect(page.locator('[data-test=listen]')).toContainText('simulated modem, place 4')
}
