<script setup lang="ts">
import { applyChanges, emptyDocument, KINDS } from '#core/job'
import type { JobKind } from '#core/job'
import { jobListItem } from '~/utils/jobs'
import type { JobList, JobListItem, JobState } from '../../shared/api'
import type { Aside } from '~/replica/model'

/** The jobs of the crew; before sign-in, the way in. */
const session = useSession()
const sending = useSending()
const jobs = shallowRef<JobListItem[] | null>(null)
const offline = ref(false)
const failed = ref('')
/** the session ran out: signed in again here, beside the list */
const again = ref(false)
function back() {
  again.value = false
  void sending.now()
}
const { email, password, error, busy, enter } = useSignIn(back)

// The list: a page at a time, searched and filtered by the server; without a connection by what was last seen of it.
const search = ref('')
const state = ref<JobState | null>(null)
const only = ref<JobKind | null>(null)
const member = ref<string | null>(null)
const people = ref<{ id: string; name: string }[]>([])
const next = ref<string | null>(null)
const total = ref<number | null>(null)
const more = ref(false)
const filtered = computed(() => !!(search.value.trim() || state.value || only.value || member.value))
let asked = 0
/** Jobs that were made on this device and that the server does not know yet. */
const made = shallowRef<JobListItem[]>([])

function query(after: string | null): string {
  const q = new URLSearchParams()
  for (const [k, v] of Object.entries({
    search: search.value.trim(),
    state: state.value,
    kind: only.value,
    member: member.value,
    after,
  }))
    if (v) q.set(k, v)
  return q.size ? `?${q}` : ''
}

async function load() {
  if (!session.me) return
  const mine = ++asked
  failed.value = ''
  try {
    const page = await api<JobList>(`/api/jobs${query(null)}`)
    if (mine !== asked) return
    jobs.value = page.jobs
    next.value = page.next
    total.value = page.total
    offline.value = false
    if (!filtered.value) await keep('jobs', page.jobs)
  } catch (e) {
    if (mine !== asked) return
    offline.value = true
    next.value = total.value = null
    jobs.value = seenLast(await heldHere()).sort(byVisit)
    if (!(e instanceof Unreachable)) failed.value = messageOf(e)
  }
}
/** The list as it was last seen, and every job that was opened on this device. */
async function heldHere(): Promise<JobListItem[]> {
  const list = (await kept<JobListItem[]>('jobs')) ?? []
  const seen = new Set(list.map(j => j.id))
  const opened = ((await session.own?.store.bases()) ?? []).filter(b => !seen.has(b.jobId) && b.base.document.jobs.length)
  return [...list, ...opened.map(({ base }) => jobListItem(base.document, [session.member.memberId]))]
}
/** The same questions, asked of the list as it was last seen. */
function seenLast(list: JobListItem[]): JobListItem[] {
  const words = search.value.trim().toLowerCase()
  return list.filter(
    j =>
      (!words || `${j.name} ${j.customerName ?? ''} ${j.customerAddress ?? ''}`.toLowerCase().includes(words)) &&
      (!state.value || j.state === state.value) &&
      (!only.value || j.kind === only.value) &&
      // A list that was kept before people were told holds nobody's.
      (!member.value || (j.workers ?? []).includes(member.value)),
  )
}
async function loadMore() {
  if (!next.value || more.value) return
  more.value = true
  try {
    const page = await api<JobList>(`/api/jobs${query(next.value)}`)
    const there = new Set(jobs.value?.map(j => j.id))
    jobs.value = [...(jobs.value ?? []), ...page.jobs.filter(j => !there.has(j.id))]
    next.value = page.next
  } catch (e) {
    failed.value = messageOf(e)
  }
  more.value = false
}
async function loadPeople() {
  if (people.value.length) return
  people.value = await api<{ members: { id: string; name: string }[] }>('/api/crew').then(
    async c => {
      await keep('people', c.members)
      return c.members
    },
    async () => (await kept<{ id: string; name: string }[]>('people')) ?? [],
  )
}
watch(
  () => session.me?.memberId,
  () => {
    asked++
    jobs.value = null
    made.value = []
    people.value = []
    search.value = ''
    state.value = only.value = member.value = null
    void load()
  },
  { immediate: true },
)
watchDebounced(search, load, { debounce: 250 })
watch([state, only, member], load)

