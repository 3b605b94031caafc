<script setup lang="ts">
import {
  answers,
  BARE_CONNECTION,
  BARE_NETWORK,
  clockOf,
  isConnecting,
  lastRank,
  LONGEST_S,
  moved,
  STATE_WORDS,
  USUAL_S,
} from '#core/connect'
import type { Lane } from '#core/connect'
import { insert, update } from '#core/job'
import type { ConnectionKind, Network } from '#core/job'
import { given } from '#core/units'
import { nowUtc } from '~/replica/clock'

/**
 * Connections as lanes in their order through the wall into the box, networks out of it, and what hangs on each. Weight and
 * movement tell a state, and words do; a dash is left to what is assumed.
 */
const props = defineProps<{ lanes: Lane[]; picked: string | null }>()
const emit = defineEmits<{ pick: [what: 'connection' | 'network', id: string] }>()
const store = useOpened()
const session = useSession()
const now = ref(nowUtc())
useIntervalFn(() => (now.value = nowUtc()), 1000)

const firstUp = computed(() => props.lanes.find(l => answers(l.row.state))?.row.id)
const clock = (l: Lane) => (isConnecting(l.row) ? clockOf(l.row.poweredAtUtc!, now.value) : null)
const weight = (l: Lane) =>
  isConnecting(l.row)
    ? 'connecting'
    : l.row.id === firstUp.value
      ? 'works'
      : answers(l.row.state)
        ? 'ready'
        : l.row.use === 'by hand'
          ? 'idle'
          : 'stopped'
/** When it serves, and what it may carry then. */
function serves(l: Lane, i: number): string {
  const { row } = l
  const carries = [
    row.carries,
    row.throttleDownMbps !== null && `${given(row.throttleDownMbps)} Mbit/s`,
    row.reserveMbps !== null && `${given(row.reserveMbps)} kept for calls`,
  ]
    .filter(Boolean)
    .join(', ')
  if (row.use === 'by hand') return 'nothing, until it is pressed'
  if (row.use === 'bonded') return `with the others: ${carries}`
  return i === 0 ? carries : `only when ${i === 1 ? '1 is' : i === 2 ? '1 and 2 are' : `1 to ${i} are`} down: ${carries}`
}
function asked({ row }: Lane): string {
  if (row.checkS === null) return 'nothing asks whether it answers'
  const places = (row.checkPlaces ?? 1) === 1 ? 'one place' : `${row.checkPlaces} places`
  return `asked every ${given(row.checkS)} s at ${places}; given up after ${row.checkMisses ?? 3} lost`
}
const about = (l: Lane): string =>
  [
    l.row.use !== 'by hand' && (props.lanes.length > 1 || l.row.checkS !== null) && asked(l),
    l.standsBy && 'stands by',
    l.allowanceGb !== null && `${given(l.allowanceGb)} GB a month`,
  ]
    .filter(Boolean)
    .join('; ')

const move = (l: Lane, by: -1 | 1) =>
  session.mayEdit &&
  store.commit(
    moved(store.doc, l.row.id, by).map(m => update('connections', m.id, { rank: m.rank })),
    'order of connections',
  )
const newName: Record<ConnectionKind, string> = {
  'cellular': 'SIM',
  'cable line': 'Cable line',
  'satellite': 'Satellite',
  'site Wi-Fi': 'Wi-Fi of the site',
  'tether': 'Phone by lead',
}
const KINDS = Object.keys(newName) as ConnectionKind[]
const { doing, once } = useOnce()
const addConnection = (kind: ConnectionKind) =>
  once(async () => {
    await store.commit(
      [
        insert('connections', {
          ...BARE_CONNECTION,
          name: newName[kind],
          kind,
          rank: lastRank(store.doc),
          use: kind === 'tether' ? 'by hand' : 'in order',
          state: kind === 'tether' ? 'off' : 'not in yet',
        }),
      ],
      'a connection',
    )
  })
const addNetwork = (kind: Network['kind']) =>
  once(async () => {
    await store.commit([insert('networks', { ...BARE_NETWORK, name: kind as string, kind })], 'a network')
  })
const missing = computed(() =>
  (['house', 'guests', 'management'] as const).filter(k => !store.doc.networks.some(n => n.kind === k)),
)
const hanging = (n: Network) => store.doc.appliances.filter(a => a.networkId === n.id)
const back = (id: string, on: boolean) =>
  store.commit([update('appliances', id, { backAtUtc: on ? nowUtc() : null })], 'seen to work again')
