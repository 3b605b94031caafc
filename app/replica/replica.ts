/**
 * Keeps a member's work on the device and brings it to the server: one sender a browser, every job with
 * unsent work, open or not. It knows no screen, no network and no framework: those are handed to it.
 */
import type { Change } from '#core/job'
import type { ChangeResult, Feed, JobSnapshot } from '../../shared/api'
import { conflictId, withFeed, withRightTimes } from './model'
import type { Aside, Base, Conflict, Pending } from './model'
import type { ReplicaStore } from './store'

/** How the server is spoken to. Failures are told as `Answer` says. */
export interface Transport {
  post: (jobId: string, batch: { device: string; since?: number; changes: Change[] }) => Promise<ChangeResult>
  feed: (jobId: string, since: number) => Promise<Feed>
  snapshot: (jobId: string) => Promise<JobSnapshot>
  /** a picture's bytes; the row that says where it lies goes as a change */
  putPicture: (jobId: string, id: string, bytes: ArrayBuffer) => Promise<unknown>
}

/** A failure that the server told, with its status. */
export interface Told {
  status: number
  message: string
  errors?: { field: string; message: string }[]
}
export const isTold = (e: unknown): e is Told & Error => typeof (e as Told).status === 'number'

export interface ReplicaParts {
  store: ReplicaStore
  transport: Transport
  device: string
  newId: () => string
  /** what is to be added to this clock to get the server's, ms; null where it was not heard yet */
  clockOffsetMs: () => number | null
  nowUtc: () => string
  /** runs alone among all tabs of the browser */
  alone: <T>(work: () => Promise<T>) => Promise<T>
  /** tells this tab and the others: a change was written, or what is known of the job has moved on */
  tell: (jobId: string, what: 'written' | 'moved') => void
}

export type SendState = 'sent' | 'offline' | 'signed-out' | 'failing'

/** The server takes 1 MB and 500 changes; a slow link is better served by less. */
const MOST_BYTES = 300_000
const MOST_CHANGES = 200
/** After a connection that was cut on the way less is sent at once, down to this. */
const LEAST_BYTES = 8000
/** So many jobs in a row that get no answer at all: there is no connection. */
const NO_ANSWERS = 2

const SIGNED_OUT = 401
/** The job cannot be written by this member, or is not there: nothing of it can be sent. */
const REFUSED_WHOLE = [403, 404, 410]
/** It may go through later: too many requests, or the server is in trouble. */
const mayPass = (status: number): boolean => status === 408 || status === 425 || status === 429 || status >= 500

/** A sending that is to be tried again later. */
class Later extends Error {
  constructor(readonly state: SendState) {
    super(state)
  }
}

export class Replica {
  constructor(private readonly parts: ReplicaParts) {}

  private mostBytes = MOST_BYTES

  get owner(): string {
    return this.parts.store.owner
  }

  /** Keeps changes, in order, before anything else is done with them. */
  async edit(jobId: string, changes: readonly Change[]): Promise<void> {
    await this.parts.store.addPending(jobId, changes, this.parts.clockOffsetMs())
    this.parts.tell(jobId, 'written')
  }

  /** @param known  the base as it was read before: it is opened again only where it has moved on */
  async read(
    jobId: string,
    known: Base | null = null,
  ): Promise<{ base: Base | null; pending: Pending[]; asides: Aside[]; conflicts: Conflict[] }> {
    const { store } = this.parts
    // Pending first: what is acknowledged between the two looks is then in both, and applying it twice does nothing.
    const pending = await store.pending(jobId)
    const same = known !== null && (await store.sequence(jobId)) === known.sequence
    const [base, asides, conflicts] = await Promise.all([
      same ? known : store.base(jobId),
      store.asides(jobId),
      store.conflicts(jobId),
    ])
    return { base, pending, asides, conflicts }
  }

  /**
   * Sends all that waits, job after job, while no other tab does. A job that cannot be sent holds up no
   * other.
   */
  async send(): Promise<SendState> {
    const { store, alone } = this.parts
    if (!(await store.waiting()).size) return 'sent'
    return alone(async () => {
      let worst: SendState = 'sent'
      let noAnswers = 0
      for (const jobId of (await store.changed()).keys()) {
        const state = await this.sendJob(jobId).then(
          () => 'sent' as const,
          (e: unknown) => {
            if (e instanceof Later) return e.state
            throw e
          },
        )
        if (state === 'signed-out') return state
        noAnswers = state === 'offline' ? noAnswers + 1 : 0
        // One job that gets no answer holds up no other; several in a row are no connection.
        if (noAnswers >= NO_ANSWERS) return 'offline'
        if (state !== 'sent') worst = state
      }
      const pictures = await this.sendPictures()
      return pictures === 'sent' ? worst : pictures
    })
  }

