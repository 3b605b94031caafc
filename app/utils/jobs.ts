import { jobOf, standing } from '#core/job'
import type { JobDocument } from '#core/job'
import { lastCheck } from '#core/judge'
import type { JobListItem, JobState } from '../../shared/api'

const ACTS_BACKWARD: readonly Exclude<JobState, 'new'>[] = ['keep', 'prove', 'fit', 'plan', 'scout']

/** A job as the list shows it, worked out from its document where the server cannot be asked. */
export function jobListItem(d: JobDocument, workers: string[] = []): JobListItem {
  const job = jobOf(d)
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
    readings: standing(d.readings).length,
    customerName: job.customerName ?? null,
    customerAddress: job.customerAddress ?? null,
    agreedDownMbps: job.agreedDownMbps ?? null,
    nextOn: job.nextOn ?? null,
    fleet: job.methodId !== null,
    cardBegun: d.checks.some(c => c.kind === 'step' && c.done),
    acts,
    workers,
  }
}

/** What comes next, where it is done, and what stands so far. */
export function nextOf(j: JobListItem): { to: string; words: string; so: string } {
  const spots = `${j.spots} spot${j.spots === 1 ? '' : 's'}`
  if (j.acts.keep) return { to: 'handover', words: 'Look it up', so: 'report and proof' }
  if (j.acts.prove) return { to: 'handover', words: 'Hand over', so: 'proven' }
  if (j.acts.fit) return { to: 'proof', words: 'Test the same spots', so: 'fitted' }
  if ((j.fleet || j.cardBegun) && j.acts.plan)
    return { to: 'card', words: 'Work through the card', so: j.cardBegun ? 'card begun' : 'one of a fleet' }
  if (j.latDeg === null) return { to: 'ask', words: 'Say where it is', so: spots }
  if (!j.acts.scout) return { to: 'survey', words: 'Take the first reading', so: spots }
  if (!j.acts.plan) return { to: 'bearings', words: 'Choose mast and kit', so: `${j.readings} readings` }
  return { to: 'level', words: 'Finish the plan', so: 'kit laid out' }
}
