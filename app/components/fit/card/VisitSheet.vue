<script setup lang="ts">
import { afterDark, againstCard, clashesOf, firstDay, hoursWords, isLate, messageFor, planDay, startOf } from '#core/card'
import type { BoardVisit, Card, ListLine } from '#core/card'
import { daylightOn } from '#core/geo'
import { VISIT_STATES, WEATHER } from '#core/job'
import type { Visit } from '#core/job'

/** Days on site of this job: when, who, what weather they need; what speaks against each; the message to the customer. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ card: Card; lines: readonly ListLine[] }>()
const store = useOpened()
const session = useSession()
const { visits, add, change, remove } = useVisits()
const { once, doing } = useOnce()
const today = () => dayOf(new Date())
const choices = <T extends string>(of: readonly T[]) => of.map(v => ({ value: v, title: v }))
const error = ref('')

/** the day after the last one that is set, not before tomorrow */
const begin = () =>
  once(async () => {
    const last = visits.value.at(-1)?.onDay ?? today()
    const bad = await add({ ...NEW_VISIT, onDay: dayAfter(last < today() ? today() : last, 1) })
    error.value = bad[0]?.message ?? ''
  })

const asBoard = (v: Visit): BoardVisit => ({ ...v, version: 0, jobId: store.id, jobName: store.job.name, dueOn: null })
const clashes = computed(() => clashesOf(visits.value.map(asBoard), today()))
function darkOf(v: Visit): number | null {
  const { latDeg, lonDeg, zone } = store.site
  return latDeg === null || lonDeg === null ? null : (daylightOn({ latDeg, lonDeg }, v.onDay, zone)?.toMin ?? null)
}
function troublesOf(v: Visit): string[] {
  if (v.state === 'done' || v.state === 'called off') return []
  const steps = props.card.steps.filter(s => !s.done)
  const darkMin = darkOf(v)
  const plan = firstDay(planDay(steps, v.people > 1 ? 2 : 1))
  return [
    ...clashes.value.filter(c => c.visitId === v.id).map(c => c.words),
    ...againstCard(v, {
      hoursLeft: props.card.left.likely / 60,
      dry: steps.filter(s => s.dry).length,
      darkMin,
      dark: darkMin === null ? 0 : afterDark(plan, darkMin - startOf(v)).length,
      late: props.lines.filter(l => isLate(l, v.onDay)),
    }),
  ]
}

const troubles = computed(() => new Map(visits.value.map(v => [v.id, troublesOf(v)])))

const messageOfVisit = (v: Visit): string =>
  messageFor({
    visit: v,
    customer: store.job.customerName,
    crew: session.member.crewName,
    rooms: store.doc.spots.filter(s => s.indoors && s.needed).map(s => s.name),
    drills: store.job.mayDrill !== 'no' && props.card.steps.some(s => s.gates.some(g => g.gate === 'drill')),
    day: new Date(`${v.onDay}T12:00:00`).toLocaleDateString(undefined, { weekday: 'long', day: 'numeric', month: 'long' }),
  })
const { copy, copied, isSupported } = useClipboard({ legacy: true })
const told = ref<string | null>(null)
const calendar = (v: Visit) => `/api/board/calendar.ics?job=${store.id}&from=${v.onDay}&to=${v.onDay}`
</script>

<template>
  <MvSheet v-model="open" title="Days on site" wide>
    <p v-if="!visits.length" class="soft">None yet. A day on site stands on the board of the week too.</p>
    <section
      v-for="v in visits"
      :key="v.id"
      class="visit"
      :class="{ past: v.state === 'done' || v.state === 'called off' }"
      data-test="visit-row"
    >
      <div class="fields">
        <MvText label="Day" type="date" :value="v.onDay" required :save="d => change(v, { onDay: d })" data-test="visit-day" />
        <MvText label="From" :value="v.startsAt" required :save="startsAt => change(v, { startsAt })" data-test="visit-start" />
        <MvNumber label="Hours" :value="v.hours" unit="h" :low="0.25" :high="16" required :save="hours => change(v, { hours })" />
        <MvText label="Team" :value="v.team" :save="team => change(v, { team })" data-test="visit-team" />
        <MvNumber
          label="People"
          :value="v.people"
          unit=""
          :low="1"
          :high="8"
          :decimals="0"
          required
          :save="people => change(v, { people })"
        />
        <MvChoice label="Weather" :value="v.weather" :choices="choices(WEATHER)" :save="weather => change(v, { weather })" />
        <MvChoice label="State" :value="v.state" :choices="choices(VISIT_STATES)" :save="state => change(v, { state })" />
      </div>
      <MvText label="Note" :value="v.note" :save="note => change(v, { note })" />
      <ul v-if="troubles.get(v.id)?.length" class="troubles" data-test="visit-troubles">
        <li v-for="w in troubles.get(v.id)" :key="w">{{ w }}</li>
      </ul>
      <div class="acts">
        <span class="fig soft">{{ dayWords(v.onDay) }}, {{ hoursWords(v) }}</span>
        <button type="button" class="plain" @click="told = told === v.id ? null : v.id">message to the customer</button>
        <a :href="calendar(v)" download="visit.ics">calendar</a>
        <button v-if="session.mayEdit" type="button" class="plain" :disabled="doing" @click="once(() => remove(v))">
          take away
        </button>
      </div>
      <div v-if="told === v.id" class="message">
        <pre data-test="message">{{ messageOfVisit(v) }}</pre>
        <button v-if="isSupported" type="button" class="press" @click="copy(messageOfVisit(v))">
          {{ copied ? 'copied' : 'copy' }}
        </button>
      </div>
    </section>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <button v-if="session.mayEdit" type="button" class="press filled" :disabled="doing" data-test="add-visit" @click="begin">
      another day
    </button>
    <NuxtLink class="board" to="/board">the board of the week</NuxtLink>
  </MvSheet>
</template>

<style scoped>
.visit {
  border-bottom: 1px solid var(--mv-ink);
  padding: 12px 0;
}
.past {
  opacity: 0.7;
}
.fields {
  display: grid;
  grid-template-columns: 140px 80px 76px 1fr 74px 166px 126px;
  gap: 8px;
  margin-bottom: 10px;
}
.troubles {
  margin: 6px 0;
  padding: 4px 0 4px 26px;
  border-left: 4px solid var(--mv-short);
}
.acts {
  display: flex;
  gap: 18px;
  align-items: baseline;
  flex-wrap: wrap;
}
a {
  color: var(--mv-computed);
}
.message {
  display: flex;
  gap: 12px;
  align-items: flex-start;
}
pre {
  flex: 1;
  font-family: var(--mv-sans);
  white-space: pre-wrap;
  background: var(--mv-paper);
  padding: 10px 12px;
  margin: 8px 0;
}
.board {
  margin-left: 18px;
}
.press.filled {
  margin-top: 14px;
}
@media (max-width: 900px) {
  .fields {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
