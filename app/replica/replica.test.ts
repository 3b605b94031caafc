import fc from 'fast-check'
import { v7 as uuidv7 } from 'uuid'
import { describe, expect, it } from 'vitest'
import { completeDocument } from '#core/job/legacy'
import type { Change } from '#core/job/schema'
import { change } from './contract'
import { Browser, newJob, rawKey, spot } from './fake-browser'
import { FakeServer, sorted, told } from './fake-server'
import type { Weather } from './fake-server'
import { shown, withRightTimes } from './model'
import { keyOf, seal, unseal } from './sealed'
import { readableText } from './store'

describe('what waits is sent, and what is shown is the base with it applied', () => {
  it('a job made without a connection is shown at once, sent when there is one, and then the same', async () => {
    const server = new FakeServer()
    const { replica } = await (await Browser.open(server)).tab()
    const jobId = uuidv7()
    const spotId = uuidv7()
    server.weather = () => 'not reached'
    await replica.edit(jobId, [newJob(jobId), change('spots', 'insert', spotId, { fields: spot('Hall') })])
    expect(await replica.send()).toBe('offline')
    const before = await replica.read(jobId)
    expect(shown(before.base, before.pending).spots[0]!.name).toBe('Hall')
    server.weather = () => 'fair'
    expect(await replica.send()).toBe('sent')
    const after = await replica.read(jobId)
    expect(after.pending).toEqual([])
    expect(sorted(after.base!.document)).toEqual(sorted(server.snapshot(jobId).document))
  })

  it('an answer that is lost is asked for again, and nothing is taken twice', async () => {
    const server = new FakeServer()
    const { replica } = await (await Browser.open(server)).tab()
    const jobId = uuidv7()
    await replica.edit(jobId, [newJob(jobId)])
    await replica.send()
    let lost = true
    server.weather = () => (lost ? 'answer lost' : 'fair')
    await replica.edit(jobId, [change('spots', 'insert', uuidv7(), { fields: spot('Hall') })])
    expect(await replica.send()).toBe('offline')
    lost = false
    expect(await replica.send()).toBe('sent')
    expect(server.jobs.get(jobId)!.log).toHaveLength(2)
    expect((await replica.read(jobId)).base!.document.spots).toHaveLength(1)
  })

  it('jobs that are not open are sent too, and one that cannot be sent holds up no other', async () => {
    const server = new FakeServer()
    const { replica, store } = await (await Browser.open(server)).tab()
    const [a, b, gone] = [uuidv7(), uuidv7(), uuidv7()]
    await replica.edit(gone!, [change('spots', 'insert', uuidv7(), { fields: spot('Of a job that a lead removed') })])
    await replica.edit(a!, [newJob(a!)])
    await replica.edit(b!, [newJob(b!)])
    expect(await store.waiting()).toEqual(
      new Map(
        [
          [gone, 1],
          [a, 1],
          [b, 1],
        ].sort() as [string, number][],
      ),
    )
    expect(await replica.send()).toBe('sent')
    expect([...server.jobs.keys()].sort()).toEqual([a, b].sort())
    // What belongs to a job that is not there is put aside with the reason, and neither retried nor lost.
    expect((await store.asides(gone)).map(x => [x.change.fields.name, x.detail])).toEqual([
      ['Of a job that a lead removed', 'answered 404'],
    ])
    expect((await store.waiting()).size).toBe(0)
  })

  it('131 edits of a long note go in batches that the server takes, though together they are too large', async () => {
    const server = new FakeServer()
    const { replica, store } = await (await Browser.open(server)).tab()
    const jobId = uuidv7()
    await replica.edit(jobId, [newJob(jobId)])
    for (let i = 0; i < 131; i++)
      await replica.edit(jobId, [change('jobs', 'update', jobId, { fields: { notes: `${i} ${'ж'.repeat(3990)}` } })])
    expect(await replica.send()).toBe('sent')
    expect((await store.waiting()).size).toBe(0)
    expect((server.snapshot(jobId).document.jobs[0] as { notes?: string }).notes).toMatch(/^130 /)
    expect(server.posts).toBeGreaterThan(3)
  })

  it('a single change that is too large is put aside, and the rest goes on', async () => {
    const server = new FakeServer()
    const { replica, store } = await (await Browser.open(server)).tab()
    const jobId = uuidv7()
    const huge = change('jobs', 'update', jobId, { fields: { notes: 'x'.repeat(1_200_000) } })
    await replica.edit(jobId, [newJob(jobId), huge, change('jobs', 'update', jobId, { fields: { name: 'After' } })])
    expect(await replica.send()).toBe('sent')
    expect((await store.asides(jobId)).map(a => a.change.id)).toEqual([huge.id])
    expect(server.snapshot(jobId).document.jobs[0]!.name).toBe('After')
  })

  it('a server in trouble, or a session that ended, is no refusal: the work waits', async () => {
    const server = new FakeServer()
    const { replica, store } = await (await Browser.open(server)).tab()
    const jobId = uuidv7()
    await replica.edit(jobId, [newJob(jobId)])
    for (const [weather, state] of [
      ['in trouble', 'failing'],
      ['signed out', 'signed-out'],
    ] as [Weather, string][]) {
      server.weather = () => weather
      expect(await replica.send()).toBe(state)
      expect((await store.waiting()).get(jobId)).toBe(1)
      expect(await store.asides()).toEqual([])
    }
  })

  it('a job read whole does not go back behind what is known, but for a server that was restored', async () => {
    const server = new FakeServer()
    const { replica } = await (await Browser.open(server)).tab()
    const jobId = uuidv7()
    await replica.edit(jobId, [newJob(jobId)])
    await replica.send()
    const old = server.snapshot(jobId)
    await replica.edit(jobId, [change('jobs', 'update', jobId, { fields: { name: 'Newer' } })])
    await replica.send()
    expect(await replica.readWhole(jobId, false, old)).toBe(false)
    expect((await replica.read(jobId)).base!.document.jobs[0]!.name).toBe('Newer')
    expect(await replica.readWhole(jobId, true, old)).toBe(true)
    expect((await replica.read(jobId)).base!.document.jobs[0]!.name).toBe('Of the test')
  })

  it('two jobs at once never end in each other’s copy', async () => {
    const server = new FakeServer()
    const { replica } = await (await Browser.open(server)).tab()
    const jobs = [uuidv7(), uuidv7()]
    for (const id of jobs) await replica.edit(id, [newJob(id, `Job ${id}`)])
    await Promise.all(
      jobs.flatMap(id => [
        replica.send(),
        replica.edit(id, [change('spots', 'insert', uuidv7(), { fields: spot(`Of ${id}`) })]),
        replica.pull(id),
      ]),
    )
    await replica.send()
    for (const id of jobs) {
      const { document } = (await replica.read(id)).base!
      expect(document.jobs.map(j => j.name)).toEqual([`Job ${id}`])
      expect(document.spots.map(s => s.name)).toEqual([`Of ${id}`])
    }
  })

  it('a browser far behind reads the job whole instead of a feed that is cut off', async () => {
    const server = new FakeServer()
    const one = await (await Browser.open(server)).tab()
    const two = await (await Browser.open(server)).tab('oren', 2)
    const jobId = uuidv7()
    await one.replica.edit(jobId, [newJob(jobId)])
    await one.replica.send()
    await two.replica.readWhole(jobId)
    await one.replica.edit(
      jobId,
      Array.from({ length: 120 }, (_, i) => change('spots', 'insert', uuidv7(), { fields: spot(`S${i}`) })),
    )
    await one.replica.send()
    await two.replica.pull(jobId)
    expect(sorted((await two.replica.read(jobId)).base!.document)).toEqual(sorted(server.snapshot(jobId).document))
  })
})

