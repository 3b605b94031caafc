/** The demo: one crew, the archipelago, three homes at three stages, a building planned, a van on its round and a ketch at anchor. */
import {
  changesOf,
  applyChanges,
  BARE_FIXING,
  BARE_FIXTURE,
  BARE_LABEL,
  BARE_SIM,
  emptyDocument,
  newJobChanges,
} from '../core/job'
import type {
  Appliance,
  Cell,
  Change,
  Device,
  Entry,
  Feed,
  Fixing,
  Fixture,
  FloorRow,
  Job,
  JobDocument,
  Landmark,
  Mast,
  Network,
  Node,
  Obstacle,
  Photo,
  Reading,
  Service,
  SetupRow,
  Sim,
  SpeedRun,
  Stop,
  Sweep,
  Use,
  Watch,
} from '../core/job'
import {
  cableLength,
  copyDesign,
  crossedSteps,
  divided,
  kitChanges,
  rewireSteps,
  serviceSteps,
  supplyLeadSteps,
} from '../core/fitting'
import { entering, entryPoint, outsideOf, passersOf } from '../core/install'
import type { Donors, Kit, PartChoice } from '../core/fitting'
import { partById, partOfKind, wireById } from '../core/catalogue'
import { treeOf } from '../core/chain'
import { BARE_APPLIANCE, begunSteps } from '../core/connect'
import { aboutOf, assess, feedsOf, linesKey, serviceAntennas, usualFeed } from '../core/judge'
import { layZones, solveCures } from '../core/solve'
import type { DryRead } from '../core/judge'
import { along, buildingOf, eavesM, moveAlong } from '../core/site'
import type { Point } from '../core/site'
import { cardOf, plannedRows, readKey, unitOf } from '../core/card'
import type { Price, Step } from '../core/card'
import { predictedRsrp, pathInputs } from '../core/masts'
import { atPresentStop, toFrame } from '../core/survey'
import { computePath, computePaths, cutTile, Terrain } from '../core/terrain'
import { turn } from '../core/geo'
import { normals, seeded } from '../core/random'
import { DEMO_MASTS, CARRIERS } from './masts'
import { DEMO_DAYS, NO_DAYS } from './days'
import type { DemoDays } from './days'
import { demoPrices } from './prices'
import { demoTile } from './terrain'

export const DEMO = {
  crew: 'Harbour crew',
  phone: '0999 41 27 60',
  members: [
    { name: 'Ila Marrow', email: 'ila@demo.invalid', role: 'lead' },
    { name: 'Oren Tibb', email: 'oren@demo.invalid', role: 'installer' },
    { name: 'Wen Sallow', email: 'wen@demo.invalid', role: 'viewer' },
  ],
  carriers: CARRIERS,
} as const

/** Ids of version 7 in shape, counted so that the demo is the same every time. */
export function countedIds(series: number): () => string {
  let n = 0
  return () => {
    n++
    return `0192f000-${series.toString(16).padStart(4, '0')}-7000-8000-${n.toString(16).padStart(12, '0')}`
  }
}

export interface DemoJob {
  /** days on site and deliveries, counted from when the demo is loaded */
  days: DemoDays
  /** days from when the demo is loaded to the next visit; null where none is planned */
  visitInDays: number | null
  jobId: string
  document: JobDocument
}

export interface DemoScenario {
  prices: Price[]
  masts: Mast[]
  cells: Cell[]
  jobs: DemoJob[]
  /** the ground it was worked out over */
  terrain: Terrain
}

const minutes = (base: string, m: number): string => new Date(Date.parse(base) + m * 60_000).toISOString()

export function demoMasts(): { masts: Mast[]; cells: Cell[] } {
  const id = countedIds(1)
  const masts: Mast[] = []
  const cells: Cell[] = []
  for (const { cells: of, ...mast } of DEMO_MASTS) {
    const mastId = id()
    masts.push({ ...mast, id: mastId, groundM: null, accuracyM: null, seenOn: '2026-02-10' })
    for (const c of of) cells.push({ ...c, id: id(), mastId })
  }
  return { masts, cells }
}

/** What the archipelago's air does beyond the planner's knowledge: clutter, walls and a busy cell. */
const WORLD = { clutterDb: 7, wallDb: 11, deviceDbi: -3 }

/** When it is read, what the cell's neighbours add and how much the place differs, and what the row says otherwise. */
type ReadAt = Partial<Reading> & { startUtc: string; interferenceDb?: number; extraDb?: number }

type JobOf = NonNullable<Parameters<typeof newJobChanges>[0]['job']> & { kind?: Job['kind']; sim?: Partial<Sim> }

class Builder {
  doc: JobDocument
  readonly jobId: string
  /** what is read with now */
  setup: string
  private readonly newId: () => string
  private readonly noise: () => number

  constructor(
    series: number,
    name: string,
    private readonly world: { masts: Mast[]; cells: Cell[]; terrain: Terrain },
    { latDeg, lonDeg, job }: { latDeg: number; lonDeg: number; job: JobOf },
  ) {
    const { masts, cells } = world
    this.newId = countedIds(series)
    this.noise = normals(seeded(series))
    const { kind, sim, ...more } = job
    const made = newJobChanges({ name, latDeg, lonDeg, zone: 'Etc/GMT+3', kind, job: more, sim }, this.newId)
    this.jobId = made.jobId
    this.doc = applyChanges({ ...emptyDocument(), masts, cells }, made.changes)
    this.setup = this.doc.setups[0]!.id
  }

  apply(changes: Change[]): void {
    this.doc = applyChanges(this.doc, changes)
  }

  set(table: Change['table'], rowId: string, fields: Record<string, unknown>): void {
    this.apply([{ id: this.newId(), table, rowId, op: 'update', baseVersion: 0, fields }])
  }

  add(table: Change['table'], fields: Record<string, unknown>): string {
    const rowId = this.newId()
    this.apply([{ id: this.newId(), table, rowId, op: 'insert', baseVersion: 0, fields }])
    return rowId
  }

  remove(table: Change['table'], rowId: string): void {
    this.apply([{ id: this.newId(), table, rowId, op: 'delete', baseVersion: 0, fields: {} }])
  }

  device(name: string, kind: Device['kind']): string {
    return this.add('devices', { name, kind, antennaDbi: null } satisfies Omit<Device, 'id'>)
  }

  /** A copy of the set-up used last, with something changed; what is read from here on is read with it. */
  setUp(changed: Partial<SetupRow>): string {
    const { id: _id, ...last } = this.doc.setups.find(s => s.id === this.setup)!
    this.setup = this.add('setups', { ...last, name: null, mark: null, ...changed } satisfies Omit<SetupRow, 'id'>)
    return this.setup
  }

  spot(name: string) {
    return this.doc.spots.find(s => s.name === name)!
  }

  mast(name: string): Mast {
    return this.doc.masts.find(m => m.name === name)!
  }

  path(mastName: string) {
    const input = pathInputs(this.doc).find(p => p.mastId === this.mast(mastName).id)!
    return computePath(this.world.terrain, input)!
  }

  /** Three readings at a spot, half a minute apart, as the air of the archipelago gives them. */
  read(spotName: string, mastName: string, band: string, { startUtc, interferenceDb = 6, extraDb = 0, ...fields }: ReadAt): void {
    const spot = this.spot(spotName)
    const path = this.path(mastName)
    const bandPath = path.bands.find(b => b.band === band)!
    const open = predictedRsrp(this.doc.cells, path, { band: bandPath, heightM: spot.upM, bandwidthMHz: 10 }).rsrpDbm
    const level = open - WORLD.clutterDb - (spot.indoors ? WORLD.wallDb : 0) + WORLD.deviceDbi + extraDb
    const cellId = this.doc.cells.find(c => c.mastId === path.mastId && c.band === band)!.cellId
    for (let i = 0; i < 3; i++) {
      const rsrp = level + 1.4 * this.noise()
      const unwanted = 10 * Math.log10(10 ** -12.32 + 10 ** ((level - 14 + interferenceDb) / 10))
      const sinr = Math.min(28, rsrp - unwanted + 0.8 * this.noise())
      this.add('readings', {
        spotId: spot.id,
        takenAtUtc: minutes(startUtc, i * 0.5),
        setupId: this.setup,
        replacesId: null,
        withdrawn: false,
        technology: 'LTE',
        band,
        channel: null,
        bandwidthMHz: 10,
        cellId,
        rsrpDbm: Math.round(rsrp),
        rsrqDb: Math.round(Math.max(-19, -8 - Math.max(0, 12 - sinr) * 0.55)),
        sinrDb: Math.round(sinr),
        capture: null,
        carrierRole: 'anchor',
        stopId: this.doc.jobs[0]!.stopId,
        ...fields,
      } satisfies Omit<Reading, 'id'>)
    }
  }

