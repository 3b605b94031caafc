/** Gates before a step, each about one thing: a place of the ladder, a hole, a pole, a box. */
import type { TreeNode } from '../chain/tree'
import { isOverhead, isUp, raisedM } from '../install/raising'
import type { Fixture } from '../job/schema'
import type { Demand } from '../judge/demands'
import { digest } from '../judge/ticks'
import { between } from '../site/frame'
import type { Point } from '../site/frame'
import type { GateNeed } from './gates'
import type { CardContext, Draft } from './step'

const placeOf = (p: Point): string => [p.eastM, p.northM, p.upM].map(v => v.toFixed(2)).join(' ')
/** Where the ladder stands is told once all steps are known: see `withStands`. */
const UNPLACED = ''

/** Outdoors out of reach: a climb. Within and overhead: a stepladder. */
export function heightGates(p: Point, { building }: Pick<CardContext, 'building'>): GateNeed[] {
  if (isUp(p, building)) return [{ gate: 'climb', of: UNPLACED, about: '' }]
  return isOverhead(p, building) ? [{ gate: 'ladder', of: UNPLACED, about: '' }] : []
}

/** A hole at a part: for its screws, or through what it hangs on. */
export const holeAt = ({ node }: TreeNode, hole: NonNullable<GateNeed['hole']>): GateNeed => ({
  gate: 'drill',
  of: node.id,
  about: digest(`${placeOf(node)} ${node.partId} ${node.fixing?.mount ?? ''} ${hole}`),
  hole,
})

/** A hole that a way in makes. */
export const holeOf = (at: Fixture): GateNeed => ({
  gate: 'drill',
  of: at.id,
  about: digest(`${placeOf(at)} ${at.entry ?? ''}`),
  hole: 'through',
})

export const raising = ({ node }: TreeNode): GateNeed => ({
  gate: 'raise',
  of: node.id,
  about: digest(`${node.eastM.toFixed(2)} ${node.northM.toFixed(2)} ${raisedM(node)}`),
  assembledM: raisedM(node),
})

/** @param wired  two wires come to it, or to the inverter that it is plugged into */
export const energising = ({ node, part }: TreeNode, wired: boolean): GateNeed => ({
  gate: 'energise',
  of: node.id,
  about: digest(`${placeOf(node)} ${part.id}`),
  supply: wired ? 'wired' : 'plugged',
})

/** A box that sends: its own antennas are on, people stand off. A booster is registered too. */
export const transmitting = ({ node, part }: TreeNode): GateNeed => ({
  gate: 'transmit',
  of: node.id,
  about: digest(`${placeOf(node)} ${part.id}`),
  ...(part.kind === 'amplifier' && { booster: true as const }),
})

/** A flame and its gas behind the way that a cable takes. */
export const byFlame = (at: Fixture): GateNeed => ({ gate: 'gas', of: at.id, about: digest(placeOf(at)) })

/** What the plan lacks for a step: noted there, or decided here by a name. */
export function lacking(demands: readonly Demand[], of: string): GateNeed[] {
  const missing = demands.filter(d => d.state === 'missing')
  if (!missing.length) return []
  const lacks = missing.map(d => ({ key: d.key, words: d.asks }))
  return [{ gate: 'plan', of, about: digest(lacks.map(l => l.key).join(' ')), lacks }]
}

/** Steps so near beside each other are done from one place of the ladder, m. @source common practice (no source) */
const ONE_STAND_M = 2.5

/** Gives every climb and stepladder its place: of steps beside each other it is one, of others never the same. */
export function withStands(drafts: readonly Draft[]): Draft[] {
  const stands: { id: string; gate: string; at: Point }[] = []
  return drafts.map(d => ({
    ...d,
    gates: (d.gates ?? []).map(need => {
      if (need.gate !== 'climb' && need.gate !== 'ladder') return need
      if (!d.at) return { ...need, of: d.id, about: d.id }
      let stand = stands.find(s => s.gate === need.gate && between(s.at, d.at!).groundM <= ONE_STAND_M)
      if (!stand) {
        stand = { id: d.id, gate: need.gate, at: d.at }
        stands.push(stand)
      }
      return { ...need, of: stand.id, about: digest(placeOf(stand.at)) }
    }),
  }))
}
