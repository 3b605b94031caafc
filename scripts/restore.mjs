import { restoreFrom } from './lib/dump.mjs'
import { fail, say } from './lib/system.mjs'

const file = process.argv[2]
if (!file) fail('Say from where: npm run restore -- multivox.dump')
await restoreFrom(file)
say(`Restored from ${file}.`)
