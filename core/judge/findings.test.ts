/** Each judgement, provoked by the facts it is about and quiet without them. */
import { describe, expect, it } from 'vitest'
import { applyChanges } from '../job/changes'
import { kitChanges, newJobChanges } from '../job/defaults'
import { emptyDocument } from '../job/schema'
import type { Change, JobDocument, Node } from '../job/schema'
import { assess } from './assess'
import type { Assessment } from './assess'
import { pathInputs } from '../aim/bearings'
import { CAUTIONS, cautionsFor, RULE_PACKS } from './cautions'
import type { Finding } from './finding'
import { Terrain } from '../terrain/blocks'
import { computePath } from '../terrain/path'
import type { PathResult } from '../terrain/path'
import { countedIds } from '../../demo/scenario'

const AT = '2026-04-03T12:00:00.000Z'

/** A house on flat unknown ground with one mast 5 km to the west. */
class House {
  doc: JobDocument
  private readonly id = countedIds(700)

  constructor(approach: 'router' | 'booster' | null = 'booster') {
    const made = newJobChanges(
      { name: 'House', latDeg: 50, lonDeg: -30, zone: 'UTC', job: { carrier: 'Tern', agreedDownMbps: 10, agreedUpMbps: 2 } },
      this.id,
    )
    this.doc = applyChanges(emptyDocument(), made.changes)
    const mastId = this.add('masts', { name: 'West', latDeg: 50, lonDeg: -30.07, heightM: 40, groundM: 0, carrier: 'Tern' })
    this.add('cells', {
      mastId,
      technology: 'LTE',
      band: 'B20',
      cellId: '1',
      azimuthDeg: null,
      beamwidthDeg: null,
      powerDbm: null,
    })
    if (approach) {
      this.apply(kitChanges(this.doc, this.doc.designs[0]!, approach, 270, this.id))
      this.set('designs', this.doc.designs[0]!.id, { mastId, band: 'B20' })
    }
  }

  apply(changes: Change[]): this {
    this.doc = applyChanges(this.doc, changes)
    return this
  }

  add(table: Change['table'], fields: Record<string, unknown>): string {
    const rowId = this.id()
    this.apply([{ id: this.id(), table, rowId, op: 'insert', baseVersion: 0, fields }])
    return rowId
  }

  set(table: Change['table'], rowId: string, fields: Record<string, unknown>): this {
    return this.apply([{ id: this.id(), table, rowId, op: 'update', baseVersion: 0, fields }])
  }

  job(fields: Record<string, unknown>): this {
    return this.set('jobs', this.doc.jobs[0]!.id, fields)
  }

  node(role: Node['role']): Node {
    return this.doc.nodes.find(n => n.role === role)!
  }

  read(spotName: string, rsrpDbm: number, sinrDb: number, band = 'B20'): this {
    const spot = this.doc.spots.find(s => s.name === spotName)!
    this.add('readings', {
      spotId: spot.id,
      takenAtUtc: AT,
      phase: 'before',
      replacesId: null,
      withdrawn: false,
      stopId: null,
      technology: 'LTE',
      band,
      channel: null,
      bandwidthMHz: 10,
      cellId: null,
      rsrpDbm,
      rsrqDb: null,
      sinrDb,
      device: 'phone',
    })
    return this
  }

  speed(spotName: string, downMbps: number, upMbps: number, phase: 'before' | 'after' = 'before', at = AT): this {
    const spot = this.doc.spots.find(s => s.name === spotName)!
    this.add('speedRuns', {
      spotId: spot.id,
      takenAtUtc: at,
      phase,
      replacesId: null,
      withdrawn: false,
      stopId: null,
      downMbps,
      upMbps,
      pingMs: 40,
      wouldNotLoad: false,
    })
    return this
  }

  assess(): Assessment {
    const terrain = new Terrain()
    const paths: Record<string, PathResult> = {}
    for (const i of pathInputs(this.doc)) {
      const p = computePath(terrain, i)
      if (p) paths[i.key] = p
    }
    return assess(this.doc, { paths }, { atUtc: AT })
  }

  finding(code: string): Finding | undefined {
    return this.assess().findings.find(f => f.code === code)
  }

  cured(code: string): House {
    const cure = this.finding(code)!.cures[0]!
    const made = new Map<string, string>()
    const real = (v: unknown) => {
      if (typeof v !== 'string' || !v.startsWith('new:')) return v
      if (!made.has(v)) made.set(v, this.id())
      return made.get(v)
    }
    return this.apply(
      cure.steps.map(s => ({
        id: this.id(),
        table: s.table,
        rowId: real(s.rowId) as string,
        op: s.op,
        baseVersion: 0,
        fields: Object.fromEntries(Object.entries(s.fields).map(([k, v]) => [k, real(v)])),
      })),
    )
  }
}

