import { nth } from '#core/sure'
import type { MastRules } from '#core/formats'
import type { MastImportReport, MastImportState } from '../../shared/api'
import type { MastTable } from '../utils/mast-files'

/** An import this device began and has not seen the end of. */
interface Begun {
  id: string
  file: string
  bytes: number
}

const KEY = 'import-begun'
const RETRY_MS = [500, 1000, 2000, 4000, 8000]
/** A piece that the server cannot take in this many tries leaves the list open, to be gone on with. */
const MOST_TRIES = 12
const wait = (ms: number) => new Promise<void>(done => setTimeout(done, ms))

async function gzip(text: string): Promise<Blob> {
  return new Response(new Blob([text]).stream().pipeThrough(new CompressionStream('gzip'))).blob()
}

/** The server could not take a piece for long: what it has stays, and the list is gone on with later. */
class Paused extends Error {
  constructor() {
    super('The server could not take the list just now. What came is kept: choose the same file again to go on.')
  }
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
  /** what went wrong and is being tried again */
  const trouble = ref('')
  /** aborted when the import is stopped: the piece on its way is called back too */
  let going = new AbortController()

  /** @returns the import to go on with where this very file was begun here and is still open */
  async function begun(file: { name: string; size: number }): Promise<MastImportState | null> {
    const b = await kept<Begun>(KEY)
    if (!b || b.file !== file.name || b.bytes !== file.size) return null
    const s = await api<MastImportState>(`/api/masts/imports/${b.id}`).catch(() => null)
    return s && (s.state === 'receiving' || s.state === 'merging') ? s : null
  }

  /** Sends one piece until it is taken: a lost connection is waited out, a server in trouble is asked again. */
  async function put(id: string, n: number, text: string, last: boolean): Promise<MastImportState> {
    const raw = await gzip(text)
    const headers = { 'content-type': 'text/csv', 'content-encoding': 'gzip' }
    for (let attempt = 0; ; attempt++) {
      if (going.signal.aborted) throw new Error('stopped')
      try {
        const now = await api<MastImportState>(`/api/masts/imports/${id}/pieces/${n}${last ? '?last=1' : ''}`, {
          method: 'PUT',
          raw,
          headers,
          signal: going.signal,
        })
        waiting.value = false
        trouble.value = ''
        return now
      } catch (e) {
        const passing = e instanceof ApiError && (e.status >= 500 || e.status === 429)
        if (!(e instanceof Unreachable) && !passing) throw e
        waiting.value = e instanceof Unreachable
        if (passing && attempt >= MOST_TRIES) throw new Paused()
        if (passing) trouble.value = `Part ${n + 1} was not taken (${e.status}); tried again, ${attempt + 1} of ${MOST_TRIES}.`
      }
      await wait(nth(RETRY_MS, Math.min(attempt, RETRY_MS.length - 1)))
    }
  }

  async function send(
    table: MastTable,
    file: { name: string; size: number },
    { rules, signature, resume }: { rules: MastRules; signature: string; resume: MastImportState | null },
  ): Promise<void> {
    if (busy.value) return
    busy.value = true
    going = new AbortController()
    error.value = ''
    report.value = null
    sent.value = 0
    try {
      state.value =
        resume ??
        (await api<MastImportState>('/api/masts/imports', {
          body: { name: file.name.slice(0, 120), delimiter: table.delimiter, rules, signature },
        }))
      const id = state.value.id
      await keep(KEY, { id, file: file.name, bytes: file.size } satisfies Begun)
      // A database that was restarted may ask for the list again, from its beginning.
      do {
        if (state.value.state === 'receiving') {
          await sendPieces(id, table)
          if (!going.signal.aborted) state.value = await api<MastImportState>(`/api/masts/imports/${id}/close`, { body: {} })
        }
        await follow(id)
      } while (!going.signal.aborted && (state.value as MastImportState | null)?.state === 'receiving')
    } catch (e) {
      if (!going.signal.aborted) error.value = messageOf(e)
      if (e instanceof ApiError && e.status < 500 && state.value?.state === 'receiving') await cancel()
    } finally {
      busy.value = false
      // Stopped before the server had answered that it was opened.
      if (going.signal.aborted && state.value) await cancel()
    }
  }

  async function sendPieces(id: string, table: MastTable): Promise<void> {
    while (!(await sendFrom(id, table))) trouble.value = 'The server lost what had come: begun again.'
  }

  /** @returns false where the server wants the list from another place than where it is */
  async function sendFrom(id: string, table: MastTable): Promise<boolean> {
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
        if (state.value.nextPiece <= n) return false
        sent.value = next.done ? 1 : Math.min(1, read / table.bytes)
        const seconds = (performance.now() - began) / 1000
        rowsPerSecond.value = (state.value.rows - rowsBefore) / seconds
        secondsLeft.value = sent.value > 0.02 ? (seconds * (1 - sent.value)) / sent.value : null
      }
      n++
    }
    return true
  }

  async function follow(id: string): Promise<void> {
    while (!going.signal.aborted) {
      try {
        const now = await api<MastImportReport>(`/api/masts/imports/${id}`)
        state.value = now
        waiting.value = false
        trouble.value = now.step?.startsWith('failed') ? `The merge ${now.step}.` : ''
        if (now.state === 'receiving') return
        if (now.state === 'done' || now.state === 'failed' || now.state === 'cancelled') {
          await keep(KEY, undefined)
          if (now.state === 'done') report.value = now
          else error.value = now.error ?? 'Stopped: nothing of the list was kept.'
          return
        }
      } catch (e) {
        if (!(e instanceof Unreachable) && !(e instanceof ApiError && e.status >= 500)) throw e
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

  return { state, report, error, trouble, busy, sent, rowsPerSecond, secondsLeft, waiting, begun, send, cancel }
}
