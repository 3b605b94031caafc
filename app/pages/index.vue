<script setup lang="ts">
import { v7 as uuidv7 } from 'uuid'
import { newJobChanges } from '#core/job/defaults'
import { parsePosition } from '#core/geo/coordinates'
import type { Job } from '#core/job/schema'
import type { JobListItem } from '../../shared/api'

/** The jobs of the crew; before sign-in, the way in. */
const session = useSession()
const store = useJob()
const router = useRouter()
const jobs = shallowRef<JobListItem[] | null>(null)
const offline = ref(false)
const failed = ref('')
const email = ref('')
const password = ref('')
const error = ref('')
const busy = ref(false)

async function enter(how: 'demo' | 'password') {
  if (busy.value) return
  busy.value = true
  error.value = ''
  try {
    await session.signIn(how === 'demo' ? 'demo' : { email: email.value, password: password.value })
  }
  catch (e) {
    error.value = messageOf(e)
  }
  busy.value = false
}

async function load() {
  if (!session.me) return
  failed.value = ''
  try {
    jobs.value = await api<JobListItem[]>('/api/jobs')
    offline.value = false
    await keepList(session.me.memberId, jobs.value)
  }
  catch (e) {
    offline.value = true
    jobs.value = await keptList(session.me.memberId) ?? []
    if (!(e instanceof Unreachable)) failed.value = messageOf(e)
  }
  const unsent = new Map<string, string>()
  const kinds = new Map<string, string>()
  for (const entry of await (await local()).getAllFromIndex('outbox', 'owner', session.me.memberId)) {
    if (entry.change.table === 'jobs' && entry.change.op === 'insert') {
      unsent.set(entry.jobId, String(entry.change.fields.name))
      kinds.set(entry.jobId, String(entry.change.fields.kind ?? 'home'))
    }
  }
  for (const [id, name] of unsent) if (!jobs.value.some(j => j.id === id)) jobs.value = [{ id, name, kind: kinds.get(id) ?? 'home', latDeg: null, lonDeg: null, changedAt: new Date().toISOString(), spots: 0, readings: 0, customerName: null, agreedDownMbps: null, acts: { scout: false, plan: false, fit: false, prove: false, keep: false } }, ...jobs.value]
}
watch(() => session.me?.memberId, load, { immediate: true })

const making = ref(false)
const name = ref('')
const position = ref('')
const kind = ref<Job['kind']>('home')
const carrier = ref<string | null>(null)
const down = ref('')
const up = ref('')
const nameError = ref('')
const positionError = ref('')
const downError = ref('')
const upError = ref('')
const nameField = ref<{ focus: () => void } | null>(null)

function speed(text: string, set: (m: string) => void): number | null {
  if (!text.trim()) return null
  const v = Number(text.trim().replace(',', '.'))
  if (!Number.isFinite(v) || v < 0 || v > 10_000) set('0 to 10 000 Mbit/s')
  return v
}

let created = false
async function create() {
  if (created) return
  nameError.value = name.value.trim() ? '' : 'give it a name'
  positionError.value = downError.value = upError.value = ''
  let at = { latDeg: null as number | null, lonDeg: null as number | null }
  if (position.value.trim()) {
    try {
      at = parsePosition(position.value)
    }
    catch (e) {
      positionError.value = messageOf(e)
    }
  }
  const agreedDownMbps = speed(down.value, m => (downError.value = m))
  const agreedUpMbps = speed(up.value, m => (upError.value = m))
  if (nameError.value || positionError.value || downError.value || upError.value) return
  created = true
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'
  const made = newJobChanges({ name: name.value.trim(), ...at, zone, kind: kind.value, job: { carrier: carrier.value, agreedDownMbps, agreedUpMbps } }, uuidv7)
  const tx = (await local()).transaction('outbox', 'readwrite')
  for (const change of made.changes) void tx.store.add({ owner: session.me!.memberId, jobId: made.jobId, change })
  await tx.done
  await store.open(made.jobId)
  await router.push(`/job/${made.jobId}/ask`)
}
function startNew() {
  making.value = true
  created = false
  void nextTick(() => nameField.value?.focus())
}
useKeys({ n: { does: 'new job', run: () => session.mayEdit && session.me && startNew() } })
function nextOf(j: JobListItem): { to: string, words: string } {
  if (j.latDeg === null) return { to: 'ask', words: 'next: the position' }
  if (!j.acts.scout) return { to: 'survey', words: 'next: the first reading' }
  if (!j.acts.plan) return { to: 'bearings', words: `${j.readings} readings; next: mast and kit` }
  if (!j.acts.fit) return { to: 'level', words: 'next: settle the plan, then aim' }
  if (!j.acts.prove) return { to: 'proof', words: 'aimed; next: test the same spots' }
  if (!j.acts.keep) return { to: 'handover', words: 'proven; next: hand over' }
  return { to: 'handover', words: 'handed over' }
}
const when = (iso: string) => new Date(iso).toLocaleDateString(undefined, { day: 'numeric', month: 'short', year: 'numeric' })
const prefs = usePrefs()
useHead({ title: 'Jobs · Multivox' })
</script>

