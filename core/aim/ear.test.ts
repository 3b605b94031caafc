import { describe, expect, it } from 'vitest'
import { earShare, pitchHz, pulseHz } from './ear'

describe('by ear', () => {
  it('better is always higher, of every quantity', () => {
    const values = {
      SINR: [-4, 0, 10, 24],
      RSRP: [-118, -100, -80, -71],
      RSRQ: [-19, -12, -6],
      down: [0.2, 1, 10, 90],
      up: [0.1, 1, 40],
      lamps: [0, 1, 2, 3, 4, 5],
    } as const
    for (const [q, list] of Object.entries(values)) {
      const pitches = list.map(v => pitchHz(earShare(q as keyof typeof values, v)))
      expect(pitches).toEqual([...pitches].sort((a, b) => a - b))
      expect(new Set(pitches).size).toBe(list.length)
    }
  })
  it('two decibels are a step that is heard: more than a semitone over the scale of SINR', () => {
    const cents = 1200 * Math.log2(pitchHz(earShare('SINR', 12)) / pitchHz(earShare('SINR', 10)))
    expect(cents).toBeGreaterThan(100)
  })
  it('stays within what a phone’s loudspeaker gives', () => {
    for (const v of [-1e6, 0, 1e6, Number.MIN_VALUE]) {
      expect(pitchHz(earShare('RSRP', v))).toBeGreaterThanOrEqual(200)
      expect(pitchHz(earShare('down', v))).toBeLessThanOrEqual(1500)
    }
  })
  it('pulses run while it rises and crawl while it falls', () => {
    expect(pulseHz(0.2)).toBeGreaterThan(pulseHz(0))
    expect(pulseHz(-0.2)).toBeLessThan(pulseHz(0))
    expect(pulseHz(9)).toBe(9)
    expect(pulseHz(-9)).toBe(1.5)
  })
})
