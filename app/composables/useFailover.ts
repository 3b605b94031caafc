import { update } from '#core/job'
import type { Connection, Failover } from '#core/job'
import { isUnderWay, waitsFor } from '#core/prove'
import { nowUtc } from '~/replica/clock'
import { watchServer } from '~/instruments/watch'
import type { LinkWatch } from '~/instruments/watch'

/**
 * The failover test under way: its instants are rows, so that a reload or a dead phone loses none; what answers is heard by
 * asking our own server over the link, and can be said by a press where nothing can be heard.
 */
export function useFailover() {
  const store = useOpened()
  const now = ref(nowUtc())
  useIntervalFn(() => (now.value = nowUtc()), 500)
  const under = computed(() => store.doc.failovers.find(t => isUnderWay(t, now.value)) ?? null)
  let stop: AbortController | null = null
  let watched: LinkWatch | null = null

  const note = (row: Failover, fields: Partial<Failover>) => store.commit([update('failovers', row.id, fields)], 'failover test')
  async function heard(watch: LinkWatch) {
    const row = under.value
    if (!row) return
    const waits = waitsFor(row)
    const at = (fromUtc: string, s: number) => new Date(Date.parse(fromUtc) + s * 1000).toISOString()
    if (waits === 'answer' && watch.drill.switchS !== null)
      await note(row, {
        answeredAtUtc: at(row.pulledAtUtc, watch.drill.switchS),
        address: watch.addressChanged === null ? null : watch.addressChanged ? 'changed' : 'same',
      })
    else if (waits === 'way back' && row.backInAtUtc && watch.drill.backS !== null)
      await note(row, { backAtUtc: at(row.backInAtUtc, watch.drill.backS) })
  }
  function listen() {
    if (stop) return
    stop = new AbortController()
    const watch = watchServer(() => void heard(watch), 500)
    watched = watch
    void watch.run(stop.signal)
  }
  function hush() {
    stop?.abort()
    stop = watched = null
  }
  onMounted(() => {
    const row = under.value
    if (!row) return
    listen()
    watched?.resume(Date.parse(row.pulledAtUtc), row.backInAtUtc ? Date.parse(row.backInAtUtc) : null)
  })
  onBeforeUnmount(hush)
  watch(under, row => !row && hush())

  async function pull(connection: Connection, how: Failover['how']) {
    if (under.value) return
    watched?.pull()
    const others = store.doc.connections
      .filter(c => c.id !== connection.id && c.use !== 'by hand')
      .sort((a, b) => a.rank - b.rank)
    await store.commit(
      [
        {
          table: 'failovers',
          op: 'insert',
          fields: {
            connectionId: connection.id,
            how,
            pulledAtUtc: nowUtc(),
            answeredAtUtc: null,
            otherId: others[0]?.id ?? null,
            backInAtUtc: null,
            backAtUtc: null,
            broke: null,
            address: null,
            withdrawn: false,
          },
        },
      ],
      'failover test',
    )
  }
  const press = async (fields: Partial<Failover>) => {
    if (under.value) await note(under.value, fields)
  }
  const answered = () => press({ answeredAtUtc: nowUtc() })
  async function putBack() {
    watched?.putBack()
    await press({ backInAtUtc: nowUtc() })
  }
  const isBack = () => press({ backAtUtc: nowUtc() })
  const drop = () => press({ withdrawn: true })
  return { now, under, listen, hush, pull, answered, putBack, isBack, drop }
}
