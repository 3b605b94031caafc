/** Days on site: what speaks against one, alone and beside the others of the crew. */
import { entryOf } from '../sure'
import type { Visit } from '../job/schema'
import { num } from '../units'
import { clockWords } from '../geo/daylight'

/** A visit as the board shows it, with whose it is. */
export interface BoardVisit extends Omit<Visit, 'version'> {
  jobId: string
  jobName: string
  version: number
  /** the last day on which something ordered for the job comes; null where nothing is on its way */
  dueOn: string | null
}

/** @returns `Mon 30 Nov` */
export const dayShort = (day: string): string =>
  new Date(`${day}T12:00:00Z`)
    .toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' })
    .replace(',', '')

export interface Clash {
  visitId: string
  words: string
  /** it cannot be: not merely unwise */
  stop: boolean
}

/** Minutes after midnight by the clock of the site. */
export const startOf = ({ startsAt }: Pick<Visit, 'startsAt'>): number =>
  Number(startsAt.slice(0, 2)) * 60 + Number(startsAt.slice(3, 5))
export const endOf = (v: Pick<Visit, 'startsAt' | 'hours'>): number => startOf(v) + v.hours * 60
const meet = (a: Pick<Visit, 'startsAt' | 'hours'>, b: Pick<Visit, 'startsAt' | 'hours'>): boolean =>
  startOf(a) < endOf(b) && startOf(b) < endOf(a)
export const isOpen = (v: Pick<Visit, 'state'>): boolean => v.state === 'planned' || v.state === 'confirmed'
/** @returns `08:00 to 12:30` */
export const hoursWords = (v: Pick<Visit, 'startsAt' | 'hours'>): string => `${v.startsAt} to ${clockWords(endOf(v))}`

/** @returns what speaks against the open visits of a crew, those of one day and team beside each other */
export function clashesOf(visits: readonly BoardVisit[], today: string): Clash[] {
  const open = visits.filter(isOpen)
  const byDay = new Map<string, BoardVisit[]>()
  for (const v of open) {
    const held = byDay.get(v.onDay)
    if (held) held.push(v)
    else byDay.set(v.onDay, [v])
  }
  return open.flatMap(v => [...alone(v, today), ...beside(v, entryOf(byDay, v.onDay))])
}

function alone(v: BoardVisit, today: string): Clash[] {
  const out: Clash[] = []
  if (v.onDay < today) out.push({ visitId: v.id, words: 'its day is past: done, or another day', stop: true })
  if (endOf(v) > 24 * 60) out.push({ visitId: v.id, words: 'it ends after midnight', stop: true })
  if (v.dueOn && v.dueOn > v.onDay) out.push({ visitId: v.id, words: `parts come ${dayShort(v.dueOn)}, after it`, stop: false })
  return out
}

function beside(v: BoardVisit, sameDay: readonly BoardVisit[]): Clash[] {
  return sameDay.flatMap((o): Clash[] => {
    if (o.id === v.id || !meet(v, o)) return []
    if (v.team !== null && o.team === v.team)
      return [{ visitId: v.id, words: `${v.team} is at ${o.jobName} then, ${hoursWords(o)}`, stop: true }]
    if (o.jobId === v.jobId)
      return [{ visitId: v.id, words: `${o.team ?? 'somebody'} is there then too: two crews on one ladder`, stop: true }]
    return []
  })
}

export interface DayFacts {
  /** work that is left, hours */
  hoursLeft: number
  /** steps that need it dry */
  dry: number
  /** minutes after midnight at which it is dark; null where it does not get dark */
  darkMin: number | null
  /** steps up there after dark */
  dark: number
  late: readonly { name: string; dueOn: string | null }[]
}

/** @returns what this job's own card says of a visit */
export function againstCard(v: Visit, f: DayFacts): string[] {
  const out: string[] = []
  const crewHours = v.hours * Math.min(v.people, 2)
  if (f.hoursLeft > crewHours + 0.25) out.push(`${num(f.hoursLeft, 1)} h of work are left, the visit holds ${num(crewHours, 1)}`)
  if (f.dry && v.weather === 'any') out.push(`${f.dry === 1 ? 'one step needs' : `${f.dry} steps need`} it dry`)
  if (f.dark && f.darkMin !== null)
    out.push(`dark at ${clockWords(f.darkMin)}: ${f.dark === 1 ? 'one step' : `${f.dark} steps`} up there after it`)
  for (const l of f.late) out.push(`${l.name}: ${l.dueOn ? `comes ${dayShort(l.dueOn)}` : 'ordered, no day known'}`)
  return out
}

export interface MessageInput {
  visit: Visit
  customer: string | null
  crew: string
  /** rooms that are to be got at */
  rooms: readonly string[]
  drills: boolean
  /** day in the reader's words */
  day: string
}

/** A message to the customer, to be sent by whatever they use: plain words, nothing of the trade. */
export function messageFor({ visit, customer, crew, rooms, drills, day }: MessageInput): string {
  const who = visit.people === 1 ? 'One of us' : `${visit.people} of us`
  const lines = [
    `Hello${customer ? ` ${customer}` : ''},`,
    `${who} from ${crew} will come on ${day}, ${hoursWords(visit)}${visit.state === 'planned' ? ', if that suits you' : ''}.`,
    rooms.length ? `Please let us get at: ${rooms.join(', ')}.` : '',
    drills ? 'We will drill; nothing is drilled before you have said yes to the very place.' : '',
    visit.weather === 'any' ? '' : `We need it ${visit.weather}; in other weather we will ring you the evening before.`,
    'The mobile signal may be gone for some minutes while we work.',
  ]
  return lines.filter(Boolean).join('\n')
}
