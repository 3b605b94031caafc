import type { Fleet } from '../../shared/api'

/** The fleet that the open job belongs to, as it was last heard of; null where it is one alone. */
export function useFleet() {
  const store = useJob()
  const fleet = shallowRef<Fleet | null>(null)
  const error = ref('')
  async function load(): Promise<void> {
    const id = store.id
    fleet.value = null
    if (!id) return
    fleet.value = (await kept<Fleet>(`fleet:${id}`)) ?? null
    try {
      const got = await api<Fleet>(`/api/jobs/${id}/fleet`)
      if (store.id !== id) return
      fleet.value = got.units.length > 1 ? got : null
      await keep(`fleet:${id}`, fleet.value)
    } catch (e) {
      if (!(e instanceof Unreachable) && !(e instanceof ApiError && e.status === 404)) error.value = messageOf(e)
    }
  }
  watch(() => store.id, load, { immediate: true })
  return { fleet, error, load }
}
