import { describe, expect, it } from 'vitest'
import { PARTS, partOfKind } from '../catalogue/parts'
import type { Port } from '../catalogue/parts'
import { lineEnd, matingProblem, portOf } from './compatibility'

const n = (gender: 'plug' | 'socket'): Port => ({ connector: 'N', gender, impedanceOhm: 50 })

describe('joints', () => {
  it('a plug goes into a socket of its kind', () => expect(matingProblem(n('plug'), n('socket'))).toBeNull())
  it('two plugs, or two kinds, do not mate', () => {
    expect(matingProblem(n('plug'), n('plug'))).toBe('two N plugs')
    expect(matingProblem(n('plug'), { connector: 'F', gender: 'socket', impedanceOhm: 75 })).toBe('N plug against F socket')
  })
  it('the look-alikes are told apart', () =>
    expect(
      matingProblem(
        { connector: 'SMA', gender: 'plug', impedanceOhm: 50 },
        { connector: 'RP-SMA', gender: 'socket', impedanceOhm: 50 },
      ),
    ).toBe('SMA plug against RP-SMA socket'))
  it('mating is the same from either side', () => {
    const ports: Port[] = (['N', 'SMA', 'RP-SMA', 'TS9', 'F', 'FME'] as const).flatMap(connector =>
      (['plug', 'socket'] as const).map(gender => ({ connector, gender, impedanceOhm: 50 as const })),
    )
    for (const a of ports) for (const b of ports) expect(matingProblem(a, b) === null).toBe(matingProblem(b, a) === null)
  })
  it('every 50 Ω outside antenna takes every 50 Ω line', () => {
    for (const antenna of PARTS) {
      if (antenna.kind !== 'antenna' || antenna.use !== 'outside') continue
      for (const line of PARTS)
        if (line.kind === 'line' && line.impedanceOhm === 50)
          expect(matingProblem(lineEnd(line), antenna.port), `${antenna.name}, ${line.name}`).toBeNull()
    }
  })
  it('a part shows the port the cable meets; a cable shows none', () => {
    expect(portOf('amp-75')).toEqual({ connector: 'F', gender: 'socket', impedanceOhm: 75 })
    expect(portOf('arr-gas')).toEqual(partOfKind('arr-gas', 'arrestor')!.from)
    expect(portOf('line-400')).toBeNull()
    expect(portOf('nothing')).toBeNull()
  })
})
