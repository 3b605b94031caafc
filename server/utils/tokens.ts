import { createHash, randomBytes } from 'node:crypto'

/** One-time links carry a random token; only its hash is kept. */
export const newToken = (): string => randomBytes(24).toString('base64url')
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex')
