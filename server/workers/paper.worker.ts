/** Works jobs out and writes papers, away from the thread that answers requests. */
import { parentPort } from 'node:worker_threads'
import { assessOver, renderPdf } from '../services/paper'
import type { PaperTask } from '../services/paper'

const port = parentPort!
port.on('message', (task: PaperTask) => {
  const work = 'report' in task ? renderPdf(task.report) : Promise.resolve().then(() => assessOver(task))
  work.then(
    done => port.postMessage({ done }),
    (e: unknown) => port.postMessage({ failed: e instanceof Error ? (e.stack ?? e.message) : String(e) }),
  )
})
