import { describe, expect, it } from 'vitest'
import Ajv from 'ajv'
import { countedIds, demoScenario } from '../../demo/scenario'
import { documentFrom, schemaFiles } from './archive'
import { applyChanges } from './changes'
import { asTemplate, insertsOf, remapped } from './copy'
import { REFERENCES } from './references'
import { emptyDocument, TABLES } from './schema'
import type { JobDocument } from './schema'

const jobs = demoScenario().jobs.map(j => j.document)
const sorted = (doc: JobDocument): JobDocument =>
  Object.fromEntries(TABLES.map(t => [t, [...doc[t]].sort((a, b) => a.id.localeCompare(b.id))])) as unknown as JobDocument

describe('a job under new ids', () => {
  it('is identical once they are mapped back', () => {
    for (const doc of jobs) {
      const { document, ids } = remapped(doc, countedIds(4000))
      const back = new Map([...ids].map(([a, b]) => [b, a]))
      const text = JSON.stringify(sorted(document)).replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, id => back.get(id) ?? id)
      expect(sorted(JSON.parse(text) as JobDocument)).toEqual(sorted(JSON.parse(JSON.stringify(doc)) as JobDocument))
    }
  })
  it('keeps no id of before, and every reference leads to a row of its own', () => {
    for (const doc of jobs) {
      const { document, ids } = remapped(doc, countedIds(4000))
      const text = JSON.stringify(document)
      for (const old of ids.keys()) expect(text).not.toContain(old)
      for (const r of REFERENCES) {
        const there = new Set((document[r.target] as { id: string }[]).map(x => x.id))
        for (const row of document[r.table] as unknown as Record<string, unknown>[]) {
          const before = (doc[r.table] as unknown as Record<string, unknown>[])[document[r.table].indexOf(row as never)]
          if (row[r.field] && (doc[r.target] as { id: string }[]).some(x => x.id === before![r.field]))
            expect(there.has(row[r.field] as string), `${r.table}.${r.field}`).toBe(true)
        }
      }
    }
  })
  it('its inserts make the document again, named rows before those that name them', () => {
    for (const doc of jobs) {
      const changes = insertsOf(doc, countedIds(5000))
      const made = applyChanges(emptyDocument(), changes)
      const own = { ...doc, masts: doc.masts, cells: doc.cells }
      for (const t of TABLES)
        for (const row of made[t] as { id: string }[]) {
          const { version: _, ...before } = (own[t] as { id: string; version?: number }[]).find(x => x.id === row.id)!
          const { version: __, ...after } = row as { id: string; version?: number }
          expect(after).toEqual(before)
        }
    }
  })
  it('a correction comes after what it corrects', () => {
    const doc = structuredClone(jobs[0]!)
    const [a, b] = doc.readings
    b!.replacesId = a!.id
    doc.readings = [b!, a!]
    const order = insertsOf(doc, countedIds(6000))
      .filter(c => c.table === 'readings' && c.op === 'insert')
      .map(c => c.rowId)
    expect(order.indexOf(a!.id)).toBeLessThan(order.indexOf(b!.id))
  })
})

describe('a job as a template', () => {
  it('leaves behind the customer, the place, and everything read', () => {
    const t = asTemplate(jobs[0]!, 'Second van')
    expect(t.jobs[0]).toMatchObject({ name: 'Second van', customerName: null, customerAddress: null, notes: null })
    // The demo's first job says all of them: what one owner said is not said by the next.
    const said = ['today', 'complaint', 'changedLately', 'drillWhere', 'outageMin'] as const
    for (const field of said) expect([jobs[0]!.jobs[0]![field] === null, t.jobs[0]![field]], field).toEqual([false, null])
    expect(t.sites[0]).toMatchObject({ latDeg: null, lonDeg: null })
    for (const table of ['readings', 'speedRuns', 'sweeps', 'steps', 'checks', 'masts'] as const) expect(t[table]).toEqual([])
    expect(t.nodes).toHaveLength(jobs[0]!.nodes.length)
    expect(t.spots).toHaveLength(jobs[0]!.spots.length)
    expect(JSON.stringify(t)).not.toContain('Lorne')
  })
})

describe('what an archive is read as', () => {
  it('rows of the demo follow the schemas that go out with them', () => {
    const ajv = new Ajv({ strict: false, validateFormats: false })
    const files = schemaFiles()
    for (const t of TABLES) {
      const { $schema: _, ...schema } = files[`schemas/${t}.json`] as { $schema: string }
      const follows = ajv.compile(schema)
      for (const doc of jobs) expect(follows(doc[t]), `${t}: ${ajv.errorsText(follows.errors)}`).toBe(true)
    }
  })
  it('one of before, without what came later, is taken as it was meant', () => {
    const { floorPlans: _, isolations: __, ...old } = structuredClone(jobs[1]!) as Partial<JobDocument>
    for (const d of old.designs as unknown as Record<string, unknown>[]) delete d.plugs
    const doc = documentFrom(JSON.parse(JSON.stringify(old)))
    expect(doc.floorPlans).toEqual([])
    expect(doc.designs[0]!.plugs).toBe('factory')
  })
  it.each([
    [null, 'holds no job'],
    [{ jobs: 3 }, '“jobs” is no list'],
    [{ jobs: [{ id: 'x' }, { id: 'y' }], sites: [{ id: 'z' }] }, '2 jobs; one is wanted'],
    [{ jobs: [{}] }, 'row 1 of “jobs” has no id'],
    [{ jobs: [{ id: 'a' }] }, 'no site'],
  ])('refuses what is none: %j', (json, words) => expect(() => documentFrom(json)).toThrow(words))
})
