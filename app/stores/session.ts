import type { Enough } from '#core/job'
import { sure } from '#core/sure'
import type { Me } from '../../shared/api'
import { canSeal, deviceDb, deviceValue, openReplica, setDeviceValue } from '../replica/browser'
import type { OpenReplica, Who } from '../replica/browser'
import { ReplicaStore } from '../replica/store'

interface Carrier {
  name: string
  codes: string[]
}
interface Told {
  me: Me | null
  carriers: Carrier[]
  enough: Partial<Enough>
  terrainVersion: number
  demo: boolean
  tiles: string | null
}

/** Who is signed in, and the replica of their work on this device. Offline, the last one known here. */
export const useSession = defineStore('session', () => {
  const me = ref<Me | null>(null)
  const own = shallowRef<OpenReplica | null>(null)
  const carriers = ref<Carrier[]>([])
  /** what counts as enough in every new job of the crew */
  const enough = ref<Partial<Enough>>({})
  const demo = ref(false)
  /** address of map tiles where the installation has set one, `…/{z}/{x}/{y}.png` */
  const tiles = ref<string | null>(null)
  const loaded = ref(false)
  /** true where the server says the session has ended while work may be unsent */
  const ended = ref(false)
  /** what keeps anyone from signing in here */
  const barred = ref('')
  const { engine } = useEngine()

  /** Whatever this tab held of another member is emptied before anything of this one is read. */
  async function enter(who: Who): Promise<void> {
    const isOther = own.value !== null && own.value.store.owner !== who.me.memberId
    if (isOther) leave()
    if (!own.value) own.value = await openReplica(who.me.memberId)
    me.value = who.me
    carriers.value = who.carriers
    enough.value = who.enough ?? {}
    // Calls reach it in their order: nothing waits for it here, so that the list of jobs opens without it.
    void engine.setCrew(who.me.crewId)
  }

  function leave(): void {
    me.value = null
    own.value = null
    carriers.value = []
    enough.value = {}
    ended.value = false
    forgetMember()
  }

  /** Another member's cache and key go when someone else signs in; what was not sent of it stays sealed. */
  async function shutOthers(memberId: string): Promise<void> {
    const db = await deviceDb()
    for (const { owner, key } of await db.getAll('keys')) if (owner !== memberId) await new ReplicaStore(db, owner, key).close()
  }

  async function load(): Promise<void> {
    if (!canSeal()) {
      barred.value = 'This address is not secure, so nothing can be kept sealed here. Open it by https, or by localhost.'
      loaded.value = true
      return
    }
    try {
      if (await deviceValue('signing-out')) await finishSigningOut()
      await refresh()
    } catch (e) {
      // Whatever the server answers, what lies on this device opens: a fault of the server is no reason to show nothing.
      if (!(e instanceof Unreachable)) console.warn('who is signed in could not be asked', e)
      const before = await deviceValue<Who>('who')
      if (before && (await (await deviceDb()).getKey('keys', before.me.memberId))) await enter(before)
    }
    loaded.value = true
  }

  /** Asks who is signed in, and what has changed for the crew since. @throws Unreachable without a connection */
  async function refresh(): Promise<void> {
    const got = await api<Told>('/api/auth/me')
    demo.value = got.demo
    tiles.value = got.tiles
    const before = await deviceValue<Who>('who')
    if (got.me) {
      await shutOthers(got.me.memberId)
      const who: Who = { me: got.me, carriers: got.carriers, enough: got.enough }
      await enter(who)
      ended.value = false
      await setDeviceValue('who', who)
      void engine.catchUp(got.terrainVersion)
    } else if (before && (await (await deviceDb()).countFromIndex('pending', 'owner', before.me.memberId))) {
      // The session has run out, which is no signing out: the work goes on.
      await enter(before)
      ended.value = true
    } else if (me.value || own.value) leave()
  }

  async function signIn(body: { email: string; password: string } | 'demo'): Promise<void> {
    await (body === 'demo' ? api('/api/auth/demo', { body: {} }) : api('/api/auth/sign-in', { body }))
    await refresh()
  }

  /** Leaves nothing readable on this device; what is not sent stays, sealed. Without a connection the server is told later. */
  async function signOut(): Promise<void> {
    await setDeviceValue('signing-out', true)
    await own.value?.store.close()
    await setDeviceValue('who', undefined)
    leave()
    // Nobody signs in on a page that is about to go.
    loaded.value = false
    await finishSigningOut().catch(e => {
      if (e instanceof Unreachable) return
      loaded.value = true
      throw e
    })
    // A page of its own begins: nothing in the memory of this one is left to the next.
    location.replace('/')
  }

  async function finishSigningOut(): Promise<void> {
    await api('/api/auth/sign-out', { body: {} })
    await setDeviceValue('signing-out', undefined)
  }

  /** Who is signed in, for what is shown only to a member. */
  const member = computed(() => sure(me.value))
  const mayEdit = computed(() => me.value?.role !== 'viewer')
  return { me, member, own, carriers, enough, demo, tiles, loaded, ended, barred, mayEdit, load, refresh, signIn, signOut }
})
