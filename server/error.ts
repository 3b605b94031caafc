import { defineNitroErrorHandler } from 'nitropack/runtime'
import { send } from 'h3'
import { logAway, logError } from './utils/log'
import { sendProblem } from './utils/problem'
import { Busy } from './utils/thread'
import { isAway } from './utils/sql-state'
import type { ProblemDetails } from './utils/problem'

/** Every error of the API is a problem document; nothing of the inside leaks. */
export default defineNitroErrorHandler((error, event) => {
  const known = (error.data as { problem?: ProblemDetails } | undefined)?.problem
  if (known) return send(event, sendProblem(event, known))
  const path = event.path.split('?')[0] ?? ''
  if (error.cause instanceof URIError || /^URI malformed/.test(error.message)) {
    return send(
      event,
      sendProblem(event, {
        type: 'about:blank',
        title: 'Not understood',
        status: 400,
        detail: 'The address holds a broken escape.',
      }),
    )
  }
  const inside = error.cause ?? error
  if (inside instanceof Busy) {
    event.node.res.setHeader('retry-after', '10')
    return send(
      event,
      sendProblem(event, {
        type: 'about:blank',
        title: 'Not available',
        status: 503,
        detail: 'Others have papers made just now: try again in a minute.',
      }),
    )
  }
  if (isAway(inside)) {
    logAway(event.method, inside)
    event.node.res.setHeader('retry-after', '2')
    return send(
      event,
      sendProblem(event, {
        type: 'about:blank',
        title: 'Not available',
        status: 503,
        detail: 'The database does not answer just now. Nothing was saved by this request; it can be tried again.',
      }),
    )
  }
  const status = error.statusCode ?? 500
  if (status >= 500) logError(`${event.method} ${patternOf(path)}`, inside)
  return send(
    event,
    sendProblem(event, {
      type: 'about:blank',
      title: status >= 500 ? 'Something failed here' : error.statusMessage || 'Error',
      status,
      detail:
        status >= 500
          ? 'Nothing was saved by this request; it can be tried again.'
          : status === 404
            ? 'There is nothing at this address.'
            : error.message,
    }),
  )
})

/** An address without what stands in it of a person: ids and names of files. */
const patternOf = (path: string): string =>
  path
    .split('/')
    .map(p => (/^[a-z-]{1,20}$/.test(p) || !p ? p : '…'))
    .join('/')
    .slice(0, 120)
