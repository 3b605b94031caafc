/**
 * What every server of changes keeps, the one in memory that tests use and the real one alike: each clause is run on both,
 * so that what is tested against the first holds for the second.
 */
import { sure } from '#core/sure'
import { v7 as uuidv7 } from 'uuid'
import { newJobChanges } from '#core/job'
import type { Change, JobDocument, TableName } from '#core/job'
import type { ChangeResult } from '../../shared/api'
import { withFeed } from './model'
import type { Transport } from './replica'

/** Two browsers of one crew, and a job that the first has made. */
export interface Parties {
  server: Transport
  jobId: string
  spotId: string
  /** sequence after the job was made */
  sequence: number
  first: string
  second: string
}

export interface Clause {
  title: string
  /** @returns what is to be equal, side by side */
  holds: (p: Parties) => Promise<[said: unknown, promised: unknown][]>
}

/** A change under a number of its own. */
export const change = (
  table: TableName,
  op: Change['op'],
  rowId: string,
  { fields = {}, baseVersion = 0 }: { fields?: object; baseVersion?: number } = {},
): Change => ({
  id: uuidv7(),
  table,
  rowId,
  op,
  baseVersion,
  fields: fields as Record<string, unknown>,
})
const stop = { name: 'Quay', latDeg: 46, lonDeg: -41, groundM: null, zone: 'UTC', arriveOn: null, leaveOn: null }
const STOP = { ...stop, headingDeg: null, swingDeg: 0, notes: null }
const obstacle = (stopId: string | null) => ({ stopId, name: 'Barn', fromDeg: 10, toDeg: 20, distanceM: 50, heightM: 8 })

const spotOf = (d: JobDocument, id: string) => sure(d.spots.find(s => s.id === id))
const numbers = (r: ChangeResult) => r.versions.map(v => v.version)
const statusOf = (asked: Promise<unknown>): Promise<number | null> =>
  asked.then(
    () => null,
    (e: { status?: number }) => e.status ?? 0,
  )

/** @returns the parties of a clause, with a job of their own */
export async function parties(server: Transport): Promise<Parties> {
  const made = newJobChanges({ name: 'Of the contract', latDeg: 46.7, lonDeg: -41.4, zone: 'UTC' }, uuidv7)
  const first = uuidv7()
  const { sequence } = await server.post(made.jobId, { device: first, changes: made.changes })
  const { document } = await server.snapshot(made.jobId)
  return { server, jobId: made.jobId, spotId: document.spots[0]!.id, sequence, first, second: uuidv7() }
}

