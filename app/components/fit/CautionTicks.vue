<script setup lang="ts">
import { aboutOf, cautionsFor, lastCheck, standingTick } from '#core/judge'
import type { Caution, Section } from '#core/judge'

/** The cautions of a step, each ticked where it bites: by whom, when, where; a lapsed tick says so and stays on record. */
const props = defineProps<{ section: Section; brief?: boolean }>()
const store = useOpened()
const session = useSession()
const now = useNow({ interval: 30_000 })
const { note } = useChecks()
const cautions = computed(() => cautionsFor(props.section, store.job.kind))
const stands = (c: Caution) => standingTick(store.doc, c, now.value.toISOString())
const { doing, once } = useOnce()
const tick = (c: Caution) => once(() => keepTick(c))
async function keepTick(c: Caution) {
  const said = { kind: 'tick', key: c.key, done: !stands(c), about: aboutOf(store.doc, c.section) } as const
  await note(said, 'a go/stop check')
  now.value = new Date()
}
const words = (c: Caution): string => {
  const t = stands(c)
  const last = lastCheck(store.doc, 'tick', c.key)
  const at = (iso: string) => new Date(iso).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false })
  if (t) return `${t.by}, ${at(t.atUtc!)}`
  return last?.done ? 'lapsed: tick again' : ''
}
</script>

<template>
  <div class="ticks" :class="{ brief }">
    <label v-for="c in cautions" :key="c.key" class="tick"
      ><input
        type="checkbox"
        :checked="!!stands(c)"
        :disabled="!session.mayEdit || doing"
        :data-test="`tick-${c.key}`"
        @change="tick(c)"
      /><span
        >{{ c.text }} <small class="soft">{{ words(c) }}</small></span
      ></label
    >
  </div>
</template>

<style scoped>
.tick {
  display: flex;
  gap: 14px;
  align-items: center;
  min-height: 56px;
  border-bottom: 1px solid var(--mv-line);
  padding: 8px 0;
}
.tick input {
  width: 26px;
  height: 26px;
  flex: none;
  accent-color: var(--mv-ink);
}
.brief {
  display: flex;
  gap: 4px 18px;
  flex-wrap: wrap;
}
.brief .tick {
  min-height: 28px;
  border: 0;
  padding: 0;
  gap: 8px;
  font-size: 12.5px;
  color: var(--mv-soft);
  max-width: 560px;
}
.brief .tick input {
  width: 18px;
  height: 18px;
}
@media (max-width: 900px) {
  .brief {
    display: block;
  }
  .brief .tick {
    min-height: 56px;
    font-size: 14px;
    color: var(--mv-ink);
    max-width: none;
    border-bottom: 1px solid var(--mv-line);
  }
  .brief .tick input {
    width: 26px;
    height: 26px;
  }
}
</style>
