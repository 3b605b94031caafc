<script setup lang="ts">
import Sortable from 'sortablejs'
import type { SortableEvent } from 'sortablejs'
import { hoursWords, startOf } from '#core/card'
import type { BoardVisit } from '#core/card'
import { clockWords } from '#core/geo'
import { num } from '#core/units'

/** The week by team: visits are dragged to another day or team, or moved by the arrow keys. */
const session = useSession()
const router = useRouter()
const prefs = usePrefs()
const { visits, teams, waiting, clashes, state, error, undoStack, load, move, add, undo } = useBoard()
const { width } = useWindowSize()
const roof = computed(() => width.value <= 900)
const today = ref(dayOf(new Date()))
useIntervalFn(() => (today.value = dayOf(new Date())), 60_000)

const mondayOf = (day: string): string => dayAfter(day, -((new Date(`${day}T12:00:00Z`).getUTCDay() + 6) % 7))
const start = ref(mondayOf(today.value))
const days = computed(() => Array.from({ length: 7 }, (_, i) => dayAfter(start.value, i)))
const end = computed(() => dayAfter(start.value, 6))
const added = ref<string[]>([])
const rows = computed<(string | null)[]>(() => [...new Set([...teams.value, ...added.value])].sort().concat([null as never]))
/** visits of the week by team and day, each cell in the order of time */
const cells = computed(() => {
  const shown = new Set(days.value)
  const out = new Map<string, BoardVisit[]>()
  for (const v of visits.value) {
    if (!shown.has(v.onDay) || v.state === 'called off') continue
    const key = `${v.team ?? ''}|${v.onDay}`
    const held = out.get(key)
    if (held) held.push(v)
    else out.set(key, [v])
  }
  for (const list of out.values()) list.sort((a, b) => a.startsAt.localeCompare(b.startsAt))
  return out
})
const cell = (team: string | null, day: string): BoardVisit[] => cells.value.get(`${team ?? ''}|${day}`) ?? []
const hoursOn = (day: string): number =>
  visits.value.filter(v => v.onDay === day && v.state !== 'called off').reduce((sum, v) => sum + v.hours, 0)
const troublesOf = (v: BoardVisit) => clashes.value.get(v.id) ?? []

// Dragging moves the page's own elements; they are put back, and what follows from the drop is drawn anew.
function dropped(e: SortableEvent) {
  const { item, from, to, oldIndex } = e
  from.insertBefore(item, from.children[oldIndex ?? 0] ?? null)
  if (from === to) return
  const day = to.dataset.day
  if (!day) return
  const team = to.dataset.team || null
  const job = waiting.value.find(j => j.id === item.dataset.job)
  if (job) void add(job, day, team)
  else if (item.dataset.id) void move(item.dataset.id, { onDay: day, team })
}
const sortables = new WeakMap<HTMLElement, Sortable>()
const vCell = {
  mounted(el: HTMLElement) {
    const options = { group: 'visits', draggable: '.visit', animation: 0, delay: 120, delayOnTouchOnly: true, sort: false }
    sortables.set(el, Sortable.create(el, { ...options, disabled: !session.mayEdit, onEnd: dropped }))
  },
  beforeUnmount(el: HTMLElement) {
    sortables.get(el)?.destroy()
  },
}

const EARLIER_MIN = 30
function shifted(v: BoardVisit, minutes: number): string | null {
  const at = startOf(v) + minutes
  return at < 0 || at >= 24 * 60 ? null : clockWords(at)
}
async function byKey(e: KeyboardEvent, v: BoardVisit) {
  const side = { ArrowLeft: -1, ArrowRight: 1 }[e.key]
  const row = { ArrowUp: -1, ArrowDown: 1 }[e.key]
  const later = { ',': -EARLIER_MIN, '.': EARLIER_MIN }[e.key]
  if (e.key === 'Enter') return router.push(`/job/${v.jobId}/card`)
  if (side === undefined && row === undefined && later === undefined) return
  e.preventDefault()
  // It is shown at once and written behind: the next key finds it where it now stands.
  if (side !== undefined) {
    const onDay = dayAfter(v.onDay, side)
    void move(v.id, { onDay })
    if (!error.value && !days.value.includes(onDay)) start.value = mondayOf(onDay)
  }
  const team = row === undefined ? undefined : rows.value[rows.value.indexOf(v.team) + row]
  if (team !== undefined) void move(v.id, { team })
  const startsAt = later === undefined ? null : shifted(v, later)
  if (startsAt) void move(v.id, { startsAt })
  await nextTick()
  document.querySelector<HTMLElement>(`[data-id="${v.id}"]`)?.focus()
}
const naming = ref(false)
const teamName = ref('')
function addTeam() {
  const name = teamName.value.trim().slice(0, 60)
  if (name) added.value.push(name)
  teamName.value = ''
  naming.value = false
}
const calendar = ref(false)
useEventListener(document, 'keydown', (e: KeyboardEvent) => {
  if ((e.ctrlKey || e.metaKey) && e.key === 'z' && !(e.target as HTMLElement).matches('input')) void undo()
})
watch(
  () => session.me?.memberId,
  id => (id ? void load() : void router.replace('/')),
  { immediate: true },
)
useHead({ title: 'The week · Multivox' })
</script>