  speeds(spotName: string, startUtc: string, runs: [down: number | null, up: number | null, ping: number | null][]): void {
    runs.forEach(([downMbps, upMbps, pingMs], i) =>
      this.add('speedRuns', {
        band: null,
        cellId: null,
        spotId: this.spot(spotName).id,
        takenAtUtc: minutes(startUtc, 2 + i),
        setupId: this.setup,
        replacesId: null,
        withdrawn: false,
        downMbps,
        upMbps,
        pingMs,
        wouldNotLoad: downMbps === null,
        via: null,
        doubted: false,
        stopId: this.doc.jobs[0]!.stopId,
      } satisfies Omit<SpeedRun, 'id'>),
    )
  }

  kit(approach: 'router' | 'booster', mastName: string, band: string): void {
    const design = this.doc.designs[0]!
    const here = atPresentStop(this.doc)
    this.apply(
      kitChanges(this.doc, design, approach, { bearingDeg: toFrame(here, this.path(mastName).bearingDeg), newId: this.newId }),
    )
    this.set('designs', design.id, { mastId: this.mast(mastName).id, band })
  }

  /** Another service aboard, as at a press. */
  service(service: Service): void {
    this.apply(changesOf(serviceSteps(atPresentStop(this.doc), this.design, service), this.newId))
  }

  /** The zones of the job laid out, padded and evened out as at a press. */
  byZones(donors: Donors): void {
    const evidence = { paths: computePaths(this.world.terrain, pathInputs(this.doc)) }
    this.apply(layZones(this.doc, this.design, { evidence, atUtc: '2026-04-09T12:00:00.000Z', donors, newId: this.newId }))
  }

  /** A copy of the plan shown, shown from here on. @returns the id of the one before */
  copyPlan(): string {
    const before = this.doc.jobs[0]!.designId!
    const { changes, designId } = copyDesign(
      this.doc,
      this.doc.designs.find(d => d.id === before)!,
      this.newId,
    )
    this.apply(changes)
    this.set('jobs', this.doc.jobs[0]!.id, { designId })
    return before
  }

  /** The kit of the plan shown, laid out afresh. */
  layOut(kit: Kit, mastName: string, choice: PartChoice = {}): void {
    const design = this.design
    this.apply(
      kitChanges(this.doc, design, kit, {
        bearingDeg: toFrame(atPresentStop(this.doc), this.path(mastName).bearingDeg),
        newId: this.newId,
        choice,
      }),
    )
  }

  get design() {
    const job = this.doc.jobs[0]!
    return this.doc.designs.find(d => d.id === job.designId)!
  }

  choose(designId: string, reason: string): void {
    this.set('jobs', this.jobId, { designId })
    this.set('designs', designId, { reason })
  }

  /** The first cure of a finding of the plan shown, as an installer would press it. */
  cure(code: string, atUtc: string): void {
    const evidence = { paths: computePaths(this.world.terrain, pathInputs(this.doc)) }
    const found = assess(this.doc, evidence, { atUtc }).findings.find(f => f.code === code)
    const [cure] = found?.solves ? solveCures(this.doc, evidence, found.key, atUtc) : (found?.cures ?? [])
    if (!cure) throw new Error(`the demo has no cure of ${code}`)
    this.apply(changesOf(cure.steps, this.newId))
  }

  /** So many steps of the card done, or all before one, a quarter of an hour each; a dry run with what it read. */
  stepsDone(upTo: number | string, startUtc: string, by = 'Oren Tibb'): void {
    const evidence = { paths: computePaths(this.world.terrain, pathInputs(this.doc)) }
    const a = assess(this.doc, evidence, { atUtc: startUtc })
    const { steps } = cardOf(this.doc, a)
    const count = typeof upTo === 'number' ? upTo : steps.findIndex(s => s.id === upTo)
    for (const [i, step] of steps.slice(0, count).entries()) {
      const atUtc = new Date(Date.parse(startUtc) + i * 900_000).toISOString()
      if (step.id === 'dry-run') this.dryRun(a.drill.dryRun, { by, atUtc })
      this.mark(step, { by, atUtc })
    }
  }

  private dryRun(reads: readonly DryRead[], said: { by: string; atUtc: string }): void {
    for (const r of reads) {
      const value = Math.round(10 * (r.expected + (r.stopWhen === 'under' ? 0.6 : -0.6))) / 10
      this.add('checks', { kind: 'read', key: readKey(r), done: true, reason: null, stopId: null, about: null, value, ...said })
    }
  }

  /** A step that was found not to be as planned. */
  notSo(kind: string, reason: string, atUtc: string): void {
    const step = this.steps(atUtc).find(s => s.id.startsWith(kind))!
    this.mark(step, { done: false, reason, by: 'Ila Marrow', atUtc })
  }

  /** What somebody said to be so on site. */
  fact(key: string, atUtc: string, value: number | null = null, about: string | null = null): void {
    this.add('checks', { kind: 'fact', key, done: true, reason: null, by: 'Oren Tibb', atUtc, stopId: null, about, value })
  }

  /** What a step taught whoever did it. */
  lesson(kind: string, reason: string, atUtc: string): void {
    const step = this.steps(atUtc).find(s => s.id.startsWith(`${kind}:`))!
    const said = {
      kind: 'lesson',
      key: step.id,
      done: true,
      reason,
      by: 'Oren Tibb',
      atUtc,
      stopId: null,
      about: step.plain,
      value: null,
    }
    this.add('checks', said)
  }

  stepKey(kind: string): string {
    return this.steps('2026-04-07T12:00:00.000Z').find(s => s.id.startsWith(`${kind}:`))!.id
  }

  private steps(atUtc: string) {
    const evidence = { paths: computePaths(this.world.terrain, pathInputs(this.doc)) }
    return cardOf(this.doc, assess(this.doc, evidence, { atUtc })).steps
  }

  private mark(step: Step, fields: { by: string; atUtc: string; done?: boolean; reason?: string }): void {
    const { about, id: key } = step
    this.add('checks', { kind: 'step', key, done: true, reason: null, stopId: null, about, value: null, ...fields })
  }

  stop(fields: Pick<Stop, 'name' | 'latDeg' | 'lonDeg' | 'arriveOn' | 'leaveOn'> & Partial<Stop>): string {
    return this.add('stops', {
      groundM: null,
      zone: 'Etc/GMT+3',
      headingDeg: null,
      swingDeg: 0,
      notes: null,
      ...fields,
    } satisfies Omit<Stop, 'id'>)
  }

  landmark(name: string, latDeg: number, lonDeg: number, stopId: string | null = null): void {
    this.add('landmarks', { stopId, name, latDeg, lonDeg } satisfies Omit<Landmark, 'id'>)
  }

  obstacle(fields: Omit<Obstacle, 'id' | 'stopId'> & { stopId?: string | null }): void {
    this.add('obstacles', { stopId: null, ...fields } satisfies Omit<Obstacle, 'id'>)
  }

  fixture(kind: Fixture['kind'], at: Point, more: Partial<Fixture> = {}): string {
    const { eastM, northM, upM } = at
    return this.add('fixtures', {
      kind,
      name: '',
      eastM,
      northM,
      upM,
      ...BARE_FIXTURE,
      ...more,
    } satisfies Omit<Fixture, 'id'>)
  }

