import { v7 as uuidv7 } from 'uuid'
import { handovers } from '../../../database/schema'
import { assessOnServer } from '../../../services/report'

/** Freezes the document, its result and the engine that made it. */
export default defineEventHandler(async (event) => {
  const { me, jobId, snapshot } = await requireJob(event, 'installer')
  const result = await assessOnServer(useDb(), me.crewId, snapshot.document, new Date().toISOString())
  const id = uuidv7()
  await useDb().insert(handovers).values({ crewId: me.crewId, id, jobId, engine: result.engine, document: snapshot.document, result, madeBy: me.name })
  return { id }
})