  /**
   * Bytes of pictures go after the rows of their job, which never wait for them, and only once that job stands. What the
   * server will not have is kept and said.
   */
  private async sendPictures(): Promise<SendState> {
    const { store, transport } = this.parts
    const unsent = await store.changed()
    let worst: SendState = 'sent'
    for (const { id, jobId } of await store.uploads()) {
      if (unsent.has(jobId)) continue
      const bytes = await store.picture(id)
      try {
        if (bytes) await transport.putPicture(jobId, id, bytes)
        await store.uploaded(id)
      } catch (e) {
        if (!isTold(e)) return 'offline'
        if (e.status === SIGNED_OUT) return 'signed-out'
        if (mayPass(e.status)) worst = 'failing'
        else await this.refusePicture(jobId, id, e)
      }
    }
    return worst
  }

  /** A picture that the server will not have stays here, and stands among what was put aside until a person lets go of it. */
  private async refusePicture(jobId: string, id: string, why: Told): Promise<void> {
    const { store, tell } = this.parts
    const change: Change = { id: this.parts.newId(), table: 'photos', rowId: id, op: 'update', baseVersion: 0, fields: {} }
    const detail = `A picture could not be sent: ${why.message}`
    await store.refusePicture(id)
    await store.putAside(this.aside(jobId, change, { detail }))
    tell(jobId, 'moved')
  }

  /**
   * Sends changes that found no room on this device: they are on the server then, or nowhere.
   * @returns the sequence that they were taken under; null where they were not
   */
  async sendUnkept(jobId: string, changes: readonly Change[]): Promise<number | null> {
    try {
      const answer = await this.parts.transport.post(jobId, { device: this.parts.device, changes: [...changes] })
      return answer.rejected.length ? null : answer.sequence
    } catch {
      return null
    }
  }

  private async sendJob(jobId: string): Promise<void> {
    const { store } = this.parts
    let most = MOST_CHANGES
    for (;;) {
      const batch = await store.pending(jobId, most, this.mostBytes)
      if (!batch.length) return
      const base = await store.base(jobId)
      const answer = await this.post(jobId, batch, base).catch((e: unknown) => {
        // Cut on the way: the next time less goes at once, so that some of it gets through.
        if (!isTold(e)) this.mostBytes = Math.max(LEAST_BYTES, Math.floor(this.mostBytes / 2))
        return this.refusedBatch(e)
      })
      if (!('why' in answer)) {
        this.mostBytes = Math.min(MOST_BYTES, this.mostBytes * 2)
        await this.settleAnswer(jobId, batch, base, answer)
        most = MOST_CHANGES
      } else if (REFUSED_WHOLE.includes(answer.why.status)) {
        await this.putAside(jobId, await store.pending(jobId), answer.why)
      } else if (batch.length > 1) {
        most = Math.ceil(batch.length / 2)
      } else {
        await this.putAside(jobId, batch, answer.why)
      }
    }
  }

  private post(jobId: string, batch: readonly Pending[], base: Base | null): Promise<ChangeResult> {
    const offset = this.parts.clockOffsetMs()
    const changes = batch.map(p => withRightTimes(p, offset))
    return this.parts.transport.post(jobId, { device: this.parts.device, changes, ...(base ? { since: base.sequence } : {}) })
  }

  /** @returns why the server will not have it as it is. @throws Later where it may pass */
  private refusedBatch(e: unknown): { why: Told } {
    if (!isTold(e)) throw new Later('offline')
    if (e.status === SIGNED_OUT) throw new Later('signed-out')
    if (mayPass(e.status)) throw new Later('failing')
    return { why: { status: e.status, message: e.message, errors: e.errors } }
  }

  /** Takes an answer over at one stroke: the base moves on, what was taken goes, what was refused is put aside. */
  private async settleAnswer(jobId: string, batch: readonly Pending[], base: Base | null, answer: ChangeResult): Promise<void> {
    const { store, transport, tell } = this.parts
    const refused = new Map(answer.rejected.map(r => [r.changeId, r]))
    const taken = new Set(answer.versions.map(v => v.changeId))
    // A change that the answer does not name was not taken: it is not let go of unseen.
    const asides = batch
      .filter(p => refused.has(p.change.id) || !taken.has(p.change.id))
      .map(p => this.aside(jobId, p.change, refused.get(p.change.id) ?? { detail: 'The server did not say what became of it.' }))
    const conflicts = answer.conflicts.map(c => ({ ...c, jobId, id: conflictId(jobId, c) }))
    const gone = batch.map(p => p.key)
    for (let from = base; ;) {
      const next = await this.moveOn(jobId, from, answer, transport)
      if (await store.commit({ jobId, from: from?.sequence ?? null, base: next ?? undefined, gone, asides, conflicts })) break
      from = await store.base(jobId)
    }
    tell(jobId, 'moved')
  }

