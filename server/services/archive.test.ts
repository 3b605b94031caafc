import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { readArchive } from './archive-read'

/** What is wrong is found before the database is asked for anything. */
const read = (bytes: Uint8Array) => Promise.resolve().then(() => readArchive(bytes))
const zip = (files: Record<string, string>) => zipSync(Object.fromEntries(Object.entries(files).map(([k, v]) => [k, strToU8(v)])))
const manifest = (o: object = {}) => JSON.stringify({ format: 'multivox-job', version: 1, ...o })

const PICTURE = 'pictures/00000000-0000-4000-8000-000000000000.png'

let made: Uint8Array | null = null
/** Of 210 MB, its picture first; packed once. */
const bomb = (): Uint8Array =>
  (made ??= zipSync({ [PICTURE]: new Uint8Array(210_000_000), 'manifest.json': strToU8(manifest()) }, { level: 1 }))

describe('an archive that is none', () => {
  it.each([
    ['no ZIP', strToU8('not a zip'), 'no ZIP archive'],
    ['nothing in it', zip({}), 'holds no manifest.json'],
    ['another format', zip({ 'manifest.json': manifest({ format: 'other' }) }), 'not one of a job'],
    ['a later version', zip({ 'manifest.json': manifest({ version: 9 }) }), 'version 9; this program reads up to 1'],
    ['a manifest that is the word null', zip({ 'manifest.json': 'null' }), 'not one of a job'],
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
  it('what unpacks to more than 200 MB is refused', async () => {
    expect(bomb().length).toBeLessThan(10_000_000)
    await expect(read(bomb())).rejects.toThrow('more than 200 MB')
  })
  it('what lies about its size is counted as it comes out', async () => {
    const bytes = zipSync({ 'manifest.json': strToU8(manifest()), 'pictures/a.png': new Uint8Array(1000) }, { level: 1 })
    const big = bomb().slice()
    // The entry claims ten bytes, in its own head and in the directory at the end.
    const view = new DataView(big.buffer, big.byteOffset, big.byteLength)
    view.setUint32(22, 10, true)
    const directory = view.getUint32(big.length - 6, true)
    view.setUint32(directory + 24, 10, true)
    const began = Date.now()
    await expect(read(big)).rejects.toThrow('more than 200 MB')
    expect(Date.now() - began).toBeLessThan(20_000)
    await expect(read(bytes)).rejects.toThrow('no job.json')
  })
  it('ten thousand entries are counted, not unpacked', async () => {
    const many = zipSync(Object.fromEntries(Array.from({ length: 10_000 }, (_, i) => [`a/${i}`, new Uint8Array(1)])))
    await expect(read(many)).rejects.toThrow('more than 5000 files')
  })
})
