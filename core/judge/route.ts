/** Route judged: can the cables be pulled, where do they come in; with what holds the antennas, feeds the boxes, leads surges away. */
import { BEHIND_SAYS, isLookedBehind } from '../install/behind'
import { layingOf } from '../install/laying'
import type { CableLength } from '../fitting/lengths'
import type { Passage } from '../install/passage'
import { MOST_TURNED_DEG } from '../fitting/way'
import { wayInById } from '../install/ways-in'
import { endNames } from '../chain/tree'
import { num } from '../units'
import type { Context } from './context'
import { COMMON, finding } from './finding'
import type { Cure, Draft, Finding } from './finding'
import { passagesOf } from './passages'
import { feedDrafts } from './route-feeds'
import { mountDrafts } from './route-mounts'
import { surgeDrafts } from './route-surge'

export function routeFindings(c: Context): Finding[] {
  if (!c.tree) return []
  const drafts = [...cables(c), ...passages(c), ...mountDrafts(c), ...feedDrafts(c), ...surgeDrafts(c)]
  return drafts.map(d => finding('route', d))
}

const nameOf = ({ joint }: CableLength): string => endNames(joint)

function cables(c: Context): Draft[] {
  return c.lengths.flatMap((cable): Draft[] => {
    const { way, joint } = cable
    const laid = layingOf(cable, c.building)
    if (!way || !laid) return []
    const out: Draft[] = []
    if (way.turnedDeg > MOST_TURNED_DEG)
      out.push({
        code: 'route.turns',
        subjectId: joint.run.id,
        severity: 'fix',
        title: `Turned ${num(way.turnedDeg)}° between two places to pull from`,
        sentence:
          `${nameOf(cable)}: beyond ${MOST_TURNED_DEG}° a cable is no longer pulled but stretched. ` +
          'A way with fewer corners, or a box half way to pull from.',
        because: 'corners of more than 20° along the drawn way, added',
        source: 'NEC 358.26 for conduit; for coax and data common practice',
      })
    if (laid.tightAt.length)
      out.push({
        code: 'route.tight',
        subjectId: joint.run.id,
        severity: 'fix',
        title: `No room to bend at piece ${laid.tightAt.map(i => i + 1).join(' and ')}`,
        sentence:
          `${nameOf(cable)}: bent no tighter than ${num(laid.bendMm)} mm, its corners need more than that piece has. ` +
          'A wider corner, or a thinner line.',
        because: 'radius × tan of half the turn, on both sides of a corner',
        source: 'the maker’s bending radius; geometry of a tangent arc',
      })
    return out
  })
}

function passages(c: Context): Draft[] {
  return passagesOf(c).flatMap(p => {
    if (!p.cables.length) return []
    return p.at.kind === 'way in' ? [...entryDrafts(c, p), ...squeeze(c, p)] : squeeze(c, p)
  })
}

function entryDrafts(c: Context, { at }: Passage): Draft[] {
  const way = at.entry ? wayInById(at.entry) : null
  const name = at.name || way?.words || 'The way in'
  const base = { subjectId: at.id, source: COMMON }
  if (at.entry === 'flue')
    return [
      {
        ...base,
        code: 'route.flue',
        severity: 'stop',
        holds: true,
        title: `${name}: a flue is no way in`,
        sentence: 'Hot gas and carbon monoxide. Another way, whatever it costs.',
        because: 'what it is was noted on the picture',
      },
    ]
  const out: Draft[] = []
  if (way?.drills && c.job.mayDrill === 'no')
    out.push({
      ...base,
      code: 'route.no-hole',
      severity: 'stop',
      title: `${name}: nothing may be drilled here`,
      sentence: 'A port that is there, an old cable as draw line, a flat lead under a window.',
      because: 'as agreed in Ask',
    })
  const found = way?.drills && at.behindFound ? BEHIND_SAYS[at.behindFound] : null
  if (found?.stop)
    out.push({
      ...base,
      code: 'route.found',
      severity: 'stop',
      holds: true,
      title: `${name}: ${found.words} behind it`,
      sentence: `No hole here: ${found.stop}.`,
      because: 'what was found there was noted on the picture',
    })
  if (way?.drills && !isLookedBehind(at))
    out.push({
      ...base,
      code: 'route.behind',
      severity: 'stop',
      holds: true,
      title: `What is behind ${at.name || 'the way in'}?`,
      sentence: 'Not known. A detector from both sides, plans, a look from inside: before the bit turns, not after.',
      because: 'a line, a pipe, gas or a fire wall behind a hole hurts people',
    })
  return out
}

function squeeze(c: Context, p: Passage): Draft[] {
  const { at, fill, needsMm, bareMm } = p
  const name = at.name || at.kind
  const cure: Cure[] = c.design
    ? [
        {
          label: 'crimp the plugs after pulling',
          gain: `${num(bareMm ?? 0)} mm are enough`,
          cost: 'a crimping tool up there, a test of each plug',
          enough: at.openMm !== null && (bareMm ?? Infinity) <= at.openMm,
          steps: [{ table: 'designs', op: 'update', rowId: c.design.id, fields: { plugs: 'crimped' } }],
        },
      ]
    : []
  const out: Draft[] = []
  if (at.openMm !== null && needsMm !== null && needsMm > at.openMm)
    out.push({
      code: 'route.plug',
      subjectId: at.id,
      severity: 'fix',
      title: `The plugs do not pass ${name}`,
      sentence: `${num(needsMm)} mm are needed with one plug at a time beside the other jackets; ${num(at.openMm)} mm are free.`,
      because: 'the widest plug beside the jackets that are through, 1 mm of play',
      source: 'smallest circle about circles',
      cures: c.design?.plugs === 'factory' ? cure : [],
    })
  if (fill && !fill.fits)
    out.push({
      code: 'route.fill',
      subjectId: at.id,
      severity: 'fix',
      title: `${name} is ${num(100 * fill.fill)} % full`,
      sentence: `${p.cables.length} cables; ${num(100 * fill.most)} % is the rule. A second one, only as far as needed.`,
      because: 'areas of the cables over the free area',
      source: 'NEC chapter 9 table 1; for coax and data a rule of thumb, 800.110(B)',
    })
  if (fill?.jams)
    out.push({
      code: 'route.jam',
      subjectId: at.id,
      severity: 'note',
      title: `Three cables can wedge in ${name}`,
      sentence: 'Their diameter is about a third of it: one more, or one less, or tied as a bundle before they are pulled.',
      because: 'inside diameter over cable between 2.8 and 3.2',
      source: 'usual jam ratio of three conductors',
    })
  return out
}
