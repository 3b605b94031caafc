import { describe, expect, it } from 'vitest'
import { entryOf, lastOf, nth, sure } from './sure'

describe('what must be there', () => {
  it('is given back as it is, nothing and zero told apart', () => {
    expect(nth([5, 0], 1)).toBe(0)
    expect(nth(Float64Array.of(1, 2), 0)).toBe(1)
    expect(lastOf('abc')).toBe('c')
    expect(entryOf(new Map([['a', null]]), 'a')).toBeNull()
    expect(sure(0)).toBe(0)
    expect(sure('')).toBe('')
  })

  it('stops the program where it is missing', () => {
    expect(() => nth([1], 1)).toThrow('place 1 of 1')
    expect(() => nth([1], -1)).toThrow(RangeError)
    expect(() => lastOf([])).toThrow(RangeError)
    expect(() => entryOf(new Map(), 'a')).toThrow('nothing is kept under a')
    expect(() => sure(null)).toThrow(RangeError)
    expect(() => sure(undefined)).toThrow(RangeError)
  })
})
