/** The demo's days on site and deliveries: counted from the day on which it is loaded, so that they are always ahead. */
import type { PickRow } from '../core/install'
import type { Supply, Visit } from '../core/job'

export type DemoVisit = Omit<Visit, 'id' | 'version' | 'onDay'> & { inDays: number }
export type DemoSupply = Omit<Supply, 'id' | 'version' | 'dueOn'> & { dueInDays: number | null }

export interface DemoDays {
  visits: DemoVisit[]
  supplies: DemoSupply[]
}

export const NO_DAYS: DemoDays = { visits: [], supplies: [] }

const visit = (inDays: number, startsAt: string, hours: number, more: Partial<DemoVisit> = {}): DemoVisit => ({
  inDays,
  startsAt,
  hours,
  team: 'Roof team',
  people: 2,
  weather: 'dry',
  state: 'planned',
  note: null,
  ...more,
})

const supply = (key: string, state: Supply['state'], dueInDays: number | null = null): DemoSupply => ({
  key,
  name: null,
  quantity: null,
  state,
  supplier: null,
  dueInDays,
})

/** @param late  key of what comes after the visit; null where nothing does */
function supplies(rows: readonly PickRow[], late: { key: string; inDays: number } | null): DemoSupply[] {
  return rows
    .filter(r => r.group !== 'consumables')
    .map((r, i) => (r.key === late?.key ? supply(r.key, 'ordered', late.inDays) : supply(r.key, i % 3 ? 'packed' : 'here')))
}

const keyOf = (rows: readonly PickRow[], start: string): string => rows.find(r => r.key.startsWith(start))!.key

/** What each job has ahead of it, by name. */
export const DEMO_DAYS: Record<string, (rows: readonly PickRow[]) => DemoDays> = {
  'Net loft': rows => ({
    visits: [visit(1, '08:00', 6, { state: 'confirmed', note: 'key at the smokehouse' })],
    supplies: supplies(rows, null),
  }),
  'Upper croft': () => ({ visits: [visit(5, '09:00', 3, { team: 'Harbour team' })], supplies: [] }),
  'Works van, north round': rows => ({
    visits: [visit(0, '13:00', 3, { team: 'Harbour team', weather: 'any', people: 1 })],
    supplies: [
      supply(keyOf(rows, 'part:'), 'here'),
      supply(keyOf(rows, 'mount:'), 'to get'),
      { ...supply('own:0192f000-0040-7000-8000-00000000ffff', 'to get'), name: 'Spare window seal', quantity: 2 },
    ],
  }),
  // The cable comes the day after they are there: what needs it waits.
  'Ketch at anchor': rows => ({
    visits: [visit(2, '10:00', 6, { team: 'Harbour team', weather: 'dry and calm' })],
    supplies: supplies(rows, { key: keyOf(rows, 'cable:'), inDays: 3 }),
  }),
  'Sail works': rows => ({
    visits: [
      visit(3, '07:30', 8, { state: 'confirmed' }),
      visit(4, '07:30', 8, { state: 'confirmed' }),
      visit(4, '07:30', 5, { team: 'Harbour team', note: 'domes of the upper floor' }),
      visit(16, '09:00', 4, { note: 'proof with both tenants' }),
    ],
    supplies: supplies(rows, null),
  }),
  'Mail van 1': () => ({ visits: [visit(-3, '08:00', 6, { team: 'Yard team', weather: 'any', state: 'done' })], supplies: [] }),
  'Mail van 2': () => ({ visits: [visit(-2, '08:00', 4, { team: 'Yard team', weather: 'any', state: 'done' })], supplies: [] }),
  'Mail van 3': () => ({ visits: [visit(-1, '08:00', 4, { team: 'Yard team', weather: 'any', state: 'done' })], supplies: [] }),
  'Mail van 4': () => ({
    visits: [visit(0, '08:00', 4, { team: 'Yard team', weather: 'any', state: 'confirmed' })],
    supplies: [],
  }),
  'Mail van 5': () => ({
    visits: [visit(1, '08:00', 4, { team: 'Yard team', weather: 'any', state: 'confirmed' })],
    supplies: [],
  }),
  'Mail van 6': () => ({ visits: [visit(1, '13:00', 4, { team: 'Yard team', weather: 'any' })], supplies: [] }),
}
