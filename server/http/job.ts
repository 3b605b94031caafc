import type { H3Event } from 'h3'
import { readJob } from '../services/document'
import type { Me, Role, JobSnapshot } from '../../shared/api'
import { validUuid } from '../data/check'
import { useDb } from '../data/db'
import { requireMember } from './member'
import { problem } from './problem'

/** The member and the job's id from the address; another crew's id answers as one that is not there. */
export async function requireJobId(event: H3Event, least: Role = 'viewer'): Promise<{ me: Me; jobId: string }> {
  const me = await requireMember(event, least)
  const jobId = getRouterParam(event, 'id')
  if (!validUuid(jobId)) problem(404, 'No such job.')
  return { me, jobId }
}

export async function requireJob(
  event: H3Event,
  least: Role = 'viewer',
): Promise<{ me: Me; jobId: string; snapshot: JobSnapshot }> {
  const { me, jobId } = await requireJobId(event, least)
  const snapshot = await readJob(useDb(), me.crewId, jobId)
  if (!snapshot) problem(404, 'No such job.')
  return { me, jobId, snapshot }
}
