/** Do the parts of a tree fit each other, at both ends of every joint: family, gender, impedance. */
import { mismatchLossDb, vswrOf } from '../chain/line'
import type { Jack, Joint, Tree } from '../chain/tree'
import { adapterChain } from './adapters'
import type { Link } from './adapters'
import { lineEnd, matingProblem } from './mating'
import type { End } from './mating'

export interface Misfit {
  joint: Joint
  /** the part's port at which it is, and what meets it there */
  jack: Jack
  end: End
  kind: 'plug' | 'impedance'
  /** `N plug against SMA socket` */
  words: string
  vswr: number
  lossDb: number
  /** adapters of the catalogue that join the two, from the cable on; null where none do */
  adapters: Link[] | null
}

/** Both ends of every joint, each against the port it meets. */
export function misfits(tree: Pick<Tree, 'joints'>): Misfit[] {
  return tree.joints.flatMap(joint => {
    const { line, from, to } = joint
    const meetings: [Jack, End][] = line
      ? [
          [from, lineEnd(line)],
          [to, lineEnd(line)],
        ]
      : joint.run.partId
        ? []
        : [[to, from.port]]
    return meetings.flatMap(([jack, end]): Misfit[] => {
      const problem = matingProblem(end, jack.port)
      const base = { joint, jack, end, vswr: 1, lossDb: 0, adapters: null }
      const out: Misfit[] = []
      if (problem) out.push({ ...base, kind: 'plug', words: problem, adapters: adapterChain(end, jack.port) })
      if (end.impedanceOhm !== jack.port.impedanceOhm) {
        const vswr = vswrOf(end.impedanceOhm, jack.port.impedanceOhm)
        out.push({
          ...base,
          kind: 'impedance',
          words: `${end.impedanceOhm} Ω on ${jack.port.impedanceOhm} Ω`,
          vswr,
          lossDb: mismatchLossDb(vswr),
        })
      }
      return out
    })
  })
}