  /** The way in of the plan shown, where its cables come through the shell. */
  wayIn(entry: Entry, more: Partial<Fixture> = {}): void {
    const { building, tree, cables } = this.route()
    const first = entering(passersOf(tree, cables, this.design.plugs, { building, fixtures: this.doc.fixtures }), building)[0]!
    const wayInId = this.fixture('way in', entryPoint(entry, first, building), { entry, ...more })
    this.set('designs', this.design.id, { wayInId })
  }

  /** Cables of the plan shown, in its building. */
  route() {
    const building = buildingOf(this.doc)
    const tree = treeOf(this.doc, this.design)
    return { building, tree, cables: tree.joints.flatMap(j => cableLength(this.doc.jobs[0]!.kind, building, j) ?? []) }
  }

  /** What holds every outside antenna of the plan shown. */
  held(fixing: Partial<Fixing> & Pick<Fixing, 'mount'>): void {
    for (const { node } of this.route().tree.donors) this.set('nodes', node.id, { fixing: { ...BARE_FIXING, ...fixing } })
  }

  /** Two single beams in the place of the antenna, on its pole. */
  crossed(partId: string, fixing: Partial<Fixing> & Pick<Fixing, 'mount'>): void {
    this.held(fixing)
    const { tree } = this.route()
    const [first] = tree.donors
    const looks = first!.node.azimuthDeg ?? 0
    this.apply(changesOf(crossedSteps(tree, first!, partOfKind(partId, 'antenna')!, looks), this.newId))
  }

  /** What holds the antenna of another service. */
  serviceHeld(service: Service, fixing: Partial<Fixing> & Pick<Fixing, 'mount'>): void {
    for (const { node, part } of serviceAntennas(this.route().tree.nodes))
      if (part.service === service) this.set('nodes', node.id, { fixing: { ...BARE_FIXING, ...fixing } })
  }

  fed(feed: Partial<Feed>): void {
    const { amplifiers, routers } = this.route().tree
    for (const { node } of [...amplifiers, ...routers]) this.set('nodes', node.id, { feed: { ...usualFeed(), ...feed } })
    this.wired()
  }

  /** A lead from its feed to every box on wires, of the wire that was said. */
  private wired(): void {
    const { tree, building } = this.route()
    for (const f of feedsOf(this.doc, tree, this.doc.jobs[0]!.kind, building)) {
      if (!f.wire || !f.source) continue
      const on = { job: this.doc.jobs[0]!, building, design: tree.design, tree }
      const said = wireById(f.at.node.feed?.wire ?? '') ?? f.wire
      this.apply(changesOf(f.planned ? rewireSteps(tree, f.at, said) : supplyLeadSteps(on, f.at, f.source, said), this.newId))
    }
  }

  /** An electrode under the first arrestor, outside the wall. */
  electrode(more: Partial<Fixture>): void {
    const { tree, building } = this.route()
    const arrestor = tree.nodes.find(n => n.part.kind === 'arrestor')!.node
    const upM = more.electrode === 'house earthing' ? 0.4 : -0.4
    this.fixture('electrode', { ...outsideOf(building, arrestor), upM }, { conductor: 'solid', ...more })
  }

  /** Connections and networks as the plan tells them; so many of them answer, and with `handed` every password is with its owner. */
  commissioned(atUtc: string, { up, handed = null }: { up: number; handed?: string | null }): void {
    const tree = treeOf(this.doc, this.doc.designs.find(d => d.id === this.doc.jobs[0]!.designId) ?? this.doc.designs[0]!)
    this.apply(changesOf(begunSteps(this.doc, tree), this.newId))
    for (const c of this.doc.connections.slice(0, up)) this.set('connections', c.id, { state: 'up', stateAtUtc: atUtc })
    for (const n of this.doc.networks)
      if (handed)
        this.set('networks', n.id, {
          password: 'changed',
          passwordBy: 'Oren Tibb',
          passwordTo: handed,
          passwordOn: atUtc.slice(0, 10),
        })
  }
  hangs(kind: Network['kind'], name: string, more: Partial<Appliance> = {}): void {
    const network = this.doc.networks.find(n => n.kind === kind)!
    this.add('appliances', { ...BARE_APPLIANCE, networkId: network.id, name, ...more })
  }
  photo(what: Partial<Photo>, takenAtUtc: string): void {
    this.add('photos', {
      stopId: null,
      caption: null,
      takenAtUtc,
      widthPx: 960,
      heightPx: 720,
      eastM: null,
      northM: null,
      upM: null,
      bearingDeg: null,
      spotId: null,
      nodeId: null,
      stepKey: null,
      ...what,
    } satisfies Omit<Photo, 'id'>)
  }

  /** The first part of a kind, outside ones before inside ones. */
  node(kind: string) {
    return this.doc.nodes.find(n => n.part?.kind === kind)!
  }

  /** Another part in the place of one. */
  swap(kind: string, partId: string): void {
    this.set('nodes', this.node(kind).id, { partId, part: partById(partId)! })
  }

  /** A link watched, or the main line pulled on purpose. */
  watch(spotName: string, takenAtUtc: string, what: Partial<Watch>): void {
    this.add('watches', {
      spotId: this.spot(spotName).id,
      takenAtUtc,
      setupId: this.setup,
      replacesId: null,
      withdrawn: false,
      stopId: this.doc.jobs[0]!.stopId,
      kind: 'watch',
      seconds: 3600,
      drops: 0,
      longestS: 0,
      lostS: 0,
      switchS: null,
      backS: null,
      broke: null,
      ...what,
    } satisfies Omit<Watch, 'id'>)
  }

  /** Two passes round the mast, the second about the best alone. @param peak  what is read at the best heading */
  /** The ways of the longer cables, drawn: upright first where they come from the roof, along the ceiling inside. */
  drawWays(): void {
    const node = (id: string) => this.doc.nodes.find(n => n.id === id)!
    for (const run of this.doc.runs.filter(r => r.designId === this.design.id && r.lengthM > 4)) {
      const [from, to] = [node(run.fromNodeId), node(run.toNodeId)]
      const upright = from.upM > to.upM ? { at: from, upM: to.upM } : { at: to, upM: from.upM }
      const { eastM, northM } = upright.at
      this.set('runs', run.id, { way: [{ eastM, northM, upM: upright.upM }] })
    }
  }

  sweep(startUtc: string, bearingDeg: number, peak: number, quantity: Sweep['quantity'] = 'SINR'): void {
    const sweepId = this.add('sweeps', {
      band: this.doc.designs[0]!.band ?? 'B20',
      cellId: null,
      stopId: this.doc.jobs[0]!.stopId,
      designId: this.doc.designs[0]!.id,
      startedAtUtc: startUtc,
      quantity,
      reference: 'true',
      stepDeg: 15,
      axis: 'heading',
      slow: false,
      setupId: null,
      dwellS: 30,
      struckDeg: null,
    })
    let n = 0
    for (const pass of [1, 2]) {
      for (let h = 0; h < 360; h += 15) {
        if (pass === 2 && Math.abs(turn(bearingDeg, h)) > 50) continue
        const off = Math.abs(turn(bearingDeg + 4, h))
        const reflection = 4.5 * Math.exp(-((turn(75, h) / 20) ** 2))
        const value = peak - Math.min(13, 12 * (off / 70) ** 2) + reflection * (off > 60 ? 1 : 0) + 0.5 * this.noise()
        this.add('steps', {
          sweepId,
          pass,
          headingDeg: h,
          tiltDeg: null,
          value: Math.round(value * 10) / 10,
          takenAtUtc: minutes(startUtc, n++ * 0.7),
          replacesId: null,
          withdrawn: false,
        })
      }
    }
  }
}

