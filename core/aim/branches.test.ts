import { describe, expect, it } from 'vitest'
import { branchWords } from './branches'

describe('two branches', () => {
  it('alike, one weak, one dead; nothing of one alone', () => {
    expect(branchWords(-90, null)).toBe('')
    expect(branchWords(-90, -92)).toContain('both branches work')
    expect(branchWords(-90, -95)).toContain('branch 2 is 5.0 dB under')
    expect(branchWords(-105, -90)).toContain('branch 1 is 15.0 dB under the other: a plug')
    expect(branchWords(-90, -95)).toBe(branchWords(-95, -90).replace('branch 1', 'branch 2'))
  })
})
