/** The route of a large building: one corner of a way moved, judged and drawn anew; ways in ranked with what passes them. */
import type { Evidence } from '../core/masts/bearings'
import { layoutSection } from '../core/drawing/section'
import { entering, passersOf } from '../core/install/passage'
import { waysIn } from '../core/install/ways-in'
import { applyChanges } from '../core/job/changes'
import { BARE_FIXTURE } from '../core/job/defaults'
import type { JobDocument } from '../core/job/schema'
import { assess } from '../core/judge/assess'
import type { Assessment } from '../core/judge/assess'
import { passagesOf } from '../core/judge/passages'
import { buildingOf } from '../core/site/building'

/** @returns what one corner moved costs: new lengths, sum, findings and picture */
export function editRoute(doc: JobDocument, evidence: Evidence, atUtc: string): (step: number) => number {
  const run = doc.runs.find(r => r.partId && r.designId === doc.jobs[0]!.designId)!
  return step => {
    const way = [{ eastM: step * 0.1, northM: 0, upM: 3 }]
    const moved = applyChanges(doc, [{ id: '', table: 'runs', rowId: run.id, op: 'update', baseVersion: 0, fields: { way } }])
    const result = assess(moved, evidence, { atUtc })
    const view = layoutSection(moved, result, {
      width: 800,
      height: 480,
      units: 'metric',
      levels: false,
      pins: true,
      loops: false,
      numberedRunId: run.id,
    })
    return view.drawing.primitives.length
  }
}

/** @returns what ranking the ways in costs, with everything that passes each of them */
export function rankWays(doc: JobDocument, a: Pick<Assessment, 'tree' | 'lengths'>): () => number {
  const building = buildingOf(doc)
  const design = doc.designs.find(d => d.id === doc.jobs[0]!.designId)!
  const { eastM, northM, upM } = a.tree!.amplifiers[0]!.node
  const places = (['way in', 'duct'] as const).map((kind, k) => ({
    ...BARE_FIXTURE,
    id: `place ${k}`,
    kind,
    name: '',
    eastM,
    northM,
    upM,
    openMm: 60,
  }))
  const fixtures = [...doc.fixtures, ...places]
  const chosen = { ...design, wayInId: 'place 0' }
  return () =>
    waysIn('building', 'yes', entering(passersOf(a.tree!, a.lengths, design.plugs, { building, fixtures }), building)).length +
    passagesOf({ doc: { ...doc, fixtures }, design: chosen, tree: a.tree, lengths: a.lengths, building }).length
}
