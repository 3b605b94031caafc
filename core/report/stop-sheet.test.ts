import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { BARE_FIXING } from '../job/fixing'
import { nextStop, stopSheet } from './stop-sheet'

const STOP = { groundM: 0, zone: 'UTC', arriveOn: null, leaveOn: null, headingDeg: null, swingDeg: 0, notes: null }
function van(): House {
  const h = new House('router', 'vehicle')
  const here = h.add('stops', { ...STOP, name: 'Quay', latDeg: 50, lonDeg: -30, arriveOn: '2026-05-01', headingDeg: 0 })
  h.add('stops', { ...STOP, name: 'Dune', latDeg: 50.2, lonDeg: -30.1, arriveOn: '2026-05-09' })
  h.add('stops', { ...STOP, name: 'Weir', latDeg: 50.1, lonDeg: -30.1, arriveOn: '2026-05-04' })
  h.set('jobs', h.doc.jobs[0]!.id, { stopId: here })
  return h
}
const rows = (h: House, prepared: boolean | null = null) =>
  new Map(
    stopSheet(h.doc, h.assess(), { units: 'metric', crew: 'Crew', prepared }).blocks.flatMap(b =>
      b.kind === 'facts' ? b.rows : [],
    ),
  )

describe('the sheet of a stop', () => {
  it('says pitch, mast, bearing from the nose, and that an omni is not aimed', () => {
    const says = rows(van())
    // The mast stands to the west: a quarter turn left of a nose that looks north.
    expect(says.get('Nose')).toContain('000° true, parked')
    expect(says.get('From the nose')).toBe('90° left of the nose')
    expect(says.get('Mast')).toContain('West')
    expect(says.get('Aim')).toContain('hears all round')
  })
  it('names the next stop by its day, and whether this device is ready for it', () => {
    const h = van()
    expect(nextStop(h.doc)!.name).toBe('Weir')
    expect(rows(h, false).get('For no coverage')).toBe('not prepared yet')
    expect(rows(h, true).get('For no coverage')).toContain('on this device')
    expect(rows(h).has('For no coverage')).toBe(false)
  })
  it('a struck pole counts for the wind and not for the height to drive with', () => {
    const h = van()
    const before = rows(h).get('Height to drive with')!
    const antenna = h.doc.nodes.find(n => n.part?.kind === 'antenna')!
    const sections = [{ outsideMm: 40, wallMm: 3, lengthM: 2 }]
    h.set('nodes', antenna.id, {
      upM: antenna.upM + 2,
      fixing: { ...BARE_FIXING, mount: 'ladder clamp', sections, apartM: 0.8, grade: '6061-T6' },
    })
    const says = rows(h)
    expect(says.get('Comes down first')).toContain('omni')
    // A short stout pole: its limit lies far over any wind, and is no figure to drive by.
    expect(says.get('Wind')).toMatch(/stays up: stands the strongest gust taken, \d+ m\/s/)
    const metres = (s: string) => Number(/([\d.]+)\sm/.exec(s)![1])
    expect(metres(says.get('Height to drive with')!)).toBeLessThanOrEqual(metres(before))
    expect(says.get('Minutes')).toMatch(/[1-9]\d* to strike/)
  })
  it('where stronger gusts are taken, the same pole comes down before its limit', () => {
    const h = van()
    const antenna = h.doc.nodes.find(n => n.part?.kind === 'antenna')!
    const sections = [{ outsideMm: 40, wallMm: 3, lengthM: 2 }]
    h.set('sites', h.doc.sites[0]!.id, { gustMs: 90 })
    h.set('nodes', antenna.id, {
      upM: antenna.upM + 2,
      fixing: { ...BARE_FIXING, mount: 'ladder clamp', sections, apartM: 0.8, grade: '6061-T6' },
    })
    expect(rows(h).get('Wind')).toMatch(/comes down before gusts of \d+ m\/s/)
  })
  it('what is not noted is said, not left out', () => {
    const h = van()
    const says = rows(h)
    for (const what of ['Wind', 'Comes down first']) expect(says.get(what)).toBe('what holds it is not noted')
    h.set('stops', h.doc.stops[0]!.id, { headingDeg: null })
    expect(rows(h).get('Nose')).toContain('not noted')
  })
})