  /**
   * @returns the base after an answer; null where there is no such job any more.
   * @throws Later where the job had to be read whole and was not
   */
  private async moveOn(jobId: string, from: Base | null, answer: ChangeResult, transport: Transport): Promise<Base | null> {
    if (from && answer.items && !answer.more && !answer.reset)
      return withFeed(from, { sequence: answer.sequence, items: answer.items })
    try {
      return baseOf(await transport.snapshot(jobId))
    } catch (e) {
      // Refused as a whole: there is no such job on the server, and nothing to move on to.
      if (isTold(e) && e.status === 404) return null
      throw new Later(!isTold(e) ? 'offline' : e.status === SIGNED_OUT ? 'signed-out' : 'failing')
    }
  }

  private aside(jobId: string, change: Change, why: { detail: string; errors?: { field: string; message: string }[] }): Aside {
    return { id: this.parts.newId(), jobId, change, detail: why.detail, errors: why.errors ?? [], atUtc: this.parts.nowUtc() }
  }

  private async putAside(jobId: string, batch: readonly Pending[], why: Told): Promise<void> {
    const { store, tell } = this.parts
    const asides = batch.map(p => this.aside(jobId, p.change, { detail: why.message, errors: why.errors }))
    const gone = batch.map(p => p.key)
    // Void where the base moved on between the two looks: then once more.
    let written = false
    while (!written) written = await store.commit({ jobId, from: await store.sequence(jobId), gone, asides })
    tell(jobId, 'moved')
  }

  /** What others changed since. @returns whether anything came */
  async pull(jobId: string): Promise<boolean> {
    const { store, transport, tell } = this.parts
    const base = await store.base(jobId)
    if (!base) return false
    const feed = await transport.feed(jobId, base.sequence)
    if (feed.reset || feed.more) return this.readWhole(jobId, feed.reset)
    if (feed.sequence === base.sequence) return false
    const moved = await store.commit({ jobId, from: base.sequence, base: withFeed(base, feed) })
    if (moved) tell(jobId, 'moved')
    return moved
  }

  /** Reads the job whole. @param anyway  also where the server knows less: it was restored from an older backup */
  async readWhole(jobId: string, anyway = false, snapshot?: JobSnapshot): Promise<boolean> {
    const { store, transport, tell } = this.parts
    const next = baseOf(snapshot ?? (await transport.snapshot(jobId)))
    const held = await store.sequence(jobId)
    if (held !== null && next.sequence < held && !anyway) return false
    const taken = await store.commit({ jobId, from: held, base: next })
    if (taken) tell(jobId, 'moved')
    return taken
  }

  /** A refused change is taken up again, as it was or mended: a new change, last in order. */
  async takeUp(a: Aside, fields: Record<string, unknown> = {}): Promise<void> {
    const base = await this.parts.store.sequence(a.jobId)
    await this.edit(a.jobId, [
      { ...a.change, id: this.parts.newId(), baseVersion: base ?? 0, fields: { ...a.change.fields, ...fields } },
    ])
    await this.letGo(a)
  }

  async letGo(a: Aside): Promise<void> {
    await this.parts.store.removeAside(a.id)
    if (a.change.table === 'photos') await this.parts.store.uploaded(a.change.rowId)
    this.parts.tell(a.jobId, 'moved')
  }

  /** A person has chosen: mine is written again over theirs, or theirs stays. */
  async settle(c: Conflict, choice: 'mine' | 'theirs'): Promise<void> {
    if (choice === 'mine') {
      const base = await this.parts.store.sequence(c.jobId)
      await this.edit(c.jobId, [
        {
          id: this.parts.newId(),
          table: c.table,
          rowId: c.rowId,
          op: 'update',
          baseVersion: base ?? 0,
          fields: { [c.field]: c.mine },
        },
      ])
    }
    await this.parts.store.removeConflict(c.id)
    this.parts.tell(c.jobId, 'moved')
  }
}

const baseOf = ({ sequence, document }: JobSnapshot): Base => ({ sequence, document })
