import { describe, expect, it } from 'vitest'
import { partById, partOfKind, PARTS } from '../catalogue/parts'
import { CONNECTORS, isCoax } from '../job/part'
import { House } from '../../tests/support/house'
import { treeOf } from '../chain/tree'
import fc from 'fast-check'
import { adapterChain, cablesBetween } from './adapters'
import { misfits } from './joints'
import { lineEnd, matingProblem } from './mating'
import type { End } from './mating'
import { looseSteps } from './edits'
import { cableLength, stockLengthM, wayM } from './lengths'
import { buildingOf } from '../site/building'

const end = (connector: End['connector'], gender: End['gender']): End => ({ connector, gender, impedanceOhm: 50 })

describe('joints', () => {
  it('a plug goes into a socket of its kind', () => expect(matingProblem(end('N', 'plug'), end('N', 'socket'))).toBeNull())
  it('two plugs, or two kinds, do not mate', () => {
    expect(matingProblem(end('N', 'plug'), end('N', 'plug'))).toBe('two N plugs')
    expect(matingProblem(end('N', 'plug'), { connector: 'F', gender: 'socket', impedanceOhm: 75 })).toBe(
      'N plug against F socket',
    )
  })
  it('the look-alikes are told apart', () => {
    expect(matingProblem(end('SMA', 'plug'), end('RP-SMA', 'socket'))).toBe('SMA plug against RP-SMA socket')
    expect(matingProblem(end('TS9', 'plug'), end('CRC9', 'socket'))).toBe('TS9 plug against CRC9 socket')
  })
  it('mating is the same from either side', () => {
    const ends = CONNECTORS.flatMap(c => (['plug', 'socket'] as const).map(g => end(c, g)))
    for (const a of ends) for (const b of ends) expect(matingProblem(a, b) === null).toBe(matingProblem(b, a) === null)
  })
  it('every antenna takes every line, by two adapters at most', () => {
    for (const antenna of PARTS) {
      if (antenna.kind !== 'antenna') continue
      for (const line of PARTS) {
        // What an extender hears goes on as data.
        if (!isCoax(line) || antenna.ports[0]!.connector === 'RJ45') continue
        const chain = adapterChain(lineEnd(line), antenna.ports[0]!)
        expect(chain, `${antenna.name}, ${line.name}`).not.toBeNull()
        expect(chain!.length, `${antenna.name}, ${line.name}`).toBeLessThanOrEqual(2)
      }
    }
  })
  it('N lines come to every small plug of a modem by one adapter', () => {
    const line = lineEnd(partOfKind('line-240', 'line')!)
    for (const c of ['SMA', 'TS9', 'CRC9', 'FME', 'TNC', 'BNC'] as const)
      expect(
        adapterChain(line, end(c, 'socket'))?.map(l => l.part.kind),
        c,
      ).toEqual(['adapter'])
  })
  it('a chain mates at every joint, and is the shortest that does', () => {
    const ends = CONNECTORS.flatMap(c => (['plug', 'socket'] as const).map(g => end(c, g)))
    fc.assert(
      fc.property(fc.constantFrom(...ends), fc.constantFrom(...ends), (a, b) => {
        const chain = adapterChain(a, b)
        if (!chain) return
        let at: End = a
        for (const link of chain) {
          expect(matingProblem(at, link.entry)).toBeNull()
          at = link.exit
        }
        expect(matingProblem(at, b)).toBeNull()
        expect(chain.length).toBe(fewest(a, b))
      }),
    )
  })
  it('the right cable comes before a cable with adapters', () => {
    const sma = end('SMA', 'socket')
    const [first] = cablesBetween(sma, sma, { lengthM: 3, frequencyMHz: 800 })
    expect(first).toMatchObject({ atFrom: [], atTo: [] })
    expect(first!.line.ends).toBe('SMA')
    // Of those that fit as they are, the least loss.
    expect(first!.line.id).toBe('line-240-sma')
  })
  it('the usual kits fit at every joint', () => {
    for (const kind of ['home', 'building', 'vehicle', 'boat'] as const)
      for (const approach of ['router', 'booster'] as const) {
        const h = new House(approach, kind)
        expect(
          misfits(treeOf(h.doc, h.doc.designs[0]!)).map(m => m.words),
          `${kind} ${approach}`,
        ).toEqual([])
      }
  })
  it('both ends of a joint are looked at, and an adapter mends either', () => {
    for (const part of ['amplifier', 'arrestor']) {
      const h = new House('booster')
      h.swap(h.part(part), part === 'amplifier' ? 'amp-75' : 'arr-gas-np')
      const before = misfits(treeOf(h.doc, h.doc.designs[0]!)).filter(m => m.kind === 'plug')
      expect(before.length, part).toBeGreaterThan(0)
      for (let i = 0; i < before.length; i++) h.cured('choose.connector')
      expect(
        misfits(treeOf(h.doc, h.doc.designs[0]!)).filter(m => m.kind === 'plug'),
        part,
      ).toEqual([])
    }
  })
})

