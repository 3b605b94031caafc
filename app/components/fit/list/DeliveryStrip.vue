<script setup lang="ts">
import { lastOf } from '#core/sure'
import type { ListLine } from '#core/card'
import { num } from '#core/units'

/** What comes when, day by day up to the visit: whatever lies right of it is late. */
const props = defineProps<{ lines: readonly ListLine[]; visitDay: string | null; day: string | null }>()
const emit = defineEmits<{ pick: [day: string | null] }>()
const today = dayOf(new Date())
const coming = computed(() => props.lines.filter(l => l.state === 'ordered'))
const undated = computed(() => coming.value.filter(l => !l.dueOn).length)
const days = computed(() => {
  const last = lastOf(
    [dayAfter(today, 6), props.visitDay, ...coming.value.map(l => l.dueOn)].filter((d): d is string => !!d).sort(),
  )
  const out: string[] = []
  for (let d = today; d <= last && out.length < 21; d = dayAfter(d, 1)) out.push(d)
  return out
})
const on = (d: string) => coming.value.filter(l => l.dueOn === d || (d === today && l.dueOn !== null && l.dueOn < today))
const short = (d: string) => new Date(`${d}T12:00:00`).toLocaleDateString(undefined, { weekday: 'short' })
</script>

<template>
  <div class="days" role="group" aria-label="Deliveries by day" data-test="deliveries">
    <button
      v-for="d in days"
      :key="d"
      type="button"
      :class="{ late: visitDay && d > visitDay && on(d).length, visit: d === visitDay, some: on(d).length, on: d === day }"
      :aria-pressed="d === day"
      :aria-label="`${dayWords(d)}: ${on(d).length} to come${d === visitDay ? ', the visit' : ''}`"
      @click="emit('pick', d === day ? null : d)"
    >
      <small>{{ short(d) }}</small><span class="fig">{{ num(Number(d.slice(8))) }}</span
      ><b class="fig">{{ on(d).length || '' }}</b>
      <em v-if="d === visitDay">visit</em>
    </button>
    <span v-if="undated" class="error">{{ undated }} ordered, no day known</span>
    <span v-else-if="!coming.length" class="soft">nothing is on its way</span>
  </div>
</template>

<style scoped>
.days {
  display: flex;
  gap: 2px;
  align-items: end;
  flex-wrap: wrap;
}
button {
  width: 46px;
  height: 62px;
  border: 0;
  border-bottom: 3px solid var(--mv-line);
  background: none;
  display: grid;
  justify-items: center;
  align-content: start;
  gap: 0;
  padding: 2px 0;
  cursor: pointer;
  position: relative;
}
button.some {
  background: var(--mv-beam);
}
button.late {
  background: var(--mv-short);
  color: var(--mv-sheet);
}
button.visit {
  border-bottom-color: var(--mv-ink);
}
button.on {
  outline: 2px solid var(--mv-ink);
}
small {
  font-size: 12px;
}
b {
  font-size: 15px;
}
em {
  position: absolute;
  bottom: 0;
  font-style: normal;
  font-size: 12px;
  font-weight: 700;
}
.days > span {
  margin-left: 12px;
  align-self: center;
}
</style>
