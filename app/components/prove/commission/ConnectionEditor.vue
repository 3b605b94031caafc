<script setup lang="ts">
import { answers, checkMbMonth, moved, parseIccid, STATE_WORDS, switchS } from '#core/connect'
import type { Lane } from '#core/connect'
import { CARRIES, CONNECTION_STATES, remove, setField, update } from '#core/job'
import type { Connection, Fields } from '#core/job'
import { num } from '#core/units'
import { nowUtc } from '~/replica/clock'

/** One connection as sentences: what is underlined is pressed and changed, what follows from it stands behind. */
const props = defineProps<{ lane: Lane }>()
const emit = defineEmits<{ done: [] }>()
const store = useOpened()
const row = computed(() => props.lane.row)
const set = (field: keyof Fields<'connections'>) => (v: unknown) =>
  store.commit([setField('connections', row.value.id, field, v)], 'a connection')
/** A state is of a moment; what answers is no longer timed. */
const setState = (state: Connection['state']) =>
  store.commit(
    [
      update('connections', row.value.id, {
        state,
        stateAtUtc: nowUtc(),
        ...(answers(state) || state === 'off' || state === 'not in yet' ? { poweredAtUtc: null } : {}),
      }),
    ],
    'state of a connection',
  )
const setSim = (field: keyof Fields<'sims'>) => (v: unknown) =>
  props.lane.sim ? store.commit([setField('sims', props.lane.sim.id, field, v)], 'a SIM') : undefined
const iccidError = ref('')
const setIccid = (text: string | null) => {
  iccidError.value = ''
  try {
    return setSim('iccid')(text ? parseIccid(text) : null)
  } catch (e) {
    iccidError.value = messageOf(e)
  }
}
const named = (rows: readonly { id: string; name: string }[]) =>
  rows.map(r => ({ value: r.id, title: r.name || 'without a name' }))
const sims = computed(() => named(store.doc.sims))
const boxes = computed(() => (store.result.tree?.routers ?? []).map(r => ({ value: r.node.id, title: r.name })))
const masts = computed(() => named(store.doc.masts))
const sockets = computed(() => named(store.doc.fixtures.filter(f => f.kind === 'mains socket' || f.kind === '12 V feed')))
const entries = computed(() => named(store.doc.fixtures.filter(f => f.kind === 'way in')))
const states = CONNECTION_STATES.map(value => ({ value, title: STATE_WORDS[value].words }))
const USES = [
  { value: 'in order' as const, title: 'in its order' },
  { value: 'bonded' as const, title: 'together with the others' },
  { value: 'by hand' as const, title: 'by hand' },
]
const ADDRESSES = [
  { value: 'own' as const, title: 'an address of its own' },
  { value: 'shared' as const, title: 'an address shared by the carrier' },
  { value: 'behind a router' as const, title: 'an address behind another router' },
]
const SIZES = ['mini', 'micro', 'nano', 'eSIM'] as const
const USED_UP = [
  { value: 'stops' as const, title: 'it stops' },
  { value: 'slows' as const, title: 'it slows down' },
  { value: 'costs' as const, title: 'each further GB costs' },
]
const checkMb = computed(() => checkMbMonth(row.value))
const gone = computed(() => switchS(row.value, props.lane.standsBy))
const move = (by: -1 | 1) =>
  store.commit(
    moved(store.doc, row.value.id, by).map(m => update('connections', m.id, { rank: m.rank })),
    'order of connections',
  )
async function takeOut() {
  await store.commit([remove('connections', row.value.id)], 'a connection taken out')
  emit('done')
}
</script>

