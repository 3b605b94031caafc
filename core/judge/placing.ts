/** Where parts stand, judged: over the roof, away from the donor, in air and out of weather, away from people. */
import { injectorsOf } from '../chain/data'
import { moveSteps } from '../fitting/move'
import { lastOf } from '../sure'
import { movesAbout } from '../job/schema'
import { toAirOf } from '../chain/uplink'
import { keepAwayM } from '../radio/exposure'
import type { ExposureRule, Radiated } from '../radio/exposure'
import { bandByName, dlCentreMHz, ulCentreMHz } from '../radio/bands'
import { wavelengthM } from '../radio/freespace'
import { carriedBy } from '../install/mounts'
import { amplifierOn, isOmni } from '../job/part'
import { facingOf, turned } from '../chain/tree'
import type { AntennaNode } from '../chain/tree'
import { overfedWords } from '../catalogue/radiates'
import { angleBetween } from '../geo/angles'
import { pairOf } from '../separation/loop'
import type { Loop } from '../separation/loop'
import { floorAt, floorWords, inside } from '../site/building'
import { between, eavesM, ridgeM } from '../site/frame'
import { USE_FIGURES } from '../site/use'
import { antennasByRule } from '../fitting/usual-kit'
import { radioHorizonKm } from '../terrain/clearance'
import { onLine } from '../interpolate'
import { num } from '../units'
import { concat, metres, words } from '../words'
import type { Worked } from './context'
import { COMMON } from './finding'
import type { Draft } from './finding'

export function placingDrafts(c: Worked): Draft[] {
  const fed = [...c.tree.donors, ...c.tree.servers].flatMap(overfed)
  return [...fed, ...donors(c), ...servers(c), ...fewAntennas(c), ...boxes(c), ...eachOther(c), ...ladder(c)]
}

const ashore = (c: Worked): boolean => !movesAbout(c.job.kind)

/**
 * The rule of thumb and the sum, each told by what the other leaves out: a room of the sum is one place, and its walls
 * are those that were drawn.
 */
function fewAntennas(c: Worked): Draft[] {
  if (c.job.kind !== 'building' || !c.tree.servers.length) return []
  const rooms = c.main?.rooms ?? []
  return c.building.floors.flatMap((floor): Draft[] => {
    const level = (upM: number) => floorAt(c.building.floors, upM).level === floor.level
    const planned = c.tree.servers.filter(s => level(s.node.upM - 0.01)).length
    const here = rooms.filter(r => level(r.spot.upM))
    const { least, most } = antennasByRule(c.site, floor.use)
    if (planned >= least || (!planned && !here.some(r => r.spot.needed))) return []
    const served = here.filter(r => r.met).length
    const all = here.length > 0 && served === here.length
    const count = planned === 0 ? 'No inside antenna' : planned === 1 ? 'One inside antenna' : `${planned} inside antennas`
    const where = floorWords(floor)
    return [
      {
        code: 'place.antennas-few',
        subjectId: `floor.${floor.level}`,
        severity: all ? 'note' : 'fix',
        title: words`${count} for ${metres(c.site.lengthM)} by ${metres(c.site.depthM)}`,
        sentence:
          `By the rule ${where} takes ${least === most ? least : `${least} to ${most}`}. By the sum ` +
          (here.length ? `${served} of ${here.length} rooms get what they need` : 'no room was noted there') +
          '. The sum knows one place of each room and the walls that are drawn; the rule allows for shelves, people and shut doors. ' +
          (all ? 'Read the far corners before it is left at that.' : 'Add antennas until both agree.'),
        because: `one ceiling antenna serves 110 to 140 m² among ordinary walls, ${USE_FIGURES[floor.use].words} the closer`,
        source: COMMON,
      },
    ]
  })
}

