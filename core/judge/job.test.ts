import { said } from '../../tests/support/said'
import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { applyChanges, invertChanges, mergeFields, standing } from '../job/changes'
import { newJobChanges } from '../job/defaults'
import { partById } from '../catalogue/parts'
import { buildingOf } from '../site/building'
import { solveCures } from '../solve/cures'
import { emptyDocument } from '../job/schema'
import type { Change, JobDocument } from '../job/schema'
import { assess } from './assess'
import type { Assessment } from './assess'
import { pathInputs } from '../masts/bearings'
import { along, axisSign, moveAlong, rooms } from '../site/frame'
import { makeReport } from '../report/report'
import { toSvg } from '../drawing/primitives'
import { layoutSection } from '../drawing/section'
import { cutTile, Terrain } from '../terrain/blocks'
import { computePaths } from '../terrain/path'
import type { PathResult } from '../terrain/path'
import { countedIds, demoScenario } from '../../demo/scenario'
import { demoTile } from '../../demo/terrain'

const AT = '2026-04-03T12:00:00.000Z'
const terrain = new Terrain(cutTile(demoTile()))
const scenario = demoScenario()
const [kiln, loft, croft] = scenario.jobs.map(j => j.document) as [JobDocument, JobDocument, JobDocument]

function evidence(doc: JobDocument): { paths: Record<string, PathResult> } {
  const paths = computePaths(terrain, pathInputs(doc))
  return { paths }
}
const run = (doc: JobDocument) => assess(doc, evidence(doc), { atUtc: AT })
const edit = (doc: JobDocument, table: Change['table'], rowId: string, fields: Record<string, unknown>) =>
  applyChanges(doc, [{ id: 'x', table, rowId, op: 'update', baseVersion: 0, fields }])
const node = (doc: JobDocument, kind: string, use?: string) =>
  doc.nodes.find(n => n.part?.kind === kind && (!use || (n.part.kind === 'antenna' && n.part.use === use)))!
const codes = (a: Assessment) => a.findings.map(f => f.code)

describe('changes', () => {
  const ids = countedIds(99)
  it('undo brings back exactly what was', () => {
    const spot = kiln.spots[0]!
    const changes: Change[] = [
      { id: ids(), table: 'spots', rowId: spot.id, op: 'update', baseVersion: 0, fields: { name: 'Pantry', upM: 2 } },
      { id: ids(), table: 'spots', rowId: ids(), op: 'insert', baseVersion: 0, fields: { ...spot, name: 'New' } },
      { id: ids(), table: 'runs', rowId: kiln.runs[0]!.id, op: 'delete', baseVersion: 0, fields: {} },
    ]
    const after = applyChanges(kiln, changes)
    expect(after.spots[0]!.name).toBe('Pantry')
    const back = applyChanges(after, invertChanges(kiln, changes, ids))
    expect(back.spots).toEqual(kiln.spots)
    expect(new Set(back.runs.map(r => r.id))).toEqual(new Set(kiln.runs.map(r => r.id)))
  })
  it('leaves tables that were not touched as they are', () =>
    expect(edit(kiln, 'jobs', kiln.jobs[0]!.id, { notes: 'x' }).spots).toBe(kiln.spots))
  it('two people’s edits of different fields merge; of the same field come back with both values', () => {
    const row = { name: 'theirs', upM: 2, note: null }
    const versions = { name: 7, upM: 3 }
    const r = mergeFields(row, versions, { table: 'spots', rowId: 'r', baseVersion: 5, fields: { name: 'mine', upM: 4 } })
    expect(r.accepted).toEqual({ upM: 4 })
    expect(r.conflicts).toEqual([{ table: 'spots', rowId: 'r', field: 'name', mine: 'mine', theirs: 'theirs', version: 7 }])
  })
  it('the same value on both sides is agreed, not a conflict', () => {
    fc.assert(
      fc.property(fc.string(), fc.integer({ min: 0, max: 20 }), fc.integer({ min: 0, max: 20 }), (value, theirsAt, base) => {
        expect(
          mergeFields(
            { name: value },
            { name: theirsAt },
            { table: 'spots', rowId: 'r', baseVersion: base, fields: { name: value } },
          ).conflicts,
        ).toEqual([])
      }),
    )
  })
  it('a log shows neither what was replaced nor what was withdrawn', () => {
    const row = (id: string, replacesId: string | null, withdrawn = false) => ({ id, replacesId, withdrawn })
    expect(standing([row('a', null), row('b', 'a'), row('c', null), row('d', 'c', true)]).map(r => r.id)).toEqual(['b'])
  })
})

