/** A worker of the tests: the same readers, run where they are asked for. */
import { READERS } from '../../app/workers/files'
import type { Readers } from '../../app/workers/files'

export class InlineWorker {
  private heard: ((e: { data: unknown }) => void)[] = []
  ended = false

  addEventListener(type: string, listener: (e: { data: unknown }) => void): void {
    if (type === 'message') this.heard.push(listener)
  }
  postMessage({ what, input }: { what: keyof Readers; input: never }): void {
    const say = (data: unknown) => this.ended || this.heard.forEach(l => l({ data }))
    READERS[what](input).then(
      value => say({ value }),
      (why: Error) => say({ refused: why.message }),
    )
  }
  terminate(): void {
    this.ended = true
  }
}
