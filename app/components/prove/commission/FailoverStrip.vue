<script setup lang="ts">
import type { Lane } from '#core/connect'
import { setField, TAKEN_AWAY, update } from '#core/job'
import type { Failover } from '#core/job'
import { failoversOf, returnedS, switchedS, waitsFor } from '#core/prove'
import { num } from '#core/units'

/** A connection taken away on purpose, on its clock: one press at a time, and the last test drawn to scale. */
const props = defineProps<{ lanes: Lane[] }>()
const store = useOpened()
const session = useSession()
const { now, under, listen, pull, answered, putBack, isBack, drop } = useFailover()
/** the one that was picked; else the first in order, whatever comes to stand there */
const fromId = ref<string | null>(null)
const from = computed(() => props.lanes.find(l => l.row.id === fromId.value) ?? props.lanes[0])
const how = ref<Failover['how']>('line pulled')
const asking = ref(false)
const summaries = computed(() => failoversOf(store.doc.failovers, now.value))
const summary = computed(() => summaries.value.find(s => s.connectionId === from.value?.row.id) ?? null)
/** The one that is drawn: under way, else the last of the connection picked. */
const shown = computed(() => under.value ?? summary.value?.last ?? null)
const nameOf = (id: string | null) => store.doc.connections.find(c => c.id === id)?.name ?? 'the other'
const waits = computed(() => (under.value ? waitsFor(under.value) : null))
const runningS = computed(() => {
  const t = under.value
  const since = t && (waits.value === 'way back' ? t.backInAtUtc : waits.value === 'answer' ? t.pulledAtUtc : null)
  return since ? Math.max(0, (Date.parse(now.value) - Date.parse(since)) / 1000) : null
})
const zone = computed(() => store.site.zone)
/** Widths of the four stretches: before, without, on the other, back. Times are written, so that a scale of its own serves each. */
const stretches = computed(() => {
  const t = shown.value
  if (!t) return null
  const [s, b] = [switchedS(t) ?? (under.value ? runningS.value : null), returnedS(t)]
  const grow = (v: number | null) => (v === null ? 0 : 8 + Math.min(22, Math.sqrt(v) * 3))
  return { gap: grow(s), back: grow(b) }
})
const changes = { same: 'the public address stayed', changed: 'the public address changed: calls and tunnels begin anew' }
const set = (field: 'broke' | 'otherId' | 'address') => (v: unknown) =>
  shown.value ? store.commit([setField('failovers', shown.value.id, field, v)], 'failover test') : undefined
const ADDRESS = [
  { value: 'same' as const, title: 'stayed' },
  { value: 'changed' as const, title: 'changed' },
]
const others = computed(() =>
  props.lanes.filter(l => l.row.id !== shown.value?.connectionId).map(l => ({ value: l.row.id, title: l.row.name })),
)
function ask() {
  asking.value = true
  listen()
}
const begin = async () => {
  if (!from.value) return
  await pull(from.value.row, how.value)
  asking.value = false
}
const withdraw = () =>
  shown.value && store.commit([update('failovers', shown.value.id, { withdrawn: true })], 'failover test withdrawn')
const takenWords: Record<Failover['how'], string> = {
  'line pulled': 'its line pulled',
  'line without internet': 'its line in, nothing behind it',
  'SIM out': 'its SIM out',
  'box without power': 'its box without power',
  'mains off': 'the mains off',
  'antenna lead off': 'its antenna lead off',
}
const HOWS = TAKEN_AWAY.map(value => ({ value, title: takenWords[value] }))
</script>

