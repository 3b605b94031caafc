import type { Me } from '../../server/utils/member'

interface Carrier { name: string, codes: string[] }

/** Who is signed in. Offline, the last one known on this device. */
export const useSession = defineStore('session', () => {
  const me = ref<Me | null>(null)
  const carriers = ref<Carrier[]>([])
  const demo = ref(false)
  /** address of map tiles where the installation has set one, `…/{z}/{x}/{y}.png` */
  const tiles = ref<string | null>(null)
  const loaded = ref(false)
  /** true where the server says the session has ended while work may be unsent */
  const ended = ref(false)

  async function load(): Promise<void> {
    try {
      const got = await api<{ me: Me | null, carriers: Carrier[], demo: boolean, tiles: string | null }>('/api/auth/me')
      const before = await kept<{ me: Me, carriers: Carrier[] }>('me')
      demo.value = got.demo
      tiles.value = got.tiles
      if (got.me) {
        me.value = got.me
        carriers.value = got.carriers
        ended.value = false
        await keep('me', { me: got.me, carriers: got.carriers })
      }
      else if (before && await outboxCount(before.me.memberId)) {
        me.value = before.me
        carriers.value = before.carriers
        ended.value = true
      }
      else {
        me.value = null
      }
    }
    catch (e) {
      if (!(e instanceof Unreachable)) throw e
      const before = await kept<{ me: Me, carriers: Carrier[] }>('me')
      me.value = before?.me ?? null
      carriers.value = before?.carriers ?? []
    }
    loaded.value = true
  }

  async function signIn(body: { email: string, password: string } | 'demo'): Promise<void> {
    await (body === 'demo' ? api('/api/auth/demo', { body: {} }) : api('/api/auth/sign-in', { body }))
    await load()
  }

  async function signOut(): Promise<void> {
    await api('/api/auth/sign-out', { body: {} })
    await (await local()).delete('kept', 'me')
    me.value = null
  }

  const mayEdit = computed(() => me.value?.role !== 'viewer')
  return { me, carriers, demo, tiles, loaded, ended, mayEdit, load, signIn, signOut }
})
