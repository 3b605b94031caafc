import * as Type from '@sinclair/typebox'
import { Id } from '../../../../../core/job'
import { newCustomerPage } from '../../../../services/customer-pages'
import { useDb } from '../../../../data/db'
import { requireJobId } from '../../../../http/job'
import { problem } from '../../../../http/problem'
import { readValid } from '../../../../http/validate'

const Body = Type.Object({ handoverId: Id }, { additionalProperties: false })

/** Makes the customer's link to a handover. It is told once: of it the hash alone is kept. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event, 'installer')
  const { handoverId } = await readValid(event, Body)
  const token = await newCustomerPage(useDb(), me, jobId, handoverId)
  if (!token) problem(404, 'No such handover.')
  return { path: `/c/${token}` }
})
