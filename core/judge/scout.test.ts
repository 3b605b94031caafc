import { said } from '../../tests/support/said'
import { describe, expect, it } from 'vitest'
import { demoScenario } from '../../demo/scenario'
import { demoTile } from '../../demo/terrain'
import { layoutSection } from '../drawing/section'
import { layoutSkyline } from '../drawing/skyline'
import { layoutDial } from '../drawing/dial'
import { cutTile, Terrain } from '../terrain/blocks'
import { VOID } from '../terrain/hgt'
import { horizonRing } from '../terrain/horizon'
import { computePath, computePaths } from '../terrain/path'
import type { PathResult } from '../terrain/path'
import { applyChanges, standing } from '../job/changes'
import { assess } from './assess'
import type { Assessment } from './assess'
import { bearingHalfWidth, cellsByMast, pathInputs, worthOf } from '../masts/bearings'
import { calibrations, mastOfReading, PRIOR_SIGMA_DB } from '../masts/calibrate'
import { newJobChanges } from '../job/defaults'
import { heightCurve, nextMetreDb } from '../aim/heights'
import { atPresentStop, obstaclesHere, positionOf, toFrame } from '../survey/place'
import { secondOpinion } from '../masts/predict'
import { emptyDocument } from '../job/schema'
import { completeDocument } from '../job/legacy'
import type { Cell, Change, JobDocument } from '../job/schema'

const scenario = demoScenario()
const terrain = new Terrain(cutTile(demoTile()))
const [kiln, , croft, van, ketch] = scenario.jobs.map(j => j.document) as [
  JobDocument,
  JobDocument,
  JobDocument,
  JobDocument,
  JobDocument,
]
const AT = '2026-04-12T14:00:00.000Z'
const evidence = (doc: JobDocument) => {
  const paths = computePaths(terrain, pathInputs(doc))
  return { paths }
}
const run = (doc: JobDocument, at = AT): Assessment => assess(doc, evidence(doc), { atUtc: at })
const edit = (doc: JobDocument, table: Change['table'], rowId: string, fields: Record<string, unknown>): JobDocument =>
  applyChanges(doc, [{ id: 'x', table, rowId, op: 'update', baseVersion: 0, fields }])
const codes = (a: Assessment) => a.findings.map(f => f.code)
const without = (doc: JobDocument): JobDocument => ({ ...doc, readings: [] })

