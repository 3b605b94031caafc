/** What "show working" opens: a number with where it came from; and what is judged of it. */
import type { Step } from '../fitting/splice'
import type { Provenance } from '../units'
import type { Words } from '../words'

export interface Figure {
  value: number
  unit: string
  low: number
  high: number
  formulaId: string
  /** the formula as printed, and what went in */
  formula: string
  inputs: { name: string; value: number | string; unit: string; provenance: Provenance }[]
  source: string
  assumed: boolean
}

export type Severity = 'stop' | 'fix' | 'note' | 'good'
export type Act = 'scout' | 'plan' | 'fit' | 'prove' | 'keep'
export type Section =
  | 'ask'
  | 'survey'
  | 'bearings'
  | 'choose'
  | 'place'
  | 'level'
  | 'route'
  | 'card'
  | 'list'
  | 'aim'
  | 'proof'
  | 'commission'
  | 'handover'

/** One change to a field of a row, or a row to add, that would cure a finding. */
export type CureStep = Step

export interface Cure {
  label: Words
  gain: Words
  cost: Words
  /** true where it is enough by itself */
  enough: boolean
  steps: CureStep[]
}

export interface Finding {
  /** `code:subjectId` */
  key: string
  code: string
  subjectId: string
  severity: Severity
  section: Section
  title: Words
  sentence: Words
  because: Words
  source: string
  cures: Cure[]
  /** cures are worked out when it is opened */
  solves?: boolean
  /** people can be killed by it: nobody can accept it away */
  holds?: true
  /** something that is not known: where it is noted; it may be decided on site too, by a name */
  noted?: { section: Section; layer?: string }
  accepted?: { reason: string; by: string }
}

export const SEVERITY_ORDER: readonly Severity[] = ['stop', 'fix', 'note', 'good']

export type Draft = Omit<Finding, 'key' | 'cures' | 'section'> & { cures?: Cure[] }

export const finding = (section: Section, d: Draft): Finding => ({
  ...d,
  section,
  cures: d.cures ?? [],
  key: `${d.code}:${d.subjectId}`,
})

export const COMMON = 'common practice (no source)'
