/** What the database says of a failure. @source PostgreSQL manual, appendix A, "PostgreSQL Error Codes" */

interface Failure {
  code?: unknown
  constraint_name?: string
  constraint?: string
  cause?: unknown
}

function chain(e: unknown): Failure[] {
  const out: Failure[] = []
  for (let at = e as Failure | undefined; at && typeof at === 'object' && out.length < 5; at = at.cause as Failure | undefined)
    out.push(at)
  return out
}

/** @returns the SQLSTATE of the error or of what caused it; null where it has none */
export function sqlStateOf(e: unknown): string | null {
  const found = chain(e).find(f => typeof f.code === 'string' && /^[0-9A-Z]{5}$/.test(f.code) && !/^E[A-Z]{4}$/.test(f.code))
  return found ? (found.code as string) : null
}

/** @returns the name of the key that was hurt */
export function constraintOf(e: unknown): string | null {
  for (const f of chain(e)) {
    const name = f.constraint_name ?? f.constraint
    if (name) return name
  }
  return null
}

/** A value that the database will not hold (22), or that breaks a key (23): a refusal of that row, not a failure. */
export const isRefusedValue = (e: unknown): boolean => /^2[23]/.test(sqlStateOf(e) ?? '') || sqlStateOf(e) === '54000'

const CONNECTION_CODES = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOTFOUND',
  'EHOSTUNREACH',
  'CONNECT_TIMEOUT',
  'CONNECTION_CLOSED',
  'CONNECTION_DESTROYED',
  'CONNECTION_ENDED',
  'CONNECTION_CONNECT_TIMEOUT',
])

/** What the driver says, without a code, of a connection that was cut or not to be had. */
const LOST = /connection terminated|timeout exceeded when trying to connect|not queryable|client was closed/i

/** The database is away, starting, shutting down, or too busy: the same request may succeed soon. */
export function isAway(e: unknown): boolean {
  const state = sqlStateOf(e)
  if (state && (/^(08|53|57P)/.test(state) || ['57014', '55P03', '40001', '40P01', '25P03'].includes(state))) return true
  return chain(e).some(f => CONNECTION_CODES.has(String(f.code)) || LOST.test(String((f as Error).message ?? '')))
}