watch(
  [() => sending.waiting, () => jobs.value],
  async () => {
    const own = session.own
    if (!own) return
    const known = new Set(jobs.value?.map(j => j.id))
    const fresh: JobListItem[] = []
    for (const id of sending.waiting.keys()) {
      if (known.has(id)) continue
      const [first] = await own.store.pending(id, 1)
      if (first?.change.table !== 'jobs' || first.change.op !== 'insert') continue
      fresh.push(jobListItem(applyChanges(emptyDocument(), [first.change])))
    }
    made.value = fresh
  },
  { immediate: true },
)
/** What the server would not take of jobs that are not in the list: it opens nowhere else. */
const strays = shallowRef<Aside[]>([])
watch(
  [() => sending.waiting, () => jobs.value, () => session.own],
  async () => {
    const { own } = session
    const all = (await own?.store.asides()) ?? []
    if (session.own !== own) return
    const known = new Set(jobs.value?.map(j => j.id))
    strays.value = jobs.value && !offline.value && !filtered.value && !next.value ? all.filter(a => !known.has(a.jobId)) : []
  },
  { immediate: true },
)
async function letGoStrays() {
  for (const a of strays.value) await session.own?.replica.letGo(a)
  strays.value = []
}
const shownJobs = computed(() => [...made.value.filter(m => !jobs.value?.some(j => j.id === m.id)), ...(jobs.value ?? [])])
watch(
  () => sending.total,
  (n, before) => {
    if (!n && before) void load()
  },
)

// Signing out leaves nothing readable here; what is not sent is counted before.
const leaving = ref(false)
const unsentWords = computed(
  () =>
    `${sending.total} change${sending.total === 1 ? '' : 's'} in ${sending.waiting.size} job${sending.waiting.size === 1 ? '' : 's'}`,
)
async function signOut(anyway = false) {
  if (!anyway && !leaving.value) {
    await sending.now()
    if (sending.total) {
      leaving.value = true
      return
    }
  }
  leaving.value = false
  await session.signOut()
}

const making = ref(false)
/** The form for a new job is another part of the program: it comes while the list is looked at. */
watch(
  () => session.mayEdit && !!session.me,
  may => may && void import('~/components/board/NewJob.vue').catch(() => undefined),
  { immediate: true },
)
useKeys({ n: { does: 'new job', run: () => session.mayEdit && session.me && (making.value = true) } })
/** The stage a job has reached, as a filter says it. */
const DONE = { scout: 'scouted', plan: 'planned', fit: 'fitted', prove: 'proven', keep: 'handed over' } as const
const today = ref(dayOf(new Date()))
useIntervalFn(() => (today.value = dayOf(new Date())), 60_000)
const groups = computed(() => grouped(shownJobs.value, today.value))
const changedWords = (iso: string) =>
  `changed ${new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })}`
const prefs = usePrefs()
useHead({ title: 'Jobs · Multivox' })
</script>