/** @returns everything the demo holds, computed over its own terrain */
export function demoScenario(): DemoScenario {
  const terrain = new Terrain(cutTile(demoTile()))
  const { masts, cells } = demoMasts()
  const make = (series: number, name: string, job: ConstructorParameters<typeof Builder>[3]) =>
    new Builder(series, name, { masts, cells, terrain }, job)

  const kiln = make(16, 'Lime kiln house', {
    latDeg: 46.8085,
    lonDeg: -41.362,
    job: {
      customerName: 'B. Lorne',
      customerContact: 'knock at the side door',
      customerAddress: 'Lime kiln house, Kiln road',
      carrier: 'Tern',
      agreedDownMbps: 20,
      agreedUpMbps: 4,
      sim: { plan: 'Tern data SIM, no allowance' },
      today: 'Phone as hotspot on the kitchen sill; drops out in the evening',
      mayDrill: 'yes',
    },
  })
  kiln.set('jobs', kiln.jobId, {
    complaint: 'cellular',
    changedLately: 'nothing since the new windows, four years ago',
    drillWhere: 'beside the old aerial’s hole, gable',
    outageMin: 0,
  })
  finishedRouter(kiln)

  const loft = make(32, 'Net loft', {
    latDeg: 46.7475,
    lonDeg: -41.431,
    job: {
      customerName: 'S. Ame',
      customerContact: null,
      customerAddress: 'Net loft, West quay',
      carrier: 'Gannet',
      agreedDownMbps: 4,
      agreedUpMbps: 1,
      sim: { plan: 'two Gannet phones' },
      today: 'Calls drop downstairs; no data in the kitchen',
      mayDrill: 'ask',
    },
  })
  loft.set('jobs', loft.jobId, { complaint: 'cellular', changedLately: 'foil under the tiles, last autumn', outageMin: 30 })
  boosterInPlan(loft)

  const croft = make(48, 'Upper croft', {
    latDeg: 46.639,
    lonDeg: -41.601,
    job: {
      customerName: 'T. Veld',
      carrier: 'Tern',
      agreedDownMbps: 15,
      agreedUpMbps: 2,
      today: 'Router on the shelf by the stairs',
      mayDrill: 'no',
    },
  })
  croft.read('Kitchen', 'Stack', 'B20', { startUtc: '2026-04-02T09:10:00.000Z', interferenceDb: 4 })
  croft.speeds('Kitchen', '2026-04-02T09:10:00.000Z', [[3.1, 0.8, 62]])
  setupsCompared(croft)
  croft.obstacle({ name: 'Spruce belt', fromDeg: 55, toDeg: 118, distanceM: 140, heightM: 19 })
  croft.landmark('Head cairn', 46.6302, -41.6418)

  const van = make(64, 'Works van, north round', {
    latDeg: 46.8722,
    lonDeg: -41.393,
    job: {
      kind: 'vehicle',
      customerName: 'Round of three',
      carrier: 'Tern',
      agreedDownMbps: 8,
      agreedUpMbps: 2,
      sim: { plan: 'Tern data SIM, 200 GB' },
      today: 'Phone on the dash; nothing behind the ridge',
      mayDrill: 'yes',
    },
  })
  vanOnItsRound(van)

  const ketch = make(80, 'Ketch at anchor', {
    latDeg: 46.6905,
    lonDeg: -41.4305,
    job: {
      kind: 'boat',
      customerName: 'D. Quill',
      carrier: 'Tern',
      agreedDownMbps: 5,
      agreedUpMbps: 1,
      sim: { plan: 'Tern and Gannet, one each' },
      today: 'Phone held up through the hatch',
      mayDrill: 'ask',
    },
  })
  ketchAtAnchor(ketch)

  const hall = make(96, 'Sail works', {
    latDeg: 46.7395,
    lonDeg: -41.4135,
    job: {
      kind: 'building',
      customerName: 'Sail works, two tenants',
      customerContact: 'porter, side gate',
      customerAddress: 'Sail works, Rope walk',
      carrier: 'Tern',
      agreedDownMbps: 10,
      agreedUpMbps: 2,
      agreedCalls: true,
      sim: { plan: 'phones of both tenants, all on Tern' },
      today: 'Calls only at the windows; new coated panes since the autumn',
      mayDrill: 'ask',
    },
  })
  buildingPlanned(hall)

  const trailer = make(256, 'Long trailer', {
    latDeg: 46.8702,
    lonDeg: -41.3962,
    job: {
      kind: 'vehicle',
      customerName: 'J. and P. Orme, travelling',
      carrier: 'Tern',
      agreedDownMbps: 10,
      agreedUpMbps: 2,
      sim: { name: 'Tern unlimited', plan: 'Tern data SIM, slower from 200 GB on' },
      today: 'Two phones on the table; one carrier or the other is gone at every second stop',
      mayDrill: 'yes',
    },
  })
  trailerOfTwoModems(trailer)

  const clinic = make(272, 'Harbour clinic', {
    latDeg: 46.8689,
    lonDeg: -41.4012,
    job: {
      kind: 'building',
      customerName: 'Harbour clinic, estates',
      customerContact: 'porter’s lodge, ask for the keys of the ceiling voids',
      customerAddress: 'Harbour clinic, Long quay',
      carrier: 'Tern',
      agreedDownMbps: 5,
      agreedUpMbps: 1,
      agreedCalls: true,
      sim: { plan: 'phones of staff and visitors, all on Tern' },
      today: 'Pagers failed; calls only at the entrance since the panes were changed',
      mayDrill: 'ask',
    },
  })
  clinicOfThreeZones(clinic)

  const shed = make(288, 'Potting shed', {
    latDeg: 46.8571,
    lonDeg: -41.3742,
    job: {
      kind: 'home',
      customerName: 'Reed Orme',
      customerContact: 'at the house, 80 m down the path',
      carrier: 'Tern',
      agreedDownMbps: 8,
      agreedUpMbps: 1,
      sim: { plan: 'Tern data SIM, 60 GB' },
      today: 'Two cameras on the network “orchard”; its router hears nothing in here',
      mayDrill: 'yes',
    },
  })
  shedWithPair(shed)

  const visits = [
    [kiln, null],
    [loft, 1],
    [croft, 5],
    [van, 0],
    [ketch, null],
    [hall, 16],
    [trailer, null],
    [clinic, null],
    [shed, null],
  ] as const
  const fleet = mailVans(make(112, 'Mail van 1', { latDeg: 46.8712, lonDeg: -41.394, job: { ...MAIL_VAN } }))
  const documents = [...visits.map(([b, inDays]) => [b.doc, inDays] as const), ...fleet.map(d => [d, null] as const)]
  const jobs = documents.map(([document, visitInDays]): DemoJob => {
    const { id, name } = document.jobs[0]!
    const days = DEMO_DAYS[name]?.(rowsOf(document)) ?? NO_DAYS
    const first = days.visits.filter(v => v.inDays >= 0 && v.state !== 'done').map(v => v.inDays)
    return { jobId: id, document, days, visitInDays: visitInDays ?? (first.length ? Math.min(...first) : null) }
  })
  return { masts, cells, terrain, jobs, prices: demoPrices(jobs.flatMap(j => rowsOf(j.document))) }
}

/** Everything that the plan shown takes. */
function rowsOf(doc: JobDocument) {
  const design = doc.designs.find(d => d.id === doc.jobs[0]!.designId)
  return design ? plannedRows(doc, treeOf(doc, design)) : []
}

const MAIL_VAN = {
  kind: 'vehicle',
  customerName: 'Island mail',
  carrier: 'Tern',
  agreedDownMbps: 6,
  agreedUpMbps: 1,
  sim: { plan: 'Tern data SIM, one a van' },
  today: 'Scanner drops out beyond the harbour',
  mayDrill: 'yes',
} as const

