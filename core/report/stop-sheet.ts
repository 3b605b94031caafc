/** One side of paper for the stop at which a vehicle or boat stands: where it points, what is heard, what comes down, what is next. */
import { TAKES } from '../card/durations'
import { trueToMagnetic } from '../geo/declination'
import { formatPosition } from '../geo/coordinates'
import { gustOf, heightWords, poleOf, standing } from '../install/mounts'
import { struckIn, travelHeightM } from '../install/striking'
import type { Tree } from '../chain/tree'
import { isOmni } from '../job/part'
import { jobOf, siteOf } from '../job/schema'
import type { JobDocument, Stop } from '../job/schema'
import type { Assessment } from '../judge/assess'
import { bearingHalfWidth } from '../masts/bearings'
import { sayRelative } from '../aim/nose'
import { buildingOf } from '../site/building'
import { atPresentStop, presentStop } from '../survey/place'
import { bearing, distance, num } from '../units'
import type { Units } from '../units'
import { say } from '../words'
import type { Report } from './report'

type Ground = Pick<Assessment, 'chosen' | 'declination' | 'tree'>
type Row = [string, string]

/** Likely minutes to put up and aim what stands outside, and to bring down what does not travel. @source as the card's own steps */
export function stopMinutes(tree: Ground['tree'], document: JobDocument): { up: number; down: number } {
  if (!tree) return { up: 0, down: 0 }
  const struck = struckIn(tree, siteOf(document))
  const aim = tree.donors.reduce((s, d) => s + (isOmni(d.part) ? TAKES.tighten : TAKES.aim)[1], 0)
  return { up: aim + struck.length * TAKES.raise[1], down: struck.length * TAKES.struck[1] }
}

const dates = (s: Pick<Stop, 'arriveOn' | 'leaveOn'>): string =>
  [s.arriveOn, s.leaveOn].filter(Boolean).join(' to ') || 'no dates'

/** The stop after this one, by its day; null where none is planned. */
export function nextStop(document: JobDocument): Stop | null {
  const here = presentStop(document)
  const after = here?.arriveOn ?? ''
  const later = document.stops
    .filter(s => s.id !== here?.id && (s.arriveOn ?? '') > after)
    .sort((a, b) => (a.arriveOn ?? '').localeCompare(b.arriveOn ?? ''))
  return later[0] ?? null
}

/** Which way it stands, and how to stand better where the sky or the mast asks for it. */
function pitchRows(document: JobDocument): Row[] {
  const { headingDeg, swingDeg } = siteOf(document)
  const boat = jobOf(document).kind === 'boat'
  if (headingDeg === null) return [[boat ? 'Bow' : 'Nose', 'its heading is not noted']]
  return [
    [
      boat ? 'Bow' : 'Nose',
      `${bearing(headingDeg)} true${swingDeg >= 180 ? ', any way at anchor' : swingDeg ? `, swings ±${num(swingDeg)}°` : ', parked'}`,
    ],
  ]
}

function mastRows(a: Ground, document: JobDocument, units: Units): Row[] {
  const { chosen, declination, tree } = a
  if (!chosen) return [['Mast', 'none chosen in Bearings']]
  const kind = jobOf(document).kind
  const noted = siteOf(document).headingDeg !== null && (kind === 'vehicle' || kind === 'boat')
  const magnetic = declination
    ? `, ${bearing(trueToMagnetic(chosen.bearingDeg, declination.declinationDeg))} by compass ` +
      `±${num(bearingHalfWidth(chosen, declination))}°`
    : ''
  const turned = tree?.donors.some(d => !isOmni(d.part)) ?? true
  return [
    ['Mast', `${chosen.mast.name}, ${chosen.mast.carrier}, ${distance(chosen.distanceM, units)}`],
    ['Bearing', `${bearing(chosen.bearingDeg)} true${magnetic}`],
    ...(noted ? [[kind === 'boat' ? 'From the bow' : 'From the nose', sayRelative(chosen.frameBearingDeg, kind)] as Row] : []),
    ['Aim', turned ? 'turned to it, locked, read again' : 'none: its antenna hears all round'],
    ['On the way', `${say(chosen.sentence, units)}.`],
  ]
}

