import { v7 as uuidv7 } from 'uuid'
import { describe, expect, it, vi } from 'vitest'
import { SPOT } from '../../tests/support/rows'
import { change } from '../replica/contract'
import { Browser, newJob } from '../replica/fake-browser'
import { FakeServer } from '../replica/fake-server'
import { HeldJob } from './held-job'

const spot = (name: string) => ({ ...SPOT, name })

async function opened(made: () => ReturnType<typeof change>[] = () => []) {
  const server = new FakeServer()
  const browser = await Browser.open(server)
  const { replica } = await browser.tab()
  const jobId = uuidv7()
  await replica.edit(jobId, [newJob(jobId), ...made()])
  await replica.send()
  const changed = vi.fn()
  const prepare = vi.fn(() => Promise.resolve())
  const held = new HeldJob(jobId, { replica, prepare, changed })
  await held.look()
  return { server, browser, replica, jobId, held, changed, prepare }
}

describe('a job as a device holds it while it is open', () => {
  it('shows a change at once, says that it is being written, and then that it waits', async () => {
    const { held, changed } = await opened()
    const taking = held.take([change('spots', 'insert', uuidv7(), { fields: spot('Hall') })])
    expect(held.doc!.spots.map(s => s.name)).toEqual(['Hall'])
    expect([held.unwritten.length, held.waiting.size]).toEqual([1, 1])
    expect(changed).toHaveBeenCalled()
    expect(await taking).toBe(true)
    expect([held.unwritten.length, held.waiting.size]).toEqual([0, 1])
  })

  it('a change that is written while the device is being read does not vanish in between', async () => {
    const { held, replica } = await opened()
    const read = replica.read.bind(replica)
    const id = uuidv7()
    // The look has begun and has read the device; the change is taken and written before it ends.
    vi.spyOn(replica, 'read').mockImplementationOnce(async (...of) => {
      const seen = await read(...of)
      await held.take([change('spots', 'insert', id, { fields: spot('Attic') })])
      return seen
    })
    await held.look()
    expect(held.doc!.spots.map(s => s.name)).toEqual(['Attic'])
    expect(held.waiting.size).toBe(1)
  })

  it('what is sent is no longer waited for, and nothing that is shown becomes another thing', async () => {
    const { held, replica } = await opened()
    const id = uuidv7()
    await held.take([change('spots', 'insert', id, { fields: spot('Hall') })])
    const before = held.doc
    await replica.send()
    await held.look()
    expect(held.waiting.size).toBe(0)
    // Only its version is new: the next change of it is made on that.
    expect(held.doc).toBe(before)
    expect(held.versionOf('spots', id)).toBe(2)
  })

  it('another browser’s change is shown, and only its table is another', async () => {
    const id = uuidv7()
    const { held, replica, server, jobId } = await opened(() => [change('spots', 'insert', id, { fields: spot('Hall') })])
    const before = held.doc!
    server.post(jobId, {
      device: 'other',
      changes: [change('spots', 'update', id, { fields: { name: 'Kitchen' }, baseVersion: 2 })],
    })
    await replica.pull(jobId)
    await held.look()
    expect(held.doc!.spots[0]!.name).toBe('Kitchen')
    expect(held.doc!.jobs).toBe(before.jobs)
  })

  it('without room it is sent at once where there is a connection, and shown until the server’s base holds it', async () => {
    const { held, replica, server, jobId } = await opened()
    vi.spyOn(replica, 'edit').mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'))
    expect(await held.take([change('spots', 'insert', uuidv7(), { fields: spot('Hall') })])).toBe(false)
    expect(held.noRoom).toBe('sent at once')
    expect(held.waiting.size).toBe(0)
    expect(server.snapshot(jobId).document.spots).toHaveLength(1)
    await held.look()
    expect(held.doc!.spots.map(s => s.name)).toEqual(['Hall'])
    await replica.pull(jobId)
    await held.look()
    expect(held.doc!.spots.map(s => s.name)).toEqual(['Hall'])
  })

  it('without room and connection it is shown, told as not kept, and goes with the next', async () => {
    const { held, replica, server } = await opened()
    server.weather = () => 'not reached'
    const edit = vi.spyOn(replica, 'edit').mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'))
    await held.take([change('spots', 'insert', uuidv7(), { fields: spot('Hall') })])
    expect([held.noRoom, held.unkept.length]).toEqual(['not kept', 1])
    expect(held.doc!.spots).toHaveLength(1)
    await held.take([change('spots', 'insert', uuidv7(), { fields: spot('Attic') })])
    expect(edit.mock.lastCall![1]).toHaveLength(2)
    expect([held.noRoom, held.unkept.length, held.unwritten.length]).toEqual([null, 0, 0])
  })

  it('what must be at hand is there before rows are shown', async () => {
    const { held, prepare } = await opened()
    let shownAt = 0
    prepare.mockImplementationOnce(async () => {
      await Promise.resolve()
      shownAt = held.doc!.spots.length
    })
    await held.take([change('spots', 'insert', uuidv7(), { fields: spot('Hall') })])
    await held.look()
    expect(shownAt).toBe(1)
    expect(prepare).toHaveBeenLastCalledWith(null)
  })

  it('once left, it tells nothing any more', async () => {
    const { held, changed } = await opened()
    changed.mockClear()
    held.end()
    await held.look()
    expect(changed).not.toHaveBeenCalled()
  })
})
