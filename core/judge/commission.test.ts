/** Commission judged: what is open is said, what is cured goes, and nothing is taken for met. */
import { beforeAll, describe, expect, it } from 'vitest'
import { demoScenario } from '../../demo/scenario'
import { BARE_APPLIANCE, BARE_CONNECTION } from '../connect/lanes'
import { applyChanges } from '../job/changes'
import { changesOf } from '../job/edits'
import type { Appliance, Connection, Failover, JobDocument } from '../job/schema'
import { sure } from '../sure'
import { assess } from './assess'
import type { Finding } from './finding'

const AT = '2026-04-20T12:00:00.000Z'
let trailer: JobDocument
let kiln: JobDocument
let shed: JobDocument
beforeAll(() => {
  const { jobs } = demoScenario()
  const named = (part: string) => sure(jobs.find(j => j.document.jobs[0]!.name.includes(part))).document
  trailer = named('Long trailer')
  kiln = named('kiln')
  shed = named('Potting')
})
const judge = (doc: JobDocument) => assess(doc, { paths: {} }, { atUtc: AT })
const found = (doc: JobDocument): Finding[] => judge(doc).findings.filter(f => f.section === 'commission')
const codes = (doc: JobDocument) => found(doc).map(f => f.code.replace('commission.', ''))
const withRow = (doc: JobDocument, i: number, fields: Partial<Connection>): JobDocument => ({
  ...doc,
  connections: doc.connections.map((c, k) => (k === i ? { ...c, ...fields } : c)),
})
let n = 0
const id = () => `0192f0aa-0000-7000-8000-${String(++n).padStart(12, '0')}`
const cured = (doc: JobDocument, code: string): JobDocument => {
  const f = sure(found(doc).find(x => x.code === `commission.${code}`))
  return applyChanges(doc, changesOf(sure(f.cures[0]).steps, id))
}

describe('what nobody told is open', () => {
  it('a router of which nothing is noted is a thing to fix, and one press lays out what the plan tells', () => {
    expect(codes(shed)).toEqual(['none'])
    const begun = cured(shed, 'none')
    expect(codes(begun)).not.toContain('none')
    expect(codes(begun)).toEqual(expect.arrayContaining(['not-up', 'password', 'doors-unknown']))
  })
  it('a house that is set up whole has nothing open, and each thing taken from it opens', () => {
    expect(codes(kiln)).toEqual([])
    const net = (fields: object) => ({ ...kiln, networks: kiln.networks.map(x => ({ ...x, ...fields })) })
    expect(codes(net({ password: null }))).toContain('password')
    expect(codes(net({ password: 'as delivered' }))).toContain('password')
    expect(codes(net({ passwordTo: null }))).toContain('access')
    expect(codes({ ...kiln, networks: kiln.networks.filter(x => x.kind !== 'management') })).toContain('no-management')
    expect(codes({ ...kiln, labels: [] })).toContain('doors-unknown')
    expect(codes({ ...kiln, labels: kiln.labels.map(l => ({ ...l, wps: 'on' as const })) })).toContain('doors')
    expect(codes({ ...kiln, labels: kiln.labels.map(l => ({ ...l, firmwareFound: '1.9' })) })).toContain('firmware')
    expect(codes({ ...kiln, appliances: kiln.appliances.map(a => ({ ...a, backAtUtc: null })) })).toContain('not-back')
    expect(codes(withRow(kiln, 0, { state: 'denied' }))).toContain('not-up')
    expect(judge(withRow(kiln, 0, { state: 'denied' })).acts.prove.state).not.toBe('done')
  })
})

