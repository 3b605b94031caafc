/** Two single beams on one box, judged as the one thing that they are: where they stand, how they are turned, by what they are led. */
import { isCable, jointLossDb, jointM } from '../chain/tree'
import type { AntennaNode, Tree } from '../chain/tree'
import { apartM, isCrossed, PAIR_MOST_M, pairsOf } from '../fitting/pair'
import { angleBetween } from '../geo/angles'
import { num } from '../units'
import { metres, words } from '../words'
import { COMMON } from './finding'
import type { Draft } from './finding'

/** Two single antennas on one box are its two layers only where they are turned across each other. */
export function pairDrafts(tree: Tree, frequencyMHz: number): Draft[] {
  return pairsOf(tree).flatMap((pair): Draft[] => [...unlikeCables(tree, pair, frequencyMHz), ...asPair(pair)])
}

function asPair(pair: readonly [AntennaNode, AntennaNode]): Draft[] {
  const [a, b] = pair
  const base = { subjectId: a.node.id, because: 'a mast sends its two layers at ±45°, from one place', source: COMMON }
  const metresApart = apartM(pair)
  if (metresApart > PAIR_MOST_M)
    return [
      {
        ...base,
        code: 'choose.pair-apart',
        severity: 'fix',
        title: words`${a.name} and ${b.name} are no pair: ${metres(metresApart)} apart`,
        sentence:
          'One of them on the other side of the house hears the mast another way: both on one pole, crossed, with one aim.',
      },
    ]
  const [x, y] = [a.node.azimuthDeg, b.node.azimuthDeg]
  if (x !== null && y !== null && angleBetween(x, y) > ONE_AIM_DEG)
    return [
      {
        ...base,
        code: 'choose.pair-aim',
        severity: 'fix',
        title: `${a.name} and ${b.name} look ${num(angleBetween(x, y))}° apart`,
        sentence: 'A pair has one aim: both are turned together, and locked at one mark.',
      },
    ]
  if (isCrossed(pair)) return []
  return [
    {
      ...base,
      code: 'choose.pair',
      severity: 'note',
      title: 'Two single beams: one at +45°, one at −45°',
      sentence:
        'Turned about their own axes, across each other, and both at the same mast: alike they would bring the same layer twice. ' +
        'Main and auxiliary ports among equals may be swapped.',
      cures: [
        {
          label: 'both at ±45°',
          gain: 'two layers',
          cost: 'turned about their own axes when they are mounted',
          enough: true,
          steps: [a, b].map(
            n => ({ table: 'nodes', op: 'update', rowId: n.node.id, fields: { polarisation: 'slant' } }) as const,
          ),
        },
      ],
    },
  ]
}

/** Two cables that differ so much bring one branch in weaker: in loss, dB, or in length, m. @source common practice (no source) */
const UNLIKE = { db: 0.5, m: 3 } as const

/** Of each antenna of a pair: what its way to the box takes, and how long it is. */
function wayOf(tree: Tree, at: AntennaNode, frequencyMHz: number): { lossDb: number; lengthM: number } {
  const joints = tree.visits.flatMap(v => (v.donor.node.id === at.node.id && v.joint ? [v.joint] : []))
  return {
    lossDb: joints.reduce((s, j) => s + jointLossDb(j, frequencyMHz), 0),
    lengthM: joints.reduce((s, j) => s + (isCable(j) ? jointM(j) : 0), 0),
  }
}

function unlikeCables(tree: Tree, [a, b]: readonly [AntennaNode, AntennaNode], frequencyMHz: number): Draft[] {
  const [x, y] = [wayOf(tree, a, frequencyMHz), wayOf(tree, b, frequencyMHz)]
  const apartDb = Math.abs(x.lossDb - y.lossDb)
  if (apartDb < UNLIKE.db && Math.abs(x.lengthM - y.lengthM) < UNLIKE.m) return []
  return [
    {
      code: 'choose.pair-cables',
      subjectId: a.node.id,
      severity: 'note',
      title: words`Cables of the pair are unlike: ${metres(x.lengthM)} and ${metres(y.lengthM)}`,
      sentence:
        `${(x.lossDb > y.lossDb ? a : b).name} comes in ${num(apartDb, 1)} dB weaker. ` +
        'Read each branch by itself in Aim: what differs by more than that is a plug, a kink or a null.',
      because: 'loss of each way from antenna to box, at the band of the plan',
      source: COMMON,
    },
  ]
}

/** Two of a pair that look further apart have two aims, degrees. Assumed. */
const ONE_AIM_DEG = 10
