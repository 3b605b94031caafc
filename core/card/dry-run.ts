/** What the dry run read beside what the plan says, and where it is not as expected what may be behind it. */
import type { DryRead } from '../judge/drill'
import type { Assessment } from '../judge/assess'
import { lastCheck } from '../judge/ticks'
import type { Check, JobDocument } from '../job/schema'
import type { Section } from '../judge/finding'
import { num } from '../units'
import { say } from '../words'

export const readKey = (r: Pick<DryRead, 'quantity' | 'where'>): string => `${r.quantity}:${r.where}`.slice(0, 160)

export interface ReadBeside extends DryRead {
  key: string
  /** as read; null while it was not */
  said: Check | null
  value: number | null
  /** read − expected */
  off: number | null
  stop: boolean
}

export function readsBeside(doc: Pick<JobDocument, 'checks'>, reads: readonly DryRead[]): ReadBeside[] {
  return reads.map(r => {
    const key = readKey(r)
    const said = lastCheck(doc, 'read', key)
    const value = said?.done ? (said.value ?? null) : null
    const stop = value !== null && (r.stopWhen === 'under' ? value < r.stopAt : value > r.stopAt)
    return { ...r, key, said, value, off: value === null ? null : value - r.expected, stop }
  })
}

export interface Cause {
  words: string
  look: string
  /** where the plan is mended */
  section: Section
  /** how much this job's own evidence speaks for it; only their order counts */
  weight: number
}

/**
 * Likely causes of a dry run that is not as expected, those that this job's own evidence speaks for first: what was
 * assumed before what was measured, what fits all that was read before what fits a part of it.
 * @source common practice (no source)
 */
export function causesOf(reads: readonly ReadBeside[], a: Pick<Assessment, 'drill' | 'lengths' | 'tree'>): Cause[] {
  const short = reads.filter(r => r.value !== null && r.stop)
  if (!short.length) return []
  const low = (q: DryRead['quantity']) => reads.some(r => r.quantity === q && r.value !== null && r.value < r.expected && r.stop)
  const fine = (q: DryRead['quantity']) => reads.some(r => r.quantity === q && r.value !== null && !r.stop)
  const levelOff = Math.min(0, ...short.filter(r => r.quantity === 'RSRP').map(r => r.off!))
  const assumed = (part: string) => a.drill.assumed.some(x => say(x.what, 'metric').includes(part))
  const unmeasured = a.lengths.filter(l => !l.joint.run.measured).length
  const out: Cause[] = []
  if (low('RSRP') || low('total at the donor port')) {
    out.push({
      words: `a plug that is not home, or a damaged cable: ${num(-levelOff)} dB are missing`,
      look: 'each joint by hand, the far end read with the next cable left out',
      section: 'route',
      weight: 3 + (a.tree?.joints.length ?? 0) / 10,
    })
    out.push({
      words: assumed('level at the mount')
        ? 'the level at the mount was reckoned, never read there'
        : 'the donor is not aimed as planned, or stands lower',
      look: 'phone at the very mount, three readings; then turn it, 15° either way',
      section: assumed('level at the mount') ? 'survey' : 'bearings',
      weight: assumed('level at the mount') ? 5 : 2,
    })
    if (unmeasured)
      out.push({
        words: `${unmeasured === 1 ? 'a cable' : `${unmeasured} cables`} longer than the picture says`,
        look: 'tape along the way',
        section: 'route',
        weight: levelOff < -6 ? 0.5 : 1.5,
      })
  }
  if (low('gain'))
    out.push({
      words: assumed('isolation') ? 'the two antennas hear each other more than the sum says' : 'the booster holds itself back',
      look: 'lay the inside antenna two metres further off: where the gain comes back it is isolation',
      section: 'place',
      weight: assumed('isolation') ? 5 : 3,
    })
  if (reads.some(r => r.quantity === 'total at the donor port' && r.stop))
    out.push({
      words: 'a near mast overloads it',
      look: 'turn away from the loudest, or a pad; read again',
      section: 'level',
      weight: 6,
    })
  if (low('SINR'))
    out.push({
      words: fine('RSRP')
        ? 'the level is there, its neighbours too: another cell shares the direction'
        : 'too little signal over the noise',
      look: 'another bearing, another band, the antenna lower behind the ridge',
      section: 'bearings',
      weight: fine('RSRP') ? 5 : 2,
    })
  if (low('download'))
    out.push({
      words: fine('RSRP') ? 'the cell is busy, or the plan is capped: the signal is as reckoned' : 'it follows from the level',
      look: 'the same test at a quiet hour, with another SIM',
      section: 'ask',
      weight: fine('RSRP') ? 4 : 0.5,
    })
  return out.sort((x, y) => y.weight - x.weight)
}

/** The dry run may be called done: all that matters was read, and nothing of it stops. */
export const mayGoOn = (reads: readonly ReadBeside[]): boolean => reads.every(r => r.value !== null && !r.stop)