<template>
  <div class="page">
    <template v-if="!session.me">
      <main class="way-in">
        <div class="door">
          <h1>Multivox</h1>
          <p class="lead">
            From the first reading to the signed-off handover: which mast, which way, will the sum come out, was it really better.
          </p>
          <button
            v-if="session.demo"
            type="button"
            class="press filled big"
            :disabled="busy"
            data-test="demo"
            @click="enter('demo')"
          >
            Walk into the demo
          </button>
          <form v-else class="sign" @submit.prevent="enter('password')">
            <v-text-field v-model="email" label="Address" type="email" autocomplete="username" />
            <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" />
            <button type="submit" class="press filled" :disabled="busy || !email || !password">Sign in</button>
          </form>
          <p v-if="error || session.barred" class="error" role="alert">{{ error || session.barred }}</p>
        </div>
        <LazyFirstPicture />
      </main>
    </template>
    <template v-else>
      <PageHead title="Jobs" :note="`${session.me.crewName} · ${session.me.name}, ${session.me.role}`">
        <NuxtLink class="press bare" to="/board" data-test="week">the week</NuxtLink>
        <NuxtLink class="press bare" to="/practice" data-test="practice">practice</NuxtLink>
        <NuxtLink class="press bare" to="/crew">crew, masts, terrain</NuxtLink>
        <button type="button" class="press bare" :aria-pressed="prefs.night" @click="prefs.night = !prefs.night">
          {{ prefs.night ? 'night' : 'sun' }}
        </button>
        <button type="button" class="press bare" data-test="sign-out" @click="signOut()">sign out</button>
        <template #main>
          <button v-if="session.mayEdit" type="button" class="press filled" data-test="new-job" @click="making = true">
            New job <kbd class="key">N</kbd>
          </button>
        </template>
      </PageHead>
      <p v-if="offline" class="note" role="status">
        {{ failed || 'No connection: jobs opened on this device still work.' }}
        <button type="button" class="press small" @click="load">Try again</button>
      </p>
      <p v-if="leaving" class="note ask" role="alert" data-test="leaving">
        <span
          ><strong>{{ unsentWords }} not sent.</strong> What is not sent stays on this device, sealed, until you sign in here
          again. Nobody else can read it.</span
        >
        <button type="button" class="press" @click="leaving = false">stay</button>
        <button type="button" class="press filled" data-test="leave" @click="signOut(true)">sign out</button>
      </p>
      <p v-else-if="sending.total" class="note" role="status" data-test="unsent">
        {{ unsentWords }} not sent yet:
        {{
          sending.state === 'offline'
            ? 'sent when there is a connection'
            : sending.state === 'signed-out'
              ? 'sent when you sign in'
              : 'on the way'
        }}.
      </p>
      <p v-if="strays.length" class="note ask" role="alert" data-test="strays">
        <span
          ><strong
            >{{ strays.length === 1 ? 'One change' : `${strays.length} changes` }} of a job that is no longer in the list.</strong
          >
          {{ strays[0]!.detail }} {{ strays.length === 1 ? 'It stays' : 'They stay' }} on this device until you let go.</span
        >
        <button type="button" class="press" data-test="let-go-strays" @click="letGoStrays">let go</button>
      </p>
      <p v-if="session.ended" class="note ask" role="alert" data-test="ended">
        <span><strong>The session has ended.</strong> What you change is kept here, and sent when you sign in again.</span>
        <button type="button" class="press filled" data-test="sign-in-again" @click="again = true">sign in again</button>
      </p>
      <SignInAgain v-if="again" class="note again" :after="back" />
      <LazyNewJob v-if="making" @cancel="making = false" />
      <div v-if="jobs?.length || filtered" class="find no-print" role="search">
        <input
          v-model="search"
          type="search"
          placeholder="Job, customer, street"
          aria-label="Search"
          maxlength="100"
          data-test="search"
        />
        <select v-model="state" aria-label="How far" data-test="filter-state">
          <option :value="null">any stage</option>
          <option value="new">not begun</option>
          <option v-for="a in ACTS" :key="a.id" :value="a.id">{{ DONE[a.id] }}</option>
        </select>
        <select v-model="only" aria-label="Kind" data-test="filter-kind">
          <option :value="null">any kind</option>
          <option v-for="k in KINDS" :key="k" :value="k">{{ k }}</option>
        </select>
        <select
          v-model="member"
          aria-label="Worked on by"
          data-test="filter-member"
          @focus="loadPeople"
          @pointerdown="loadPeople"
        >
          <option :value="null">anyone’s</option>
          <option v-for="m in people" :key="m.id" :value="m.id">{{ m.name }}</option>
        </select>
        <span class="soft fig" data-test="total">{{ total === null ? '' : `${total} job${total === 1 ? '' : 's'}` }}</span>
      </div>
      <main class="list">
        <p v-if="jobs === null" class="soft">Opening…</p>
        <p v-else-if="!shownJobs.length" class="soft empty">
          {{
            filtered ? 'No job like that.' : 'No jobs yet. The first takes under a minute: a name, a position, what was agreed.'
          }}
        </p>
        <section v-for="g in groups" :key="g.group" :aria-label="g.group">
          <h2 :class="{ late: g.group === 'Late' }">{{ g.group }}</h2>
          <NuxtLink v-for="j in g.jobs" :key="j.id" class="row" :to="`/job/${j.id}/${nextOf(j).to}`" data-test="job">
            <span class="when" :class="{ late: g.group === 'Late' }" data-test="visit">{{ visitWords(j, today) }}</span>
            <span class="next"
              ><strong>{{ nextOf(j).words }}</strong
              ><span class="soft"
                >{{ nextOf(j).so
                }}<b v-if="sending.waiting.get(j.id)" class="wait fig" data-test="job-unsent"
                  >{{ sending.waiting.get(j.id) }} not sent</b
                ></span
              ></span
            >
            <SiteIcon :kind="j.kind" />
            <span class="who"
              ><strong>{{ j.name }}</strong
              ><span class="soft">{{ j.customerName ?? '' }}</span></span
            >
            <span
              class="line"
              role="img"
              :aria-label="
                ACTS.filter(a => j.acts[a.id])
                  .map(a => a.name)
                  .join(', ') || 'not begun'
              "
              ><i v-for="a in ACTS" :key="a.id" :class="{ on: j.acts[a.id] }"
                ><b>{{ a.name }}</b></i
              ></span
            >
            <span class="at soft"
              ><span v-if="j.customerAddress" class="where">{{ j.customerAddress }}</span
              ><span v-else class="fig">{{
                j.latDeg !== null ? `${j.latDeg.toFixed(3)}, ${j.lonDeg?.toFixed(3)}`.replace(/-/g, '−') : 'no place yet'
              }}</span
              ><span>{{ changedWords(j.changedAt) }}</span></span
            >
          </NuxtLink>
        </section>
        <button v-if="next" type="button" class="press more" :disabled="more" data-test="more" @click="loadMore">
          {{ more ? 'Fetching…' : `Show more: ${jobs?.length ?? 0} of ${total ?? 'more'}` }}
        </button>
      </main>
    </template>
  </div>
