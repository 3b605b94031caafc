import { describe, expect, it } from 'vitest'
import type { NearMasts } from '../../shared/api'
import { NearHere, nearKey } from './near-masts'

const list = (name: string): NearMasts => ({ masts: [{ id: name, name }] as unknown as NearMasts['masts'], cells: [] })
function device() {
  const kept = new Map<string, NearMasts>()
  const near = new NearHere('job', {
    kept: name => Promise.resolve(kept.get(name)),
    keep: (name, masts) => Promise.resolve(void kept.set(name, masts)),
  })
  return { kept, near }
}

describe('masts near the stop at which a job stands', () => {
  it('are lent from this device where it holds them for that very stop', async () => {
    const { kept, near } = device()
    kept.set(nearKey('job', 'quay'), list('Quay mast'))
    expect(await near.fromDevice('quay')).toBe(true)
    expect(near.masts).toEqual(list('Quay mast'))
    expect(await near.fromDevice(null)).toBe(false)
    expect(near.areOf(null)).toBe(false)
  })
  it('those of the server are kept for the next time, and lent only where the job stands there', async () => {
    const { kept, near } = device()
    await near.fromServer(list('Home mast'), null, true)
    await near.fromServer(list('Quay mast'), 'quay', false)
    expect(near.areOf(null)).toBe(true)
    expect(near.masts).toEqual(list('Home mast'))
    expect(kept.get(nearKey('job', 'quay'))).toEqual(list('Quay mast'))
  })
  it('of a stop of which nothing is known none of another stop are lent', () => {
    const { near } = device()
    near.lend(list('Home mast'), null)
    near.nothing('quay')
    expect(near.masts!.masts).toEqual([])
    expect(near.areOf('quay')).toBe(true)
  })
})
