/** What each box is fed by: the source noted for it, the lead to it, its wire and fuse, what it takes of a battery a day. */
import { isConverter, isInverter } from '../job/part'
import type { Part, SourcePart } from '../job/part'
import type { NodeOf, Tree, TreeNode } from '../chain/tree'
import { wayM } from '../fitting/lengths'
import { wireById } from '../catalogue/wires'
import type { Wire } from '../catalogue/wires'
import {
  ampHoursADay,
  drawnByInverterW,
  fedBy,
  fuseFor,
  SOURCE_V,
  throughInverterAh,
  wireFor,
  wireFuse,
  wiresFor,
} from '../chain/wire'
import type { Fed, FuseChoice } from '../chain/wire'
import { loadsOn, supplyWayOf } from '../chain/supply'
import type { SupplyWay } from '../chain/supply'
import { dataWayOf } from '../chain/data'
import type { DataWay } from '../chain/data'
import { CHANNEL_M, passiveArrives, POE_CLASSES, poeArrives, poeClash, poeClassFor } from '../chain/poe'
import type { Feed } from '../job/fixing'
import type { Fixture, Job, JobDocument } from '../job/schema'
import { movesAbout } from '../job/schema'
import { inside } from '../site/building'
import type { Building } from '../site/building'
import { nearestTo } from '../site/frame'

export interface BoxFeed {
  at: TreeNode
  supply: 'mains' | '12 V' | 'PoE' | 'passive PoE'
  /** two wires come from a battery: to the box, or to the inverter that it is plugged into */
  wired: boolean
  powerW: number
  source: Fixture | null
  /** it hangs outside a home or building: its line comes in, and a surge with it */
  comesIn: boolean
  /** one way, m; null where no source is noted */
  lengthM: number | null
  /** as somebody entered it, or as it usually is */
  feed: Feed
  /** by what it is fed as planned: of PoE what its injector hangs on; null where nothing is */
  planned: PlannedFeed | null
  /** of PoE: the way of its data cable; null where none is planned */
  data: DataWay | null
  /** of two wires: every one tried at the lowest voltage of the source, thinnest first */
  tried: { wire: Wire; fed: Fed; fuseA: number | null }[]
  /** the wire that is to be laid: as entered, else the thinnest that does; null where none does, or it is no battery's feed */
  wire: Wire | null
  fed: Fed | null
  fuseA: number | null
  /** the fuse as entered, held against load, wire and what it can break; null while none is entered */
  fuseSays: FuseChoice | null
  /** of PoE: what arrives, and its class where it is a standard one */
  poe: { poeClass: number | null; arrivesW: number; volts: number | null; clash: string | null; tooLong: boolean } | null
  /** at the box with the source at rest, V: what is read once it is powered; null of anything but a lead of known length */
  restV: number | null
  /** charge a day out of a battery, Ah; null ashore */
  ahADay: number | null
  /** a failure is bridged so long, minutes; null without a battery for it */
  upsMin: number | null
}

/** What the tree says of a feed. */
export interface PlannedFeed {
  way: SupplyWay
  /** where its wires begin: a tap or a board at a feed of the site */
  begins: NodeOf<SourcePart> | null
  converter: NodeOf<SourcePart> | null
  /** makes mains of the battery beside the box; all that hangs on it, W */
  inverter: NodeOf<SourcePart> | null
  inverterW: number
  ups: NodeOf<SourcePart> | null
  /** all that hangs on that UPS, W; what says nothing of itself counts as a usual box does */
  upsW: number
}

/** A box of which nothing was said: by a lead straight from the source. */
export const usualFeed = (): Feed => ({
  volts: 12,
  through: 'lead',
  wire: null,
  fuseA: null,
  breaksA: null,
  faultA: null,
  lowestV: null,
  fumes: false,
  ignitionProtected: false,
  arrested: false,
  upsWh: null,
  poe: null,
  poeV: null,
})

