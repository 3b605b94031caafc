<script setup lang="ts">
import { siteOf } from '#core/job'
import { v7 as uuidv7 } from 'uuid'
import { formatPosition, parsePosition } from '#core/geo'
import type { Stop } from '#core/job'

/** The trip: where it stands now, where it goes, and each stop made ready before coverage is left. */
const store = useOpened()
const session = useSession()
const stops = computed(() =>
  [...store.doc.stops].sort((a, b) => (a.arriveOn ?? '9').localeCompare(b.arriveOn ?? '9') || a.name.localeCompare(b.name)),
)
const name = ref('')
const position = ref('')
const arrive = ref('')
const leave = ref('')
const error = ref('')
async function add() {
  error.value = ''
  try {
    if (!name.value.trim()) throw new RangeError('what is the place called?')
    const at = parsePosition(position.value)
    if (arrive.value && leave.value && leave.value < arrive.value) throw new RangeError('it is left before it is reached')
    const id = uuidv7()
    const fields = {
      name: name.value.trim(),
      ...at,
      groundM: null,
      zone: store.site.zone,
      arriveOn: arrive.value || null,
      leaveOn: leave.value || null,
      headingDeg: null,
      swingDeg: store.job.kind === 'boat' ? 60 : 0,
      notes: null,
    }
    const first = !store.doc.stops.length
    const bad = await store.commit(
      [
        { table: 'stops', op: 'insert', rowId: id, fields },
        ...(first ? [{ table: 'jobs' as const, op: 'update' as const, rowId: store.job.id, fields: { stopId: id } }] : []),
      ],
      'a stop',
    )
    throwRefused(bad, true)
    name.value = position.value = arrive.value = leave.value = ''
  } catch (e) {
    error.value = messageOf(e)
  }
}
const go = (s: Stop | null) =>
  store.commit(
    [{ table: 'jobs', op: 'update', rowId: store.job.id, fields: { stopId: s?.id ?? null } }],
    `now at ${s?.name ?? 'its own place'}`,
  )
/** where the vehicle or boat is when it is at none of its stops */
const own = computed(() => siteOf(store.doc))
const readAt = computed(() => new Set([...store.doc.readings, ...store.doc.speedRuns, ...store.doc.sweeps].map(r => r.stopId)))
async function remove(s: Stop) {
  const here = store.job.stopId === s.id
  const things = (['obstacles', 'landmarks'] as const).flatMap(table =>
    (store.doc[table] as { id: string; stopId: string | null }[])
      .filter(r => r.stopId === s.id)
      .map(r => ({ table, op: 'delete' as const, rowId: r.id })),
  )
  await store.commit(
    [
      ...(here ? [{ table: 'jobs' as const, op: 'update' as const, rowId: store.job.id, fields: { stopId: null } }] : []),
      ...things,
      { table: 'stops', op: 'delete', rowId: s.id },
    ],
    'take a stop away',
  )
}

