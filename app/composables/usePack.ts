import { nowUtc } from '../replica/clock'
import type { NearMasts } from '../../shared/api'
import { nearKey } from '../job/near-masts'

/** What was brought onto this device for a place. */
export interface Pack {
  bytes: number
  blocks: number
  masts: number
  at: string
  complete: boolean
}

/** A place to be made ready: a stop, or the job's own. */
export interface PackPlace {
  id: string | null
  name: string
  latDeg: number
  lonDeg: number
}

/** Makes places of the open job ready for no coverage: ground within 60 km, and the masts about them. */
export function usePack() {
  const store = useOpened()
  const { engine, proxy } = useEngine()
  const packs = ref<Record<string, Pack>>({})
  const running = ref<{ id: string | null; done: number; of: number; bytes: number } | null>(null)
  const error = ref('')
  const keyOf = (id: string | null) => `pack:${store.id}:${id ?? 'home'}`
  const of = (id: string | null): Pack | undefined => packs.value[id ?? 'home']

  async function load(ids: (string | null)[]): Promise<void> {
    for (const id of ids) {
      const p = await kept<Pack>(keyOf(id))
      if (p) packs.value[id ?? 'home'] = p
    }
  }

  async function mastsOf(place: PackPlace): Promise<NearMasts> {
    await store.send()
    if (place.id === null) {
      await store.fetchWhole()
      return { masts: store.doc.masts, cells: store.doc.cells }
    }
    const near = await api<NearMasts>(`/api/jobs/${store.id}/near?stop=${place.id}`)
    await keep(nearKey(store.id, place.id), near)
    return near
  }

  async function prepare(place: PackPlace): Promise<void> {
    if (running.value) return
    error.value = ''
    running.value = { id: place.id, done: 0, of: 1, bytes: 0 }
    try {
      const near = await mastsOf(place)
      const masts = JSON.stringify(near).length
      const r = await engine.pack(
        { latDeg: place.latDeg, lonDeg: place.lonDeg },
        proxy(
          (done: number, total: number, bytes: number) =>
            (running.value = { id: place.id, done, of: total, bytes: bytes + masts }),
        ),
      )
      if (r) {
        const pack = { bytes: r.bytes + masts, blocks: r.blocks, masts: near.masts.length, at: nowUtc(), complete: r.complete }
        packs.value[place.id ?? 'home'] = pack
        await keep(keyOf(place.id), pack)
        if (!r.complete)
          error.value = `${place.name}: the connection was lost on the way; what came is kept. Make it ready again in coverage.`
      }
    } catch (e) {
      error.value = e instanceof Unreachable ? 'No connection: a place is made ready while there is one.' : messageOf(e)
    }
    running.value = null
  }

  const stop = () => engine.stopPack()
  return { running, error, of, load, prepare, stop }
}