/** Six vans alike: the first is the method, the others are how far the yard has come with them. */
function mailVans(b: Builder): JobDocument[] {
  b.read('Table', 'Lee Harbour', 'B20', { startUtc: '2026-04-07T08:20:00.000Z', interferenceDb: 2, extraDb: -6 })
  b.speeds('Table', '2026-04-07T08:20:00.000Z', [[4.2, 1.1, 61]])
  b.fixture('12 V feed', { eastM: 0.6, northM: 1.8, upM: 0.9 }, { name: 'fuse box under the seat' })
  b.kit('router', 'Lee Harbour', 'B20')
  b.layOut('router', 'Lee Harbour', {
    antenna: partOfKind('ant-roof-2', 'antenna')!,
    box: partOfKind('rtr-mobile-2', 'router')!,
  })
  // The hole of the antenna's own foot is the way in of its leads.
  b.held({ mount: 'roof bolt', metal: 'stainless', plate: 'galvanised', parted: true, throughMm: 35 })
  b.fed({ wire: '1', fuseA: 5, breaksA: 1000, faultA: 600, lowestV: 9 })
  b.stepsDone(60, '2026-04-07T09:00:00.000Z', 'Oren Tibb')
  b.lesson('mount', 'a loom runs 40 mm behind the second rib: drill between first and second', '2026-04-07T10:40:00.000Z')
  const box = b.node('router')
  b.add('labels', { ...BARE_LABEL, nodeId: box.id, serial: 'MV-D-000117', imei: DEMO_IMEIS[0], mac: '02:00:5E:10:00:01' })
  b.photo({ caption: 'Gland dry-fitted, arrow forward', bearingDeg: 20, stepKey: b.stepKey('mount') }, '2026-04-07T10:45:00.000Z')
  const method = b.doc
  const DONE = [60, 60, 10, 0, 0]
  const units = DONE.map((done, i) => {
    const newId = countedIds(128 + i)
    const { document, ids } = unitOf(method, `Mail van ${i + 2}`, newId)
    document.masts = method.masts
    document.cells = method.cells
    const marks = method.checks.filter(c => c.kind === 'step').slice(0, done)
    const key = (k: string) => k.replace(/[0-9a-f-]{36}$/, id => ids.get(id) ?? id)
    document.checks = marks.map(c => ({ ...c, id: newId(), key: key(c.key), atUtc: minutes(c.atUtc!, 1440 * (i + 1)) }))
    return document
  })
  // The fourth stands with its aerial further aft: a rack is in the way.
  const [, , fourth] = units as [JobDocument, JobDocument, JobDocument]
  fourth.nodes = fourth.nodes.map(n => (n.part?.kind === 'antenna' ? { ...n, northM: n.northM - 0.6 } : n))
  for (const [i, unit] of units.slice(0, 3).entries()) {
    const router = unit.nodes.find(n => n.designId === unit.jobs[0]!.designId && n.part?.kind === 'router')!
    const label = { serial: `MV-D-000${118 + i}`, imei: DEMO_IMEIS[i + 1]!, mac: `02:00:5E:10:00:0${i + 2}` }
    unit.labels = [{ ...BARE_LABEL, id: countedIds(144 + i)(), nodeId: router.id, ...label }]
  }
  return [method, ...units]
}

/** Of no device: the reporting body 00 that tests use, each with its check digit. */
const DEMO_IMEIS = ['001017000000102', '001017000000110', '001017000000128', '001017000000136'] as const

/** The croft tried out: one thing changed at a time, then two at once. */
function setupsCompared(b: Builder): void {
  const day = '2026-04-02T10:00:00.000Z'
  const at = (minute: number) => minutes(day, minute)
  const tern = b.doc.sims[0]!.id
  b.set('sims', tern, { plan: 'Tern house SIM, 100 GB' })
  const router = b.device('Old router', 'router')
  b.setUp({ deviceId: router, link: 'Wi-Fi 5', mark: 'before' })
  b.read('Kitchen', 'Stack', 'B20', { startUtc: at(0), interferenceDb: 4 })
  b.speeds('Kitchen', at(0), [
    [2.6, 0.7, 71],
    [2.2, 0.6, 78],
    [2.5, 0.6, 69],
  ])
  b.setUp({ link: 'LAN' })
  b.read('Kitchen', 'Stack', 'B20', { startUtc: at(20), interferenceDb: 4 })
  b.speeds('Kitchen', at(20), [
    [2.4, 0.7, 66],
    [2.7, 0.6, 64],
    [2.5, 0.7, 68],
  ])
  const gannet = b.add('sims', {
    ...BARE_SIM,
    name: 'Gannet SIM',
    carrier: 'Gannet',
    plan: 'lent for the day',
  } satisfies Omit<Sim, 'id'>)
  b.setUp({ simId: gannet })
  b.read('Kitchen', 'Hollow Farm', 'B20', { startUtc: at(50), interferenceDb: -5, extraDb: 16 })
  b.speeds('Kitchen', at(50), [
    [8.1, 1.7, 58],
    [9.4, 1.6, 55],
    [7.6, 1.9, 61],
    [8.8, 1.5, 57],
  ])
  const newer = b.device('New router', 'router')
  b.setUp({ deviceId: newer, simId: tern })
  b.read('Kitchen', 'Stack', 'B20', { startUtc: at(90), interferenceDb: 4, extraDb: 3 })
  b.speeds('Kitchen', at(90), [
    [4.4, 0.9, 52],
    [3.7, 1.0, 55],
  ])
  // Bands one by one, the newer router locked to each.
  for (const [band, minute, interferenceDb, extraDb, runs] of [
    ['B20', 120, 4, 3, [3.6, 4.1, 3.3, 3.9, 4.4]],
    ['B3', 140, -2, 9, [9.7, 11.2, 8.9, 10.4, 10.8]],
  ] as const) {
    b.setUp({ bandLock: band })
    b.read('Kitchen', 'Stack', band, { startUtc: at(minute), interferenceDb, extraDb })
    b.speeds(
      'Kitchen',
      at(minute),
      runs.map((down, i) => [down, Math.round(down * 2.2) / 10, 51 + 3 * i]),
    )
  }
  b.set('spots', b.spot('Kitchen').id, { station: 'device', note: 'on the shelf by the stairs; socket below it' })
}

/** Three floors behind coated panes: read on two of them, outside and on the roof. */
function buildingPlanned(b: Builder): void {
  const site = b.doc.sites[0]!
  b.set('sites', site.id, { lengthM: 30, depthM: 16, axisDeg: 62 })
  for (const [spot, alongM, upM] of [
    ['Reception', -9, 1],
    ['Workshop', 5, 1],
    ['Open office', -5, 5.4],
    ['Meeting room', 9, 5.4],
    ['Studio', -7, 8.8],
    ['Plant room', 11, 8.8],
    ['Pavement', -19, 1.5],
    ['Roof', -12, 12.4],
  ] as const)
    b.set('spots', b.spot(spot).id, { ...alongAxis(62, alongM), upM })
  for (const store of ['Workshop', 'Plant room']) b.set('spots', b.spot(store).id, { use: 'store' })
  b.add('floors', { level: 0, name: 'Sail floor', heightM: 4.4, material: null, use: null })
  b.add('walls', {
    level: 1,
    ...across(b, 5),
    material: 'block',
    lossDb: null,
  })
  const day = '2026-04-13T08:30:00.000Z'
  for (const [spot, extraDb] of [
    ['Reception', -13],
    ['Workshop', -19],
    ['Open office', -16],
    ['Meeting room', -22],
    ['Pavement', -2],
    ['Roof', 3],
  ] as const)
    b.read(spot, 'Stack', 'B20', { startUtc: day, interferenceDb: -2, extraDb })
  b.speeds('Open office', day, [
    [2.4, 0.6, 78],
    [1.6, 0.4, 96],
    [2.1, 0.5, 84],
  ])
  floorsOfTheBuilding(b)
  b.kit('booster', 'Stack', 'B20')
  // The far domes as they were first hung: on thin cable, one behind the other.
  const thin = partOfKind('line-195', 'line')!
  const domes = b.doc.runs.filter(r => b.doc.nodes.find(n => n.id === r.toNodeId)?.partId === 'ant-dome')
  domes.forEach((r, i) => b.set('runs', r.id, { partId: thin.id, part: thin, lengthM: 8 + 9 * (i % 3) }))
  b.drawWays()
  b.wayIn('wall', { name: 'plant room wall', wallMm: 200, openMm: null })
  b.held({
    mount: 'weighted tripod',
    sections: [
      { outsideMm: 48.3, wallMm: 3.2, lengthM: 1.2 },
      { outsideMm: 42.4, wallMm: 3.2, lengthM: 1 },
    ],
    grade: 'S235',
    apartM: 0.8,
    baseM: 1,
    ballastKg: 120,
  })
  b.fed({ upsWh: 160 })
  b.electrode({ name: 'roof earth', electrode: 'house earthing' })
  const first = b.copyPlan()
  b.cure('level.uneven', day)
  b.set('designs', first, { reason: 'every floor by a splitter: the far domes get too little' })
  b.choose(b.design.id, 'taps even it out with the same amplifier')
  b.stepsDone(5, '2026-04-14T08:00:00.000Z')
  b.notSo('hang', 'the ceiling void is full of ducts here: somebody looks first', '2026-04-14T09:30:00.000Z')
}

