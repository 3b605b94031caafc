/** Route judged: can the cables be pulled, do the boxes get their power. */
import { MOST_TURNED_DEG } from '../fitting/way'
import { mToken, num } from '../units'
import type { Context } from './context'
import { feedsOf } from './feeds'
import { COMMON, finding } from './finding'
import type { Draft, Finding } from './finding'

export function routeFindings(c: Context): Finding[] {
  if (!c.tree) return []
  return [...turns(c), ...starved(c)].map(d => finding('route', d))
}

function turns(c: Context): Draft[] {
  return c.lengths.flatMap(({ joint, way }): Draft[] => {
    if (!way || way.turnedDeg <= MOST_TURNED_DEG) return []
    return [
      {
        code: 'route.turns',
        subjectId: joint.run.id,
        severity: 'fix',
        title: `Turned ${num(way.turnedDeg)}° between two places to pull from`,
        sentence:
          `${joint.from.at.part.name} to ${joint.to.at.part.name}: beyond ${MOST_TURNED_DEG}° a cable is no longer pulled ` +
          'but stretched. A way with fewer corners, or a box half way to pull from.',
        because: 'corners of more than 20° along the drawn way, added',
        source: 'NEC 358.26 for conduit; for coax and data common practice',
        cures: [],
      },
    ]
  })
}

function starved(c: Context): Draft[] {
  return feedsOf(c.doc, c.tree!, c.job.kind, c.building).flatMap((f): Draft[] => {
    if (f.supply !== '12 V' || f.lengthM === null || f.wire) return []
    const thickest = f.tried.at(-1)!
    const arrives = thickest.fed.volts === null ? 'nothing arrives' : `${num(thickest.fed.volts, 1)} V arrive`
    return [
      {
        code: 'route.starved',
        subjectId: f.at.node.id,
        severity: 'fix',
        title: `${f.at.part.name} starves on its lead`,
        sentence:
          `${num(f.powerW)} W over ${mToken(f.lengthM)} at 10.5 V: even on ${thickest.wire.words} ${arrives}. ` +
          'The box nearer its feed, a converter beside it, or another source.',
        because: 'a constant-power load at the lowest voltage of the source, out and back; 3 % of drop borne',
        source: `ABYC E-11 for the drop; ${COMMON} for the range of the source`,
        cures: [],
      },
    ]
  })
}