describe('what the server refuses', () => {
  it('is put aside with its reason, can be mended and taken up again, and the rest goes on', async () => {
    const server = new FakeServer()
    const { replica, store } = await (await Browser.open(server)).tab()
    const jobId = uuidv7()
    const bad = uuidv7()
    await replica.edit(jobId, [
      newJob(jobId),
      change('spots', 'insert', bad, { fields: spot('Too high', 200) }),
      change('spots', 'insert', uuidv7(), { fields: spot('Good') }),
    ])
    expect(await replica.send()).toBe('sent')
    expect(server.snapshot(jobId).document.spots.map(s => s.name)).toEqual(['Good'])
    const [aside] = await store.asides(jobId)
    expect(aside).toMatchObject({ detail: 'upM must be <= 100', errors: [{ field: 'upM' }], change: { rowId: bad } })
    // It is no part of what is shown, which is the server's word with what waits.
    const now = await replica.read(jobId)
    expect(shown(now.base, now.pending).spots.map(s => s.name)).toEqual(['Good'])
    await replica.takeUp(aside!, { upM: 20 })
    expect(await replica.send()).toBe('sent')
    expect(
      server
        .snapshot(jobId)
        .document.spots.map(s => s.upM)
        .sort(),
    ).toEqual([1, 20])
    expect(await store.asides(jobId)).toEqual([])
  })

  it('a batch refused whole is taken apart until the one that is to blame is found', async () => {
    const server = new FakeServer()
    const { replica, store } = await (await Browser.open(server)).tab()
    const jobId = uuidv7()
    const poison = change('spots', 'insert', uuidv7(), { fields: spot('Poison') })
    const post = server.post.bind(server)
    server.post = (id, batch) => {
      if (batch.changes.some(c => c.id === poison.id)) throw told(422, 'the envelope does not fit')
      return post(id, batch)
    }
    await replica.edit(jobId, [
      newJob(jobId),
      ...Array.from({ length: 9 }, (_, i) => change('spots', 'insert', uuidv7(), { fields: spot(`S${i}`) })),
      poison,
      change('spots', 'insert', uuidv7(), { fields: spot('Last') }),
    ])
    expect(await replica.send()).toBe('sent')
    expect(server.snapshot(jobId).document.spots).toHaveLength(10)
    expect((await store.asides(jobId)).map(a => a.detail)).toEqual(['the envelope does not fit'])
  })

  it('a conflict stays until it is settled, over another opening of the device', async () => {
    const server = new FakeServer()
    const browser = await Browser.open(server)
    const { replica } = await browser.tab()
    const other = await (await Browser.open(server)).tab('oren', 2)
    const jobId = uuidv7()
    await replica.edit(jobId, [newJob(jobId)])
    await replica.send()
    await other.replica.readWhole(jobId)
    await other.replica.edit(jobId, [change('jobs', 'update', jobId, { fields: { name: 'Theirs' }, baseVersion: 1 })])
    await other.replica.send()
    await replica.edit(jobId, [change('jobs', 'update', jobId, { fields: { name: 'Mine' }, baseVersion: 1 })])
    await replica.send()
    const again = (await browser.tab()).replica
    const [conflict] = (await again.read(jobId)).conflicts
    expect(conflict).toMatchObject({ field: 'name', mine: 'Mine', theirs: 'Theirs' })
    expect((await again.read(jobId)).base!.document.jobs[0]!.name).toBe('Theirs')
    await again.settle(conflict!, 'mine')
    await again.send()
    expect((await again.read(jobId)).conflicts).toEqual([])
    expect(server.snapshot(jobId).document.jobs[0]!.name).toBe('Mine')
  })
})

