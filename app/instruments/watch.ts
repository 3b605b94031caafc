/** A link watched: an answer asked for again and again, and what was lost between. Needs no figure of any modem. */

export interface Watched {
  seconds: number
  drops: number
  longestS: number
  lostS: number
  /** it does not answer now */
  down: boolean
  /** mark of the public address of the last answer */
  via: string | null
  /** of the last answer, ms */
  answerMs: number | null
}

export interface WatchOptions {
  /** asks once; @returns a mark of the way it came by; fails where nothing answers in time */
  ask: (signal: AbortSignal) => Promise<string>
  everyMs: number
  now: () => number
  told: (w: Watched) => void
  /** waits, or until stopped */
  pause: (ms: number, signal: AbortSignal) => Promise<void>
}

/** Of a drill: when the line was pulled and put back, and what was seen after each. */
export interface Drill {
  switchS: number | null
  backS: number | null
}

/** An answer that takes longer than this is a drop-out. Assumed, ms: a call hears it. */
export const LOST_AFTER_MS = 2000

export class LinkWatch {
  private readonly began: number
  private drops = 0
  private longestMs = 0
  private lostMs = 0
  private lostSince: number | null = null
  private via: string | null = null
  private answerMs: number | null = null
  private home: string | null = null
  private pulledAt: number | null = null
  private returnedAt: number | null = null
  private wasLost = false
  readonly drill: Drill = { switchS: null, backS: null }

  constructor(private readonly o: WatchOptions) {
    this.began = o.now()
  }

  /** Watches until it is stopped. */
  async run(signal: AbortSignal): Promise<Watched> {
    while (!signal.aborted) {
      const asked = this.o.now()
      const via = await this.o.ask(signal).catch(() => null)
      if (signal.aborted) break
      const now = this.o.now()
      if (via === null) this.lost(asked)
      else this.answered(now, now - asked, via)
      this.o.told(this.state())
      await this.o.pause(Math.max(0, this.o.everyMs - (this.o.now() - asked)), signal)
    }
    return this.state()
  }

  /** The main line was pulled now. */
  pull(): void {
    this.pulledAt = this.o.now()
    this.home = this.via
    this.wasLost = false
  }
  /** Goes on with what was pulled before a reload: the address before it is not known, so that a gap alone tells. */
  resume(pulledAt: number, returnedAt: number | null): void {
    this.pulledAt = pulledAt
    this.returnedAt = returnedAt
    this.home = null
    this.wasLost = false
  }
  /** Whether the other connection has another public address; null where one of them is not known. */
  get addressChanged(): boolean | null {
    return this.home === null || this.awayVia === null ? null : this.awayVia !== this.home
  }
  /** It was put back now. */
  putBack(): void {
    this.returnedAt = this.o.now()
    this.wasLost = false
  }

  state(): Watched {
    const now = this.o.now()
    const open = this.lostSince === null ? 0 : now - this.lostSince
    return {
      seconds: (now - this.began) / 1000,
      drops: this.drops,
      longestS: Math.max(this.longestMs, open) / 1000,
      lostS: (this.lostMs + open) / 1000,
      down: this.lostSince !== null,
      via: this.via,
      answerMs: this.answerMs,
    }
  }

  private lost(since: number): void {
    this.answerMs = null
    this.wasLost = true
    if (this.lostSince !== null) return
    this.lostSince = since
    this.drops++
  }

  private answered(now: number, ms: number, via: string): void {
    if (this.lostSince !== null) {
      const lost = now - this.lostSince
      this.lostMs += lost
      this.longestMs = Math.max(this.longestMs, lost)
      this.lostSince = null
    }
    this.answerMs = ms
    this.via = via
    // Another address tells of another way; behind one address for both, the gap does.
    const since = (at: number) => Math.max(0, (now - at) / 1000)
    if (this.returnedAt !== null) {
      const home = this.home === null || via === this.home
      const moved = this.drill.switchS !== null && this.awayVia !== this.home ? home : this.wasLost
      if (this.drill.backS === null && moved) this.drill.backS = since(this.returnedAt)
    } else if (this.pulledAt !== null && this.drill.switchS === null && (this.isOther(via) || this.wasLost)) {
      this.drill.switchS = since(this.pulledAt)
      this.awayVia = via
    }
  }
  private awayVia: string | null = null
  private isOther(via: string): boolean {
    return this.home !== null && via !== this.home
  }
}

/** @returns a watch of our own server over whatever link this device has */
export function watchServer(told: (w: Watched) => void, everyMs = 1000): LinkWatch {
  return new LinkWatch({
    everyMs,
    told,
    now: () => performance.timeOrigin + performance.now(),
    async ask(signal) {
      const late = AbortSignal.any([signal, AbortSignal.timeout(LOST_AFTER_MS)])
      const response = await fetch('/api/speed/ping', { signal: late, cache: 'no-store' })
      if (!response.ok) throw new Error(`The server answered ${response.status}.`)
      return ((await response.json()) as { via: string }).via
    },
    pause: (ms, signal) =>
      new Promise(done => {
        const timer = setTimeout(done, ms)
        signal.addEventListener('abort', () => {
          clearTimeout(timer)
          done()
        })
      }),
  })
}
