/** What is open where a job is handed over: the paper names it, and somebody takes it over by name. */
import { cardOf } from '../card/card'
import type { Check, JobDocument } from '../job/schema'
import type { Assessment } from '../judge/assess'
import { lastCheck } from '../judge/ticks'
import { sure } from '../sure'
import { words } from '../words'
import type { Words } from '../words'

export interface Open {
  /** title and sentence of each finding that is not settled */
  findings: Words[]
  /** of findings left for the site: what was left, and who left it */
  left: Words[]
  /** steps of the card that nobody did */
  steps: Words[]
}

export const TAKEN_OPEN = 'handover-open'

export function openOf(doc: JobDocument, a: Assessment): Open {
  const bad = a.findings.filter(f => f.severity === 'stop' || f.severity === 'fix')
  return {
    findings: bad.filter(f => !f.accepted).map(f => words`${f.title}: ${f.sentence}`),
    left: bad.filter(f => f.accepted && f.noted).map(f => words`${f.title} (${sure(f.accepted).by}: ${sure(f.accepted).reason})`),
    steps: cardOf(doc, a)
      .steps.filter(s => !s.done)
      .map(s => (s.notSo ? `${s.words}: ${s.notSo}` : s.words)),
  }
}

export const countOpen = (o: Open): number => o.findings.length + o.left.length + o.steps.length

/** `3 findings and 1 step are open`; empty where nothing is. */
export function sayOpen(o: Open): string {
  const found = o.findings.length + o.left.length
  const parts = [
    found && `${found} ${found === 1 ? 'finding' : 'findings'}`,
    o.steps.length && `${o.steps.length} ${o.steps.length === 1 ? 'step' : 'steps'}`,
  ].filter(Boolean)
  return parts.length ? `${parts.join(' and ')} ${countOpen(o) === 1 ? 'is' : 'are'} open` : ''
}

/** Who took it over as it stands; null where nobody did. */
export function takenOpen(doc: Pick<JobDocument, 'checks'>): Check | null {
  const said = lastCheck(doc as JobDocument, 'tick', TAKEN_OPEN)
  return said?.done && said.by ? said : null
}
