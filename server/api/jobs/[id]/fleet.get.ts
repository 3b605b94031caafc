import { fleetOf } from '../../../services/fleet'
import { useDb } from '../../../data/db'
import { requireJobId } from '../../../http/job'
import { problem } from '../../../http/problem'

/** The fleet that a job belongs to, as its method or as one of it: who is how far, what differs, what one taught the others. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event)
  return (await fleetOf(useDb(), me.crewId, jobId)) ?? problem(404, 'No such job.')
})
