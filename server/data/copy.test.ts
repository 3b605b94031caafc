import { describe, expect, it } from 'vitest'
import { copyRow } from './copy'

describe('COPY text format', () => {
  it('separates by tabs, ends with a line, and marks what is missing', () =>
    expect(copyRow(['a', 1.5, null])).toBe('a\t1.5\t\\N\n'))
  it('keeps tabs, line ends and backslashes as text', () => expect(copyRow(['a\tb\nc\\d\re'])).toBe('a\\tb\\nc\\\\d\\re\n'))
  it('drops the one character the format cannot hold', () => expect(copyRow(['a\u0000b'])).toBe('ab\n'))
})
