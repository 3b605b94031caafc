import { describe, expect, it } from 'vitest'
import { AT, House } from '../../tests/support/house'
import { logIndex } from '../survey/spots'
import { dropsOf, drillWords, mostExpected } from './drops'

/** A house with its after, watched. */
function watched(rows: { seconds: number; drops: number; longestS?: number; lostS?: number; kind?: string }[]): House {
  const h = new House('router').reads('Ridge', -95, 15).speed('Kitchen', 2, 0.5).speed('Kitchen', 12, 3, { phase: 'after' })
  for (const down of [12, 13]) h.speed('Kitchen', down, 3, { phase: 'after' })
  const setupId = h.doc.setups.find(s => s.mark === 'after')!.id
  for (const r of rows)
    h.add('watches', {
      spotId: h.spot('Kitchen').id,
      setupId,
      stopId: null,
      takenAtUtc: AT,
      replacesId: null,
      withdrawn: false,
      kind: 'watch',
      longestS: 0,
      lostS: 0,
      switchS: null,
      backS: null,
      broke: null,
      ...r,
    })
  return h
}

describe('drop-outs', () => {
  it.each([
    // One-sided 90 % limits of a Poisson count: Garwood 1936, as in handbook tables (χ²(0.9; 2n+2)/2).
    [0, 2.303],
    [1, 3.89],
    [2, 5.322],
    [3, 6.681],
    [10, 15.407],
  ])('%i seen: fewer than %f nine times in ten', (count, most) => {
    expect(mostExpected(count)).toBeCloseTo(most, 3)
  })
  it('the limit rises with the count, also where it is taken from the normal curve', () => {
    for (const n of [0, 5, 50, 399, 400, 401, 402, 5000]) expect(mostExpected(n + 1)).toBeGreaterThan(mostExpected(n))
  })
  it('an hour without one says fewer than 2.3 an hour, not none', () => {
    const d = dropsOf(logIndex(watched([{ seconds: 3600, drops: 0 }]).doc), 'after')!
    expect(d.words).toBe('no drop-out in 60 min: fewer than 2.3 an hour, nine in ten')
    expect(d.up).toBe(1)
  })
  it('agreed drop-outs are proved like speeds: watched for an hour, and few enough', () => {
    const verdict = (h: House) => h.job({ agreedDrops: 1 }).assess().proof.verdict
    expect(verdict(watched([]))).toMatchObject({ met: null, short: 'drop-outs not watched' })
    expect(verdict(watched([{ seconds: 600, drops: 0 }]))).toMatchObject({ met: null })
    expect(verdict(watched([{ seconds: 7200, drops: 1, longestS: 4, lostS: 4 }]))).toMatchObject({ met: true })
    expect(verdict(watched([{ seconds: 3600, drops: 3 }]))).toMatchObject({
      met: false,
      short: '3.0 drop-outs an hour, 1 agreed',
    })
  })
  it('a drill is told by its times, and is no watch', () => {
    const h = watched([])
    h.add('watches', {
      ...watched([{ seconds: 90, drops: 1, kind: 'drill' }]).doc.watches[0]!,
      id: undefined,
      spotId: h.spot('Kitchen').id,
      setupId: h.doc.setups.find(s => s.mark === 'after')!.id,
      switchS: 14,
      backS: 31,
      broke: 'the call dropped',
    })
    expect(drillWords(logIndex(h.doc))).toBe(
      'main line pulled: the other way answered after 14 s, back on the main line 31 s after its return; the call dropped',
    )
    expect(dropsOf(logIndex(h.doc), 'after')).toBeNull()
  })
})

describe('a level gained, by what brought it', () => {
  /** Kitchen read by a router on its own, then through the outside antenna. */
  function gained(afterDbm: number, o: { ridge?: number } = {}): House {
    const h = new House('router').reads('Ridge', o.ridge ?? -95, 15).reads('Kitchen', -112, 2)
    const first = h.doc.setups.find(s => s.id === h.doc.readings.at(-1)!.setupId)!
    const setupId = h.add('setups', {
      ...first,
      id: undefined,
      antenna: 'outside',
      designId: h.doc.designs[0]!.id,
      mark: 'after',
    })
    for (let i = 0; i < 3; i++) h.reads('Kitchen', afterDbm, 15, { setupId, phase: undefined, device: undefined })
    return h
  }
  it('shares come to the total, and each has its sign', () => {
    const s = gained(-90).assess().proof.shares!
    expect(s.totalDb).toBeCloseTo(22, 6)
    expect(s.shares.reduce((sum, x) => sum + x.db, 0)).toBeCloseTo(s.totalDb, 9)
    const of = (name: string) => s.shares.find(x => x.share === name)!.db
    expect(of('place')).toBeCloseTo(17, 6)
    expect(of('antenna')).toBeGreaterThan(5)
    expect(of('cable')).toBeLessThan(0)
    expect(s.reserve).toContain('only the total')
  })
  it('what is missing is named as missing, not spread over the rest', () => {
    const [full, poor] = [gained(-85), gained(-105)].map(h => h.assess().proof.shares!)
    const of = (s: typeof full, name: string) => s!.shares.find(x => x.share === name)!
    expect(of(poor, 'antenna').db).toBe(of(full, 'antenna').db)
    expect(of(poor, 'unexplained').db).toBeCloseTo(of(full, 'unexplained').db - 20, 6)
    expect(of(poor, 'unexplained').words).toContain('look at plugs')
  })
  it('where it falls short, what is missing comes first of what to do next', () => {
    const h = gained(-105)
    const after = h.doc.setups.find(s => s.mark === 'after')!.id
    for (const downMbps of [3, 3.2, 2.9])
      h.add('speedRuns', {
        spotId: h.spot('Kitchen').id,
        setupId: after,
        stopId: null,
        takenAtUtc: AT,
        replacesId: null,
        withdrawn: false,
        band: 'B20',
        cellId: null,
        downMbps,
        upMbps: 1,
        pingMs: 40,
        wouldNotLoad: false,
        via: null,
        doubted: false,
      })
    const { nextSteps } = h.assess().proof
    expect(nextSteps[0]!.words).toContain('dB are missing')
    expect(nextSteps[0]!.times).toBeGreaterThan(1.5)
    expect(nextSteps.at(-1)!.words).toContain('aim again')
  })
  it('another band, or no outside antenna: nothing is parted', () => {
    expect(new House('router').reads('Ridge', -95, 15).reads('Kitchen', -112, 2).assess().proof.shares).toBeNull()
  })
})
