import { v7 as uuidv7 } from 'uuid'
import type { Assessment } from '#core/judge/assess'
import { applyChanges, fieldsOf, invertChanges, takenBack } from '#core/job/changes'
import { changesOf } from '#core/fitting/splice'
import { editsOf } from '#core/job/edits'
import type { Edit } from '#core/job/edits'
import type { Cure } from '#core/judge/finding'
import { atPresentStop } from '#core/survey/place'
import { logIndex } from '#core/survey/spots'
import { APPEND_ONLY, PLACED_TABLES } from '#core/job/schema'
import type { Change, JobDocument, TableName } from '#core/job/schema'
import { withNear } from '../../shared/api'
import type { JobSnapshot, NearMasts } from '../../shared/api'
import { onReplica } from '../replica/browser'
import { nowUtc } from '../replica/clock'
import { shown } from '../replica/model'
import type { Aside, Base, Conflict } from '../replica/model'
import type { SendState } from '../replica/replica'

export type { Edit }

interface UndoEntry {
  label: string
  changes: Change[]
}

/** Plain data, free of the page's proxies, as the replica and the worker take it. */
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** Tables whose rows decide which paths are to be computed. */
const PLACE_TABLES: ReadonlySet<TableName> = new Set(['sites', 'stops', 'obstacles', 'fixtures', 'masts', 'cells', 'jobs'])

/** Where the masts near a stop are kept on this device; of the job's own place where there is none. */
export const nearKey = (jobId: string, stopId: string | null): string => `near:${jobId}:${stopId ?? 'home'}`

const SEND_AFTER_MS = 400

