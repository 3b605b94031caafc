/** A talk with a modem: asked in turn, its answers and what it says unasked taken as they come. */
import { LineCutter, readAnswer, readFinal, unknownState } from '#core/formats'
import type { Final, ModemState } from '#core/formats'
import type { ModemPort } from '../../shared/modem'

export interface Sample extends ModemState {
  atMs: number
}

export interface SessionEvents {
  /** one round of answers */
  sample: (s: Sample) => void
  /** what is wrong now, in words; null once it is right again */
  trouble: (words: string | null) => void
  /** the link is gone */
  gone: (why: string) => void
}

/** A modem that says nothing for so long is asked the next thing. */
const ANSWER_WITHIN_MS = 2000
/** Rounds without any answer before it is told. */
const SILENT_ROUNDS = 2
/** Lines not understood, one after the other, before it is told. */
const GARBLED_LINES = 12
/** Level each round; registration and operator once in so many. */
const REGISTRATION_EACH = 5
const OPERATOR_EACH = 25
/** Lines kept of the talk, to be saved as a recording. */
const MOST_RECORDED = 200_000

export interface SessionOptions {
  /** between rounds, ms */
  everyMs?: number
  now?: () => number
}

export class ModemSession {
  private lines = new LineCutter()
  private waiting: { end: (f: Final | null) => void } | null = null
  private state = unknownState()
  private sent = ''
  private garbled = 0
  private silent = 0
  private running = true
  private recorded: { atMs: number; line: string }[] = []
  private readonly now: () => number
  private readonly everyMs: number

  constructor(
    private readonly link: ModemPort,
    private readonly events: SessionEvents,
    o: SessionOptions = {},
  ) {
    this.now = o.now ?? Date.now
    this.everyMs = o.everyMs ?? 100
    link.onText(text => {
      for (const line of this.lines.add(text)) this.take(line)
    })
    link.onGone(why => {
      if (!this.running) return
      this.running = false
      this.waiting?.end(null)
      events.gone(why)
    })
  }

  /** Asks until it is stopped or the link goes. */
  async run(): Promise<void> {
    if (this.link.kind === 'recording') {
      // Nothing is asked: its answers come in their own time.
      this.link.write('')
      return
    }
    await this.ask('ATE0')
    await this.ask('AT+CEREG=2')
    for (let round = 0; this.running; round++) {
      let level = await this.ask('AT+CESQ')
      // Some modems know the older command alone.
      if (level && !level.ok) level = await this.ask('AT+CSQ')
      if (round % REGISTRATION_EACH === 0) await this.ask('AT+CEREG?')
      if (round % OPERATOR_EACH === 0) await this.ask('AT+COPS?')
      this.tell(level)
      await new Promise(done => setTimeout(done, this.everyMs))
    }
  }

  stop(): void {
    this.running = false
    this.waiting?.end(null)
    this.link.close()
  }

  /** The talk so far, to be replayed: a line each, milliseconds from its begin before it. */
  recording(): string {
    const from = this.recorded[0]?.atMs ?? 0
    return this.recorded.map(r => `${r.atMs - from} ${r.line}`).join('\n')
  }

  private tell(level: Final | null): void {
    if (!this.running) return
    this.silent = level ? 0 : this.silent + 1
    if (this.silent >= SILENT_ROUNDS) this.events.trouble('The modem does not answer: is another program talking to it?')
    else if (this.garbled >= GARBLED_LINES)
      this.events.trouble('What comes from the port is no modem’s answer: another port, or another speed.')
    else if (level && !level.ok) this.events.trouble(level.why)
    else {
      this.events.trouble(null)
      if (level) this.events.sample({ ...this.state, atMs: this.now() })
    }
  }

  private ask(command: string): Promise<Final | null> {
    if (!this.running) return Promise.resolve(null)
    return new Promise(done => {
      const timer = setTimeout(() => this.waiting?.end(null), ANSWER_WITHIN_MS)
      this.waiting = {
        end: f => {
          clearTimeout(timer)
          this.waiting = null
          done(f)
        },
      }
      this.sent = command
      this.link.write(`${command}\r`)
    })
  }

  private take(line: string): void {
    if (this.recorded.length < MOST_RECORDED) this.recorded.push({ atMs: this.now(), line })
    // Its echo.
    if (line === this.sent) return
    const final = readFinal(line)
    if (final) {
      this.garbled = 0
      this.waiting?.end(final)
      return
    }
    const said = readAnswer(line)
    if (!said) {
      this.garbled++
      return
    }
    this.garbled = 0
    this.state = { ...this.state, ...said }
    const level = 'rsrpDbm' in said || 'rssiDbm' in said
    if (level && this.running && this.link.kind === 'recording') this.events.sample({ ...this.state, atMs: this.now() })
  }
}