<template>
  <div class="page">
    <template v-if="!session.me">
      <main class="way-in">
        <svg class="mark" viewBox="0 0 560 120" role="img" aria-label="A level line falling along a cable, lifted, and falling again to what was agreed">
          <path d="M0 78H150V44" fill="none" stroke="var(--mv-ink)" stroke-width="4" /><path d="M150 44L250 58" stroke="var(--mv-ink)" stroke-width="4" /><path d="M250 58L290 14H330" fill="none" stroke="var(--mv-computed)" stroke-width="2" /><path d="M330 14C350 60 420 74 560 82" fill="none" stroke="var(--mv-ink)" stroke-width="2" stroke-dasharray="6 5" /><path d="M330 98H560" stroke="var(--mv-agreed)" stroke-width="3" />
        </svg>
        <h1>Multivox</h1>
        <p class="lead">From the first reading to the signed-off handover: which mast, which way, will the sum come out, was it really better.</p>
        <button v-if="session.demo" type="button" class="press filled big" :disabled="busy" data-test="demo" @click="enter('demo')">Walk into the demo</button>
        <form v-else class="sign" @submit.prevent="enter('password')">
          <v-text-field v-model="email" label="Address" type="email" autocomplete="username" />
          <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" />
          <button type="submit" class="press filled" :disabled="busy || !email || !password">Sign in</button>
        </form>
        <p v-if="error" class="error" role="alert">{{ error }}</p>
      </main>
    </template>
    <template v-else>
      <header>
        <div><h1>Jobs</h1><span class="soft">{{ session.me.crewName }} · {{ session.me.name }}, {{ session.me.role }}</span></div>
        <nav>
          <NuxtLink class="press bare" to="/crew">crew, masts, terrain</NuxtLink>
          <button type="button" class="press bare" :aria-pressed="prefs.night" @click="prefs.night = !prefs.night">{{ prefs.night ? 'night' : 'sun' }}</button>
          <button type="button" class="press bare" @click="session.signOut()">sign out</button>
          <button v-if="session.mayEdit" type="button" class="press filled" data-test="new-job" @click="startNew">New job <kbd class="key">N</kbd></button>
        </nav>
      </header>
      <p v-if="offline" class="note" role="status">{{ failed || 'No connection: jobs opened on this device still work.' }} <button type="button" class="press small" @click="load">Try again</button></p>
      <form v-if="making" class="new" @submit.prevent="create">
        <v-select v-model="kind" label="For" :items="[{ value: 'home', title: 'home' }, { value: 'vehicle', title: 'vehicle' }, { value: 'boat', title: 'boat' }]" data-test="kind" />
        <v-text-field ref="nameField" v-model="name" label="Job" :placeholder="kind === 'home' ? 'Whose house' : kind === 'boat' ? 'Her name' : 'Which vehicle'" :error-messages="nameError" maxlength="120" />
        <v-text-field v-model="position" label="Position (may follow)" placeholder="46.8085, −41.3620 or 46°48.5′N 41°21.7′W" :error-messages="positionError" class="wide" />
        <v-select v-model="carrier" label="SIM of" :items="session.carriers.map(c => c.name)" clearable />
        <v-text-field v-model="down" label="Agreed down" suffix="Mbit/s" inputmode="decimal" :error-messages="downError" />
        <v-text-field v-model="up" label="Agreed up" suffix="Mbit/s" inputmode="decimal" :error-messages="upError" />
        <button type="submit" class="press filled" data-test="create">Start</button>
        <button type="button" class="press bare" @click="making = false">cancel</button>
      </form>
      <main class="list">
        <p v-if="jobs === null" class="soft">Opening…</p>
        <p v-else-if="!jobs.length" class="soft empty">No jobs yet. The first takes under a minute: a name, a position, what was agreed.</p>
        <NuxtLink v-for="j in jobs ?? []" :key="j.id" class="row" :to="`/job/${j.id}/${nextOf(j).to}`" data-test="job">
          <SiteIcon :kind="j.kind" />
          <strong>{{ j.name }}</strong>
          <span class="soft">{{ j.customerName ?? '' }}</span>
          <span class="line" role="img" :aria-label="ACTS.filter(a => j.acts[a.id]).map(a => a.name).join(', ') || 'not begun'"><i v-for="a in ACTS" :key="a.id" :class="{ on: j.acts[a.id] }"><b>{{ a.name }}</b></i></span>
          <span class="next">{{ nextOf(j).words }}</span>
          <span class="fig soft">{{ j.latDeg !== null ? `${j.latDeg.toFixed(3)}, ${j.lonDeg?.toFixed(3)}`.replace(/-/g, '−') : 'no position' }}</span>
          <span class="soft">{{ when(j.changedAt) }}</span>
        </NuxtLink>
      </main>
    </template>
  </div>