describe('in Survey', () => {
  it('wants a baseline, and a speed at it', () => {
    const h = new House(null)
    expect(h.finding('survey.baseline-speed')?.severity).toBe('note')
    expect(h.speed('Kitchen', 3, 1).finding('survey.baseline-speed')).toBeUndefined()
    expect(h.job({ baselineSpotId: null }).finding('survey.no-baseline')).toBeDefined()
  })
  it('tells level from speed: a workable level with no SINR is a full band', () => {
    const h = new House(null).read('Kitchen', -90, 2).speed('Kitchen', 1, 0.2)
    expect(h.finding('survey.level-not-speed')?.sentence).toContain('a booster would not help')
    expect(new House(null).read('Kitchen', -90, 15).speed('Kitchen', 20, 5).finding('survey.level-not-speed')).toBeUndefined()
  })
  it('a cap is cured by noting it, and the promise then keeps under it', () => {
    const h = new House('router').read('Ridge', -90, 20).read('Kitchen', -100, 15)
    for (const d of [5.0, 4.9, 5.05]) h.speed('Kitchen', d, 4.95)
    const after = h.cured('survey.cap')
    expect(after.doc.jobs[0]!.planCapMbps).toBe(5)
    expect(after.finding('survey.cap')).toBeUndefined()
    expect(after.assess().promise!.down.high).toBeLessThanOrEqual(5)
  })
})

describe('in Bearings', () => {
  it('says when terrain is missing under the path', () =>
    expect(new House().finding('bearings.terrain-missing')?.sentence).toContain('100 % of the way to West'))
  it('says when no mast of the carrier reaches', () => {
    const h = new House()
    h.set('masts', h.doc.masts[0]!.id, { lonDeg: -30.8, heightM: 2 })
    expect(h.finding('bearings.none-reachable')?.severity).toBe('stop')
  })
  it('says when a beam is narrower than a compass is sure', () => {
    const h = new House('router')
    h.set('nodes', h.node('outside').id, { partId: 'ant-yagi-mid-x' }).set('designs', h.doc.designs[0]!.id, { band: 'B3' })
    expect(h.finding('bearings.beam-narrow')).toBeUndefined()
    // Near the north magnetic pole the field lies almost upright and no compass serves.
    h.set('sites', h.doc.sites[0]!.id, { latDeg: 85.8, lonDeg: 139 })
    expect(h.finding('bearings.compass')?.severity).toBe('fix')
    expect(h.finding('bearings.beam-narrow')?.sentence).toContain('off costs 1 dB')
  })
})

describe('in Choose', () => {
  it('needs every part of the chain', () =>
    expect(new House(null).finding('choose.missing')?.title).toBe('No outside antenna, no router chosen'))
  it('says when there is no need at all', () => {
    const h = new House().read('Kitchen', -80, 20)
    for (let i = 0; i < 3; i++) h.speed('Kitchen', 30 + i, 8)
    expect(h.finding('choose.no-need')?.title).toBe('No outside antenna needed')
  })
  it('a booster makes nothing of nothing', () =>
    expect(new House().read('Ridge', -124, 0).finding('choose.nothing-outside')?.severity).toBe('stop'))
  it('a booster does not mend SINR, a good one is left alone', () => {
    expect(new House().read('Ridge', -95, 0).finding('choose.booster-sinr')?.severity).toBe('fix')
    expect(new House().read('Ridge', -95, 16).finding('choose.booster-sinr')).toBeUndefined()
  })
  it.each(Object.keys(RULE_PACKS) as (keyof typeof RULE_PACKS)[])(
    'asks for the consent that %s wants, with its source',
    rules => {
      const f = new House().job({ rules }).finding('choose.rules')!
      expect(f.sentence).toBe(RULE_PACKS[rules].booster)
      expect(f.source).toMatch(/memory|no source/)
    },
  )
  it('a jumper is a note, plugs that cannot mate are to be settled', () => {
    const router = new House('router')
    expect(
      router
        .assess()
        .findings.filter(f => f.code === 'choose.connector')
        .map(f => f.severity),
    ).toEqual(['note'])
    const h = new House()
    h.set('runs', h.doc.runs[0]!.id, { partId: 'line-rg6' })
    expect(
      h
        .assess()
        .findings.filter(f => f.code === 'choose.connector')
        .map(f => f.severity),
    ).toContain('fix')
  })
})

describe('in Place', () => {
  it('is quiet about the rule of thumb only where it is kept', () => {
    expect(new House().finding('place.thumb')).toBeDefined()
    const h = new House()
    h.set('nodes', h.node('outside').id, { upM: 20 })
    expect(h.finding('place.thumb')).toBeUndefined()
  })
  it('says when the formula does not hold', () => {
    const h = new House()
    const o = h.node('outside')
    h.set('nodes', h.node('inside').id, { eastM: o.eastM + 0.6, northM: o.northM, upM: o.upM - 0.1 })
    expect(h.finding('place.near')).toBeDefined()
  })
  it('a sheet is worth its 10 dB up to the cap of 70', () => {
    const h = new House()
    const before = h.assess().chain!.loop!.isolationDb
    h.set('designs', h.doc.designs[0]!.id, { obstructionDb: h.doc.designs[0]!.obstructionDb + 10 })
    const after = h.assess().chain!.loop!.isolationDb
    expect(after).toBeCloseTo(Math.min(70, before + 10), 6)
  })
  it('accepting less gain makes it stable', () => {
    const h = new House()
    const settle = h.finding('place.loop')!.cures.find(c => c.label.startsWith('settle'))!
    h.set('nodes', settle.steps[0]!.rowId!, settle.steps[0]!.fields)
    expect(h.finding('place.loop')?.severity).toBe('good')
  })
})

