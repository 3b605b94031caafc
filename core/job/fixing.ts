/**
 * What holds a part and what feeds it, as the document writes it down. Judged in `fitting`; here are the words alone.
 *
 * Units: mm of sections and screws, m of poles, kg, A, W·h.
 */
import * as Type from '@sinclair/typebox'
import type { Static } from '@sinclair/typebox'
import { Num, oneOf, opt, Text, Whole } from './fields'

/** Ways by which cables come in. */
export const ENTRIES = [
  'port',
  'old-cable',
  'window',
  'grommet',
  'vent',
  'garage',
  'fridge-vent',
  'hatch',
  'wall',
  'deck',
  'roof',
  'flue',
] as const
export type Entry = (typeof ENTRIES)[number]

/** What stands behind a hole that is to be made, once somebody has looked. */
export const BEHINDS = ['clear', 'line', 'pipe', 'gas', 'fire wall', 'asbestos', 'deck core'] as const
export type Behind = (typeof BEHINDS)[number]

/** How a mast or an antenna is held. */
export const MOUNTS = [
  'wall bracket',
  'fascia bracket',
  'vent pipe clamp',
  'rafter foot',
  'purlin clamp',
  'side pole',
  'weighted tripod',
  'suction cup',
  'adhesive clamp',
  'magnet',
  'roof bolt',
  'bull bar',
  'wing bracket',
  'ladder clamp',
  'hitch mast',
  'rail clamp',
  'bulkhead',
  'marine thread',
  'spreader',
  'masthead',
] as const
export type Mount = (typeof MOUNTS)[number]

/** What a screw goes into. */
export const SUBSTRATES = ['softwood', 'hardwood', 'brick', 'concrete', 'steel', 'aluminium', 'plastic'] as const
export type Substrate = (typeof SUBSTRATES)[number]

export const GRADE_IDS = ['S235', '6063-T6', '6061-T6', '304'] as const
export const METALS = ['monel', 'copper', 'stainless', 'steel', 'aluminium', 'galvanised'] as const

export const FixingSchema = Type.Object(
  {
    mount: oneOf(...MOUNTS),
    substrate: opt(oneOf(...SUBSTRATES)),
    /** of a pole, from its upper fixing upward, lowest first */
    sections: Type.Array(
      Type.Object({ outsideMm: Num(5, 500), wallMm: Num(0.3, 50), lengthM: Num(0.05, 30) }, { additionalProperties: false }),
      { maxItems: 6 },
    ),
    grade: opt(oneOf(...GRADE_IDS)),
    /** between its two fixings, m */
    apartM: opt(Num(0.05, 10)),
    screw: opt(oneOf('lag', 'wood screw', 'anchor', 'bolt')),
    screwMm: opt(Num(2, 40)),
    /** in what holds */
    threadMm: opt(Num(5, 300)),
    screwsEach: opt(Whole(1, 12)),
    /** of an anchor: the load at which its maker saw it fail, N */
    anchorN: opt(Num(1, 1_000_000)),
    /** of screw or clamp, and of what it is screwed to */
    metal: opt(oneOf(...METALS)),
    plate: opt(oneOf(...METALS)),
    /** something insulating lies between the two */
    parted: Type.Boolean(),
    /** of a foot bolted through: how thick what it goes through is, mm; not there in rows of before */
    throughMm: Type.Optional(opt(Num(0.3, 300))),
    /** of a tripod: from its middle to the edge it would tip over, m, and what weighs it down, kg */
    baseM: opt(Num(0.1, 5)),
    ballastKg: opt(Num(0, 2000)),
  },
  { additionalProperties: false },
)
export type Fixing = Static<typeof FixingSchema>

/** A mount of which nothing else is known. */
export const BARE_FIXING: Omit<Fixing, 'mount'> = {
  substrate: null,
  sections: [],
  grade: null,
  apartM: null,
  screw: null,
  screwMm: null,
  threadMm: null,
  screwsEach: null,
  anchorN: null,
  metal: null,
  plate: null,
  parted: false,
  throughMm: null,
  baseM: null,
  ballastKg: null,
}

export const FEED_THROUGH = ['lead', 'converter', 'inverter'] as const

export const FeedSchema = Type.Object(
  {
    volts: oneOfVolts(),
    through: oneOf(...FEED_THROUGH),
    /** a conductor's name as `WIRES` has it */
    wire: opt(Text(12)),
    fuseA: opt(Num(0.1, 200)),
    /** what the fuse can break, and what the source drives into a short, A */
    breaksA: opt(Num(1, 200_000)),
    faultA: opt(Num(1, 200_000)),
    /** lowest voltage that the box runs on */
    lowestV: opt(Num(1, 60)),
    /** petrol or gas collects where it hangs */
    fumes: Type.Boolean(),
    ignitionProtected: Type.Boolean(),
    /** of a box outdoors: an arrestor stands in its data or DC line where that comes in */
    arrested: Type.Boolean(),
    /** usable, of a battery that bridges a failure, W·h */
    upsWh: opt(Num(1, 100_000)),
    /** of PoE by an injector or a switch */
    poe: opt(oneOf('standard', 'passive')),
    poeV: opt(Num(5, 60)),
  },
  { additionalProperties: false },
)
export type Feed = Static<typeof FeedSchema>

function oneOfVolts() {
  return Type.Unsafe<12 | 24>({ type: 'number', enum: [12, 24] })
}
