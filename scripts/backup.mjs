/** `npm run backup -- FILE`: the whole database into one file. `npm run restore -- FILE` puts it back. */
import { backupTo } from './lib/dump.mjs'
import { fail, say } from './lib/system.mjs'

const file = process.argv[2]
if (!file) fail('Say where to: npm run backup -- multivox.dump')
await backupTo(file)
say(`Backed up to ${file}.`)