describe('the site frame', () => {
  it('puts the mast on the left', () => {
    expect(axisSign({ axisDeg: 90 }, 85)).toBe(-1)
    expect(axisSign({ axisDeg: 90 }, 270)).toBe(1)
  })
  it('moving along keeps the place across', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.constantFrom<1 | -1>(1, -1),
        (to, axisDeg, sign) => {
          const p = { eastM: 3, northM: -2, upM: 1 }
          const q = { ...p, ...moveAlong({ axisDeg }, p, to, sign) }
          expect(along({ axisDeg }, q, sign)).toBeCloseTo(to, 1)
          expect(along({ axisDeg: axisDeg + 90 }, q, 1)).toBeCloseTo(along({ axisDeg: axisDeg + 90 }, p, 1), 1)
        },
      ),
    )
  })
  it('rooms of a storey fill the house from end to end', () => {
    const ground = rooms(buildingOf(kiln).floors, kiln.sites[0]!, kiln.spots, 1).filter(r => r.level === 0)
    expect(ground[0]!.fromM).toBe(-6)
    expect(ground.at(-1)!.toM).toBe(6)
    for (let i = 1; i < ground.length; i++) expect(ground[i]!.fromM).toBe(ground[i - 1]!.toM)
  })
})

describe('a new job', () => {
  it('stands with its house, rooms and design at once', () => {
    const made = newJobChanges({ name: 'Test', latDeg: 46.8, lonDeg: -41.36, zone: 'UTC' }, countedIds(50))
    const doc = applyChanges(emptyDocument(), made.changes)
    const a = assess(doc, { paths: {} }, { atUtc: AT })
    expect(a.acts.scout.words).toBe('nothing read yet')
    expect(a.promise).toBeNull()
  })
  it('without a job an assessment is refused', () =>
    expect(() => assess(emptyDocument(), { paths: {} }, { atUtc: AT })).toThrow(RangeError))
})

describe('bearings of the demo', () => {
  const a = run(kiln)
  it('the nearest mast stands behind the ridge and is not the best', () => {
    const mine = a.masts.filter(m => m.matchesCarrier)
    const nearest = mine.reduce((x, y) => (y.distanceM < x.distanceM ? y : x))
    expect(nearest.mast.name).toBe('Lee Harbour')
    expect(nearest.best!.clearance.clearM).toBeLessThan(0)
    expect(mine[0]!.mast.name).toBe('Stack')
    expect(said(mine[0]!.sentence)).toContain('the near one loses')
    expect(codes(a)).toContain('bearings.nearest-not-best')
  })
  it('another carrier’s masts come last and say so', () => {
    const other = a.masts.find(m => !m.matchesCarrier)!
    expect(other.rank).toBeGreaterThan(a.masts.filter(m => m.matchesCarrier).length)
    expect(other.sentence).toContain('cannot use it')
  })
  it('those of a second SIM are told like its own, after the first SIM’s and before those that no SIM can use', () => {
    const second = a.masts.find(m => !m.matchesCarrier && m.path && m.best)!.mast.carrier
    const sims = [...kiln.sims, { ...kiln.sims[0]!, id: 'second', carrier: second }]
    const masts = run({ ...kiln, sims }).masts.filter(m => m.path)
    const of = (m: (typeof masts)[number]) => (m.matchesCarrier ? 0 : m.ofSim ? 1 : 2)
    expect(masts.map(of)).toContain(1)
    expect(masts.map(of)).toEqual([...masts.map(of)].sort())
    for (const m of masts.filter(m => of(m) === 1)) {
      expect(m.mast.carrier).toBe(second)
      if (m.best) expect(said(m.sentence)).toMatch(new RegExp(`^for the SIM of ${second}: `))
    }
    for (const m of masts.filter(m => of(m) === 2)) expect(said(m.sentence)).toContain('cannot use it')
  })
  it('magnetic is true less declination', () =>
    expect((a.chosen!.magneticDeg! + a.declination!.declinationDeg + 720) % 360).toBeCloseTo(a.chosen!.bearingDeg, 6))
})

