/** Each act in a few words: what is done there, or what is open. An act is green only when nothing of it is open. */
import { nth } from '../sure'
import { given, num } from '../units'
import { answers } from '../connect/lanes'
import { metOf } from '../promise/promise'
import type { Proof } from '../prove/proof'
import type { PromiseView } from '../promise/view'
import { servedShare } from '../separation/isolation'
import type { Context } from './context'
import type { Act, Finding, Section } from './finding'
import { concat } from '../words'
import type { Words } from '../words'
import { lastCheck } from './ticks'

export interface ActState {
  words: string
  /** 0…1 */
  done: number
  state: 'empty' | 'open' | 'trouble' | 'done'
  /** what keeps it from being green, the worst first; none where it is */
  open: Words[]
}

const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`
const PLANNED: ReadonlySet<Section> = new Set(['choose', 'place', 'level', 'route'])
/** An area is served where so much of it is. Assumed. */
const SERVED = 0.9

/** What all acts are told from. */
export interface Judged {
  findings: readonly Finding[]
  proof: Proof
  promise: PromiseView | null
}

export function actStates(c: Context, j: Judged): Record<Act, ActState> {
  return { scout: scout(c), plan: plan(c, j), fit: fit(c), prove: prove(c, j), keep: keep(c) }
}

function scout(c: Context): ActState {
  const { doc, job } = c
  const readings = c.log.readings.filter(r => r.phase === 'before').length
  const reach = c.masts.filter(m => m.matchesCarrier && m.usable).length
  const open = [
    doc.sites[0]?.latDeg == null && 'the position is missing',
    job.agreedDownMbps === null && !job.agreedCalls && 'nothing is agreed yet',
    !readings && 'nothing was read yet',
    !doc.spots.some(s => s.id === job.baselineSpotId) && 'no place is the baseline',
    !reach && 'no mast is in reach',
  ].filter((w): w is string => !!w)
  const words =
    readings || reach
      ? `${plural(readings, 'reading')}, ${plural(reach, 'mast')}`
      : doc.sites[0]?.latDeg === null
        ? 'position wanted'
        : 'nothing read yet'
  return { words, done: 1 - open.length / 5, state: open.length ? (readings || reach ? 'open' : 'empty') : 'done', open }
}

/** What of the plan is short, whatever its parts say: what was agreed, rooms, area. */
function shortOf(c: Context, promise: PromiseView | null): string[] {
  const { job } = c
  const out: string[] = []
  if (promise) {
    if (job.agreedDownMbps !== null && promise.down.median < job.agreedDownMbps)
      out.push(`download short by ${num(job.agreedDownMbps - promise.down.median, 1)} of ${given(job.agreedDownMbps)} Mbit/s`)
    if (job.agreedUpMbps !== null && metOf(promise.up, job.agreedUpMbps) === 'unlikely')
      out.push(`upload short by ${num(job.agreedUpMbps - promise.up.median, 1)} of ${given(job.agreedUpMbps)} Mbit/s`)
  }
  const below = (c.main?.rooms ?? []).filter(r => !r.met && (r.spot.needed || c.job.agreedCalls))
  if (below.length) out.push(`below what is needed: ${below.map(r => r.spot.name).join(', ')}`)
  const served = Math.min(1, ...(c.main?.loops ?? []).map(l => (l.state === 'oscillating' ? 0 : servedShare(l.heldBackDb))))
  if (served < SERVED) out.push(`${num(100 * served)} % of the area served`)
  return out
}

function plan(c: Context, { findings, promise }: Judged): ActState {
  const design = c.design
  if (!design || !c.tree?.nodes.length) return { words: 'no kit yet', done: 0, state: 'empty', open: ['no kit is laid out'] }
  const bad = findings.filter(f => PLANNED.has(f.section) && (f.severity === 'stop' || f.severity === 'fix'))
  const settling = bad.filter(f => !f.accepted)
  const left = bad.filter(f => f.accepted && f.noted)
  const stops = settling.filter(f => f.severity === 'stop').length
  const short = c.main?.levels ? shortOf(c, promise) : []
  const open = [
    ...settling.map(f => f.title),
    ...short,
    ...(c.main?.levels ? [] : ['the level cannot be worked out yet']),
    ...left.map(f => concat('left for the site: ', f.title)),
  ]
  const toFix = settling.length - stops
  const words = stops
    ? `${plural(stops, 'stop')}, ${toFix} to fix`
    : toFix
      ? `${toFix} to fix`
      : !c.main?.levels
        ? 'no level yet'
        : short.length
          ? nth(nth(short, 0).split(','), 0).replace(/ of .*/, '')
          : left.length
            ? `${left.length} left for the site`
            : 'sum comes out'
  return {
    words,
    done: open.length ? Math.max(0.2, Math.min(0.9, 1 - open.length * 0.1)) : 1,
    state: stops ? 'trouble' : open.length ? 'open' : 'done',
    open,
  }
}

function fit({ doc, job, sweep }: Context): ActState {
  const design = doc.designs.find(d => d.id === job.designId)
  const isAimed = design?.aimedDeg !== null && design?.aimedDeg !== undefined
  return {
    words: isAimed
      ? 'aimed and locked'
      : sweep
        ? `sweep, ${plural(Math.max(1, sweep.passes), 'pass', 'passes')}`
        : 'not aimed yet',
    done: isAimed ? 1 : sweep?.result ? 0.6 : 0,
    state: isAimed ? 'done' : sweep ? 'open' : 'empty',
    open: isAimed ? [] : ['no aim is locked'],
  }
}

/** How far it is set up: connections first, what else is open after them. */
function setUpWords({ doc }: Context, open: number): string {
  const wanted = doc.connections.filter(r => !(r.use === 'by hand' && r.state === 'off'))
  const up = wanted.filter(r => answers(r.state)).length
  if (!doc.connections.length) return 'not commissioned'
  return up < wanted.length ? `${up} of ${plural(wanted.length, 'connection')} up` : `met; ${open} to set up`
}

function prove(c: Context, { findings, proof }: Judged): ActState {
  const { verdict } = proof
  const rooms = c.demands.filter(d => d.kind === 'room' && d.state === 'missing').map(d => `${d.of} is not tested yet`)
  const unset = findings.filter(f => f.section === 'commission' && f.severity === 'fix' && !f.accepted).map(f => f.title)
  const left = [...rooms, ...unset]
  const open = verdict.met === true ? left : [verdict.words, ...left]
  const isMet = verdict.met === true && !left.length
  return {
    words: verdict.met === true && left.length ? (rooms[0] ?? setUpWords(c, unset.length)) : verdict.short,
    done: isMet ? 1 : verdict.met === null ? 0 : 0.6,
    state: isMet ? 'done' : verdict.met === false ? 'trouble' : verdict.met === null && !proof.judged ? 'empty' : 'open',
    open,
  }
}

function keep({ doc }: Context): ActState {
  const isDone = lastCheck(doc, 'tick', 'handover')?.done ?? false
  return {
    words: isDone ? 'handed over' : 'handover open',
    done: isDone ? 1 : 0,
    state: isDone ? 'done' : 'empty',
    open: isDone ? [] : ['not handed over yet'],
  }
}
