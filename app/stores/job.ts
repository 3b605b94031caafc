import { v7 as uuidv7 } from 'uuid'
import type { Assessment } from '#core/job/assess'
import { applyChanges, fieldsOf, invertChanges } from '#core/job/changes'
import type { FieldConflict } from '#core/job/changes'
import type { Cure } from '#core/job/figure'
import { atPresentStop } from '#core/job/place'
import { APPEND_ONLY, PLACED_TABLES, completeDocument, emptyDocument } from '#core/job/schema'
import type { Cell, Change, JobDocument, Mast, TableName } from '#core/job/schema'
import type { ChangeResult, FeedItem, JobSnapshot } from '../../shared/api'

export type Edit = { table: TableName, op: 'insert' | 'update' | 'delete', rowId?: string, fields?: Record<string, unknown> }

interface UndoEntry { label: string, changes: Change[] }

/** Plain data, free of the page's proxies, as the outbox and the worker take it. */
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** Tables whose rows decide which paths are to be computed. */
const PLACE_TABLES: ReadonlySet<TableName> = new Set(['sites', 'stops', 'obstacles', 'masts', 'cells', 'jobs'])

export interface NearMasts { masts: Mast[], cells: Cell[] }
/** Where the masts near a stop are kept on this device. */
export const nearKey = (jobId: string, stopId: string): string => `near:${jobId}:${stopId}`

const SEND_EVERY_MS = 400
const BATCH = 200

