/** The variants of a plan side by side: each worked out in full, on the same readings. */
import type { Evidence } from '../masts/bearings'
import { isCable, jointM } from '../chain/tree'
import { costClassOf, costPoints, hoursOf } from '../fitting/cost'
import type { CostClass } from '../fitting/cost'
import type { Design, JobDocument } from '../job/schema'
import { hardest } from '../promise/inputs'
import type { Expected, Met } from '../promise/promise'
import { promiseIn } from '../judge/assess'
import type { Context } from '../judge/context'
import { contextOf } from '../judge/context'
import { ceilingHoles, holesOf } from '../judge/place'

export interface Variant {
  designId: string
  name: string
  /** whether it is the one shown, and so chosen */
  chosen: boolean
  reason: string | null
  approach: Design['approach']
  band: string | null
  /** what stands outside and what stands inside, in words */
  outside: string
  box: string
  down: Expected | null
  up: Expected | null
  where: string
  met: Met | null
  /** the room that gets least: RSRP, dBm, and what leaves toward the mast for a phone there, dBm */
  worst: { name: string; rsrpDbm: number; upEirpDbm: number | null } | null
  shortRooms: number
  /** of the amplifier that is nearest to oscillating, dB over what is needed; null without one */
  isolationMarginDb: number | null
  parts: number
  metres: number
  adapters: number
  /** through walls and ceilings; with none it can be taken away again */
  holes: number
  cost: CostClass
  hours: number
}

export function variantOf(c: Context): Variant | null {
  const { design, tree } = c
  if (!design || !tree) return null
  const promise = promiseIn(c)
  const rooms = c.main?.rooms ?? []
  const room = hardest(rooms)
  const holes = holesOf({ tree, building: c.building }).length + ceilingHoles(tree)
  const margins = (c.main?.loops ?? []).map(l => l.isolationDb - l.neededDb)
  const metres = tree.joints.filter(isCable).reduce((sum, j) => sum + jointM(j), 0)
  return {
    designId: design.id,
    name: design.name,
    chosen: c.job.designId === design.id,
    reason: design.reason,
    approach: design.approach,
    band: design.band,
    outside: namesOf(tree.donors),
    box: namesOf([...tree.amplifiers, ...tree.routers]),
    down: promise?.down ?? null,
    up: promise?.up ?? null,
    where: promise?.where ?? '',
    met: promise?.met ?? null,
    worst: room ? { name: room.spot.name, rsrpDbm: room.rsrpDbm, upEirpDbm: room.upEirpDbm } : null,
    shortRooms: rooms.filter(r => !r.met).length,
    isolationMarginDb: margins.length ? Math.min(...margins) : null,
    parts: tree.nodes.length,
    metres,
    adapters: tree.nodes.filter(n => n.part.kind === 'adapter').length,
    holes,
    cost: costClassOf(tree.nodes.length ? costPoints(tree) : 0),
    hours: tree.nodes.length ? hoursOf(tree, holes, design.plugs) : 0,
  }
}

function namesOf(nodes: readonly { part: { name: string } }[]): string {
  const counts = new Map<string, number>()
  for (const n of nodes) counts.set(n.part.name, (counts.get(n.part.name) ?? 0) + 1)
  return [...counts].map(([name, n]) => (n > 1 ? `${n} × ${name}` : name)).join(', ')
}

/** Every design of the job, in the order of its name, each as if it were the one chosen. */
export function compareVariants(document: JobDocument, evidence: Evidence, atUtc: string): Variant[] {
  const job = document.jobs[0]
  if (!job) return []
  const shown = job.designId
  return [...document.designs]
    .sort((a, b) => a.name.localeCompare(b.name))
    .flatMap(design => {
      const c = contextOf({ ...document, jobs: [{ ...job, designId: design.id }] }, evidence, atUtc)
      const v = variantOf(c)
      return v ? [{ ...v, chosen: design.id === shown }] : []
    })
}
