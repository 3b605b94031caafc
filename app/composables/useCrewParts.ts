import { isLike, PARTS } from '#core/catalogue/parts'
import type { Part } from '#core/job/part'

const parts = shallowRef<Part[]>([])
let asked = false
/** the crew's own first, then what is shipped */
const all = computed(() => [...parts.value, ...PARTS])
const like = (part: Part): Part[] => all.value.filter(p => isLike(p, part))

/** The crew's own parts, kept on the device so that they are there without a connection. */
export function useCrewParts() {
  const session = useSession()
  async function load(): Promise<void> {
    const held = await session.own?.store.kept<Part[]>('parts')
    if (held) parts.value = held
    try {
      parts.value = await api<Part[]>('/api/parts')
      await session.own?.store.keep('parts', parts.value)
    } catch (e) {
      if (!(e instanceof Unreachable) && !(e instanceof ApiError)) throw e
    }
  }
  if (!asked && import.meta.client) {
    asked = true
    void load()
  }
  return { parts, all, like, load }
}
