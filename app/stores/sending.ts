import { nth } from '#core/sure'
import type { SendState } from '../replica/replica'
import { onReplica } from '../replica/browser'

const RETRY_MS = [1000, 2000, 5000, 10_000]
const LOOK_MS = 5000

/** Sending, for the whole browser: every job with unsent work, open or not, and how much waits in each. */
export const useSending = defineStore('sending', () => {
  const session = useSession()
  const state = ref<SendState>('sent')
  /** unsent changes, by job */
  const waiting = shallowRef<ReadonlyMap<string, number>>(new Map())
  const total = computed(() => [...waiting.value.values()].reduce((a, b) => a + b, 0))
  /** the job that a page shows: what others changed of it is asked for while the page is seen */
  const watched = ref<string | null>(null)
  let watcher = 0
  /** @returns what ends it; another that has begun meanwhile goes on */
  function watchJob(jobId: string): () => void {
    const mine = ++watcher
    watched.value = jobId
    return () => {
      if (mine === watcher) watched.value = null
    }
  }
  /** changes of the open job that are shown and not acknowledged, those not written yet with them */
  const ofOpen = ref(0)
  let timer: ReturnType<typeof setTimeout> | null = null
  let failures = 0

  async function count(): Promise<void> {
    const { own } = session
    const counted = (await own?.store.waiting()) ?? new Map<string, number>()
    if (session.own === own) waiting.value = counted
  }

  /** Sends until nothing waits, or until it cannot: then again after a while. */
  async function run(): Promise<void> {
    const own = session.own
    if (!own) return
    const outcome = await own.replica.send().catch((e: unknown) => {
      console.error(e)
      return 'failing' as const
    })
    if (session.own !== own) return
    state.value = outcome
    session.ended = outcome === 'signed-out' || (session.ended && outcome !== 'sent')
    await count()
    failures = outcome === 'sent' ? 0 : failures + 1
    if (outcome === 'sent') return
    if (outcome !== 'signed-out') soon(nth(RETRY_MS, Math.min(failures, RETRY_MS.length) - 1))
  }

  let running = false
  const sendInTurn = inTurn(async () => {
    running = true
    await run().catch(e => console.error(e))
    running = false
  })

  function now(): Promise<void> {
    if (timer) clearTimeout(timer)
    timer = null
    return sendInTurn()
  }

  function soon(ms: number): void {
    if (timer) clearTimeout(timer)
    timer = setTimeout(() => void now(), ms)
  }

  function heard(said: SendState): void {
    state.value = said
    if (said === 'signed-out') session.ended = true
  }

  /** What others changed of the open job since; quiet where there is no connection. */
  async function pull(): Promise<void> {
    const jobId = watched.value
    const { own } = session
    if (!jobId || !own) return
    try {
      await own.replica.pull(jobId)
      if (session.own === own && !waiting.value.get(jobId)) heard('sent')
    } catch (e) {
      if (session.own !== own) return
      if (e instanceof ApiError && e.status === 401) heard('signed-out')
      else if (e instanceof Unreachable) heard('offline')
    }
  }

  onReplica(() => void count())
  watch(
    () => session.own,
    own => {
      state.value = 'sent'
      failures = 0
      if (own) void count().then(() => now())
      else waiting.value = new Map()
    },
    { immediate: true },
  )
  if (import.meta.client) {
    const isSeen = () => document.visibilityState === 'visible'
    for (const [target, what] of [
      [window, 'online'],
      [document, 'visibilitychange'],
    ] as const)
      target.addEventListener(what, () => {
        soon(0)
        if (isSeen()) void pull()
      })
    setInterval(() => {
      if (isSeen() && watched.value && !waiting.value.get(watched.value)) void pull()
      if (total.value && !running && !timer && isSeen() && state.value !== 'signed-out') soon(0)
    }, LOOK_MS)
  }

  return { state, waiting, total, watchJob, ofOpen, count, now, soon, pull, heard }
})
