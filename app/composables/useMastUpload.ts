import type { MastRules } from '#core/formats/mast-csv'
import type { MastImportReport, MastImportState } from '../../shared/api'
import type { MastTable } from '../utils/mast-files'

/** An import this device began and has not seen the end of. */
interface Begun { id: string, file: string, bytes: number }

const KEY = 'import-begun'
const RETRY_MS = [500, 1000, 2000, 4000, 8000]
const wait = (ms: number) => new Promise<void>(done => setTimeout(done, ms))

async function gzip(text: string): Promise<Blob> {
  return new Response(new Blob([text]).stream().pipeThrough(new CompressionStream('gzip'))).blob()
}

/** Sends a list piece by piece; a piece that fails is sent again, and a list that was begun is gone on with. */
export function useMastUpload() {
  const state = ref<MastImportState | null>(null)
  const report = ref<MastImportReport | null>(null)
  const error = ref('')
  const busy = ref(false)
  /** 0…1 of the file sent */
  const sent = ref(0)
  const rowsPerSecond = ref(0)
  const secondsLeft = ref<number | null>(null)
  const waiting = ref(false)
  /** aborted when the import is stopped: the piece on its way is called back too */
  let going = new AbortController()

  /** @returns the import to go on with where this very file was begun here and is still open */
  async function begun(file: { name: string, size: number }): Promise<MastImportState | null> {
    const b = await kept<Begun>(KEY)
    if (!b || b.file !== file.name || b.bytes !== file.size) return null
    const s = await api<MastImportState>(`/api/masts/imports/${b.id}`).catch(() => null)
    return s && (s.state === 'receiving' || s.state === 'merging') ? s : null
  }

  async function put(id: string, n: number, text: string, last: boolean): Promise<MastImportState> {
    const body = await gzip(text)
    for (let attempt = 0; ; attempt++) {
      if (going.signal.aborted) throw new Error('stopped')
      try {
        const now = await api<MastImportState>(`/api/masts/imports/${id}/pieces/${n}${last ? '?last=1' : ''}`, { method: 'PUT', raw: body, headers: { 'content-type': 'text/csv', 'content-encoding': 'gzip' }, signal: going.signal })
        waiting.value = false
        return now
      }
      catch (e) {
        if (!(e instanceof Unreachable)) throw e
      }
      waiting.value = true
      await wait(RETRY_MS[Math.min(attempt, RETRY_MS.length - 1)]!)
    }
  }

  async function send(table: MastTable, file: { name: string, size: number }, rules: MastRules, signature: string, resume: MastImportState | null): Promise<void> {
    if (busy.value) return
    busy.value = true
    going = new AbortController()
    error.value = ''
    report.value = null
    sent.value = 0
    try {
      state.value = resume ?? await api<MastImportState>('/api/masts/imports', { body: { name: file.name.slice(0, 120), delimiter: table.delimiter, rules, signature } })
      const id = state.value.id
      await keep(KEY, { id, file: file.name, bytes: file.size } satisfies Begun)
      if (state.value.state === 'receiving') {
        await sendPieces(id, table)
        if (!going.signal.aborted) state.value = await api<MastImportState>(`/api/masts/imports/${id}/close`, { body: {} })
      }
      await follow(id)
    }
    catch (e) {
      if (!going.signal.aborted) error.value = messageOf(e)
      if (e instanceof ApiError && state.value?.state === 'receiving') await cancel()
    }
    finally {
      busy.value = false
      // Stopped before the server had answered that it was opened.
      if (going.signal.aborted && state.value) await cancel()
    }
  }

  async function sendPieces(id: string, table: MastTable): Promise<void> {
    const began = performance.now()
    const from = state.value!.nextPiece
    const rowsBefore = state.value!.rows
    let n = 0
    let read = 0
    const pieces = table.pieces(r => (read = r))
    let next = await pieces.next()
    while (!next.done) {
      const text = next.value
      next = await pieces.next()
      if (n >= from) {
        state.value = await put(id, n, text, !!next.done)
        sent.value = next.done ? 1 : Math.min(1, read / table.bytes)
        const seconds = (performance.now() - began) / 1000
        rowsPerSecond.value = (state.value.rows - rowsBefore) / seconds
        secondsLeft.value = sent.value > 0.02 ? seconds * (1 - sent.value) / sent.value : null
      }
      n++
    }
  }

  async function follow(id: string): Promise<void> {
    while (!going.signal.aborted) {
      try {
        const now = await api<MastImportReport>(`/api/masts/imports/${id}`)
        state.value = now
        waiting.value = false
        if (now.state === 'done' || now.state === 'failed' || now.state === 'cancelled') {
          await keep(KEY, undefined)
          if (now.state === 'done') report.value = now
          else error.value = now.error ?? 'Stopped: nothing of the list was kept.'
          return
        }
      }
      catch (e) {
        if (!(e instanceof Unreachable)) throw e
        waiting.value = true
      }
      await wait(700)
    }
  }

  async function cancel(): Promise<void> {
    going.abort()
    const id = state.value?.id
    if (id) await api(`/api/masts/imports/${id}`, { method: 'DELETE' }).catch(() => {})
    await keep(KEY, undefined)
    state.value = null
    waiting.value = false
  }

  return { state, report, error, busy, sent, rowsPerSecond, secondsLeft, waiting, begun, send, cancel }
}