describe('owners', () => {
  it('another member’s work is neither counted, nor sent, nor shown, and waits for its owner', async () => {
    const server = new FakeServer()
    const browser = await Browser.open(server)
    const ila = await browser.tab('ila', 1)
    const jobId = uuidv7()
    server.weather = () => 'not reached'
    await ila.replica.edit(jobId, [newJob(jobId, 'Unique Surname house')])
    await ila.replica.send()
    server.weather = () => 'fair'
    const oren = await browser.tab('oren', 2)
    expect((await oren.store.waiting()).size).toBe(0)
    expect(await oren.replica.send()).toBe('sent')
    expect((await oren.replica.read(jobId)).pending).toEqual([])
    expect(server.jobs.size).toBe(0)
    expect(await (await browser.tab('ila', 1)).replica.send()).toBe('sent')
    expect(server.snapshot(jobId).document.jobs[0]!.name).toBe('Unique Surname house')
  })

  it('after signing out nothing of a customer is readable; signing in brings back what was not sent', async () => {
    const server = new FakeServer()
    const browser = await Browser.open(server)
    const { replica, store } = await browser.tab()
    const jobId = uuidv7()
    await browser.db.put('keys', { owner: 'ila', key: await keyOf(rawKey(1)) })
    await replica.edit(jobId, [newJob(jobId, 'Unique Surname house')])
    await replica.send()
    await store.keep('jobs', [{ name: 'Unique Surname house' }])
    await replica.edit(jobId, [change('spots', 'insert', uuidv7(), { fields: spot('Unique Surname’s attic') })])
    // Sealed at all times, not only once signed out.
    expect(await readableText(browser.db)).not.toContain('Unique')
    await store.close()
    expect(await readableText(browser.db)).not.toContain('Unique')
    expect(await browser.db.count('keys')).toBe(0)
    expect(await browser.db.count('bases')).toBe(0)
    expect(await browser.db.count('kept')).toBe(0)
    // Another key opens nothing, and chokes on nothing.
    const stranger = await browser.tab('ila', 9)
    expect((await stranger.replica.read(jobId)).pending).toEqual([])
    expect(await stranger.replica.send()).toBe('sent')
    const back = await browser.tab('ila', 1)
    expect((await back.replica.read(jobId)).pending.map(p => p.change.fields.name)).toEqual(['Unique Surname’s attic'])
    expect(await back.replica.send()).toBe('sent')
    expect(server.snapshot(jobId).document.spots).toHaveLength(1)
  })

  it('a key cannot be taken out of the browser, and what was changed does not open', async () => {
    const key = await keyOf(rawKey(3))
    expect(key.extractable).toBe(false)
    const sealed = await seal(key, { a: 1 })
    expect(await unseal(key, sealed)).toEqual({ a: 1 })
    new Uint8Array(sealed.data)[0]! ^= 1
    await expect(unseal(key, sealed)).rejects.toThrow()
    await expect(unseal(await keyOf(rawKey(4)), await seal(key, 'x'))).rejects.toThrow()
  })
})

