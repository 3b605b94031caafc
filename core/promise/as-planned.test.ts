import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'

/** A router on the house whose plan was held on a pole first. */
function tried(changed: Record<string, unknown> = {}, downs: number[] = [41, 40, 42]) {
  const h = new House('router').reads('Ridge', -88, 12).speed('Kitchen', 6, 2)
  const designId = h.doc.designs[0]!.id
  const deg = h.assess().levels!.sources[0]!.turned.azimuthDeg
  const like = { antenna: 'outside', designId, antennaUpM: h.donor.upM, antennaDeg: deg, link: 'LAN' } as const
  const model = h.assess().promise!
  return { h, model, promise: h.tests('Kitchen', h.setup({ ...like, ...changed }), downs).assess().promise! }
}

describe('tests made with the plan itself', () => {
  it('rule over what is reckoned, and nothing more is asked for', () => {
    const { model, promise } = tried()
    expect(model.down.tests).toBeUndefined()
    expect(promise.down).toMatchObject({ median: 41, tests: 3 })
    expect(promise.up.median).toBeCloseTo(10.25, 5)
    expect(promise.met).toBe('likely')
    expect(promise.words).toBe('agreed 10: met as tested')
    expect(promise.next).toBeNull()
    expect(promise.assumptions).toEqual([])
  })
  it('one test is not three', () => {
    const { promise } = tried({}, [41])
    expect(promise.met).toBe('open')
    expect(promise.words).toBe('agreed 10: met so far, by 1 of 3 tests')
    expect(promise.down.plusMinus).toBeGreaterThan(0)
  })
  it.each([
    ['held elsewhere in height', { antennaUpM: 1 }],
    ['turned away', { antennaDeg: 90 }],
    ['heading not said', { antennaDeg: null }],
    ['height not said', { antennaUpM: null }],
    ['through a booster', { booster: 'on' }],
    ['with its built-in antenna', { antenna: 'built in', designId: null }],
  ])('%s it says nothing of the plan', (_what, changed) => {
    expect(tried(changed).promise.down.tests).toBeUndefined()
  })
  it('what stays as finished work is proof, not promise', () => {
    expect(tried({ mark: 'after' }).promise.down.tests).toBeUndefined()
  })
})

describe('what limits the promise is named', () => {
  it('rooms to be proved that are short of level are not met', () => {
    const h = new House('booster', 'home', { agreedDownMbps: 0.5, agreedUpMbps: null })
      .reads('Ridge', -78, 18)
      .reads('Bedroom', -118, 1)
    h.spot('Bedroom').needed = true
    h.set('spots', h.spot('Bedroom').id, { needed: true, needDbm: -60 })
    const { promise } = h.assess()
    expect(promise!.words).toBe('agreed 0.5: met down, Bedroom short of level')
    expect(promise!.met).not.toBe('likely')
  })
  it('calls that a router cannot bring are named', () => {
    const h = new House('router', 'home', { agreedDownMbps: 1, agreedUpMbps: null, agreedCalls: true }).reads('Ridge', -80, 18)
    const sim = { name: 'SIM', carrier: 'Tern', plan: null, capDownMbps: null, capUpMbps: null, allowanceGb: null }
    h.add('sims', { ...sim, callsOverWifi: 'yes' })
    expect(h.assess().promise!.words).not.toContain('calls')
    h.set('sims', h.doc.sims[0]!.id, { callsOverWifi: 'no' })
    expect(h.assess().promise).toMatchObject({ words: 'agreed 1: met down, no calls by it', met: 'unlikely' })
  })
})
