<script setup lang="ts">
import { layoutDial, layoutSightLine, layoutSkyline } from '#core/drawing'
import { normalise360, sunPosition } from '#core/geo'
import { channelMeans } from '#core/formats'
import { carriersOf, moves, NINE_IN_TEN, obstaclesHere } from '#core/survey'
import type { MastView } from '#core/masts'
import { skylineAt } from '#core/terrain'
import type { Horizon, PathResult } from '#core/terrain'
import { bearing, distance, num } from '#core/units'

/** Which mast, which way, how high, and why not the others: dial or map, the list in words, and the strip below. */
const store = useOpened()
const prefs = usePrefs()
const t = useSay()
const session = useSession()
const { engine } = useEngine()
const { el: stripEl, width: stripWidth, height: stripHeight } = useWidth()
const { el: dialEl, width: dialWidth, height: dialHeight } = useWidth()
const small = useMediaQuery('(max-width: 900px)')
const masts = computed(() => store.result.masts.filter(m => m.path))
const picked = ref<string | null>(store.design?.mastId ?? null)
const selected = computed(() => masts.value.find(m => m.mast.id === picked.value) ?? masts.value[0] ?? null)
const find = ref('')
const listEl = ref<HTMLElement | null>(null)
// Picked by a key, on the dial or on the map, it is in the list's window too; on the roof the list has none of its own.
watch(
  [() => selected.value?.mast.id, () => selected.value?.rank],
  // With the next picture, so that the list is laid out once.
  () => !small.value && requestAnimationFrame(() => listEl.value?.querySelector('li.on')?.scrollIntoView({ block: 'nearest' })),
  { flush: 'post' },
)
const view = ref<'dial' | 'map'>('dial')
const strip = ref<'skyline' | 'sight' | 'height'>('skyline')
const SHOWN = 30
const everything = ref(false)

/** What was typed as a modem shows it: a name, a carrier, a band, a channel number or a cell. */
const found = computed(() => {
  const t = find.value.trim().toLowerCase()
  if (!t) return masts.value
  const cellMasts = new Set(
    store.doc.cells.filter(c => c.cellId?.toLowerCase() === t || String(c.channel ?? '') === t).map(c => c.mastId),
  )
  const means = meaning.value
  return masts.value.filter(
    m =>
      cellMasts.has(m.mast.id) ||
      m.mast.name.toLowerCase().includes(t) ||
      m.mast.carrier.toLowerCase() === t ||
      m.bands.some(b => b.toLowerCase() === t || (!cellMasts.size && means?.bands.includes(b))),
  )
})
const meaning = computed(() => {
  const t = find.value.trim()
  if (!/^\d{2,7}$/.test(t)) return null
  return channelMeans(Number(t), 'LTE') ?? channelMeans(Number(t), 'NR')
})
const listed = computed(() => (everything.value ? found.value : found.value.slice(0, SHOWN)))

const horizon = shallowRef<Horizon | null>(null)
const eyeM = computed(() => Math.max(1.5, store.result.mountHeightM))
let horizonAsked = 0
watch(
  [
    () => store.site.latDeg,
    () => store.site.lonDeg,
    () => store.site.groundM,
    () => store.job.kFactor,
    () => Math.round(eyeM.value * 2),
    () => JSON.stringify(obstaclesHere(store.doc)),
    () => store.terrainVersion,
  ],
  async () => {
    const mine = ++horizonAsked
    const h = await engine.horizon(toRaw(store.doc), eyeM.value)
    if (mine === horizonAsked) horizon.value = h
  },
  { immediate: true },
)

