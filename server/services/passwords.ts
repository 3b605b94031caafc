/** Work on passwords costs tens of milliseconds and 16 MB each by design: a few at a time, and not without end. */
import { Hash } from '@adonisjs/hash'
import { Scrypt } from '@adonisjs/hash/drivers/scrypt'
import pLimit from 'p-limit'
import { refuse } from './refused'

const hash = new Hash(new Scrypt({}))
const AT_ONCE = 2
const MOST_WAITING = 40
const gate = pLimit(AT_ONCE)

function bounded<T>(work: () => Promise<T>): Promise<T> {
  if (gate.pendingCount >= MOST_WAITING) refuse(503, 'Too many people sign in just now. Try again in a few seconds.')
  return gate(work)
}

export const makeHash = (password: string): Promise<string> => bounded(() => hash.make(password))

/** A hash of nothing anyone knows: checking it keeps the time of a wrong address like that of a wrong password. */
let decoy: Promise<string> | null = null

/** @param held  its hash; null where there is no such member: it takes as long */
export async function passwordFits(held: string | null, password: string): Promise<boolean> {
  decoy ??= hash.make('no password at all')
  const against = held ?? (await decoy)
  return (await bounded(() => hash.verify(against, password))) && held !== null
}
