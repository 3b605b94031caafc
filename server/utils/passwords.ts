/** Work on passwords costs tens of milliseconds and 16 MB each by design: a few at a time, and not without end. */
import pLimit from 'p-limit'
import { problem } from './problem'

const AT_ONCE = 2
const MOST_WAITING = 40
const gate = pLimit(AT_ONCE)

function bounded<T>(work: () => Promise<T>): Promise<T> {
  if (gate.pendingCount >= MOST_WAITING) problem(503, 'Too many people sign in just now. Try again in a few seconds.')
  return gate(work)
}

export const makeHash = (password: string): Promise<string> => bounded(() => hashPassword(password))

/** A hash of nothing anyone knows: checking it keeps the time of a wrong address like that of a wrong password. */
let decoy: Promise<string> | null = null

/** @param hash  null where there is no such member: it takes as long */
export async function passwordFits(hash: string | null, password: string): Promise<boolean> {
  decoy ??= hashPassword('no password at all')
  const against = hash ?? (await decoy)
  return (await bounded(() => verifyPassword(against, password))) && hash !== null
}
