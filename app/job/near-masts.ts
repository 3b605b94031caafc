/** The crew's masts near the stop at which an open job stands: lent to the job, kept on the device for each stop. */
import type { NearMasts } from '../../shared/api'

/** Where the masts near a stop are kept on this device; of the job's own place where there is none. */
export const nearKey = (jobId: string, stopId: string | null): string => `near:${jobId}:${stopId ?? 'home'}`

export interface NearParts {
  kept: (name: string) => Promise<NearMasts | undefined>
  keep: (name: string, masts: NearMasts) => Promise<void>
}

const NONE: NearMasts = { masts: [], cells: [] }

export class NearHere {
  masts: NearMasts | null = null
  /** the stop they are of; undefined before any were lent */
  private stopId: string | null | undefined = undefined

  constructor(
    private readonly jobId: string,
    private readonly parts: NearParts,
  ) {}

  areOf(stopId: string | null): boolean {
    return this.stopId === stopId
  }

  lend(masts: NearMasts, stopId: string | null): void {
    this.masts = masts
    this.stopId = stopId
  }

  /** Those kept on this device for a stop, where they are not lent already. @returns whether there were any */
  async fromDevice(stopId: string | null): Promise<boolean> {
    if (this.areOf(stopId)) return true
    const kept = await this.parts.kept(nearKey(this.jobId, stopId))
    if (kept) this.lend(kept, stopId)
    return !!kept
  }

  /** Those that the server told, kept for the next time without a connection; lent where the job stands there. */
  async fromServer(masts: NearMasts, stopId: string | null, standsThere: boolean): Promise<void> {
    await this.parts.keep(nearKey(this.jobId, stopId), masts)
    if (standsThere) this.lend(masts, stopId)
  }

  /** Of this stop nothing is known: another's would be a lie. */
  nothing(stopId: string | null): void {
    this.lend(NONE, stopId)
  }
}