describe('what fails together, costs too much, or was never tried', () => {
  it('two SIMs of one modem fail together; of one carrier, over one mast, worse; a socket of both as well', () => {
    const f = (doc: JobDocument) => found(doc).filter(x => x.code === 'commission.together')
    expect(f(trailer).map(x => x.severity)).toEqual(['fix'])
    const spare = trailer.connections[1]!.simId
    const other = { ...trailer, sims: trailer.sims.map(s => (s.id === spare ? { ...s, carrier: 'Gannet' } : s)) }
    expect(f(other).map(x => x.severity)).toEqual(['note'])
    const socketId = trailer.fixtures.find(x => x.kind === '12 V feed')!.id
    const both = withRow(withRow(other, 0, { socketId }), 1, { socketId })
    expect(f(both).map(x => x.severity)).toEqual(['fix'])
  })
  it('a check that takes a tenth of the allowance is asked less often, and then it costs little', () => {
    const gannet = trailer.connections.findIndex(c => c.name.startsWith('Gannet'))
    const small = { ...trailer, sims: trailer.sims.map(s => (s.name.startsWith('Gannet') ? { ...s, allowanceGb: 0.5 } : s)) }
    const costly = withRow(small, gannet, { checkS: 5, checkPlaces: 1 })
    expect(codes(costly)).toContain('check-costs')
    expect(codes(cured(costly, 'check-costs'))).not.toContain('check-costs')
  })
  it('tunnels over what is counted, where another serves first', () => {
    const gannet = trailer.connections.findIndex(c => c.name.startsWith('Gannet'))
    const open = withRow(trailer, gannet, { carries: 'everything' })
    expect(codes(open)).toContain('tunnel')
    expect(codes(cured(open, 'tunnel'))).not.toContain('tunnel')
  })
  it('failover never tested, tested, and failed', () => {
    expect(codes(trailer)).toContain('failover-untested')
    const test = (answeredAtUtc: string | null): Failover => ({
      id: id(),
      connectionId: trailer.connections[0]!.id,
      how: 'line pulled',
      pulledAtUtc: '2026-04-09T10:00:00.000Z',
      answeredAtUtc,
      otherId: null,
      backInAtUtc: answeredAtUtc && '2026-04-09T10:02:00.000Z',
      backAtUtc: answeredAtUtc && '2026-04-09T10:02:25.000Z',
      broke: null,
      address: null,
      withdrawn: false,
    })
    const passed = { ...trailer, failovers: [test('2026-04-09T10:00:18.000Z')] }
    expect(codes(passed)).not.toContain('failover-untested')
    expect(codes(passed)).not.toContain('failover-failed')
    expect(codes({ ...trailer, failovers: [test(null)] })).toContain('failover-failed')
    expect(codes({ ...trailer, failovers: [{ ...test('2026-04-09T10:00:18.000Z'), withdrawn: true }] })).toContain(
      'failover-untested',
    )
  })
  it('a second router before it, and a line that nothing asks after', () => {
    expect(codes(withRow(trailer, 0, { address: 'behind a router' }))).toContain('double-nat')
    const none = withRow(trailer, 0, { checkS: null })
    expect(codes(none)).toContain('no-check')
    expect(codes(cured(none, 'no-check'))).not.toContain('no-check')
  })
  it('a card too large, one with an adapter, and a number misread', () => {
    const sims = (fields: object) => ({ ...trailer, sims: trailer.sims.map(s => ({ ...s, ...fields })) })
    const sizes = (size: string) =>
      found(sims({ size }))
        .filter(f => f.code === 'commission.card-size')
        .map(f => f.severity)
    expect(new Set(sizes('mini'))).toEqual(new Set(['fix']))
    expect(sizes('nano')).toEqual([])
    expect(codes(sims({ iccid: '8999901234567890127' }))).toContain('iccid')
    expect(codes(sims({ iccid: '8999901234567890124' }))).not.toContain('iccid')
  })
})

it('a month that does not last is told: half likely as a note, all but sure to fix', () => {
  const house = kiln.networks.find(x => x.kind === 'house')!
  const films = (hoursDay: number): Appliance => ({
    ...BARE_APPLIANCE,
    id: id(),
    networkId: house.id,
    name: 'films',
    usage: 'films',
    hoursDay,
    backAtUtc: AT,
  })
  const with_ = (hours: number): JobDocument => ({
    ...kiln,
    sims: kiln.sims.map(s => ({ ...s, allowanceGb: 100 })),
    appliances: [films(hours)],
  })
  const severity = (hours: number) => found(with_(hours)).find(f => f.code === 'commission.month')?.severity ?? null
  // 2.25 GB an hour, 30 days: one hour a day is 67.5 GB, 1.6 hours 108 GB, 6 hours 405 GB.
  expect(severity(1)).toBeNull()
  expect(severity(1.6)).toBe('note')
  expect(severity(6)).toBe('fix')
})

it('rows that make no sense together take no other section down', () => {
  const odd: JobDocument = {
    ...kiln,
    connections: [
      ...kiln.connections,
      { ...BARE_CONNECTION, id: id(), name: 'x', kind: 'cellular', rank: 10, simId: id(), nodeId: id() },
    ],
    sims: kiln.sims.map(s => ({ ...s, allowanceGb: 0 })),
  }
  expect(codes(odd)).not.toContain('unworkable')
})
