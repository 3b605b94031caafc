<script setup lang="ts">
import type { Enough } from '#core/job'
import type { CrewRecord } from '../../shared/api'

/** The crew: its people, its mast sets and its terrain. */
interface Crew {
  members: { id: string; name: string; email: string; role: string; active: boolean }[]
  mastSets: { id: string; name: string; rows: number; kept: number; importedAt: string; listedOn: string | null }[]
  tiles: { name: string; kind: string; side: number; voids: number }[]
  phone: string
}
const session = useSession()
const router = useRouter()
const crew = ref<Crew | null>(null)
const error = ref('')
const link = ref('')
const role = ref<'lead' | 'installer' | 'viewer'>('installer')
async function load() {
  try {
    crew.value = await api<Crew>('/api/crew')
  } catch (e) {
    error.value = messageOf(e)
  }
}
async function act(work: () => Promise<unknown>) {
  error.value = ''
  try {
    await work()
    await load()
  } catch (e) {
    error.value = messageOf(e)
  }
}
const invite = (body: object) =>
  act(async () => (link.value = location.origin + (await api<{ path: string }>('/api/crew/invite', { body })).path))
const change = (id: string, body: object) => act(() => api(`/api/crew/members/${id}`, { method: 'PATCH', body }))
/** A set or a tile goes for the whole crew and does not come back: the first press only asks. */
const asked = ref('')
const awayWords = (path: string) => (asked.value === path ? 'for the whole crew? press again' : 'take away')
const tilePath = (t: { name: string; kind: string }) => `/api/terrain/tiles/${encodeURIComponent(t.name)}?kind=${t.kind}`
async function takeAway(path: string) {
  if (asked.value !== path) {
    asked.value = path
    return
  }
  asked.value = ''
  await act(() => api(path, { method: 'DELETE' }))
}
const carriers = ref(session.carriers.map(c => ({ name: c.name, codes: c.codes.join(' ') })))
const carriersKept = ref(false)
async function keepCarriers() {
  carriersKept.value = false
  await act(async () => {
    const list = carriers.value
      .filter(c => c.name.trim())
      .map(c => ({ name: c.name.trim(), codes: c.codes.split(/[\s,;]+/).filter(Boolean) }))
    await api('/api/crew/carriers', { method: 'PUT', body: { carriers: list } })
    await session.refresh()
    carriersKept.value = true
  })
}
/** One field after another: the next is sent with what the one before has set. */
const saveEnough = inLine(async (field: keyof Enough, v: unknown): Promise<{ field: string; message: string }[]> => {
  try {
    const none = { needDataDbm: null, needCallsDbm: null, rsrpEdges: null, sinrEdges: null, busyHours: null }
    await api('/api/crew/enough', { method: 'PUT', body: { ...none, ...session.enough, [field]: v } })
    await session.refresh()
    return []
  } catch (e) {
    return e instanceof ApiError && e.errors?.length ? e.errors : [{ field, message: messageOf(e) }]
  }
})
const savePhone = async (phone: string | null): Promise<{ field: string; message: string }[]> => {
  try {
    await api('/api/crew/contact', { method: 'PUT', body: { phone: phone ?? '' } })
    await load()
    return []
  } catch (e) {
    return [{ field: 'phone', message: messageOf(e) }]
  }
}
const record = ref<CrewRecord | null>(null)
const promised = computed(() => (record.value ? record.value.inside + record.value.less + record.value.more : 0))
onMounted(async () => (record.value = session.me ? await api<CrewRecord>('/api/crew/record').catch(() => null) : null))
onMounted(() => (session.me ? load() : router.replace('/')))
useHead({ title: 'Crew · Multivox' })
</script>

