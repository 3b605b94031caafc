/** What came last, and no more: an hour at ten a second. Only what is kept becomes a reading. */
import { median } from '#core/survey'
import type { Sample } from './session'

export const MEASURED = ['rsrpDbm', 'rsrqDb', 'sinrDb', 'rssiDbm'] as const
export type Measured = (typeof MEASURED)[number]

export class Ring {
  private readonly at: Float64Array
  private readonly values: Record<Measured, Float32Array>
  private next = 0
  length = 0

  constructor(private readonly capacity = 36_000) {
    this.at = new Float64Array(capacity)
    this.values = Object.fromEntries(MEASURED.map(m => [m, new Float32Array(capacity)])) as Record<Measured, Float32Array>
  }

  push(s: Sample): void {
    this.at[this.next] = s.atMs
    for (const m of MEASURED) this.values[m][this.next] = s[m]?.value ?? Number.NaN
    this.next = (this.next + 1) % this.capacity
    this.length = Math.min(this.capacity, this.length + 1)
  }

  /** @returns what was told of a quantity since a moment, oldest first; what was not known is left out */
  since(what: Measured, fromMs: number): { atMs: number; value: number }[] {
    const out: { atMs: number; value: number }[] = []
    for (let k = 1; k <= this.length; k++) {
      const i = (this.next - k + this.capacity) % this.capacity
      if (this.at[i]! < fromMs) break
      const value = this.values[what][i]!
      if (!Number.isNaN(value)) out.push({ atMs: this.at[i]!, value })
    }
    return out.reverse()
  }

  /** @returns the median since a moment, to a tenth; null where nothing was told */
  median(what: Measured, fromMs: number): number | null {
    const list = this.since(what, fromMs)
    return list.length ? Math.round(median(list.map(x => x.value)) * 10) / 10 : null
  }

  clear(): void {
    this.length = 0
    this.next = 0
  }
}
