/** A house on flat unknown ground with one mast 5 km to the west, for the tests of the computation. */
import { applyChanges } from '../../core/job/changes'
import { BARE_FIXTURE, BARE_SETUP, newJobChanges } from '../../core/job/defaults'
import { modernised, rowsBehind } from '../../core/job/legacy'
import { emptyDocument, movesAbout } from '../../core/job/schema'
import type { Change, Check, Job, JobDocument, Node, SetupRow } from '../../core/job/schema'
import { partById } from '../../core/catalogue/parts'
import { pathInputs } from '../../core/masts/bearings'
import { changesOf } from '../../core/job/edits'
import { kitChanges } from '../../core/fitting/usual-kit'
import type { PartChoice } from '../../core/fitting/layer'
import type { Kit } from '../../core/fitting/usual-kit'
import { assess } from '../../core/judge/assess'
import type { Assessment } from '../../core/judge/assess'
import { solveCures } from '../../core/solve/cures'
import type { Cure, Finding } from '../../core/judge/finding'
import { contextOf, isWorked } from '../../core/judge/context'
import type { Context, Worked } from '../../core/judge/context'
import { Terrain } from '../../core/terrain/blocks'
import { computePaths } from '../../core/terrain/path'
import type { PathResult } from '../../core/terrain/path'
import { countedIds } from '../../demo/scenario'

export const AT = '2026-04-03T12:00:00.000Z'

const BARE_RUN = {
  stopId: null,
  replacesId: null,
  withdrawn: false,
  band: null,
  cellId: null,
  pingMs: null,
  wouldNotLoad: false,
  via: null,
  doubted: false,
}

export class House {
  doc: JobDocument
  readonly id = countedIds(700)

  constructor(approach: 'router' | 'booster' | null = 'booster', kind: Job['kind'] = 'home', job: Partial<Job> = {}) {
    const made = newJobChanges(
      {
        name: 'House',
        latDeg: 50,
        lonDeg: -30,
        zone: 'UTC',
        kind,
        job: { carrier: 'Tern', agreedDownMbps: 10, agreedUpMbps: 2, mayDrill: 'yes', ...job },
      },
      this.id,
    )
    this.doc = applyChanges(emptyDocument(), made.changes)
    const mastId = this.add('masts', {
      name: 'West',
      latDeg: 50,
      lonDeg: -30.07,
      heightM: 40,
      groundM: 0,
      carrier: 'Tern',
      accuracyM: null,
      seenOn: null,
    })
    this.add('cells', {
      mastId,
      technology: 'LTE',
      band: 'B20',
      cellId: '1',
      channel: null,
      azimuthDeg: null,
      beamwidthDeg: null,
      powerDbm: null,
    })
    if (!approach) return
    this.apply(kitChanges(this.doc, this.doc.designs[0]!, approach, { bearingDeg: 270, newId: this.id }))
    this.set('designs', this.doc.designs[0]!.id, { mastId, band: 'B20' })
  }

  /** The usual kit of an approach laid out, with parts in the place of the usual ones. */
  kit(kit: Kit, choice: PartChoice = {}): this {
    const bearingDeg = movesAbout(this.doc.jobs[0]!.kind) ? null : 270
    return this.apply(kitChanges(this.doc, this.doc.designs[0]!, kit, { bearingDeg, newId: this.id, choice }))
  }

  /** Readings may be said as an older app said them, by phase and device: their set-ups are made. */
  apply(changes: Change[]): this {
    const jobId = this.doc.jobs[0]?.id ?? ''
    for (const c of changes) {
      for (const r of rowsBehind(c, jobId))
        if (!(this.doc[r.table] as { id: string }[]).some(x => x.id === r.rowId))
          this.doc = applyChanges(this.doc, [
            {
              id: '',
              table: r.table,
              rowId: r.rowId,
              op: 'insert',
              baseVersion: 0,
              fields: { ...r.fields, ...this.simOf(r.table) },
            },
          ])
      this.doc = applyChanges(this.doc, [modernised(c, jobId)])
    }
    return this
  }

  private simOf(table: string): { simId?: string } {
    const sim = this.doc.sims[0]
    return table === 'setups' && sim ? { simId: sim.id } : {}
  }

  add(table: Change['table'], fields: Record<string, unknown>): string {
    const rowId = this.id()
    this.apply([{ id: this.id(), table, rowId, op: 'insert', baseVersion: 0, fields }])
    return rowId
  }

  /** Another SIM, of a carrier. @returns its id */
  sim(name: string, carrier: string | null): string {
    const bare = { plan: null, capDownMbps: null, capUpMbps: null, allowanceGb: null, callsOverWifi: null }
    return this.add('sims', { ...bare, name, carrier })
  }

  /** @returns the row of a SIM in a slot of the router */
  slot(slot: number, simId: string): string {
    return this.add('simSlots', { nodeId: this.part('router').id, slot, simId })
  }

  set(table: Change['table'], rowId: string, fields: Record<string, unknown>): this {
    return this.apply([{ id: this.id(), table, rowId, op: 'update', baseVersion: 0, fields }])
  }

  remove(table: Change['table'], rowId: string): this {
    return this.apply([{ id: this.id(), table, rowId, op: 'delete', baseVersion: 0, fields: {} }])
  }

  job(fields: Record<string, unknown>): this {
    return this.set('jobs', this.doc.jobs[0]!.id, fields)
  }

