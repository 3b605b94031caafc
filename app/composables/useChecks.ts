import type { Check } from '#core/job'
import { presentStop } from '#core/survey'
import { nowUtc } from '~/replica/clock'

type Said = Pick<Check, 'kind' | 'key' | 'done'> & Partial<Pick<Check, 'reason' | 'about' | 'value' | 'by' | 'stopId'>>

/** Rows of the log of checks: by whom, when and where comes by itself. */
export function useChecks() {
  const store = useOpened()
  const session = useSession()
  const note = (said: Said, label: string) =>
    store.commit(
      [
        {
          table: 'checks',
          op: 'insert',
          fields: {
            reason: null,
            about: null,
            value: null,
            by: session.member.name,
            atUtc: nowUtc(),
            stopId: presentStop(store.doc)?.id ?? null,
            ...said,
          },
        },
      ],
      label,
    )
  return { note }
}