<template>
  <div class="page">
    <PageHead :title="`${dayWords(start)} to ${dayWords(end)}`" :note="session.me?.crewName">
      <button type="button" class="press bare" aria-label="the week before" @click="start = dayAfter(start, -7)">‹</button>
      <button type="button" class="press bare" data-test="this-week" @click="start = mondayOf(today)">this week</button>
      <button
        type="button"
        class="press bare"
        aria-label="the week after"
        data-test="week-after"
        @click="start = dayAfter(start, 7)"
      >
        ›
      </button>
      <button type="button" class="press bare later" :disabled="!undoStack.length" data-test="board-undo" @click="undo">
        undo
      </button>
      <button type="button" class="press bare" data-test="calendar" @click="calendar = true">calendar</button>
      <button type="button" class="press bare later" :aria-pressed="prefs.night" @click="prefs.night = !prefs.night">
        {{ prefs.night ? 'night' : 'sun' }}
      </button>
      <NuxtLink to="/" class="press">All jobs</NuxtLink>
    </PageHead>
    <p v-if="error" class="error said" role="alert" data-test="board-error">{{ error }}</p>
    <p v-else-if="state === 'offline'" class="soft said">
      No connection: the week as it was last seen here. What you move is sent later.
    </p>
    <main v-if="!roof" class="board" data-test="board">
      <div class="grid" role="grid" aria-label="The week by team">
        <div class="head" role="row">
          <span />
          <span v-for="d in days" :key="d" role="columnheader" :class="{ today: d === today, past: d < today }"
            ><b>{{ dayWords(d) }}</b> <span class="fig soft">{{ hoursOn(d) ? `${num(hoursOn(d), 1)} h` : '' }}</span></span
          >
        </div>
        <div v-for="team in rows" :key="team ?? ''" class="team" role="row">
          <b role="rowheader" :class="{ soft: team === null }">{{ team ?? 'nobody yet' }}</b>
          <div
            v-for="d in days"
            :key="d"
            v-cell
            class="cell"
            role="gridcell"
            :class="{ today: d === today, past: d < today }"
            :data-day="d"
            :data-team="team ?? ''"
            :data-test="`cell-${team ?? 'nobody'}-${d}`"
          >
            <div
              v-for="v in cell(team, d)"
              :key="v.id"
              class="visit"
              :class="[v.state, { stop: troublesOf(v).some(t => t.stop) }]"
              :data-id="v.id"
              :style="{ minHeight: `${Math.max(44, v.hours * 13)}px` }"
              tabindex="0"
              role="button"
              :aria-label="`${v.jobName}, ${hoursWords(v)}; arrows move it`"
              @keydown="e => byKey(e, v)"
              @dblclick="router.push(`/job/${v.jobId}/card`)"
            >
              <span class="fig soft">{{ hoursWords(v) }}</span><strong>{{ v.jobName }}</strong
              ><small v-if="v.weather !== 'any'" class="soft">{{ v.weather }}</small
              ><small v-for="t in troublesOf(v)" :key="t.words" class="error">{{ t.words }}</small>
            </div>
          </div>
        </div>
      </div>
      <footer class="no-print">
        <button v-if="!naming && session.mayEdit" type="button" class="plain" data-test="add-team" @click="naming = true">
          another team
        </button>
        <form v-else-if="naming" @submit.prevent="addTeam">
          <input v-model="teamName" class="plain" maxlength="60" placeholder="name of the team" aria-label="name of the team" />
          <button type="submit" class="plain">add it</button>
        </form>
        <span class="soft"
          >drag, or <kbd class="key">←</kbd> <kbd class="key">→</kbd> another day, <kbd class="key">↑</kbd>
          <kbd class="key">↓</kbd> another team, <kbd class="key">,</kbd> <kbd class="key">.</kbd> earlier or later,
          <kbd class="key">Enter</kbd> its card</span
        >
      </footer>
      <section v-if="waiting.length" class="waiting" aria-label="Without a day">
        <h2>
          Without a day <span class="soft fig">{{ waiting.length }}</span>
        </h2>
        <div v-cell class="tray">
          <div v-for="j in waiting" :key="j.id" class="visit" :data-job="j.id" data-test="waiting-job">
            <strong>{{ j.name }}</strong><small class="soft">{{ j.customerName ?? j.kind }}</small>
          </div>
        </div>
      </section>
    </main>
    <main v-else class="list" data-test="board">
      <section v-for="d in days" :key="d" :class="{ today: d === today }">
        <h2>
          {{ dayWords(d) }} <span class="fig soft">{{ hoursOn(d) ? `${num(hoursOn(d), 1)} h` : '' }}</span>
        </h2>
        <template v-for="team in rows" :key="team ?? ''">
          <NuxtLink v-for="v in cell(team, d)" :key="v.id" class="visit" :class="v.state" :to="`/job/${v.jobId}/card`">
            <span class="fig soft">{{ hoursWords(v) }}</span><strong>{{ v.jobName }}</strong
            ><small class="soft">{{
              [team ?? 'nobody yet', v.weather === 'any' ? '' : v.weather].filter(Boolean).join(', ')
            }}</small
            ><small v-for="t in troublesOf(v)" :key="t.words" class="error">{{ t.words }}</small>
          </NuxtLink>
        </template>
        <p v-if="!hoursOn(d)" class="soft">nothing</p>
      </section>
    </main>
    <CalendarSheet v-model="calendar" :from="start" :to="end" />
  </div>