export const CONTRACT: readonly Clause[] = [
  {
    title: 'changes of a batch are taken in their order, each with the next number',
    holds: async ({ server, jobId, spotId, first, sequence }) => {
      const names = ['One', 'Two', 'Three']
      const changes = names.map((name, i) => change('spots', 'update', spotId, { fields: { name }, baseVersion: sequence + i }))
      const answer = await server.post(jobId, { device: first, changes })
      const { document, sequence: now } = await server.snapshot(jobId)
      return [
        [numbers(answer), [1, 2, 3].map(i => sequence + i)],
        [
          [answer.sequence, now],
          [sequence + 3, sequence + 3],
        ],
        [spotOf(document, spotId).name, 'Three'],
        [spotOf(document, spotId).version, sequence + 3],
      ]
    },
  },
  {
    title: 'a change that comes again does nothing, and is answered as it was',
    holds: async ({ server, jobId, spotId, first, sequence }) => {
      const once = change('spots', 'update', spotId, { fields: { name: 'Once' }, baseVersion: sequence })
      const before = await server.post(jobId, { device: first, changes: [once] })
      await server.post(jobId, {
        device: first,
        changes: [change('spots', 'update', spotId, { fields: { name: 'Later' }, baseVersion: before.sequence })],
      })
      const again = await server.post(jobId, { device: first, changes: [once] })
      const { document } = await server.snapshot(jobId)
      return [
        [again.versions, before.versions],
        [again.sequence, sequence + 2],
        [spotOf(document, spotId).name, 'Later'],
      ]
    },
  },
  {
    title: 'one that cannot be taken is refused alone, with its field; the rest goes on',
    holds: async ({ server, jobId, spotId, first, sequence }) => {
      const wrong = change('spots', 'update', spotId, { fields: { upM: 1e6 }, baseVersion: sequence })
      const right = change('spots', 'update', spotId, { fields: { name: 'Right' }, baseVersion: sequence })
      const answer = await server.post(jobId, { device: first, changes: [wrong, right] })
      const again = await server.post(jobId, { device: first, changes: [wrong] })
      const { document } = await server.snapshot(jobId)
      return [
        [answer.rejected.map(r => [r.changeId, r.errors?.[0]?.field]), [[wrong.id, 'upM']]],
        [answer.versions.map(v => v.changeId), [right.id]],
        [again.rejected.map(r => r.changeId), [wrong.id]],
        [
          [spotOf(document, spotId).name, spotOf(document, spotId).upM === 1e6],
          ['Right', false],
        ],
      ]
    },
  },
  {
    title: 'fields of one row merge; one field on both sides comes back with both values, and the first stands',
    holds: async ({ server, jobId, spotId, first, second, sequence }) => {
      await server.post(jobId, {
        device: first,
        changes: [change('spots', 'update', spotId, { fields: { name: 'Den', upM: 2 }, baseVersion: sequence })],
      })
      const theirs = change('spots', 'update', spotId, { fields: { name: 'Study', needed: true }, baseVersion: sequence })
      const answer = await server.post(jobId, { device: second, changes: [theirs] })
      const spot = spotOf((await server.snapshot(jobId)).document, spotId)
      return [
        [answer.conflicts.map(c => [c.field, c.mine, c.theirs]), [['name', 'Study', 'Den']]],
        [
          [spot.name, spot.upM, spot.needed],
          ['Den', 2, true],
        ],
      ]
    },
  },
  {
    title: 'a browser’s own earlier changes are no conflict to its later ones',
    holds: async ({ server, jobId, spotId, first, sequence }) => {
      await server.post(jobId, {
        device: first,
        changes: [change('spots', 'update', spotId, { fields: { name: 'Den' }, baseVersion: sequence })],
      })
      const later = change('spots', 'update', spotId, { fields: { name: 'Study' }, baseVersion: sequence })
      const answer = await server.post(jobId, { device: first, changes: [later] })
      return [
        [answer.conflicts, []],
        [spotOf((await server.snapshot(jobId)).document, spotId).name, 'Study'],
      ]
    },
  },
  {
    title: 'a row that was removed meanwhile is changed no more, and what hung on it went with it',
    holds: async ({ server, jobId, first, second }) => {
      const [stopId, obstacleId, own] = [uuidv7(), uuidv7(), uuidv7()]
      const made = await server.post(jobId, {
        device: first,
        changes: [
          change('stops', 'insert', stopId, { fields: STOP }),
          change('obstacles', 'insert', obstacleId, { fields: obstacle(stopId) }),
          change('obstacles', 'insert', own, { fields: obstacle(null) }),
        ],
      })
      await server.post(jobId, {
        device: second,
        changes: [change('stops', 'delete', stopId, { fields: {}, baseVersion: made.sequence })],
      })
      const late = await server.post(jobId, {
        device: first,
        changes: [change('stops', 'update', stopId, { fields: { name: 'Pier' }, baseVersion: made.sequence })],
      })
      const { document } = await server.snapshot(jobId)
      return [
        [late.rejected.length, 1],
        [document.stops, []],
        [document.obstacles.map(o => o.id), [own]],
      ]
    },
  },
  {
    title: 'what the feed tells, applied to what was known, is the job as it is read whole',
    holds: async ({ server, jobId, spotId, first, second }) => {
      const known = await server.snapshot(jobId)
      const [stopId, obstacleId] = [uuidv7(), uuidv7()]
      await server.post(jobId, {
        device: first,
        changes: [
          change('stops', 'insert', stopId, { fields: STOP }),
          change('obstacles', 'insert', obstacleId, { fields: obstacle(stopId) }),
          change('spots', 'update', spotId, { fields: { name: 'Den' }, baseVersion: known.sequence }),
          change('spots', 'update', spotId, { fields: { upM: 1e6 }, baseVersion: known.sequence }),
        ],
      })
      await server.post(jobId, {
        device: second,
        changes: [change('spots', 'update', spotId, { fields: { name: 'X' }, baseVersion: known.sequence })],
      })
      await server.post(jobId, { device: second, changes: [change('stops', 'delete', stopId)] })
      const applied = withFeed(known, await server.feed(jobId, known.sequence))
      const whole = await server.snapshot(jobId)
      const rows = (d: JobDocument) => [d.stops, d.obstacles, d.spots.map(s => [s.id, s.name, s.upM]).sort()]
      return [
        [applied.sequence, whole.sequence],
        [rows(applied.document), rows(whole.document)],
      ]
    },
  },
  {
    title: 'a browser that says how far it knows the job is told what came since with its answer',
    holds: async ({ server, jobId, spotId, first, second, sequence }) => {
      await server.post(jobId, {
        device: first,
        changes: [change('spots', 'update', spotId, { fields: { name: 'Den' }, baseVersion: sequence })],
      })
      const mine = change('spots', 'update', spotId, { fields: { upM: 3 }, baseVersion: sequence })
      const answer = await server.post(jobId, { device: second, since: sequence, changes: [mine] })
      return [
        [
          (answer.items ?? []).map(i => [i.rowId, i.fields]),
          [
            [spotId, { name: 'Den' }],
            [spotId, { upM: 3 }],
          ],
        ],
        [answer.more, false],
      ]
    },
  },
  {
    title: 'a job that is not there, or another crew’s, answers 404',
    holds: async ({ server, first, spotId }) => {
      const nowhere = uuidv7()
      const changes = [change('spots', 'update', spotId, { fields: { name: 'X' } })]
      return [
        [await statusOf(server.post(nowhere, { device: first, changes })), 404],
        [await statusOf(server.feed(nowhere, 0)), 404],
        [await statusOf(server.snapshot(nowhere)), 404],
      ]
    },
  },
]
