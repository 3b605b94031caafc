import { said } from '../../tests/support/said'
import { insertChange } from '../job/defaults'
import { describe, expect, it } from 'vitest'
import { countedIds, demoScenario } from '../../demo/scenario'
import { kitChanges } from '../fitting/usual-kit'
import { applyChanges } from '../job/changes'
import type { Job, JobDocument } from '../job/schema'
import { assess } from '../judge/assess'
import { openOf, sayOpen, TAKEN_OPEN } from './open'
import { makeReport } from './report'
import { House } from '../../tests/support/house'

const docs = demoScenario().jobs.map(j => j.document)
const of = (kind: Job['kind']) => docs.find(d => d.jobs[0]!.kind === kind)!
const reportOf = (doc: JobDocument) =>
  makeReport(doc, assess(doc, { paths: {} }, { atUtc: '2026-04-14T12:00:00.000Z' }), { units: 'metric', crew: 'c', by: 'b' })
const block = (doc: JobDocument, title: string) => reportOf(doc).blocks.find(b => b.title.startsWith(title))
const items = (doc: JobDocument) => {
  const b = block(doc, 'When it stops working')
  return b?.kind === 'list' ? b.items.join('\n') : ''
}
const site = (doc: JobDocument) => {
  const b = block(doc, 'What and where')
  return b?.kind === 'facts' ? b.rows.find(r => r[0] === 'Site')![1] : ''
}
const laidOut = (doc: JobDocument, approach: 'router' | 'booster') =>
  applyChanges(doc, kitChanges(doc, doc.designs[0]!, approach, { bearingDeg: 300, newId: countedIds(7000) }))

/** The job before any kit is laid out. */
const bare = (doc: JobDocument): JobDocument => ({ ...doc, nodes: [], runs: [] })

describe('the handover', () => {
  it('gives one bearing one width, on paper and in its picture', () => {
    const h = new House('booster')
    const a = h.assess()
    const text = JSON.stringify(makeReport(h.doc, a, { units: 'metric', crew: 'c', by: 'b' }))
    const widths = [...text.matchAll(/magnetic ± ([\d.]+)°/g)].map(m => m[1])
    expect(widths.length).toBeGreaterThan(1)
    expect([...new Set(widths)]).toEqual([String(Math.round(a.chosen!.compassDeg!))])
  })
  it('speaks of its own kind of site', () => {
    expect(site(of('home'))).toMatch(/^House, 2 floors/)
    expect(site(of('building'))).toMatch(/^Building, 3 floors, 30\.0.m × 16\.0.m$/)
    expect(site(of('vehicle'))).toMatch(/^Vehicle, /)
    expect(site(of('boat'))).toMatch(/^Boat, 12\.0.m, masts 13\.0.m and 7\.5.m above the coachroof$/)
    expect(items(of('boat'))).toContain('salt')
    expect(items(of('boat'))).not.toMatch(/storm|arrestor|roof gland/)
    expect(items(of('vehicle'))).toMatch(/moving on/)
    expect(items(of('vehicle'))).not.toMatch(/salt|arrestor/)
    expect(items(of('home'))).toMatch(/storm/)
  })
  it('speaks of what was fitted, and of nothing else', () => {
    const booster = laidOut(of('building'), 'booster')
    expect(items(booster)).toMatch(/splitter/)
    expect(items(booster)).toMatch(/switch it off at once/)
    expect(items(booster)).not.toMatch(/router/)
    const router = laidOut(of('home'), 'router')
    expect(items(router)).toMatch(/Wi-Fi/)
    expect(items(router)).not.toMatch(/amplifier|splitter/)
    expect(items(bare(of('building')))).not.toMatch(/amplifier|arrestor/)
  })
  it('says on which floor each part of a building is, and over the water on a boat', () => {
    const parts = block(laidOut(of('building'), 'booster'), 'Parts and cables')
    const where = parts?.kind === 'table' ? parts.rows.map(r => r[2]).join('\n') : ''
    expect(where).toMatch(/floor 2, /)
    expect(where).toMatch(/Sail floor, /)
    const aboard = block(of('boat'), 'Parts and cables')
    expect(aboard?.kind === 'table' && aboard.rows.every(r => r[2]!.endsWith('over the water'))).toBe(true)
  })
  it('says which carrier a sweep was read on, in the quantity that was read', () => {
    const kiln = docs[0]!
    const lamps = { ...kiln, sweeps: kiln.sweeps.map(s => ({ ...s, quantity: 'RSRP' as const, band: 'B20' })) }
    const aim = block(lamps, 'Aim')
    expect(aim?.kind === 'facts' && aim.rows.find(r => r[0] === 'Sweep')![1]).toMatch(/ dBm RSRP on B20, 2 passes$/)
  })
  it('names what is open, and who took it over open', () => {
    const plan = laidOut(of('home'), 'router')
    const steps = block(plan, 'Steps not done')
    expect(steps?.kind === 'list' && steps.items.length).toBeGreaterThan(5)
    const a = assess(plan, { paths: {} }, { atUtc: '2026-04-14T12:00:00.000Z' })
    const titles = a.findings.filter(f => f.severity === 'fix' && !f.accepted).map(f => f.title)
    const found = block(plan, 'Open findings')
    expect(titles.length).toBeGreaterThan(0)
    for (const t of titles) expect(found?.kind === 'list' && found.items.some(i => i.startsWith(said(t)))).toBe(true)
    const rows = (d: JobDocument) => {
      const b = block(d, 'What and where')
      return b?.kind === 'facts' ? b.rows.map(r => r[0]) : []
    }
    expect(rows(plan)).not.toContain('Taken over open')
    const words = sayOpen(openOf(plan, a))
    expect(words).toMatch(/^\d+ findings and \d+ steps are open$/)
    const check = { kind: 'tick', key: TAKEN_OPEN, done: true, reason: words, by: 'Owner', atUtc: '2026-04-14T11:00:00.000Z' }
    const taken = applyChanges(plan, [insertChange(countedIds(9100), 'checks', 'taken', check)])
    const b = block(taken, 'What and where')
    expect(b?.kind === 'facts' && b.rows.find(r => r[0] === 'Taken over open')![1]).toBe(`${words}, says Owner, 2026-04-14`)
  })
})
