/** A large building: three amplifiers on twelve bands, eight antennas behind each, over four floors. */
import { kitChanges } from '../core/fitting/usual-kit'
import { applyChanges } from '../core/job/changes'
import type { Change, JobDocument } from '../core/job/schema'
import { countedIds, demoScenario } from '../demo/scenario'

const BANDS = ['B1', 'B3', 'B7', 'B8', 'B20', 'B28', 'B38', 'B40', 'B5', 'B12', 'B13', 'B25']
const AMPLIFIERS = 3

export function building24(): JobDocument {
  const newId = countedIds(5000)
  const doc = structuredClone(demoScenario().jobs.find(j => j.document.jobs[0]?.kind === 'building')!.document)
  Object.assign(doc.sites[0]!, { storeys: 4, depthM: 9 })
  const design = doc.designs[0]!
  const mast = doc.masts.find(m => m.name === 'Stack')!
  design.mastId = mast.id
  const cell = doc.cells.find(c => c.mastId === mast.id)!
  const reading = doc.readings.find(r => r.mastId === mast.id) ?? doc.readings[0]!
  for (const band of BANDS) {
    doc.cells.push({ ...cell, id: newId(), band, channel: null, cellId: `9${band.slice(1)}` })
    for (const spot of doc.spots.filter(s => !s.indoors))
      doc.readings.push({ ...reading, id: newId(), spotId: spot.id, mastId: mast.id, band, channel: null, cellId: null })
  }
  const laid: Change[] = []
  for (let i = 0; i < AMPLIFIERS; i++) {
    const kit = kitChanges({ ...doc, nodes: [], runs: [] }, design, 'booster', { bearingDeg: null, newId })
    for (const c of kit) if (c.table === 'nodes' && c.fields.eastM !== undefined) c.fields.eastM = Number(c.fields.eastM) + 2 * i
    laid.push(...kit)
  }
  const built = applyChanges(doc, laid)
  for (const node of built.nodes) if (node.part?.kind === 'amplifier') node.part = { ...node.part, bands: BANDS }
  return built
}
