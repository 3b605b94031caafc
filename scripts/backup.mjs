/** `npm run backup -- FILE`: the whole database into one file, readable by its owner alone. */
import { backupTo, orSay } from './lib/dump.mjs'
import { fail, say } from './lib/system.mjs'

const file = process.argv[2]
if (!file) fail('Say where to: npm run backup -- multivox.dump')
await orSay(backupTo(file))
say(`Backed up to ${file}.`)
