/** `npm run crew`: a one-time link, good for a day, that makes one more crew and its lead on this installation. */
import { withDatabase } from './lib/dump.mjs'
import { importTs } from './lib/database.mjs'
import { fail, say } from './lib/system.mjs'

await withDatabase(async url => {
  const { crewToken } = await importTs('server/services/setup.ts')
  const token = await crewToken(url).catch((/** @type {Error} */ e) => fail(e.message))
  say(`\n  One more crew. Make it, once, within a day, at\n\n    https://<your address>/join#${token}\n`)
})