describe('readings calibrate', () => {
  const a = run(kiln)
  const stack = a.masts.find(m => m.mast.name === 'Stack')!
  it('a mast that was read is corrected toward the readings and known better', () => {
    expect(stack.calibration).toMatchObject({ readings: 15 })
    expect(stack.best!.sigmaDb).toBeLessThan(PRIOR_SIGMA_DB / 2)
    const raw = run(without(kiln)).masts.find(m => m.mast.name === 'Stack')!
    expect(stack.best!.rsrpDbm).toBeLessThan(raw.best!.rsrpDbm - 5)
  })
  it('what it shares with others narrows them too, but less', () => {
    const other = a.masts.find(m => m.mast.name === 'Quay Town')!
    expect(other.calibration!.readings).toBe(0)
    expect(Math.abs(other.calibration!.offsetDb)).toBeLessThan(Math.abs(stack.calibration!.offsetDb))
    expect(other.best!.sigmaDb).toBeLessThan(PRIOR_SIGMA_DB)
    expect(other.best!.sigmaDb).toBeGreaterThan(stack.best!.sigmaDb)
  })
  it('the truth of simulated sites lies within the width told, nine times in ten', () => {
    // Shared and own errors drawn from what the model believes; one mast read at two outdoor spots, the other never.
    const doc = { ...kiln, readings: [] as JobDocument['readings'] }
    const byMast = cellsByMast(doc.cells)
    const e = evidence(doc)
    const path = (name: string) => e.paths[pathInputs(doc).find(i => i.mastId === doc.masts.find(m => m.name === name)!.id)!.key]!
    const spots = doc.spots.filter(s => !s.indoors)
    let seed = 7
    const uniform = () => (seed = (seed * 16807) % 2147483647) / 2147483647
    const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
    const template = kiln.readings[0]!
    let inside = 0
    let insideOther = 0
    const worlds = 300
    const zero = calibrations({ ...doc, readings: [] }, [], () => null, byMast)
    expect(zero.others).toBeNull()
    for (let w = 0; w < worlds; w++) {
      const shared = 6 * normal()
      const own = Math.sqrt(45) * normal()
      const p = path('Stack')
      const base = calibrations(
        doc,
        spots.map((s, i) => ({
          ...template,
          id: `r${i}`,
          spotId: s.id,
          rsrpDbm: 0,
          bandwidthMHz: 10,
          setup: null,
          phase: 'before' as const,
        })),
        () => p,
        byMast,
      )
      // With 0 dBm read the difference is 0 − predicted: predicted levels come back out of it.
      expect(base.of.size).toBe(1)
      const readings = spots.map((s, i) => ({
        ...template,
        id: `r${i}`,
        spotId: s.id,
        bandwidthMHz: 10,
        setup: null,
        phase: 'before' as const,
        rsrpDbm: predicted(doc, p, s.upM) - 3 + shared + own + 4 * normal(),
      }))
      const c = calibrations(doc, readings, () => p, byMast)
      const mine = c.of.get(p.mastId)!
      if (Math.abs(mine.offsetDb - shared - own) <= 1.645 * mine.sigmaDb) inside++
      if (Math.abs(c.others!.offsetDb - shared - Math.sqrt(45) * normal()) <= 1.645 * c.others!.sigmaDb) insideOther++
    }
    expect(inside / worlds).toBeGreaterThan(0.85)
    expect(inside / worlds).toBeLessThan(0.96)
    expect(insideOther / worlds).toBeGreaterThan(0.84)
    expect(insideOther / worlds).toBeLessThan(0.96)
  })
  it('a reading finds its mast by its cell, or by the LTE number its cells share', () => {
    const cell = (mastId: string, cellId: string): Cell => ({
      id: cellId,
      mastId,
      technology: 'LTE',
      band: 'B20',
      cellId,
      channel: null,
      azimuthDeg: null,
      beamwidthDeg: null,
      powerDbm: null,
    })
    // 3GPP TS 36.413: 28 bits, the low eight the cell's own. eNB 80001 = 0x13881; cell 3 → 20480259.
    const cells = [cell('a', String(80001 * 256 + 1)), cell('b', '77')]
    const of = (cellId: string | null) => mastOfReading({ cellId, technology: 'LTE' }, cells, () => 'Tern', 'Tern')
    expect(of(String(80001 * 256 + 3))).toBe('a')
    expect(of('77')).toBe('b')
    expect(of('78')).toBeNull()
    expect(of(null)).toBeNull()
  })
})

function predicted(doc: JobDocument, p: PathResult, upM: number): number {
  const i = heightCurve(
    terrain,
    pathInputs(doc).find(x => x.mastId === p.mastId)!,
    doc.cells,
    { bandName: 'B20' },
  )!
  const at = Math.max(2, Math.min(30, Math.round(upM)))
  return i.rsrpDbm[at - 2]!
}

