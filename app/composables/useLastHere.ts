import { standing } from '#core/job'
import type { Reading, SpeedRun } from '#core/job'
import type { Name } from './useReadingEntry'

const OF_READING: Partial<Record<Name, keyof Reading>> = { rsrp: 'rsrpDbm', sinr: 'sinrDb', rsrq: 'rsrqDb' }
const OF_SPEED: Partial<Record<Name, keyof SpeedRun>> = { down: 'downMbps', up: 'upMbps', ping: 'pingMs' }
/** So many are shown beside what is typed. */
const SHOWN = 3

/** What was read last at a spot, by the field that it is typed in. */
export function useLastHere(spotId: () => string) {
  const store = useOpened()
  const newest = <T extends { spotId: string; takenAtUtc: string }>(rows: readonly T[]): T[] =>
    rows.filter(r => r.spotId === spotId()).sort((a, b) => b.takenAtUtc.localeCompare(a.takenAtUtc))
  const readings = computed(() => newest(standing(store.doc.readings)))
  const runs = computed(() => newest(standing(store.doc.speedRuns)))
  /** @returns the last few of a quantity, newest first */
  function figures(name: Name): number[] {
    const [r, s] = [OF_READING[name], OF_SPEED[name]]
    const all = r ? readings.value.map(x => x[r]) : s ? runs.value.map(x => x[s]) : []
    return all.filter((v): v is number => typeof v === 'number').slice(0, SHOWN)
  }
  /** @returns `last 14`; nothing where none was read */
  const last = (name: Name): string => {
    const [v] = figures(name)
    return v === undefined ? '' : `last ${String(v).replace('-', '−')}`
  }
  return { figures, last }
}