</template>

<style scoped>
.page {
  height: 100dvh;
  display: flex;
  flex-direction: column;
}
.said {
  padding: 6px 20px;
}
.board {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.grid {
  min-width: 860px;
}
.head,
.team {
  display: grid;
  grid-template-columns: 120px repeat(7, minmax(0, 1fr));
}
.head {
  position: sticky;
  top: 0;
  background: var(--mv-paper);
  border-bottom: 1px solid var(--mv-ink);
  z-index: 2;
}
.head > span {
  padding: 6px 8px;
}
.head .today b {
  border-bottom: 3px solid var(--mv-ink);
}
.team {
  border-bottom: 1px solid var(--mv-line);
}
.team > b {
  padding: 10px 8px 10px 20px;
}
.cell {
  min-height: 96px;
  padding: 4px;
  border-left: 1px solid var(--mv-line);
  contain: layout style;
}
.cell.today {
  background: var(--mv-sheet);
}
.cell.past {
  background: repeating-linear-gradient(135deg, transparent 0 7px, var(--mv-line) 7px 8px);
}
.head .past {
  color: var(--mv-soft);
}
.visit {
  display: block;
  background: var(--mv-sheet);
  border: 1px solid var(--mv-ink);
  border-left-width: 4px;
  padding: 3px 7px;
  margin-bottom: 4px;
  cursor: grab;
  overflow-wrap: anywhere;
}
.today .visit {
  background: var(--mv-paper);
}
.visit.planned {
  border-style: dashed;
  border-left-style: solid;
}
.visit.done {
  border-color: var(--mv-met);
  color: var(--mv-soft);
}
.visit.stop {
  border-color: var(--mv-short);
}
.visit > * {
  display: block;
}
.visit .fig {
  font-size: 12px;
}
.sortable-ghost {
  opacity: 0.35;
}
footer {
  display: flex;
  gap: 20px;
  padding: 10px 20px;
  align-items: baseline;
}
.waiting {
  padding: 8px 20px 20px;
}
.tray {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 6px;
}
.tray .visit {
  width: 190px;
  border-style: dotted;
  border-left-width: 1px;
}
@media (max-width: 900px) {
  .press.later {
    display: none;
  }
}
.list {
  flex: 1;
  overflow: auto;
  padding: 0 14px 24px;
}
.list h2 {
  padding: 12px 0 4px;
}
.list .visit {
  text-decoration: none;
  color: inherit;
  min-height: 56px;
}
</style>
