/** An upload on its way to a file of its own, which is gone afterwards whatever happens. */
import { createWriteStream, mkdirSync, rmSync } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import type { H3Event } from 'h3'
import { limited } from './limited'

/** Uploads lie in the installation's own folder where it has one. */
function folder(): string {
  const { dataDir } = useRuntimeConfig()
  const path = dataDir ? join(dataDir, 'uploads') : tmpdir()
  mkdirSync(path, { recursive: true })
  return path
}

/** What a killed server left. */
export function clearUploads(): void {
  const { dataDir } = useRuntimeConfig()
  if (dataDir) rmSync(join(dataDir, 'uploads'), { recursive: true, force: true })
}

/** @param most  bytes; more is a problem 413 */
export async function withUpload<T>(event: H3Event, most: number, work: (path: string) => Promise<T>): Promise<T> {
  const own = await mkdtemp(join(folder(), 'upload-'))
  try {
    const path = join(own, 'file')
    await pipeline(limited(event, most), createWriteStream(path, { mode: 0o600 }))
    return await work(path)
  } finally {
    await rm(own, { recursive: true, force: true })
  }
}
