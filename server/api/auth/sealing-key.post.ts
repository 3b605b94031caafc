import { hkdfSync } from 'node:crypto'
import { Type } from '@sinclair/typebox'
import { Id } from '../../../core/job'
import { sealingSecret } from '../../services/accounts'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { readValid } from '../../http/validate'

const Body = Type.Object({ device: Id }, { additionalProperties: false })

/**
 * The key that seals this member's work on this device: the same at every sign-in, whatever became of
 * the password; another for every member and every device.
 * @source RFC 5869 (HKDF)
 */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  const { device } = await readValid(event, Body)
  const secret = await sealingSecret(useDb(), me.crewId, me.memberId)
  const key = hkdfSync('sha256', secret, device, 'multivox work on a device', 32)
  setResponseHeader(event, 'cache-control', 'no-store')
  return { key: Buffer.from(key).toString('base64') }
})
