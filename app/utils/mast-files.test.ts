import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { asHtml, plainText } from './mast-files'

describe('descriptions of a KML', () => {
  it('hold no markup, whatever a list holds', () => {
    expect(asHtml('carrier=<img src=x onerror="alert(1)">; band=B3 & more')).toBe(
      'carrier=&lt;img src=x onerror=&quot;alert(1)&quot;&gt;; band=B3 &amp; more',
    )
    fc.assert(fc.property(fc.string(), t => !/[<>"]/.test(asHtml(t))))
  })
  it('come back as they were', () => fc.assert(fc.property(fc.string(), t => plainText(asHtml(t)) === t)))
})
