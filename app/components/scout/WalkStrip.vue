<script setup lang="ts">
import { nextStation, walkOf } from '#core/survey'
import type { StationState } from '#core/survey'

/** The walk in its order: where was read, and where to stand next. */
const props = defineProps<{ spotId: string | null }>()
const emit = defineEmits<{ go: [spotId: string]; add: [station: StationState] }>()
const store = useOpened()
const session = useSession()
const walk = computed(() => walkOf(store.doc, store.log))
const next = computed(() => nextStation(walk.value))
const SHORT = { device: 'device', corner: 'corners', window: 'windows', outside: 'outside', high: 'high', donor: 'best inside' }
/** to the spot of it that was not read, else the next of them, else a new one */
function go(s: StationState) {
  const at = s.spots.findIndex(x => x.id === props.spotId)
  const to = s.spots[at + 1] ?? s.spots[0]
  if (to) emit('go', to.id)
  else if (session.mayEdit) emit('add', s)
}
const here = (s: StationState) => s.spots.some(x => x.id === props.spotId)
</script>

<template>
  <nav class="walk" aria-label="The walk" data-test="walk">
    <ol>
      <li v-for="s in walk" :key="s.station">
        <button
          type="button"
          :class="{ read: s.read, here: here(s), next: next?.station === s.station }"
          :aria-current="here(s) ? 'step' : undefined"
          :title="`${s.words}: ${s.why}`"
          :data-test="`walk-${s.station}`"
          @click="go(s)"
        >
          <b>{{ SHORT[s.station] }}</b><small>{{
            s.read ? (s.spots.length > 1 ? `${s.read} of ${s.spots.length}` : 'read') : s.spots.length ? 'not yet' : '+'
          }}</small>
        </button>
      </li>
    </ol>
    <p v-if="next" class="soft">Next: {{ next.words }}. {{ next.why[0]!.toUpperCase() + next.why.slice(1) }}.</p>
    <p v-else class="soft">Every place of the walk was read.</p>
  </nav>
</template>

<style scoped>
ol {
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  list-style: none;
  padding: 0;
  margin: 0;
}
button {
  width: 100%;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  background: none;
  border: 0;
  border-top: 3px solid var(--mv-line);
  padding: 4px 2px;
  color: var(--mv-soft);
  cursor: pointer;
  text-align: left;
  white-space: nowrap;
}
button b {
  font-size: 13px;
  font-weight: 600;
}
button small {
  font-size: 11.5px;
}
button.read {
  border-color: var(--mv-ink);
  color: var(--mv-ink);
}
button.next {
  border-color: var(--mv-agreed);
}
button.here {
  background: var(--mv-sheet);
  color: var(--mv-ink);
}
p {
  font-size: 12.5px;
  margin: 2px 0 8px;
}
@media (max-width: 640px) {
  p {
    display: none;
  }
  button {
    min-height: 56px;
  }
  button b {
    font-size: 12px;
  }
}
</style>
