/** A browser in memory for the tests of what a device holds: its database, its one sender, and as many tabs as are opened. */
import 'fake-indexeddb/auto'
import { v7 as uuidv7 } from 'uuid'
import type { Change } from '#core/job'
import { change } from './contract'
import type { FakeServer } from './fake-server'
import { Replica } from './replica'
import { keyOf } from './sealed'
import { openDevice, ReplicaStore } from './store'
import type { DeviceDb } from './store'

export const rawKey = (n: number): string => btoa(String.fromCharCode(...Array.from({ length: 32 }, (_, i) => (i * 7 + n) % 256)))
export const spot = (name: string, upM = 1) => ({ name, eastM: 0, northM: 0, upM, indoors: true, needed: false })
export const newJob = (jobId: string, name = 'Of the test'): Change =>
  change('jobs', 'insert', jobId, { fields: { name, kind: 'home', stopId: null, designId: null, baselineSpotId: null } })

let databases = 0
export class Browser {
  readonly device = uuidv7()
  private tail: Promise<unknown> = Promise.resolve()
  clockOffsetMs: number | null = 0
  told: string[] = []

  private constructor(
    readonly db: DeviceDb,
    private readonly server: FakeServer,
  ) {}

  static async open(server: FakeServer): Promise<Browser> {
    return new Browser(await openDevice(`test-${databases++}`), server)
  }

  async tab(owner = 'ila', n = 1): Promise<{ replica: Replica; store: ReplicaStore }> {
    const store = new ReplicaStore(this.db, owner, await keyOf(rawKey(n)))
    const alone = <T>(work: () => Promise<T>): Promise<T> => {
      const next = this.tail.then(work, work)
      this.tail = next.catch(() => {})
      return next
    }
    const replica = new Replica({
      store,
      transport: this.server.transport(),
      device: this.device,
      newId: uuidv7,
      alone,
      nowUtc: () => '2026-04-03T12:00:00.000Z',
      clockOffsetMs: () => this.clockOffsetMs,
      tell: jobId => this.told.push(jobId),
    })
    return { replica, store }
  }
}