describe('ranking', () => {
  it('a level is worth what its SINR over noise alone carries, up to 20 dB', () => {
    expect(worthOf(-105, 0)).toBeGreaterThan(worthOf(-115, 0))
    expect(worthOf(-80, 0)).toBe(worthOf(-100, 0))
    expect(worthOf(-60, 9)).toBeCloseTo(worthOf(-60, 0), 0)
    expect(worthOf(-140, 0)).toBe(0)
  })
  it('counts bands: one more shared band never ranks a mast lower', () => {
    const a = run(kiln)
    const one = run({
      ...kiln,
      cells: kiln.cells.filter(c => c.mastId !== a.masts[1]!.mast.id || c.band === a.masts[1]!.best!.band),
    })
    const before = a.masts.find(m => m.mast.id === a.masts[1]!.mast.id)!
    const after = one.masts.find(m => m.mast.id === before.mast.id)!
    expect(after.expectedMbps).toBeLessThan(before.expectedMbps)
    expect(after.rank).toBeGreaterThanOrEqual(before.rank)
  })
  it('a mast that does not send a band that was read here is marked so, and one whose SIM did not read it is not', () => {
    const mine = (doc: JobDocument) => run(doc).masts.filter(m => m.matchesCarrier && !m.bandsGuessed)
    const odd = { ...kiln.readings[0]!, id: 'odd', band: 'B38', cellId: null, setupId: null, rsrpDbm: -99 }
    expect(mine(kiln).flatMap(m => m.lacks)).not.toContain('B38')
    const read = mine({ ...kiln, readings: [...kiln.readings, odd] })
    const lack = read.filter(m => !kiln.cells.some(c => c.mastId === m.mast.id && c.band === 'B38'))
    expect(lack.length).toBeGreaterThan(0)
    for (const m of lack) {
      expect(m.lacks).toContain('B38')
      if (m.best) expect(said(m.sentence)).toMatch(/does not send .*B38, which w/)
    }
    const other = run({ ...kiln, readings: [...kiln.readings, odd] }).masts.filter(m => !m.matchesCarrier)
    expect(other.flatMap(m => m.lacks)).not.toContain('B38')
  })
  it('names the obstacle that blocks, where one does', () =>
    expect(run(croft).masts.some(m => said(m.sentence).includes('behind Spruce belt'))).toBe(true))
  it('a position gathered from phones widens the bearing and says so', () => {
    const stack = kiln.masts.find(m => m.name === 'Stack')!
    const a = run(edit(kiln, 'masts', stack.id, { accuracyM: 1500 }))
    const m = a.masts.find(x => x.mast.id === stack.id)!
    // atan(1.5 km / 9.3 km) is 9.2°.
    expect(m.positionDeg).toBeCloseTo(9.2, 0)
    expect(bearingHalfWidth(m, a.declination)).toBeGreaterThan(m.positionDeg)
    expect(said(m.sentence)).toContain('of bearing')
  })
})

describe('findings of bearings', () => {
  const stack = kiln.masts.find(m => m.name === 'Stack')!
  it('an old list is called old', () => {
    expect(codes(run(kiln))).not.toContain('bearings.data-old')
    expect(codes(run(edit(kiln, 'masts', stack.id, { seenOn: '2021-05-01' })))).toContain('bearings.data-old')
  })
  it('wider than the beam, by much, is to be cured', () => {
    const f = run(edit(kiln, 'masts', stack.id, { accuracyM: 9000 })).findings.find(x => x.code === 'bearings.beam-narrow')!
    expect(f.severity).toBe('fix')
    expect(said(f.sentence)).toContain('costs 3 dB')
  })
  it('coverage so good that it may do without an antenna is to be tested, not promised', () =>
    expect(codes(run({ ...without(van), cells: van.cells.map(c => ({ ...c, powerDbm: 58 })) }))).toContain(
      'bearings.try-indoors',
    ))
  it('none reachable, where every mast is too weak', () => {
    const a = run({ ...without(kiln), cells: kiln.cells.map(c => ({ ...c, powerDbm: -20 })) })
    expect(a.masts.every(m => !m.usable)).toBe(true)
    expect(a.findings.find(f => f.code === 'bearings.none-reachable')!.severity).toBe('stop')
    expect(codes(run(kiln))).not.toContain('bearings.none-reachable')
  })
  it('a void across the path is bridged, and said with its share', () => {
    const site = positionOf(kiln)!
    const holed = demoTile().heights.slice()
    // Three hundredths of a degree of nothing, a third of the way to Stack, which lies due south.
    const row = (lat: number) => Math.round((47 - lat) * 1200)
    for (let y = row(site.latDeg - 0.02); y < row(site.latDeg - 0.05); y++) holed.fill(VOID, y * 1201, (y + 1) * 1201)
    const torn = new Terrain(cutTile({ ...demoTile(), heights: holed }))
    const paths = Object.fromEntries(pathInputs(kiln).flatMap(i => (p => (p ? [[i.key, p]] : []))(computePath(torn, i))))
    const f = assess(kiln, { paths }, { atUtc: AT }).findings.find(x => x.code === 'bearings.terrain-missing')!
    expect(said(f.sentence)).toMatch(/3\d % of the way to Stack/)
    expect(Object.values(paths).every(p => p.bands.every(b => b.diffractionDb.every(Number.isFinite)))).toBe(true)
  })
  it('a date outside the magnetic model is said, and bearings stay true', () => {
    const a = run(kiln, '2031-01-01T00:00:00.000Z')
    expect(codes(a)).toContain('bearings.no-declination')
    expect(a.chosen!.magneticDeg).toBeNull()
    expect(a.chosen!.bearingDeg).toBeGreaterThan(180)
  })
  it('near a magnetic pole the compass is called useless', () => {
    const a = assess(
      edit(edit(kiln, 'sites', kiln.sites[0]!.id, { latDeg: 85.8, lonDeg: 139 }), 'jobs', kiln.jobs[0]!.id, {}),
      { paths: {} },
      { atUtc: AT },
    )
    expect(a.findings.find(f => f.code === 'bearings.compass')!.severity).toBe('fix')
  })
})