/** Inside walls and people of the three floors. */
function floorsOfTheBuilding(b: Builder): void {
  for (const [spot, people] of [
    ['Reception', 4],
    ['Workshop', 12],
    ['Open office', 22],
    ['Meeting room', 8],
    ['Studio', 6],
    ['Plant room', 0],
  ] as const)
    b.set('spots', b.spot(spot).id, { people })
  for (const [level, alongM, fromM, toM, material] of [
    [0, -3, -8, 3, 'block'],
    [0, 8, -2, 8, 'plasterboard'],
    [1, -11, -8, 2, 'plasterboard'],
    [2, 0, -8, 8, 'block'],
    [2, 7, -8, 1, 'plasterboard'],
  ] as const) {
    b.add('walls', { level, ...across(b, alongM, [fromM, toM]), material, lossDb: null })
  }
}

/** A place on an axis through the middle of the site. */
const alongAxis = (axisDeg: number, alongM: number) => moveAlong({ axisDeg }, { eastM: 0, northM: 0, upM: 0 }, alongM, 1)

/** Ends of a wall square to the site's long side, a way along it; from side to side where nothing else is said. */
function across(b: Builder, alongM: number, ends?: readonly [number, number]) {
  const { axisDeg, depthM } = b.doc.sites[0]!
  const foot = { ...alongAxis(axisDeg, alongM), upM: 0 }
  const [from, to] = (ends ?? [-depthM / 2, depthM / 2]).map(m => moveAlong({ axisDeg: axisDeg + 90 }, foot, m, 1))
  return { fromEastM: from!.eastM, fromNorthM: from!.northM, toEastM: to!.eastM, toNorthM: to!.northM }
}

function finishedRouter(b: Builder): void {
  const day = '2026-03-24T10:20:00.000Z'
  const mast = 'Stack'
  for (const [spot, extraDb] of [
    ['Kitchen', -16],
    ['Study', -9],
    ['Beside the house', -7],
    ['Ridge', -3],
  ] as const)
    b.read(spot, mast, 'B20', { startUtc: day, interferenceDb: extraDb < -8 ? 8 : -4, extraDb })
  b.speeds('Kitchen', day, [
    [5.2, 1.1, 58],
    [4.6, 0.9, 71],
    [5.9, 1.3, 55],
  ])
  b.kit('router', mast, 'B20')
  for (const r of b.doc.runs) b.set('runs', r.id, { measured: true })
  b.drawWays()
  b.wayIn('wall', {
    name: 'store wall',
    behind: 'known',
    behindFound: 'clear',
    behindWhat: 'brick, 260 mm',
    wallMm: 260,
    openMm: 38,
  })
  b.held({
    mount: 'side pole',
    substrate: 'brick',
    sections: [{ outsideMm: 42, wallMm: 3, lengthM: 1.6 }],
    grade: 'S235',
    apartM: 1.2,
    screw: 'anchor',
    screwsEach: 4,
    anchorN: 9000,
    metal: 'galvanised',
    plate: 'galvanised',
  })
  b.electrode({ name: 'rod', electrode: 'rod', bonded: 'yes' })
  const feedOf = b.node('router')
  b.fixture('mains socket', { ...feedOf, upM: 0.3, eastM: feedOf.eastM + 0.6 }, { name: 'store socket' })
  for (const n of b.doc.nodes.filter(x => x.part?.kind === 'antenna')) b.fact(linesKey(n.id), '2026-03-31T08:20:00.000Z', 60)
  const bearing = b.path(mast).bearingDeg
  b.sweep('2026-03-31T11:05:00.000Z', bearing, 19)
  b.sweep('2026-03-31T10:52:00.000Z', bearing, -84, 'RSRP')
  b.set('designs', b.doc.designs[0]!.id, {
    aimedDeg: Math.round(bearing + 3),
    aimedAtUtc: '2026-03-31T11:40:00.000Z',
    bandwidthMHz: 10,
  })
  const after = '2026-03-31T12:15:00.000Z'
  const router = b.device('Router', 'router')
  // The new router by itself first, so that what the antenna brings stands alone.
  b.watch('Kitchen', '2026-03-24T10:45:00.000Z', { seconds: 2400, drops: 7, longestS: 38, lostS: 96 })
  const bare = '2026-03-31T09:40:00.000Z'
  b.setUp({ deviceId: router, link: 'LAN', antenna: 'built in', power: 'lead' })
  b.read('Kitchen', mast, 'B20', { startUtc: bare, interferenceDb: 6, extraDb: -13 })
  b.speeds('Kitchen', bare, [
    [8.3, 1.9, 52],
    [7.4, 1.6, 57],
    [8.9, 2.1, 49],
    [7.9, 1.8, 55],
  ])
  b.setUp({ deviceId: router, link: 'LAN', antenna: 'outside', designId: b.doc.designs[0]!.id, mark: 'after' })
  b.read('Kitchen', mast, 'B20', { startUtc: after, interferenceDb: -6, extraDb: 20 })
  b.speeds('Kitchen', after, [
    [24.6, 11.3, 41],
    [27.9, 10.4, 39],
    [26.2, 12.6, 44],
    [25.3, 11.7, 40],
  ])
  b.watch('Kitchen', '2026-03-31T12:25:00.000Z', { seconds: 5400, drops: 1, longestS: 4.2, lostS: 4.2 })
  b.watch('Kitchen', '2026-03-31T13:58:00.000Z', {
    kind: 'drill',
    seconds: 190,
    drops: 1,
    longestS: 17.4,
    lostS: 17.4,
    switchS: 17.8,
    backS: 24.6,
    broke: 'the call broke off, the film went on',
  })
  for (const key of ['falls', 'overhead', 'storm'])
    b.add('checks', {
      kind: 'tick',
      key,
      done: true,
      reason: null,
      by: 'Oren Tibb',
      atUtc: '2026-03-31T10:50:00.000Z',
      stopId: null,
      about: aboutOf(b.doc, 'aim'),
      value: null,
    })
  b.add('checks', {
    kind: 'tick',
    key: 'handover',
    done: true,
    reason: null,
    by: 'Ila Marrow',
    atUtc: '2026-03-31T13:00:00.000Z',
    stopId: null,
    about: null,
    value: null,
  })
  b.stepsDone(40, '2026-03-31T08:00:00.000Z')
  b.commissioned('2026-03-31T12:20:00.000Z', { up: 1, handed: 'the owner' })
  b.add('labels', {
    ...BARE_LABEL,
    nodeId: b.node('router').id,
    serial: 'MV-R-000412',
    firmwareFound: '2.4',
    firmwareNeeded: '2.4',
    wps: 'off',
    adminFromOutside: 'off',
  })
  b.hangs('house', 'two phones, laptop', { usage: 'films', hoursDay: 3, backAtUtc: '2026-03-31T12:31:00.000Z' })
  b.hangs('house', 'television', { usage: 'films', hoursDay: 2, backAtUtc: '2026-03-31T12:38:00.000Z' })
  const { eastM, northM, upM } = b.spot('Ridge')
  b.photo({ caption: 'From the ridge toward Stack', bearingDeg: 182, eastM, northM, upM }, '2026-03-24T10:40:00.000Z')
  b.photo({ caption: 'The other way, up the hill', bearingDeg: 20, eastM, northM, upM }, '2026-03-24T10:41:00.000Z')
  b.photo({ caption: 'As it stands, locked', bearingDeg: 190, nodeId: b.node('antenna').id }, '2026-03-31T11:42:00.000Z')
}

