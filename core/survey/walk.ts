/** The survey walk: where to stand next, and what to try one by one at a place. */
import { BARE_SETUP } from '../job/defaults'
import { STATIONS } from '../job/schema'
import type { JobDocument, SetupRow, Sim, Spot, Station } from '../job/schema'
import { byDwell } from './difference'
import { clockAt, hourClasses, hourClassOf, hourWords } from './hours'
import type { LogIndex } from './spots'

export interface StationState {
  station: Station
  /** where to stand, in words */
  words: string
  /** what it is walked for */
  why: string
  indoors: boolean
  spots: Spot[]
  /** spots of it that were read */
  read: number
}

const WORDS: Record<Station, { words: string; why: string; indoors: boolean }> = {
  device: { words: 'at the device', why: 'what there is today: everything is compared with it', indoors: true },
  corner: { words: 'corners', why: 'where it is wanted and worst', indoors: true },
  window: { words: 'windows', why: 'a modem on the sill may be enough', indoors: true },
  outside: { words: 'outside', why: 'what the walls take, and what an antenna could have', indoors: false },
  high: { words: 'high', why: 'what height brings, before anything is put up there', indoors: false },
  donor: {
    words: 'best place indoors',
    why: 'a booster’s donor or a modem may stand there, with nothing drilled',
    indoors: true,
  },
}

export const stationWords = (s: Station): string => WORDS[s].words

/** @returns the walk's places in their order, with what was read at each before anything was changed */
export function walkOf(doc: JobDocument, log: LogIndex): StationState[] {
  const baselineId = doc.jobs[0]?.baselineSpotId
  const ofSpot = (s: Spot): Station | null => s.station ?? (s.id === baselineId ? 'device' : s.indoors ? null : 'outside')
  const read = new Set([...log.readings, ...log.runs].filter(r => r.phase !== 'after').map(r => r.spotId))
  return STATIONS.map(station => {
    const spots = doc.spots.filter(s => ofSpot(s) === station)
    return { station, ...WORDS[station], spots, read: spots.filter(s => read.has(s.id)).length }
  })
}

/** @returns the first place at which nothing was read; null when the walk is done */
export const nextStation = (walk: readonly StationState[]): StationState | null => walk.find(s => !s.read) ?? null

export type Varied = 'band' | 'SIM' | 'hours' | 'close'

/** One of what is tried one by one. */
export interface Turn {
  key: string
  words: string
  /** what to do by hand before it is read */
  task: string
  /** the set-up differs in this; nothing where it is the hour that differs */
  changed: Partial<SetupRow>
  /** dwells and tests of it here */
  taken: number
  /** of hours: it is that hour now; of two that are close: the test that is next */
  now: boolean
  /** of two that are close: which of them */
  setupId?: string
}

/** What makes two set-ups the same here; a name or what it counts as does not. */
type Same = Exclude<keyof typeof BARE_SETUP, 'name' | 'mark'>
const SAME = (Object.keys(BARE_SETUP) as (keyof typeof BARE_SETUP)[]).filter((k): k is Same => k !== 'name' && k !== 'mark')

interface WalkInput {
  doc: JobDocument
  log: LogIndex
  spotId: string
  /** the set-up that is varied */
  from: Pick<SetupRow, Same>
  atUtc: string
}

/** Bands to be tried: of the masts of the present SIM's carrier, and what was read, lowest number first. */
export function bandsToTry(doc: JobDocument, sim: Sim | null): string[] {
  const carrier = sim?.carrier ?? doc.jobs[0]?.carrier ?? null
  const masts = new Set(doc.masts.filter(m => carrier === null || m.carrier === carrier).map(m => m.id))
  const bands = [
    ...doc.cells.filter(c => masts.has(c.mastId)).map(c => c.band),
    ...doc.readings.flatMap(r => (r.band ? [r.band] : [])),
  ]
  return [...new Set(bands)].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))
}

/** @returns what is tried one by one at a place, with how often each was */
export function oneByOne(vary: Varied, i: WalkInput): Turn[] {
  const { doc, log } = i
  const rows = [...log.readings, ...log.runs].filter(r => r.spotId === i.spotId && r.setup)
  const same = (changed: Partial<SetupRow>) => {
    const wanted = { ...i.from, ...changed }
    return rows.filter(r => SAME.every(k => (r.setup!.row[k] ?? null) === (wanted[k] ?? null)))
  }
  const turn = (key: string, words: string, task: string, changed: Partial<SetupRow>): Turn => ({
    key,
    words,
    task,
    changed,
    taken: dwellsOf(same(changed)),
    now: false,
  })
  if (vary === 'band')
    return bandsToTry(doc, doc.sims.find(s => s.id === i.from.simId) ?? null).map(b =>
      turn(b, b, `Lock the device to ${b}, and wait until it shows it.`, { bandLock: b }),
    )
  if (vary === 'SIM')
    return doc.sims.map(s =>
      turn(s.id, s.name, `Power off, put in ${s.name}, power on, and wait until it is registered.`, {
        simId: s.id,
        bandLock: null,
      }),
    )
  if (vary === 'close') return []
  const clock = clockAt(doc)
  const here = same({})
  const nowClass = hourClassOf(i.atUtc, clock)
  return hourClasses(clock).map(h => ({
    key: h,
    words: hourWords(h, clock),
    task: h === nowClass ? 'It is that hour now: test three times.' : 'Come back then, or ask someone there to test.',
    changed: {},
    taken: dwellsOf(here.filter(r => hourClassOf(r.takenAtUtc, clock) === h)),
    now: h === nowClass,
  }))
}

/** Visits in which rows were taken. */
const dwellsOf = (rows: readonly { takenAtUtc: string }[]): number =>
  byDwell(rows.map(({ takenAtUtc }) => ({ takenAtUtc, value: 0 }))).length
