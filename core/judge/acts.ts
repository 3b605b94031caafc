/** Each act in four words: what is done there, or what it lacks. */
import type { Proof } from '../promise/proof'
import type { Context } from './context'
import type { Act, Finding } from './finding'

export interface ActState {
  words: string
  /** 0…1 */
  done: number
  state: 'empty' | 'open' | 'trouble' | 'done'
}

const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`

export function matchesAct(c: Context, findings: readonly Finding[], proof: Proof): Record<Act, ActState> {
  const { doc, job, sweep } = c
  const levels = c.main?.levels ?? null
  const readings = c.log.readings.filter(r => r.phase === 'before').length
  const reach = c.masts.filter(m => m.matchesCarrier && m.usable).length
  const design = doc.designs.find(d => d.id === job.designId)
  const open = findings.filter(
    f =>
      !f.accepted && (f.severity === 'stop' || f.severity === 'fix') && ['choose', 'place', 'level', 'route'].includes(f.section),
  )
  const stops = open.filter(f => f.severity === 'stop').length
  const scoutSteps = [
    doc.sites[0]?.latDeg !== null,
    job.agreedDownMbps !== null || job.agreedCalls,
    readings > 0,
    doc.spots.some(s => s.id === job.baselineSpotId),
    reach > 0,
  ]
  const scoutDone = scoutSteps.filter(Boolean).length / scoutSteps.length
  const proven = proof.verdict
  return {
    scout: {
      words:
        readings || reach
          ? `${plural(readings, 'reading')}, ${plural(reach, 'mast')}`
          : doc.sites[0]?.latDeg === null
            ? 'position wanted'
            : 'nothing read yet',
      done: scoutDone,
      state: scoutDone === 1 ? 'done' : readings || reach ? 'open' : 'empty',
    },
    plan: {
      words: !design
        ? 'no kit yet'
        : stops
          ? `${plural(stops, 'stop')}, ${open.length - stops} to settle`
          : open.length
            ? `${open.length} to settle`
            : levels
              ? 'sum comes out'
              : 'no level yet',
      done: !design ? 0 : levels ? Math.max(0.2, 1 - open.length * 0.2) : 0.3,
      state: !design ? 'empty' : stops ? 'trouble' : open.length ? 'open' : levels ? 'done' : 'open',
    },
    fit: {
      words:
        design?.aimedDeg !== null && design?.aimedDeg !== undefined
          ? 'aimed and locked'
          : sweep
            ? `sweep, ${plural(Math.max(1, sweep.passes), 'pass', 'passes')}`
            : 'not aimed yet',
      done: design?.aimedDeg !== null && design?.aimedDeg !== undefined ? 1 : sweep?.result ? 0.6 : 0,
      state: design?.aimedDeg !== null && design?.aimedDeg !== undefined ? 'done' : sweep ? 'open' : 'empty',
    },
    prove: {
      words: proven.met === null ? 'not proven yet' : proven.short,
      done: proven.met === null ? 0 : 1,
      state: proven.met === null ? 'empty' : proven.met ? 'done' : 'trouble',
    },
    keep: {
      words: doc.checks.some(c => c.key === 'handover' && c.done) ? 'handed over' : 'handover open',
      done: doc.checks.some(c => c.key === 'handover' && c.done) ? 1 : 0,
      state: doc.checks.some(c => c.key === 'handover' && c.done) ? 'done' : 'empty',
    },
  }
}