</template>

<style scoped>
.page { height: 100dvh; overflow: auto; }
header { display: flex; justify-content: space-between; align-items: center; padding: 14px 24px; border-bottom: 1px solid var(--mv-ink); background: var(--mv-sheet); gap: 12px; flex-wrap: wrap; }
header nav { display: flex; gap: 4px; align-items: center; flex-wrap: wrap; }
.press.bare { text-decoration: none; color: var(--mv-ink); }
.note { padding: 8px 24px; background: var(--mv-ground); }
.new { display: grid; grid-template-columns: 0.8fr 1.2fr 2fr 1fr 1fr 1fr auto auto; gap: 10px; padding: 16px 24px; border-bottom: 1px solid var(--mv-line); align-items: start; }
.list { padding: 8px 24px; }
.row { display: grid; grid-template-columns: 70px 1.1fr 0.7fr 300px 1.2fr 150px 110px; align-items: center; gap: 12px; padding: 12px 0; border-bottom: 1px solid var(--mv-line); color: var(--mv-ink); text-decoration: none; }
.row strong { font-size: 16px; } .row:hover strong { text-decoration: underline; }
.line { display: flex; } .line i { flex: 1; border-top: 4px solid var(--mv-line); font-style: normal; margin-right: 3px; } .line i.on { border-color: var(--mv-met); } .line b { font-weight: 400; font-size: 12.5px; color: var(--mv-soft); } .line i.on b { color: var(--mv-ink); }
.empty { padding: 40px 0; font-size: 16px; }
.way-in { max-width: 560px; margin: 10vh auto 0; padding: 0 24px; display: flex; flex-direction: column; gap: 14px; }
.way-in h1 { font-size: 30px; } .lead { font-size: 16px; } .big { font-size: 16px; padding: 14px 20px; text-align: center; }
.sign { display: grid; gap: 10px; }
@media (max-width: 900px) { .new { grid-template-columns: 1fr; } .row { grid-template-columns: 60px 1fr auto; } .row > .fig, .row > :last-child { display: none; } .row > .line, .row > .next { grid-column: 2 / -1; } header, .list, .new { padding-left: 14px; padding-right: 14px; } }
</style>
