import { v7 as uuidv7 } from 'uuid'
import { cameraSays } from '~/utils/camera'
import { shrunk, takenAt } from '~/utils/photos'
import { storePicture } from '~/utils/pictures'

/** What a photograph shows or where it was taken. */
export interface PhotoPlace {
  spotId?: string | null
  nodeId?: string | null
  at?: { eastM: number; northM: number; upM: number } | null
  bearingDeg?: number | null
  /** the step of the card at which it was taken */
  stepKey?: string | null
}

/** Photographs brought or taken: shrunk on this device, kept on it, and sent when there is a network. */
export function usePhotos() {
  const store = useJob()
  const busy = ref(false)
  const error = ref('')

  async function add(files: Iterable<File> | null, place: PhotoPlace = {}) {
    error.value = ''
    busy.value = true
    try {
      for (const file of files ?? []) {
        const shot = await shrunk(file)
        const says = await cameraSays(file, store.result?.declination?.declinationDeg ?? null)
        const id = uuidv7()
        await storePicture(store.id!, id, shot.blob)
        const bad = await store.commit(
          [
            {
              table: 'photos',
              op: 'insert',
              rowId: id,
              fields: {
                caption: null,
                takenAtUtc: takenAt(file, Date.now(), says.takenAtUtc),
                widthPx: shot.widthPx,
                heightPx: shot.heightPx,
                eastM: place.at?.eastM ?? null,
                northM: place.at?.northM ?? null,
                upM: place.at?.upM ?? null,
                bearingDeg: place.bearingDeg ?? says.bearingDeg,
                spotId: place.spotId ?? null,
                nodeId: place.nodeId ?? null,
                stepKey: place.stepKey ?? null,
              },
            },
          ],
          'a photograph',
        )
        throwRefused(bad)
      }
    } catch (e) {
      error.value = messageOf(e)
    }
    busy.value = false
  }
  const remove = (id: string) => store.commit([{ table: 'photos', op: 'delete', rowId: id }], 'take a photograph away')
  return { add, remove, busy, error }
}
