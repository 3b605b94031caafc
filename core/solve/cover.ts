/** Coverage of a floor of the job as it stands, and where antennas would serve it best. */
import { carriesRadio } from '../chain/data'
import { nth, sure } from '../sure'
import type { Evidence } from '../masts/bearings'
import { partOfKind } from '../catalogue/parts'
import { lineLossDb } from '../chain/line'
import { freeOutputDbm } from '../chain/levels'
import { CONNECTOR_PAIR_DB, turned } from '../chain/tree'
import { UNDER_CEILING_M } from '../fitting/layer'
import type { AntennaNode } from '../chain/tree'
import { coefficientAt, coverageOf, gridOf, HELD_M, linearGain, needsOfCells, planWalls, roomOfCell } from '../coverage/floor'
import type { FloorCoverage } from '../coverage/floor'
import { proposePlaces } from '../coverage/places'
import type { JobDocument } from '../job/schema'
import { toLinear } from '../radio/levels'
import { floorAt, fromLocal } from '../site/building'
import { round2 } from '../site/frame'
import { needOfUseDbm } from '../site/use'
import { DEVICE_GAIN_DBI } from '../survey/devices'
import { contextOf, isWorked } from '../judge/context'

/**
 * @param each  is told every map but the last, the coarse one first
 * @returns the map of one floor by the last step; null where nothing is sent there yet
 */
export function coverFloor(
  document: JobDocument,
  evidence: Evidence,
  atUtc: string,
  { level, stepsM, each }: { level: number; stepsM: readonly number[]; each?: (soFar: FloorCoverage | null) => void },
): FloorCoverage | null {
  const c = contextOf(document, evidence, atUtc)
  const levels = c.main?.levels
  if (!levels || !isWorked(c)) return null
  const { doc, building, tree, log } = c
  let map: FloorCoverage | null = null
  for (const [i, stepM] of stepsM.entries()) {
    map = coverageOf({ doc, building, tree, levels, log, rooms: c.main.rooms, level, stepM })
    if (!map) return null
    if (i < stepsM.length - 1) each?.(map)
  }
  return map
}

export interface Place {
  eastM: number
  northM: number
  upM: number
  share: number
}

/** A map of a metre's step is enough to choose a ceiling by. */
const STEP_M = 1
/** Cable to an inside antenna while none is laid, m. Assumed. */
const ASSUMED_M = 15
const SPLIT_EXCESS_DB = 0.4

/** @returns places for up to `most` domes on a floor, with the share each brings it to; null where there is no amplifier at work */
export function placesFor(
  document: JobDocument,
  evidence: Evidence,
  atUtc: string,
  { level, most }: { level: number; most: number },
): Place[] | null {
  const c = contextOf(document, evidence, atUtc)
  const levels = c.main?.levels
  const amp = levels?.amplifiers[0]
  const floor = c.building.floors[level]
  if (!levels || !amp || !floor || !isWorked(c)) return null
  const { frequencyMHz } = levels.carrier
  const dome = c.tree.servers.find(s => s.part.shape === 'dome')?.part ?? sure(partOfKind('ant-dome', 'antenna'))
  const line = c.tree.joints.find(j => j.line && carriesRadio(j))?.line ?? sure(partOfKind('line-400', 'line'))
  const upM = floor.fromM + HELD_M
  const hungM = floor.toM - UNDER_CEILING_M
  const grid = gridOf(c.building, upM, STEP_M)
  const here = c.doc.spots.filter(s => s.indoors && floorAt(c.building.floors, s.upM).level === level)
  const owner = roomOfCell(c.building, grid, here)
  const sizes = here.map((_, i) => owner.filter(o => o === i).length)
  const weights = Float32Array.from(owner, o => (o < 0 ? 1 : (nth(here, o).people ?? 1) / Math.max(1, nth(sizes, o))))
  const hung: AntennaNode = {
    node: { ...amp.at.node, upM: hungM, azimuthDeg: null, tiltDeg: 0 },
    part: dome,
    name: dome.name,
    called: { name: dome.name, what: dome.name, number: 1 },
  }
  const at = turned(hung, frequencyMHz, null)
  // What an amplifier held back by its loop would send once that is cured.
  const outputDbm = Math.max(amp.outputRsrpDbm, freeOutputDbm(amp, levels.carrier))
  const cableDb = lineLossDb(line.constants, ASSUMED_M, frequencyMHz) + 2 * CONNECTOR_PAIR_DB
  const others = levels.servers.filter(s => floorAt(c.building.floors, s.at.node.upM - 0.01).level !== level).length
  const found = proposePlaces({
    grid,
    walls: planWalls(c.building, frequencyMHz),
    frequencyMHz,
    phoneDbi: DEVICE_GAIN_DBI.phone,
    coefficient: coefficientAt(c.building, upM, frequencyMHz),
    needsDbm: needsOfCells(c.job, owner, here, needOfUseDbm(c.job, floor.use)),
    weights,
    like: {
      upM: hungM,
      slabsDb: 0,
      gainToward: linearGain(at, c.building.axisDeg),
      peak: toLinear(at.pattern.gainDbi),
    },
    // Antennas of the other floors keep their share.
    fedRsrpDbm: n => outputDbm - 10 * Math.log10(n + others) - SPLIT_EXCESS_DB * Math.ceil(Math.log2(n + others || 1)) - cableDb,
    most,
  })
  return found.map(f => {
    const at = fromLocal(c.site.axisDeg, f.x, f.y)
    return { eastM: round2(at.eastM), northM: round2(at.northM), upM: round2(hungM), share: f.share }
  })
}
