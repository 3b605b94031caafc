/** Do the parts of a tree fit each other, at both ends of every joint: family, gender, impedance. */
import { mismatchLossDb, vswrOf } from '../chain/line'
import type { Jack, Joint, Tree } from '../chain/tree'
import type { LinePart, Port } from '../job/part'
import { PARTS } from '../catalogue/parts'

export type End = Pick<Port, 'connector' | 'gender' | 'impedanceOhm'>

/** Lines are sold with plugs of one kind on both ends, of the line's own impedance. */
export const lineEnd = (line: Pick<LinePart, 'ends' | 'impedanceOhm'>): End => ({
  connector: line.ends,
  gender: 'plug',
  impedanceOhm: line.impedanceOhm,
})

/** @returns what is wrong between two mated ends, in words, or null where they mate */
export function matingProblem(a: End, b: End): string | null {
  if (a.connector !== b.connector) return `${a.connector} ${a.gender} against ${b.connector} ${b.gender}`
  if (a.gender === b.gender) return `two ${a.connector} ${a.gender}s`
  return null
}

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
  /** part of the catalogue that joins the two, where there is one */
  adapterId: string | null
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
      const base = { joint, jack, end, vswr: 1, lossDb: 0, adapterId: null }
      const out: Misfit[] = []
      if (problem) out.push({ ...base, kind: 'plug', words: problem, adapterId: adapterFor(end, jack.port) })
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

/** The flat lead through a window's frame, for where nothing may be drilled. */
export const WINDOW_LEAD = 'adp-window'

/** @returns the adapter whose two ends mate with both, or null */
export function adapterFor(a: End, b: End): string | null {
  const found = PARTS.find(
    p =>
      p.kind === 'adapter' &&
      p.id !== WINDOW_LEAD &&
      ((!matingProblem(a, p.ports[0]!) && !matingProblem(b, p.ports[1]!)) ||
        (!matingProblem(a, p.ports[1]!) && !matingProblem(b, p.ports[0]!))),
  )
  return found?.id ?? null
}
