import { Type } from '@sinclair/typebox'
import { v7 as uuidv7 } from 'uuid'
import { methodIdOf, MOST_UNITS, unitOf } from '../../../../core/card'
import { jobOf, Text } from '../../../../core/job'
import { makeJob } from '../../../services/archive'
import { unitNamesOf } from '../../../services/fleet'
import { useDb } from '../../../data/db'
import { requireJob } from '../../../http/job'
import { readValid } from '../../../http/validate'

const Body = Type.Object(
  { names: Type.Array(Text(120, 1), { minItems: 1, maxItems: MOST_UNITS, uniqueItems: true }) },
  { additionalProperties: false },
)

/** Makes a job for each unit of a fleet from this one; those already there under their name are left alone. */
export default defineEventHandler(async event => {
  const { me, snapshot } = await requireJob(event, 'installer')
  const { names } = await readValid(event, Body)
  const db = useDb()
  const made: { jobId: string; name: string }[] = []
  const method = snapshot.document
  const there = new Set(await unitNamesOf(db, me.crewId, methodIdOf(jobOf(method))))
  const masts = new Set(snapshot.near.masts.map(m => m.id))
  for (const name of names.filter(n => !there.has(n))) {
    const { document } = unitOf(method, name, uuidv7)
    made.push(await makeJob(db, me, document, { masts }))
  }
  return { made }
})