<template>
  <div class="page">
    <PageHead :title="session.me?.crewName ?? ''">
      <NuxtLink to="/" class="press">All jobs</NuxtLink>
    </PageHead>
    <main>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
      <section>
        <h2>People</h2>
        <div v-for="m in crew?.members ?? []" :key="m.id" class="row">
          <strong>{{ m.name }}</strong><span class="soft">{{ m.email }}</span>
          <MvChoice
            v-if="session.me?.role === 'lead'"
            :value="m.role"
            :choices="['lead', 'installer', 'viewer']"
            :aria-label="`Role of ${m.name}`"
            :save="r => change(m.id, { role: r })"
          />
          <span v-else>{{ m.role }}</span>
          <span v-if="session.me?.role === 'lead'" class="acts">
            <button type="button" class="press small" @click="invite({ kind: 'reset', memberId: m.id })">new password</button>
            <button
              v-if="m.id !== session.me.memberId"
              type="button"
              class="press small"
              @click="change(m.id, { active: !m.active })"
            >
              {{ m.active ? 'shut out' : 'let in again' }}
            </button>
          </span>
        </div>
        <div v-if="session.me?.role === 'lead'" class="invite">
          <MvChoice :value="role" :save="v => (role = v)" label="As" :choices="['lead', 'installer', 'viewer']" />
          <button type="button" class="press filled" @click="invite({ kind: 'invite', role })">Make an invitation</button>
        </div>
        <p v-if="link" class="link" role="status">
          One-time link, three days: <code data-test="link">{{ link }}</code>
        </p>
      </section>
      <section>
        <h2>Whom customers call</h2>
        <p class="sentence">
          On every customer’s page stands
          <MvText phrase label="Telephone" hint="no number yet" :value="crew?.phone || null" :save="savePhone" />.
        </p>
      </section>
      <section data-test="record">
        <h2>What was promised, and what came</h2>
        <p v-if="!record || !promised" class="soft">
          Nothing yet: each job counts once it was tested after and handed over with its promise.
        </p>
        <p v-else>
          <b class="fig">{{ record.inside }} of {{ promised }}</b> came out within what was promised; {{ record.less }} came out
          less, {{ record.more }} more. Nine in ten is what is meant.
        </p>
      </section>
      <section>
        <h2>Carriers</h2>
        <p class="soft">Whose network a code is, country and network together: lists that carry codes are read by these names.</p>
        <form class="carriers" @submit.prevent="keepCarriers">
          <template v-for="(c, i) in carriers" :key="i">
            <v-text-field v-model="c.name" label="Carrier" :disabled="session.me?.role !== 'lead'" /><v-text-field
              v-model="c.codes"
              class="fig"
              label="Codes"
              placeholder="99901 99903"
              :disabled="session.me?.role !== 'lead'"
            />
          </template>
          <span v-if="session.me?.role === 'lead'" class="acts"
            ><button type="button" class="press small" data-test="add-carrier" @click="carriers.push({ name: '', codes: '' })">
              + carrier</button
            ><button type="submit" class="press small" data-test="keep-carriers">Keep</button
            ><span v-if="carriersKept" class="soft" role="status">kept</span></span
          >
        </form>
      </section>
      <section v-if="session.me?.role === 'lead'" data-test="enough">
        <h2>What counts as enough</h2>
        <p class="soft">Goes into every new job, where it can be set otherwise. Jobs begun before keep theirs.</p>
        <div class="enough"><EnoughFields :value="session.enough" :save="saveEnough" /></div>
      </section>
      <section>
        <h2>Masts</h2>
        <p v-if="!crew?.mastSets.length" class="soft">No set yet: import one in a job’s Bearings.</p>
        <div v-for="s in crew?.mastSets ?? []" :key="s.id" class="row">
          <strong>{{ s.name }}</strong><span class="fig">{{ s.kept }} of {{ s.rows }} rows</span
          ><span class="soft">{{ s.listedOn ? `list of ${s.listedOn}` : '' }}</span
          ><button
            v-if="session.me?.role === 'lead'"
            type="button"
            class="press small"
            :data-test="`away-${s.name}`"
            @click="takeAway(`/api/masts/sets/${s.id}`)"
          >
            {{ awayWords(`/api/masts/sets/${s.id}`) }}
          </button>
        </div>
      </section>
      <section>
        <h2>Terrain</h2>
        <p v-if="!crew?.tiles.length" class="soft">No tile yet: load one in a job’s Bearings.</p>
        <div v-for="t in crew?.tiles ?? []" :key="t.kind + t.name" class="row">
          <strong class="fig">{{ t.name }}</strong><span
            >{{ t.kind === 'cover' ? 'land cover' : 'ground' }}, {{ t.side === 3601 || t.side === 361 ? '1″' : '3″' }}</span
          ><span class="soft">{{ t.voids ? `${t.voids} voids` : 'no voids' }}</span
          ><button v-if="session.me?.role === 'lead'" type="button" class="press small" @click="takeAway(tilePath(t))">
            {{ awayWords(tilePath(t)) }}
          </button>
        </div>
      </section>
    </main>
  </div>
</template>

<style scoped>
.page {
  height: 100dvh;
  overflow: auto;
}
main {
  padding: 16px 24px;
  max-width: 980px;
}
section {
  margin-bottom: 28px;
}
.row {
  display: grid;
  grid-template-columns: 1fr 1.4fr 150px auto;
  gap: 12px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--mv-line);
}
.enough {
  padding-top: 10px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.carriers {
  display: grid;
  grid-template-columns: 1fr 1.4fr;
  gap: 8px;
  max-width: 620px;
  margin-top: 8px;
}
.carriers .acts {
  grid-column: 1 / -1;
}
.acts {
  display: flex;
  gap: 6px;
}
.invite {
  display: flex;
  gap: 8px;
  margin-top: 12px;
  align-items: center;
}
.invite .v-input {
  max-width: 180px;
}
.link code {
  display: block;
  font-family: var(--mv-mono);
  overflow-wrap: anywhere;
  padding: 8px;
  border: 1px solid var(--mv-line);
}
@media (max-width: 640px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