/** The job that is open: its document, what is not sent, and what the engine says of it. */
export const useJob = defineStore('job', () => {
  const session = useSession()
  const { engine, proxy } = useEngine()
  const device = useLocalStorage('mv-device', () => uuidv7())
  const id = ref<string | null>(null)
  const doc = shallowRef<JobDocument | null>(null)
  const result = shallowRef<Assessment | null>(null)
  const sequence = ref(0)
  const unsent = ref(0)
  const state = ref<'idle' | 'loading' | 'missing' | 'offline-unknown'>('idle')
  const link = ref<'sent' | 'sending' | 'offline' | 'signed-out' | 'failing'>('sent')
  const conflicts = ref<FieldConflict[]>([])
  const refused = ref<{ detail: string, table: string }[]>([])
  const pathProgress = ref<{ done: number, of: number } | null>(null)
  const engineError = ref<string | null>(null)
  const undoStack = shallowReactive<UndoEntry[]>([])
  const redoStack = shallowReactive<UndoEntry[]>([])
  let sending: Promise<void> | null = null
  let timer: ReturnType<typeof setTimeout> | null = null

  const job = computed(() => doc.value?.jobs[0] ?? null)
  /** the document standing at the present stop, as the engine sees it */
  const here = computed(() => (doc.value ? atPresentStop(doc.value) : null))
  const site = computed(() => here.value?.sites[0] ?? null)
  /** masts in the document that are the crew's, near the present place, and not the job's own */
  let nearMastIds = new Set<string>()
  const design = computed(() => doc.value?.designs.find(d => d.id === job.value?.designId) ?? doc.value?.designs[0] ?? null)

  /** Opens a job: at once from this device where it is kept, then from the server. */
  async function open(jobId: string): Promise<void> {
    if (id.value === jobId && doc.value) {
      await pull()
      return
    }
    id.value = jobId
    doc.value = null
    result.value = null
    undoStack.length = 0
    redoStack.length = 0
    conflicts.value = []
    refused.value = []
    state.value = 'loading'
    const db = await local()
    const onDevice = await db.get('jobs', jobId)
    const mine = onDevice && onDevice.owner === session.me?.memberId ? onDevice : null
    const waiting = (await outboxOf(jobId)).filter(e => e.owner === session.me?.memberId).map(e => e.change)
    if (mine || waiting.some(c => c.table === 'jobs' && c.op === 'insert')) {
      nearMastIds = new Set(mine?.nearMastIds ?? [])
      show(applyChanges(completeDocument(mine?.document ?? emptyDocument()), waiting), mine?.sequence ?? 0)
      unsent.value = waiting.length
      state.value = 'idle'
    }
    await send()
    await fetchWhole()
  }

  async function fetchWhole(): Promise<void> {
    const jobId = id.value
    if (!jobId) return
    try {
      const snapshot = await api<JobSnapshot>(`/api/jobs/${jobId}`)
      if (id.value !== jobId) return
      await (await local()).put('jobs', { ...snapshot, id: jobId, owner: session.me!.memberId })
      const waiting = (await outboxOf(jobId)).map(e => e.change)
      nearMastIds = new Set(snapshot.nearMastIds)
      show(applyChanges(snapshot.document, waiting), snapshot.sequence)
      unsent.value = waiting.length
      state.value = 'idle'
    }
    catch (e) {
      if (e instanceof ApiError && e.status === 404 && !doc.value) state.value = 'missing'
      else if (e instanceof ApiError && e.status === 401) signedOut()
      else if (!doc.value) state.value = 'offline-unknown'
      if (e instanceof Unreachable) link.value = 'offline'
    }
  }

  function show(next: JobDocument, at: number): void {
    doc.value = next
    sequence.value = at
    compute()
    void computePaths()
  }

  let computing = false
  let again = false
  /** One assessment at a time; edits made meanwhile are gathered into the next. */
  function compute(): void {
    if (!doc.value || !doc.value.jobs.length) return
    if (computing) {
      again = true
      return
    }
    computing = true
    const jobId = id.value
    engine.assess(toRaw(doc.value), new Date().toISOString()).then((r) => {
      if (id.value === jobId) result.value = r
      engineError.value = null
    }, (e: unknown) => {
      engineError.value = messageOf(e)
    }).finally(() => {
      computing = false
      if (again) {
        again = false
        compute()
      }
    })
  }

  const pathsRunning = ref(false)
  let pathsAgain = false
  async function computePaths(): Promise<void> {
    if (!doc.value) return
    if (pathsRunning.value) {
      pathsAgain = true
      return
    }
    pathsRunning.value = true
    try {
      const n = await engine.ensurePaths(toRaw(doc.value), proxy((done: number, of: number) => {
        pathProgress.value = { done, of }
        compute()
      }))
      pathProgress.value = null
      if (n) compute()
    }
    finally {
      pathsRunning.value = false
      if (pathsAgain) {
        pathsAgain = false
        void computePaths()
      }
    }
  }

  const versionOf = (table: TableName, rowId: string): number => {
    const row = (doc.value?.[table] as { id: string, version?: number }[] | undefined)?.find(r => r.id === rowId)
    return row?.version ?? 0
  }

  /**
   * Takes edits: checked, shown, kept in the outbox, then sent.
   * @returns errors beside their fields; none where it was taken
   */
  async function commit(edits: Edit[], label: string, o: { undoable?: boolean } = {}): Promise<{ field: string, message: string }[]> {
    if (!doc.value || !session.me || !id.value) return [{ field: '', message: 'no job is open' }]
    if (!session.mayEdit) return [{ field: '', message: 'a viewer cannot change the job' }]
    const changes: Change[] = edits.map((e) => {
      const rowId = e.rowId ?? uuidv7()
      return { id: uuidv7(), table: e.table, rowId, op: e.op, baseVersion: versionOf(e.table, rowId), fields: plain({ ...(e.op === 'insert' && PLACED_TABLES.has(e.table) ? { stopId: doc.value!.jobs[0]!.stopId } : {}), ...e.fields }) }
    })
    const errors = changes.flatMap(c => changeErrors(c))
    if (errors.length) return errors
    if (o.undoable !== false) {
      undoStack.push({ label, changes: invertChanges(doc.value, changes, uuidv7) })
      redoStack.length = 0
    }
    await take(changes)
    return []
  }

  /** changes shown but not yet in the outbox: they count as unsent too */
  let writing = 0
  const countUnsent = async (jobId: string): Promise<number> => (await outboxOf(jobId)).length + writing

  /** Shows changes and writes them to the outbox; sending follows. */
  async function take(changes: Change[]): Promise<void> {
    const jobId = id.value!
    const owner = session.me!.memberId
    doc.value = applyChanges(doc.value!, changes)
    writing += changes.length
    unsent.value += changes.length
    if (link.value === 'sent') link.value = 'sending'
    compute()
    if (changes.some(c => PLACE_TABLES.has(c.table))) void computePaths()
    const tx = (await local()).transaction('outbox', 'readwrite')
    for (const change of changes) void tx.store.add({ owner, jobId, change })
    await tx.done
    writing -= changes.length
    if (changes.some(c => c.table === 'jobs' && c.op === 'update' && 'stopId' in c.fields)) void mastsOfStop()
    if (timer) clearTimeout(timer)
    timer = setTimeout(() => void send(), SEND_EVERY_MS)
  }

  /** The crew's masts near the stop that was moved to: as prepared on this device at once, then from the server. */
  async function mastsOfStop(): Promise<void> {
    const jobId = id.value
    const stopId = doc.value?.jobs[0]?.stopId
    if (!jobId) return
    if (!stopId) {
      await sendEverything(jobId)
      return fetchWhole()
    }
    const prepared = await kept<NearMasts>(nearKey(jobId, stopId))
    if (prepared) swapMasts(prepared)
    try {
      await sendEverything(jobId)
      if (doc.value?.jobs[0]?.stopId !== stopId) return
      swapMasts(await api<NearMasts>(`/api/jobs/${jobId}/near?stop=${stopId}`))
    }
    catch (e) {
      if (!prepared && !(e instanceof Unreachable)) engineError.value = `The masts near this stop did not come: ${messageOf(e)}`
      if (!prepared) swapMasts({ masts: [], cells: [] })
    }
  }

  function swapMasts(near: NearMasts): void {
    if (!doc.value) return
    const own = doc.value.masts.filter(m => !nearMastIds.has(m.id))
    const ownIds = new Set(own.map(m => m.id))
    const ownCells = doc.value.cells.filter(c => ownIds.has(c.mastId))
    const others = near.masts.filter(m => !ownIds.has(m.id))
    nearMastIds = new Set(others.map(m => m.id))
    show({ ...doc.value, masts: [...own, ...others], cells: [...ownCells, ...near.cells.filter(c => nearMastIds.has(c.mastId))] }, sequence.value)
  }

  /** A log only grows: taking a row of it back is a withdrawal, taking that back is the row again. */
  function forLog(c: Change): Change {
    if (c.op !== 'delete' || !APPEND_ONLY.has(c.table)) return c
    const row = (doc.value![c.table] as { id: string, withdrawn?: boolean }[]).find(r => r.id === c.rowId)
    if (!row) return c
    const fields = { ...fieldsOf(row), ...(row.withdrawn ? { withdrawn: false, replacesId: null } : { withdrawn: true, replacesId: row.id }) }
    return { ...c, op: 'insert', rowId: uuidv7(), baseVersion: 0, fields }
  }

  async function step(from: UndoEntry[], to: UndoEntry[]): Promise<string | null> {
    const entry = from.pop()
    if (!entry || !doc.value) return null
    const changes = entry.changes.map(c => forLog({ ...c, id: uuidv7(), baseVersion: versionOf(c.table, c.rowId) || sequence.value }))
    to.push({ label: entry.label, changes: invertChanges(doc.value, changes, uuidv7) })
    await take(changes)
    return entry.label
  }

  const undo = (): Promise<string | null> => step(undoStack, redoStack)
  const redo = (): Promise<string | null> => step(redoStack, undoStack)

  /** A cure's steps as one batch; ids that it names for itself are made here. */
  async function cure(c: Cure): Promise<{ field: string, message: string }[]> {
    const made = new Map<string, string>()
    const real = (v: unknown): unknown => {
      if (typeof v !== 'string' || !v.startsWith('new:')) return v
      if (!made.has(v)) made.set(v, uuidv7())
      return made.get(v)
    }
    return commit(c.steps.map(s => ({ table: s.table, op: s.op, rowId: real(s.rowId) as string, fields: Object.fromEntries(Object.entries(s.fields).map(([k, v]) => [k, real(v)])) })), c.label)
  }

  /** Sends what waits, in order; only one sending at a time. */
  function send(): Promise<void> {
    sending ??= sendAll().finally(() => (sending = null))
    return sending
  }

  /** Sends until nothing waits: a sending that was already ending may not have seen the last change. */
  async function sendEverything(jobId: string): Promise<void> {
    do await send()
    while ((await outboxOf(jobId)).length && (link.value === 'sending' || link.value === 'sent'))
  }

  async function sendAll(): Promise<void> {
    const jobId = id.value
    if (!jobId || !session.me) return
    const db = await local()
    for (;;) {
      const waiting = (await outboxOf(jobId)).filter(e => e.owner === session.me?.memberId).slice(0, BATCH)
      if (!waiting.length) break
      link.value = 'sending'
      try {
        const answer = await api<ChangeResult>(`/api/jobs/${jobId}/changes`, { body: { device: device.value, changes: waiting.map(e => e.change) } })
        const tx = db.transaction('outbox', 'readwrite')
        for (const e of waiting) void tx.store.delete(e.key!)
        await tx.done
        await taken(answer, jobId)
      }
      catch (e) {
        if (e instanceof ApiError && e.status === 401) return signedOut()
        link.value = e instanceof Unreachable ? 'offline' : 'failing'
        if (!(e instanceof Unreachable)) engineError.value = `Not sent: ${messageOf(e)}`
        timer = setTimeout(() => void send(), 5000)
        return
      }
    }
    unsent.value = await countUnsent(jobId)
    link.value = unsent.value ? 'sending' : 'sent'
    session.ended = false
    if (doc.value) await (await local()).put('jobs', { document: toRaw(doc.value), sequence: sequence.value, nearMastIds: [...nearMastIds], id: jobId, owner: session.me.memberId })
  }

  function signedOut(): void {
    link.value = 'signed-out'
    session.ended = true
  }

  /** Versions, conflicts and refusals of a batch that the server took. */
  async function taken(answer: ChangeResult, jobId: string): Promise<void> {
    if (id.value !== jobId || !doc.value) return
    // One pass a table: rows take the version the server gave them.
    const next = { ...doc.value } as Record<TableName, { id: string, version?: number }[]>
    for (const v of answer.versions) {
      next[v.table] = next[v.table].map(r => (r.id === v.rowId ? { ...r, version: v.version } : r))
    }
    doc.value = next as unknown as JobDocument
    unsent.value = await countUnsent(jobId)
    if (answer.conflicts.length) conflicts.value.push(...answer.conflicts)
    if (answer.rejected.length) refused.value.push(...answer.rejected.map(r => ({ detail: r.detail, table: r.table })))
    const gap = answer.sequence - sequence.value > answer.versions.length + answer.rejected.length
    sequence.value = answer.sequence
    if (gap || answer.rejected.length || answer.conflicts.length) await fetchWhole()
  }

  /** What others changed since; quiet where there is no connection. */
  async function pull(): Promise<void> {
    const jobId = id.value
    if (!jobId || !doc.value || sending) return
    try {
      const feed = await api<{ sequence: number, items: FeedItem[] }>(`/api/jobs/${jobId}/changes?since=${sequence.value}`)
      if (id.value !== jobId || feed.sequence === sequence.value || sending) return
      const changes = feed.items.filter(i => i.op === 'delete' || Object.keys(i.fields).length).map(i => ({ id: i.id, table: i.table, rowId: i.rowId, op: i.op, baseVersion: 0, fields: { ...i.fields, version: i.sequence } }))
      const waiting = (await outboxOf(jobId)).map(e => e.change)
      show(applyChanges(applyChanges(doc.value, changes), waiting), feed.sequence)
      link.value = unsent.value ? link.value : 'sent'
    }
    catch (e) {
      if (e instanceof ApiError && e.status === 401) signedOut()
      else if (e instanceof Unreachable) link.value = 'offline'
    }
  }

  /** A person has chosen between two values: mine is written again over theirs, or theirs stays. */
  async function settle(c: FieldConflict, choice: 'mine' | 'theirs'): Promise<void> {
    conflicts.value = conflicts.value.filter(x => x !== c)
    if (choice === 'mine') {
      await take([{ id: uuidv7(), table: c.table, rowId: c.rowId, op: 'update', baseVersion: sequence.value, fields: { [c.field]: c.mine } }])
    }
  }

  /** counts how often the ground changed: pictures of it are drawn again */
  const terrainVersion = ref(0)
  async function terrainChanged(keys: string[]): Promise<void> {
    await engine.forgetTerrain(keys)
    terrainVersion.value++
    await fetchWhole()
  }

  return {
    id, doc, here, result, job, site, design, state, link, unsent, sequence, conflicts, refused, pathProgress, pathsRunning, engineError, undoStack, redoStack,
    open, commit, cure, undo, redo, send, pull, settle, fetchWhole, terrainChanged, terrainVersion,
  }
})
