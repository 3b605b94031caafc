import { READERS } from './files'
import type { Readers } from './files'

addEventListener('message', (e: MessageEvent<{ what: keyof Readers; input: never }>) => {
  READERS[e.data.what](e.data.input).then(
    value => postMessage({ value }),
    (why: unknown) => postMessage({ refused: why instanceof Error ? why.message : String(why) }),
  )
})