/** An omni hears all round only over the roof. */
function donors(c: Worked): Draft[] {
  const out: Draft[] = []
  for (const donor of c.tree.donors) {
    const { node, part } = donor
    out.push(...besidePole(c, donor))
    if (ashore(c) && part.shape === 'omni' && node.upM < ridgeM(c.site) && node.upM > c.site.storeyHeightM)
      out.push({
        code: 'place.omni-low',
        subjectId: node.id,
        severity: 'note',
        title: 'The omni stands under the roof’s top',
        sentence: concat(
          words`${metres(node.upM)} up, the roof’s top is at ${metres(ridgeM(c.site))}: what lies behind the roof it does not hear. `,
          'Over the ridge it hears all round; a beam may stay on the side of its mast.',
        ),
        because: 'an omni wants to be clear all round',
        source: COMMON,
        cures: [
          {
            label: words`raise it to ${metres(ridgeM(c.site) + OVER_RIDGE_M)}`,
            gain: 'clear all round',
            cost: 'longer cable, more wind',
            enough: true,
            steps: moveSteps(c, [
              {
                table: 'nodes',
                op: 'update',
                rowId: node.id,
                fields: { upM: Math.round((ridgeM(c.site) + OVER_RIDGE_M) * 10) / 10 },
              },
            ]),
          },
        ],
      })
  }
  return out
}

/** An omni's foot over the ridge, m. @source common practice (no source) */
const OVER_RIDGE_M = 0.6
/** A panel that faces the donor within this is turned to it, degrees. Assumed. */
const TOWARD_DEG = 75
/** From the amplifier to an inside antenna where its maker says nothing, m. @source 10 ft, common practice (no source) */
const BOX_M = 3

function servers(c: Worked): Draft[] {
  const tree = c.tree
  const out: Draft[] = []
  for (const s of tree.servers) {
    const donor = nearestDonor(c, s)
    if (donor && s.part.shape === 'panel') {
      const off = angleBetween(facingOf(tree, s), between(s.node, donor.node).bearingDeg)
      if (off < TOWARD_DEG) {
        const away = Math.round(between(donor.node, s.node).bearingDeg) % 360
        out.push({
          code: 'place.panel-toward',
          subjectId: s.node.id,
          severity: 'fix',
          title: 'The panel looks toward the donor',
          sentence: `It faces within ${num(off)}° of the outside antenna: what it sends goes there first. A panel faces into the rooms.`,
          because: 'the gain toward each other counts against isolation',
          source: COMMON,
          cures: [
            {
              label: `turn it to ${away}°, away`,
              gain: 'its back to the donor',
              cost: 'other rooms in front of it',
              enough: true,
              steps: [{ table: 'nodes', op: 'update', rowId: s.node.id, fields: { azimuthDeg: away } }],
            },
          ],
        })
      }
    }
  }
  for (const amp of tree.amplifiers) {
    const wantsM = amp.part.separation?.boxM ?? (amp.part.use === 'mobile' ? 0 : BOX_M)
    for (const s of tree.servers) {
      const { distanceM } = between(amp.node, s.node)
      if (distanceM >= wantsM || distanceM < 0.05) continue
      out.push({
        code: 'place.box-near',
        subjectId: `${amp.node.id}.${s.node.id}`,
        severity: 'note',
        title: words`An inside antenna ${metres(distanceM)} from the amplifier`,
        sentence: concat(
          words`${amp.part.separation?.boxM ? 'Its maker wants' : 'Fitters keep'} ${metres(wantsM)}: `,
          'nearer, the box hears the antenna past its own ports.',
        ),
        because: 'a box is no screen',
        source: amp.part.separation?.boxM ? 'the part’s own figure' : COMMON,
      })
    }
  }
  return out
}

function nearestDonor(c: Worked, s: AntennaNode): AntennaNode | null {
  return c.tree.donors.reduce<AntennaNode | null>(
    (a, b) => (!a || between(b.node, s.node).distanceM < between(a.node, s.node).distanceM ? b : a),
    null,
  )
}

/** An attic under tiles in summer, °C. @source common practice (no source) */
const ATTIC_C = 55
/** Plasterboard alone holds about this, kg. @source common practice (no source) */
const PLASTERBOARD_KG = 3
/** Out of reach begins here, m. @source 8 ft keeps hands off, common practice (no source) */
const OUT_OF_REACH_M = 2.4

