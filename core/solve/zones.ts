/** A building laid out by zones, then worked through: evened out by taps, a stronger amplifier or a pad where it takes one. */
import type { Evidence } from '../masts/bearings'
import { PARTS } from '../catalogue/parts'
import type { AmplifierNode } from '../chain/tree'
import { screwOn } from '../fitting/splice'
import type { Step } from '../fitting/splice'
import { emptied, padFor } from '../fitting/usual-kit'
import { zoneChanges } from '../fitting/zones'
import type { Donors } from '../fitting/zones'
import { applyChanges } from '../job/changes'
import { changesOf, update } from '../job/edits'
import type { AmplifierPart } from '../job/part'
import { insertChange } from '../job/defaults'
import type { Maker } from '../job/defaults'
import type { Change, Design, JobDocument } from '../job/schema'
import { contextOf, isWorked } from '../judge/context'
import type { Worked } from '../judge/context'
import { evened } from './even-out'
import { RESERVE_DB } from './trial'

/** A pad before every amplifier that would be overloaded. */
function padded(c: Worked): Step[] {
  return (c.main.levels?.amplifiers ?? []).flatMap((a, i): Step[] => {
    const overDb = Math.max(...c.bands.map(b => -(b.levels?.amplifiers[i]?.inputMarginDb ?? Infinity)))
    const joint = c.tree.joints.find(j => j.to.at.node.id === a.at.node.id && j.to.port.role === 'donor')
    return overDb > 0 && joint ? screwOn(joint, 'to', padFor(overDb + RESERVE_DB).id, i + 1) : []
  })
}

/** Where the usual amplifier sends too little for all its antennas: the one that sends more in the same bands. */
function stronger({ node, part }: AmplifierNode): Step[] {
  const more = PARTS.filter(
    (p): p is AmplifierPart => p.kind === 'amplifier' && p.use === 'fixed' && p.outputDbm > part.outputDbm,
  )
    .filter(p => part.bands.every(b => p.bands.includes(b)))
    .sort((a, b) => a.outputDbm - b.outputDbm)[0]
  return more ? [update('nodes', node.id, { partId: more.id, part: more })] : []
}

/** @returns the changes that lay out the zones of a job in its design, as one step from what it holds now */
export function layZones(
  document: JobDocument,
  design: Design,
  { evidence, atUtc, donors, newId }: { evidence: Evidence; atUtc: string; donors: Donors; newId: Maker },
): Change[] {
  const chosen = contextOf(document, evidence, atUtc).chosen
  const laid = zoneChanges(document, design, { donors, bearingDeg: chosen?.path ? chosen.frameBearingDeg : null, newId })
  let doc = applyChanges(document, laid)
  const take = (steps: readonly Step[]) => (doc = applyChanges(doc, changesOf(steps, newId)))
  const worked = (): Worked | null => {
    const c = contextOf(doc, evidence, atUtc)
    return isWorked(c) && c.main.levels ? c : null
  }
  // What one amplifier feeds is nothing of another's: all are evened out as they were laid.
  const asLaid = worked()
  for (const { at } of asLaid?.main.levels?.amplifiers ?? []) {
    const even = asLaid && evened(asLaid, at.node.id)
    if (even) take([...even.steps, ...(even.spareDb < 0 ? stronger(at) : [])])
  }
  // What an amplifier bears is known once it is chosen.
  const last = worked()
  if (last) take(padded(last))
  return netOf(document, doc, design, newId)
}

/** What was put in and taken out again on the way is told to nobody. */
function netOf(before: JobDocument, after: JobDocument, design: Design, newId: Maker): Change[] {
  const came = (table: 'nodes' | 'runs'): Change[] =>
    after[table]
      .filter(r => r.designId === design.id)
      .map(({ id, version: _, ...fields }) => insertChange(newId, table, id, fields))
  return [
    ...emptied(before, design, newId),
    ...changesOf([update('designs', design.id, { approach: 'booster' })], newId),
    ...came('nodes'),
    ...came('runs'),
  ]
}
