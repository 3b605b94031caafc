/** The contract of changes, spoken to the server directly: versions, merging, refusals, the feed. */
import type { APIRequestContext, APIResponse } from '@playwright/test'
import { v7 as uuidv7 } from 'uuid'
import { change, CONTRACT, parties } from '../app/replica/contract'
import type { Transport } from '../app/replica/replica'
import type { ChangeResult, Feed, FeedItem, JobList, JobSnapshot } from '../shared/api'
import type { Change } from '../core/job/schema'
import { newJobChanges } from '../core/job/defaults'
import { database, expect, test } from './support/fixtures'

class Client {
  readonly device = uuidv7()

  constructor(
    private readonly request: APIRequestContext,
    private readonly origin: string,
  ) {}

  async signIn(role: 'lead' | 'installer' | 'viewer' = 'lead'): Promise<this> {
    await this.request.post(`${this.origin}/api/auth/demo`, { data: { role } })
    return this
  }

  async send(jobId: string, changes: Change[], device: string | undefined = this.device): Promise<ChangeResult> {
    const answer = await this.request.post(`${this.origin}/api/jobs/${jobId}/changes`, { data: { changes, device } })
    expect(answer.status(), await answer.text()).toBe(200)
    return (await answer.json()) as ChangeResult
  }

  async status(jobId: string, changes: unknown[]): Promise<number> {
    return (await this.request.post(`${this.origin}/api/jobs/${jobId}/changes`, { data: { changes } })).status()
  }

  async read(jobId: string): Promise<JobSnapshot> {
    return (await (await this.request.get(`${this.origin}/api/jobs/${jobId}`)).json()) as JobSnapshot
  }

  async feed(jobId: string, since: number): Promise<{ sequence: number; items: FeedItem[] }> {
    return (await (await this.request.get(`${this.origin}/api/jobs/${jobId}/changes?since=${since}`)).json()) as {
      sequence: number
      items: FeedItem[]
    }
  }

  async newJob(name = 'Of the test'): Promise<{ jobId: string; spotId: string; designId: string }> {
    const made = newJobChanges({ name, latDeg: 46.7, lonDeg: -41.4, zone: 'UTC' }, uuidv7)
    const result = await this.send(made.jobId, made.changes)
    expect(result.rejected).toEqual([])
    const { document } = await this.read(made.jobId)
    return { jobId: made.jobId, spotId: document.spots[0]!.id, designId: document.designs[0]!.id }
  }
}

const reading = (spotId: string, rsrpDbm: number) => ({
  spotId,
  takenAtUtc: new Date().toISOString(),
  setupId: null,
  replacesId: null,
  withdrawn: false,
  technology: 'LTE',
  band: 'B20',
  channel: null,
  bandwidthMHz: 10,
  cellId: null,
  rsrpDbm,
  rsrqDb: null,
  sinrDb: null,
})

test('a job begins with its own insert, and every change takes the next number', async ({ request, app }) => {
  const c = await new Client(request, app.origin).signIn()
  const { jobId, spotId } = await c.newJob()
  const before = await c.read(jobId)
  expect(before.document.spots).toHaveLength(7)
  expect(before.sequence).toBe(14)
  const one = await c.send(jobId, [
    change('spots', 'update', spotId, { fields: { name: 'Pantry' }, baseVersion: before.sequence }),
  ])
  expect(one.sequence).toBe(before.sequence + 1)
  expect(one.versions).toMatchObject([{ table: 'spots', rowId: spotId, version: one.sequence }])
  const after = await c.read(jobId)
  expect(after.document.spots.find(s => s.id === spotId)!.name).toBe('Pantry')
  expect(after.document.spots.find(s => s.id === spotId)!.version).toBe(one.sequence)
  // A batch that does not begin with the job’s own insert has no job to go to.
  expect(await c.status(uuidv7(), [change('spots', 'insert', uuidv7(), { fields: {} })])).toBe(404)
})