describe('how high', () => {
  const input = pathInputs(kiln).find(i => i.mastId === kiln.masts.find(m => m.name === 'Lee Harbour')!.id)!
  const c = heightCurve(terrain, input, kiln.cells, { bandName: 'B20' })!
  it('behind a ridge every metre up brings level; the line takes some of it back', () => {
    for (let i = 1; i < c.heightM.length; i++) expect(c.rsrpDbm[i]!).toBeGreaterThanOrEqual(c.rsrpDbm[i - 1]! - 0.05)
    const thin = c.lines.find(l => l.partId === 'line-195')!
    const thick = c.lines.find(l => l.partId === 'line-600')!
    c.heightM.forEach((_, i) => expect(thin.netDbm[i]!).toBeLessThan(thick.netDbm[i]!))
    expect(nextMetreDb(c, thick, 10)).toBeGreaterThan(nextMetreDb(c, thin, 10))
    expect(thin.bestM).toBeLessThanOrEqual(thick.bestM)
  })
  it('a line’s loss at 14 m is that of 18 m of it with two connector pairs', () => {
    // 400-type: 0.401·√806 + 0.00085·806 dB/100 m, as in shared line constants (two-term model).
    const i = c.heightM.indexOf(14)
    expect(c.lines.find(l => l.partId === 'line-400')!.lossDb[i]).toBeCloseTo(
      0.18 * (0.401 * Math.sqrt(c.frequencyMHz) + 0.00085 * c.frequencyMHz) + 0.2,
      6,
    )
  })
  it('says from where the ridge clears, or that it does not', () => {
    expect(c.sightM).toBeNull()
    const open = heightCurve(
      terrain,
      pathInputs(kiln).find(i => i.mastId === kiln.masts.find(m => m.name === 'Stack')!.id)!,
      kiln.cells,
      { bandName: 'B20' },
    )!
    expect(open.sightM).toBe(2)
    expect(open.clearM).toBe(2)
  })
  it('a band that the mast does not send has no curve worth the name', () =>
    expect(Number.isFinite(heightCurve(terrain, input, kiln.cells, { bandName: 'B8' })!.rsrpDbm[0]!)).toBe(false))
})

