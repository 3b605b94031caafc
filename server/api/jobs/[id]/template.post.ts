import { Type } from '@sinclair/typebox'
import { v7 as uuidv7 } from 'uuid'
import { makeJob } from '../../../services/archive'
import { asTemplate, remapped, Text } from '../../../../core/job'
import { useDb } from '../../../data/db'
import { requireJob } from '../../../http/job'
import { readValid } from '../../../http/validate'

const Body = Type.Object({ name: Text(120, 1) }, { additionalProperties: false })

/** A new job with this one's site, rooms and plans; nothing of its customer, its place, or what was read there. */
export default defineEventHandler(async event => {
  const { me, snapshot } = await requireJob(event, 'installer')
  const { name } = await readValid(event, Body)
  const { document } = remapped(asTemplate(snapshot.document, name), uuidv7)
  return makeJob(useDb(), me, document)
})