test('fields merge, the same field comes back with both values, and the loser’s other fields stand', async ({ request, app }) => {
  const c = await new Client(request, app.origin).signIn()
  const { jobId, spotId } = await c.newJob()
  const { sequence } = await c.read(jobId)
  const mine = c.device
  const theirs = uuidv7()
  await c.send(jobId, [change('spots', 'update', spotId, { fields: { name: 'Theirs', upM: 2 }, baseVersion: sequence })], theirs)
  const result = await c.send(
    jobId,
    [change('spots', 'update', spotId, { fields: { name: 'Mine', eastM: -3 }, baseVersion: sequence })],
    mine,
  )
  expect(result.conflicts).toMatchObject([{ table: 'spots', rowId: spotId, field: 'name', mine: 'Mine', theirs: 'Theirs' }])
  const row = (await c.read(jobId)).document.spots.find(s => s.id === spotId)!
  expect(row).toMatchObject({ name: 'Theirs', upM: 2, eastM: -3 })
  // Chosen by a person: written again over what is known now.
  const chosen = await c.send(
    jobId,
    [change('spots', 'update', spotId, { fields: { name: 'Mine' }, baseVersion: result.sequence })],
    mine,
  )
  expect(chosen.conflicts).toEqual([])
  expect((await c.read(jobId)).document.spots.find(s => s.id === spotId)!.name).toBe('Mine')
})

test('one browser’s quick edits of one field follow each other without a conflict', async ({ request, app }) => {
  const c = await new Client(request, app.origin).signIn()
  const { jobId, spotId } = await c.newJob()
  const { sequence } = await c.read(jobId)
  const first = await c.send(jobId, [
    change('spots', 'update', spotId, { fields: { upM: 2 }, baseVersion: sequence }),
    change('spots', 'update', spotId, { fields: { upM: 3 }, baseVersion: sequence }),
  ])
  expect(first.conflicts).toEqual([])
  const second = await c.send(jobId, [change('spots', 'update', spotId, { fields: { upM: 4 }, baseVersion: sequence })])
  expect(second.conflicts).toEqual([])
  expect((await c.read(jobId)).document.spots.find(s => s.id === spotId)!.upM).toBe(4)
  // Another browser, or one that does not say which it is, is asked.
  expect(
    (await c.send(jobId, [change('spots', 'update', spotId, { fields: { upM: 5 }, baseVersion: sequence })], uuidv7())).conflicts,
  ).toHaveLength(1)
})

test('a refused change does not hold up the rest, and is answered the same when it is repeated', async ({ request, app }) => {
  const c = await new Client(request, app.origin).signIn()
  const { jobId, spotId } = await c.newJob()
  const { sequence } = await c.read(jobId)
  const bad = change('spots', 'update', spotId, { fields: { upM: 'high' }, baseVersion: sequence })
  const unknown = change('spots', 'update', uuidv7(), { fields: { name: 'x' }, baseVersion: sequence })
  const foreign = change('readings', 'insert', uuidv7(), { fields: reading(uuidv7(), -90) })
  const good = change('spots', 'update', spotId, { fields: { name: 'Good' }, baseVersion: sequence })
  const first = await c.send(jobId, [bad, unknown, foreign, good])
  expect(first.rejected.map(r => r.changeId)).toEqual([bad.id, unknown.id, foreign.id])
  expect(first.rejected[0]!.errors![0]!.field).toBe('upM')
  expect(first.rejected[1]!.detail).toContain('removed by someone else')
  expect(first.rejected[2]!.detail).toContain('refers to something')
  expect((await c.read(jobId)).document.spots.find(s => s.id === spotId)!.name).toBe('Good')
  const again = await c.send(jobId, [bad, unknown, foreign, good])
  expect(again.sequence).toBe(first.sequence)
  expect(again.rejected.map(r => r.changeId)).toEqual(first.rejected.map(r => r.changeId))
})

test('a log only grows', async ({ request, app }) => {
  const c = await new Client(request, app.origin).signIn()
  const { jobId, spotId } = await c.newJob()
  const id = uuidv7()
  await c.send(jobId, [change('readings', 'insert', id, { fields: reading(spotId, -90) })])
  const result = await c.send(jobId, [
    change('readings', 'update', id, { fields: { rsrpDbm: -80 } }),
    change('readings', 'delete', id),
    change('readings', 'insert', uuidv7(), { fields: { ...reading(spotId, -91), replacesId: id } }),
  ])
  expect(result.rejected).toHaveLength(2)
  expect((await c.read(jobId)).document.readings.map(r => r.rsrpDbm).sort()).toEqual([-90, -91])
})

