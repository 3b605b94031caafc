import { defineNitroErrorHandler } from 'nitropack/runtime'
import { send } from 'h3'
import { sendProblem } from './utils/problem'
import type { ProblemDetails } from './utils/problem'

/** Every error of the API is a problem document; nothing of the inside leaks. */
export default defineNitroErrorHandler((error, event) => {
  const known = (error.data as { problem?: ProblemDetails } | undefined)?.problem
  const status = known?.status ?? error.statusCode ?? 500
  if (status >= 500 && !known) console.error(error)
  const body = sendProblem(event, known ?? {
    type: 'about:blank',
    title: status >= 500 ? 'Something failed here' : error.statusMessage || 'Error',
    status,
    detail: status >= 500 ? 'Nothing was saved by this request; it can be tried again.' : error.message,
  })
  return send(event, body)
})
