/** What holds an antenna: kinds of mounts, where each may be; wind on the pole; screws and metals. */
import { lastOf, nth, sure } from '../sure'
import type { AntennaNode, Tree, TreeNode } from '../chain/tree'
import { pairsOf } from '../fitting/pair'
import type { Fixing, Mount, Substrate } from '../job/fixing'
import type { JobKind, Site } from '../job/schema'
import { between } from '../site/frame'
import { capital } from '../units'
import { metres, words } from '../words'
import { couple, forceCoefficient, poleInWind, sectionModulusM3, GRADES, withdrawalN, anchorN } from './pole'
import type { Words } from '../words'
import type { Couple, PoleResult, Sail } from './pole'

export interface MountKind {
  id: Mount
  kinds: readonly JobKind[]
  /** it stands on a pole that bends */
  pole: boolean
  /** it comes off without a trace */
  reversible: boolean
  takes: string
  never: string
  /** in the order in which it is put together, washers as they lie */
  how: string
  tools: string
}

const ASHORE: readonly JobKind[] = ['home', 'building']
const kind = (
  id: Mount,
  kinds: readonly JobKind[],
  [pole, reversible]: readonly [boolean, boolean],
  [takes, never, how, tools]: readonly [string, string, string, string],
): MountKind => ({ id, kinds, pole, reversible, takes, never, how, tools })