describe('the sum of a router', () => {
  const a = run(kiln)
  it('adds up: every port is the one before it plus what lies between', () => {
    const { ports } = a.levels!
    for (const p of ports) {
      const before = ports.find(q => q.index === p.visit.parent)
      if (before) expect(p.entryRsrpDbm).toBeCloseTo(before.rsrpDbm - p.jointDb, 9)
    }
  })
  it('starts at the reading, corrected by the phone’s −3 dBi', () => {
    const { start } = a.levels!.sources[0]!
    expect(start.provenance).toBe('measured')
    expect(start.rsrpDbm).toBeCloseTo(start.read!.median + 3 + start.heightGainDb, 9)
  })
  it('a thinner line lowers the port by what the line loses, and is told', () => {
    const thin = run(edit(kiln, 'runs', kiln.runs[0]!.id, { partId: 'line-195', part: partById('line-195'), lengthM: 30 }))
    expect(thin.levels!.modems[0]!.rsrpDbm).toBeLessThan(a.levels!.modems[0]!.rsrpDbm - 7)
    const cure = thin.findings.find(f => f.code === 'level.line')!.cures[0]!
    expect(cure.steps[0]!.fields).not.toMatchObject({ partId: 'line-195' })
  })
})

describe('the loop of a booster', () => {
  let a: Assessment
  beforeAll(() => (a = run(loft)))
  it('is held back, with cures of which one is enough', () => {
    const f = a.findings.find(x => x.code === 'place.loop')!
    expect(f.severity).toBe('fix')
    const cures = solveCures(loft, evidence(loft), f.key, AT)
    expect(cures.length).toBeGreaterThanOrEqual(3)
    expect(cures.some(c => c.enough)).toBe(true)
  })
  it('with the inside antenna at the donor it oscillates and no room is served', () => {
    const donor = node(loft, 'antenna', 'outside')
    const near = run(
      edit(loft, 'nodes', node(loft, 'antenna', 'inside').id, { eastM: donor.eastM - 1, northM: donor.northM, upM: donor.upM }),
    )
    expect(near.loops[0]!.state).toBe('oscillating')
    expect(near.findings[0]!.severity).toBe('stop')
    expect(near.rooms).toEqual([])
  })
  it('the amplifier’s ceiling is shared by its carriers', () => {
    const limit = (n: number) =>
      run(edit(loft, 'designs', loft.designs[0]!.id, { carriersInBand: n })).levels!.amplifiers[0]!.carrierLimitDbm
    expect(limit(1) - limit(4)).toBeCloseTo(6.02, 2)
  })
  it('other carriers of the band are added as predicted through the donor’s pattern, and the loudest is named', () => {
    const amp = a.levels!.amplifiers[0]!
    expect(amp.carriersFrom).toBe('computed')
    const turned = run(
      edit(loft, 'nodes', node(loft, 'antenna', 'outside').id, { azimuthDeg: (a.chosen!.bearingDeg + 180) % 360 }),
    )
    // With its back to its own mast the others fill the band.
    expect(turned.levels!.amplifiers[0]!.loudest).toMatch(/Tern|Gannet/)
  })
  it('too strong a donor is padded by the size it needs', () => {
    const strong = applyChanges(
      loft,
      loft.readings.map((r, i) => ({
        id: String(i),
        table: 'readings' as const,
        rowId: r.id,
        op: 'update' as const,
        baseVersion: 0,
        fields: { rsrpDbm: -70 },
      })),
    )
    const f = run(strong).findings.find(x => x.code === 'level.overload')!
    expect(f.cures[0]!.label).toContain('pad')
  })
  it('a booster is not offered as the cure of poor SINR', () => {
    const noisy = applyChanges(
      loft,
      loft.readings.map((r, i) => ({
        id: String(i),
        table: 'readings' as const,
        rowId: r.id,
        op: 'update' as const,
        baseVersion: 0,
        fields: { sinrDb: 1 },
      })),
    )
    expect(codes(run(noisy))).toContain('choose.booster-sinr')
  })
  it('an accepted finding is quiet and stays', () => {
    const f = a.findings[0]!
    const doc = applyChanges(loft, [
      {
        id: '1',
        table: 'checks',
        rowId: 'c',
        op: 'insert',
        baseVersion: 0,
        fields: { kind: 'accept', key: f.key, done: true, reason: 'tried loose', by: 'Ila', atUtc: AT },
      },
    ])
    expect(run(doc).findings.find(x => x.key === f.key)!.accepted).toEqual({ reason: 'tried loose', by: 'Ila' })
  })
})