test('a spot that readings hang on cannot be removed; one without can', async ({ request, app }) => {
  const c = await new Client(request, app.origin).signIn()
  const { jobId, spotId } = await c.newJob()
  const other = (await c.read(jobId)).document.spots[1]!.id
  await c.send(jobId, [change('readings', 'insert', uuidv7(), { fields: reading(spotId, -90) })])
  const result = await c.send(jobId, [change('spots', 'delete', spotId), change('spots', 'delete', other)])
  expect(result.rejected.map(r => r.rowId)).toEqual([spotId])
  const left = (await c.read(jobId)).document.spots.map(s => s.id)
  expect(left).toContain(spotId)
  expect(left).not.toContain(other)
})

test('the feed gives what came since, in order, and nothing refused', async ({ request, app }) => {
  const c = await new Client(request, app.origin).signIn()
  const { jobId, spotId } = await c.newJob()
  const { sequence } = await c.read(jobId)
  await c.send(jobId, [
    change('spots', 'update', spotId, { fields: { name: 'A' }, baseVersion: sequence }),
    change('spots', 'update', spotId, { fields: { upM: 999 }, baseVersion: sequence }),
    change('spots', 'update', spotId, { fields: { upM: 5 }, baseVersion: sequence }),
  ])
  const feed = await c.feed(jobId, sequence)
  expect(feed.items.map(i => i.fields)).toEqual([{ name: 'A' }, { upM: 5 }])
  expect(feed.sequence).toBe(sequence + 3)
  expect((await c.feed(jobId, feed.sequence)).items).toEqual([])
  expect((await request.get(`${app.origin}/api/jobs/${jobId}/changes?since=-1`)).status()).toBe(422)
})

test('two batches at once are taken one after the other', async ({ request, app }) => {
  const c = await new Client(request, app.origin).signIn()
  const { jobId, spotId } = await c.newJob()
  const ids = Array.from({ length: 12 }, () => uuidv7())
  const results = await Promise.all(
    ids.map((id, i) => c.send(jobId, [change('readings', 'insert', id, { fields: reading(spotId, -90 - i) })])),
  )
  expect(new Set(results.map(r => r.sequence)).size).toBe(12)
  expect((await c.read(jobId)).document.readings).toHaveLength(12)
})

test('the customer’s data is taken out of the row, the history and frozen handovers', async ({ request, app }) => {
  const c = await new Client(request, app.origin).signIn()
  const { jobId } = await c.newJob()
  const { sequence } = await c.read(jobId)
  await c.send(jobId, [
    change('jobs', 'update', jobId, {
      fields: {
        name: 'Unique Surname’s roof',
        customerName: 'Unique Surname',
        customerAddress: 'Unique Street',
        notes: 'Unique gate code',
      },
      baseVersion: sequence,
    }),
  ])
  expect((await request.post(`${app.origin}/api/jobs/${jobId}/handovers`, { data: {} })).status()).toBe(200)
  expect((await request.post(`${app.origin}/api/jobs/${jobId}/forget-customer`, { data: {} })).status()).toBe(200)
  const sql = database(app)
  const left = await sql`select (select count(*) from applied_changes where fields::text like '%Unique%')::int as history, (select
      count(*) from handovers where document::text like '%Unique%')::int as frozen, (select count(*)
        from jobs where customer_name is not null and id = ${jobId})::int as row`
  expect(left[0]).toEqual({ history: 0, frozen: 0, row: 0 })
  const kept =
    await sql`select j.name, j.notes, s.lat_deg, s.length_m from jobs j join sites s on s.job_id = j.id where j.id = ${jobId}`
  expect(kept[0]).toMatchObject({ name: 'Forgotten', notes: null, lat_deg: null })
  // What was built, and how large it is, stays.
  expect(kept[0]!.length_m).toBeGreaterThan(0)
  await sql.end()
  expect((await c.feed(jobId, 0)).items.some(i => JSON.stringify(i).includes('Unique'))).toBe(false)
})

