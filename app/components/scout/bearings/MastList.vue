<script setup lang="ts">
import { channelMeans } from '#core/formats'
import type { MastView } from '#core/masts'
import { NINE_IN_TEN } from '#core/survey'
import { bearing, distance, num } from '#core/units'

/** The masts, best first, in words: which, which way, how far, what comes, and why it stands where it stands. */
const props = defineProps<{ masts: MastView[]; selected: MastView | null }>()
const emit = defineEmits<{ pick: [id: string]; choose: [m: MastView] }>()
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const t = useSay()
const small = useMediaQuery('(max-width: 900px)')
const place = computed(() => store.site.latDeg !== null && store.site.lonDeg !== null)
const find = ref('')
const listEl = ref<HTMLElement | null>(null)
// Picked by a key, on the dial or on the map, it is in the list's window too; on the roof the list has none of its own.
watch(
  [() => props.selected?.mast.id, () => props.selected?.rank],
  // With the next picture, so that the list is laid out once.
  () => !small.value && requestAnimationFrame(() => listEl.value?.querySelector('li.on')?.scrollIntoView({ block: 'nearest' })),
  { flush: 'post' },
)
const SHOWN = 30
const everything = ref(false)
/** What was typed as a modem shows it: a name, a carrier, a band, a channel number or a cell. */
const found = computed(() => {
  const typed = find.value.trim().toLowerCase()
  if (!typed) return props.masts
  const cellMasts = new Set(
    store.doc.cells.filter(c => c.cellId?.toLowerCase() === typed || String(c.channel ?? '') === typed).map(c => c.mastId),
  )
  const means = meaning.value
  return props.masts.filter(
    m =>
      cellMasts.has(m.mast.id) ||
      m.mast.name.toLowerCase().includes(typed) ||
      m.mast.carrier.toLowerCase() === typed ||
      m.bands.some(b => b.toLowerCase() === typed || (!cellMasts.size && means?.bands.includes(b))),
  )
})
const meaning = computed(() => {
  const typed = find.value.trim()
  if (!/^\d{2,7}$/.test(typed)) return null
  return channelMeans(Number(typed), 'LTE') ?? channelMeans(Number(typed), 'NR')
})
const listed = computed(() => (everything.value ? found.value : found.value.slice(0, SHOWN)))
function step(by: number) {
  const i = found.value.findIndex(m => m.mast.id === props.selected?.mast.id)
  const next = found.value[Math.min(found.value.length - 1, Math.max(0, i + by))]
  if (next) emit('pick', next.mast.id)
}
useKeys({
  ArrowDown: { does: 'next mast', run: () => step(1) },
  ArrowUp: { does: 'mast before', run: () => step(-1) },
})
</script>

