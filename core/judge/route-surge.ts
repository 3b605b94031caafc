/** Where a surge goes, judged. */
import { DEEP_M, LONG_M, SHARP_DEG, surgePaths } from '../install/surge'
import type { SurgeCode, SurgePath } from '../install/surge'
import { movesAbout } from '../job/schema'
import { metres, words } from '../words'
import { RULE_PACKS } from './cautions'
import type { Context } from './context'
import { usualFeed } from './feeds'
import type { Words } from '../words'
import type { Draft, Severity } from './finding'

const SURGE: Record<SurgeCode, { severity: Severity; title: Words; sentence: Words }> = {
  'gas': {
    severity: 'stop',
    title: 'A gas pipe is no earth',
    sentence: 'A surge into gas burns. An electrode of its own, bonded to the building’s earthing.',
  },
  'unbonded': {
    severity: 'stop',
    title: 'The rod is not bonded to the building’s earthing',
    sentence: 'Two earths at two potentials: a strike flashes from one to the other through the house.',
  },
  'bond unknown': {
    severity: 'stop',
    title: 'Is the electrode bonded to the building’s earthing?',
    sentence: 'Not known. A licensed electrician looks and measures before anything hangs on it.',
  },
  'rooms': {
    severity: 'stop',
    title: 'The earth conductor runs through rooms',
    sentence: 'It carries the strike past people: outside, the shortest way down.',
  },
  'braid': {
    severity: 'fix',
    title: 'Braid corrodes, and is no conductor for a surge',
    sentence: 'Solid copper, as local code sizes it.',
  },
  'sharp': {
    severity: 'fix',
    title: `The earth conductor turns by more than ${SHARP_DEG}° at once`,
    sentence: 'A surge jumps a sharp corner: bends of 203 mm radius and more.',
  },
  'loop': {
    severity: 'fix',
    title: 'The earth conductor is laid in a loop',
    sentence: 'Straight down: a loop is a coil to a surge.',
  },
  'long': {
    severity: 'note',
    title: `The earth conductor is longer than ${LONG_M} m`,
    sentence: 'Every metre adds a kilovolt to what stands at the arrestor: a nearer electrode, bonded to the same earthing.',
  },
  'deep': {
    severity: 'fix',
    title: 'The arrestor hangs deep inside',
    sentence: words`A surge passes people before it is led away: at the entrance, no deeper than ${metres(DEEP_M)}.`,
  },
}

export const surgesOf = (c: Pick<Context, 'doc' | 'tree' | 'building' | 'job'>): SurgePath[] =>
  surgePaths(
    (c.tree?.nodes ?? []).filter(n => n.part.kind === 'arrestor'),
    c.doc.fixtures.filter(f => f.kind === 'electrode'),
    c.building,
    movesAbout(c.job.kind),
  )

export const surgeDrafts = (c: Context): Draft[] => [...conductors(c), ...dataLines(c)]

function conductors(c: Context): Draft[] {
  const told = new Set<string>()
  return surgesOf(c).flatMap(s =>
    s.wrong.flatMap((code): Draft[] => {
      // Several arrestors of one electrode are told of once, what is wrong with the arrestor itself each time.
      const subjectId = code === 'deep' ? s.arrestor.node.id : s.electrode.id
      if (told.has(code + subjectId)) return []
      told.add(code + subjectId)
      return [
        {
          code: `route.surge-${code.replace(' ', '-')}`,
          subjectId,
          ...SURGE[code],
          ...(code === 'gas' && { holds: true as const }),
          because: 'the conductor as it is drawn from arrestor to electrode',
          source: `${RULE_PACKS[c.job.rules].earth} From memory; local code and a licensed electrician decide`,
        },
      ]
    }),
  )
}

/** Data and DC lines of boxes outdoors: a surge comes in by them as by any coax. */
function dataLines(c: Context): Draft[] {
  if (!c.tree) return []
  const wanting = new Set(c.demands.flatMap(d => (d.kind === 'arrestor' && d.state === 'missing' ? [d.subjectId] : [])))
  return [...c.tree.amplifiers, ...c.tree.routers].flatMap((at): Draft[] => {
    const { id, feed } = at.node
    if (!wanting.has(id)) return []
    return [
      {
        code: 'route.surge-line',
        subjectId: id,
        severity: 'fix',
        title: `No arrestor in the line of ${at.name}`,
        sentence:
          'It hangs outside, and its data or power line brings a surge in as a coax does: an arrestor for that line, in series, ' +
          'where it comes to the building, to the same earth.',
        because: 'every line that enters has its own, each in series',
        source: `${RULE_PACKS[c.job.rules].earth} From memory; local code and a licensed electrician decide`,
        cures: [
          {
            label: 'an arrestor in that line',
            gain: 'surge path',
            cost: 'a part of its kind, earthed with the others',
            enough: true,
            steps: [{ table: 'nodes', op: 'update', rowId: id, fields: { feed: { ...(feed ?? usualFeed()), arrested: true } } }],
          },
        ],
      },
    ]
  })
}
