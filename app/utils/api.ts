import { hearClock } from '../replica/clock'

/** Talking to the server: problem details become errors that screens can put beside a field. */
export interface Problem {
  title: string
  status: number
  detail?: string
  errors?: { field: string; message: string }[]
}

export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail ?? problem.title)
  }

  get status(): number {
    return this.problem.status
  }

  get errors(): { field: string; message: string }[] | undefined {
    return this.problem.errors
  }

  fieldError(field: string): string | undefined {
    return this.problem.errors?.find(e => e.field === field)?.message
  }
}

/** No answer at all: no network, or the server is down. `status` where something on the way said so. */
export class Unreachable extends Error {
  constructor(readonly status?: number) {
    super('No connection: it is kept here and sent when there is one.')
  }
}

export async function api<T>(
  path: string,
  o: { method?: string; body?: unknown; raw?: BodyInit; headers?: Record<string, string>; signal?: AbortSignal } = {},
): Promise<T> {
  let response: Response
  const askedAt = Date.now()
  try {
    response = await fetch(path, {
      method: o.method ?? (o.body !== undefined || o.raw !== undefined ? 'POST' : 'GET'),
      headers: {
        ...(o.body !== undefined
          ? { 'content-type': 'application/json' }
          : o.raw !== undefined
            ? { 'content-type': 'application/octet-stream' }
            : {}),
        ...o.headers,
      },
      body: o.body !== undefined ? JSON.stringify(o.body) : o.raw,
      signal: o.signal,
    })
  } catch (e) {
    // A request that ran out of patience is as one that found nobody; one that was called back is not.
    if (o.signal?.aborted && o.signal.reason?.name !== 'TimeoutError') throw e
    throw new Unreachable()
  }
  hearClock(response.headers.get('date'), askedAt, Date.now())
  if (!response.ok) {
    if (response.status === 502 || response.status === 503 || response.status === 504) throw new Unreachable(response.status)
    const problem = (await response.json().catch(() => null)) as Problem | null
    throw new ApiError(problem?.title ? problem : { title: 'The server answered with an error', status: response.status })
  }
  if (response.status === 204) return undefined as T
  // A page in the way, of a hotel's network or a proxy, answers everything: it is none of ours.
  if (!/json/.test(response.headers.get('content-type') ?? 'json')) throw new Unreachable()
  return (await response.json()) as T
}

/** What a browser refuses by a name alone, in words. */
const REFUSED: Record<string, string> = {
  QuotaExceededError: 'This device has no room left: nothing of it was kept. Make room, then try again.',
  NotAllowedError: 'The browser was not allowed to: permit it for this page, then try again.',
  NotReadableError: 'The file or device cannot be read: another program may have it.',
}

export function messageOf(e: unknown): string {
  if (e instanceof DOMException && REFUSED[e.name]) return REFUSED[e.name]!
  return e instanceof Error ? e.message : String(e)
}
