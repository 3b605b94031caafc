import { describe, expect, it } from 'vitest'
import { assess } from '#core/judge/assess'
import type { Assessment } from '#core/judge/assess'
import { TABLES } from '#core/job/schema'
import type { JobDocument, TableName } from '#core/job/schema'
import { demoScenario } from '#demo/scenario'
import { Assessing, UNREAD } from './assessing'

const { jobs: JOBS } = demoScenario()
const whole = () => structuredClone(JOBS[0]!.document)
const settled = async () => {
  for (let i = 0; i < 10; i++) await Promise.resolve()
}

/** An engine whose answers come when the test says so. */
function engine() {
  const asked: JobDocument[] = []
  const answers: ((fails?: unknown) => void)[] = []
  const said: unknown[] = []
  const failed: unknown[] = []
  const progress: unknown[] = []
  let paths = 0
  const assessing = new Assessing({
    assess: doc => {
      asked.push(doc)
      return new Promise((done, fails) => answers.push(e => (e ? fails(e) : done({ of: doc } as unknown as Assessment))))
    },
    ensurePaths: (_doc, tell) => {
      paths++
      tell(1, 2)
      return Promise.resolve(0)
    },
    said: r => said.push(r),
    failed: e => failed.push(e),
    paths: (p, running) => progress.push([p, running]),
  })
  return {
    assessing,
    asked,
    said,
    failed,
    progress,
    get paths() {
      return paths
    },
    answer: async (fails?: unknown) => {
      answers.shift()!(fails)
      await settled()
    },
  }
}

describe('what the engine says is kept up to date', () => {
  it('one assessment at a time: edits made meanwhile are gathered into the next', async () => {
    const e = engine()
    const docs = [1, 2, 3, 4].map(upM => {
      const d = whole()
      d.spots[0]!.upM = upM
      return d
    })
    docs.forEach(d => e.assessing.show(d))
    await settled()
    expect(e.asked).toEqual([docs[0]])
    await e.answer()
    expect(e.asked.at(-1)).toBe(docs[3])
    await e.answer()
    expect(e.asked).toHaveLength(2)
    expect(e.said).toHaveLength(2)
  })

  it('a change that it does not read costs nothing; nor does the same said again with other versions', async () => {
    const e = engine()
    const doc = whole()
    e.assessing.show(doc)
    await settled()
    while (e.said.length < e.asked.length) await e.answer()
    const { length } = e.asked
    const { paths } = e
    const unread = structuredClone(doc)
    unread.supplies.push({ id: 'x', key: 'k', name: null, quantity: 1, state: 'here', supplier: null, dueOn: null })
    for (const t of TABLES) for (const row of unread[t]) row.version = 40
    e.assessing.show(unread)
    await settled()
    expect([e.asked.length, e.paths]).toEqual([length, paths])
  })

  it('a tick costs one assessment and no path', async () => {
    const e = engine()
    const doc = whole()
    e.assessing.show(doc)
    await settled()
    while (e.said.length < e.asked.length) await e.answer()
    const { length } = e.asked
    const { paths } = e
    const ticked = { ...doc, checks: [...doc.checks, { ...doc.checks[0]!, id: 'tick' }] }
    e.assessing.show(ticked)
    e.assessing.show(structuredClone(ticked))
    await settled()
    expect([e.asked.length, e.paths]).toEqual([length + 1, paths])
  })

  it('what fails is said, and the next change is worked out again', async () => {
    const e = engine()
    const doc = whole()
    e.assessing.show(doc)
    await settled()
    await e.answer(new Error('no'))
    expect(e.failed).toHaveLength(1)
    while (e.said.length + e.failed.length < e.asked.length) await e.answer()
    const other = whole()
    other.spots[0]!.upM = 9
    e.assessing.show(other)
    await settled()
    await e.answer()
    expect(e.said.at(-1)).toEqual({ of: other })
  })

  it('once left, it says nothing any more', async () => {
    const e = engine()
    e.assessing.show(whole())
    e.assessing.end()
    await settled()
    await e.answer()
    expect(e.said).toEqual([])
  })

  it('an assessment reads nothing of the tables that are left out', () => {
    const read = new Set<TableName>()
    for (const { document } of JOBS) {
      const watched = Object.fromEntries(
        TABLES.map(t => {
          const get = (rows: unknown[], key: keyof unknown[]) => {
            read.add(t)
            return rows[key]
          }
          return [t, new Proxy(document[t] as unknown[], { get: get as ProxyHandler<unknown[]>['get'] })]
        }),
      ) as unknown as JobDocument
      assess(watched, { paths: {}, horizon: null }, { atUtc: '2026-04-03T12:00:00.000Z' })
    }
    expect([...read].filter(t => UNREAD.has(t))).toEqual([])
    expect(read.size).toBe(TABLES.length - UNREAD.size)
  })
})
