/** A finished job as a method: the same fit for the next vehicle, and the one after, each with what is its own. */
import { jobOf } from '../job/schema'
import { asTemplate, remapped } from '../job/copy'
import type { Maker } from '../job/defaults'
import type { Job, JobDocument, Node, Photo } from '../job/schema'
import { between, nearestTo } from '../site/frame'
import { num } from '../units'
import type { Words } from '../words'
import { keyOf, metres, words } from '../words'

/** Most that are made at once. */
export const MOST_UNITS = 60

/**
 * The job of one unit, under ids of its own: the plan of the method at the place where it was fitted, aimed at the same
 * mast; nothing that was read, said or ticked there.
 * @returns the document, and which id of the method became which
 */
export function unitOf(method: JobDocument, name: string, newId: Maker): ReturnType<typeof remapped> {
  const [job] = method.jobs as [Job]
  const plan = asTemplate(method, name)
  const mastOf = new Map(method.designs.map(d => [d.id, d.mastId]))
  const { customerName, customerContact, carrier } = job
  const { document, ids } = remapped(
    {
      ...plan,
      sites: method.sites,
      designs: plan.designs.map(d => ({ ...d, mastId: mastOf.get(d.id) ?? null })),
      jobs: plan.jobs.map(j => ({ ...j, customerName, customerContact, carrier })),
    },
    newId,
  )
  // After the ids are new: the method is another job, and keeps its own.
  return { document: { ...document, jobs: document.jobs.map(j => ({ ...j, methodId: methodIdOf(job) })) }, ids }
}

/** @returns the job that a fleet is made from: this one, or the one it was made from itself */
export const methodIdOf = (job: Pick<Job, 'id' | 'methodId'>): string => job.methodId ?? job.id

/**
 * @returns names of units, one a line, without blanks and without those that stand twice
 * @throws RangeError where none or too many are left
 */
export function unitNames(text: string): string[] {
  const names = [
    ...new Set(
      text
        .split(/\r?\n/)
        .map(n => n.trim())
        .filter(Boolean),
    ),
  ]
  if (!names.length) throw new RangeError('one name a line: a number plate, a berth, a room')
  if (names.length > MOST_UNITS) throw new RangeError(`${names.length} names; ${MOST_UNITS} at once at most`)
  const long = names.find(n => n.length > 120)
  if (long) throw new RangeError(`“${long.slice(0, 30)}…” is longer than 120 letters`)
  return names
}

const planOf = (d: JobDocument): { nodes: Node[]; runs: JobDocument['runs'] } => ({
  nodes: d.nodes.filter(n => n.designId === jobOf(d).designId),
  runs: d.runs.filter(r => r.designId === jobOf(d).designId),
})

/** Parts nearer to where the method has them are where it has them, m. */
const SAME_PLACE_M = 0.05
const SAME_LENGTH_M = 0.05

const heldBy = ({ fixing }: Node): Words => {
  if (!fixing) return 'what nobody noted'
  const poleM = fixing.sections.reduce((sum, s) => sum + s.lengthM, 0)
  return words`${fixing.mount}${poleM ? words`, pole ${metres(poleM)}` : ''}`
}
const fedBy = ({ feed }: Node): string => {
  if (!feed) return 'what is usual'
  const wire = [feed.wire, feed.fuseA === null ? null : `fuse ${num(feed.fuseA, feed.fuseA % 1 ? 1 : 0)} A`]
  return [`${feed.volts} V through its ${feed.through}`, ...wire.filter(Boolean)].join(', ')
}

/** @returns where a unit's plan is not the method's, in words; parts are held against the nearest of their kind */
export function differencesOf(method: JobDocument, unit: JobDocument): Words[] {
  const [m, u] = [planOf(method), planOf(unit)]
  const left = [...m.nodes]
  const out: Words[] = []
  for (const node of u.nodes) {
    const alike = left.filter(n => n.partId === node.partId)
    const nearest = nearestTo(node, alike)
    const name = node.part?.name ?? node.partId
    if (!nearest) {
      out.push(`${name} added`)
      continue
    }
    left.splice(left.indexOf(nearest), 1)
    const { distanceM } = between(nearest, node)
    if (distanceM > SAME_PLACE_M) out.push(words`${name} ${metres(distanceM)} elsewhere`)
    if (keyOf(heldBy(node)) !== keyOf(heldBy(nearest))) out.push(words`${name} held by ${heldBy(node)}`)
    if (fedBy(node) !== fedBy(nearest)) out.push(`${name} fed by ${fedBy(node)}`)
  }
  for (const n of left) out.push(`${n.part?.name ?? n.partId} left out`)
  const total = (runs: JobDocument['runs']) => runs.reduce((sum, r) => sum + r.lengthM, 0)
  const more = total(u.runs) - total(m.runs)
  if (Math.abs(more) > SAME_LENGTH_M) out.push(words`${metres(Math.abs(more))} of cable ${more > 0 ? 'more' : 'less'}`)
  return out
}

/** What one unit taught, told to the others at the step it was about. */
export interface Lesson {
  /** the step, as its card words it */
  words: string
  text: string
  by: string | null
  /** name of the unit */
  from: string
  fromId: string
}

/** @returns lessons of a document, the last word on each; `about` of a lesson's check is the step as worded */
export const lessonsOf = (doc: Pick<JobDocument, 'checks' | 'jobs'>): Lesson[] =>
  doc.checks
    .filter(c => c.kind === 'lesson' && c.done && c.reason && c.about)
    .map(c => ({ words: c.about!, text: c.reason!, by: c.by, from: jobOf(doc).name, fromId: jobOf(doc).id }))

/** @returns what others taught about a step, without what this job has itself, each text once */
export function offered(lessons: readonly Lesson[], own: readonly Lesson[], words: string): Lesson[] {
  const known = new Set(own.filter(l => l.words === words).map(l => l.text))
  return lessons.filter(l => {
    if (l.words !== words || known.has(l.text)) return false
    known.add(l.text)
    return true
  })
}

/** A photograph of the method, to be looked at when a unit comes to the step at which it was taken. */
export interface MethodPhoto extends Pick<Photo, 'id' | 'caption'> {
  jobId: string
  words: string | null
}