const sheet = ref(false)
const isPrepared = (id: string) => !!pack.of(id)?.complete
const pack = usePack()
onMounted(() => pack.load(store.doc.stops.map(s => s.id)))
async function prepareAll() {
  for (const s of stops.value) {
    await pack.prepare(s)
    if (pack.error.value) return
  }
}
const days = (s: Stop) =>
  [...new Set([s.arriveOn, s.leaveOn])]
    .filter(Boolean)
    .map(d => new Date(`${d}T12:00:00Z`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' }))
    .join(' to ')
</script>

<template>
  <div class="stops">
    <template v-for="s in stops" :key="s.id">
      <div class="stop" :class="{ here: store.job.stopId === s.id }" :data-test="`stop-${s.name}`">
        <button type="button" class="where" :disabled="!session.mayEdit" :aria-pressed="store.job.stopId === s.id" @click="go(s)">
          <strong>{{ s.name }}</strong><span class="soft">{{ days(s) || 'no dates' }}</span
          ><span class="fig soft">{{ formatPosition(s, 3) }}</span>
        </button>
        <PackState class="pack" :pack="pack" :place="s" />
        <button
          type="button"
          class="press bare"
          :disabled="!session.mayEdit || readAt.has(s.id)"
          :title="readAt.has(s.id) ? 'readings or sweeps were taken here: it stays' : undefined"
          :aria-label="`Take ${s.name} away`"
          @click="remove(s)"
        >
          ×
        </button>
      </div>
      <MvText
        v-if="store.job.stopId === s.id"
        :key="s.id"
        label="Notes on this stop"
        :rows="1"
        :value="s.notes"
        :save="v => store.commit([{ table: 'stops', op: 'update', rowId: s.id, fields: { notes: v } }], 'notes on a stop')"
      />
    </template>
    <div
      v-if="stops.length && own.latDeg !== null && own.lonDeg !== null"
      class="stop"
      :class="{ here: !store.job.stopId }"
      data-test="own-place"
    >
      <button type="button" class="where" :disabled="!session.mayEdit" :aria-pressed="!store.job.stopId" @click="go(null)">
        <strong>Its own place</strong><span class="soft">at none of the stops</span
        ><span class="fig soft">{{ formatPosition({ latDeg: own.latDeg, lonDeg: own.lonDeg }, 3) }}</span>
      </button>
    </div>
    <p v-if="!stops.length" class="soft">
      No stops yet: name the places it goes to, and make each ready before leaving coverage.
    </p>
    <button v-if="stops.length" type="button" class="press small all" data-test="stop-sheet-open" @click="sheet = true">
      sheet of this stop
    </button>
    <StopSheet v-if="sheet" v-model="sheet" :prepared="isPrepared" />
    <button v-if="stops.length" type="button" class="press small all" :disabled="!!pack.running.value" @click="prepareAll">
      make all ready for no coverage
    </button>
    <p class="soft">
      Ground within 60 km (1″ near, 3″ far) and the masts about the stop are brought onto this device; everything in this job then
      works with no network.
    </p>
    <form @submit.prevent="add">
      <v-text-field v-model="name" label="Next stop" data-test="stop-name" /><v-text-field
        v-model="position"
        label="Position"
        placeholder="46.72, −41.51"
        class="fig"
        data-test="stop-position"
      />
      <v-text-field v-model="arrive" label="From" type="date" data-test="stop-arrive" /><v-text-field
        v-model="leave"
        label="To"
        type="date"
      /><button type="submit" class="press" :disabled="!session.mayEdit" data-test="add-stop">Add</button>
    </form>
    <p v-if="error || pack.error.value" class="error" role="alert">{{ error || pack.error.value }}</p>
  </div>
</template>

<style scoped>
.stops {
  grid-column: 1 / -1;
  display: grid;
  gap: 6px;
}
.stop {
  display: grid;
  grid-template-columns: 1fr 230px 32px;
  gap: 8px;
  align-items: center;
  border-bottom: 1px solid var(--mv-line);
  padding: 2px 0 2px 8px;
}
.stop.here {
  box-shadow: inset 4px 0 var(--mv-computed);
  background: var(--mv-sheet);
}
.where {
  background: none;
  border: 0;
  text-align: left;
  cursor: pointer;
  display: grid;
  grid-template-columns: 1.1fr 0.9fr;
  padding: 6px;
  min-height: 44px;
  color: var(--mv-ink);
}
.where .fig {
  grid-column: 1 / -1;
  font-size: 12.5px;
}
.all {
  justify-self: start;
}
form {
  display: grid;
  grid-template-columns: 1.1fr 1.4fr 1fr 1fr auto;
  gap: 8px;
  align-items: start;
}
form .press {
  min-height: 40px;
}
@media (max-width: 1280px) {
  form {
    grid-template-columns: 1fr 1fr;
  }
}
@media (max-width: 640px) {
  .stop {
    grid-template-columns: 1fr 32px;
  }
  .pack {
    grid-column: 1 / -1;
    grid-row: 2;
    justify-content: space-between;
    padding: 0 8px 8px;
  }
  .where {
    grid-template-columns: 1fr auto;
  }
}
</style>