describe('a second opinion', () => {
  const a = run(kiln)
  it('Hata in the open lies within 25 dB of the terrain method on a clear path, and is left out beyond its range', () => {
    const stack = a.masts.find(m => m.mast.name === 'Stack')!
    const o = secondOpinion(kiln.cells, stack.path!, { band: stack.path!.bands[0]!, heightM: 5 })
    if (typeof o === 'string') throw new Error(o)
    expect(o.model).toBe('Okumura-Hata')
    expect(Math.abs(o.rsrpDbm - stack.best!.rsrpDbm)).toBeLessThan(25)
    const far = a.masts.find(m => m.mast.name === 'Gull Isle')!
    expect(secondOpinion(kiln.cells, far.path!, { band: far.path!.bands[0]!, heightM: 5 })).toMatch(/outside its range/)
  })
  it('k is settable, and a flatter earth loses no more', () => {
    const flat = run(edit(without(kiln), 'jobs', kiln.jobs[0]!.id, { kFactor: 4 }))
    const bent = run(edit(without(kiln), 'jobs', kiln.jobs[0]!.id, { kFactor: 0.7 }))
    const loss = (x: Assessment) => x.masts.find(m => m.mast.name === 'Long Strand')!.best!.diffractionDb
    expect(loss(flat)).toBeLessThan(loss(bent))
  })
})

describe('what moves', () => {
  it('stands where its present stop is', () => {
    expect(positionOf(van)).toEqual({ latDeg: van.stops[0]!.latDeg, lonDeg: van.stops[0]!.lonDeg })
    const moved = edit(van, 'jobs', van.jobs[0]!.id, { stopId: van.stops[1]!.id })
    expect(positionOf(moved)!.latDeg).toBe(van.stops[1]!.latDeg)
    expect(run(moved).masts[0]!.distanceM).not.toBeCloseTo(run(van).masts[0]!.distanceM, -2)
    expect(atPresentStop(kiln)).toBe(kiln)
  })
  it('the ground of its own place says nothing of a stop’s, and its paths are found there', () => {
    const grounded = edit(van, 'sites', van.sites[0]!.id, { groundM: 240 })
    expect(pathInputs(grounded)[0]!.siteGroundM).toBeNull()
    // Worked out for the document as it is kept, found by the assessment at the stop.
    expect(run(grounded).masts.every(m => m.path !== null)).toBe(true)
    expect(run(edit(van, 'stops', van.stops[0]!.id, { groundM: 12 })).masts[0]!.path!.siteGroundM).toBe(12)
  })
  it('obstacles and landmarks belong to their stop', () => {
    expect(obstaclesHere(van).map(o => o.name)).toEqual(['Slip crane'])
    expect(obstaclesHere(edit(van, 'jobs', van.jobs[0]!.id, { stopId: van.stops[1]!.id }))).toEqual([])
  })
  it('what was read or swept at a stop says nothing at another', () => {
    const swept = {
      ...van,
      sweeps: [{ ...kiln.sweeps[0]!, stopId: van.stops[0]!.id }],
      steps: kiln.steps.filter(x => x.sweepId === kiln.sweeps[0]!.id),
    }
    const there = run(swept)
    const table = (a: typeof there) => a.before.find(s => s.spot.name === 'Table')!
    expect(table(there).readings.length).toBeGreaterThan(0)
    expect(there.masts.some(m => m.calibration)).toBe(true)
    expect(there.sweep!.result).not.toBeNull()
    const elsewhere = run(edit(swept, 'jobs', van.jobs[0]!.id, { stopId: van.stops[1]!.id }))
    expect(table(elsewhere).readings).toEqual([])
    expect(table(elsewhere).runs).toEqual([])
    expect(elsewhere.masts.every(m => !m.calibration)).toBe(true)
    expect(elsewhere.sweep).toBeNull()
  })
  it('its frame turns with it: a bearing is told from the bow, a home’s from north', () => {
    const here = atPresentStop(ketch)
    expect(toFrame(here, 52)).toBeCloseTo(100, 9)
    expect(toFrame(kiln, 52)).toBe(52)
    expect(run(ketch).masts[0]!.frameBearingDeg).toBeCloseTo((run(ketch).masts[0]!.bearingDeg - 312 + 360) % 360, 6)
  })
  it('a beam on a boat that swings ±70° cannot follow; the cure is an omni', () => {
    const f = run(ketch).findings.find(x => x.code === 'bearings.swing')!
    expect(f.severity).toBe('fix')
    const cured = applyChanges(
      ketch,
      f.cures[0]!.steps.map(s => ({ ...s, id: 'c', baseVersion: 0, fields: { ...s.fields } })),
    )
    expect(codes(run(cured))).not.toContain('bearings.swing')
  })
  it('without a heading says so', () =>
    expect(
      codes(
        run(
          edit(edit(ketch, 'stops', ketch.stops[0]!.id, { headingDeg: null }), 'sites', ketch.sites[0]!.id, { headingDeg: null }),
        ),
      ),
    ).toContain('bearings.heading'))
  it.each(['vehicle', 'boat'] as const)('a new %s starts whole, and its section is drawn to scale', kind => {
    let n = 0
    const id = () => `0192f000-0000-7000-8000-${(n++).toString(16).padStart(12, '0')}`
    const made = newJobChanges({ name: 'New', latDeg: 46.8, lonDeg: -41.3, zone: 'UTC', kind }, id)
    const doc = applyChanges(emptyDocument(), made.changes)
    const a = assess(doc, { paths: {} }, { atUtc: AT })
    const view = layoutSection(doc, a, { width: 900, height: 500, units: 'metric', levels: false })
    const texts = view.drawing.primitives.filter(p => p.kind === 'text').map(p => p.text)
    expect(texts).toContain(kind === 'boat' ? 'bow' : 'nose')
    expect(view.toX(doc.sites[0]!.lengthM) - view.toX(0)).toBeCloseTo(view.groundY - view.toY(doc.sites[0]!.lengthM), 6)
  })
})