describe('fitting', () => {
  const with_ = (kind: string, partId: string) =>
    run(edit(loft, 'nodes', node(loft, kind).id, { partId, part: partById(partId) }))
  it('a 75 Ω amplifier on a 50 Ω line: plugs do not mate, and the mismatch is told', () => {
    const c = codes(with_('amplifier', 'amp-75'))
    expect(c).toContain('choose.connector')
    expect(c).toContain('choose.impedance')
  })
  it('an amplifier without the band is a stop', () =>
    expect(
      run(edit(loft, 'designs', loft.designs[0]!.id, { band: 'B28' })).findings.find(f => f.code === 'choose.device-band')!
        .severity,
    ).toBe('stop'))
  it('an antenna outside its range is told', () =>
    expect(
      codes(run(edit(kiln, 'nodes', node(kiln, 'antenna').id, { partId: 'ant-yagi-mid-x', part: partById('ant-yagi-mid-x') }))),
    ).toContain('choose.antenna-band'))
  it('one feed on a two-port router is told', () =>
    expect(
      codes(run(edit(kiln, 'nodes', node(kiln, 'antenna').id, { partId: 'ant-lpda', part: partById('ant-lpda') }))),
    ).toContain('choose.feeds'))
})

describe('the whole', () => {
  it('gives the same answer twice', () => expect(run(loft)).toEqual(run(loft)))
  it('proves the finished job against what was agreed', () => {
    const a = run(kiln)
    expect(a.proof.verdict.met).toBe(true)
    expect(a.proof.scored!.inside).toBe(true)
    expect(a.proof.unproven.join()).toContain('device, link changed together')
    expect(a.proof.proven.map(p => p.what)).toEqual(['antenna: built-in antenna → outside antenna'])
    expect(a.proof.proven[0]!.words).toContain('p < 0.01, by 16 % of a test')
    expect(a.proof.drops.after!.drops).toBe(1)
    expect(a.proof.failover).toContain('after 18 s')
    const { shares, totalDb } = a.proof.shares!
    expect(shares.reduce((sum, s) => sum + s.db, 0)).toBeCloseTo(totalDb, 9)
  })
  it('reports with every section that has something to say', () => {
    const r = makeReport(kiln, run(kiln), { units: 'metric', crew: 'Harbour crew', by: 'Ila' })
    expect(r.blocks.map(b => b.title)).toEqual([
      'What and where',
      'Aim',
      'Section with the level line',
      'Parts and cables, in the order of the signal',
      'Connections, in the order they are used',
      'Networks',
      'Boxes',
      'Sight line to Stack',
      'Dial',
      'Before and after',
      'Not proven by these tests',
      'Open findings',
      'Steps not done',
      'When it stops working',
    ])
    for (const b of r.blocks) if (b.kind === 'drawing') expect(toSvg(b.drawing)).not.toMatch(/NaN|undefined/)
  })
  it('draws no NaN and keeps labels on the sheet at any size', () => {
    for (const doc of [kiln, loft, croft]) {
      for (const [width, height] of [
        [1280, 560],
        [390, 520],
        [1600, 900],
      ] as const) {
        const v = layoutSection(doc, run(doc), { width, height, units: 'imperial', levels: true, compact: width < 620 })
        expect(toSvg(v.drawing)).not.toMatch(/NaN|undefined/)
        for (const p of v.drawing.primitives) if (p.kind === 'text') expect(p.x).toBeLessThanOrEqual(width)
      }
    }
  })
})
