/** Complete kits for this site: the least work, the best result, the least cost, each worked out before it is proposed. */
import { portsWith } from '../chain/data'
import { isCable, jointM } from '../chain/tree'
import { entryOf, nth, sure } from '../sure'
import { movesAbout } from '../job/schema'
import type { Evidence } from '../masts/bearings'
import { antennaAt, PARTS } from '../catalogue/parts'
import { lineLossDb } from '../chain/line'
import { adapterChain, chainLossDb } from '../fitting/adapters'
import { lineEnd } from '../fitting/mating'
import { boosts } from '../fitting/usual-kit'
import type { PartChoice } from '../fitting/layer'
import type { Kit } from '../fitting/usual-kit'
import { amplifierOn, isCoax } from '../job/part'
import type { AmplifierPart, AntennaPart, Part, Port, RouterPart } from '../job/part'
import type { Design, JobDocument } from '../job/schema'
import { discriminationOf } from '../promise/promise'
import { bandByName, dlCentreMHz } from '../radio/bands'
import { contextOf } from '../judge/context'
import type { Context } from '../judge/context'
import { tried } from './trial'
import { variantOf } from './variants'
import type { Variant } from './variants'

export type Aim = 'least work' | 'best result' | 'least cost'

export interface Proposal {
  aim: Aim
  kit: Kit
  choice: PartChoice
  /** what it is made of, from the mast on */
  made: string[]
  variant: Variant
}

/** One way to make a kit, scored without laying it out. */
interface Candidate {
  kit: Kit
  choice: Required<Pick<PartChoice, 'antenna' | 'line' | 'box'>> & PartChoice
  /** dB brought to the box, gain less line and adapters, and what a beam keeps out */
  netDb: number
  /** price in classes, and steps of work: cables, adapters, poles */
  price: number
  work: number
}

/** A down-lead is about so long while nothing is laid out, m. Assumed. */
const ASSUMED_LEAD_M = 10
/** What the second feed of a two-branch box is worth in the search, dB. Assumed. */
const SECOND_FEED_DB = 4
const FIRST_BAND = 'B20'

/** Of each aim so many are laid out and worked through before one is proposed. */
const TRIED = 2

/**
 * Searches the catalogue for the approach of the design: antenna, line and box that pass the band and join, scored by
 * net gain, price and work; the best few of each aim are laid out and worked through, and the best of them proposed.
 *
 * @param parts  the shipped ones and the crew's own
 */
export function proposeKits(
  document: JobDocument,
  evidence: Evidence,
  atUtc: string,
  { kit, parts = PARTS }: { kit: Kit; parts?: readonly Part[] },
): Proposal[] {
  const c = contextOf(document, evidence, atUtc)
  const { design } = c
  if (!design) return []
  const all = candidates(c, design, kit, parts)
  if (!all.length) return []
  const aims: { aim: Aim; score: (x: Candidate) => number; better: (a: Variant, b: Variant) => boolean }[] = [
    { aim: 'least work', score: x => -x.work * 4 + x.netDb * 0.25 - x.price * 0.2, better: (a, b) => a.hours < b.hours },
    { aim: 'best result', score: x => x.netDb - x.price * 0.05, better: (a, b) => resultOf(a) > resultOf(b) },
    { aim: 'least cost', score: x => -x.price * 3 + x.netDb * 0.3 - x.work * 0.1, better: (a, b) => costOf(a) < costOf(b) },
  ]
  const worked = new Map<Candidate, { v: Variant; choice: PartChoice } | null>()
  const workedOut = (x: Candidate): { v: Variant; choice: PartChoice } | null => {
    if (!worked.has(x)) {
      const { laid, choice } = tried({ document, evidence, atUtc, c }, design, x.kit, x.choice)
      const v = variantOf(laid)
      worked.set(x, v && { v, choice })
    }
    return entryOf(worked, x)
  }
  return aims.flatMap(({ aim, score, better }): Proposal[] => {
    const best = [...all]
      .sort((a, b) => score(b) - score(a))
      .slice(0, TRIED)
      .reduce<{ v: Variant; choice: PartChoice } | null>((held, x) => {
        const here = workedOut(x)
        return here && (!held || better(here.v, held.v)) ? here : held
      }, null)
    if (!best) return []
    return [{ aim, kit, choice: best.choice, made: madeOf(best.choice), variant: best.v }]
  })
}

const resultOf = (v: Variant): number =>
  (v.down?.median ?? 0) + (v.up?.median ?? 0) * 0.5 + (v.worst?.rsrpDbm ?? 0) * 0.01 - v.shortRooms
const costOf = (v: Variant): number => v.cost * 100 + v.parts + v.metres * 0.1

const madeOf = (c: PartChoice): string[] => [c.antenna, c.line, c.pad, c.box, c.inside].flatMap(p => (p ? [p.name] : []))