const PASSWORDS = { 'changed': 'password changed', 'as delivered': 'password as delivered' }
const network = (n: Network): string =>
  [
    n.named,
    n.radio,
    n.kind === 'guests' && (n.apart ?? 'not tried yet'),
    n.password ? PASSWORDS[n.password] : 'password not told',
  ]
    .filter(Boolean)
    .join(', ')
const zone = computed(() => store.site.zone)
const adding = ref(false)
</script>

<template>
  <div class="picture" data-test="connections">
    <ol class="lanes" aria-label="Connections, in order">
      <li v-for="(l, i) in lanes" :key="l.row.id" class="lane" :class="[weight(l), { on: picked === l.row.id }]">
        <button
          type="button"
          class="who"
          :aria-pressed="picked === l.row.id"
          :data-test="`lane-${i + 1}`"
          @click="emit('pick', 'connection', l.row.id)"
          @keydown.up.prevent="move(l, -1)"
          @keydown.down.prevent="move(l, 1)"
        >
          <ConnectionGlyph :kind="l.row.kind" />
          <b class="rank fig">{{ i + 1 }}</b>
          <span class="name"
            ><b>{{ l.row.name }}</b>
            <small :class="{ met: l.row.state === 'up', short: weight(l) === 'stopped' }">{{
              STATE_WORDS[l.row.state].words
            }}</small></span
          >
        </button>
        <b class="over">{{ serves(l, i) }}</b>
        <span class="line" aria-hidden="true"><i /></span>
        <span v-if="clock(l)" class="under clock" role="timer" :data-test="`clock-${i + 1}`">
          <span class="bar" aria-hidden="true"
            ><i :style="{ width: `${Math.min(100, (100 * clock(l)!.s) / LONGEST_S)}%` }" /><em
              :style="{ left: `${(100 * USUAL_S) / LONGEST_S}%` }"
          /></span>
          <b class="fig">{{ minutesSeconds(clock(l)!.s) }}</b>
          <span>{{
            clock(l)!.stage === 'usual'
              ? 'two minutes are usual'
              : clock(l)!.stage === 'long'
                ? 'past two minutes; five at most'
                : 'past five: SIM, plan or number'
          }}</span>
        </span>
        <span v-else class="under soft">{{ about(l) }}</span>
        <span class="wall above" aria-hidden="true" /><span class="wall below" aria-hidden="true" />
        <span class="port">{{ l.port }}</span><i class="plug" aria-hidden="true" />
      </li>
      <li class="more">
        <span class="wall full" aria-hidden="true" />
        <button v-if="!adding && session.mayEdit" type="button" class="plain" data-test="add-connection" @click="adding = true">
          another connection
        </button>
        <div v-else-if="adding" class="kinds">
          <button
            v-for="k in KINDS"
            :key="k"
            type="button"
            class="press small"
            :disabled="!!doing"
            :data-test="`add-${k.replaceAll(' ', '-')}`"
            @click="addConnection(k).then(() => (adding = false))"
          >
            {{ k }}
          </button>
          <button type="button" class="press small bare" @click="adding = false">none</button>
        </div>
      </li>
    </ol>
    <ul class="networks" aria-label="Networks, and what hangs on them">
      <li v-for="n in store.doc.networks" :key="n.id" class="network" :class="{ on: picked === n.id }">
        <button
          type="button"
          class="named"
          :aria-pressed="picked === n.id"
          :data-test="`network-${n.kind}`"
          @click="emit('pick', 'network', n.id)"
        >
          <b>{{ n.name }}</b>
          <small :class="{ short: n.password !== 'changed' }">{{ network(n) }}</small>
        </button>
        <ul class="hang">
          <li v-for="a in hanging(n)" :key="a.id">
            <label :class="{ short: !a.backAtUtc }">
              <input
                type="checkbox"
                :checked="!!a.backAtUtc"
                :disabled="!session.mayEdit"
                data-test="back"
                @change="back(a.id, ($event.target as HTMLInputElement).checked)"
              />
              <span>{{ a.name }}<small v-if="a.tunnel" class="soft"> through a tunnel</small></span>
              <span class="fig when">{{ a.backAtUtc ? clockTime(a.backAtUtc, zone) : 'not yet' }}</span>
            </label>
          </li>
          <li v-if="!hanging(n).length" class="soft none">nothing noted</li>
        </ul>
      </li>
      <li v-if="session.mayEdit && missing.length" class="more">
        <button
          v-for="k in missing"
          :key="k"
          type="button"
          class="plain"
          :disabled="!!doing"
          :data-test="`add-network-${k}`"
          @click="addNetwork(k)"
        >
          a network for {{ k === 'house' ? 'the house' : k }}
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.picture {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  border-bottom: 2px solid var(--mv-ink);
}
.lanes,
.networks,
.hang {
  list-style: none;
  margin: 0;
  padding: 0;
}
.lanes {
  --box: 128px;
  background: linear-gradient(var(--mv-sky), var(--mv-sky)) 0 0 / calc(100% - var(--box)) 100% no-repeat;
  display: flex;
  flex-direction: column;
}
.networks {
  background: var(--mv-sheet);
  padding: 10px 20px;
}
.lane,
.lanes .more {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) 5px calc(var(--box) - 5px);
  grid-template-rows: auto 14px 1fr;
  column-gap: 0;
  min-height: 82px;
  padding-left: 20px;
}
.lanes .more {
  flex: 1;
  min-height: 44px;
  grid-template-rows: 1fr;
  align-items: center;
}
.lanes .more > :not(.wall) {
  grid-column: 1 / 3;
  grid-row: 1;
  justify-self: start;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding: 6px 8px 8px 0;
}
.who {
  grid-area: 1 / 1 / 4 / 2;
  display: grid;
  grid-template-columns: 28px 18px minmax(0, 1fr);
  gap: 8px;
  align-items: start;
  text-align: left;
  background: none;
  border: 0;
  cursor: pointer;
  padding: 10px 12px 8px 0;
}
.over {
  grid-area: 1 / 2 / 2 / 3;
  padding: 12px 8px 2px 0;
  font-size: 14px;
}
.line {
  grid-area: 2 / 2 / 3 / 4;
  margin-right: -30px;
  align-self: center;
  z-index: 1;
}
.under {
  grid-area: 3 / 2 / 4 / 3;
  padding: 2px 8px 6px 0;
  font-size: 12.5px;
}
.wall {
  background: var(--mv-ink);
  grid-column: 3;
}
.wall.above {
  grid-row: 1;
}
.wall.below {
  grid-row: 3;
}
/* The box behind the wall: each lane comes to its own port. */
.port {
  grid-area: 1 / 4 / 4 / 5;
  margin-left: 30px;
  border: solid var(--mv-ink);
  border-width: 0 2px;
  padding: 12px 6px 0 14px;
  font-size: 12.5px;
  line-height: 1.25;
  position: relative;
  background: var(--mv-sheet);
}
.lane:first-child .port {
  border-top-width: 2px;
}
.lane:nth-last-child(2) .port {
  border-bottom-width: 2px;
}
.plug {
  grid-area: 2 / 4 / 3 / 5;
  align-self: center;
  margin-left: 25px;
  width: 10px;
  height: 14px;
  border: 2px solid var(--mv-ink);
  background: var(--mv-sheet);
  z-index: 2;
}
.works .plug,
.ready .plug {
  background: var(--mv-ink);
}
.wall.full {
  grid-area: 1 / 3 / 2 / 4;
  align-self: stretch;
}
.on .who .name b,
.on .named b {
  border-bottom: 2px solid var(--mv-ink);
}
.rank {
  font-size: 20px;
  line-height: 1.2;
}
.name b {
  font-size: 16px;
}
small {
  display: block;
  font-size: 12.5px;
  color: var(--mv-soft);
}
small.met {
  color: var(--mv-met);
  font-weight: 600;
}
.short,
small.short {
  color: var(--mv-short);
}
.line {
  display: block;
  position: relative;
  height: 6px;
  overflow: hidden;
}
.line::before {
  content: '';
  position: absolute;
  inset: 2.5px 0;
  background: var(--mv-soft);
}
.works .line::before {
  inset: 0;
  background: var(--mv-ink);
}
.ready .line::before {
  inset: 1.5px 0;
  background: var(--mv-ink);
}
.idle .line::before {
  background: var(--mv-line);
}
/* It stops before the wall, with a stroke across. */
.stopped .line {
  margin-right: 14px;
  grid-column: 2 / 3;
  border-right: 3px solid var(--mv-short);
}
/* What works carries something; what is connecting looks for the way. */
.works .line i {
  position: absolute;
  inset: 1px auto 1px 0;
  width: 18px;
  background: var(--mv-sky);
  animation: goes 2.6s linear infinite;
}
.connecting .line i {
  position: absolute;
  inset: 0 auto 0 0;
  width: 34px;
  background: var(--mv-ink);
  animation: seeks 2.2s ease-in-out infinite alternate;
}
@keyframes goes {
  from {
    left: -5%;
  }
  to {
    left: 105%;
  }
}
@keyframes seeks {
  from {
    left: 0;
  }
  to {
    left: calc(70% - 34px);
  }
}
@media (prefers-reduced-motion: reduce) {
  .line i {
    animation: none !important;
  }
}
.idle .over,
.idle .name b {
  color: var(--mv-soft);
}
.clock {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: center;
}
.clock .fig {
  font-size: 16px;
}
.bar {
  position: relative;
  width: 130px;
  height: 6px;
  background: var(--mv-line);
}
.bar i {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--mv-agreed);
}
.bar em {
  position: absolute;
  top: -3px;
  bottom: -3px;
  width: 2px;
  background: var(--mv-ink);
}
.networks .more {
  display: flex;
  align-items: flex-start;
  flex-wrap: wrap;
  gap: 8px 14px;
  padding: 6px 0;
}
/* Out of the box: a branch to each network. */
.network {
  display: grid;
  grid-template-columns: minmax(150px, 2fr) minmax(0, 3fr);
  gap: 14px;
  padding: 6px 0 10px;
  border-top: 3px solid var(--mv-ink);
  margin-left: -20px;
  padding-left: 20px;
}
.network + .network {
  margin-top: 6px;
}
.named {
  background: none;
  border: 0;
  text-align: left;
  cursor: pointer;
  padding: 2px 0;
  align-self: start;
}
.named b {
  font-size: 16px;
}
.hang label {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  min-height: 30px;
}
.hang input {
  width: 18px;
  height: 18px;
}
.when {
  font-size: 12.5px;
  color: var(--mv-soft);
}
label.short .when {
  color: var(--mv-short);
}
label.short span:not(.when) {
  color: var(--mv-ink);
  font-weight: 600;
}
.none {
  font-size: 12.5px;
  line-height: 30px;
}
@media (max-width: 900px) {
  .picture {
    grid-template-columns: 1fr;
  }
  .lanes {
    --box: 92px;
  }
  .lane {
    grid-template-columns: minmax(0, 1fr) 5px calc(var(--box) - 5px);
    grid-template-rows: auto auto 14px auto;
    padding-left: 14px;
  }
  .who {
    grid-area: 1 / 1 / 2 / 2;
    min-height: 56px;
    padding-bottom: 0;
  }
  .over {
    grid-area: 2 / 1 / 3 / 2;
    padding-top: 2px;
  }
  .line {
    grid-area: 3 / 1 / 4 / 3;
    margin-right: -14px;
  }
  .stopped .line {
    grid-column: 1 / 2;
  }
  .under {
    grid-area: 4 / 1 / 5 / 2;
    padding-bottom: 10px;
  }
  .wall {
    grid-column: 2;
  }
  .wall.above {
    grid-row: 1 / 3;
  }
  .wall.below {
    grid-row: 4;
  }
  .port {
    grid-area: 1 / 3 / 5 / 4;
    margin-left: 14px;
    padding-right: 2px;
  }
  .plug {
    grid-area: 3 / 3 / 4 / 4;
    margin-left: 9px;
  }
  .wall.full {
    grid-area: 1 / 2 / 2 / 3;
  }
  .lanes .more {
    grid-template-columns: minmax(0, 1fr) 5px calc(var(--box) - 5px);
  }
  .lanes .more > :not(.wall) {
    grid-column: 1 / 2;
  }
  .networks {
    padding: 12px 14px;
    border-top: 2px solid var(--mv-ink);
  }
  .network {
    grid-template-columns: 1fr;
    gap: 4px;
    margin-left: 0;
    padding-left: 0;
  }
  .hang label,
  .named,
  .more .plain,
  .more .press {
    min-height: 56px;
  }
  .hang input {
    width: 26px;
    height: 26px;
  }
  .hang label {
    grid-template-columns: 34px minmax(0, 1fr) auto;
  }
}
</style>