/** @source common practice (no source); a maker's instructions for the actual mount win */
export const MOUNT_KINDS: readonly MountKind[] = [
  kind(
    'wall bracket',
    ASHORE,
    [true, false],
    [
      'a pole beside a wall, two brackets as far apart as the wall allows',
      'hollow or crumbling brick, a joint of mortar, within 100 mm of an edge',
      'Template, level, drill, blow out, anchor, washer, nut; pole in finger-tight, plumb, then turned tight with the lock nut.',
      'hammer drill, level, torque wrench',
    ],
  ),
  kind(
    'fascia bracket',
    ASHORE,
    [true, false],
    [
      'a small antenna on a short arm',
      'plastic fascia boards with no timber behind them',
      'Pre-drill into the rafter’s end behind the board; flat washer, spring washer, screw; sealant on the thread.',
      'drill, socket set',
    ],
  ),
  kind(
    'vent pipe clamp',
    ASHORE,
    [false, true],
    [
      'a light antenna on a plumbing vent of cast iron or steel',
      'a flue, a plastic pipe, a pipe whose flashing moves',
      'Two clamps, rubber under each, snug: a vent is no mast.',
      'two spanners',
    ],
  ),
  kind(
    'rafter foot',
    ASHORE,
    [true, false],
    [
      'a pole through or on the roof',
      'sheathing alone, or a tile as washer',
      'Find the rafter, pre-drill, sealant, lag screw with washer; flashing over the upper edge; packing makes it plumb.',
      'detector, drill, lag wrench',
    ],
  ),
  kind(
    'purlin clamp',
    ['building'],
    [true, true],
    [
      'a pole on a steel purlin without a hole',
      'a purlin of cold-formed sheet under 2 mm, or one that carries a crane',
      'Clamp, packing that sets the angle, locking nut; its steel is one of the building’s earths: ask.',
      'torque wrench',
    ],
  ),
  kind(
    'side pole',
    ASHORE,
    [true, false],
    [
      'a pole on two brackets off a gable or a chimney that is sound',
      'a chimney in use (heat, soot), one that rocks by hand',
      'Upper bracket first, pole in it, lower bracket to the plumb pole.',
      'hammer drill, level',
    ],
  ),
  kind(
    'weighted tripod',
    ASHORE,
    [true, true],
    [
      'a pole on a flat roof that may not be drilled',
      'a slope over 5°, a membrane without a mat, where the wind has nothing before it',
      'Mat, frame, slabs, pole; the roof’s owner says what it bears.',
      'spanners, mat',
    ],
  ),
  kind(
    'suction cup',
    ['vehicle'],
    [true, true],
    [
      'a small antenna on glass or smooth paint, standing still',
      'driving, ever; frost, dust or matt paint',
      'Clean, wet, press; a line to something fixed.',
      'cloth',
    ],
  ),
  kind(
    'adhesive clamp',
    ['vehicle', 'boat', 'home'],
    [true, true],
    [
      'a light pole on a smooth side',
      'below 10 °C, on wax, on paint that is loose',
      'Clean, dry, degrease, press 30 s, load after a day; the upper clamp slides.',
      'cleaner, cloth',
    ],
  ),
  kind(
    'magnet',
    ['vehicle'],
    [false, true],
    [
      'a whip on sheet steel, or on a steel plate stuck to anything else',
      'aluminium or plastic without a plate; near a compass',
      'Clean both faces; a lead with a slack loop.',
      'none',
    ],
  ),
  kind(
    'roof bolt',
    ['vehicle'],
    [false, false],
    [
      'an antenna with a threaded foot through the skin',
      'over a rib, a loom, an airbag or the tank of a pop-up roof',
      'Template and level; pilot from the cramped side, saw from outside, deburr, prime. Dry fit, arrow forward, outline; ' +
        'clean, dry, peel, press. Clamp cut to the roof’s thickness, toothed washer, nut, retaining screw.',
      'template, pilot drill, hole saw, deburrer, primer',
    ],
  ),
  kind(
    'bull bar',
    ['vehicle'],
    [false, true],
    [
      'a whip on a bracket at the front',
      'in the driver’s view, before lamps or a radiator',
      'Bracket, star washer to bare metal, nut, lock nut.',
      'spanners',
    ],
  ),
  kind(
    'wing bracket',
    ['vehicle'],
    [false, true],
    [
      'a whip in the gap beside the bonnet, on the bolts that are there',
      'where the bonnet or a door closes on it or on its lead',
      'Bracket under a factory bolt, star washer to bare metal; the lead past the hinge with a slack loop, bonnet closed on it slowly.',
      'spanners',
    ],
  ),
  kind(
    'ladder clamp',
    ['vehicle'],
    [true, true],
    [
      'a pole on the rear ladder, on two rungs',
      'driving with the pole up; a ladder that is loose in its feet',
      'Two clamps, rubber under each, lower one first; the pole strikes and stows before driving.',
      'two spanners',
    ],
  ),
  kind(
    'hitch mast',
    ['vehicle'],
    [true, true],
    [
      'a pole in the receiver of the hitch, while it stands',
      'driving with the pole up; without a stay above the height of the roof',
      'Pin and clip in the receiver, pole plumb, a stay to the body; the pole strikes and stows before driving.',
      'pin, level',
    ],
  ),
  kind(
    'rail clamp',
    ['vehicle', 'boat'],
    [false, true],
    [
      'a light antenna on a roof rail or a guard rail',
      'a rail that people hold on to, or that a sheet or a load strap sweeps',
      'Two-part clamp for the tube, rubber in it, lock nut; the lead tied along the rail.',
      'spanners',
    ],
  ),
  kind(
    'bulkhead',
    ['boat', 'vehicle'],
    [true, false],
    [
      'a short pole on a cabin side',
      'a cored side without a filled core or backing plate',
      'Over-drill, fill, drill; sealant under the flange; backing plate, washer, lock nut.',
      'drill, epoxy, sealant',
    ],
  ),
  kind(
    'marine thread',
    ['boat'],
    [false, true],
    [
      'an antenna with a 1 in 14 TPI foot on a rail or deck socket',
      'a thread cut for another pitch: 1¼ in takes an adapter',
      'By hand to its stop, then a quarter turn; thread sealed against water, not against coming off.',
      'strap wrench',
    ],
  ),
  kind(
    'spreader',
    ['boat'],
    [false, false],
    [
      'a light antenna out of the shadow of the mast',
      'where a sail or a halyard sweeps',
      'Riveted plate with a pad between the metals; lead along the spreader into the mast.',
      'rivet gun, pad',
    ],
  ),
  kind(
    'masthead',
    ['boat'],
    [false, false],
    [
      'a whip beside lamp, wind vane and radio antenna, half a metre from each',
      'within the sweep of the vane, under the lamp’s lens',
      'Plate with a pad between the metals, lock nuts, lead tied so that its weight is off the plug.',
      'bosun’s chair, lock nuts',
    ],
  ),
]
/** A thing of a mount, by the key that the list knows it by, and how many. */
export type Wanted = readonly [key: string, name: string, quantity: number]
const PARTING: Wanted = ['use:parting', 'Pad that parts two metals', 1]
/**
 * What a mount is bought as, where that is not its own name: a bar, a spreader and a masthead are there already.
 * @source common practice (no source)
 */