function candidates(c: Context, design: Design, kit: Kit, parts: readonly Part[]): Candidate[] {
  const band = bandByName(design.band ?? FIRST_BAND) ?? sure(bandByName(FIRST_BAND))
  const frequencyMHz = dlCentreMHz(band)
  const mobile = movesAbout(c.job.kind)
  const american = c.job.rules === 'US'
  // Every band that the mast offers, not the one alone that was read: a mast of several is used with several.
  const offered = [frequencyMHz, ...(c.chosen?.path?.bands ?? []).flatMap(b => bandMHz(b.band))]
  const covers = (a: AntennaPart) => antennaAt(a, frequencyMHz).covered
  const coversMost = (list: AntennaPart[]): AntennaPart[] => {
    const count = (a: AntennaPart) => offered.filter(f => antennaAt(a, f).covered).length
    const most = Math.max(0, ...list.map(count))
    return list.filter(a => count(a) === most)
  }
  const antennas = coversMost(
    parts.filter((p): p is AntennaPart => p.kind === 'antenna' && p.use === 'outside' && covers(p) && suits(p, c.job.kind)),
  )
  const lines = parts.filter(isCoax).filter(p => p.grade === 'outdoor')
  const boxes = parts.filter((p): p is RouterPart | AmplifierPart => {
    if ((p.kind === 'router' || p.kind === 'amplifier') && !isFed(p, mobile)) return false
    if (p.kind === 'router') return !boosts(kit) && p.bands.includes(band.name) && (kit === 'outdoors') === !!p.outdoors
    if (p.kind !== 'amplifier' || !boosts(kit) || !p.bands.includes(band.name)) return false
    const [least, most] = GAINS_DB[c.job.kind]
    if (p.gainDb < least || p.gainDb > most || p.lowestGainDb >= p.gainDb) return false
    return (p.use === 'mobile') === mobile && (!american || p.id.startsWith('amp-na') || !p.id.startsWith('amp-'))
  })
  const leadM = leadOf(c)
  const out: Candidate[] = []
  for (const box of boxes) {
    const entry = sure(box.ports.find(p => p.role === 'cell' || p.role === 'donor'))
    const branches = box.ports.filter(p => p.role === 'cell').length
    const inside = boosts(kit) ? insideFor(parts, entry, frequencyMHz, mobile) : undefined
    for (const line of lines) {
      const atBox = adapterChain(lineEnd(line), entry)
      if (!atBox) continue
      const lossDb = lineLossDb(line.constants, leadM, frequencyMHz) + chainLossDb(atBox)
      for (const antenna of antennas) {
        const feed = nth(antenna.ports, 0)
        if (weighsOn(box, antenna)) continue
        const atAntenna = adapterChain(lineEnd(line), feed)
        if (!atAntenna) continue
        // A box for one chain leaves the second feed idle; a single antenna on two branches is laid out twice.
        const own = portsWith(antenna, 'feed').length
        if (boosts(kit) && own > 1) continue
        const feeds = boosts(kit) ? 1 : Math.min(branches, Math.max(2, own))
        const copies = !boosts(kit) && own === 1 ? feeds : 1
        const reaches = (antenna.tailM ?? 0) >= leadM
        const { pattern } = antennaAt(antenna, frequencyMHz)
        const adapters = reaches ? atBox.length : atBox.length + atAntenna.length
        out.push({
          kit,
          choice: { antenna, line, box, ...(inside ? { inside } : {}) },
          netDb:
            pattern.gainDbi -
            (reaches ? 2 : lossDb + chainLossDb(atAntenna)) +
            discriminationOf(pattern.beamwidthDeg).mean +
            (feeds > 1 ? SECOND_FEED_DB : 0) +
            (box.kind === 'amplifier' ? amplifierOn(box, band.name).gainDb - 60 : 0),
          price:
            copies * (antenna.priceClass ?? 2) +
            (line.priceClass ?? 2) * feeds * 0.6 +
            (box.priceClass ?? 2) * (box.kind === 'amplifier' ? 3 : 2) +
            adapters * feeds * 0.2,
          work: copies + feeds * (reaches ? 0 : 1) + adapters * feeds * 0.2 + line.diameterMm / 20,
        })
      }
    }
  }
  return out
}

const bandMHz = (name: string): number[] => {
  const band = bandByName(name)
  return band ? [dlCentreMHz(band)] : []
}

/** Aboard a box runs on the battery, ashore on a socket or over its data cable. */
const isFed = (p: RouterPart | AmplifierPart, mobile: boolean): boolean =>
  p.supply === undefined || p.supply === 'USB' || (p.supply === '12 V') === mobile

/** A stick in a socket, with a port that bears no weight, is joined to nothing heavy. @source common practice (no source) */
const LIGHT_KG = 0.6
const weighsOn = (box: Part, antenna: AntennaPart): boolean =>
  /plugs into/.test(box.mount ?? '') && (antenna.massKg ?? 0) > LIGHT_KG

/**
 * Gain of what is sold for each kind of site, dB; one that does not watch its own loop is not proposed.
 * @source common practice (no source)
 */
const GAINS_DB: Record<Context['job']['kind'], readonly [least: number, most: number]> = {
  home: [50, 68],
  building: [60, 90],
  vehicle: [40, 55],
  boat: [40, 65],
}

/** What an antenna is fixed by decides where it goes. */
function suits(a: AntennaPart, kind: Context['job']['kind']): boolean {
  const m = a.mount ?? ''
  const marine = m.includes('thread')
  const roofBolt = m.startsWith('bolt') || m.startsWith('magnet')
  if (kind === 'boat') return marine || (a.shape === 'omni' && !roofBolt)
  if (kind === 'vehicle') return roofBolt
  return !marine && !roofBolt && !m.includes('suction')
}

function insideFor(parts: readonly Part[], like: Port, frequencyMHz: number, mobile: boolean): AntennaPart | undefined {
  const shape = mobile ? 'panel' : 'dome'
  const inside = parts.filter(
    (p): p is AntennaPart =>
      p.kind === 'antenna' &&
      p.use === 'inside' &&
      p.shape === shape &&
      p.ports.length === 1 &&
      antennaAt(p, frequencyMHz).covered,
  )
  // The port that the box has: an adapter less at each antenna.
  return inside.find(p => nth(p.ports, 0).connector === like.connector) ?? inside[0]
}

/** About how long the down-lead is: of the cables laid out, else assumed. */
function leadOf(c: Context): number {
  const leads = c.tree?.joints.filter(j => isCable(j) && j.from.at.part.kind === 'antenna').map(jointM) ?? []
  return leads.length ? Math.max(...leads) : ASSUMED_LEAD_M
}
