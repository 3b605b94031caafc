import { describe, expect, it } from 'vitest'
import { demoScenario } from '../../demo/scenario'
import { House } from '../../tests/support/house'
import { treeOf } from '../chain/tree'
import { BARE_FIXTURE } from '../job/defaults'
import { BARE_FIXING } from '../job/fixing'
import { assess } from '../judge/assess'
import { cardOf } from './card'
import { isLate, waitingOn } from './late'
import { leftOvers, listCsv, listOf, plannedRows, supplyFor } from './list'
import type { Price } from './list'
import { quoteJob } from './quote'

const NONE: ReadonlyMap<string, Price> = new Map()
const list = (h: House, book = NONE) => listOf(h.doc, h.assess().tree, book)
const say = (h: House, key: string, more: Record<string, unknown> = {}) =>
  h.add('supplies', { key, name: null, quantity: null, state: 'ordered', supplier: null, dueOn: null, ...more })
const price = (key: string, more: Partial<Price> = {}): Price => ({
  key,
  minor: 1000,
  supplier: 'Stores',
  leadDays: 3,
  inVan: 0,
  ...more,
})

describe('the list of a job', () => {
  it('holds every part of the tree exactly once, whatever the demo lays out', () => {
    for (const { document } of demoScenario().jobs) {
      const design = document.designs.find(d => d.id === document.jobs[0]!.designId)!
      const tree = treeOf(document, design)
      const rows = plannedRows(document, tree)
      expect(new Set(rows.map(r => r.key)).size).toBe(rows.length)
      const counted = rows.filter(r => r.group === 'parts').reduce((n, r) => n + r.quantity, 0)
      expect(counted, document.jobs[0]!.name).toBe(tree.nodes.length)
      const wanted = new Map<string, number>()
      for (const n of tree.nodes) wanted.set(`part:${n.part.id}`, (wanted.get(`part:${n.part.id}`) ?? 0) + 1)
      for (const [key, n] of wanted) expect(rows.find(r => r.key === key)?.quantity, key).toBe(n)
    }
  })
  it('a card smaller than its slot has its adapter on the list and at its step, one that fits has none', () => {
    const trailer = demoScenario().jobs.find(j => j.document.jobs[0]!.name === 'Long trailer')!.document
    const of = (size: 'nano' | 'micro' | 'mini') => {
      const nodes = trailer.nodes.map(n =>
        n.part?.kind === 'router' ? { ...n, part: { ...n.part, simSize: 'mini' as const } } : n,
      )
      const doc = { ...trailer, nodes, sims: trailer.sims.map(s => ({ ...s, size })) }
      const tree = treeOf(
        doc,
        doc.designs.find(d => d.id === doc.jobs[0]!.designId)!,
      )
      const step = cardOf(doc, assess(doc, { paths: {} }, { atUtc: '2026-04-20T12:00:00.000Z' })).steps.find(s =>
        s.id.startsWith('sim:'),
      )
      return { step, rows: plannedRows(doc, tree).filter(r => r.key.startsWith('use:card:')) }
    }
    const { step, rows } = of('nano')
    expect(step!.parts.filter(p => p === 'adapter, nano card to mini slot')).toHaveLength(3)
    expect(rows).toMatchObject([{ name: 'Adapter, nano card to mini slot', quantity: 3 }])
    expect(of('mini').rows).toEqual([])
  })
  it('what is there is not bought; what its mount wants is', () => {
    const boat = new House('router', 'boat')
    boat.set('nodes', boat.donor.id, {
      fixing: { ...BARE_FIXING, mount: 'spreader', parted: true, metal: 'stainless', plate: 'aluminium', screwsEach: 4 },
    })
    const keys = list(boat).map(l => l.key)
    expect(keys).not.toContain('mount:spreader')
    expect(keys).toEqual(
      expect.arrayContaining(['mount:spreader plate', 'use:rivets', 'use:parting', 'use:sleeve', 'use:grease']),
    )
    expect(list(boat).find(l => l.key === 'use:parting')!.quantity).toBe(1)
    expect(list(boat).some(l => /anchor/.test(l.name))).toBe(false)
    // What its step waits for is what is on the list.
    const plate = list(boat).find(l => l.key === 'mount:spreader plate')!
    const { steps } = cardOf(boat.doc, boat.assess())
    const late = waitingOn(steps, [{ ...plate, state: 'ordered', wanted: 1, dueOn: '2026-06-01' }], '2026-05-01')
    expect(late.get(`mount:${boat.donor.id}`)).toMatchObject({ itself: true })
    const truck = new House('router', 'vehicle')
    truck.set('nodes', truck.donor.id, { fixing: { ...BARE_FIXING, mount: 'bull bar' } })
    expect(list(truck).map(l => l.key)).toContain('mount:bar bracket')
    expect(list(truck).some(l => l.name === 'Bull bar')).toBe(false)
  })
  it('a cable through a gland that is there takes an insert and no gland; through a window neither', () => {
    const by = (entry: 'port' | 'window' | 'wall' | null) => {
      const h = new House('router')
      if (entry)
        h.design({
          wayInId: h.add('fixtures', { ...BARE_FIXTURE, kind: 'way in', name: '', eastM: 0, northM: 0, upM: 1, entry }),
        })
      return list(h)
        .map(l => l.key)
        .filter(k => k === 'use:glands' || k === 'use:inserts')
    }
    expect(by(null)).toEqual(['use:glands'])
    expect(by('wall')).toEqual(['use:glands'])
    expect(by('port')).toEqual(['use:inserts'])
    expect(by('window')).toEqual([])
  })
  it('what a mount says of its pole and screws stands instead of the rule of thumb', () => {
    const h = new House('router')
    expect(list(h).some(l => l.key === 'use:pole')).toBe(true)
    h.set('nodes', h.donor.id, {
      fixing: {
        ...BARE_FIXING,
        mount: 'wall bracket',
        sections: [{ outsideMm: 48.3, wallMm: 3.2, lengthM: 2 }],
        grade: 'S235',
        screw: 'lag',
        screwMm: 10,
        screwsEach: 2,
        metal: 'stainless',
        ballastKg: 33,
      },
    })
    const rows = list(h)
    expect(rows.some(l => l.key === 'use:pole' || l.key === 'use:screws')).toBe(false)
    expect(rows.find(l => l.key === 'screw:lag:10:stainless')).toMatchObject({ quantity: 4 })
    expect(rows.find(l => l.key.startsWith('pole:S235'))).toMatchObject({ quantity: 1 })
    expect(rows.find(l => l.key === 'use:ballast')).toMatchObject({ quantity: 3 })
  })
  it('the van gives what it holds; what it holds enough of is here already', () => {
    const h = new House('router')
    const clips = list(h).find(l => l.key === 'use:clips')!
    const some = list(h, new Map([['use:clips', price('use:clips', { inVan: 3 })]])).find(l => l.key === 'use:clips')!
    expect(some).toMatchObject({ state: 'to get', wanted: clips.quantity - 3 })
    const all = list(h, new Map([['use:clips', price('use:clips', { inVan: 999 })]])).find(l => l.key === 'use:clips')!
    expect(all).toMatchObject({ state: 'here', wanted: 0 })
  })
  it('two who began a row of one line apart: the one begun last counts, and no line stands twice', () => {
    const h = new House('router')
    say(h, 'use:clips', { state: 'packed' })
    say(h, 'use:clips', { state: 'ordered', dueOn: '2026-05-01' })
    expect(supplyFor(h.doc, 'use:clips')!.state).toBe('ordered')
    expect(list(h).filter(l => l.key === 'use:clips')).toHaveLength(1)
  })
  it('a line by hand is one more; as a table it has its money with the point of its currency', () => {
    const h = new House('router')
    say(h, 'own:1', { name: 'Ladder mat; "wide"', quantity: 2, state: 'to get' })
    const lines = list(h, new Map([['own:1', price('own:1', { minor: 1250 })]]))
    expect(lines.at(-1)).toMatchObject({ own: true, quantity: 2, group: 'own' })
    const csv = listCsv(lines, 'XTS').trim().split(/\r?\n/)
    expect(csv).toHaveLength(lines.length + 1)
    expect(csv.at(-1)).toContain('"Ladder mat; ""wide"""')
    expect(csv.at(-1)).toContain('12.50,25.00')
  })
  it('the quote of a job is its lines and the hours of its card', () => {
    const h = new House('router')
    const book = {
      money: { currency: 'XTS', hourMinor: 6000, marginPercent: 10, taxPercent: null },
      prices: list(h).map(l => price(l.key)),
    }
    const { quote, cardHours, lines } = quoteJob(h.doc, h.assess(), book)
    const bought = lines.reduce((sum, l) => sum + Math.round(Math.round(1000 * l.quantity) * 1.1), 0)
    expect(quote.totalMinor).toBe(bought + Math.round(cardHours * 6000))
    h.set('jobs', h.doc.jobs[0]!.id, { quoteHours: 2, quoteMarginPercent: 0 })
    const own = quoteJob(h.doc, h.assess(), book).quote
    expect(own.totalMinor).toBe(lines.reduce((sum, l) => sum + Math.round(1000 * l.quantity), 0) + 12_000)
  })
  it('what was packed by a rough count may come home; the parts do not', () => {
    const h = new House('router')
    for (const l of list(h)) say(h, l.key, { state: 'packed' })
    const back = leftOvers(list(h))
    expect(back.length).toBeGreaterThan(0)
    expect(back.some(l => l.group === 'parts')).toBe(false)
  })
})

