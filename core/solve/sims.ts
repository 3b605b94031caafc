/**
 * Each carrier that the job has a SIM of: its masts in order, and what the same plan would bring aimed at its best;
 * before there is a plan, the usual kit.
 */
import type { Evidence, MastView } from '../masts/bearings'
import type { Design, JobDocument } from '../job/schema'
import { carriersOf } from '../survey/setups'
import type { Expected, Met } from '../promise/promise'
import { promiseIn } from '../judge/assess'
import { capOfSim, contextOf } from '../judge/context'
import { tried } from './trial'

/** So many masts of each are told. */
const MASTS_TOLD = 3

export interface SimSide {
  carrier: string
  /** names of the SIMs of it; none where the job alone names the carrier */
  sims: string[]
  /** whether the plan is aimed at a mast of it */
  planned: boolean
  /** best first, those alone that bring what a kit can use */
  masts: MastView[]
  /** that the figures below are for; null where none of its masts can be used from here */
  at: { mast: MastView; band: string | null } | null
  /** whether the figures are of the usual kit, since none is laid out yet */
  usualKit: boolean
  /** readings and speed tests by SIMs of it */
  readings: number
  tests: number
  capDownMbps: number | null
  down: Expected | null
  up: Expected | null
  /** at the first port of the box, dBm RSRP; null where none is laid out */
  portDbm: number | null
  where: string
  /** assumed rather than measured, in words */
  assumed: string[]
  met: Met | null
}

/** Turned to a mast of another carrier, nothing that was locked, typed or said of the first one's carrier holds. */
const turnedTo = (mastId: string, band: string | null): Partial<Design> => ({
  mastId,
  band,
  bandwidthMHz: null,
  carriersInBand: null,
  aimedDeg: null,
  aimedTiltDeg: null,
  aimedAtUtc: null,
})

/** What one carrier would bring by the plan of the job, on its own readings alone. */
export function sideOf(document: JobDocument, evidence: Evidence, atUtc: string, carrier: string): SimSide {
  const asked: JobDocument = { ...document, jobs: document.jobs.map(j => ({ ...j, carrier })) }
  const first = contextOf(asked, evidence, atUtc)
  const planned = first.chosen?.mast.carrier === carrier
  const masts = first.masts.filter(m => m.matchesCarrier && m.usable)
  const best = planned ? first.chosen! : masts[0]
  const band = planned ? (first.design?.band ?? null) : (best?.best?.band ?? null)
  const turned: JobDocument =
    planned || !best
      ? asked
      : {
          ...asked,
          designs: asked.designs.map(d => (d.id === first.design?.id ? { ...d, ...turnedTo(best.mast.id, band) } : d)),
        }
  const stands = turned === asked ? first : contextOf(turned, evidence, atUtc)
  const usualKit = !stands.tree?.nodes.length && !!stands.design
  const c = usualKit
    ? tried({ document: turned, evidence, atUtc, c: stands }, stands.design!, stands.design!.approach).laid
    : stands
  const promise = best ? promiseIn(c) : null
  return {
    carrier,
    sims: document.sims.filter(s => s.carrier === carrier).map(s => s.name),
    planned,
    masts: masts.slice(0, MASTS_TOLD),
    at: best ? { mast: best, band } : null,
    usualKit,
    readings: c.own.readings.length,
    tests: c.own.runs.length,
    capDownMbps: capOfSim(c).downMbps,
    down: promise?.down ?? null,
    up: promise?.up ?? null,
    portDbm: c.main?.levels?.modems[0]?.rsrpDbm ?? null,
    where: promise?.where ?? '',
    assumed: promise?.assumptions.map(a => a.words) ?? [],
    met: promise?.met ?? null,
  }
}

export const compareSims = (document: JobDocument, evidence: Evidence, atUtc: string): SimSide[] =>
  document.jobs[0] ? carriersOf(document).map(carrier => sideOf(document, evidence, atUtc, carrier)) : []
