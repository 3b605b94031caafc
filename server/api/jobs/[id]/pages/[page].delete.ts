import { withdrawCustomerPage } from '../../../../services/customer-pages'
import { validUuid } from '../../../../data/check'
import { useDb } from '../../../../data/db'
import { requireJobId } from '../../../../http/job'
import { problem } from '../../../../http/problem'

/** Withdraws a customer's link: whoever opens it reads that there is nothing. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event, 'installer')
  const id = getRouterParam(event, 'page')
  if (!validUuid(id) || !(await withdrawCustomerPage(useDb(), me.crewId, jobId, id))) problem(404, 'No such link.')
  return { withdrawn: true }
})