const now = useNow({ interval: 20_000 })
const place = computed(() => {
  const s = store.site
  return s.latDeg !== null && s.lonDeg !== null ? { latDeg: s.latDeg, lonDeg: s.lonDeg } : null
})
const sun = computed(() => (place.value ? sunPosition(place.value, now.value) : null))
const { landmarks } = useBearingWords(() => selected.value)
const dec = computed(() => store.result.declination)
const moving = computed(() => moves(store.doc))
const dialSize = computed(() => Math.max(220, Math.min(dialWidth.value, (dialHeight.value || 400) - 4)))
const dial = computed(() =>
  layoutDial(store.result, {
    size: dialSize.value,
    width: Math.max(dialSize.value, Math.min(dialWidth.value, dialSize.value + 240)),
    masts: 6,
    showSweep: true,
    headingDeg: store.design?.aimedDeg ?? null,
    selectedId: selected.value?.mast.id ?? null,
    horizon: horizon.value,
    bowDeg: moving.value ? store.site.headingDeg : null,
    sunDeg: sun.value && sun.value.altitudeDeg > 0 ? sun.value.azimuthDeg : null,
  }),
)
const closer = ref(false)
/** bearings the strip shows, degrees, and the one in its middle */
const span = computed(() => (closer.value ? 90 : small.value ? 180 : 360))
const centre = computed(() => selected.value?.bearingDeg ?? 180)
const skyline = computed(() =>
  horizon.value && stripWidth.value
    ? layoutSkyline(horizon.value, {
        width: stripWidth.value,
        height: Math.max(110, stripHeight.value),
        units: prefs.units,
        centreDeg: centre.value,
        spanDeg: span.value,
        masts: masts.value.filter(m => m.rank <= (small.value ? 4 : 9) || m === selected.value),
        selectedId: selected.value?.mast.id ?? null,
        declination: dec.value,
        magnetic: prefs.magnetic,
        sun: sun.value,
        landmarks: landmarks.value,
        obstacles: obstaclesHere(store.doc),
        headingDeg: moving.value ? store.site.headingDeg : null,
        bowWord: store.job.kind === 'boat' ? 'bow' : 'nose',
        compact: small.value,
      })
    : null,
)

const farPath = shallowRef<PathResult | null>(null)
watch(
  [() => selected.value?.mast.id, () => selected.value?.path?.key, () => strip.value],
  async () => {
    farPath.value = null
    const m = selected.value
    if (strip.value === 'sight' && m?.path && !m.path.sketch.distanceM.length)
      farPath.value = await engine.path(toRaw(store.doc), m.mast.id)
  },
  { immediate: true },
)
const sight = computed(() => {
  const m = selected.value
  const path = m?.path?.sketch.distanceM.length ? m.path : farPath.value
  if (!m?.best || !path || path.mastId !== m.mast.id || !stripWidth.value) return null
  return layoutSightLine(path, {
    width: stripWidth.value,
    height: Math.max(110, stripHeight.value),
    units: prefs.units,
    band: m.best.band,
    heightM: store.result.mountHeightM,
    mastName: m.mast.name,
    diffractionDb: m.best.diffractionDb,
    compact: stripWidth.value < 620,
  })
})

/** what the pointer rests on: the skyline there, and the ridge that makes it */
const pointed = ref('')
function point(e: PointerEvent) {
  const h = horizon.value
  if (!h || strip.value !== 'skyline') return
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  const deg = normalise360(centre.value + ((e.clientX - box.left) / box.width - 0.5) * span.value)
  const s = skylineAt(h, deg)
  pointed.value = Number.isNaN(s.elevationDeg)
    ? `${bearing(deg)}: ground unknown`
    : `${bearing(deg)} true, skyline ${num(s.elevationDeg, 1)}° up, ridge ${distance(s.ridgeM, prefs.units)} off`
}

async function choose(m: MastView) {
  if (m.best)
    await store.commit(
      [{ table: 'designs', op: 'update', rowId: store.variant.id, fields: { mastId: m.mast.id, band: m.best.band } }],
      'choose the mast',
    )
}
const sheet = ref<'' | 'masts' | 'terrain' | 'mast' | 'compass' | 'seen' | 'sims'>('')
const sheetOf = (name: typeof sheet.value) =>
  computed({
    get: () => sheet.value === name,
    set: v => {
      sheet.value = v ? name : ''
    },
  })
const importing = sheetOf('masts')
const terrain = sheetOf('terrain')
const adding = sheetOf('mast')
const compass = sheetOf('compass')
const seen = sheetOf('seen')
const beside = sheetOf('sims')
/** two carriers or more are compared */
const carriers = computed(() => carriersOf(store.doc))
const picking = ref(false)
const spot = ref<{ latDeg: number; lonDeg: number; bearingDeg: number; distanceM: number } | null>(null)
function pickPlace() {
  seen.value = false
  view.value = 'map'
  picking.value = true
}
function placed(at: NonNullable<typeof spot.value>) {
  picking.value = false
  spot.value = at
  seen.value = true
}
function step(by: number) {
  const i = found.value.findIndex(m => m.mast.id === selected.value?.mast.id)
  picked.value = found.value[Math.min(found.value.length - 1, Math.max(0, i + by))]?.mast.id ?? null
}
useKeys({
  ArrowDown: { does: 'next mast', run: () => step(1) },
  ArrowUp: { does: 'mast before', run: () => step(-1) },
  Enter: { does: 'aim at this mast', run: () => selected.value && session.mayEdit && void choose(selected.value) },
  v: { does: 'dial or map', run: () => (view.value = view.value === 'dial' ? 'map' : 'dial') },
  s: { does: 'skyline', run: () => (strip.value = 'skyline') },
  l: { does: 'sight line', run: () => (strip.value = 'sight') },
  h: { does: 'how high is worth it', run: () => (strip.value = 'height') },
  z: { does: 'closer on the skyline', run: () => (closer.value = !closer.value) },
  c: { does: 'compass, nose, sun', run: () => (compass.value = true) },
  Escape: { does: 'leave picking on the map', run: () => (picking.value = false) },
})
</script>

