/** Lengths of cables judged: what is short, what was measured and drawn apart, what a lead does without. */
import { adapterChain } from '../fitting/adapters'
import { extensionOf } from '../fitting/extend'
import type { CableLength } from '../fitting/lengths'
import { screwOnChain, turnedLinks } from '../fitting/splice'
import { leadsM, lineOf } from '../chain/tree'
import { update } from '../job/edits'
import { num } from '../units'
import { concat, metres, words } from '../words'
import type { Worked } from './context'
import { COMMON } from './finding'
import type { Cure, Draft } from './finding'

/** @returns what is said of the length of one cable */
export function lengthDrafts(c: Worked, l: CableLength): Draft[] {
  const { run, ends } = l.joint
  const between = `${ends.from.at.name} and ${ends.to.at.name}`
  if (run.partId !== null && run.measured) {
    if (!l.contradicted) return []
    return [
      {
        code: 'place.length-doubt',
        subjectId: run.id,
        severity: 'note',
        title: 'The measured length and the picture disagree',
        sentence: concat(
          words`${metres(l.lengthM)} were measured between ${between}; by the picture it takes `,
          words`${metres(l.neededM)}. One of them is wrong.`,
        ),
        because: 'down or up, then along the walls, with slack for bends and both ends',
        source: COMMON,
      },
    ]
  }
  if (isAlone(l)) return [leadAlone(l)]
  if (l.spareM > -0.05) return []
  const is = l.stockM === null ? 'it is' : 'planned are'
  const cure = l.stockM === null ? extended(c, l) : longerCable(l, l.stockM)
  return [
    {
      code: 'place.short',
      subjectId: run.id,
      severity: 'fix',
      title: words`The ${lineOf(l.joint)?.name ?? 'cable'} is ${metres(-l.spareM)} short`,
      sentence: words`Between ${between} it takes ${metres(l.neededM)}; ${is} ${metres(l.lengthM)}.`,
      because: 'down or up, then along the walls, with slack for bends, drip loop and both ends',
      source: COMMON,
      cures: cure ? [cure] : [],
    },
  ]
}

/** A lead that reaches by itself goes on by no cable. */
const isAlone = ({ joint, neededM }: CableLength): boolean => joint.run.partId !== null && leadsM(joint) >= neededM

function leadAlone({ joint, neededM }: CableLength): Draft {
  const { run, from, to } = joint
  const atFrom = !!from.at.part.tailM
  const [near, far, side] = atFrom ? ([from, to, 'to'] as const) : ([to, from, 'from'] as const)
  const links = adapterChain(near.port, far.port)
  return {
    code: 'place.lead-alone',
    subjectId: run.id,
    severity: 'note',
    title: words`The own lead of ${near.at.name} reaches by itself`,
    sentence: concat(
      words`It is ${metres(leadsM(joint))}, and ${metres(neededM)} are needed: `,
      'the cable behind it takes level and a joint for nothing.',
    ),
    because: 'down or up, then along the walls, with slack for bends and both ends',
    source: COMMON,
    cures: links
      ? [
          {
            label: 'its own lead alone',
            gain: 'a cable less',
            cost: links.length ? links.map(l => l.part.name.toLowerCase()).join(' and ') : 'none',
            enough: true,
            steps: [
              update('runs', run.id, { partId: null, part: null, lengthM: 0, way: null, pieces: null }),
              ...(links.length ? screwOnChain(joint, side, turnedLinks(links)) : []),
            ],
          },
        ]
      : [],
  }
}

const longerCable = (l: CableLength, stockM: number): Cure => ({
  label: words`take ${metres(stockM)}`,
  gain: words`${metres(l.spareM + stockM - l.joint.run.lengthM)} to spare`,
  cost: 'longer cable',
  enough: true,
  steps: [{ table: 'runs', op: 'update', rowId: l.joint.run.id, fields: { lengthM: stockM } }],
})

/** A lead's length is its maker's: it goes on by a cable, or what it leads to comes nearer. */
function extended({ job, building, main }: Worked, l: CableLength): Cure | null {
  const { frequencyMHz } = main.carrier
  const more = extensionOf(l.joint, { job, building, spareM: l.spareM, frequencyMHz })
  return (
    more && {
      label: words`go on with ${metres(more.lengthM)} of ${more.line.name}`,
      gain: 'it reaches',
      cost: `−${num(more.lossDb, 1)} dB, a joint: indoors, or sealed`,
      enough: true,
      steps: more.steps,
    }
  )
}