function boosterInPlan(b: Builder): void {
  const day = '2026-04-01T14:00:00.000Z'
  const mast = 'West Spine'
  for (const [spot, extraDb] of [
    ['Kitchen', -21],
    ['Hall', -18],
    ['Beside the house', -16],
    ['Ridge', -9],
  ] as const)
    b.read(spot, mast, 'B20', { startUtc: day, interferenceDb: -5, extraDb })
  b.speeds('Kitchen', day, [
    [1.9, 0.4, 90],
    [2.3, 0.3, 84],
    [1.2, 0.2, 130],
  ])
  b.kit('booster', mast, 'B20')
  // As first thought of: the donor low on the gable, the dome upstairs where its cable is short.
  const [donor, dome] = b.doc.nodes.filter(n => n.part?.kind === 'antenna') as [Node, Node]
  b.set('nodes', donor.id, { upM: 6.6 })
  b.set('nodes', dome.id, { ...moveAlong(b.doc.sites[0]!, dome, along(b.doc.sites[0]!, donor, 1) > 0 ? 2.2 : -2.2, 1), upM: 5.1 })
  b.set('spots', b.spot('Kitchen').id, { hangs: 'two cordless phones' })
  const box = b.node('amplifier')
  b.fixture('mains socket', { ...box, eastM: box.eastM + 1.1, upM: 0.5 }, { name: 'hall socket' })
  b.electrode({ name: 'main earthing bar', electrode: 'house earthing' })
  b.held({
    mount: 'fascia bracket',
    substrate: 'softwood',
    sections: [{ outsideMm: 38, wallMm: 2, lengthM: 1 }],
    grade: '6063-T6',
    apartM: 0.4,
    screw: 'lag',
    screwMm: 8,
    threadMm: 50,
    screwsEach: 2,
    metal: 'stainless',
    plate: 'aluminium',
  })
  const first = b.copyPlan()
  b.layOut('outdoors', mast)
  b.set('designs', b.design.id, { reason: 'data, but their old phones cannot call over Wi-Fi' })
  b.choose(first, 'calls of every phone are what they asked for')
  b.stepsDone('dry-run', '2026-04-02T08:10:00.000Z')
}

function vanOnItsRound(b: Builder): void {
  const harbour = b.stop({
    name: 'Harbour yard',
    latDeg: 46.8722,
    lonDeg: -41.393,
    arriveOn: '2026-04-06',
    leaveOn: '2026-04-07',
    headingDeg: 115,
    swingDeg: 0,
    notes: 'by the slip, hook-up on the wall',
  })
  const bend = b.stop({
    name: 'Moss Road bend',
    latDeg: 46.786,
    lonDeg: -41.337,
    arriveOn: '2026-04-08',
    leaveOn: '2026-04-08',
    headingDeg: 250,
    swingDeg: 180,
  })
  b.stop({
    name: 'Reef view',
    latDeg: 46.795,
    lonDeg: -41.53,
    arriveOn: '2026-04-09',
    leaveOn: '2026-04-11',
    headingDeg: 300,
    swingDeg: 20,
  })
  b.set('jobs', b.jobId, { stopId: harbour })
  b.landmark('Net shed gable', 46.8741, -41.3858, harbour)
  b.obstacle({ name: 'Slip crane', fromDeg: 340, toDeg: 348, distanceM: 60, heightM: 22, stopId: harbour })
  b.read('Table', 'Lee Harbour', 'B20', { startUtc: '2026-04-06T15:20:00.000Z', interferenceDb: 2, extraDb: -6 })
  b.speeds('Table', '2026-04-06T15:20:00.000Z', [
    [6.1, 1.4, 52],
    [5.4, 1.6, 60],
  ])
  const roofM = eavesM(b.doc.sites[0]!)
  b.fixture('roof unit', { eastM: 0, northM: 0.6, upM: roofM }, { name: 'air-conditioner', widthM: 0.7, heightM: 0.25 })
  b.fixture('satellite terminal', { eastM: 0, northM: -0.2, upM: roofM + 0.1 }, { name: 'satellite terminal' })
  b.fixture('12 V feed', { eastM: 0.6, northM: -1.2, upM: 0.9 }, { name: 'fused feed' })
  b.kit('router', 'Lee Harbour', 'B20')
  b.wayIn('window', { name: 'roof hatch, flat lead' })
  b.held({ mount: 'adhesive clamp', sections: [{ outsideMm: 32, wallMm: 2, lengthM: 0.6 }], grade: '6063-T6', apartM: 0.4 })
  b.fed({ fuseA: 3, breaksA: 1000, faultA: 600, lowestV: 9 })
  const first = b.copyPlan()
  b.layOut('router', 'Lee Harbour', {
    antenna: partOfKind('ant-roof-2', 'antenna')!,
    box: partOfKind('rtr-mobile-2', 'router')!,
  })
  b.set('designs', b.design.id, { reason: 'one hole in the roof, its leads reach the box' })
  b.held({ mount: 'roof bolt', metal: 'stainless', plate: 'galvanised', parted: true, throughMm: 35 })
  b.fed({ wire: '1', fuseA: 5, breaksA: 1000, faultA: 600, lowestV: 9 })
  b.choose(first, 'nothing drilled until the lease is settled')
  b.stepsDone('dry-run', '2026-04-06T16:00:00.000Z')
  b.landmark('Sand pit spoil', 46.7913, -41.3462, bend)
}

/** A trailer with one antenna on its roof and a router of two modems: two SIMs of two carriers, a third stands by. */
function trailerOfTwoModems(b: Builder): void {
  const site = b.doc.sites[0]!
  b.set('sites', site.id, { body: 'fifth wheel', lengthM: 12, depthM: 2.5, storeyHeightM: 3.9, headingDeg: 205, swingDeg: 0 })
  const [tern] = b.doc.sims
  const sim = (name: string, carrier: string, plan: string) => {
    const { id: _id, ...first } = tern!
    return b.add('sims', { ...first, name, carrier, plan })
  }
  const gannet = sim('Gannet 100 GB', 'Gannet', 'Gannet data SIM, 100 GB')
  const spare = sim('Tern by the day', 'Tern', 'Tern prepaid, stands by')
  b.read('Table', 'Lee Harbour', 'B20', { startUtc: '2026-04-08T15:20:00.000Z', interferenceDb: 2, extraDb: -5 })
  b.speeds('Table', '2026-04-08T15:20:00.000Z', [
    [7.2, 1.6, 55],
    [6.6, 1.4, 61],
  ])
  const roofM = eavesM(b.doc.sites[0]!)
  b.fixture('satellite terminal', { eastM: 0, northM: 3.4, upM: roofM + 0.1 }, { name: 'satellite terminal' })
  b.fixture('12 V feed', { eastM: 0.7, northM: 2.2, upM: 0.7 }, { name: 'fuse panel under the stairs' })
  b.kit('router', 'Lee Harbour', 'B20')
  b.layOut('router', 'Lee Harbour', {
    antenna: partOfKind('ant-roof-7', 'antenna')!,
    box: partOfKind('rtr-dual', 'router')!,
  })
  b.held({ mount: 'roof bolt', metal: 'stainless', plate: 'aluminium', parted: true, throughMm: 38 })
  b.fed({ fuseA: 5, breaksA: 1000, faultA: 800, lowestV: 9 })
  const box = b.node('router')
  const slots = [
    [1, tern!.id],
    [2, spare],
    [3, gannet],
  ] as const
  for (const [slot, simId] of slots) b.add('simSlots', { nodeId: box.id, slot, simId })
  b.commissioned('2026-04-09T13:00:00.000Z', { up: 1 })
  const [first, second, third] = b.doc.connections
  b.set('connections', first!.id, { checkS: 5, checkPlaces: 2, checkMisses: 3 })
  b.set('connections', second!.id, {
    checkS: 300,
    checkPlaces: 1,
    checkMisses: 3,
    carries: 'calls and mail',
    throttleDownMbps: 5,
  })
  b.set('connections', third!.id, { carries: 'calls and mail', state: 'not in yet' })
  b.set('sims', gannet, { allowanceGb: 100, size: 'nano' })
  b.hangs('house', 'two phones', { usage: 'films', hoursDay: 2 })
  b.hangs('house', 'laptop for work', { usage: 'work', hoursDay: 6, tunnel: true })
  b.hangs('house', 'camera over the hitch', { usage: 'camera', hoursDay: 1 })
}

