<script setup lang="ts">
import type { CardStep } from '#core/card'
import type { Words } from '#core/words'
import { listed } from '#core/words'

/** What a step needs and gives: what goes up or along, what then, the figure, the photograph, who, the weather. */
defineProps<{
  step: CardStep
  /** before the ladder: everything that goes up, once */
  bundle: readonly Words[] | null
  following: CardStep | null
  /** how many steps something late holds up */
  heldUp: number
}>()
const t = useSay()
</script>

<template>
  <dl>
    <template v-if="bundle">
      <dt>bundle</dt>
      <dd data-test="bundle"><b>For the whole climb:</b> {{ t(listed(bundle, ', ')) }}</dd>
    </template>
    <template v-else-if="step.parts.length || step.tools.length">
      <dt>take {{ step.stand === 'up' ? 'up' : 'along' }}</dt>
      <dd>{{ t(listed([...step.parts, ...step.tools], ', ')) }}</dd>
    </template>
    <dt>then</dt>
    <dd>{{ t(step.then) }}</dd>
    <template v-if="step.figure && step.id !== 'dry-run'">
      <dt>figure</dt>
      <dd>
        <b>{{ t(step.figure) }}</b>
      </dd>
    </template>
    <template v-if="step.photo">
      <dt>photo</dt>
      <dd>{{ step.photo }}</dd>
    </template>
    <template v-if="step.people === 2">
      <dt>who</dt>
      <dd>two people</dd>
    </template>
    <template v-if="step.dry">
      <dt>weather</dt>
      <dd>dry</dd>
    </template>
    <template v-if="step.waits">
      <dt>late</dt>
      <dd class="error" data-test="late">
        {{ step.waits.line.name }}, {{ step.waits.line.dueOn ? dayWords(step.waits.line.dueOn) : 'no day known' }}:
        {{ heldUp === 1 ? 'this step waits' : `${heldUp} steps wait` }}
      </dd>
    </template>
    <template v-if="following">
      <dt class="soft">next</dt>
      <dd class="soft">{{ t(following.words) }}</dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 74px 1fr;
  gap: 6px 10px;
  margin: 12px 0;
}
dt {
  color: var(--mv-soft);
}
dd {
  margin: 0;
}
</style>