function boxes(c: Worked): Draft[] {
  const tree = c.tree
  const out: Draft[] = []
  for (const { node, part, name } of [...tree.amplifiers, ...tree.routers, ...injectorsOf(tree)]) {
    const within = inside(c.building, node)
    if (!within && part.outdoors === false)
      out.push({
        code: 'place.box-outside',
        subjectId: node.id,
        severity: 'fix',
        title: `${name} stands outdoors and is not made for it`,
        sentence: 'Rain and sun end it. Indoors, or a box made for weather with a way for its heat.',
        because: 'the part says indoors',
        source: 'the part’s own figure',
      })
    const attic = ashore(c) && c.site.roofRiseM > 0 && within && node.upM > eavesM(c.site)
    const most = part.temperatureC?.[1]
    if (attic && most !== undefined && most < ATTIC_C)
      out.push({
        code: 'place.hot',
        subjectId: node.id,
        severity: 'fix',
        title: `${name} in the attic, good to ${num(most)} °C`,
        sentence: `Under tiles it is ${ATTIC_C} °C in summer: the amplifier throttles or stops. A cupboard below, with air all round it.`,
        because: 'its own temperature range',
        source: COMMON,
      })
    if (within && (part.massKg ?? 0) > PLASTERBOARD_KG)
      out.push({
        code: 'place.mass',
        subjectId: node.id,
        severity: 'note',
        title: `${num(part.massKg!, 1)} kg on the wall`,
        sentence: `Plasterboard alone holds about ${PLASTERBOARD_KG} kg: into studs, masonry or a board across two studs.`,
        because: 'mass against fixing',
        source: COMMON,
      })
    if (!within && ashore(c) && node.upM < OUT_OF_REACH_M)
      out.push({
        code: 'place.reach',
        subjectId: node.id,
        severity: 'note',
        title: `${name} within reach from the ground`,
        sentence: words`${metres(node.upM)} up: from ${metres(OUT_OF_REACH_M)} hands stay off; else a lidded box with a security screw.`,
        because: 'theft, and hands',
        source: COMMON,
      })
    const apart = 'separation' in part ? part.separation : undefined
    if (apart?.upM !== undefined && apart.alongM !== undefined)
      for (const pair of c.main.loops.find(l => l.at.node.id === node.id)?.pairs ?? [])
        if (pair.upM < apart.upM && pair.alongM < apart.alongM)
          out.push({
            code: 'place.maker-separation',
            subjectId: `${node.id}.${pair.server.node.id}`,
            severity: 'note',
            title: 'Closer than the amplifier’s maker wants',
            sentence: concat(
              words`${metres(pair.upM)} up and ${metres(pair.alongM)} along; `,
              words`wanted are ${metres(apart.upM)} up or ${metres(apart.alongM)} along.`,
            ),
            because: 'the sum above says what it costs; a warranty may say more',
            source: 'the part’s own figure',
          })
  }
  return out
}

/**
 * Lowest gain all round of an omni beside a metal tube of 50 mm, by how many wavelengths off it stands, dBi.
 * @source method of moments at 850 and at 1900 MHz; between them a straight line (assumed)
 */
const BESIDE_TUBE: readonly (readonly [wavelengths: number, at850: number, at1900: number])[] = [
  [0.25, -6, -11.5],
  [0.5, -3.7, -9.1],
  [1, -1.4, -4.1],
]
/** A bracket holds an antenna so far off its pole where the drawing says less, m. Assumed. */
const BRACKET_M = 0.1
/** On the mast's side the pole shades what lies behind it alone, degrees. */
const MAST_SIDE_DEG = 60

/** @returns the lowest gain of an omni so far beside a pole, dBi; null where the pole no longer counts */
export function besideTubeDbi(offM: number, frequencyMHz: number): number | null {
  const off = offM / wavelengthM(frequencyMHz)
  if (off > lastOf(BESIDE_TUBE)[0]) return null
  const points = BESIDE_TUBE.map(([at, at850, at1900]) => {
    const bands = [
      [850, at850],
      [1900, at1900],
    ] as const
    return [at, onLine(bands, frequencyMHz)] as const
  })
  return onLine(points, off)
}

