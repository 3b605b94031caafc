import { hkdfSync } from 'node:crypto'
import { Type } from '@sinclair/typebox'
import { and, eq } from 'drizzle-orm'
import { Id } from '../../../core/job/fields'
import { members } from '../../database/schema'

const Body = Type.Object({ device: Id }, { additionalProperties: false })

/**
 * The key that seals this member's work on this device: the same at every sign-in, whatever became of
 * the password; another for every member and every device.
 * @source RFC 5869 (HKDF)
 */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  const { device } = await readValid(event, Body)
  const [row] = await useDb()
    .select({ secret: members.sealingSecret })
    .from(members)
    .where(and(eq(members.crewId, me.crewId), eq(members.id, me.memberId)))
  const key = hkdfSync('sha256', row!.secret, device, 'multivox work on a device', 32)
  setResponseHeader(event, 'cache-control', 'no-store')
  return { key: Buffer.from(key).toString('base64') }
})