const BOUGHT: Partial<Record<Mount, readonly Wanted[]>> = {
  'bull bar': [
    ['mount:bar bracket', 'Bracket for a whip on a bar', 1],
    ['use:star-washers', 'Star washer and lock nut', 1],
  ],
  'spreader': [
    ['mount:spreader plate', 'Plate for a spreader', 1],
    ['use:rivets', 'Rivets, monel', 4],
    PARTING,
    ['use:sleeve', 'Sleeve where a lead goes into a spar', 1],
  ],
  'masthead': [['mount:masthead plate', 'Plate for a masthead', 1], ['use:lock-nuts', 'Lock nuts, stainless', 4], PARTING],
  'marine thread': [['mount:marine thread', 'Rail or deck socket with a 1 in 14 TPI thread', 1]],
  // Its foot comes with the antenna.
  'roof bolt': [['use:primer', 'Primer for a bare edge', 1]],
  'wing bracket': [
    ['mount:wing bracket', 'Bracket for the gap beside a bonnet', 1],
    ['use:star-washers', 'Star washer and lock nut', 1],
  ],
  'ladder clamp': [['mount:ladder clamp', 'Pole clamps for ladder rungs', 2]],
  'hitch mast': [
    ['mount:hitch mast', 'Pole foot for a hitch receiver, with pin', 1],
    ['mount:stay', 'Stay with two clamps', 1],
  ],
  'rail clamp': [['mount:rail clamp', 'Clamp for a rail', 1]],
  'bulkhead': [
    ['mount:bulkhead', 'Bulkhead bracket', 1],
    ['use:backing', 'Backing plate', 1],
  ],
}
/** @returns what is bought for a mount, a pad once where two metals are parted */
export function boughtFor({ mount, parted }: Pick<Fixing, 'mount' | 'parted'>): readonly Wanted[] {
  const bought = BOUGHT[mount] ?? [[`mount:${mount}`, capital(mount), 1] as const]
  return parted && !bought.includes(PARTING) ? [...bought, PARTING] : bought
}

/** What is fixed where the mount itself is there already. */
const FIXED_ON: Partial<Record<Mount, string>> = {
  'spreader': 'plate on the spreader',
  'masthead': 'plate at the masthead',
  'bull bar': 'bracket on the bull bar',
  'roof bolt': 'foot through the roof',
}
export const fixedWords = (id: Mount): string => FIXED_ON[id] ?? id

/** Held by clamping, weight, air or glue: no screw to judge. */
const SCREWLESS: ReadonlySet<Mount> = new Set([
  'vent pipe clamp',
  'purlin clamp',
  'weighted tripod',
  'suction cup',
  'adhesive clamp',
  'magnet',
  'marine thread',
  'wing bracket',
  'ladder clamp',
  'hitch mast',
  'rail clamp',
])
export const isScrewed = (id: Mount): boolean => !SCREWLESS.has(id)
export const mountKind = (id: Mount): MountKind => sure(MOUNT_KINDS.find(m => m.id === id))
export const mountsFor = (site: JobKind): readonly MountKind[] => MOUNT_KINDS.filter(m => m.kinds.includes(site))

/** An overhead line is at least the assembled length and this away, m. @source common practice to 50 kV: 10 ft */
export const LINE_CLEAR_M = 3

/** Gust that a pole is to stand where nobody has said. Assumed; local maps and codes decide. */
export const USUAL_GUST_MS = 40
/** @returns the gust a site's poles are to stand, m/s */
export const gustOf = (site: Pick<Site, 'gustMs'>): number => site.gustMs ?? USUAL_GUST_MS

/** Parts so near beside a pole hang on it, m. */
const ON_POLE_M = 0.5

/** Everything that a pole carries: its own antenna and whatever else hangs on it above the upper fixing. */
export function carriedBy(tree: Tree, at: TreeNode, f: Fixing): TreeNode[] {
  const overM = f.sections.reduce((s, x) => s + x.lengthM, 0)
  const foot = at.node.upM - overM
  return tree.nodes.filter(
    n =>
      (n.part.kind === 'antenna' || n.part.sizeMm || n.part.windM2) &&
      between(at.node, n.node).groundM <= ON_POLE_M &&
      n.node.upM > foot &&
      n.node.upM <= at.node.upM + ON_POLE_M,
  )
}

/**
 * A part as the wind sees it from its worst side.
 * @returns null where its maker gives neither area nor size
 */
export function sailOf(n: TreeNode, atM: number): Sail | null {
  const { part } = n
  const across = part.sizeMm
    ? [Math.max(nth(part.sizeMm, 0), nth(part.sizeMm, 2)), nth(part.sizeMm, 1)].map(mm => mm / 1000)
    : null
  const areaM2 = part.windM2 ?? (across ? nth(across, 0) * nth(across, 1) : null)
  if (areaM2 === null) return null
  const round = part.kind === 'antenna' && (part.shape === 'omni' || part.shape === 'whip')
  // An area that a maker gives is what the wind takes hold of.
  const aspect = across ? Math.max(...across) / Math.max(0.01, Math.min(...across)) : 1
  const coefficient = part.windM2 !== undefined ? 1.2 : forceCoefficient(round ? 'round' : 'flat', aspect)
  return { words: n.name, areaM2, coefficient, atM }
}

