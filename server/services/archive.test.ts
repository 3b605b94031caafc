import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { importJob } from './archive'

/** What is wrong is found before the database is asked for anything. */
const read = (bytes: Uint8Array) => importJob(null as never, { crewId: 'c', memberId: 'm' }, bytes)
const zip = (files: Record<string, string>) => zipSync(Object.fromEntries(Object.entries(files).map(([k, v]) => [k, strToU8(v)])))
const manifest = (o: object = {}) => JSON.stringify({ format: 'multivox-job', version: 1, ...o })

describe('an archive that is none', () => {
  it.each([
    ['no ZIP', strToU8('not a zip'), 'no ZIP archive'],
    ['nothing in it', zip({}), 'holds no manifest.json'],
    ['another format', zip({ 'manifest.json': manifest({ format: 'other' }) }), 'not one of a job'],
    ['a later version', zip({ 'manifest.json': manifest({ version: 9 }) }), 'version 9; this program reads up to 1'],
    ['no version', zip({ 'manifest.json': manifest({ version: 'x' }) }), 'version x'],
    ['no job', zip({ 'manifest.json': manifest() }), 'holds no job.json'],
    ['a job that is no JSON', zip({ 'manifest.json': manifest(), 'job.json': '{' }), 'job.json cannot be read'],
    ['a job without a site', zip({ 'manifest.json': manifest(), 'job.json': '{"jobs":[{"id":"a"}]}' }), 'no site'],
    [
      'rows that no schema takes',
      zip({ 'manifest.json': manifest(), 'job.json': '{"jobs":[{"id":"a","name":7}],"sites":[{"id":"b"}]}' }),
      'Row 1 of “jobs”',
    ],
  ])('%s is refused in words', async (_, bytes, words) => {
    await expect(read(bytes)).rejects.toThrow(words)
    await expect(read(bytes)).rejects.toBeInstanceOf(RangeError)
  })
  it('what unpacks to more than 200 MB is refused by what it says of itself, unpacked or not', async () => {
    const bytes = zipSync({ 'manifest.json': strToU8(manifest()), 'pictures/a.png': new Uint8Array(210_000_000) }, { level: 1 })
    expect(bytes.length).toBeLessThan(10_000_000)
    await expect(read(bytes)).rejects.toThrow('more than 200 MB')
  })
})
