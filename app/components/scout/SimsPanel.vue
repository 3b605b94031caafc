<script setup lang="ts">
import { BARE_SIM, setField } from '#core/job'
import type { Edit, Fields, TableName } from '#core/job'

/** The SIMs of the job with their plans, and the devices that read: what set-ups are made of. */
const store = useOpened()
const session = useSession()
const update =
  <T extends TableName>(table: T, rowId: string, label: string) =>
  (field: keyof Fields<T>) =>
  (v: unknown) =>
    store.commit([setField(table, rowId, field, v) as Edit], label)
const carriers = computed(() => [
  ...new Set([...session.carriers.map(c => c.name), ...store.doc.sims.map(s => s.carrier).filter((c): c is string => !!c)]),
])
const { doing, once } = useOnce()
const error = ref('')
const act = (work: () => Promise<{ message: string }[]>) => once(async () => (error.value = (await work())[0]?.message ?? ''))
const addSim = () =>
  act(() =>
    store.commit(
      [
        {
          table: 'sims',
          op: 'insert',
          fields: { ...BARE_SIM, name: `SIM ${store.doc.sims.length + 1}` },
        },
      ],
      'a SIM',
    ),
  )
const used = (id: string) => store.doc.setups.some(s => s.simId === id || s.deviceId === id)
const remove = (table: 'sims' | 'devices', rowId: string) =>
  act(() => store.commit([{ table, op: 'delete', rowId }], 'take it out'))
</script>

<template>
  <div class="sims">
    <div v-for="s in store.doc.sims" :key="s.id" class="item" data-test="sim">
      <MvText label="SIM" required :value="s.name" :save="update('sims', s.id, 'SIM')('name')" />
      <MvChoice
        :value="s.carrier"
        label="of"
        :choices="carriers"
        clearable
        :save="v => update('sims', s.id, 'carrier of a SIM')('carrier')(v ?? null)"
      />
      <MvNumber
        label="Cap down"
        unit="Mbit/s"
        :value="s.capDownMbps"
        :low="0.01"
        :high="10000"
        :save="update('sims', s.id, 'cap')('capDownMbps')"
      />
      <MvNumber
        label="Cap up"
        unit="Mbit/s"
        :value="s.capUpMbps"
        :low="0.01"
        :high="10000"
        :save="update('sims', s.id, 'cap')('capUpMbps')"
      />
      <MvText
        class="two"
        label="Plan: allowance, throttle, whose network"
        :value="s.plan"
        :save="update('sims', s.id, 'plan')('plan')"
      />
      <MvNumber
        label="Allowance"
        unit="GB"
        :value="s.allowanceGb"
        :low="0"
        :high="1000000"
        :save="update('sims', s.id, 'allowance')('allowanceGb')"
      />
      <MvChoice
        :value="s.callsOverWifi"
        label="Calls over Wi-Fi"
        :choices="[
          { value: 'yes', title: 'yes, plan and phones' },
          { value: 'no', title: 'no' },
        ]"
        clearable
        placeholder="not asked"
        data-test="calls-over-wifi"
        :save="v => update('sims', s.id, 'calls over Wi-Fi')('callsOverWifi')(v ?? null)"
      />
      <button
        v-if="session.mayEdit && store.doc.sims.length > 1 && !used(s.id)"
        type="button"
        class="plain"
        @click="remove('sims', s.id)"
      >
        take out
      </button>
    </div>
    <div class="item devices">
      <template v-for="d in store.doc.devices" :key="d.id">
        <MvText :label="`Device: ${d.kind}`" required :value="d.name" :save="update('devices', d.id, 'device')('name')" />
        <MvNumber
          label="Its own antenna"
          unit="dBi"
          :value="d.antennaDbi"
          :low="-20"
          :high="20"
          :save="update('devices', d.id, 'antenna of a device')('antennaDbi')"
        />
      </template>
    </div>
    <p class="soft">
      <button v-if="session.mayEdit" type="button" class="press small" :disabled="doing" data-test="add-sim" @click="addSim">
        another SIM
      </button>
      A phone’s own antenna is taken as −3 dBi, a router’s as 0 (assumed), until entered.
    </p>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
  </div>
</template>

<style scoped>
.sims {
  grid-column: 1 / -1;
}
.item {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  align-items: center;
  padding: 4px 0 10px;
  border-bottom: 1px solid var(--mv-line);
  margin-bottom: 8px;
}
.two {
  grid-column: span 2;
}
p {
  display: flex;
  gap: 10px;
  align-items: center;
  font-size: 12.5px;
}
@media (max-width: 900px) {
  .item {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