/** More gain entered than the beam can have: every figure that is worked out with it is too good. */
function overfed({ node, part, name }: AntennaNode): Draft[] {
  const words = node.own?.gainDbi == null ? null : overfedWords(part)
  if (!words) return []
  return [
    {
      code: 'place.gain-over',
      subjectId: node.id,
      severity: 'fix',
      title: `${name}: more gain than its beam can have`,
      sentence: `${words}. Look at its sheet again: levels and promise are too good by that.`,
      because: 'the mean over all directions is never above what is fed',
      source: 'law of conservation of energy',
    },
  ]
}

/** An omni that hangs on a pole under its top has a hole behind the pole. */
function besidePole(c: Worked, { node, part }: AntennaNode): Draft[] {
  const tree = c.tree
  if (!isOmni(part) || part.overMetal) return []
  const pole = tree.donors.find(
    d =>
      d.node.id !== node.id &&
      d.node.upM > node.upM &&
      !!d.node.fixing?.sections.length &&
      carriedBy(tree, d, d.node.fixing).some(n => n.node.id === node.id),
  )
  if (!pole) return []
  const { groundM, bearingDeg } = between(pole.node, node)
  const mast = c.main?.round?.bearingDeg ?? null
  if (mast !== null && groundM >= BRACKET_M && angleBetween(bearingDeg, mast) <= MAST_SIDE_DEG) return []
  const mhz = c.main?.carrier.frequencyMHz ?? 850
  const lowest = besideTubeDbi(Math.max(groundM, BRACKET_M), mhz)
  if (lowest === null) return []
  return [
    {
      code: 'place.omni-beside-pole',
      subjectId: node.id,
      severity: 'note',
      title: 'The omni stands beside its pole',
      sentence:
        `The pole goes on past it: in the worst direction ${num(lowest, 1)} dBi are left at ${num(mhz)} MHz. ` +
        'Set it on top of the pole, or on the side of the pole that looks at the mast.',
      because: 'a metal tube so near shades an antenna and throws back what it catches',
      source: 'method of moments, a tube of 50 mm',
    },
  ]
}

/** Two amplifiers that hear each other's inside antennas make one loop through both. */
function eachOther(c: Worked): Draft[] {
  const { round, loops } = c.main
  if (!round || loops.length < 2) return []
  const out: Draft[] = []
  const between_ = (from: Loop, to: Loop): number => {
    const donors = new Map(to.pairs.map(p => [p.donor.node.id, p.donor]))
    const own = new Set(from.pairs.map(p => p.donor.node.id))
    const heard = [...donors.values()]
      .filter(d => !own.has(d.node.id))
      .flatMap(d => from.pairs.flatMap(p => pairOf(d, p.server, round, { linesDb: p.linesDb / 2 }) ?? []))
      .map(p => p.isolationDb + p.linesDb)
    return heard.length ? Math.min(...heard) : Infinity
  }
  loops.forEach((a, i) =>
    loops.slice(i + 1).forEach(b => {
      const roundDb = between_(a, b) + between_(b, a)
      const neededDb = a.gainDb + b.gainDb + Math.max(a.marginDb, b.marginDb)
      if (roundDb >= neededDb) return
      out.push({
        code: 'place.amplifiers-hear',
        subjectId: `${a.at.node.id}.${b.at.node.id}`,
        severity: 'fix',
        title: `${a.at.name} and ${b.at.name} hear each other`,
        sentence:
          `Out of one, in at the other and round again: ${num(roundDb)} dB part them, their gains need ${num(neededDb)}. ` +
          'Donors further apart, each away from the other’s zone, or less gain.',
        because: 'one loop through both: what parts each from the other must be over both gains and a margin',
        source: 'as isolation; ±6 dB each way until measured',
      })
    }),
  )
  return out
}

/** Height over the deck at which a service of a boat stands, and how far it sees. @source 4.12·√h km, four-thirds earth */
const horizonKm = (upM: number): number => radioHorizonKm(Math.max(0, upM), 0)
/** The top of the mast is another service's from here up, as a share. @source VHF and AIS at the mastheads, common practice (no source) */
const MASTHEAD_SHARE = 0.93

