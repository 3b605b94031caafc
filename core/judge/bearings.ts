/** Bearings judged: which mast, how sure the way to it is, and whether a beam can follow what moves. */
import { bearingHalfWidth } from '../masts/bearings'
import type { MastView } from '../masts/bearings'
import { fixedBeamOver } from '../aim/nose'
import { antennaAt, partById } from '../catalogue/parts'
import { turned } from '../chain/tree'
import type { Turned } from '../chain/tree'
import { angleBetween } from '../geo/angles'
import { isOmni } from '../job/part'
import type { AntennaPart } from '../job/part'
import { degreesForLoss } from '../radio/pattern'
import { DEVICE_GAIN_DBI } from '../survey/devices'
import { moves, positionOf } from '../survey/place'
import { NINE_IN_TEN } from '../survey/stats'
import { num } from '../units'
import type { Context } from './context'
import { COMMON, finding } from './finding'
import type { Draft, Finding } from './finding'
import { words } from '../words'

/** What an outside wall takes where the house was not asked, dB. Assumed. @source common practice (no source) */
const ENTRY_LOSS_DB = 12
/** So far over what a room needs is more than the usual wall and the usual error take. Assumed. */
const STRONG_OVER_NEED_DB = 10

/** Days after which a list of masts is called old. @source common practice (no source) */
const OLD_DAYS = 730

/** A sweep and the map that are further apart than the beam is wide: told at once, with what is likely behind it. */
function sweepApart({ sweep, chosen, tree, main }: Context): Draft | null {
  const result = sweep?.result
  const donor = tree?.donors[0]
  if (!result || result.flat || !chosen || !donor || isOmni(donor.part)) return null
  const { pattern } = turned(donor, main?.carrier.frequencyMHz ?? 800, chosen.frameBearingDeg)
  const offDeg = angleBetween(result.headingDeg, chosen.bearingDeg)
  if (offDeg - result.plusMinusDeg <= pattern.beamwidthDeg / 2) return null
  return {
    code: 'bearings.sweep-differs',
    subjectId: sweep.sweep.id,
    severity: 'fix',
    title: `The sweep and the map are ${num(offDeg)}° apart`,
    sentence:
      `Best was read at ${num(result.headingDeg)}°, ${chosen.mast.name} stands at ${num(chosen.bearingDeg)}°. ` +
      'Likely: a reflection, another mast or sector that answers (compare the cell), a compass beside steel, degrees taken as ' +
      'magnetic for true, or a list that is old. What is read at the place wins over the map.',
    because: `the beam is ${num(pattern.beamwidthDeg)}° wide, the sweep is good to ±${num(result.plusMinusDeg)}°`,
    source: COMMON,
  }
}

export function bearingFindings(c: Context): Finding[] {
  const { doc, job, masts, declination: dec, chosen, atUtc } = c
  const out: Finding[] = []
  const add = (d: Draft) => out.push(finding('bearings', d))
  const mine = masts.filter(m => m.matchesCarrier && m.path)
  const best = mine[0]
  const nearest = mine.reduce<MastView | null>((a, b) => (!a || b.distanceM < a.distanceM ? b : a), null)
  if (best?.best && nearest && nearest !== best) {
    add({
      code: 'bearings.nearest-not-best',
      subjectId: best.mast.id,
      severity: 'note',
      title: 'The nearest mast is not the best',
      sentence: words`${best.mast.name}: ${best.sentence}.`,
      because: 'ranked by what the shared bands can be expected to carry, not by distance',
      source: 'ITU-R P.526-15 §4.5 over the terrain held',
    })
  }
  const apart = sweepApart(c)
  if (apart) add(apart)
  if (mine.length && !mine.some(m => m.usable)) {
    add({
      code: 'bearings.none-reachable',
      subjectId: job.id,
      severity: 'stop',
      title: 'No mast of this carrier reaches the site',
      sentence:
        'The best comes more than 15 dB below what serves in the open: no antenna or booster mends that. ' +
        'Try another carrier’s SIM first.',
      because: 'a booster repeats; it makes nothing',
      source: COMMON,
    })
  }
  const indoors = best?.best
    ? best.best.rsrpDbm - NINE_IN_TEN * best.best.sigmaDb - ENTRY_LOSS_DB + DEVICE_GAIN_DBI.phone
    : -Infinity
  if (indoors >= c.needDbm + STRONG_OVER_NEED_DB) {
    add({
      code: 'bearings.try-indoors',
      subjectId: job.id,
      severity: 'note',
      title: 'It may do without an antenna',
      sentence:
        `${best!.mast.name} on ${best!.best!.band} should come to RSRP ${num(indoors)} dBm or more on a phone indoors. ` +
        `Test it there three times before anything is bought.`,
      because: `lower edge of the prediction, less ${num(ENTRY_LOSS_DB)} dB for a wall (assumed)`,
      source: COMMON,
    })
  }
  const top = masts.filter(m => m.path && m.matchesCarrier && m.rank <= 3)
  const old = top.filter(m => m.mast.seenOn && (Date.parse(atUtc) - Date.parse(m.mast.seenOn)) / 86_400_000 > OLD_DAYS)
  if (old.length) {
    add({
      code: 'bearings.data-old',
      subjectId: job.id,
      severity: 'note',
      title: 'The list of masts is old',
      sentence:
        `${old.map(m => `${m.mast.name} was last seen ${m.mast.seenOn}`).join(', ')}. Bands and carriers change: ` +
        `bring a newer list, or sweep first.`,
      because: 'last seen more than two years ago',
      source: COMMON,
    })
  }
  const patchy = masts.filter(m => m.path && m.path.unknown > 0.02 && m.rank <= 3)
  if (patchy.length) {
    add({
      code: 'bearings.terrain-missing',
      subjectId: job.id,
      severity: 'note',
      title: 'Terrain is missing under the path',
      sentence:
        `${patchy.map(m => `${Math.round(m.path!.unknown * 100)} % of the way to ${m.mast.name}`).join(', ')}: ` +
        `bridged straight. Load the tile to see the ridges.`,
      because: 'unknown ground is taken as a straight line between known heights',
      source: COMMON,
    })
  }
  if (!dec && positionOf(doc)) {
    add({
      code: 'bearings.no-declination',
      subjectId: job.id,
      severity: 'fix',
      title: 'No declination for this date',
      sentence:
        `${atUtc.slice(0, 10)} is outside the magnetic model held: is the device’s date right? Bearings are true ` +
        `only; aim by the sun or a landmark.`,
      because: 'the model says nothing outside its five years',
      source: 'World Magnetic Model 2025',
    })
  }
  if (dec && dec.compass !== 'good') {
    add({
      code: 'bearings.compass',
      subjectId: job.id,
      severity: dec.compass === 'useless' ? 'fix' : 'note',
      title: dec.compass === 'useless' ? 'A compass is useless here' : 'A compass is unsure here',
      sentence: `The horizontal field is ${num(dec.horizontalNt)} nT. Aim by the sun or a landmark.`,
      because: 'below 6,000 nT unsure, below 2,000 nT useless',
      source: 'World Magnetic Model 2025, from memory',
    })
  }
  const donor = donorAt(c)
  if (donor && dec) {
    const width = chosen?.compassDeg ?? bearingHalfWidth(null, dec)
    const tolerance = degreesForLoss(donor.pattern, 1)
    const far = degreesForLoss(donor.pattern, 3)
    if (tolerance !== null && width > tolerance) {
      const beyond = far !== null && width > far
      add({
        code: 'bearings.beam-narrow',
        subjectId: donor.at.node.id,
        severity: beyond ? 'fix' : 'note',
        title: beyond ? 'The bearing is less sure than the beam is wide' : 'The beam is narrower than the compass is sure',
        sentence:
          `${num(tolerance)}° off costs 1 dB${far !== null ? `, ${num(far)}° costs 3 dB` : ''}; this bearing is ` +
          `good to ±${num(width)}°. Fine-tune by reading.`,
        because:
          `hand compass, the model’s own ` +
          `uncertainty${chosen?.positionDeg ? `, and ±${num(chosen.positionDeg)}° since the mast’s place is not surveyed` : ''}`,
        source: 'World Magnetic Model 2025; 3GPP pattern',
      })
    }
  }
  if (moves(doc)) out.push(...movingFindings(c, donor))
  return out
}