/** Of a converter, and of a box whose sheet does not say what it takes, W. Assumed. */
const CONVERTER_SHARE = 0.9
const USUAL_W = 12

/** Share of a battery's energy that reaches the box through its inverter. Assumed. */
const UPS_SHARE = 0.85
/** Voltage at which Ah a day are counted, of a charged battery. @source common practice (no source) */
const RESTING_V: Record<Feed['volts'], number> = { 12: 12.8, 24: 25.6 }
/** A passive injector's voltage where nobody has said. @source common practice (no source) */
const PASSIVE_V = 24

/** What a box of that supply may be fed from: sockets, or feeds of 12 V; what is fed over data has its injector at a socket. */
export const sourcesOf = (doc: Pick<JobDocument, 'fixtures'>, supply: Part['supply']): Fixture[] =>
  doc.fixtures.filter(f => f.kind === (supply === '12 V' ? '12 V feed' : 'mains socket'))

/** @returns the boxes of a tree that want power, with how each gets it; a box whose power is not known is left out */
export function feedsOf(doc: Pick<JobDocument, 'fixtures'>, tree: Tree, kind: Job['kind'], b: Building): BoxFeed[] {
  return [...tree.amplifiers, ...tree.routers].flatMap((at): BoxFeed[] => {
    const { powerW, supply } = at.part
    if (!powerW || !(supply === 'mains' || supply === '12 V' || supply === 'PoE' || supply === 'passive PoE')) return []
    // What a data cable feeds is as far from its injector as that cable is long.
    const data = supply === 'PoE' || supply === 'passive PoE' ? dataWayOf(tree, at) : null
    const planned = plannedFeed(tree, data?.injector ?? at)
    const inverter = planned?.inverter ?? null
    const wired = supply === '12 V' || !!inverter
    const noted = sourcesOf(doc, wired ? '12 V' : supply)
    const feed = asPlanned(at.node.feed ?? usualFeed(), planned)
    const fixtureId = planned?.begins?.node.sourceId ?? at.node.sourceId
    const source = noted.find(f => f.id === fixtureId) ?? nearestTo(planned?.begins?.node ?? at.node, noted)
    const wiresM = planned?.begins ? planned.way.lengthM : null
    const lengthM = data?.injector ? data.lengthM : (wiresM ?? (source ? wayM(kind, b, source, at.node) : null))
    const battery = wired || (movesAbout(kind) && feed.through === 'inverter')
    const base: BoxFeed = {
      at,
      supply,
      wired,
      powerW,
      source,
      comesIn: !movesAbout(kind) && !inside(b, at.node),
      lengthM,
      feed,
      planned,
      data: null,
      restV: null,
      tried: [],
      wire: null,
      fed: null,
      fuseA: null,
      fuseSays: null,
      poe: null,
      ahADay: battery ? aDayAh(feed, powerW, planned) : null,
      upsMin: bridgedMin(feed, planned, powerW),
    }
    if (supply === 'PoE' || supply === 'passive PoE')
      return [
        {
          ...base,
          ...(planned?.inverter && wiresM !== null && onBattery(kind, drawnW(powerW, planned), wiresM, feed)),
          data,
          poe: overData(supply, powerW, lengthM, fedFrom(feed, data, othersW(tree, at, data))),
        },
      ]
    if (!wired) return [base]
    // A wire that burns before its fuse is told whatever else is unknown.
    if (lengthM === null)
      return [{ ...base, fuseA: feed.fuseA, wire: feed.wire ? (wireById(feed.wire) ?? null) : null, fuseSays: burns(feed) }]
    return [{ ...base, ...onBattery(kind, drawnW(powerW, planned), lengthM, feed) }]
  })
}

/** What is drawn through the wires, W: an inverter's are for all that it can give. */
function drawnW(powerW: number, planned: PlannedFeed | null): number {
  if (planned?.inverter) return drawnByInverterW(planned.inverter.part.mostW ?? planned.inverterW)
  return planned?.converter ? powerW / CONVERTER_SHARE : powerW
}