describe('the clock', () => {
  const reading = {
    table: 'readings' as const,
    op: 'insert' as const,
    id: uuidv7(),
    rowId: uuidv7(),
    baseVersion: 0,
    fields: { takenAtUtc: '2026-04-03T10:00:00.000Z', rsrpDbm: -90 },
  }
  const HOUR = 3_600_000

  it('times written by a clock that turned out to be an hour behind are moved by an hour', () =>
    expect(withRightTimes({ key: 1, jobId: 'j', change: reading, clockOffsetMs: null }, HOUR).fields).toMatchObject({
      takenAtUtc: '2026-04-03T11:00:00.000Z',
      rsrpDbm: -90,
    }))
  it('times already corrected when they were written are not corrected again', () =>
    expect(withRightTimes({ key: 1, jobId: 'j', change: reading, clockOffsetMs: HOUR }, HOUR)).toBe(reading))
  it('two minutes more or less are let be', () =>
    expect(withRightTimes({ key: 1, jobId: 'j', change: reading, clockOffsetMs: null }, 119_000)).toBe(reading))
})

describe('whatever happens, in whatever order', () => {
  type Step =
    | { do: 'insert'; tab: number; value: number }
    | { do: 'update'; tab: number; row: number; value: number }
    | { do: 'remove'; tab: number; row: number }
    | { do: 'send' | 'pull' | 'crash' | 'reopen'; tab: number }
    | { do: 'at once' }
    | { do: 'weather'; to: Weather }

  const tab = fc.nat(4)
  const step: fc.Arbitrary<Step> = fc.oneof(
    { weight: 4, arbitrary: fc.record({ do: fc.constant('insert' as const), tab, value: fc.nat(120) }) },
    { weight: 4, arbitrary: fc.record({ do: fc.constant('update' as const), tab, row: fc.nat(20), value: fc.nat(120) }) },
    { weight: 1, arbitrary: fc.record({ do: fc.constant('remove' as const), tab, row: fc.nat(20) }) },
    {
      weight: 4,
      arbitrary: fc.record({
        do: fc.constantFrom('send' as const, 'send' as const, 'pull' as const, 'crash' as const, 'reopen' as const),
        tab,
      }),
    },
    { weight: 2, arbitrary: fc.record({ do: fc.constant('at once' as const) }) },
    {
      weight: 2,
      arbitrary: fc.record({
        do: fc.constant('weather' as const),
        to: fc.constantFrom<Weather>('fair', 'fair', 'not reached', 'answer lost', 'in trouble', 'signed out'),
      }),
    },
  )

  it('no change is lost, none is taken twice, and all copies end equal', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 5, maxLength: 60 }), async steps => {
        const server = new FakeServer()
        const jobId = uuidv7()
        server.post(jobId, { device: uuidv7(), changes: [newJob(jobId)] })
        // Two people; the first in three tabs of one browser, the second in two of another.
        const browsers = [await Browser.open(server), await Browser.open(server)]
        const of = (i: number) =>
          i < 3 ? { browser: browsers[0]!, owner: 'ila', key: 1 } : { browser: browsers[1]!, owner: 'oren', key: 2 }
        const open = (i: number) => of(i).browser.tab(of(i).owner, of(i).key)
        const tabs = await Promise.all([0, 1, 2, 3, 4].map(open))
        const made: Change[] = []
        const rows: string[] = []
        for (const s of steps) {
          if (s.do === 'weather') server.weather = () => s.to
          else if (s.do === 'reopen') tabs[s.tab] = await open(s.tab)
          else if (s.do === 'send') await tabs[s.tab]!.replica.send()
          else if (s.do === 'pull') await tabs[s.tab]!.replica.pull(jobId).catch(() => {})
          else if (s.do === 'at once')
            await Promise.all(tabs.flatMap(t => [t.replica.send(), t.replica.pull(jobId).catch(() => {})]))
          else if (s.do === 'crash') {
            // The answer came, and the browser was killed before it was written down.
            const { store, replica } = tabs[s.tab]!
            store.commit = () => Promise.reject(new Error('killed'))
            await replica.send().catch(() => {})
            tabs[s.tab] = await open(s.tab)
          } else {
            const known = 'row' in s ? rows[s.row % Math.max(1, rows.length)] : uuidv7()
            if (!known) continue
            const base = (await tabs[s.tab]!.store.sequence(jobId)) ?? 0
            const value = 'value' in s ? s.value : 0
            const c = !('row' in s)
              ? change('spots', 'insert', known, { fields: spot(`S${value}`, value) })
              : s.do === 'remove'
                ? change('spots', 'delete', known, { fields: {}, baseVersion: base })
                : change('spots', 'update', known, { fields: { upM: value }, baseVersion: base })
            if (!('row' in s)) rows.push(known)
            made.push(c)
            await tabs[s.tab]!.replica.edit(jobId, [c])
          }
        }
        server.weather = () => 'fair'
        for (const t of tabs) expect(await t.replica.send()).toBe('sent')
        for (const t of tabs) {
          await t.replica.pull(jobId)
          if (!(await t.store.base(jobId))) await t.replica.readWhole(jobId)
        }
        const log = server.jobs.get(jobId)!.log
        expect(log.length).toBe(new Set(log.map(l => l.change.id)).size)
        const taken = new Set(log.map(l => l.change.id))
        for (const c of made) expect(taken.has(c.id)).toBe(true)
        // Everything refused is with its writer, and nothing else is.
        const refused = log
          .filter(l => l.refused)
          .map(l => l.change.id)
          .sort()
        const asides = [...(await tabs[0]!.store.asides(jobId)), ...(await tabs[3]!.store.asides(jobId))]
        expect(asides.map(a => a.change.id).sort()).toEqual(refused)
        const truth = sorted(completeDocument(server.snapshot(jobId).document))
        for (const t of tabs) {
          const held = await t.replica.read(jobId)
          expect(held.pending).toEqual([])
          expect(sorted(shown(held.base, held.pending))).toEqual(truth)
        }
      }),
      { numRuns: 60, endOnFailure: true },
    )
  }, 120_000)
})