describe('skyline and dial drawn', () => {
  const a = run(kiln)
  const h = horizonRing(terrain, positionOf(kiln)!, a.mountHeightM)
  const draw = (o: Partial<Parameters<typeof layoutSkyline>[1]> = {}) =>
    layoutSkyline(h, {
      width: 1200,
      height: 200,
      units: 'metric',
      centreDeg: 180,
      masts: a.masts,
      selectedId: a.chosen!.mast.id,
      declination: a.declination,
      ...o,
    })
  const texts = (d: ReturnType<typeof draw>) => d.primitives.flatMap(p => (p.kind === 'text' ? [p.text] : []))
  it('says which mast is in sight and which behind the ridge', () => {
    expect(texts(draw()).some(t => /Stack, .* in sight/.test(t))).toBe(true)
    const lee = kiln.masts.find(m => m.name === 'Lee Harbour')!
    expect(texts(draw({ selectedId: lee.id })).some(t => /Lee Harbour, .*behind the ridge at 3\.\d\skm/.test(t))).toBe(true)
  })
  it('agrees with the path: hidden on the strip is blocked on the profile', () => {
    for (const m of a.masts.filter(x => x.path && x.distanceM < 40_000)) {
      const hidden = draw({ masts: [m], selectedId: null }).primitives.some(p => p.kind === 'circle' && p.style === 'pinHidden')
      // Within a metre of grazing the two samplings may differ.
      if (Math.abs(m.best?.clearance.clearM ?? 0) > 6) expect(hidden, m.mast.name).toBe((m.best?.clearance.clearM ?? 1) < 0)
    }
  })
  it('draws the wedge as wide as the bearing is unsure', () => {
    const wedge = draw().primitives.find(p => p.kind === 'rect' && p.style === 'beam')!
    expect(wedge.kind === 'rect' && (wedge.w / 1200) * 360).toBeCloseTo(2 * bearingHalfWidth(a.chosen, a.declination), 6)
  })
  it('nothing is drawn outside the strip, however narrow', () => {
    for (const width of [360, 800, 1280]) {
      for (const p of draw({
        width,
        sun: { azimuthDeg: 170, altitudeDeg: 40 },
        landmarks: [{ name: 'Chapel', bearingDeg: 200 }],
        obstacles: [{ name: 'Row', fromDeg: 150, toDeg: 170 }],
        headingDeg: 120,
        magnetic: true,
      }).primitives) {
        if (p.kind === 'circle') expect(p.x).toBeLessThanOrEqual(width)
        if (p.kind === 'text' && p.anchor === 'middle') expect(p.x).toBeGreaterThan(0)
      }
    }
  })
  it('the dial carries the horizon, the bow and the sun', () => {
    const with3 = layoutDial(a, {
      size: 400,
      masts: 3,
      showSweep: false,
      headingDeg: null,
      selectedId: null,
      horizon: h,
      bowDeg: 40,
      sunDeg: 200,
    }).primitives
    const without3 = layoutDial(a, { size: 400, masts: 3, showSweep: false, headingDeg: null, selectedId: null }).primitives
    expect(with3.length).toBe(without3.length + 4)
  })
})