  site(fields: Record<string, unknown>): this {
    return this.set('sites', this.doc.sites[0]!.id, fields)
  }

  design(fields: Record<string, unknown>): this {
    return this.set('designs', this.doc.designs[0]!.id, fields)
  }

  /** A row of the log of checks: said at noon by Ila, unless told otherwise. */
  check(kind: Check['kind'], key: string, more: Record<string, unknown> = {}): string {
    const said = { kind, key, done: true, reason: null, by: 'Ila', atUtc: AT, stopId: null, about: null, value: null }
    return this.add('checks', { ...said, ...more })
  }

  /** The plan comes in by a hole through the gable, a metre up. @returns its id */
  wayIn(more: Record<string, unknown> = {}): string {
    const at = { eastM: -this.doc.sites[0]!.lengthM / 2, northM: 0, upM: 1 }
    const wayInId = this.add('fixtures', { ...BARE_FIXTURE, kind: 'way in', name: 'gable', entry: 'wall', ...at, ...more })
    this.design({ wayInId })
    return wayInId
  }

  /** The first part of a kind. */
  part(kind: string, nth = 0): Node {
    return this.doc.nodes.filter(n => n.part?.kind === kind)[nth]!
  }

  get donor(): Node {
    return this.doc.nodes.find(n => n.part?.kind === 'antenna' && n.part.use === 'outside')!
  }

  get server(): Node {
    return this.doc.nodes.find(n => n.part?.kind === 'antenna' && n.part.use === 'inside')!
  }

  swap(node: Node, partId: string): this {
    return this.set('nodes', node.id, { partId, part: partById(partId)! })
  }

  place(node: Node, fields: Partial<Node>): this {
    return this.set('nodes', node.id, fields)
  }

  read(spotName: string, rsrpDbm: number, sinrDb: number | null = 15, o: Record<string, unknown> = {}): string {
    return this.add('readings', {
      spotId: this.spot(spotName).id,
      takenAtUtc: AT,
      phase: 'before',
      replacesId: null,
      withdrawn: false,
      stopId: null,
      technology: 'LTE',
      band: 'B20',
      channel: null,
      bandwidthMHz: 10,
      cellId: null,
      rsrpDbm,
      rsrqDb: null,
      sinrDb,
      device: 'phone',
      carrierRole: 'anchor',
      ...o,
    })
  }

  spot(name: string) {
    return this.doc.spots.find(s => s.name === name)!
  }

  reads(spotName: string, rsrpDbm: number, sinrDb: number | null = 15, o: Record<string, unknown> = {}): this {
    this.read(spotName, rsrpDbm, sinrDb, o)
    return this
  }

  speed(
    spotName: string,
    downMbps: number,
    upMbps: number,
    { phase = 'before', at = AT }: { phase?: 'before' | 'after'; at?: string } = {},
  ): this {
    this.add('speedRuns', {
      band: null,
      cellId: null,
      spotId: this.spot(spotName).id,
      takenAtUtc: at,
      phase,
      replacesId: null,
      withdrawn: false,
      stopId: null,
      downMbps,
      upMbps,
      pingMs: 40,
      wouldNotLoad: false,
      via: null,
      doubted: false,
    })
    return this
  }

  /** A set-up like the first, with something changed. @returns its id */
  setup(changed: Partial<SetupRow>): string {
    return this.add('setups', { ...BARE_SETUP, deviceId: this.doc.devices[0]?.id ?? null, ...changed })
  }

  /** Downloads by one set-up, `minutes` apart, from so many minutes after noon. */
  tests(
    spotName: string,
    setupId: string,
    downMbps: readonly number[],
    { fromMinute = 0, minutes = 1.5 }: { fromMinute?: number; minutes?: number } = {},
  ): this {
    downMbps.forEach((down, i) => {
      const takenAtUtc = new Date(Date.parse(AT) + (fromMinute + i * minutes) * 60_000).toISOString()
      this.add('speedRuns', {
        ...BARE_RUN,
        spotId: this.spot(spotName).id,
        setupId,
        takenAtUtc,
        downMbps: down,
        upMbps: down / 4,
      })
    })
    return this
  }

  get evidence(): { paths: Record<string, PathResult> } {
    const terrain = new Terrain()
    const paths = computePaths(terrain, pathInputs(this.doc))
    return { paths }
  }

  assess(): Assessment {
    return assess(this.doc, this.evidence, { atUtc: AT })
  }

  context(): Context {
    return contextOf(this.doc, this.evidence, AT)
  }

  /** @throws where nothing is laid out that could be worked */
  worked(): Worked {
    const c = this.context()
    if (!isWorked(c)) throw new Error('no plan to be worked')
    return c
  }

  finding(code: string): Finding | undefined {
    return this.assess().findings.find(f => f.code === code)
  }

  cures(code: string): Cure[] {
    const f = this.finding(code)!
    return f.solves ? solveCures(this.doc, this.evidence, f.key, AT) : f.cures
  }

  cured(code: string, which = 0): this {
    return this.cure(this.cures(code)[which]!)
  }

  cure(cure: Pick<Cure, 'steps'>): this {
    return this.apply(changesOf(cure.steps, this.id))
  }

  codes(): string[] {
    return this.assess().findings.map(f => f.code)
  }
}

/** A house whose modem hangs outdoors, with Ethernet in. */
export function office(): House {
  const h = new House(null).kit('outdoors')
  return h.design({ mastId: h.doc.masts[0]!.id, band: 'B20' })
}
