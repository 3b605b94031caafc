/** Does one end of a cable or part go into another: family, gender. */
import type { LinePart, Port } from '../job/part'

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
