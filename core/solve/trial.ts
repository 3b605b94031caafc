/** A kit laid out on a copy of the job, to be promised or compared: nobody keeps it. */
import type { Evidence } from '../masts/bearings'
import { kitChanges, padFor } from '../fitting/usual-kit'
import type { PartChoice } from '../fitting/layer'
import type { Kit } from '../fitting/usual-kit'
import { applyChanges } from '../job/changes'
import type { Design, JobDocument } from '../job/schema'
import { contextOf } from '../judge/context'
import type { Context } from '../judge/context'

/** What every trial is made on. */
export interface Asked {
  document: JobDocument
  evidence: Evidence
  atUtc: string
  /** the job as it stands */
  c: Context
}

/** A reading outside wanders by so much, and a cable is a little shorter than it was taken, dB. @source common practice (no source) */
export const RESERVE_DB = 3

export interface Trial {
  /** only the context is made: none of it is judged */
  laid: Context
  /** what it was laid out of, with what was found to be needed */
  choice: PartChoice
}

/** A kit laid out; where what arrives would overload its amplifier, with the pad that takes it away. */
export function tried({ document, evidence, atUtc, c }: Asked, design: Design, kit: Kit, choice: PartChoice = {}): Trial {
  const bearingDeg = c.chosen?.path ? c.chosen.frameBearingDeg : null
  const lay = (of: PartChoice) =>
    contextOf(
      applyChanges(document, kitChanges(document, design, kit, { bearingDeg, newId: throwaway(), choice: of })),
      evidence,
      atUtc,
    )
  const laid = lay(choice)
  const overDb = Math.max(0, ...laid.bands.flatMap(b => b.levels?.amplifiers ?? []).map(a => -a.inputMarginDb))
  if (overDb === 0) return { laid, choice }
  const padded = { ...choice, pad: padFor(overDb + RESERVE_DB) }
  return { laid: lay(padded), choice: padded }
}

/** Ids of rows that no one keeps. */
function throwaway(): () => string {
  let n = 0
  return () => `00000000-0000-7000-8000-${(++n).toString().padStart(12, '0')}`
}
