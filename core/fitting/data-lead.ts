/** The data cable of a box that is fed by it: from its socket, by an arrestor where it comes in from outdoors, to an injector. */
import { sure } from '../sure'
import { partById, partOfKind } from '../catalogue/parts'
import { portsOf } from '../chain/data'
import type { TreeNode } from '../chain/tree'
import type { Design, Job } from '../job/schema'
import type { Building } from '../site/building'
import type { Point } from '../site/frame'
import { stockLengthM, wayM } from './lengths'
import { nodeStep, runStep } from './splice'
import type { Step } from './splice'
import { injectorFor } from './usual-kit'

const OUTDOOR_LINE = 'data-6-out'

interface On {
  job: Pick<Job, 'kind'>
  building: Building
  design: Pick<Design, 'id'>
}

/**
 * @param o.injectorAt  beside the socket that feeds it
 * @param o.arrestorAt  where the cable meets the building; null where none is wanted
 * @returns none where the box has no socket for data
 */
export function dataLeadSteps(on: On, box: TreeNode, o: { injectorAt: Point; arrestorAt: Point | null }): Step[] {
  const socket = portsOf(box.part).find(p => p.role === 'lan')
  if (!socket) return []
  const line = sure(partOfKind(OUTDOOR_LINE, 'line'))
  const cable = (from: Point, to: Point) => ({
    partId: line.id,
    part: line,
    lengthM: stockLengthM(line, wayM(on.job.kind, on.building, from, to)),
  })
  const { id: designId } = on.design
  const injector = nodeStep(designId, 'new:injector', sure(partById(injectorFor(box.part))), o.injectorAt)
  const from = [box.node.id, socket.id] as const
  if (!o.arrestorAt)
    return [injector, runStep(designId, 'new:data', { from, to: ['new:injector', 'out'], cable: cable(box.node, o.injectorAt) })]
  return [
    injector,
    nodeStep(designId, 'new:arrestor', sure(partById('arr-data')), o.arrestorAt),
    runStep(designId, 'new:outside', { from, to: ['new:arrestor', 'in'], cable: cable(box.node, o.arrestorAt) }),
    runStep(designId, 'new:within', {
      from: ['new:arrestor', 'out'],
      to: ['new:injector', 'out'],
      cable: cable(o.arrestorAt, o.injectorAt),
    }),
  ]
}
