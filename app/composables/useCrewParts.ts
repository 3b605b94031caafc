import { isLike, PARTS } from '#core/catalogue'
import type { Part } from '#core/job'

const parts = shallowRef<Part[]>([])
let asked = false
/** the crew's own first, then what is shipped */
const all = computed(() => [...parts.value, ...PARTS])
const like = (part: Part): Part[] => all.value.filter(p => isLike(p, part))

ofMember(() => {
  parts.value = []
  asked = false
})

/** The crew's own parts, kept on the device so that they are there without a connection. */
export function useCrewParts() {
  const session = useSession()
  async function load(): Promise<void> {
    const { own } = session
    if (!own) return
    const held = await own.store.kept<Part[]>('parts')
    if (held && session.own === own) parts.value = held
    try {
      const got = await api<Part[]>('/api/parts')
      if (session.own !== own) return
      parts.value = got
      await own.store.keep('parts', got)
    } catch (e) {
      if (!(e instanceof Unreachable) && !(e instanceof ApiError)) throw e
    }
  }
  if (!asked && session.own && import.meta.client) {
    asked = true
    void load()
  }
  return { parts, all, like, load }
}