<template>
  <section class="failover" aria-label="Failover test" data-test="failover">
    <div class="what">
      <h2>Failover test</h2>
      <p v-if="shown" class="soft">
        {{ nameOf(shown.connectionId) }}, {{ takenWords[shown.how] }}, {{ clockTime(shown.pulledAtUtc, zone)
        }}{{ shown.backInAtUtc ? `; back in ${clockTime(shown.backInAtUtc, zone)}` : '' }}
      </p>
      <p v-else class="soft">Not tested yet: what is not tried fails on the day it is wanted.</p>
    </div>
    <div v-if="shown" class="drawn" :class="{ still: !under }">
      <span class="row">{{ nameOf(shown.connectionId) }}</span>
      <span class="track main" aria-hidden="true"
        ><i class="had" /><i class="gone" :style="{ flexGrow: 40 + (stretches?.gap ?? 0) + (stretches?.back ?? 0) }" /><i
          v-if="shown.backAtUtc"
          class="had"
      /></span>
      <span class="row">{{ nameOf(shown.otherId) }}</span>
      <span class="track other" aria-hidden="true"
        ><i class="off" /><i class="gap" :style="{ flexGrow: stretches?.gap }" /><i
          v-if="shown.answeredAtUtc"
          class="had"
          :style="{ flexGrow: 40 + (stretches?.back ?? 0) }" /><i v-if="shown.backAtUtc" class="off"
      /></span>
      <p class="figures">
        <span data-test="switched"
          ><b class="fig">{{ switchedS(shown) !== null ? `${num(switchedS(shown)!)} s` : under ? '' : 'never' }}</b>
          {{ switchedS(shown) !== null ? 'until the other answered' : under ? '' : 'the other answered' }}</span
        >
        <span v-if="returnedS(shown) !== null" data-test="returned"
          ><b class="fig">{{ num(returnedS(shown)!) }} s</b> until back on it</span
        >
        <span v-if="summary?.switchS && summary.switchS.count > 1" class="soft"
          >{{ summary.switchS.count }} tests, {{ num(summary.switchS.low) }} to {{ num(summary.switchS.high) }} s</span
        >
        <span v-if="shown.address && !session.mayEdit" class="soft">{{ changes[shown.address] }}</span>
      </p>
      <p v-if="session.mayEdit" class="more">
        Broke: <MvText phrase label="Broke" hint="nothing" :value="shown.broke" :save="set('broke')" />; answered by
        <MvChoice phrase label="Answered by" hint="which" :value="shown.otherId" :choices="others" :save="set('otherId')" />; the
        public address
        <MvChoice
          phrase
          label="Public address"
          hint="not looked at"
          :value="shown.address"
          :choices="ADDRESS"
          clearable
          :save="set('address')"
        />.
        <button v-if="!under" type="button" class="plain" data-test="failover-withdraw" @click="withdraw">
          it does not count
        </button>
      </p>
    </div>
    <div v-if="session.mayEdit" class="acts">
      <template v-if="under">
        <p v-if="runningS !== null" class="running" role="timer">
          <b class="fig">{{ minutesSeconds(runningS) }}</b>
          {{ waits === 'answer' ? 'without an answer' : 'since it is back in' }}
        </p>
        <button v-if="waits === 'answer'" type="button" class="press filled" data-test="failover-answered" @click="answered">
          the other answers
        </button>
        <button v-if="waits === 'putting back'" type="button" class="press filled" data-test="failover-back-in" @click="putBack">
          it is back in now
        </button>
        <button v-if="waits === 'way back'" type="button" class="press filled" data-test="failover-is-back" @click="isBack">
          back on it
        </button>
        <button type="button" class="press bare" data-test="failover-drop" @click="drop">leave it, keep nothing</button>
        <p class="soft">It listens by itself over this device’s Wi-Fi or lead; a press says the same.</p>
      </template>
      <template v-else-if="asking">
        <MvChoice
          label="Taken away"
          :value="from?.row.id ?? null"
          :choices="lanes.map(l => ({ value: l.row.id, title: l.row.name }))"
          :save="v => (fromId = v)"
          data-test="failover-from"
        />
        <MvChoice label="How" :value="how" :choices="HOWS" :save="v => (how = v)" data-test="failover-how" />
        <button type="button" class="press filled" data-test="failover-pull" @click="begin">now</button>
        <button type="button" class="press bare" @click="asking = false">not now</button>
        <p v-if="how === 'mains off' || how === 'box without power'" class="soft">
          At the plug, not at a board: boards are for licensed people. Nothing that must not lose power hangs on it.
        </p>
      </template>
      <button v-else type="button" class="press" data-test="failover-begin" @click="ask">
        {{ shown ? 'again' : 'test it' }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.failover {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) 250px;
  gap: 20px;
  padding: 12px 20px;
  border-bottom: 1px solid var(--mv-ink);
  align-items: start;
}
.what .soft,
.acts .soft {
  font-size: 12.5px;
}
.drawn {
  display: grid;
  grid-template-columns: minmax(80px, auto) minmax(0, 1fr);
  gap: 4px 12px;
  align-items: center;
}
.row {
  font-size: 12.5px;
  color: var(--mv-soft);
}
.track {
  display: flex;
  height: 14px;
  align-items: center;
}
.track i {
  height: 5px;
  flex: 12 0 0;
}
.had {
  background: var(--mv-ink);
}
.track i.gone,
.track i.off {
  height: 1px;
  background: var(--mv-line);
}
.track i.gap {
  height: 12px;
  background: var(--mv-short);
  opacity: 0.35;
}
.figures,
.more {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  align-items: baseline;
}
.more {
  gap: 2px 6px;
}
.figures .fig {
  font-size: 20px;
}
.acts {
  grid-column: -2 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  justify-content: flex-end;
}
.acts :deep(.v-input) {
  flex: 1 1 100%;
}
.running {
  flex: 1 0 100%;
}
.running .fig {
  font-size: 30px;
}
@media (max-width: 900px) {
  .failover {
    grid-template-columns: 1fr;
    padding: 12px 14px;
  }
  .acts {
    justify-content: flex-start;
  }
  .acts .press {
    min-height: 56px;
  }
  .running .fig {
    font-size: 56px;
  }
}
</style>
