import { Type } from '@sinclair/typebox'
import { goodToken } from '../../services/tokens'
import { useDb } from '../../data/db'
import { problem } from '../../http/problem'
import { readValid } from '../../http/validate'

const Body = Type.Object({ token: Type.String({ maxLength: 100 }) }, { additionalProperties: false })

/** What a one-time link is for, without using it. */
export default defineEventHandler(async event => {
  const { token } = await readValid(event, Body)
  const found = await goodToken(useDb(), token)
  return found
    ? { kind: found.kind }
    : problem(410, 'This link was used already, was replaced or has run out. Ask a lead for a new one.')
})