describe('masts whose list named no bands', () => {
  const blank = {
    ...kiln,
    cells: kiln.cells.map(c => (c.mastId === kiln.masts.find(m => m.name === 'Quay Town')!.id ? { ...c, band: '' } : c)),
  }
  const quay = (doc: JobDocument) => run(doc).masts.find(m => m.mast.name === 'Quay Town')!
  it('are ranked over the carrier’s usual bands, and say so', () => {
    const m = quay(blank)
    expect(m.bandsGuessed).toBe(true)
    expect(m.bands).toContain('B20')
    expect(said(m.sentence)).toContain('its bands are not in the list')
    expect(m.best).not.toBeNull()
  })
  it('a reading that names the cell fills its band in', () => {
    const cell = kiln.cells.find(c => c.mastId === quay(kiln).mast.id && c.technology === 'LTE')!
    const read = { ...kiln.readings[0]!, id: 'q', cellId: cell.cellId, band: 'B7', rsrpDbm: -99 }
    const m = quay({ ...blank, readings: [...blank.readings, read] })
    expect(m.bandsGuessed).toBe(false)
    expect(m.bands).toEqual(['B7'])
  })
})

describe('documents of an older app', () => {
  it('get the tables and fields that came later', () => {
    const { stops: _s, obstacles: _o, landmarks: _l, pictures: _p, ...old } = kiln
    const stripped = {
      ...old,
      sites: old.sites.map(({ swingDeg: _w, headingDeg: _h, deviation: _d, ...s }) => s),
    } as unknown as Partial<JobDocument>
    const whole = completeDocument(stripped)
    expect(whole.stops).toEqual([])
    expect(whole.sites[0]).toMatchObject({ swingDeg: 0, headingDeg: null, deviation: null })
    expect(run(whole).promise!.down.median).toBeCloseTo(run(kiln).promise!.down.median, 9)
    expect(standing(whole.readings).length).toBe(standing(kiln.readings).length)
  })
  it('readings that told phase and device of themselves are given set-ups', () => {
    const { setups: _s, devices: _d, sims: _i, watches: _w, ...old } = kiln
    // Before and after was all that an older app could say.
    const known = <T extends { setupId: string | null }>(rows: readonly T[]) =>
      rows.filter(r => kiln.setups.find(s => s.id === r.setupId)!.mark)
    const before = {
      ...old,
      readings: known(kiln.readings).map(({ setupId, capture: _c, carrierRole: _r, ...r }) => ({
        ...r,
        phase: kiln.setups.find(s => s.id === setupId)!.mark,
        device: kiln.setups.find(s => s.id === setupId)!.mark === 'after' ? 'outside antenna' : 'phone',
      })),
      speedRuns: known(kiln.speedRuns).map(({ setupId, ...r }) => ({
        ...r,
        phase: kiln.setups.find(s => s.id === setupId)!.mark,
      })),
    } as unknown as Partial<JobDocument>
    const whole = completeDocument(before)
    expect(whole.setups.map(s => [s.mark, s.antenna]).sort()).toEqual([
      ['after', 'built in'],
      ['after', 'outside'],
      ['before', 'built in'],
    ])
    expect(whole.readings.every(r => whole.setups.some(s => s.id === r.setupId) && !('phase' in r))).toBe(true)
    const [now, then] = [run(whole), run(kiln)]
    expect(now.levels!.sources[0]!.start.rsrpDbm).toBeCloseTo(then.levels!.sources[0]!.start.rsrpDbm, 9)
    expect(now.proof.judged!.after.down!.median).toBe(then.proof.judged!.after.down!.median)
  })
})
