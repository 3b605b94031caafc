/**
 * Go/stop ticks: each has a person, a time and a place, and holds for what it named. It lapses after twelve
 * hours, on leaving the place, and when what it names has changed; lapsed ones stay on record.
 */
import { jobOf } from '../job/schema'
import type { Check, JobDocument } from '../job/schema'
import { presentStop } from '../survey/place'
import { cautionsFor } from './cautions'
import type { Caution } from './cautions'
import type { Section } from './finding'

/** @source common practice (no source): one working day */
export const TICK_HOLDS_H = 12

/** What a tick of a section names now: the parts that stand where people climb, drill or wire. */
export function aboutOf(doc: JobDocument, section: Section): string {
  const nodes = doc.nodes.filter(n => n.designId === doc.jobs[0]?.designId)
  const named = nodes.filter(n => section !== 'aim' || (n.part?.kind === 'antenna' && n.part.use === 'outside'))
  const text = named
    .map(n => [n.partId, n.eastM, n.northM, n.upM].join(' '))
    .sort()
    .join('; ')
  return digest(text)
}

/** A short sum of a text: two that differ are told apart, nothing more. @source FNV-1a, 32 bits */
export function digest(text: string): string {
  let h = 0x811c9dc5
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193) >>> 0
  return `${text.length}.${h.toString(36)}`
}

/** @returns the tick that holds now for a caution; null where none was made, or it has lapsed */
export function standingTick(doc: JobDocument, caution: Pick<Caution, 'key' | 'section'>, atUtc: string): Check | null {
  const last = lastCheck(doc, 'tick', caution.key)
  if (!last?.done || !last.atUtc) return null
  const ageH = (Date.parse(atUtc) - Date.parse(last.atUtc)) / 3_600_000
  if (!(ageH >= -0.1 && ageH < TICK_HOLDS_H)) return null
  if ((last.stopId ?? null) !== (presentStop(doc)?.id ?? null)) return null
  return last.about === aboutOf(doc, caution.section) ? last : null
}

/** @returns the last word on each key of a kind */
export function lastChecks(doc: Pick<JobDocument, 'checks'>, kind: Check['kind']): Map<string, Check> {
  const last = new Map<string, Check>()
  for (const c of doc.checks) {
    if (c.kind !== kind) continue
    const held = last.get(c.key)
    if (!held || (c.atUtc ?? '') >= (held.atUtc ?? '')) last.set(c.key, c)
  }
  return last
}

/** @returns the last word in the log of checks on something, lapsed or not; null where nobody said any */
export const lastCheck = (doc: Pick<JobDocument, 'checks'>, kind: Check['kind'], key: string): Check | null =>
  lastChecks(doc, kind).get(key) ?? null

/** @returns whether every caution that asks for a tick has one that holds */
export const allTicked = (doc: JobDocument, section: Section, atUtc: string): boolean =>
  cautionsFor(section, jobOf(doc).kind).every(c => !c.tick || standingTick(doc, c, atUtc) !== null)
