import { v7 as uuidv7 } from 'uuid'
import { changesOf, editsOf, jobOf, PLACED_TABLES } from '#core/job'
import type { Step } from '#core/fitting'
import type { Change, Edit, JobDocument } from '#core/job'
import type { Assessment, Cure } from '#core/judge'
import { atPresentStop, logIndex } from '#core/survey'
import { sure } from '#core/sure'
import { say } from '#core/words'
import { withNear } from '../../shared/api'
import type { JobSnapshot, NearMasts } from '../../shared/api'
import { Assessing } from '../job/assessing'
import { HeldJob } from '../job/held-job'
import { NearHere } from '../job/near-masts'
import { UndoStack } from '../job/undo'
import type { UndoEntry } from '../job/undo'
import { onReplica } from '../replica/browser'
import type { OpenReplica } from '../replica/browser'
import { nowUtc } from '../replica/clock'
import type { Aside, Conflict } from '../replica/model'
import type { SendState } from '../replica/replica'

export type { Edit }
type Errors = { field: string; message: string }[]

/** Plain data, free of the page's proxies, as the replica and the worker take it. */
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

const SEND_AFTER_MS = 400
const NO_ROOM = {
  'sent at once': 'This device has no room left: what you change is sent at once, and not kept here. Make room.',
  'not kept': 'This device has no room left: the last change is shown, but not kept. Make room, then change anything once more.',
} as const