/** A mast carries several services: cellular at the spreaders, VHF and AIS at the top. */
function ladder(c: Worked): Draft[] {
  if (c.job.kind !== 'boat') return []
  const topM = ridgeM(c.site)
  return c.tree.donors.map(({ node }): Draft => {
    const high = node.upM > topM * MASTHEAD_SHARE
    return {
      code: high ? 'place.masthead' : 'place.ladder',
      subjectId: node.id,
      severity: high ? 'fix' : 'good',
      title: high
        ? 'The masthead is for VHF and AIS'
        : words`Cellular at ${metres(node.upM)}: its horizon is ${num(horizonKm(node.upM), 1)} km`,
      sentence: concat(
        words`VHF at the top of ${metres(topM)} sees ${num(horizonKm(topM), 1)} km; `,
        'long-range Wi-Fi hangs lowest, cellular at the spreaders, ',
        'AIS and VHF at the mastheads, clear of halyards and lights. Through a splitter either of the last two stands in for the other; ',
        'money goes first on the one that is safety.',
      ),
      because: 'radio horizon 4.12·√h of the antenna alone; the mast ashore adds its own',
      source: 'four-thirds earth; ladder of services common practice (no source)',
    }
  })
}

/** People stay this far from a consumer booster's antennas, m. @source makers' manuals, common practice (no source) */
const CONSUMER_M = 0.2
/** Head of a tall person over the floor, m. */
const HEAD_M = 1.9

/** How near people come to each antenna, against how near they may: everything the amplifier can send in all its bands. */
export function exposureDrafts(c: Worked): Draft[] {
  const tree = c.tree
  const levels = c.main.levels
  if (!levels || !tree.amplifiers.length) return []
  const rule: ExposureRule = c.job.rules === 'US' ? 'FCC OET 65' : 'ICNIRP 2020'
  const out: Draft[] = []
  for (const s of levels.servers) {
    const amp = s.amplifier?.at
    if (!amp) continue
    const sent = amp.part.bands.flatMap((name): Radiated[] => {
      const band = bandByName(name)
      if (!band) return []
      const frequencyMHz = dlCentreMHz(band)
      const gainDbi = turned(s.at, frequencyMHz, null).pattern.gainDbi
      return [{ eirpDbm: amplifierOn(amp.part, name).outputDbm - s.toAmplifierDb + gainDbi, frequencyMHz }]
    })
    const awayM = Math.max(CONSUMER_M, keepAwayM(rule, sent))
    const floor = floorAt(c.building.floors, s.at.node.upM - 0.01)
    const clearM = s.at.node.upM - floor.fromM - HEAD_M
    if (clearM < awayM && s.at.part.shape !== 'panel') out.push(near(s.at, awayM, Math.max(0, clearM), rule))
  }
  for (const u of levels.amplifiers) {
    const toAirDb = toAirOf(levels, u)
    const donor = tree.donors[0]
    if (toAirDb === null || !donor) continue
    const sent = u.at.part.bands.flatMap((name): Radiated[] => {
      const band = bandByName(name)
      return band ? [{ eirpDbm: amplifierOn(u.at.part, name).uplinkOutputDbm + toAirDb, frequencyMHz: ulCentreMHz(band) }] : []
    })
    const awayM = Math.max(CONSUMER_M, keepAwayM(rule, sent))
    out.push({
      code: 'place.exposure',
      subjectId: u.at.node.id,
      severity: 'note',
      title: words`People stay ${metres(awayM)} from the outside antenna`,
      sentence: concat(
        words`In its beam, with every band at full power up; ${metres(CONSUMER_M)} is what is kept in any case. `,
        'Off before working on it.',
      ),
      because: 'S = EIRP/(4πd²), the shares of each band’s limit added',
      source: `${rule}, general public, from memory`,
    })
  }
  return out
}

const near = (at: AntennaNode, awayM: number, clearM: number, rule: ExposureRule): Draft => ({
  code: 'place.exposure-near',
  subjectId: at.node.id,
  severity: 'fix',
  title: words`${at.name}: a head comes within ${metres(clearM)}, people stay ${metres(awayM)} away`,
  sentence: 'Higher, aside of where people walk, or less power. A sign where neither can be.',
  because: 'S = EIRP/(4πd²), every band at its limit',
  source: `${rule}, general public, from memory; 20 cm common practice`,
})
