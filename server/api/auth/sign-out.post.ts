import { closeSession } from '../../http/member'

export default defineEventHandler(async event => {
  await closeSession(event)
  return { ok: true }
})
