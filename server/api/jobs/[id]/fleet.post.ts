import { Type } from '@sinclair/typebox'
import { v7 as uuidv7 } from 'uuid'
import { asUnit, MOST_UNITS } from '../../../../core/card/fleet'
import { remapped } from '../../../../core/job/copy'
import { Text } from '../../../../core/job/fields'
import { makeJob } from '../../../services/archive'
import { unitNamesOf } from '../../../services/fleet'

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
  const there = new Set(await unitNamesOf(db, me.crewId, snapshot.document.jobs[0]!.methodId ?? snapshot.document.jobs[0]!.id))
  const masts = new Set(snapshot.near.masts.map(m => m.id))
  for (const name of names) {
    if (there.has(name)) continue
    const { document } = remapped(asUnit(snapshot.document, name), uuidv7)
    // The method is another job: its id is not one of those that were made anew.
    document.jobs[0]!.methodId = snapshot.document.jobs[0]!.methodId ?? snapshot.document.jobs[0]!.id
    made.push(await makeJob(db, me, document, { masts }))
  }
  return { made }
})
