import { listCustomerPages } from '../../../../services/customer-pages'
import { useDb } from '../../../../data/db'
import { requireJobId } from '../../../../http/job'

/** The customer's links of a job: when made, until when, how often opened; never the links themselves. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event)
  return listCustomerPages(useDb(), me.crewId, jobId)
})
