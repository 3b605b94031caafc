import { v7 as uuidv7 } from 'uuid'
import { clashesOf } from '#core/card'
import type { BoardVisit } from '#core/card'
import { AFTER_ALL, insertChange } from '#core/job'
import type { Change, Visit } from '#core/job'
import type { Board, JobList, JobListItem } from '../../shared/api'

const BACK_DAYS = 14
const AHEAD_DAYS = 150

interface Move {
  id: string
  fields: Partial<Visit>
}

/** Visits of all jobs of the crew: read from the server, moved through the same outbox as every other change. */
export function useBoard() {
  const session = useSession()
  const sending = useSending()
  const visits = shallowRef<BoardVisit[]>([])
  const teams = ref<string[]>([])
  const jobs = shallowRef<JobListItem[]>([])
  const state = ref<'loading' | 'there' | 'offline'>('loading')
  const error = ref('')
  const undoStack = shallowReactive<Move[]>([])
  const today = () => dayOf(new Date())

  async function load(): Promise<void> {
    const from = dayAfter(today(), -BACK_DAYS)
    const to = dayAfter(today(), AHEAD_DAYS)
    const { own } = session
    const held = await kept<Board>('board')
    if (held && session.own === own && state.value === 'loading') take(held)
    try {
      // What was moved here goes first: the answer then has it.
      await sending.now()
      const [board, list] = await Promise.all([
        api<Board>(`/api/board?from=${from}&to=${to}`),
        api<JobList>('/api/jobs?most=200'),
      ])
      if (session.own !== own) return
      if (!sending.total) take(board)
      jobs.value = list.jobs
      state.value = 'there'
      await keep('board', board)
    } catch (e) {
      state.value = 'offline'
      jobs.value = (await kept<JobListItem[]>('jobs')) ?? []
      if (!(e instanceof Unreachable)) error.value = messageOf(e)
    }
  }
  function take(board: Board): void {
    visits.value = board.visits
    teams.value = [...new Set([...teams.value, ...board.teams])]
  }

  const clashes = computed(() => {
    const out = new Map<string, { words: string; stop: boolean }[]>()
    for (const c of clashesOf(visits.value, today())) out.set(c.visitId, [...(out.get(c.visitId) ?? []), c])
    return out
  })
  /** jobs that have and had no day, and are not handed over */
  const waiting = computed(() => {
    const set = new Set(visits.value.filter(v => v.state !== 'called off').map(v => v.jobId))
    return jobs.value.filter(j => !set.has(j.id) && !j.acts.keep)
  })

  async function write(jobId: string, changes: Change[], next: BoardVisit[]): Promise<void> {
    const own = session.own
    if (!own) return
    visits.value = next
    await own.replica.edit(jobId, [...changes, ...nextOn(jobId, next)])
    await keep('board', { visits: next, teams: teams.value } satisfies Board)
    sending.soon(0)
  }
  function nextOn(jobId: string, after: readonly BoardVisit[]): Change[] {
    const day = nextDay(
      after.filter(v => v.jobId === jobId),
      today(),
    )
    if (day === null) return []
    return [{ id: uuidv7(), table: 'jobs', rowId: jobId, op: 'update', baseVersion: AFTER_ALL, fields: { nextOn: day } }]
  }

  /** @returns whether it was moved; where it was not, `error` says why */
  async function move(id: string, fields: Partial<Visit>, remember = true): Promise<boolean> {
    error.value = ''
    const v = visits.value.find(x => x.id === id)
    if (!v) return false
    if (!session.mayEdit) error.value = 'A viewer cannot move it.'
    else if (fields.onDay !== undefined && fields.onDay < today()) error.value = `${v.jobName}: a day from today on.`
    if (error.value) return false
    if (remember)
      undoStack.push({
        id,
        fields: Object.fromEntries(Object.keys(fields).map(k => [k, v[k as keyof BoardVisit]])) as Partial<Visit>,
      })
    const change: Change = { id: uuidv7(), table: 'visits', rowId: id, op: 'update', baseVersion: v.version, fields }
    await write(
      v.jobId,
      [change],
      visits.value.map(x => (x.id === id ? { ...x, ...fields } : x)),
    )
    return true
  }
  async function add(job: Pick<JobListItem, 'id' | 'name'>, onDay: string, team: string | null): Promise<void> {
    error.value = ''
    if (onDay < today()) error.value = `${job.name}: a day from today on.`
    else if (!session.mayEdit) error.value = 'A viewer cannot set a day.'
    if (error.value) return
    const fields = { ...NEW_VISIT, onDay, team }
    const id = uuidv7()
    const shown: BoardVisit = { ...fields, id, version: 0, jobId: job.id, jobName: job.name, dueOn: null }
    await write(job.id, [insertChange(uuidv7, 'visits', id, fields)], [...visits.value, shown])
  }
  async function undo(): Promise<void> {
    const last = undoStack.pop()
    if (last) await move(last.id, last.fields, false)
  }
  return { visits, teams, waiting, clashes, state, error, undoStack, load, move, add, undo }
}