<template>
  <div class="bearings" :class="{ high: strip === 'height' }">
    <div ref="dialEl" class="dial" :class="{ mapped: view === 'map' }">
      <LazyMapView
        v-if="view === 'map'"
        :masts="masts"
        :selected-id="selected?.mast.id ?? null"
        :picking="picking"
        @pick="id => (picked = id)"
        @place="placed"
      />
      <DrawingView v-else :drawing="dial" label="Dial of bearings" @pick="id => (picked = id)" />
      <button type="button" class="press small turn" data-test="view" @click="view = view === 'dial' ? 'map' : 'dial'">
        {{ view === 'dial' ? 'map' : 'dial' }} <kbd v-if="!small" class="key">V</kbd>
      </button>
    </div>
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
        <button type="button" class="press small" data-test="compass" @click="compass = true">
          {{ dec ? `${num(Math.abs(dec.declinationDeg), 1)}° ${dec.declinationDeg < 0 ? 'W' : 'E'}` : 'compass' }}
        </button>
        <button type="button" class="press small" data-test="seen" @click="seen = true">obstacles nearby</button>
        <button v-if="carriers.length > 1" type="button" class="press small" data-test="sims-beside" @click="beside = true">
          {{ carriers.length === 2 ? 'both SIMs' : `${carriers.length} SIMs` }}
        </button>
        <button
          type="button"
          class="press small desk"
          data-test="import-masts"
          :disabled="!session.mayEdit"
          @click="importing = true"
        >
          masts
        </button>
        <button type="button" class="press small desk" data-test="terrain" :disabled="!session.mayEdit" @click="terrain = true">
          terrain
        </button>
        <button type="button" class="press small" data-test="add-mast" :disabled="!session.mayEdit" @click="adding = true">
          +
        </button>
      </div>
      <p v-if="!place" class="empty">
        The position is missing: give it in <NuxtLink :to="`/job/${store.id}/ask`">Ask</NuxtLink>.
      </p>
      <p v-else-if="!masts.length" class="empty">
        {{
          store.pathsRunning
            ? `Working out the paths… ${store.pathProgress ? `${store.pathProgress.done} of ${store.pathProgress.of}` : ''}`
            : 'No masts within 60 km. Bring a list of masts, or add one by hand.'
        }}
      </p>
      <p v-else-if="!found.length" class="empty soft">No mast near here matches “{{ find }}”.</p>
      <ol ref="listEl" tabindex="0" aria-label="Masts, best first">
        <li v-for="m in listed" :key="m.mast.id" :class="{ on: m.mast.id === selected?.mast.id, other: !m.matchesCarrier }">
          <button type="button" class="mast" :data-test="`mast-${m.mast.name}`" @click="picked = m.mast.id">
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
            @click="choose(m)"
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
    <div class="strip">
      <div class="head no-print">
        <span class="tabs" role="tablist"
          ><button
            v-for="[id, word, key] in [
              ['skyline', 'Skyline', 'S'],
              ['sight', 'Sight line', 'L'],
              ['height', 'How high', 'H'],
            ] as const"
            :key="id"
            type="button"
            role="tab"
            :aria-selected="strip === id"
            :class="{ on: strip === id }"
            :data-test="`strip-${id}`"
            @click="strip = id"
          >
            {{ word }} <kbd v-if="!small" class="key">{{ key }}</kbd>
          </button></span
        >
        <p v-if="pointed" class="pointed fig">{{ pointed }}</p>
        <AimWords v-else-if="selected" :mast="selected" :now="now" />
        <button
          v-if="strip === 'skyline' && !small"
          type="button"
          class="press small"
          :aria-pressed="closer"
          @click="closer = !closer"
        >
          {{ closer ? 'all round' : 'closer' }} <kbd class="key">Z</kbd>
        </button>
        <button
          v-if="strip === 'skyline' && dec"
          type="button"
          class="press small"
          :aria-pressed="prefs.magnetic"
          @click="prefs.magnetic = !prefs.magnetic"
        >
          {{ prefs.magnetic ? 'axis by compass' : 'axis true' }}
        </button>
      </div>
      <div ref="stripEl" class="line" :class="{ roomy: strip === 'height' }" @pointermove="point" @pointerleave="pointed = ''">
        <template v-if="strip === 'skyline'"
          ><DrawingView v-if="skyline" :drawing="skyline" label="Skyline all round, with the masts" @pick="id => (picked = id)" />
          <p v-else class="soft wait">{{ place ? 'Working out the skyline…' : '' }}</p></template
        >
        <DrawingView v-else-if="strip === 'sight' && sight" :drawing="sight" label="Sight line to the mast" />
        <HeightPanel v-else-if="strip === 'height' && selected?.best" :mast="selected" />
        <p v-else class="soft wait">{{ selected && !selected.best ? 'This mast sends no band that the kit covers.' : '' }}</p>
      </div>
    </div>
    <MastImport v-model="importing" />
    <TerrainImport v-model="terrain" />
    <MastByHand v-model="adding" />
    <CompassSheet v-model="compass" :mast="selected" :landmarks="landmarks" />
    <SeenSheet v-model="seen" :spot="spot" @pick="pickPlace" @done="spot = null" />
    <LazySimsSheet v-if="beside" v-model="beside" />
  </div>
