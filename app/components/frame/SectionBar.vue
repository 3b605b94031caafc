<script setup lang="ts">
import { sure } from '#core/sure'
import type { Section } from '#core/judge'

/** Sections of the act, and what is at hand everywhere: findings, working, undo, keys, units, night. */
const props = defineProps<{ section: Section }>()
const emit = defineEmits<{ findings: []; working: []; keys: [] }>()
const store = useJob()
const prefs = usePrefs()
const router = useRouter()
const act = computed(() => sure(SECTIONS.find(s => s.id === props.section)).act)
const here = computed(() => SECTIONS.filter(s => s.act === act.value))
const open = computed(() =>
  (store.result?.findings ?? []).filter(f => !f.accepted && (f.severity === 'stop' || f.severity === 'fix')),
)
function move(by: number) {
  const i = SECTIONS.findIndex(s => s.id === props.section)
  const next = SECTIONS[i + by]
  if (next) void router.push(`/job/${store.id}/${next.id}`)
}
const toggleUnits = () => (prefs.units = prefs.units === 'metric' ? 'imperial' : 'metric')
useKeys({
  '[': { does: 'section before', run: () => move(-1) },
  ']': { does: 'section after', run: () => move(1) },
  'w': { does: 'working of every figure', run: () => emit('working') },
  'f': { does: 'all findings', run: () => emit('findings') },
  '?': { does: 'keys', run: () => emit('keys') },
  'u': { does: 'metric or imperial', run: toggleUnits },
  'n': { does: 'sun or night', run: () => (prefs.night = !prefs.night) },
  'Ctrl Z': { does: 'undo', run: () => void store.undo() },
  'Ctrl Shift Z': { does: 'redo', run: () => void store.redo() },
})
</script>

<template>
  <div class="bar no-print">
    <nav aria-label="Sections">
      <NuxtLink v-for="s in here" :key="s.id" :to="`/job/${store.id}/${s.id}`" :class="{ on: s.id === section }">{{
        s.name
      }}</NuxtLink>
    </nav>
    <div class="tools">
      <slot />
      <button type="button" class="tool" :class="{ trouble: open.length }" data-test="findings" @click="emit('findings')">
        {{ open.length ? `${open.length} to fix` : 'findings' }} <kbd class="key">F</kbd>
      </button>
      <button type="button" class="tool wide" @click="emit('working')">working <kbd class="key">W</kbd></button>
      <button
        type="button"
        class="tool"
        :disabled="!store.undoStack.length"
        :title="store.undoStack.at(-1)?.label"
        data-test="undo"
        @click="store.undo()"
      >
        undo
      </button>
      <button type="button" class="tool wide" @click="toggleUnits">{{ prefs.units === 'metric' ? 'm' : 'ft' }}</button>
      <button type="button" class="tool wide" :aria-pressed="prefs.night" data-test="night" @click="prefs.night = !prefs.night">
        {{ prefs.night ? 'night' : 'sun' }}
      </button>
      <button type="button" class="tool wide" aria-label="Keys" @click="emit('keys')"><kbd class="key">?</kbd> keys</button>
    </div>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  justify-content: space-between;
  align-items: stretch;
  padding: 0 14px 0 20px;
  min-height: 42px;
  border-bottom: 1px solid var(--mv-line);
  gap: 12px;
}
nav {
  display: flex;
  gap: 26px;
}
nav a {
  display: flex;
  align-items: center;
  color: var(--mv-ink);
  text-decoration: none;
  border-bottom: 3px solid transparent;
  padding-top: 3px;
}
nav a.on {
  font-weight: 700;
  border-color: var(--mv-ink);
}
.tools {
  display: flex;
  align-items: center;
  gap: 4px;
}
.tool {
  background: none;
  border: 0;
  padding: 4px 8px;
  cursor: pointer;
  color: var(--mv-soft);
  white-space: nowrap;
  min-height: 34px;
}
.tool:disabled {
  cursor: default;
  opacity: 0.55;
}
.tool:not(:disabled):hover {
  color: var(--mv-ink);
}
.tool.trouble {
  color: var(--mv-short);
  font-weight: 600;
}
@media (max-width: 900px) {
  .wide {
    display: none;
  }
  .bar {
    padding: 0 6px 0 14px;
    min-height: 34px;
  }
  nav {
    gap: 18px;
  }
  .tool {
    min-height: 34px;
  }
  .tool .key {
    display: none;
  }
}
</style>