const UNHELD = 'what holds it is not noted'
/** Of some antenna outside nobody has said what holds it. */
const isUnheld = (tree: Tree): boolean => tree.donors.some(d => !d.node.fixing && !poleOf(tree, d))

/** So many times the strongest gust taken a figure is no longer of use. */
const WELL_OVER = 1.5

/** The gust above which it comes down: the least of all that stands on a pole. */
function windRow({ tree }: Ground, document: JobDocument): Row {
  const gustMs = gustOf(siteOf(document))
  const stands = (tree?.donors ?? []).flatMap(d =>
    d.node.fixing?.sections.length ? [standing(tree!, d, d.node.fixing, gustMs)] : [],
  )
  const limits = stands.flatMap(s => ('refused' in s || s.worst.mostGustMs === null ? [] : [s.worst.mostGustMs]))
  if (limits.length) {
    const mostMs = Math.min(...limits)
    // A figure that no wind reaches helps nobody.
    return mostMs > WELL_OVER * gustMs
      ? ['Wind', `stays up: stands the strongest gust taken, ${num(gustMs)} m/s, and half as much again (calculated, not tested)`]
      : ['Wind', `comes down before gusts of ${num(mostMs)} m/s (calculated, not tested)`]
  }
  if (stands.length) return ['Wind', 'its pole is not noted in full: no figure']
  return ['Wind', tree && isUnheld(tree) ? UNHELD : 'nothing stands on a pole']
}

function heightRows({ tree }: Ground, document: JobDocument, units: Units): Row[] {
  if (jobOf(document).kind !== 'vehicle' || !tree) return []
  const building = buildingOf(document)
  const roofM = building.eavesM + building.riseM
  const site = siteOf(document)
  const struck = struckIn(tree, site)
  return [
    ['Comes down first', struck.length ? struck.map(n => n.name).join(', ') : isUnheld(tree) ? UNHELD : 'nothing'],
    ['Height to drive with', say(heightWords(travelHeightM(tree, site, roofM)), units)],
  ]
}

/** @param prepared  whether the next stop's ground and masts are on this device; null where that is not known */
export function stopSheet(
  document: JobDocument,
  a: Ground,
  { units, crew, prepared }: { units: Units; crew: string; prepared: boolean | null },
): Report {
  const doc = atPresentStop(document)
  const site = siteOf(doc)
  const here = presentStop(document)
  const next = nextStop(document)
  const minutes = stopMinutes(a.tree, doc)
  return {
    title: here?.name ?? 'Its own place',
    subtitle: [
      jobOf(doc).name,
      here ? dates(here) : '',
      site.latDeg !== null && site.lonDeg !== null ? formatPosition({ latDeg: site.latDeg, lonDeg: site.lonDeg }) : '',
    ]
      .filter(Boolean)
      .join(' · '),
    blocks: [
      {
        kind: 'facts',
        title: 'How it stands',
        rows: [...pitchRows(doc), ...(here?.notes ? [['Notes', here.notes] as Row] : [])],
      },
      { kind: 'facts', title: 'Where the signal comes from', rows: mastRows(a, doc, units) },
      {
        kind: 'facts',
        title: 'Up and down',
        rows: [
          windRow(a, doc),
          ...heightRows(a, doc, units),
          ['Minutes', `${num(minutes.up)} to put up and aim, ${num(minutes.down)} to strike`],
        ],
      },
      {
        kind: 'facts',
        title: 'Next',
        rows: next
          ? [
              ['Stop', `${next.name}, ${dates(next)}`],
              ['Position', formatPosition({ latDeg: next.latDeg, lonDeg: next.lonDeg })],
              ...(prepared === null
                ? []
                : [['For no coverage', prepared ? 'ground and masts are on this device' : 'not prepared yet'] as Row]),
            ]
          : [['Stop', 'none planned']],
      },
    ],
    foot: crew,
  }
}
