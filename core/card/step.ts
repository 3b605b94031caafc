/** What a step of the card is, and what it is made from. */
import type { Tree, TreeNode } from '../chain/tree'
import type { Design, JobDocument } from '../job/schema'
import type { Assessment } from '../judge/assess'
import type { Building } from '../site/building'
import type { Point } from '../site/frame'
import { keyOf, words } from '../words'
import type { Words } from '../words'
import type { GateNeed } from './gates'

export { isUp } from '../install/raising'

/** Where somebody stands for a step. What needs a network comes first; what is up is done in one climb. */
export type Stand = 'in coverage' | 'ground' | 'up'

export interface Step {
  /** the same as long as the plan has it: what it is, and of which row */
  id: string
  words: string
  /**
   * the same by its parts' catalogue names: what a mark and a lesson are held against, so that another name of a part, or
   * better words, are no change of the plan
   */
  plain: string
  stand: Stand
  /** where on the picture; null where it is nowhere in particular */
  at: Point | null
  parts: Words[]
  tools: string[]
  /** how, in the order in which it is done */
  then: string
  /** what is to be read or kept to */
  figure: Words | null
  /** what is photographed before it is hidden */
  photo: string | null
  /** gates that stand before it, each with what it is about; all must be open */
  gates: readonly GateNeed[]
  /** least, likely, most, minutes */
  minutes: readonly [number, number, number]
  /** minutes that pass after it before what needs it can begin: what was filled or glued hardens */
  hardensMin: number
  people: 1 | 2
  dry: boolean
  /** steps that come before it */
  needs: string[]
  /** keys of the list without which it cannot be done */
  takes: string[]
  /** somebody added it */
  own: boolean
  /** whether the job itself shows that it is done: an aim is locked, the rooms are tested; null where only a person can say */
  shown: boolean | null
  /** a short sum of what of the plan it turns on: a step that was done is held against it */
  about: string
}

/** A step as its maker says it: what it does not say is none. */
export type Draft = Omit<
  Step,
  | 'about'
  | 'tools'
  | 'parts'
  | 'figure'
  | 'photo'
  | 'gates'
  | 'hardensMin'
  | 'people'
  | 'dry'
  | 'takes'
  | 'own'
  | 'shown'
  | 'plain'
> &
  Partial<Step> & {
    /** facts of the plan that it turns on and that neither its words nor its figure or parts name */
    turnsOn?: string
  }

/** What of an assessment the steps are made from. */
export type Planned = Pick<Assessment, 'tree' | 'lengths' | 'drill' | 'levels' | 'demands'>

/** A plan, with what every maker of steps asks of it. */
export interface CardContext {
  doc: JobDocument
  design: Design
  a: Planned & { tree: Tree }
  building: Building
  labels: Map<string, string>
}

export const partKey = (n: TreeNode): string => `part:${n.part.id}`
export const nameOf = (n: TreeNode): string => n.name
/** What it is called in the catalogue, on its box and on the list. */
export const catalogueName = (n: TreeNode): string => n.part.name

/** @returns a step's words by the names of its parts, and plainly by those of the catalogue */
export const worded = (say: (name: (n: TreeNode) => string) => string): Pick<Step, 'words' | 'plain'> => ({
  words: say(nameOf),
  plain: say(catalogueName),
})

/** @returns each name once, with how often it stands where that is more than once */
export function tally(names: readonly Words[]): Words[] {
  const counts = new Map<string, { name: Words; n: number }>()
  for (const name of names) {
    const key = keyOf(name)
    counts.set(key, { name, n: (counts.get(key)?.n ?? 0) + 1 })
  }
  return [...counts.values()].map(({ name, n }) => (n > 1 ? words`${n} × ${name}` : name))
}