describe('what could be lost or stuck on the device', () => {
  const bytes = new ArrayBuffer(40)
  it('a picture of a job made offline waits until its job stands, counts, and is not let go of at signing out', async () => {
    const server = new FakeServer()
    const { replica, store } = await (await Browser.open(server)).tab()
    const [jobId, photo] = [uuidv7(), uuidv7()]
    await store.keepPicture(jobId, photo, bytes, true)
    await replica.edit(jobId, [newJob(jobId)])
    server.badJobs.add(jobId)
    expect(await replica.send()).toBe('failing')
    expect(server.pictures.size).toBe(0)
    expect((await store.waiting()).get(jobId)).toBe(2)
    await store.close()
    expect(await store.uploads()).toEqual([{ id: photo, jobId }])
    server.badJobs.clear()
    expect(await replica.send()).toBe('sent')
    expect(server.pictures).toEqual(new Set([photo]))
    expect((await store.waiting()).size).toBe(0)
  })
  it('a picture that the server will not have is said, kept, and let go of by a person alone', async () => {
    const server = new FakeServer()
    const { replica, store } = await (await Browser.open(server)).tab()
    const [jobId, photo] = [uuidv7(), uuidv7()]
    await replica.edit(jobId, [newJob(jobId)])
    await store.keepPicture(jobId, photo, bytes, true)
    server.pictureAnswer = () => 413
    expect(await replica.send()).toBe('sent')
    const [aside] = await store.asides(jobId)
    expect(aside!.detail).toContain('picture could not be sent')
    await store.close()
    expect(await store.picture(photo)).not.toBeNull()
    await replica.letGo(aside!)
    expect(await store.asides(jobId)).toEqual([])
    await store.close()
    expect(await store.picture(photo)).toBeNull()
  })
  it('one job that is answered 503 holds up no other', async () => {
    const server = new FakeServer()
    const { replica, store } = await (await Browser.open(server)).tab()
    const [bad, good] = [uuidv7(), uuidv7()].sort() as [string, string]
    server.badJobs.add(bad)
    await replica.edit(bad, [newJob(bad)])
    await replica.edit(good, [newJob(good)])
    expect(await replica.send()).toBe('failing')
    expect([...(await store.waiting()).keys()]).toEqual([bad])
    expect(server.jobs.has(good)).toBe(true)
  })
  it('on a link that is cut at 20 kB what is larger goes in smaller parts, until all is through', async () => {
    const server = new FakeServer()
    const { replica, store } = await (await Browser.open(server)).tab()
    const jobId = uuidv7()
    const notes = Array.from({ length: 60 }, (_, i) =>
      change('spots', 'insert', uuidv7(), { fields: { ...spot(`S${i}`), note: 'n'.repeat(900) } }),
    )
    await replica.edit(jobId, [newJob(jobId), ...notes])
    server.cutAt = 20_000
    let tries = 0
    while ((await store.waiting()).size && tries++ < 12) await replica.send()
    expect((await store.waiting()).size).toBe(0)
    expect(server.snapshot(jobId).document.spots).toHaveLength(60)
  })
  it('changes that found no room on the device are on the server, or said not to be kept', async () => {
    const server = new FakeServer()
    const { replica } = await (await Browser.open(server)).tab()
    const jobId = uuidv7()
    expect(await replica.sendUnkept(jobId, [newJob(jobId)])).toBe(1)
    server.weather = () => 'not reached'
    expect(await replica.sendUnkept(jobId, [change('spots', 'insert', uuidv7(), { fields: spot('Hall') })])).toBeNull()
  })
})
