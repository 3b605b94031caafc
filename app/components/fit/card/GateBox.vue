<script setup lang="ts">
import type { FactState, GateId, GateState } from '#core/card'
import { NOTED_IN } from '#core/judge'
import type { DemandKind } from '#core/judge'

/** What must be true now before a step; each fact with who said so and when. */
const props = defineProps<{ gate: GateState }>()
const emit = defineEmits<{ said: [] }>()
const session = useSession()
const store = useOpened()
const { note } = useChecks()
const { once, doing } = useOnce()

const TITLES: Record<GateId, string> = {
  plan: 'Not in the plan yet: note it there, or decide it here',
  climb: 'No climbing until these are true now',
  ladder: 'No stepladder until this is true now',
  gas: 'Nothing at this vent until these are true now',
  drill: 'No hole until these are true now',
  raise: 'Nothing is raised until these are true now',
  energise: 'No power until these are true now',
  transmit: 'Nothing transmits until these are true now',
}
const GO: Record<GateId, string> = {
  plan: 'Decided here',
  climb: 'Go: the climb',
  ladder: 'Go: the stepladder',
  drill: 'Go: this hole',
  gas: 'Go: gas off and cold',
  raise: 'Go: raise it',
  energise: 'Go: power',
  transmit: 'Go: transmit',
}
/** where what the plan lacks is noted */
const noted = computed(() => {
  const kinds = new Set((props.gate.need.lacks ?? []).map(l => l.key.split(':')[0] as DemandKind))
  return [...kinds].map(k => {
    const { path, words } = placeToNote(store.id, NOTED_IN[k])
    return { path, words: `${words}: note ${SAYS[k]}` }
  })
})
const SAYS: Record<DemandKind, string> = {
  'mount': 'what holds it',
  'way in': 'the way in',
  'arrestor': 'the arrestor',
  'earth': 'the earth',
  'feed': 'what feeds it',
  'lines': 'the overhead line',
  'consent': 'the consent',
  'registration': 'the registration',
  'seal': 'the seal',
  'room': 'the test',
}
const fact = (f: FactState, done: boolean, value: number | null = null) =>
  note({ kind: 'fact', key: f.key, about: f.about, done, value }, 'what is true now')
const tell = (f: FactState) => once(() => fact(f, !f.stands)).then(() => emit('said'))
const measure = (f: FactState) => async (v: number | null) => {
  const troubles = await fact(f, v !== null, v)
  emit('said')
  return troubles
}
const saidBy = (f: FactState): string => {
  if (f.known !== null) return f.known
  if (!f.said?.atUtc || !f.said.done) return ''
  const at = new Date(f.said.atUtc).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false })
  return f.lapsed ? `${at}: no longer holds, say it again` : `${f.said.by}, ${at}`
}
/** it is the card's own to say */
const fixed = (f: FactState): boolean => f.known !== null || (f.stop !== null && !f.fact.figure)
</script>

<template>
  <section class="gate" :class="{ open: gate.open }" data-test="gate" :data-gate="gate.gate">
    <h2>{{ gate.open ? GO[gate.gate] : TITLES[gate.gate] }}</h2>
    <p v-if="gate.gate === 'plan' && !gate.open" class="soft">
      <NuxtLink v-for="to in noted" :key="to.path" :to="to.path" data-test="note-it">{{ to.words }}</NuxtLink>
    </p>
    <div v-for="f in gate.facts" :key="f.fact.key" class="fact" :class="{ stands: f.stands }">
      <template v-if="f.fact.figure">
        <span>{{ f.fact.words }}</span>
        <MvNumber
          :label="f.fact.key"
          :value="f.lapsed || !f.said?.done ? null : (f.said.value ?? null)"
          :unit="f.fact.figure.unit"
          :low="0"
          :high="1000"
          :decimals="1"
          :save="measure(f)"
          :data-test="`fact-${f.fact.key}`"
        />
      </template>
      <label v-else
        ><input
          type="checkbox"
          :checked="f.stands"
          :disabled="!session.mayEdit || fixed(f) || doing"
          :data-test="`fact-${f.fact.key}`"
          @change="tell(f)"
        /><span>{{ f.fact.words }}</span></label
      >
      <small :class="f.stop ? 'error' : 'soft'">{{ f.stop ?? saidBy(f) }}</small>
    </div>
  </section>
</template>

<style scoped>
.gate {
  border: 2px solid var(--mv-short);
  background: var(--mv-sheet);
  padding: 10px 14px;
  margin: 12px 0;
}
h2 {
  color: var(--mv-short);
  font-size: 16px;
}
.gate a {
  color: var(--mv-computed);
}
.gate.open {
  border-color: var(--mv-met);
}
.gate.open h2 {
  color: var(--mv-met);
}
.fact {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  align-items: center;
  padding: 5px 0;
}
.fact label {
  display: flex;
  gap: 10px;
  align-items: flex-start;
}
.fact:not(.stands) label {
  font-weight: 600;
}
.fact input[type='checkbox'] {
  width: 22px;
  height: 22px;
  flex: none;
}
.fact > .v-input,
.fact :deep(.v-input) {
  max-width: 150px;
}
@media (max-width: 900px) {
  .fact label {
    min-height: 56px;
    align-items: center;
  }
  .fact input[type='checkbox'] {
    width: 28px;
    height: 28px;
  }
}
</style>