/** Charge a day out of a battery, Ah. */
function aDayAh({ through, volts }: Feed, powerW: number, planned: PlannedFeed | null): number {
  if (through !== 'inverter') return ampHoursADay(powerW, RESTING_V[volts])
  return throughInverterAh(powerW, RESTING_V[volts], Math.max(powerW, planned?.inverterW ?? 0))
}

/** @returns what a part is fed by in the tree; null where nothing is joined to it */
function plannedFeed(tree: Tree, at: TreeNode): PlannedFeed | null {
  const way = supplyWayOf(tree, at)
  if (!way) return null
  const ups = way.parts.find(p => p.part.batteryWh) ?? null
  const inverter = way.parts.find(p => isInverter(p.part)) ?? null
  const hangW = (on: NodeOf<SourcePart> | null) => (on ? loadsOn(tree, on).reduce((sum, n) => sum + loadOf(tree, n), 0) : 0)
  return {
    way,
    begins: way.parts.find(p => p.part.takes === 'nothing') ?? null,
    converter: way.parts.find(p => isConverter(p.part)) ?? null,
    inverter,
    inverterW: hangW(inverter),
    ups,
    upsW: hangW(ups),
  }
}

/** What a part takes, W: an injector what the boxes take that it feeds. */
function loadOf(tree: Tree, at: TreeNode): number {
  if (at.part.kind !== 'injector') return at.part.powerW ?? USUAL_W
  const boxes = tree.routers.filter(r => dataWayOf(tree, r)?.injector?.node.id === at.node.id)
  // A switch takes something for itself as well.
  return boxes.reduce((sum, r) => sum + (r.part.powerW ?? USUAL_W), at.part.powerW ?? 0)
}

/** What lies between a battery and a box, as it is planned; null where no battery feeds it so far. */
function throughOf({ begins, converter, inverter }: PlannedFeed): Feed['through'] | null {
  if (inverter) return 'inverter'
  if (!begins) return null
  return converter ? 'converter' : 'lead'
}

/** What is planned stands over what somebody noted of a feed that nobody had planned. */
function asPlanned(feed: Feed, planned: PlannedFeed | null): Feed {
  if (!planned) return feed
  const wires = planned.way.joints.flatMap(j => (j.line?.wire ? (wireById(j.line.wire) ?? []) : []))
  // The thinnest of a way is what its fuse protects.
  const thinnest = wires.reduce<Wire | null>((least, w) => (!least || w.mm2 < least.mm2 ? w : least), null)
  return {
    ...feed,
    ...(thinnest && { wire: thinnest.id }),
    through: throughOf(planned) ?? feed.through,
  }
}

/** How long a failure is bridged, minutes: by the UPS that is planned, for all that hangs on it; else by the battery noted. */
function bridgedMin(feed: Feed, planned: PlannedFeed | null, powerW: number): number | null {
  const wh = planned?.ups?.part.batteryWh
  if (wh && planned.upsW > 0) return (wh * UPS_SHARE * 60) / planned.upsW
  return feed.upsWh === null ? null : (feed.upsWh * UPS_SHARE * 60) / powerW
}

/** What the other boxes of the same injector or switch ask of it, W: by the class that each has. */
function othersW(tree: Tree, at: TreeNode, data: DataWay | null): number {
  const id = data?.injector?.node.id
  const others = tree.routers.filter(r => r.node.id !== at.node.id && id && dataWayOf(tree, r)?.injector?.node.id === id)
  return others.reduce((sum, r) => sum + (poeClassFor(r.part.powerW ?? USUAL_W)?.sourceW ?? r.part.powerW ?? USUAL_W), 0)
}

/** A planned injector says what it gives, less what others take of it; without one it is what somebody noted. */
function fedFrom(feed: Feed, data: DataWay | null, takenW: number): Feed & { givesW: number | null } {
  const by = data?.injector?.part
  return {
    ...feed,
    ...(by && { poe: by.gives === 'passive PoE' ? 'passive' : 'standard' }),
    givesW: by ? Math.max(0, by.givesW - takenW) : null,
  }
}

