import { createHmac } from 'node:crypto'
import { requireMember } from '../../http/member'
import { clientAddress } from '../../http/proxy'

/** Answers at once, with a mark of the public address asked from: which way a test went, without the address itself. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  setResponseHeader(event, 'cache-control', 'no-store')
  const key = `${useRuntimeConfig().session.password}|${me.crewId}`
  return { via: createHmac('sha256', key).update(clientAddress(event)).digest('base64url').slice(0, 16) }
})