test('a lead removes a job; an installer may not', async ({ request, app, browser }) => {
  const c = await new Client(request, app.origin).signIn()
  const { jobId } = await c.newJob('To be removed')
  const other = await browser.newContext()
  await other.request.post(`${app.origin}/api/auth/demo`, { data: { role: 'installer' } })
  expect((await other.request.delete(`${app.origin}/api/jobs/${jobId}`)).status()).toBe(403)
  expect((await request.delete(`${app.origin}/api/jobs/${jobId}`)).status()).toBe(200)
  expect((await request.get(`${app.origin}/api/jobs/${jobId}`)).status()).toBe(404)
  await other.close()
})

test('the list counts readings that stand: neither withdrawn nor replaced, as the job does', async ({ request, app }) => {
  const client = await new Client(request, app.origin).signIn()
  const begun = newJobChanges({ name: 'Counted', latDeg: 46.9, lonDeg: -41.4, zone: 'UTC', kind: 'home' }, uuidv7)
  await client.send(begun.jobId, begun.changes)
  const spotId = begun.changes.find(c => c.table === 'spots')!.rowId
  const reading = (rsrpDbm: number, more: Record<string, unknown> = {}) => {
    const log = { stopId: null, setupId: null, replacesId: null, withdrawn: false, takenAtUtc: '2026-04-03T12:00:00.000Z' }
    const air = { technology: 'LTE', band: 'B20', channel: null, bandwidthMHz: 10, cellId: null, rsrqDb: null, sinrDb: null }
    const role = { capture: null, carrierRole: 'anchor' }
    return change('readings', 'insert', uuidv7(), { fields: { ...log, ...air, ...role, spotId, rsrpDbm, ...more } })
  }
  const listed = async () => {
    const { jobs } = (await (await request.get(`${app.origin}/api/jobs?search=Counted`)).json()) as JobList
    return [jobs[0]!.readings, jobs[0]!.state]
  }
  const [one, two] = [reading(-100), reading(-101)]
  await client.send(begun.jobId, [one, two])
  expect(await listed()).toEqual([2, 'scout'])
  await client.send(begun.jobId, [reading(-99, { replacesId: one.rowId })])
  expect(await listed()).toEqual([2, 'scout'])
  const { readings } = (await client.read(begun.jobId)).document
  const stands = readings.filter(r => !readings.some(x => x.replacesId === r.id))
  await client.send(
    begun.jobId,
    stands.map(r => reading(r.rsrpDbm!, { replacesId: r.id, withdrawn: true })),
  )
  expect(await listed()).toEqual([0, 'new'])
  await request.delete(`${app.origin}/api/jobs/${begun.jobId}`)
})

/** The real server, spoken to as the replica does. */
function transport(request: APIRequestContext, origin: string): Transport {
  const answered = async <T>(asked: Promise<APIResponse>): Promise<T> => {
    const answer = await asked
    if (!answer.ok()) throw Object.assign(new Error(await answer.text()), { status: answer.status() })
    return (await answer.json()) as T
  }
  const at = (jobId: string, rest = '') => `${origin}/api/jobs/${jobId}${rest}`
  return {
    post: (jobId, data) => answered<ChangeResult>(request.post(at(jobId, '/changes'), { data })),
    feed: (jobId, since) => answered<Feed>(request.get(at(jobId, `/changes?since=${since}`))),
    snapshot: jobId => answered<JobSnapshot>(request.get(at(jobId))),
    putPicture: (jobId, id, bytes) => answered(request.put(at(jobId, `/pictures/${id}`), { data: Buffer.from(bytes) })),
  }
}

for (const clause of CONTRACT)
  test(`contract: ${clause.title}`, async ({ request, app }) => {
    await request.post(`${app.origin}/api/auth/demo`, { data: {} })
    const held = await clause.holds(await parties(transport(request, app.origin)))
    for (const [said, promised] of held) expect(said).toEqual(promised)
  })