describe('a part that is late', () => {
  const DAY = '2026-05-04'
  it('ordered for after the day, or for no day, it is late; here, packed or not ordered yet it is not', () => {
    const l = { wanted: 1, state: 'ordered' as const, dueOn: '2026-05-05' }
    expect(isLate(l, DAY)).toBe(true)
    expect(isLate({ ...l, dueOn: null }, DAY)).toBe(true)
    expect(isLate({ ...l, dueOn: DAY }, DAY)).toBe(false)
    expect(isLate({ ...l, state: 'here' }, DAY)).toBe(false)
    expect(isLate({ ...l, state: 'to get' }, DAY)).toBe(false)
  })
  it('holds up the steps that take it and all that needs those, nothing else; on its day nothing waits', () => {
    const h = new House('router')
    const cable = list(h).find(l => l.key.startsWith('cable:'))!
    say(h, cable.key, { dueOn: '2026-05-06' })
    const lines = list(h)
    const { steps, next } = cardOf(h.doc, h.assess(), { lines, onDay: DAY })
    const waits = steps.filter(s => s.waits).map(s => s.id)
    expect(waits.some(id => id.startsWith('pull:'))).toBe(true)
    expect(waits).toContain('join')
    expect(waits).toContain('prove')
    expect(waits.some(id => id.startsWith('raise:') || id === 'fetch' || id === 'dry-run')).toBe(false)
    expect(next!.waits).toBeNull()
    for (const s of steps) if (!s.waits) for (const n of s.needs) expect(waits).not.toContain(n)
    expect(cardOf(h.doc, h.assess(), { lines, onDay: '2026-05-06' }).steps.every(s => !s.waits)).toBe(true)
  })
  it('a done step waits for nothing, though its part is written down as late', () => {
    const steps = [
      { id: 'a', needs: [], takes: ['part:x'], done: true },
      { id: 'b', needs: ['a'], takes: [], done: false },
    ]
    const [line] = list(new House('router'))
    expect(waitingOn(steps, [{ ...line!, key: 'part:x', state: 'ordered', wanted: 1, dueOn: null }], DAY).size).toBe(0)
  })
})
