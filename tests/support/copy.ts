/** A job's own copy, with all that was read in it: out as a file and in again. */
import type { APIRequestContext } from '@playwright/test'

/** @returns the copy's id */
export async function copyOf(request: APIRequestContext, jobId: string): Promise<string> {
  const bytes = await (await request.get(`/api/jobs/${jobId}/archive.zip`)).body()
  const answer = await request.post('/api/jobs/import', { data: bytes, headers: { 'content-type': 'application/zip' } })
  return ((await answer.json()) as { jobId: string }).jobId
}