export interface Section extends PoleResult {
  outsideMm: number
  wallMm: number
  lengthM: number
}

export type Stand =
  | { refused: string }
  | {
      gustMs: number
      /** each section, lowest first: what its lower end bears */
      sections: Section[]
      /** of all sections the one nearest to its limit */
      worst: Section
      /** lean of the tip, degrees, and what that costs the beam, dB; null where the grade is unknown */
      tipDeg: number | null
      costsDb: number | null
      /** the gust with the topmost section left in, m/s; null with one section or an unknown grade */
      shorterGustMs: number | null
      /** what a tripod must weigh so that it stands, kg; null for any other mount */
      ballastKg: number | null
    }

/** Overturning is held by half as much again. @source common practice (no source) */
const OVER = 1.5
const GRAVITY = 9.81

/** Beam of what does not say its own, degrees. Assumed. */
const WIDE_DEG = 60

/** How a pole stands in the wind. @returns what is refused, with who decides, beyond the model */
export function standing(tree: Tree, at: TreeNode, f: Fixing, gustMs: number): Stand {
  if (!f.sections.length) return { refused: 'the pole’s sections are not noted' }
  if (f.apartM === null) return { refused: 'how far its two fixings are apart is not noted' }
  const overM = f.sections.reduce((s, x) => s + x.lengthM, 0)
  const foot = at.node.upM - overM
  const carried = carriedBy(tree, at, f)
  const sails = carried.map(n => sailOf(n, Math.min(overM + 0.4, Math.max(0, n.node.upM - foot))))
  const unknown = carried.find((_, i) => sails[i] === null)
  if (unknown) return { refused: `neither the area nor the size of ${unknown.name} is known: no verdict` }
  try {
    const sections = sectionsInWind(f, sails as Sail[], gustMs)
    const worst = sections.reduce((a, b) => ((b.used ?? b.stressMPa) > (a.used ?? a.stressMPa) ? b : a))
    const tipDeg = leanDeg(f, sails as Sail[], gustMs)
    const short = { ...f, sections: f.sections.slice(0, -1) }
    const lastM = lastOf(f.sections).lengthM
    const shorter = short.sections.length
      ? sectionsInWind(
          short,
          (sails as Sail[]).map(s => ({ ...s, atM: Math.max(0, s.atM - lastM) })),
          gustMs,
        )
      : null
    const least = (list: readonly Section[]) =>
      list.some(s => s.mostGustMs === null) ? null : Math.min(...list.map(s => s.mostGustMs!))
    const beam = (at.part.kind === 'antenna' ? at.part.ranges[0]?.verticalBeamwidthDeg : null) ?? WIDE_DEG
    const foundM = f.sections.length ? nth(sections, 0) : null
    return {
      gustMs,
      sections,
      worst,
      tipDeg,
      // Loss of a parabola about the peak: 12·(θ/width)² dB. @source 3GPP TR 36.814 table A.2.1.1-2
      costsDb: tipDeg === null ? null : 12 * (tipDeg / beam) ** 2,
      shorterGustMs: shorter ? least(shorter) : null,
      ballastKg: f.mount === 'weighted tripod' && f.baseM ? (OVER * foundM!.momentNm) / (f.baseM * GRAVITY) : null,
    }
  } catch (e) {
    return { refused: (e as Error).message }
  }
}

/** Each section with everything above its lower end. */
function sectionsInWind(f: Fixing, sails: readonly Sail[], gustMs: number): Section[] {
  let belowM = 0
  return f.sections.map(section => {
    const aboveM = f.sections.reduce((s, x) => s + x.lengthM, 0) - belowM
    const over = sails.filter(s => s.atM >= belowM - 1e-9).map(s => ({ ...s, atM: s.atM - belowM }))
    const result = poleInWind(
      { outsideMm: section.outsideMm, wallMm: section.wallMm, lengthM: aboveM, fixingsM: f.apartM!, grade: f.grade },
      over,
      gustMs,
    )
    belowM += section.lengthM
    return { ...section, ...result }
  })
}