<template>
  <EditorFrame label="The connection" data-test="connection-editor" @done="emit('done')">
    <template #name><MvText phrase label="Name" required :value="row.name" :save="set('name')" /></template>
    <template #acts>
      <button type="button" class="press small" data-test="lane-up" @click="move(-1)">earlier</button>
      <button type="button" class="press small" data-test="lane-down" @click="move(1)">later</button>
      <button type="button" class="press small bare" data-test="lane-out" @click="takeOut">take it out</button>
    </template>
    <p class="sentence" data-test="says-state">
      It is <MvChoice phrase label="State" :value="row.state" :choices="states" :save="setState" />. It serves
      <MvChoice phrase label="Use" :value="row.use" :choices="USES" :save="set('use')" /> and carries
      <MvChoice phrase label="Carries" :value="row.carries" :choices="CARRIES" :save="set('carries')" />.
      <template v-if="row.kind === 'cellular'">
        In
        <MvChoice phrase label="Box" hint="which box" :value="row.nodeId" :choices="boxes" clearable :save="set('nodeId')" /> with
        <MvChoice phrase label="SIM" hint="which SIM" :value="row.simId" :choices="sims" clearable :save="set('simId')" />.
      </template>
    </p>
    <p class="sentence">
      Held to
      <MvNumber
        phrase
        label="Down"
        hint="no limit"
        unit="Mbit/s"
        :low="0.05"
        :high="10000"
        :value="row.throttleDownMbps"
        :save="set('throttleDownMbps')"
      />
      down and
      <MvNumber
        phrase
        label="Up"
        hint="no limit"
        unit="Mbit/s"
        :low="0.05"
        :high="10000"
        :value="row.throttleUpMbps"
        :save="set('throttleUpMbps')"
      />
      up Mbit/s, each device to
      <MvNumber
        phrase
        label="Each device"
        hint="no limit"
        unit="Mbit/s"
        :low="0.05"
        :high="10000"
        :value="row.deviceMbps"
        :save="set('deviceMbps')"
      />, with
      <MvNumber
        phrase
        label="Kept for calls"
        hint="nothing"
        unit="Mbit/s"
        :low="0.05"
        :high="10000"
        :value="row.reserveMbps"
        :save="set('reserveMbps')"
      />
      kept for calls.
    </p>
    <p class="sentence">
      Asked every
      <MvNumber
        phrase
        label="Check every"
        hint="–"
        unit="s"
        :low="1"
        :high="86400"
        :decimals="0"
        :value="row.checkS"
        :save="set('checkS')"
      />
      s at
      <MvNumber
        phrase
        label="Places"
        hint="one"
        unit="places"
        :low="1"
        :high="8"
        :decimals="0"
        :value="row.checkPlaces"
        :save="set('checkPlaces')"
      />
      {{ row.checkPlaces === null || row.checkPlaces === 1 ? 'place' : 'places' }}, given up after
      <MvNumber
        phrase
        label="Lost answers"
        hint="3"
        unit="answers"
        :low="1"
        :high="100"
        :decimals="0"
        :value="row.checkMisses"
        :save="set('checkMisses')"
      />
      lost.
      <span v-if="gone !== null" class="follows" data-test="check-follows"
        >{{ num(checkMb) }} MB a month; the other answers after about {{ num(gone) }} s</span
      >
    </p>
    <p class="sentence">
      It has
      <MvChoice
        phrase
        label="Address"
        hint="which address"
        :value="row.address"
        :choices="ADDRESSES"
        clearable
        :save="set('address')"
      />
      <template v-if="row.kind === 'cellular'"
        >, over
        <MvChoice
          phrase
          label="Mast"
          hint="the plan’s mast"
          :value="row.mastId"
          :choices="masts"
          clearable
          :save="set('mastId')" /></template
      >; its box is at
      <MvChoice
        phrase
        label="Socket"
        hint="which socket"
        :value="row.socketId"
        :choices="sockets"
        clearable
        :save="set('socketId')"
      />, its cable comes in by
      <MvChoice
        phrase
        label="Way in"
        hint="which way in"
        :value="row.entryId"
        :choices="entries"
        clearable
        :save="set('entryId')"
      />.
      <template v-if="!lane.sim">
        A month has
        <MvNumber
          phrase
          label="Allowance"
          hint="no limit"
          unit="GB"
          :low="0.01"
          :high="1000000"
          :value="row.allowanceGb"
          :save="set('allowanceGb')"
        />
        GB.
      </template>
    </p>
    <p v-if="lane.sim" class="sentence" data-test="says-sim">
      {{ lane.sim.name }}:
      <MvChoice phrase label="Card" hint="size of the card" :value="lane.sim.size" :choices="SIZES" :save="setSim('size')" />
      card, number
      <MvText phrase label="Number on the card" hint="89…" :value="lane.sim.iccid" :save="setIccid" />
      <span v-if="iccidError" class="error" role="alert">{{ iccidError }}</span>;
      <MvNumber
        phrase
        label="Allowance"
        hint="no limit"
        unit="GB"
        :low="0.01"
        :high="1000000"
        :value="lane.sim.allowanceGb"
        :save="setSim('allowanceGb')"
      />
      GB a month from day
      <MvNumber
        phrase
        label="First day"
        hint="1"
        unit=""
        :low="1"
        :high="31"
        :decimals="0"
        :value="lane.sim.resetDay"
        :save="setSim('resetDay')"
      />, used up
      <MvChoice
        phrase
        label="Used up"
        hint="what then"
        :value="lane.sim.usedUp"
        :choices="USED_UP"
        clearable
        :save="setSim('usedUp')"
      />
      <template v-if="lane.sim.usedUp === 'slows'"
        >to
        <MvNumber
          phrase
          label="Slow"
          hint="–"
          unit="Mbit/s"
          :low="0.01"
          :high="10000"
          :value="lane.sim.slowMbps"
          :save="setSim('slowMbps')"
        />
        Mbit/s</template
      >.
    </p>
  </EditorFrame>
</template>

<style scoped>
.follows {
  color: var(--mv-computed);
  font-weight: 600;
}
</style>
