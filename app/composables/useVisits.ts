import { insert, update } from '#core/job'
import type { Edit, Visit } from '#core/job'
import { isOpen } from '#core/card'

/** A morning, and what most visits are. */
export const NEW_VISIT = {
  startsAt: '08:00',
  hours: 4,
  team: null,
  people: 2,
  weather: 'any',
  state: 'planned',
  note: null,
} as const satisfies Partial<Visit>

/** @returns the day of the visit that comes next; null where none is open */
export const nextDay = (visits: readonly Pick<Visit, 'onDay' | 'state'>[], today: string): string | null =>
  visits
    .filter(v => isOpen(v) && v.onDay >= today)
    .map(v => v.onDay)
    .sort()[0] ?? null

export const PAST_DAY = { field: 'onDay', message: 'a day from today on' }

/** Visits of the open job; the day of its next one follows. */
export function useVisits() {
  const store = useJob()
  const today = () => dayOf(new Date())
  const visits = computed(() =>
    [...(store.doc?.visits ?? [])].sort((a, b) => `${a.onDay}${a.startsAt}`.localeCompare(`${b.onDay}${b.startsAt}`)),
  )
  const next = computed(() => visits.value.find(v => isOpen(v) && v.onDay >= today()) ?? null)

  const nextOn = (after: readonly Visit[]) => {
    const day = nextDay(after, today())
    const { id, nextOn: held } = store.job!
    return day === held || day === null
      ? []
      : [{ table: 'jobs' as const, op: 'update' as const, rowId: id, fields: { nextOn: day } }]
  }
  function add(fields: Omit<Visit, 'id' | 'version'>) {
    if (fields.onDay < today()) return Promise.resolve([PAST_DAY])
    const after = [...visits.value, { ...fields, id: '' }]
    return store.commit([{ table: 'visits', op: 'insert', fields }, ...nextOn(after)], 'a visit')
  }
  function change(v: Visit, fields: Partial<Visit>) {
    if (fields.onDay !== undefined && fields.onDay < today()) return Promise.resolve([PAST_DAY])
    const after = visits.value.map(x => (x.id === v.id ? { ...x, ...fields } : x))
    return store.commit([{ table: 'visits', op: 'update', rowId: v.id, fields }, ...nextOn(after)], 'a visit changed')
  }
  /** The day that somebody names: the visit that is planned moves to it, else one is planned; a past day is only noted. */
  function setNext(onDay: string | null) {
    const noted = { table: 'jobs' as const, op: 'update' as const, rowId: store.job!.id, fields: { nextOn: onDay } }
    return store.commit([noted, ...visitOn(onDay)], 'the next visit')
  }
  function visitOn(onDay: string | null): Edit[] {
    if (onDay !== null && onDay < today()) return []
    if (next.value) return [update('visits', next.value.id, onDay === null ? { state: 'called off' } : { onDay })]
    return onDay === null ? [] : [insert('visits', { ...NEW_VISIT, onDay })]
  }
  const remove = (v: Visit) => store.commit([{ table: 'visits', op: 'delete', rowId: v.id }], 'a visit taken away')
  return { visits, next, add, change, setNext, remove }
}