function overData(
  supply: 'PoE' | 'passive PoE',
  powerW: number,
  lengthM: number | null,
  feed: Feed & { givesW: number | null },
): NonNullable<BoxFeed['poe']> {
  const reach = Math.min(CHANNEL_M, lengthM ?? CHANNEL_M)
  const tooLong = lengthM !== null && lengthM > CHANNEL_M
  const given = feed.poe ?? (supply === 'PoE' ? 'standard' : 'passive')
  const volts = feed.poeV ?? PASSIVE_V
  const clash = poeClash(
    { kind: given, volts },
    { kind: supply === 'PoE' ? 'standard' : 'passive', volts: supply === 'passive PoE' ? PASSIVE_V : null },
  )
  if (supply === 'passive PoE') {
    const arrives = passiveArrives(volts, powerW, reach)
    return { poeClass: null, arrivesW: arrives === null ? 0 : powerW, volts: arrives, clash, tooLong }
  }
  // The class that the injector can give, where one is planned; else that which the box asks for.
  const asked = poeClassFor(powerW)
  const found = feed.givesW === null ? asked : (POE_CLASSES.filter(c => c.sourceW <= feed.givesW! + 1e-9).at(-1) ?? null)
  return {
    poeClass: found?.poeClass ?? null,
    arrivesW: found ? poeArrives(found, reach) : 0,
    volts: null,
    clash,
    tooLong,
  }
}

function onBattery(
  kind: Job['kind'],
  powerW: number,
  lengthM: number,
  feed: Feed,
): Pick<BoxFeed, 'tried' | 'wire' | 'fed' | 'restV' | 'fuseA' | 'fuseSays'> {
  // A converter at the box takes what is left of the voltage; the box itself then sees its own.
  const lowest = SOURCE_V[feed.volts][0]
  const tried = wiresFor(kind).map(wire => {
    const fed = fedBy(lowest, powerW, { lengthM, mm2: wire.mm2, stranded: true })
    return { wire, fed, fuseA: fed.amps === null ? null : wireFuse(fed.amps, wire) }
  })
  const wire = (feed.wire ? wireById(feed.wire) : null) ?? wireFor(feed.volts, powerW, lengthM, kind)
  const of = tried.find(t => t.wire.id === wire?.id) ?? null
  // The fuse that somebody entered is the fuse of card, list and label.
  return {
    tried,
    wire,
    fed: of?.fed ?? null,
    restV: wire ? fedBy(RESTING_V[feed.volts], powerW, { lengthM, mm2: wire.mm2, stranded: true }).volts : null,
    fuseA: feed.fuseA ?? of?.fuseA ?? null,
    fuseSays: burns(feed, wire) ?? fuseSays(of, feed),
  }
}

/** @returns that a wire burns before its fuse blows, where both are known; null where it does not, or one is not */
function burns(feed: Feed, wire = feed.wire ? (wireById(feed.wire) ?? null) : null): FuseChoice | null {
  if (feed.fuseA === null || !wire || feed.fuseA <= wire.fuseA + 1e-9) return null
  return { refused: `${feed.fuseA} A is more than ${wire.words} bears: it burns before the fuse does; ${wire.fuseA} A at most` }
}

/** A fuse as entered: between its load and its wire, and able to break what the source drives into a short. */
function fuseSays(of: { wire: Wire; fed: Fed } | null, feed: Feed): FuseChoice | null {
  if (feed.fuseA === null) return null
  if (!of || of.fed.amps === null) return { refused: 'no wire carries this load so far' }
  const range = fuseFor(of.fed.amps, [of.wire.fuseA], { faultA: feed.faultA ?? 0, breaksA: feed.breaksA })
  if ('refused' in range) return range
  if (feed.fuseA < range.low - 1e-9) return { refused: `${feed.fuseA} A blows at this load: ${range.amps} A` }
  return { ...range, amps: feed.fuseA }
}