/** A shed with two single beams crossed on one pole: one aim, two cables. */
function shedWithPair(b: Builder): void {
  const site = b.doc.sites[0]!
  b.set('sites', site.id, { lengthM: 8, depthM: 5, storeys: 1, storeyHeightM: 2.6, roofRiseM: 1, wallMaterial: 'timber' })
  for (const s of b.doc.spots.filter(x => ['Bedroom', 'Study', 'Store'].includes(x.name))) b.remove('spots', s.id)
  const low = { Kitchen: 'Bench', Hall: 'Door' } as Record<string, string>
  for (const s of b.doc.spots) {
    if (low[s.name]) b.set('spots', s.id, { name: low[s.name], eastM: s.eastM * 0.6, upM: 1 })
    if (s.name === 'Ridge') b.set('spots', s.id, { upM: 3.8 })
    if (s.name === 'Beside the house') b.set('spots', s.id, { name: 'Beside the shed', eastM: -6 })
  }
  b.read('Bench', 'Lee Harbour', 'B20', { startUtc: '2026-04-11T10:20:00.000Z', interferenceDb: 3, extraDb: -9 })
  b.read('Beside the shed', 'Lee Harbour', 'B20', { startUtc: '2026-04-11T10:40:00.000Z', interferenceDb: 3, extraDb: 0 })
  b.kit('router', 'Lee Harbour', 'B20')
  b.crossed('ant-lpda', { mount: 'side pole', substrate: 'softwood' })
  b.fixture('mains socket', { eastM: 1.6, northM: 0.4, upM: 0.6 }, { name: 'socket by the bench' })
}

/** A clinic of two floors behind coated glass: three zones along its length, an amplifier and an outside antenna each. */
function clinicOfThreeZones(b: Builder): void {
  const site = b.doc.sites[0]!
  b.set('sites', site.id, {
    lengthM: 84,
    depthM: 50,
    storeys: 2,
    storeyHeightM: 3.6,
    roofRiseM: 0,
    axisDeg: 90,
    wallMaterial: 'concrete',
    paneMaterial: 'coated glass',
    panePercent: 40,
    floorMaterial: 'reinforced concrete',
    roofMaterial: 'reinforced concrete',
  })
  const floor = (level: number, name: string, use: Use) =>
    b.add('floors', { level, name, heightM: null, material: null, use } satisfies Omit<FloorRow, 'id'>)
  floor(0, 'Outpatients', 'ward')
  floor(1, 'Wards', 'ward')
  const [first] = b.doc.spots.filter(s => s.indoors)
  const { id: _id, ...room } = first!
  for (const s of b.doc.spots.filter(x => x.indoors)) b.remove('spots', s.id)
  const ROOMS = [
    ['Reception', -34, 0, 1, 12],
    ['X-ray', 0, -12, 1, 6],
    ['Treatment', 30, 8, 1, 10],
    ['Ward north', -26, 10, 4.6, 24],
    ['Ward south', 28, -8, 4.6, 24],
  ] as const
  for (const [name, eastM, northM, upM, people] of ROOMS) {
    const needed = name === 'X-ray' || name === 'Ward south'
    b.add('spots', { ...room, name, eastM, northM, upM, needed, people, station: null, note: null, use: null })
  }
  b.read('Reception', 'Lee Harbour', 'B20', { startUtc: '2026-04-09T09:20:00.000Z', interferenceDb: 1, extraDb: -4 })
  const building = buildingOf(b.doc)
  for (const z of divided(building, 'three')) b.add('zones', z)
  b.set('designs', b.doc.designs[0]!.id, { mastId: b.mast('Lee Harbour').id, band: 'B20' })
  b.byZones('own')
}

function ketchAtAnchor(b: Builder): void {
  const site = b.doc.sites[0]!
  // A card as a swing leaves it: mostly the iron of the engine, a little of the hull's set.
  b.set('sites', site.id, {
    mizzenRiseM: 7.5,
    headingDeg: 312,
    swingDeg: 70,
    deviation: Array.from({ length: 12 }, (_, i) => ({
      headingDeg: i * 30,
      deviationDeg:
        Math.round(10 * (0.4 + 3.1 * Math.sin((i * 30 * Math.PI) / 180) - 1.8 * Math.cos((i * 30 * Math.PI) / 180))) / 10,
    })),
  })
  const lee = b.stop({
    name: 'In the lee',
    latDeg: 46.6905,
    lonDeg: -41.4305,
    arriveOn: '2026-04-10',
    leaveOn: '2026-04-12',
    headingDeg: 312,
    swingDeg: 70,
    notes: '9 m on sand',
  })
  b.stop({
    name: 'Outer road',
    latDeg: 46.7005,
    lonDeg: -41.5075,
    arriveOn: '2026-04-12',
    leaveOn: null,
    headingDeg: 280,
    swingDeg: 110,
  })
  b.set('jobs', b.jobId, { stopId: lee })
  b.landmark('Beacon post', 46.7062, -41.4049, lee)
  b.read('Saloon', 'Stack', 'B20', { startUtc: '2026-04-10T18:05:00.000Z', interferenceDb: -3, extraDb: -2 })
  b.read('Cockpit', 'Stack', 'B20', { startUtc: '2026-04-10T18:20:00.000Z', interferenceDb: -3, extraDb: 1 })
  b.speeds('Saloon', '2026-04-10T18:05:00.000Z', [
    [2.2, 0.5, 88],
    [1.7, 0.6, 97],
  ])
  b.kit('router', 'Stack', 'B20')
  b.swap('antenna', 'ant-panel-x')
  for (const service of ['VHF', 'AIS', 'Wi-Fi', 'position'] as const) b.service(service)
  b.drawWays()
  const box = b.node('router')
  b.fixture('12 V feed', { eastM: box.eastM, northM: box.northM - 2.4, upM: 0.7 }, { name: 'chart table panel' })
  b.wayIn('deck', {
    name: 'deck gland at the mast',
    behind: 'looked at',
    behindFound: 'deck core',
    behindWhat: 'dry; beam aft of it',
    wallMm: 28,
    openMm: 32,
  })
  const antenna = b.node('antenna')
  b.fixture('duct', { ...antenna, upM: antenna.upM / 2 }, { name: 'mast duct', openMm: 32 })
  const parted = { metal: 'stainless', plate: 'aluminium', parted: true } as const
  b.held({ mount: 'spreader', ...parted })
  for (const service of ['VHF', 'AIS'] as const) b.serviceHeld(service, { mount: 'masthead', ...parted })
  b.serviceHeld('Wi-Fi', { mount: 'spreader', ...parted })
  b.serviceHeld('position', { mount: 'marine thread', ...parted })
  b.fed({ wire: '1.5', fuseA: 5, breaksA: 2000, faultA: 1500, lowestV: 9 })
  const first = b.copyPlan()
  b.layOut('router', 'Stack', { antenna: partOfKind('ant-marine-x', 'antenna')! })
  b.set('designs', b.design.id, { reason: 'hears all round while she swings, with less gain' })
  b.choose(first, 'the beam, while she lies to one anchor')
  b.stepsDone('dry-run', '2026-04-10T19:00:00.000Z')
}
