/** A kit laid out on a copy of the job, to be promised or compared: nobody keeps it. */
import type { Evidence } from '../aim/bearings'
import { kitChanges } from '../fitting/usual-kit'
import type { Kit, PartChoice } from '../fitting/usual-kit'
import { applyChanges } from '../job/changes'
import type { Design, JobDocument } from '../job/schema'
import { contextOf } from './context'
import type { Context } from './context'

/** What every trial is made on. */
export interface Asked {
  document: JobDocument
  evidence: Evidence
  atUtc: string
  /** the job as it stands */
  c: Context
}

/** Only the context is made: none of it is judged. */
export function tried({ document, evidence, atUtc, c }: Asked, design: Design, kit: Kit, choice: PartChoice = {}): Context {
  const bearingDeg = c.chosen?.path ? c.chosen.frameBearingDeg : null
  return contextOf(applyChanges(document, kitChanges(document, design, kit, bearingDeg, throwaway(), choice)), evidence, atUtc)
}

/** Ids of rows that no one keeps. */
function throwaway(): () => string {
  let n = 0
  return () => `00000000-0000-7000-8000-${(++n).toString().padStart(12, '0')}`
}
