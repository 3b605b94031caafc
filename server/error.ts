import { defineNitroErrorHandler } from 'nitropack/runtime'
import { send } from 'h3'
import { logAway, logError } from './data/log'
import { problemOf, sendProblem } from './http/problem'
import { Refused } from './services/refused'
import { Busy } from './services/thread'
import { isAway } from './data/sql-state'
import type { ProblemDetails } from './http/problem'

/** Every error of the API is a problem document; nothing of the inside leaks. */
export default defineNitroErrorHandler((error, event) => {
  const known = (error.data as { problem?: ProblemDetails } | undefined)?.problem
  if (known) return send(event, sendProblem(event, known))
  const answer = (status: number, title: string, detail: string) =>
    send(event, sendProblem(event, { type: 'about:blank', title, status, detail }))
  const later = (seconds: number, detail: string) => {
    event.node.res.setHeader('retry-after', String(seconds))
    return answer(503, 'Not available', detail)
  }
  const path = event.path.split('?')[0] ?? ''
  if (error.cause instanceof URIError || /^URI malformed/.test(error.message))
    return answer(400, 'Not understood', 'The address holds a broken escape.')
  const inside = error.cause ?? error
  if (inside instanceof Refused) return send(event, sendProblem(event, problemOf(inside.status, inside.message, inside.errors)))
  if (inside instanceof Busy) return later(10, 'Others have papers made just now: try again in a minute.')
  if (isAway(inside)) {
    logAway(event.method, inside)
    return later(2, 'The database does not answer just now. Nothing was saved by this request; it can be tried again.')
  }
  const status = error.statusCode ?? 500
  if (status >= 500) {
    logError(`${event.method} ${patternOf(path)}`, inside)
    return answer(status, 'Something failed here', 'Nothing was saved by this request; it can be tried again.')
  }
  return answer(status, error.statusMessage || 'Error', status === 404 ? 'There is nothing at this address.' : error.message)
})

/** An address without what stands in it of a person: ids and names of files. */
const patternOf = (path: string): string =>
  path
    .split('/')
    .map(p => (/^[a-z-]{1,20}$/.test(p) || !p ? p : '…'))
    .join('/')
    .slice(0, 120)
