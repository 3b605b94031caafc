/** One word of a list, as a person picks it. */
import { expect, type Locator } from '@playwright/test'

/**
 * Opens the list and picks; it ends when the list is gone.
 *
 * A list that closes gives the focus back to its field, which closes a list opened meanwhile: a person waits for
 * that, so does this. A long list shows a part of itself and is rolled on until the word stands there.
 *
 * @param select  the field that opens the list
 * @param word  a word of the list, or its place in it from 0
 */
export async function choose(select: Locator, word: string | RegExp | number): Promise<void> {
  const page = select.page()
  const lists = page.locator('.v-overlay-container').getByRole('listbox')
  const option =
    typeof word === 'number' ? lists.getByRole('option').nth(word) : lists.getByRole('option', { name: word, exact: true })
  await expect(lists).toHaveCount(0)
  await select.click()
  await lists.hover()
  // A list opens where its present word is.
  if (!(await option.isVisible())) await page.mouse.wheel(0, -20_000)
  await expect
    .poll(
      async () => {
        const isThere = await option.isVisible()
        if (!isThere) await page.mouse.wheel(0, 150)
        return isThere
      },
      { intervals: [50], timeout: 20_000, message: `“${word}” in the list` },
    )
    .toBe(true)
  await option.click()
  await expect(lists).toHaveCount(0)
}
