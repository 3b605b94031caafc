/** Errors as RFC 9457 problem details. */
import { setResponseHeader, setResponseStatus, createError } from 'h3'
import type { H3Event } from 'h3'

export interface ProblemDetails {
  type: string
  title: string
  status: number
  detail?: string
  errors?: { field: string; value?: unknown; message: string }[]
}

const TITLES: Record<number, string> = {
  400: 'Not understood',
  401: 'Sign in first',
  403: 'Not allowed',
  404: 'Not found',
  409: 'In conflict',
  410: 'No longer valid',
  411: 'Length wanted',
  413: 'Too large',
  415: 'Wrong kind of file',
  422: 'Out of range',
  429: 'Too many tries',
  405: 'Not done here',
  503: 'Not available',
}

export const problemOf = (status: number, detail: string, errors?: ProblemDetails['errors']): ProblemDetails => ({
  type: 'about:blank',
  title: TITLES[status] ?? 'Error',
  status,
  detail,
  ...(errors ? { errors } : {}),
})

/** Throws; the error handler writes it as `application/problem+json`. */
export function problem(status: number, detail: string, errors?: ProblemDetails['errors']): never {
  const told = problemOf(status, detail, errors)
  throw createError({ statusCode: status, statusMessage: told.title, message: detail, data: { problem: told } })
}

export function sendProblem(event: H3Event, p: ProblemDetails): string {
  setResponseStatus(event, p.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  return JSON.stringify(p)
}
