import { describe, expect, it } from 'vitest'
import { begun, concat, keyOf, listed, metres, overLand, pseudo, say, Said, sentenceOf, words } from './words'

const up = words`raise the donor ${metres(2.1)}`

describe('sentences as values', () => {
  it('are said in the units of who reads', () => {
    expect(say(up, 'metric')).toBe('raise the donor 2.1\u2009m')
    // 2.1 m is 6.89 ft: 1 ft is 0.3048 m by its definition.
    expect(say(up, 'imperial')).toBe('raise the donor 6.9\u2009ft')
    // 1 mi is 1609.344 m by its definition.
    expect(say(words`${overLand(11_265.408)} out`, 'imperial')).toBe('7.0\u2009mi out')
    expect(say(words`${overLand(11_265.408)} out`, 'metric')).toBe('11.3\u2009km out')
  })
  it('a quarter of a metre is told as such, a foot keeps one decimal', () => {
    expect(say(words`${metres(0.25)}`, 'metric')).toBe('0.25\u2009m')
    expect(say(words`${metres(0.2)}`, 'metric')).toBe('0.2\u2009m')
    expect(say(words`${metres(0.25)}`, 'imperial')).toBe('0.8\u2009ft')
  })
  it('without a quantity they are their text', () => {
    expect(words`a ${'b'} ${3}`).toBe('a b 3')
    expect(concat('a', '', 'b')).toBe('ab')
    expect(listed(['a', 'b'], ', ')).toBe('a, b')
    expect(sentenceOf('it is short')).toBe('It is short.')
  })
  it('hold what they are made of, whatever is put around them', () => {
    const long = concat(words`${up}, `, listed([up, 'wait'], '; '))
    expect(say(long, 'metric')).toBe('raise the donor 2.1\u2009m, raise the donor 2.1\u2009m; wait')
    expect(say(begun(up), 'metric')).toBe('Raise the donor 2.1\u2009m')
    expect(say(begun(words`${metres(1)} up`), 'metric')).toBe('1.0\u2009m up')
    expect(say(sentenceOf(up), 'imperial')).toBe('Raise the donor 6.9\u2009ft.')
  })
  it('are refused as text, loudly', () => {
    expect(up).toBeInstanceOf(Said)
    expect(() => `${up as string}`).toThrow('say(words, units)')
    expect(() => String(up)).toThrow(TypeError)
  })
  it('come through a worker and a store as they were', () => {
    const sent = structuredClone(up)
    expect(say(sent, 'metric')).toBe(say(up, 'metric'))
    expect(say(JSON.parse(JSON.stringify(up)), 'imperial')).toBe(say(up, 'imperial'))
    expect(keyOf(sent)).toBe(keyOf(up))
  })
  it('of a handover that was frozen as text are said as they were', () => {
    expect(say('raise the donor {m:2.10}, {km:11265} out', 'metric')).toBe('raise the donor 2.1\u2009m, 11.3\u2009km out')
    expect(keyOf(words`${up}, ${overLand(11_265)} out`)).toBe('raise the donor {m:2.10}, {km:11265} out')
  })
  it('in the language that needs more room every word is longer by two fifths, and no quantity is touched', () => {
    const long = say(pseudo(words`turn it ${metres(2)} along`), 'metric')
    expect(long).toBe('türnææ ïtæ 2.0\u2009m åløngææ')
    expect(long.length / 'turn it 2.0 m along'.length).toBeGreaterThan(1.2)
  })
})
