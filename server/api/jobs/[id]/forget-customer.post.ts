import { forgetCustomer } from '../../../services/forget'
import { useDb } from '../../../data/db'
import { requireJobId } from '../../../http/job'
import { problem } from '../../../http/problem'

/** Takes the customer's data out of the job, of its log of changes, and of frozen handovers: all of it, or nothing and an error. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event, 'lead')
  if (!(await forgetCustomer(useDb(), me, jobId))) problem(404, 'No such job.')
  return { ok: true }
})