</template>

<style scoped>
.bearings {
  height: 100%;
  display: grid;
  grid-template: minmax(0, 1fr) minmax(230px, 37%) / minmax(360px, 42%) 1fr;
}
.bearings.high {
  grid-template-rows: minmax(0, 1fr) 52%;
}
.dial {
  padding: 6px;
  display: flex;
  justify-content: center;
  align-items: center;
  overflow: hidden;
  min-height: 0;
  position: relative;
}
.dial.mapped {
  padding: 0;
}
.turn {
  position: absolute;
  left: 10px;
  bottom: 10px;
}
.mapped .turn {
  bottom: 34px;
  left: 8px;
}
.list {
  border-left: 1px solid var(--mv-line);
  overflow: auto;
  min-height: 0;
}
.bring {
  display: flex;
  gap: 6px;
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
.strip {
  grid-column: 1 / -1;
  border-top: 1px solid var(--mv-ink);
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.head {
  padding: 4px 16px 4px 0;
  font-size: 13px;
  display: flex;
  align-items: center;
  gap: 14px;
}
.tabs {
  display: flex;
  flex: none;
}
.tabs button {
  background: none;
  border: 0;
  border-bottom: 3px solid transparent;
  padding: 6px 12px;
  cursor: pointer;
  white-space: nowrap;
}
.tabs button.on {
  border-color: var(--mv-ink);
  font-weight: 700;
}
.pointed {
  flex: 1;
}
.line {
  flex: 1;
  min-height: 0;
  overflow: hidden;
}
.line.roomy {
  overflow: auto;
}
.wait {
  padding: 18px 20px;
}
.empty {
  padding: 24px 16px;
  font-size: 16px;
}
@media (max-width: 900px) {
  .bearings {
    display: flex;
    flex-direction: column;
    overflow: auto;
  }
  .dial {
    flex: none;
    height: 330px;
  }
  .strip {
    order: 1;
    flex: none;
  }
  .list {
    order: 2;
    border: 0;
    overflow: visible;
    flex: none;
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
  .strip {
    height: 300px;
    border-bottom: 1px solid var(--mv-ink);
  }
  .strip:has(.roomy) {
    height: auto;
  }
  li {
    flex-wrap: wrap;
  }
  .turn,
  .mapped .turn {
    left: auto;
    right: 10px;
    bottom: auto;
    top: 10px;
  }
  .bring {
    flex-wrap: wrap;
    position: static;
  }
  .find {
    flex: 1;
    min-height: 44px;
  }
  .head {
    flex-wrap: wrap;
    gap: 4px 8px;
    padding: 4px 8px;
  }
  .head > :deep(.aim-words),
  .pointed {
    order: 3;
    flex: 1 0 100%;
    padding: 0 6px 4px;
  }
  .tabs button {
    min-height: 48px;
  }
  .means {
    flex: none;
  }
}
@media (max-width: 640px) {
  .desk {
    display: none;
  }
}
</style>