/** The job that is open: what is shown of it, and what the engine says. Sending is the replica's. */
export const useJob = defineStore('job', () => {
  const session = useSession()
  const sending = useSending()
  const { engine, proxy } = useEngine()
  const id = ref<string | null>(null)
  /** every row of the job, with the masts lent to it */
  const whole = shallowRef<JobDocument | null>(null)
  /** a variant that is looked at on this screen; the plan of the crew stays what it is. null: the plan */
  const looked = ref<string | null>(null)
  /** what is shown: the job as if the variant looked at were its plan */
  const doc = computed<JobDocument | null>(() => {
    const d = whole.value
    if (!d?.jobs.length || !d.designs.some(x => x.id === looked.value)) return d
    return { ...d, jobs: [{ ...d.jobs[0]!, designId: looked.value }] }
  })
  const planId = computed(() => whole.value?.jobs[0]?.designId ?? whole.value?.designs[0]?.id ?? null)
  /** set-ups that were chosen in Survey and in Prove: they stay chosen until a person takes another */
  const chosenSetups = reactive<{ survey: string | null; prove: string | null }>({ survey: null, prove: null })
  const result = shallowRef<Assessment | null>(null)
  const state = ref<'idle' | 'loading' | 'missing' | 'offline-unknown'>('idle')
  const conflicts = shallowRef<Conflict[]>([])
  const asides = shallowRef<Aside[]>([])
  const pathProgress = ref<{ done: number; of: number } | null>(null)
  const engineError = ref<string | null>(null)
  const undoStack = shallowReactive<UndoEntry[]>([])
  const redoStack = shallowReactive<UndoEntry[]>([])
  let base: Base | null = null
  let near: { masts: NearMasts; stopId: string | null } | null = null
  /** changes shown and not yet written on the device: a moment, but one in which the page may be asked again */
  const unwritten = shallowRef<readonly Change[]>([])
  /** changes that could not be written: they go with the next */
  const unkept = shallowRef<readonly Change[]>([])
  const waiting = shallowRef<ReadonlySet<string>>(new Set())
  /** changes that the server has and this device had no room for: shown until the base holds them */
  const sentAhead = shallowRef<readonly { sequence: number; changes: Change[] }[]>([])
  /** that this device has no room left; it stands until something was kept again */
  const keepError = ref<string | null>(null)
  let computing = false
  let again = false
  const pathsRunning = ref(false)
  let pathsAgain = false

  const job = computed(() => doc.value?.jobs[0] ?? null)
  /** the document standing at the present stop, as the engine sees it */
  const here = computed(() => (doc.value ? atPresentStop(doc.value) : null))
  /** what was read, tested and watched at the present stop: one index for all that show it */
  const log = computed(() => (here.value ? logIndex(here.value) : null))
  const site = computed(() => here.value?.sites[0] ?? null)
  const design = computed(() => doc.value?.designs.find(d => d.id === job.value?.designId) ?? doc.value?.designs[0] ?? null)
  /** changes of this job that the server has not acknowledged */
  const unsent = computed(() => waiting.value.size)
  /** what becomes of the job's changes: nothing is told as waiting before it lies on the device */
  const link = computed<SendState | 'sending' | 'keeping' | 'unkept'>(() => {
    if (unkept.value.length) return 'unkept'
    if (unwritten.value.length) return 'keeping'
    return unsent.value && sending.state === 'sent' ? 'sending' : sending.state
  })
  if (import.meta.client)
    window.addEventListener('beforeunload', e => {
      if (unwritten.value.length) e.preventDefault()
    })

  /** Nothing is open, and nothing is left of what was. */
  function close(): void {
    id.value = null
    whole.value = null
    looked.value = null
    result.value = null
    base = null
    near = null
    unwritten.value = unkept.value = []
    sentAhead.value = []
    keepError.value = null
    waiting.value = new Set()
    asides.value = []
    conflicts.value = []
    engineError.value = null
    pathProgress.value = null
    pathsRunning.value = computing = again = pathsAgain = false
    chosenSetups.survey = chosenSetups.prove = null
    undoStack.length = 0
    redoStack.length = 0
    state.value = 'idle'
  }
  ofMember(close)

  /** Shows a variant without making it the plan; the plan again with null. */
  function lookAt(designId: string | null): void {
    const next = designId === planId.value ? null : designId
    if (next === looked.value) return
    looked.value = next
    compute()
    void computePaths()
  }

  /** Opens a job: at once from this device where it is kept, then from the server. */
  async function open(jobId: string): Promise<void> {
    if (id.value === jobId && doc.value) {
      await pull()
      return
    }
    close()
    id.value = jobId
    state.value = 'loading'
    await Promise.all([loadValidators(), refresh()])
    if (doc.value) state.value = 'idle'
    await send()
    await fetchWhole()
  }

  /** changes of this tab since the last look at the device began */
  let taken: Change[] = []
  /** Shows what the device holds: the base, and what waits applied to it. */
  const refresh = inTurn(readDevice)

  async function readDevice(): Promise<void> {
    const jobId = id.value
    const own = session.own
    if (!jobId || !own) return
    // What is taken, and even written, between this look and the end of it is in neither the look nor what is unwritten then.
    const before = unwritten.value
    taken = []
    const held = await own.replica.read(jobId, base)
    if (id.value !== jobId || session.own !== own) return
    const rows = shown(held.base, held.pending)
    const stopId = rows.jobs[0]?.stopId ?? null
    const lent = near?.stopId === stopId ? near.masts : ((await own.store.kept<NearMasts>(nearKey(jobId, stopId))) ?? null)
    if (id.value !== jobId || session.own !== own) return
    const moved = near !== null && near.stopId !== stopId
    base = held.base
    near = lent && { masts: lent, stopId }
    const known = new Set(held.pending.map(p => p.change.id))
    const open = [...new Set([...before, ...taken, ...unwritten.value])].filter(c => !known.has(c.id))
    waiting.value = new Set([...known, ...open.map(c => c.id)])
    asides.value = held.asides
    conflicts.value = held.conflicts
    sentAhead.value = sentAhead.value.filter(a => a.sequence > (held.base?.sequence ?? 0))
    const next = applyChanges(rows, [...sentAhead.value.flatMap(a => a.changes), ...open])
    if (next.jobs.length) show(next)
    if (moved) void mastsOfStop()
  }

  /** Reads the job from the server; what is not sent stays on top of it. */
  async function fetchWhole(): Promise<void> {
    const jobId = id.value
    const own = session.own
    if (!jobId || !own) return
    try {
      const snapshot = await api<JobSnapshot>(`/api/jobs/${jobId}`)
      if (session.own !== own) return
      await own.store.keep(nearKey(jobId, snapshot.document.jobs[0]?.stopId ?? null), snapshot.near)
      await own.replica.readWhole(jobId, false, snapshot)
      if (id.value !== jobId || session.own !== own) return
      const stopId = snapshot.document.jobs[0]?.stopId ?? null
      if (!doc.value || stopId === (job.value?.stopId ?? null)) near = { masts: snapshot.near, stopId }
      await refresh()
      state.value = 'idle'
    } catch (e) {
      if (id.value !== jobId || session.own !== own) return
      if (e instanceof ApiError && e.status === 404 && !doc.value) state.value = 'missing'
      else if (e instanceof ApiError && e.status === 404 && base)
        engineError.value = 'This job was taken out of the crew’s list. What you see is the last copy on this device.'
      else if (e instanceof ApiError && e.status === 401) sending.heard('signed-out')
      else if (!doc.value) state.value = 'offline-unknown'
      if (e instanceof Unreachable) sending.heard('offline')
    }
  }

  function show(own: JobDocument): void {
    whole.value = withNear(own, near?.masts ?? null)
    compute()
    void computePaths()
  }

  // What this tab has written itself is shown already.
  onReplica((jobId, what, from) => {
    if (jobId === id.value && (what === 'moved' || from === 'elsewhere')) void refresh()
  })

  /** One assessment at a time; edits made meanwhile are gathered into the next. */
  function compute(): void {
    if (!doc.value || !doc.value.jobs.length) return
    if (computing) {
      again = true
      return
    }
    computing = true
    const jobId = id.value
    const { own } = session
    const isHere = () => id.value === jobId && session.own === own
    engine
      .assess(toRaw(doc.value), nowUtc())
      .then(
        r => {
          if (!isHere()) return
          result.value = r
          engineError.value = null
        },
        (e: unknown) => {
          if (isHere()) engineError.value = messageOf(e)
        },
      )
      .finally(() => {
        if (session.own !== own) return
        computing = false
        if (again) {
          again = false
          compute()
        }
      })
  }

  async function computePaths(): Promise<void> {
    if (!doc.value) return
    if (pathsRunning.value) {
      pathsAgain = true
      return
    }
    pathsRunning.value = true
    const { own } = session
    try {
      const n = await engine.ensurePaths(
        toRaw(doc.value),
        proxy((done: number, of: number) => {
          if (session.own !== own) return
          pathProgress.value = { done, of }
          compute()
        }),
      )
      if (session.own !== own) return
      pathProgress.value = null
      if (n) compute()
    } finally {
      if (session.own === own) pathsRunning.value = false
      if (session.own === own && pathsAgain) {
        pathsAgain = false
        void computePaths()
      }
    }
  }

  const versionOf = (table: TableName, rowId: string): number => {
    const row = (doc.value?.[table] as { id: string; version?: number }[] | undefined)?.find(r => r.id === rowId)
    return row?.version ?? 0
  }

  /**
   * Takes edits: checked, shown, kept in the outbox, then sent.
   * @returns errors beside their fields; none where it was taken
   */
  async function commit(
    edits: Edit[],
    label: string,
    o: { undoable?: boolean } = {},
  ): Promise<{ field: string; message: string }[]> {
    if (!doc.value || !session.own || !id.value) return [{ field: '', message: 'no job is open' }]
    if (!session.mayEdit) return [{ field: '', message: 'a viewer cannot change the job' }]
    const changes: Change[] = edits.map(e => {
      const rowId = e.rowId ?? uuidv7()
      return {
        id: uuidv7(),
        table: e.table,
        rowId,
        op: e.op,
        baseVersion: versionOf(e.table, rowId),
        fields: plain({
          ...(e.op === 'insert' && PLACED_TABLES.has(e.table) ? { stopId: doc.value!.jobs[0]!.stopId } : {}),
          ...e.fields,
        }),
      }
    })
    const errors = changes.flatMap(c => changeErrors(c))
    if (errors.length) return errors
    if (o.undoable !== false) {
      undoStack.push({ label, changes: invertChanges(whole.value!, changes, uuidv7) })
      redoStack.length = 0
    }
    await take(changes)
    return []
  }

  /** Shows changes and writes them on the device; sending follows. */
  async function take(changes: Change[]): Promise<void> {
    const jobId = id.value!
    const own = session.own!
    whole.value = applyChanges(whole.value!, changes)
    // Another plan is taken, by whoever: it is what is shown.
    if (changes.some(c => c.table === 'jobs' && c.op === 'update' && 'designId' in c.fields)) looked.value = null
    unwritten.value = [...unwritten.value, ...changes]
    taken.push(...changes)
    waiting.value = new Set([...waiting.value, ...changes.map(c => c.id)])
    compute()
    if (changes.some(c => PLACE_TABLES.has(c.table))) void computePaths()
    const writing = [...unkept.value, ...changes]
    unkept.value = []
    try {
      await own.replica.edit(jobId, writing)
      keepError.value = null
    } catch {
      await unkeptChanges(own, jobId, writing)
      return
    }
    const written = new Set(writing.map(c => c.id))
    unwritten.value = unwritten.value.filter(c => !written.has(c.id))
    sending.soon(SEND_AFTER_MS)
    if (changes.some(c => c.table === 'jobs' && c.op === 'update' && 'stopId' in c.fields)) void mastsOfStop()
  }

  /** No room on this device: with a connection they go to the server at once, without one they are said not to be kept. */
  async function unkeptChanges(own: NonNullable<typeof session.own>, jobId: string, writing: Change[]): Promise<void> {
    const sequence = await own.replica.sendUnkept(jobId, writing)
    if (session.own !== own || id.value !== jobId) return
    const gone = new Set(writing.map(c => c.id))
    unwritten.value = unwritten.value.filter(c => !gone.has(c.id))
    if (sequence !== null) {
      sentAhead.value = [...sentAhead.value, { sequence, changes: writing }]
      waiting.value = new Set([...waiting.value].filter(c => !gone.has(c)))
      keepError.value = 'This device has no room left: what you change is sent at once, and not kept here. Make room.'
      return
    }
    unwritten.value = [...unwritten.value, ...writing]
    unkept.value = [...writing, ...unkept.value]
    keepError.value =
      'This device has no room left: the last change is shown, but not kept. Make room, then change anything once more.'
  }

  /** The crew's masts near the stop that was moved to: as prepared on this device at once, then from the server. */
  async function mastsOfStop(): Promise<void> {
    const jobId = id.value
    const stopId = doc.value?.jobs[0]?.stopId ?? null
    const own = session.own
    if (!jobId || !own) return
    const prepared = await own.store.kept<NearMasts>(nearKey(jobId, stopId))
    if (id.value !== jobId || session.own !== own) return
    if (prepared) lend(prepared)
    try {
      await send()
      if (!stopId) return await fetchWhole()
      if (doc.value?.jobs[0]?.stopId !== stopId) return
      const fresh = await api<NearMasts>(`/api/jobs/${jobId}/near?stop=${stopId}`)
      await own.store.keep(nearKey(jobId, stopId), fresh)
      lend(fresh)
    } catch (e) {
      if (!prepared && !(e instanceof Unreachable)) engineError.value = `The masts near this stop did not come: ${messageOf(e)}`
      if (!prepared) lend({ masts: [], cells: [] })
    }
  }

  function lend(masts: NearMasts): void {
    if (!doc.value) return
    const lent = new Set(near?.masts.masts.map(m => m.id))
    near = { masts, stopId: doc.value.jobs[0]?.stopId ?? null }
    show({
      ...whole.value!,
      masts: whole.value!.masts.filter(m => !lent.has(m.id)),
      cells: whole.value!.cells.filter(c => !lent.has(c.mastId)),
    })
  }

  function forLog(c: Change): Change {
    if (c.op !== 'delete' || !APPEND_ONLY.has(c.table)) return c
    const fields = takenBack(doc.value![c.table] as Parameters<typeof takenBack>[0], c.rowId)
    return fields ? { ...c, op: 'insert', rowId: uuidv7(), baseVersion: 0, fields: fieldsOf({ id: c.rowId, ...fields }) } : c
  }

  async function step(from: UndoEntry[], to: UndoEntry[]): Promise<string | null> {
    const entry = from.pop()
    if (!entry || !doc.value) return null
    const changes = entry.changes.map(c =>
      forLog({ ...c, id: uuidv7(), baseVersion: versionOf(c.table, c.rowId) || (base?.sequence ?? 0) }),
    )
    to.push({ label: entry.label, changes: invertChanges(whole.value!, changes, uuidv7) })
    await take(changes)
    return entry.label
  }

  const undo = (): Promise<string | null> => step(undoStack, redoStack)
  const redo = (): Promise<string | null> => step(redoStack, undoStack)

  /** A cure's steps as one batch; ids that it names for itself are made here. */
  async function cure(c: Cure): Promise<{ field: string; message: string }[]> {
    return commit(editsOf(changesOf(c.steps, uuidv7)), c.label)
  }

  /** Sends what waits, of this job and every other. */
  const send = (): Promise<void> => sending.now()

  /** What others changed since; quiet where there is no connection. */
  async function pull(): Promise<void> {
    const jobId = id.value
    const own = session.own
    if (!jobId || !own || !doc.value) return
    try {
      await own.replica.pull(jobId)
      if (!unsent.value) sending.heard('sent')
    } catch (e) {
      if (e instanceof ApiError && e.status === 401) sending.heard('signed-out')
      else if (e instanceof Unreachable) sending.heard('offline')
    }
  }

  const settle = async (c: Conflict, choice: 'mine' | 'theirs'): Promise<void> => {
    await session.own?.replica.settle(c, choice)
    sending.soon(0)
  }

  /**
   * A refused change is taken up again, mended where fields are given.
   * @returns errors beside their fields; none where it was taken up
   */
  async function takeUp(a: Aside, fields: Record<string, unknown> = {}): Promise<{ field: string; message: string }[]> {
    const errors = changeErrors({ ...a.change, fields: { ...a.change.fields, ...fields } })
    if (errors.length) return errors
    await session.own?.replica.takeUp(a, fields)
    sending.soon(0)
    return []
  }

  const letGo = async (a: Aside): Promise<void> => session.own?.replica.letGo(a)

  /** counts how often the ground changed: pictures of it are drawn again */
  const terrainVersion = ref(0)
  async function terrainChanged(keys: string[]): Promise<void> {
    await engine.forgetTerrain(keys)
    terrainVersion.value++
    void computePaths()
    compute()
  }

  return {
    id,
    whole,
    doc,
    looked,
    planId,
    lookAt,
    chosenSetups,
    close,
    here,
    log,
    result,
    job,
    site,
    design,
    state,
    link,
    unsent,
    conflicts,
    asides,
    pathProgress,
    pathsRunning,
    engineError,
    keepError,
    undoStack,
    redoStack,
    open,
    commit,
    cure,
    undo,
    redo,
    send,
    pull,
    settle,
    takeUp,
    letGo,
    fetchWhole,
    terrainChanged,
    terrainVersion,
  }
})