/** Fewest adapters from one end to another, by trying all of one, then of two, … */
function fewest(a: End, b: End): number {
  const adapters = PARTS.filter(p => p.kind === 'adapter' && !p.id.startsWith('adp-window')) as Extract<
    (typeof PARTS)[number],
    { kind: 'adapter' }
  >[]
  let ends: End[] = [a]
  for (let n = 0; n < 5; n++) {
    if (ends.some(e => !matingProblem(e, b))) return n
    ends = ends.flatMap(e => adapters.flatMap(p => [0, 1].filter(i => !matingProblem(e, p.ports[i]!)).map(i => p.ports[1 - i]!)))
    const seen = new Map(ends.map(e => [`${e.connector} ${e.gender}`, e]))
    ends = [...seen.values()]
  }
  return Infinity
}

describe('parts put in by hand', () => {
  it('one of the crew’s own comes whole, though the catalogue does not know it', () => {
    const own = { ...partById('ant-dome')!, id: 'own-dome', name: 'Ours' }
    const house = new House('booster')
    const [step] = looseSteps(house.doc.designs[0]!, own, { eastM: 1, northM: 2, upM: 3 })
    expect(step!.fields).toMatchObject({ partId: 'own-dome', part: own, own: null, eastM: 1, northM: 2, upM: 3 })
  })
})

describe('lengths', () => {
  const home = () => {
    const h = new House('booster')
    return { h, b: buildingOf(h.doc) }
  }
  it('goes down and along, with slack for bends and both ends', () => {
    const { b } = home()
    const out = { eastM: -6, northM: 6, upM: 8 }
    expect(wayM('home', b, out, { ...out, upM: 1.2 })).toBeCloseTo(6.8 + 1.5, 9)
    expect(wayM('home', b, { eastM: 0, northM: 0, upM: 1 }, { eastM: 3, northM: 0, upM: 2.5 })).toBeGreaterThan(4.5)
  })
  it('takes the shortest stock length that reaches, else the next half metre', () => {
    const line = partOfKind('line-400', 'line')!
    expect(stockLengthM(line, 9.2)).toBe(10)
    expect(stockLengthM(line, 30.2)).toBe(30.5)
  })
  it('a part moved away leaves its cable short, and the cure takes the next stock length', () => {
    const { h } = home()
    h.place(h.donor, { upM: h.donor.upM + 4 })
    const f = h.finding('place.short')!
    expect(f.severity).toBe('fix')
    const before = h.doc.runs[0]!.lengthM
    h.cured('place.short')
    expect(h.doc.runs[0]!.lengthM).toBeGreaterThan(before)
    expect(h.finding('place.short')).toBeUndefined()
  })
  it('a measured length stays, and is doubted where the picture says otherwise', () => {
    const { h } = home()
    const run = h.doc.runs[0]!
    h.set('runs', run.id, { measured: true, lengthM: 2 })
    expect(h.finding('place.short')).toBeUndefined()
    expect(h.finding('place.length-doubt')?.severity).toBe('note')
    const joint = treeOf(h.doc, h.doc.designs[0]!).joints.find(j => j.run.id === run.id)!
    expect(cableLength('home', buildingOf(h.doc), joint)!.contradicted).toBe(true)
  })
})
