/** Other services aboard judged: how far they stand from each other, and whether the one that is safety stands highest. */
import { moveSteps } from '../fitting/move'
import type { NodeOf, TreeNode } from '../chain/tree'
import type { Service, ServicePart } from '../job/part'
import { update } from '../job/edits'
import { between, round2 } from '../site/frame'
import { concat, metres, words } from '../words'
import type { Laid } from './context'
import { COMMON } from './finding'
import type { Draft } from './finding'

type ServiceNode = NodeOf<ServicePart>
const isServiceAntenna = (n: TreeNode): n is ServiceNode => n.part.kind === 'service' && n.part.does === 'antenna'

/** @returns the antennas of other services in a tree */
export const serviceAntennas = (nodes: readonly TreeNode[]): ServiceNode[] => nodes.filter(isServiceAntenna)

/** What one antenna keeps from another that sends, m: beside it, or over or under it. @source common practice (no source) */
const APART_M = { beside: 1, over: 0.5 }
/** Those that send with watts. */
const SENDS: ReadonlySet<Service> = new Set(['VHF', 'AIS', 'Wi-Fi'])

/** Effective earth of 4/3: metres up to kilometres of sea. @source √(2·4/3·6371 km·h) */
const SEA_KM = Math.sqrt((2 * (4 / 3) * 6371) / 1000)
/** @returns how far an antenna sees over the sea, to another so high, km */
export const horizonKm = (upM: number, otherM = 0): number =>
  SEA_KM * (Math.sqrt(Math.max(0, upM)) + Math.sqrt(Math.max(0, otherM)))

export function serviceDrafts(c: Laid): Draft[] {
  const antennas = serviceAntennas(c.tree.nodes)
  return antennas.length ? [...tooNear(c, antennas), ...safetyFirst(antennas)] : []
}

function tooNear(c: Laid, antennas: readonly ServiceNode[]): Draft[] {
  const all: TreeNode[] = [...c.tree.donors, ...antennas]
  return antennas.flatMap((a, i): Draft[] => {
    const near = all.slice(0, c.tree.donors.length + i).filter(b => {
      const sends = SENDS.has(a.part.service) || b.part.kind === 'antenna' || (isServiceAntenna(b) && SENDS.has(b.part.service))
      const g = between(a.node, b.node)
      return sends && g.groundM < APART_M.beside && Math.abs(g.upM) < APART_M.over
    })
    const [b] = near
    if (!b) return []
    const lower = round2(b.node.upM - APART_M.over - 0.1)
    return [
      {
        code: 'place.services',
        subjectId: a.node.id,
        severity: 'fix',
        title: `${a.name} and ${b.name} stand in each other’s way`,
        sentence: concat(
          words`They keep ${metres(APART_M.beside)} beside each other, or ${metres(APART_M.over)} one over the other: `,
          'else one deafens the other when it sends.',
        ),
        because: 'straight between their feet, along and up',
        source: COMMON,
        cures: [
          {
            label: `${a.name} lower`,
            gain: 'each hears while the other sends',
            cost: 'a little less horizon',
            enough: near.length === 1,
            steps: moveSteps(c, [update('nodes', a.node.id, { upM: lower })]),
          },
        ],
      },
    ]
  })
}

/** The radio that calls for help sees furthest. */
function safetyFirst(antennas: readonly ServiceNode[]): Draft[] {
  const vhf = antennas.filter(a => a.part.service === 'VHF')
  const [first] = vhf
  if (!first) return []
  const top = Math.max(...vhf.map(a => a.node.upM))
  const over = antennas.filter(a => a.part.service !== 'VHF' && a.node.upM > top + 0.05)
  const [other] = over
  return other
    ? [
        {
          code: 'place.safety',
          subjectId: first.node.id,
          severity: 'note',
          title: `${other.name} stands over ${first.name}`,
          sentence: 'The radio that calls for help has the highest place, and the money first.',
          because: 'heights as they are planned',
          source: COMMON,
        },
      ]
    : []
}
