<script setup lang="ts">
import { BARE_APPLIANCE, MB_HOUR, mbDayOf, MONTH_DAYS } from '#core/connect'
import { insert, remove, setField, update, USAGES } from '#core/job'
import type { Appliance, Fields, Network } from '#core/job'
import { num } from '#core/units'

/** One network: its name, what its password's state is, and what hangs on it. No password is ever typed here. */
const props = defineProps<{ network: Network }>()
const emit = defineEmits<{ done: [] }>()
const store = useOpened()
const session = useSession()
const set = (field: keyof Fields<'networks'>) => (v: unknown) =>
  store.commit([setField('networks', props.network.id, field, v)], 'a network')
const setOf = (a: Appliance) => (field: keyof Fields<'appliances'>) => (v: unknown) =>
  store.commit([setField('appliances', a.id, field, v)], 'what hangs on a network')
const hanging = computed(() => store.doc.appliances.filter(a => a.networkId === props.network.id))
/** Changed by whoever says so, on this day, unless it was said before. */
const setPassword = (password: Network['password']) =>
  store.commit(
    [
      update('networks', props.network.id, {
        password,
        ...(password === 'changed' && !props.network.passwordBy ? { passwordBy: session.member.name } : {}),
      }),
    ],
    'state of a password',
  )
const name = ref('')
const { doing, once } = useOnce()
const add = () =>
  once(async () => {
    if (!name.value.trim()) return
    await store.commit(
      [insert('appliances', { ...BARE_APPLIANCE, networkId: props.network.id, name: name.value.trim() })],
      'what hangs on a network',
    )
    name.value = ''
  })
const takeAway = (a: Appliance) => store.commit([remove('appliances', a.id)], 'what hangs on a network')
async function takeOut() {
  await store.commit([remove('networks', props.network.id)], 'a network taken out')
  emit('done')
}
const PASSWORDS = ['as delivered', 'changed'] as const
const NAMED = ['old name kept', 'new name'] as const
const RADIO = ['2.4 GHz', '5 GHz', 'both', 'wire'] as const
const APART = [
  { value: 'apart' as const, title: 'nothing of the house' },
  { value: 'sees the others' as const, title: 'the house' },
]
const usages = USAGES.map(value => ({ value, title: `${value}, ${num(MB_HOUR[value].mb)} MB an hour` }))
const totalGb = computed(() => (hanging.value.reduce((s, a) => s + mbDayOf(a), 0) * MONTH_DAYS) / 1000)
</script>

<template>
  <EditorFrame label="The network" data-test="network-editor" @done="emit('done')">
    <template #name><MvText phrase label="Name" required :value="network.name" :save="set('name')" /></template>
    <template #acts><button type="button" class="press small bare" @click="takeOut">take it out</button></template>
    <p class="sentence">
      For {{ network.kind === 'house' ? 'the house' : network.kind }}:
      <MvChoice phrase label="Network’s name" :value="network.named" :choices="NAMED" :save="set('named')" />, on
      <MvChoice phrase label="Radio" hint="which radio" :value="network.radio" :choices="RADIO" clearable :save="set('radio')" />,
      each device held to
      <MvNumber
        phrase
        label="Each device"
        hint="no limit"
        unit="Mbit/s"
        :low="0.05"
        :high="10000"
        :value="network.deviceMbps"
        :save="set('deviceMbps')"
      />
      Mbit/s.
      <template v-if="network.kind === 'guests'">
        Tried from it: it sees
        <MvChoice phrase label="Tried" hint="not tried" :value="network.apart" :choices="APART" clearable :save="set('apart')" />.
      </template>
    </p>
    <p class="sentence" data-test="says-password">
      Its password is
      <MvChoice phrase label="Password" hint="not told" :value="network.password" :choices="PASSWORDS" :save="setPassword" />
      <template v-if="network.password === 'changed'">
        by <MvText phrase label="Changed by" hint="whom" :value="network.passwordBy" :save="set('passwordBy')" />, given to
        <MvText phrase label="Given to" hint="nobody yet" :value="network.passwordTo" :save="set('passwordTo')" /> on
        <MvText
          phrase
          label="Given on"
          type="date"
          hint="no day"
          :value="network.passwordOn"
          :save="set('passwordOn')" /></template
      >. <span class="soft">The password itself is never written here: it goes on paper, to its owner.</span>
    </p>
    <ul class="hang">
      <li v-for="a in hanging" :key="a.id" data-test="appliance">
        <MvText phrase label="What hangs on it" required :value="a.name" :save="setOf(a)('name')" />
        <label class="tunnel"
          ><input
            type="checkbox"
            :checked="a.tunnel"
            :disabled="!session.mayEdit"
            @change="setOf(a)('tunnel')(($event.target as HTMLInputElement).checked)"
          />
          tunnel</label
        >
        <MvChoice phrase label="Use" hint="what for" :value="a.usage" :choices="usages" clearable :save="setOf(a)('usage')" />
        <span
          ><MvNumber
            phrase
            label="Hours a day"
            hint="2"
            unit="h"
            :low="0"
            :high="24"
            :value="a.hoursDay"
            :save="setOf(a)('hoursDay')"
          />
          h a day</span
        >
        <span
          ><MvNumber
            phrase
            label="MB an hour"
            :hint="a.usage ? num(MB_HOUR[a.usage].mb) : '–'"
            unit="MB"
            :low="0"
            :high="100000"
            :value="a.mbHour"
            :save="setOf(a)('mbHour')"
          />
          MB an hour</span
        >
        <button v-if="session.mayEdit" type="button" class="plain" @click="takeAway(a)">take away</button>
      </li>
    </ul>
    <form v-if="session.mayEdit" class="new" @submit.prevent="add">
      <v-text-field v-model="name" label="What else hangs on it" maxlength="80" data-test="appliance-name" />
      <button type="submit" class="press small" :disabled="!!doing || !name.trim()" data-test="appliance-add">add</button>
      <span v-if="totalGb" class="follows">{{ num(totalGb, 1) }} GB a month by its use</span>
    </form>
  </EditorFrame>
</template>

<style scoped>
.hang {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
}
.hang li {
  display: grid;
  grid-template-columns: minmax(140px, 1fr) 90px minmax(160px, 1fr) 110px 160px auto;
  gap: 4px 16px;
  align-items: center;
  min-height: 40px;
  border-bottom: 1px solid var(--mv-line);
}
/* As wide as its words: beside them nothing opens. */
.hang :deep(.mv-choice) {
  justify-self: start;
}
.new {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
.new :deep(.v-input) {
  max-width: 280px;
}
.follows {
  color: var(--mv-computed);
  font-weight: 600;
}
@media (max-width: 900px) {
  .hang li {
    grid-template-columns: 1fr 1fr;
    padding: 8px 0;
  }
  .new .press {
    min-height: 56px;
  }
}
</style>