<template>
  <div class="list">
    <div class="bring no-print">
      <input
        v-model="find"
        class="find"
        type="search"
        placeholder="cell, channel, band, name"
        aria-label="Find a mast by what a modem shows"
        data-test="find"
      />
      <span class="soft means">{{
        meaning
          ? `${num(meaning.frequencyMHz, 1)} MHz, ${meaning.bands.join(' or ') || 'in no band held'}`
          : `${found.length} mast${found.length === 1 ? '' : 's'}`
      }}</span>
      <slot />
    </div>
    <p v-if="!place" class="empty">The position is missing: give it in <NuxtLink :to="`/job/${store.id}/ask`">Ask</NuxtLink>.</p>
    <p v-else-if="!masts.length" class="empty">
      {{
        store.pathsRunning
          ? `Working out the paths… ${store.pathProgress ? `${store.pathProgress.done} of ${store.pathProgress.of}` : ''}`
          : 'No masts within 60 km: import a list of masts, or add one by hand.'
      }}
    </p>
    <p v-else-if="!found.length" class="empty soft">No mast near here matches “{{ find }}”.</p>
    <ol ref="listEl" tabindex="0" aria-label="Masts, best first">
      <li v-for="m in listed" :key="m.mast.id" :class="{ on: m.mast.id === selected?.mast.id, other: !m.ofSim }">
        <button type="button" class="mast" :data-test="`mast-${m.mast.name}`" @click="emit('pick', m.mast.id)">
          <span class="rank fig">{{ m.rank }}</span>
          <span class="who"
            ><strong>{{ m.mast.name }}</strong
            ><small>{{ m.mast.carrier }} · {{ m.bands.join(' ') }}</small
            ><small v-if="m.mast.id === selected?.mast.id && m.mast.seenOn">listed {{ m.mast.seenOn }}</small></span
          >
          <span class="way fig"
            ><b>{{ bearing(m.bearingDeg) }}</b> true<br /><b>{{ m.magneticDeg !== null ? bearing(m.magneticDeg) : '–' }}</b>
            mag</span
          >
          <span class="far fig"
            >{{ distance(m.distanceM, prefs.units) }}<br />{{
              m.best ? `${num(m.best.rsrpDbm)} ±${num(NINE_IN_TEN * m.best.sigmaDb)}` : ''
            }}</span
          >
          <span class="why">{{ t(m.sentence) }}</span>
        </button>
        <button
          v-if="m.mast.id === selected?.mast.id && m.best && store.design?.mastId !== m.mast.id"
          type="button"
          class="press filled small"
          data-test="choose-mast"
          :disabled="!session.mayEdit"
          @click="emit('choose', m)"
        >
          Aim at it
        </button>
        <span v-else-if="store.design?.mastId === m.mast.id" class="chosen">chosen, {{ store.design?.band }}</span>
      </li>
      <li v-if="selected?.path" class="model soft">
        Delta-Bullington, earth radius × {{ num(selected.path.k, 2) }},
        {{ selected.path.cover ? 'land cover on the ground' : 'no land cover held' }}. Left out: trees and buildings not held,
        entry loss, load of the cell. Level at the mount on an isotropic antenna, ± nine times in ten.
      </li>
      <li v-if="listed.length < found.length">
        <button type="button" class="press bare" @click="everything = true">{{ found.length - listed.length }} more</button>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.list {
  border-left: 1px solid var(--mv-line);
  overflow: auto;
  min-height: 0;
}
.bring {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 6px;
  align-items: center;
  padding: 8px 14px;
  border-bottom: 1px solid var(--mv-line);
  position: sticky;
  top: 0;
  background: var(--mv-paper);
  z-index: 1;
}
.means {
  flex: 1;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.find {
  border: 0;
  border-bottom: 1px solid var(--mv-ink);
  background: none;
  padding: 5px 2px;
  width: 176px;
}
ol {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  /* rows out of the list's window wait with their layout */
  content-visibility: auto;
  contain-intrinsic-size: auto 64px;
  border-bottom: 1px solid var(--mv-line);
  padding-right: 14px;
  display: flex;
  align-items: center;
  gap: 8px;
}
li.on {
  background: var(--mv-sheet);
  box-shadow: inset 4px 0 var(--mv-computed);
}
li.other strong {
  font-weight: 400;
}
li.other .mast {
  color: var(--mv-soft);
}
.mast {
  flex: 1;
  display: grid;
  grid-template-columns: 26px 138px 92px 88px 1fr;
  gap: 8px;
  text-align: left;
  background: none;
  border: 0;
  padding: 8px 6px 8px 14px;
  cursor: pointer;
  align-items: start;
  min-width: 0;
}
.rank {
  color: var(--mv-soft);
}
.who {
  display: flex;
  flex-direction: column;
  overflow-wrap: anywhere;
}
small {
  color: var(--mv-soft);
  font-size: 12.5px;
}
.way,
.far {
  font-size: 12.5px;
  line-height: 1.45;
  white-space: nowrap;
}
.why {
  font-size: 13px;
  line-height: 1.35;
}
.model {
  padding: 8px 14px;
  font-size: 12.5px;
}
.chosen {
  color: var(--mv-computed);
  font-weight: 600;
  white-space: nowrap;
  font-size: 13px;
}
.empty {
  padding: 24px 16px;
  font-size: 16px;
}
@media (max-width: 900px) {
  .list {
    border: 0;
    overflow: visible;
  }
  .mast {
    flex: 1 0 100%;
    grid-template-columns: 22px 1fr 88px 78px;
  }
  .chosen,
  li > .filled {
    margin: 0 0 10px 44px;
  }
  .why {
    grid-column: 2 / -1;
  }
  li {
    flex-wrap: wrap;
  }
  .bring {
    position: static;
  }
  .find {
    flex: 1;
    min-height: 44px;
  }
  .means {
    flex: none;
  }
}
</style>