/** The tip's lean: what bends each section, by the moment at its middle, added up. */
function leanDeg(f: Fixing, sails: readonly Sail[], gustMs: number): number | null {
  if (!f.grade) return null
  if (f.sections.length === 1) return nth(sectionsInWind(f, sails, gustMs), 0).tipDeg
  const modulusPa = GRADES[f.grade].modulusGPa * 1e9
  let belowM = 0
  let slope = 0
  for (const s of f.sections) {
    const middle = belowM + s.lengthM / 2
    const aboveM = f.sections.reduce((sum, x) => sum + x.lengthM, 0) - middle
    const over = sails.filter(x => x.atM >= middle).map(x => ({ ...x, atM: x.atM - middle }))
    const { momentNm } = poleInWind(
      { outsideMm: s.outsideMm, wallMm: s.wallMm, lengthM: aboveM, fixingsM: f.apartM!, grade: f.grade },
      over,
      gustMs,
    )
    const inertia = (sectionModulusM3(s.outsideMm, s.wallMm) * s.outsideMm) / 2000
    slope += (momentNm * s.lengthM) / (modulusPa * inertia)
    belowM += s.lengthM
  }
  return (Math.atan(slope) * 180) / Math.PI
}

/** Oven-dry specific gravity of what a screw holds in. @source NDS table 12.3.3A: spruce and pine 0.42, oak 0.67 */
const GRAVITY_OF: Partial<Record<Substrate, number>> = { softwood: 0.42, hardwood: 0.67 }

export type Hold = { refused: string } | { holdsN: number; pullsN: number; used: number }

/** Whether the screws of the worse fixing hold. @param pullsN  what the wind takes at it, N */
export function screwsHold(f: Fixing, pullsN: number): Hold {
  if (!f.screw || !f.screwsEach) return { refused: 'not noted' }
  if (f.screw === 'anchor') {
    const each = anchorN(f.anchorN)
    if (each === null) return { refused: 'the load at which the anchor’s maker saw it fail is not known: no verdict' }
    return held(each * f.screwsEach, pullsN)
  }
  if (f.screw === 'bolt')
    return { refused: 'a bolt through with washer and plate holds as what it goes through does: look at that' }
  const gravity = f.substrate ? GRAVITY_OF[f.substrate] : undefined
  if (gravity === undefined)
    return { refused: `a ${f.screw} holds in timber: what it goes into is ${f.substrate ?? 'not noted'}` }
  if (f.screwMm === null || f.threadMm === null) return { refused: 'size and thread of the screws are not noted' }
  return held(withdrawalN(f.screw, gravity, f.screwMm, f.threadMm) * f.screwsEach, pullsN)
}
const held = (holdsN: number, pullsN: number): Hold => ({ holdsN, pullsN, used: pullsN / holdsN })

/** The two metals of a fixing, by the air it stands in; null where one is not known, or they are parted. */
export function metalsOf(f: Fixing, site: JobKind): Couple | null {
  if (!f.metal || !f.plate || f.parted) return null
  // The screw is the small one.
  return couple(f.metal, f.plate, site === 'boat' ? 'harsh' : 'normal', { smallIs: f.metal })
}

/** How high a vehicle stands with everything on it, m: the top of what stands highest; whips and omnis stand up from their foot. */
export function heightAfterM(tree: Pick<Tree, 'nodes'>, overGroundM: number): number {
  return tree.nodes.reduce((top, n) => {
    // Sizes are width, height, depth.
    const tall = (n.part.sizeMm?.[1] ?? (n.part.kind === 'antenna' ? n.part.sizeM * 1000 : 0)) / 1000
    const stands = n.part.kind === 'antenna' && (n.part.shape === 'whip' || n.part.shape === 'omni')
    return Math.max(top, n.node.upM + (stands ? tall : tall / 2))
  }, overGroundM)
}

/** Tyres, load and the drawing: a height by the plan is good to this, m. Assumed. */
const HEIGHT_PLUS_MINUS_M = 0.05

/** A height as a driver reads it: rounded up to the next tenth, with how sure it is until it was measured. */
export const heightWords = (topM: number): Words =>
  words`${metres(Math.ceil(topM * 10 - 1e-6) / 10)} by the plan, rounded up, ± ${metres(HEIGHT_PLUS_MINUS_M)}: measure it`

/** A crossbar carries a second antenna so far beside its pole at most, m. @source common practice (no source) */
const CROSSBAR_M = 1

/**
 * Two beams of a pair hang on one pole, one over the other or on a crossbar.
 * @returns whose pole carries an antenna of which nothing of its own is noted; null where none does
 */
export function poleOf(tree: Tree, at: TreeNode): AntennaNode | null {
  if (at.node.fixing || at.part.kind !== 'antenna') return null
  const pair = pairsOf(tree).find(p => p.some(n => n.node.id === at.node.id))
  const other = pair?.find(n => n.node.id !== at.node.id)
  const fixing = other?.node.fixing
  return other && fixing && mountKind(fixing.mount).pole && between(other.node, at.node).groundM <= CROSSBAR_M ? other : null
}
