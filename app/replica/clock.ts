/** The device's clock against the server's: what it is off by is heard with every answer. */
import { CLOCK_TOLERANCE_MS } from './model'

/** An answer that took longer says too little about the moment it was made. */
const LONGEST_MS = 5000

/** what is to be added to this clock to get the server's, ms; null until the server was heard in this visit */
const offsetMs = ref<number | null>(null)

/** @param date  the `Date` header, whole seconds: the answer was made within the second that follows */
export function hearClock(date: string | null, askedAt: number, answeredAt: number): void {
  const told = date ? Date.parse(date) : NaN
  if (Number.isNaN(told) || answeredAt - askedAt > LONGEST_MS) return
  offsetMs.value = told + 500 - (askedAt + answeredAt) / 2
}

const wrong = computed(() => offsetMs.value !== null && Math.abs(offsetMs.value) > CLOCK_TOLERANCE_MS)

/** A clock that is about right is believed to the millisecond; one that is wrong is corrected. */
const now = (): number => Date.now() + (wrong.value ? offsetMs.value! : 0)

export const useClock = () => ({ offsetMs: readonly(offsetMs), wrong, now, nowUtc: () => new Date(now()).toISOString() })

/** The present instant by the server's clock, as far as it is known. */
export const nowUtc = (): string => new Date(now()).toISOString()