/** What a nose or a bow asks: where does it point, how far does it swing, can a fixed beam follow. */
function movingFindings({ job, site, tree, main }: Context, donor: Turned | null): Finding[] {
  const bow = job.kind === 'boat' ? 'bow' : 'nose'
  if (site.headingDeg === null) {
    return [
      finding('bearings', {
        code: 'bearings.heading',
        subjectId: site.id,
        severity: 'note',
        title: `Where does the ${bow} point?`,
        sentence: 'Without its heading a bearing says nothing aboard; true and magnetic still hold.',
        because: `bearing from the ${bow} = true bearing − heading`,
        source: COMMON,
      }),
    ]
  }
  if (!donor || site.swingDeg <= 0 || donor.pattern.beamwidthDeg >= 360) return []
  const v = fixedBeamOver(site.swingDeg, donor.pattern)
  const what = job.kind === 'boat' ? 'swings at anchor' : 'may be parked'
  if (v.serves) {
    return [
      finding('bearings', {
        code: 'bearings.swing',
        subjectId: donor.at.node.id,
        severity: 'good',
        title: 'The beam holds over the swing',
        sentence: `It ${what} ±${num(site.swingDeg)}°: at worst ${num(v.worstDb, 1)} dB off the peak.`,
        because: 'headings spread evenly over the swing (assumed)',
        source: '3GPP pattern',
      }),
    ]
  }
  const omni = partById(donor.at.part.ports.length >= 2 ? 'ant-omni-x' : 'ant-omni') as AntennaPart
  const other = tree!.donors.length > 1 ? ` (${donor.at.name})` : ''
  return [
    finding('bearings', {
      code: 'bearings.swing',
      subjectId: donor.at.node.id,
      severity: 'fix',
      title: `A fixed beam cannot follow the swing${other}`,
      sentence:
        `It ${what} ±${num(site.swingDeg)}°: this beam loses ${num(v.worstDb)} dB at the ends, ${num(v.meanDb, 1)} ` +
        `on average; it serves ±${num(v.withinDeg)}°. An omni, a wide panel, or turning it by hand.`,
      because: 'headings spread evenly over the swing (assumed)',
      source: '3GPP pattern',
      cures: [
        {
          label: 'fit an omni instead',
          gain: 'no aiming',
          cost: `${num(donor.pattern.gainDbi - antennaAt(omni, main!.carrier.frequencyMHz).pattern.gainDbi, 1)} dB less at best`,
          enough: true,
          steps: [
            {
              table: 'nodes',
              op: 'update',
              rowId: donor.at.node.id,
              fields: { partId: omni.id, part: omni, own: null, azimuthDeg: null },
            },
          ],
        },
      ],
    }),
  ]
}

/** The first donor as it is turned; null while none is laid out. */
function donorAt(c: Context): Turned | null {
  const at = c.tree?.donors[0]
  if (!at || !c.main) return null
  return turned(at, c.main.carrier.frequencyMHz, c.chosen?.path ? c.chosen.frameBearingDeg : null)
}