/** What is made when a job is opened, and ends when it is left: nothing of one job or member reaches the next. */
interface Opened {
  own: OpenReplica
  held: HeldJob
  near: NearHere
  engine: Assessing
  /** shows what the device holds now */
  refresh: () => Promise<void>
  /** the server was asked for the job whole, with the masts round it */
  wasAsked: boolean
  /** the stop whose masts are on their way */
  mastsFor: string | null | undefined
}

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
    return { ...d, jobs: [{ ...jobOf(d), designId: looked.value }] }
  })
  const planId = computed(() => whole.value?.jobs[0]?.designId ?? whole.value?.designs[0]?.id ?? null)
  /** set-ups that were chosen in Survey and in Prove: they stay chosen until a person takes another */
  const chosenSetups = reactive<{ survey: string | null; prove: string | null }>({ survey: null, prove: null })
  const result = shallowRef<Assessment | null>(null)
  const state = ref<'idle' | 'loading' | 'missing' | 'offline-unknown'>('idle')
  const conflicts = shallowRef<readonly Conflict[]>([])
  const asides = shallowRef<readonly Aside[]>([])
  const pathProgress = ref<{ done: number; of: number } | null>(null)
  const pathsRunning = ref(false)
  const engineError = ref<string | null>(null)
  const undoStack = shallowReactive<UndoEntry[]>([])
  const redoStack = shallowReactive<UndoEntry[]>([])
  /** changes of this job that the server has not acknowledged */
  const unsent = computed(() => sending.ofOpen)
  /** what the device did not write yet, and what it could not */
  const writing = ref<'written' | 'keeping' | 'unkept'>('written')
  /** that this device has no room left; it stands until something was kept again */
  const keepError = ref<string | null>(null)
  let opened: Opened | null = null

  const job = computed(() => doc.value?.jobs[0] ?? null)
  /** the document standing at the present stop, as the engine sees it */
  const here = computed(() => (doc.value ? atPresentStop(doc.value) : null))
  /** what was read, tested and watched at the present stop: one index for all that show it */
  const log = computed(() => (here.value ? logIndex(here.value) : null))
  const site = computed(() => here.value?.sites[0] ?? null)
  /** The variant on screen; sections that are shown only where there is one read it as `variant`. */
  const design = computed(() => doc.value?.designs.find(d => d.id === job.value?.designId) ?? doc.value?.designs[0] ?? null)
  const variant = computed(() => sure(design.value))
  /** what becomes of the job's changes: nothing is told as waiting before it lies on the device */
  const link = computed<SendState | 'sending' | 'keeping' | 'unkept'>(() => {
    if (writing.value !== 'written') return writing.value
    return unsent.value && sending.state === 'sent' ? 'sending' : sending.state
  })
  if (import.meta.client)
    window.addEventListener('beforeunload', e => {
      if (writing.value !== 'written') e.preventDefault()
    })

  const undoing = new UndoStack(
    { newId: uuidv7, versionOf: (table, rowId) => opened?.held.versionOf(table, rowId) || (opened?.held.sequence ?? 0) },
    undoStack,
    redoStack,
  )

  /** Nothing is open, and nothing is left of what was. */
  function close(): void {
    opened?.held.end()
    opened?.engine.end()
    opened = null
    id.value = whole.value = looked.value = result.value = null
    keepError.value = engineError.value = pathProgress.value = null
    sending.ofOpen = 0
    writing.value = 'written'
    asides.value = []
    conflicts.value = []
    pathsRunning.value = false
    chosenSetups.survey = chosenSetups.prove = null
    undoing.clear()
    state.value = 'idle'
  }
  ofMember(close)

  const assessing = (): Assessing =>
    new Assessing({
      assess: d => engine.assess(toRaw(d), nowUtc()),
      ensurePaths: (d, progress) => engine.ensurePaths(toRaw(d), proxy(progress)),
      said: r => {
        result.value = r
        engineError.value = null
      },
      failed: e => (engineError.value = messageOf(e)),
      paths: (progress, running) => {
        pathProgress.value = progress
        pathsRunning.value = running
      },
    })

  function begin(jobId: string, own: OpenReplica): Opened {
    const near = new NearHere(jobId, { kept: name => own.store.kept(name), keep: (name, masts) => own.store.keep(name, masts) })
    const held = new HeldJob(jobId, {
      replica: own.replica,
      prepare: stopId => near.fromDevice(stopId),
      changed: () => show(now),
    })
    const now: Opened = {
      own,
      held,
      near,
      engine: assessing(),
      refresh: inTurn(() => held.look()),
      wasAsked: false,
      mastsFor: undefined,
    }
    return now
  }
  const isOpen = (o: Opened): boolean => o === opened

  /** What is held is what is shown, with the masts of its stop. */
  function show(o: Opened): void {
    if (!isOpen(o)) return
    const { held, near } = o
    sending.ofOpen = held.waiting.size
    writing.value = held.unkept.length ? 'unkept' : held.unwritten.length ? 'keeping' : 'written'
    keepError.value = held.noRoom && NO_ROOM[held.noRoom]
    asides.value = held.asides
    conflicts.value = held.conflicts
    if (!held.doc) return
    const stopId = held.doc.jobs[0]?.stopId ?? null
    showWith(o, near.masts)
    if (!near.areOf(stopId) && o.wasAsked) void mastsOfStop(o, stopId)
  }

  let lent: { of: JobDocument; masts: NearMasts | null; whole: JobDocument } | null = null
  function showWith(o: Opened, masts: NearMasts | null): void {
    const of = o.held.doc!
    if (lent?.of !== of || lent.masts !== masts) lent = { of, masts, whole: withNear(of, masts) }
    // Another plan is taken, by whoever: it is what is shown.
    if (whole.value && whole.value.jobs[0]?.designId !== jobOf(of).designId) looked.value = null
    whole.value = lent.whole
    o.engine.show(doc.value!)
  }

  /** Shows a variant without making it the plan; the plan again with null. */
  function lookAt(designId: string | null): void {
    const next = designId === planId.value ? null : designId
    if (next === looked.value) return
    looked.value = next
    if (doc.value) opened?.engine.show(doc.value)
  }

  /** Opens a job: at once from this device where it is kept, then from the server. */
  async function open(jobId: string): Promise<void> {
    if (id.value === jobId && doc.value) return pull()
    close()
    id.value = jobId
    state.value = 'loading'
    const { own } = session
    if (!own) return
    const now = (opened = begin(jobId, own))
    await Promise.all([loadValidators(), now.refresh()])
    if (!isOpen(now)) return
    if (doc.value) state.value = 'idle'
    await send()
    await fetchWhole()
    now.wasAsked = true
  }

  /** Reads the job from the server; what is not sent stays on top of it. */
  async function fetchWhole(): Promise<void> {
    const now = opened
    if (!now) return
    const { own, near, held } = now
    try {
      const snapshot = await api<JobSnapshot>(`/api/jobs/${held.jobId}`)
      if (!isOpen(now)) return
      const stopId = snapshot.document.jobs[0]?.stopId ?? null
      const shown = held.doc?.jobs[0]?.stopId ?? null
      await near.fromServer(snapshot.near, stopId, !held.doc || stopId === shown)
      await own.replica.readWhole(held.jobId, false, snapshot)
      await now.refresh()
      if (isOpen(now)) state.value = 'idle'
    } catch (e) {
      if (isOpen(now)) notFetched(now, e)
    }
  }

  function notFetched({ held }: Opened, e: unknown): void {
    const status = e instanceof ApiError ? e.status : null
    if (status === 404 && !doc.value) state.value = 'missing'
    else if (status === 404 && held.isKnown)
      engineError.value = 'This job was taken out of the crew’s list. What you see is the last copy on this device.'
    else if (status === 401) sending.heard('signed-out')
    else if (!doc.value) state.value = 'offline-unknown'
    if (e instanceof Unreachable) sending.heard('offline')
  }

  // What this tab has written itself is shown already.
  onReplica((jobId, what, from) => {
    if (jobId === opened?.held.jobId && (what === 'moved' || from === 'elsewhere')) void opened.refresh()
  })

  /**
   * Takes edits: checked, shown, kept in the outbox, then sent.
   * @returns errors beside their fields; none where it was taken
   */
  async function commit(edits: Edit[], label: string, o: { undoable?: boolean } = {}): Promise<Errors> {
    const now = opened
    if (!now?.held.doc || !doc.value) return [{ field: '', message: 'no job is open' }]
    if (!session.mayEdit) return [{ field: '', message: 'a viewer cannot change the job' }]
    const { stopId } = jobOf(doc.value)
    const changes: Change[] = edits.map(e => {
      const rowId = e.rowId ?? uuidv7()
      const placed = e.op === 'insert' && PLACED_TABLES.has(e.table) ? { stopId } : {}
      return {
        id: uuidv7(),
        table: e.table,
        rowId,
        op: e.op,
        baseVersion: now.held.versionOf(e.table, rowId),
        fields: plain({ ...placed, ...e.fields }),
      }
    })
    const errors = changes.flatMap(c => changeErrors(c))
    if (errors.length) return errors
    if (o.undoable !== false) undoing.did(label, whole.value!, changes)
    await take(now, changes)
    return []
  }

  /** Shows changes and writes them on the device; sending follows. */
  async function take(o: Opened, changes: Change[]): Promise<void> {
    if ((await o.held.take(changes)) && isOpen(o)) sending.soon(SEND_AFTER_MS)
  }

  /** The crew's masts near the stop that was moved to: as prepared on this device at once, then from the server. */
  async function mastsOfStop(o: Opened, stopId: string | null): Promise<void> {
    if (o.mastsFor === stopId) return
    o.mastsFor = stopId
    const { near, held } = o
    const standsThere = () => isOpen(o) && (held.doc?.jobs[0]?.stopId ?? null) === stopId
    const prepared = await near.fromDevice(stopId)
    if (!prepared && standsThere()) near.nothing(stopId)
    show(o)
    try {
      await send()
      if (standsThere()) {
        if (stopId) {
          const told = await api<NearMasts>(`/api/jobs/${held.jobId}/near?stop=${stopId}`)
          await near.fromServer(told, stopId, standsThere())
          show(o)
        } else await fetchWhole()
      }
    } catch (e) {
      if (isOpen(o) && !prepared && !(e instanceof Unreachable))
        engineError.value = `The masts near this stop did not come: ${messageOf(e)}`
    }
    if (o.mastsFor === stopId) o.mastsFor = undefined
  }

  async function step(entry: UndoEntry | null): Promise<string | null> {
    if (!entry || !opened) return null
    await take(opened, entry.changes)
    return entry.label
  }
  const undo = (): Promise<string | null> => step(whole.value && undoing.undo(whole.value))
  const redo = (): Promise<string | null> => step(whole.value && undoing.redo(whole.value))

  /** Steps as one batch; ids that they name for themselves are made here. */
  const commitSteps = (steps: readonly Step[], label: string): Promise<Errors> => commit(editsOf(changesOf(steps, uuidv7)), label)
  const cure = (c: Cure): Promise<Errors> => commitSteps(c.steps, say(c.label, usePrefs().units))

  /** Sends what waits, of this job and every other. */
  const send = (): Promise<void> => sending.now()
  /** What others changed since; quiet where there is no connection. */
  const pull = (): Promise<void> => sending.pull()

  const settle = async (c: Conflict, choice: 'mine' | 'theirs'): Promise<void> => {
    await session.own?.replica.settle(c, choice)
    sending.soon(0)
  }

  /**
   * A refused change is taken up again, mended where fields are given.
   * @returns errors beside their fields; none where it was taken up
   */
  async function takeUp(a: Aside, fields: Record<string, unknown> = {}): Promise<Errors> {
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
    opened?.engine.groundChanged()
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
    variant,
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
    commitSteps,
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
