import { nth } from '#core/sure'
import type { ModemPort } from '../../shared/modem'

/** A talk with a modem that was kept, answering again as it did then: for looking at it afterwards, and for trying. */
const LINE = /^(\d{1,12}) (.*)$/

/** @throws RangeError where the text is no recording */
export function recordingLink(text: string, name: string, wait: (ms: number) => Promise<void> = later): ModemPort {
  const lines = text.split('\n').flatMap(l => {
    const m = LINE.exec(l)
    return m ? [{ atMs: Number(m[1]), line: nth(m, 2) }] : []
  })
  if (!lines.some(l => /^[+$]/.test(l.line))) throw new RangeError('That is no recording of a modem or a receiver.')
  let take: (t: string) => void = () => {}
  let gone: (why: string) => void = () => {}
  let open = true
  async function play() {
    let at = nth(lines, 0).atMs
    for (const l of lines) {
      await wait(l.atMs - at)
      at = l.atMs
      if (!open) return
      take(`\r\n${l.line}\r\n`)
    }
    gone('the recording is at its end')
  }
  let playing = false
  return {
    name,
    kind: 'recording',
    // What is asked now was asked then: the answers come in their own time.
    write: () => {
      if (!playing) void play()
      playing = true
    },
    onText: t => (take = t),
    onGone: g => (gone = g),
    close: () => (open = false),
  }
}

const later = (ms: number) => new Promise<void>(done => setTimeout(done, ms))
