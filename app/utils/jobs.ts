import { standing } from '#core/job/changes'
import { lastCheck } from '#core/judge/ticks'
import type { JobDocument } from '#core/job/schema'
import type { JobListItem, JobState } from '../../shared/api'

const ACTS_BACKWARD: readonly Exclude<JobState, 'new'>[] = ['keep', 'prove', 'fit', 'plan', 'scout']

/** A job as the list shows it, worked out from its document where the server cannot be asked. */
export function jobListItem(d: JobDocument): JobListItem {
  const job = d.jobs[0]!
  const site = d.sites[0]
  const after = new Set(d.setups.filter(s => s.mark === 'after').map(s => s.id))
  const acts = {
    scout: standing(d.readings).length > 0,
    plan: d.nodes.some(n => n.part?.kind === 'antenna'),
    fit: d.designs.some(x => x.aimedDeg !== null) || (lastCheck(d, 'step', 'clear')?.done ?? false),
    prove: standing(d.speedRuns).some(r => after.has(r.setupId ?? '')),
    keep: d.checks.some(c => c.key === 'handover' && c.done),
  }
  return {
    id: job.id,
    name: job.name,
    kind: job.kind,
    state: ACTS_BACKWARD.find(a => acts[a]) ?? 'new',
    latDeg: site?.latDeg ?? null,
    lonDeg: site?.lonDeg ?? null,
    changedAt: new Date().toISOString(),
    spots: d.spots.length,
    readings: d.readings.length,
    customerName: job.customerName ?? null,
    agreedDownMbps: job.agreedDownMbps ?? null,
    nextOn: job.nextOn ?? null,
    fleet: job.methodId !== null,
    cardBegun: d.checks.some(c => c.kind === 'step' && c.done),
    acts,
  }
}
