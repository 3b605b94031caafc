/** Writes the picture of the first page, drawn from the demo by the program itself. */
import { importTs } from './lib/database.mjs'
import { isGenerated, writeGenerated } from './lib/generated.mjs'

const NAME = 'first-picture.json'

/** @param {boolean} again  draw it although it is there: what is only checked needs none of today */
export async function generateFirstPicture(again) {
  if (!again && isGenerated(NAME)) return
  const { firstPicture } = await importTs('demo/first-picture.ts')
  writeGenerated(NAME, JSON.stringify(firstPicture()))
}