describe('in Level', () => {
  it('a pad cures an overload, and the level line shows it', () => {
    const h = new House().read('Ridge', -72, 20)
    const before = h.assess().chain!.amplifier!
    expect(before.inputAllDbm).toBeGreaterThan(-45)
    const after = h.cured('level.overload').assess().chain!
    expect(after.amplifier!.inputAllDbm).toBeLessThan(before.inputAllDbm - 2.9)
    expect(after.stages.some(s => s.kind === 'pad')).toBe(true)
  })
  it('far too much shuts the amplifier down and serves no room', () => {
    const a = new House().read('Ridge', -50, 25).assess()
    expect(a.chain!.amplifier!.limitedBy).toBe('shut down')
    expect(a.findings.find(f => f.code === 'level.overload')?.severity).toBe('stop')
    expect(a.chain!.rooms).toEqual([])
  })
  it('a needed room below need is to be settled, another is a note', () => {
    const h = new House().read('Ridge', -116, 6)
    h.set('nodes', h.node('amplifier').id, { gainDb: 36 })
    const rooms = h.assess().findings.filter(f => f.code === 'level.room')
    const kitchen = h.doc.spots.find(s => s.name === 'Kitchen')!
    expect(rooms.find(f => f.subjectId === kitchen.id)?.severity).toBe('fix')
    expect(rooms.filter(f => f.subjectId !== kitchen.id).every(f => f.severity === 'note')).toBe(true)
  })
  it('readings on another band do not start the chain', () => {
    const a = new House().read('Ridge', -90, 20, 'B3').assess()
    expect(a.chain!.start.provenance).toBe('assumed')
    expect(a.chain!.start.words).toContain('nothing read on B20')
  })
  it('a reading indoors is carried out through the wall, and marked assumed', () => {
    const a = new House().read('Kitchen', -105, 8).assess()
    expect(a.chain!.start.entryDb).toBe(12)
    expect(a.chain!.start.provenance).toBe('assumed')
  })
})

describe('in Prove', () => {
  const proven = () => new House('router').read('Ridge', -95, 15).speed('Kitchen', 2, 0.5)
  it('meets what was agreed, or is short by so much', () => {
    expect(proven().speed('Kitchen', 12, 3, 'after').assess().proof.verdict).toMatchObject({ met: true, short: 'met' })
    expect(proven().speed('Kitchen', 7, 3, 'after').assess().proof.verdict.words).toBe('short by 3.0 Mbit/s down in Kitchen')
    expect(proven().speed('Kitchen', 2.1, 3, 'after').assess().proof.verdict.words).toContain('no better than before')
  })
  it('one test is noise, and other hours are another load', () => {
    const a = proven().speed('Kitchen', 12, 3, 'after', '2026-04-03T20:00:00.000Z').assess()
    expect(a.proof.unproven.join(' ')).toContain('one speed test is noise')
    expect(a.proof.unproven.join(' ')).toContain('8 hours apart')
  })
  it('names needed spots that were not tested', () => {
    const h = proven().speed('Hall', 12, 3, 'after')
    expect(h.assess().proof.unproven.join(' ')).toContain('not tested after: Kitchen')
  })
  it('judges by the hardest needed room', () => {
    const h = proven()
    h.set('spots', h.doc.spots.find(s => s.name === 'Study')!.id, { needed: true })
    const a = h.speed('Kitchen', 20, 5, 'after').speed('Study', 6, 5, 'after').assess()
    expect(a.proof.judged!.before.spot.name).toBe('Study')
    expect(a.proof.nextStep).toBeTruthy()
  })
})

describe('cautions', () => {
  it('what can kill asks for a tick', () => {
    expect(
      cautionsFor('aim', 'home')
        .filter(c => c.tick)
        .map(c => c.key),
    ).toEqual(['falls', 'overhead', 'storm'])
    expect(
      cautionsFor('aim', 'boat')
        .filter(c => c.tick)
        .map(c => c.key),
    ).toEqual(['overhead', 'aloft', 'storm'])
    for (const c of CAUTIONS) expect(c.text.length).toBeGreaterThan(20)
  })
  it('every finding says why and from where', () => {
    for (const f of new House().read('Ridge', -72, 2).assess().findings) {
      expect(f.because.length, f.code).toBeGreaterThan(5)
      expect(f.source.length, f.code).toBeGreaterThan(5)
      expect(f.key).toBe(`${f.code}:${f.subjectId}`)
    }
  })
})
