/** Reads archives of jobs, away from the thread that answers requests. */
import { readFileSync } from 'node:fs'
import { parentPort } from 'node:worker_threads'
import { readArchive } from '../services/archive-read'

const port = parentPort!
port.on('message', (path: string) => {
  try {
    port.postMessage({ done: readArchive(readFileSync(path)) })
  } catch (e) {
    port.postMessage(e instanceof RangeError ? { refused: e.message } : { failed: String(e) })
  }
})
