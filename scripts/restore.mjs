/** `npm run restore -- FILE`: a backup put back over a database that was stopped, or into a fresh one, and brought to this version. */
import { orSay, restoreFrom } from './lib/dump.mjs'
import { fail, say } from './lib/system.mjs'

const file = process.argv[2]
if (!file) fail('Say from where: npm run restore -- multivox.dump')
await orSay(restoreFrom(file))
say(`Restored from ${file}.`)
