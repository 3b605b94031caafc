import { cardFrom, linesOf, plannedRows } from '#core/card'
import { atPresentStop } from '#core/survey'

/** what hardens is looked at every few minutes, not with every tick of the clock */
const HARDENS_MS = 5 * 60_000

/** The card of the open job as it stands on the day of the next visit. */
export function useCard(now: Ref<Date>) {
  const store = useOpened()
  const { byKey } = usePrices()
  const { next: visit } = useVisits()
  const onDay = computed(() => visit.value?.onDay ?? dayOf(now.value))
  const { planned, steps: made } = useSteps()
  const rows = computed(() => plannedRows(atPresentStop(planned.value), store.result.tree))
  const lines = computed(() => linesOf(rows.value, store.doc, byKey.value))
  const about = computed(() => new Date(Math.floor(now.value.getTime() / HARDENS_MS) * HARDENS_MS).toISOString())
  const card = computed(() => cardFrom(made.value, store.doc, { lines: lines.value, onDay: onDay.value, atUtc: about.value }))
  const steps = computed(() => card.value.steps)
  return { card, steps, lines, planned, visit }
}
