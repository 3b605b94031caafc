/** Papers of the plan: the pick list, and labels to be cut out and wrapped round both ends of every cable. */
import { jobOf } from '../job/schema'
import { treeOf } from '../chain/tree'
import { cableLabels, PICK_GROUPS, pickList } from '../install/pick-list'
import type { PickGroup } from '../install/pick-list'
import type { Design, JobDocument } from '../job/schema'
import { holesOf } from '../judge/place'
import { buildingOf } from '../site/building'
import { atPresentStop } from '../survey/place'
import { length, num } from '../units'
import type { Units } from '../units'
import type { Block, Report } from './report'

interface Paper {
  document: JobDocument
  design: Design
  units: Units
  crew: string
}

export function pickListPaper({ document, design, units, crew }: Paper): Report {
  const doc = atPresentStop(document)
  const tree = treeOf(doc, design)
  const building = buildingOf(doc)
  const list = pickList({ job: jobOf(doc), design, tree, building, holes: holesOf({ tree, building }).length })
  const blocks: Block[] = (Object.keys(PICK_GROUPS) as PickGroup[]).flatMap((group): Block[] => {
    const rows = list.rows.filter(r => r.group === group)
    if (!rows.length) return []
    return [
      {
        kind: 'table',
        title: PICK_GROUPS[group],
        head: ['Number', 'What', 'Note'],
        rows: rows.map(r => [`${num(r.quantity)}${r.unit ? ` ${r.unit}` : ''}`, r.name, r.note]),
      },
    ]
  })
  const cable = `${length(list.runM, units, 0)} of cable run, ${length(list.boughtM, units, 0)} bought.`
  return { title: 'Pick list', subtitle: `${jobOf(doc).name}, variant ${design.name}. ${cable}`, blocks, foot: crew }
}

export function labelsPaper({ document, design, units, crew }: Paper): Report {
  const doc = atPresentStop(document)
  const labels = cableLabels(treeOf(doc, design), design.name)
  return {
    title: 'Labels',
    subtitle: `${jobOf(doc).name}, variant ${design.name}. One at each end, as it is pulled.`,
    blocks: [
      {
        kind: 'table',
        title: 'Cut along the lines',
        head: ['Label', 'From', 'To', 'Cable'],
        rows: labels.map(l => [l.code, l.from, l.to, `${l.line}, ${length(l.lengthM, units)}`]),
      },
    ],
    foot: crew,
  }
}
