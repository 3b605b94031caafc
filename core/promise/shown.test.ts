import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { logIndex } from '../survey/spots'
import { mbps } from '../units'
import { linesAt, provenBy } from '../prove/proof'

const CLOCK = { zone: 'UTC', busy: [17, 23] as const }

/** A kitchen read by two set-ups of one device, four tests each in turns. */
function pair(a: Parameters<House['setup']>[0], b: Parameters<House['setup']>[0]) {
  const h = new House('router').reads('Kitchen', -100)
  const [one, two] = [h.setup(a), h.setup(b)]
  for (let i = 0; i < 4; i++)
    h.tests('Kitchen', one, [5], { fromMinute: 20 * i }).tests('Kitchen', two, [25], { fromMinute: 20 * i + 10 })
  const log = logIndex(h.doc)
  const lines = linesAt(h.doc, log, h.spot('Kitchen').id)
  return { lines, shown: provenBy(lines, CLOCK, log.usual) }
}

describe('what two set-ups show', () => {
  it('names the change and both, by their own names where they have them', () => {
    const designId = null
    const low = { antenna: 'outside', designId, antennaUpM: 3 } as const
    expect(pair(low, { ...low, antennaUpM: 8 }).shown.map(s => s.what)).toEqual(['antenna’s height: 3.0 m up → 8.0 m up'])
    expect(pair({ bandLock: 'B20', name: 'slow one' }, { bandLock: 'B3' }).shown[0]!.what).toBe(
      'band lock: slow one → locked to B3',
    )
    expect(pair({ ownAntennas: 'in' }, { ownAntennas: 'out' }).shown[0]).toMatchObject({
      what: 'own antennas: its own antennas on → its own antennas off',
      words: expect.stringMatching(/^5\.0 times/),
    })
  })
  it('height and heading changed together show neither', () => {
    const at = { antenna: 'outside', designId: null, antennaUpM: 3, antennaDeg: 90 } as const
    const { lines, shown } = pair(at, { ...at, antennaUpM: 8, antennaDeg: 120 })
    expect(lines.at(-1)!.changed).toEqual(['antenna’s height', 'antenna’s heading'])
    expect(shown).toEqual([])
  })
})

it('a speed is never told as nothing: 0.04 stays 0.04', () => {
  expect([0, 0.04, 0.4, 5.84, 27.31].map(mbps)).toEqual(['0.0', '0.04', '0.4', '5.8', '27.3'])
})
