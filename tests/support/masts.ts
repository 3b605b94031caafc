/** A list of masts brought in as the app brings it: opened, sent in pieces, closed, followed to its end. */
import { gzipSync } from 'node:zlib'
import type { APIRequestContext, APIResponse } from '@playwright/test'
import { headerSignature, proposeRules } from '../../core/formats/mast-columns'
import type { MastRules } from '../../core/formats/mast-columns'
import type { MastImportReport, MastImportState } from '../../shared/api'

export const HEADER = ['name', 'lat', 'lon', 'carrier', 'tech', 'band', 'height', 'seen']

export interface Bring {
  header?: string[]
  delimiter?: string
  rules?: Partial<MastRules>
  pieces?: number
}

export async function open(request: APIRequestContext, name: string, o: Bring = {}): Promise<APIResponse> {
  const header = o.header ?? HEADER
  return request.post('/api/masts/imports', {
    data: {
      name,
      delimiter: o.delimiter ?? ',',
      signature: headerSignature(header),
      rules: { ...proposeRules(header), ...o.rules },
    },
  })
}

export const put = (
  request: APIRequestContext,
  id: string,
  { n, text, last }: { n: number; text: string; last: boolean },
): Promise<APIResponse> =>
  request.put(`/api/masts/imports/${id}/pieces/${n}${last ? '?last=1' : ''}`, {
    data: gzipSync(text),
    headers: { 'content-type': 'text/csv', 'content-encoding': 'gzip' },
  })

export async function follow(request: APIRequestContext, id: string): Promise<MastImportReport> {
  for (let i = 0; i < 240; i++) {
    const state = (await (await request.get(`/api/masts/imports/${id}`)).json()) as MastImportReport
    if (state.state !== 'merging' && state.state !== 'receiving') return state
    await new Promise(done => setTimeout(done, 250))
  }
  throw new Error('the merge does not end')
}

/** @returns the report, or the answer that refused it */
export async function bring(
  request: APIRequestContext,
  name: string,
  rows: string[][],
  o: Bring = {},
): Promise<MastImportReport> {
  const text = [o.header ?? HEADER, ...rows].map(r => r.join(o.delimiter ?? ',')).join('\n')
  const { id } = (await (await open(request, name, o)).json()) as MastImportState
  const count = o.pieces ?? 1
  const size = Math.ceil(text.length / count)
  for (let n = 0; n < count; n++) await put(request, id, { n, text: text.slice(n * size, (n + 1) * size), last: n === count - 1 })
  const closed = await request.post(`/api/masts/imports/${id}/close`, { data: {} })
  if (!closed.ok()) throw new Error(((await closed.json()) as { detail: string }).detail)
  return follow(request, id)
}