</template>

<style scoped>
.page {
  height: 100dvh;
  overflow: auto;
}
.note {
  padding: 8px 24px;
  background: var(--mv-ground);
}
.list {
  padding: 8px 24px;
}
.note.ask {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
  background: var(--mv-agreed);
  color: #191d22;
}
.note.ask span {
  flex: 1;
  min-width: 240px;
}
.note.ask .press {
  background: #fbf9f4;
  color: #191d22;
  border-color: #191d22;
}
.note.ask .press.filled {
  background: #191d22;
  color: #fbf9f4;
}
.find {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 10px 24px 0;
  flex-wrap: wrap;
}
.find input,
.find select {
  background: var(--mv-sheet);
  border: 0;
  border-bottom: 1px solid var(--mv-ink);
  padding: 6px 8px;
  min-height: 36px;
}
.find input {
  min-width: 240px;
  flex: 0 1 340px;
}
.find select {
  appearance: auto;
}
.find option {
  background: var(--mv-sheet);
  color: var(--mv-ink);
}
.wait {
  margin-left: 10px;
  font-weight: 600;
  border-bottom: 3px solid var(--mv-agreed);
  font-size: 12.5px;
  white-space: nowrap;
}
.more {
  margin: 16px 0;
}
.list h2 {
  font-size: 12.5px;
  font-weight: 600;
  color: var(--mv-soft);
  padding: 14px 0 4px;
  border-bottom: 1px solid var(--mv-ink);
}
.row {
  display: grid;
  grid-template-columns: 120px 200px 70px 1.1fr 300px 170px;
  align-items: center;
  gap: 14px;
  padding: 10px 0;
  border-bottom: 1px solid var(--mv-line);
  color: var(--mv-ink);
  text-decoration: none;
}
.when {
  font-weight: 700;
  font-size: 16px;
}
.list .late {
  color: var(--mv-short);
}
.next,
.who,
.at {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.row strong {
  font-size: 16px;
}
.at {
  font-size: 12.5px;
  text-align: right;
}
.row:hover .next strong {
  text-decoration: underline;
}
.line {
  display: flex;
}
.line i {
  flex: 1;
  border-top: 4px solid var(--mv-line);
  font-style: normal;
  margin-right: 3px;
}
.line i.on {
  border-color: var(--mv-met);
}
.line b {
  font-weight: 400;
  font-size: 12.5px;
  color: var(--mv-soft);
}
.line i.on b {
  color: var(--mv-ink);
}
.empty {
  padding: 40px 0;
  font-size: 16px;
}
.way-in {
  max-width: 1240px;
  min-height: 100dvh;
  margin: 0 auto;
  padding: 24px;
  display: grid;
  grid-template-columns: 320px 1fr;
  gap: 40px;
  align-items: center;
}
.door {
  display: flex;
  flex-direction: column;
  gap: 14px;
}
.way-in h1 {
  font-size: 30px;
}
.lead {
  font-size: 16px;
}
.big {
  font-size: 16px;
  padding: 14px 20px;
  text-align: center;
}
.sign {
  display: grid;
  gap: 10px;
}
@media (max-width: 900px) {
  .way-in {
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    gap: 20px;
    padding: 20px 14px;
  }
  .row {
    grid-template-columns: 1fr 60px;
    gap: 4px 12px;
  }
  .row > .when {
    grid-column: 1 / -1;
  }
  .row > .when:empty {
    display: none;
  }
  .row > .at {
    grid-column: 1;
    text-align: left;
  }
  .row > .at > :not(.where) {
    display: none;
  }
  .row > .next,
  .row > .who {
    grid-column: 1;
  }
  .row > svg {
    grid-column: 2;
    grid-row: 2 / 4;
    align-self: center;
  }
  .row > .line {
    grid-column: 1 / -1;
  }
  .list,
  .find,
  .note {
    padding-left: 14px;
    padding-right: 14px;
  }
  .find input {
    flex: 1 0 100%;
    min-height: 56px;
  }
  .find select {
    flex: 1;
    min-height: 56px;
  }
}
</style>
