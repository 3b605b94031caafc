import { describe, expect, it } from 'vitest'
import { InlineWorker } from '../../tests/support/inline-worker'
import { parsed } from './parsed'

const LINE = '0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n6\n21\n0\n0\nENDSEC\n0\nEOF\n'
const given = <W extends InlineWorker>(worker: W, longestMs?: number) => ({ make: () => worker as unknown as Worker, longestMs })

describe('a file read in a worker of its own', () => {
  it('is answered, refused in words, and the worker ends either way', async () => {
    const [good, bad] = [new InlineWorker(), new InlineWorker()]
    expect((await parsed('dxf', LINE, given(good))).lines).toEqual([{ x1: 0, y1: 0, x2: 6, y2: 0 }])
    await expect(parsed('dxf', LINE.replace('LINE', 'POLYLINE'), given(bad))).rejects.toThrow('a polyline has no end')
    expect([good.ended, bad.ended]).toEqual([true, true])
  })
  it('one that keeps its reader busy is stopped and said, and its worker ended', async () => {
    class Busy extends InlineWorker {
      override postMessage(): void {}
    }
    const busy = new Busy()
    await expect(parsed('dxf', LINE, given(busy, 20))).rejects.toThrow('took more than 0.02 s and was stopped')
    expect(busy.ended).toBe(true)
  })
  it('a worker that does not load is said', async () => {
    class Gone extends InlineWorker {
      private failed: (() => void) | null = null
      override addEventListener(type: string, listener: (e: { data: unknown }) => void): void {
        if (type === 'error') this.failed = () => listener({ data: null })
      }
      override postMessage(): void {
        this.failed!()
      }
    }
    await expect(parsed('exif', new ArrayBuffer(0), given(new Gone()))).rejects.toThrow('did not load')
  })
})
