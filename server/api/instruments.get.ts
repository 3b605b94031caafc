import { bridgesAllowed } from '../http/bridges'
import { requireMember } from '../http/member'

/** Where a modem may be reached from a page: the bridges of this installation, and in the demo its stand-in with its code. */
export default defineEventHandler(async event => {
  await requireMember(event)
  const { standin, demo } = useRuntimeConfig()
  return { bridges: bridgesAllowed(), code: demo && standin ? String(standin) : null }
})
