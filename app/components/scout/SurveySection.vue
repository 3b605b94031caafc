<script setup lang="ts">
import { nth } from '#core/sure'
import { setField, STATIONS, USES } from '#core/job'
import type { Fields, SpeedRun, Station } from '#core/job'
import { layoutSection, numbered } from '#core/drawing'
import { moveAlong, needAtDbm, placeForSpot, round2, USE_FIGURES, usualUse } from '#core/site'
import type { Point } from '#core/site'
import { bestSpot, correctionOf, presentStop, setupWords, stationWords } from '#core/survey'
import type { Made, SetUp, StationState } from '#core/survey'
import { countWords, spanWords, wordsOfDrill } from '#core/prove'
import { GRADE_SOURCE } from '#core/radio'
import { mbps, num } from '#core/units'

/** Readings on the house: each spot with what was read there, one of them the baseline. */
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const route = useRoute()
const { el, width, height } = useWidth()
const picked = ref<string>((route.query.spot as string) || store.job.baselineSpotId || store.doc.spots[0]?.id || '')
const spot = computed(() => store.doc.spots.find(s => s.id === picked.value) ?? store.doc.spots[0])
const summaries = computed(() => store.result.before)
const mine = computed(() => summaries.value.find(s => s.spot.id === spot.value?.id))
const small = computed(() => width.value < 620)
const view = computed(() =>
  width.value
    ? layoutSection(store.doc, store.result, {
        width: width.value,
        height: Math.max(220, height.value),
        units: prefs.units,
        levels: false,
        compact: small.value,
        badges: badge,
      })
    : null,
)
const { unit, factor } = useLengths()
const set = (field: keyof Fields<'spots'>) => (v: unknown) =>
  store.commit([setField('spots', spot.value!.id, field, v)], `a spot’s ${fieldWord(field)}`)
const badge = (id: string) => {
  const s = summaries.value.find(x => x.spot.id === id)
  if (!s?.readings.length && !s?.runs.length) return []
  const parts = [
    s.rsrp ? num(s.rsrp.median) : '',
    s.sinr ? `${num(s.sinr.median)} dB` : '',
    s.down ? `${mbps(s.down.median)}↓` : '',
  ]
  return parts.filter(Boolean)
}
const best = computed(() => bestSpot(summaries.value, mine.value?.band ?? null))
const photos = usePhotos()
const shots = computed(() => numbered(store.doc).filter(p => p.spotId === spot.value?.id))
function bring(e: Event) {
  const input = e.target as HTMLInputElement
  void photos.add(input.files, { spotId: spot.value!.id }).then(() => (input.value = ''))
}
const stop = computed(() => presentStop(store.doc))
/** All that was read here, of the finished work too: one place to take back what was mistyped. */
const log = computed(() =>
  [
    ...store
      .log!.readings.filter(r => r.spotId === spot.value?.id)
      .map(r => ({
        id: r.id,
        table: 'readings' as const,
        at: r.takenAtUtc,
        row: r,
        text: `${r.band ?? r.technology} ${r.rsrpDbm !== null ? `${num(r.rsrpDbm)} dBm` : ''}`,
        rest:
          `${r.sinrDb !== null ? `SINR ${num(r.sinrDb)}` : ''} ${r.rsrqDb !== null ? `RSRQ ${num(r.rsrqDb)}` : ''} ` +
          `${r.cellId ? `cell ${r.cellId}` : ''} ${r.carrierRole === 'anchor' ? '' : r.carrierRole} ${withWords(r.setup)}`,
      })),
    ...store
      .log!.calls.filter(r => r.spotId === spot.value?.id)
      .map(r => ({
        id: r.id,
        table: 'calls' as const,
        at: r.takenAtUtc,
        row: r,
        text: r.dropped ? 'call dropped' : r.heard ? 'call held' : r.made ? 'call not heard' : 'no call made',
        rest: withWords(r.setup),
      })),
    ...store
      .log!.watches.filter(r => r.spotId === spot.value?.id)
      .map(r => ({
        id: r.id,
        table: 'watches' as const,
        at: r.takenAtUtc,
        row: r,
        text: r.kind === 'drill' ? 'failover drill' : countWords(r.drops),
        rest: `${r.kind === 'drill' ? wordsOfDrill(r) : `in ${spanWords(r.seconds)}`} ${withWords(r.setup)}`,
      })),
    ...[...store.log.runs, ...store.log.doubted]
      .filter(r => r.spotId === spot.value?.id)
      .map(r => ({
        id: r.id,
        table: 'speedRuns' as const,
        at: r.takenAtUtc,
        row: r,
        text: r.wouldNotLoad ? 'would not load' : `${mbps(r.downMbps ?? 0)} down`,
        rest: restOf(r),
      })),
  ].sort((a, b) => b.at.localeCompare(a.at)),
)
function restOf(r: Made<SpeedRun>): string {
  if (r.wouldNotLoad) return ''
  if (r.doubted) return 'went another way than the set-up’s earlier tests: counts in no median'
  const up = r.upMbps !== null ? `${mbps(r.upMbps)} up` : ''
  return `${up} ${r.pingMs !== null ? `${num(r.pingMs)} ms` : ''} ${withWords(r.setup)}`
}
/** said only where there is more than one to tell apart */
const withWords = (s: SetUp | null): string => (s && store.doc.setups.length > 1 ? setupWords(s) : '')
const withdraw = ({ table, row }: (typeof log.value)[number]) =>
  store.commit([correctionOf(table, row, { withdrawn: true })], 'withdraw a reading')
const moving = ref(false)
const editor = ref<HTMLDetailsElement | null>(null)
const arm = (indoors: boolean, station: StationState | null = null) => (placing.value = { indoors, station })
/** a new spot waits for its place to be pressed on the picture */
const placing = ref<{ indoors: boolean; station: StationState | null } | null>(null)
const WALKED: Record<Station, string> = {
  device: 'At the device',
  corner: 'Corner',
  window: 'Window',
  outside: 'Outside',
  high: 'High up',
  donor: 'Best inside',
}
function place(e: MouseEvent) {
  const p = placing.value
  if (!p || !view.value) return
  const r = (e.currentTarget as HTMLElement).getBoundingClientRect()
  const here = { eastM: 0, northM: 0, upM: round2(Math.max(0, view.value.toUp(e.clientY - r.top))) }
  const at = { ...here, ...moveAlong(store.site, here, view.value.toAlong(e.clientX - r.left), view.value.sign) }
  void addSpot(p.indoors, p.station, at)
}
useKeys({ Escape: { does: 'no new spot', run: () => (placing.value = null) } })
async function addSpot(indoors: boolean, station: StationState | null = null, at: Point | null = null) {
  placing.value = null
  const { spots } = store.doc
  const before = new Set(spots.map(s => s.id))
  const called = station ? WALKED[station.station] : indoors ? 'Room' : 'Outside'
  const alike = spots.filter(s => s.name.startsWith(called)).length
  await store.commit(
    [
      {
        table: 'spots',
        op: 'insert',
        fields: {
          name: alike ? `${called} ${alike + 1}` : called,
          // On the floor that is looked at.
          ...(at ??
            placeForSpot(store.result.floors, store.site, {
              spots,
              indoors,
              upM: spot.value?.indoors ? spot.value.upM : 0,
            })),
          indoors,
          needed: false,
          people: null,
          use: null,
          needDbm: null,
          hangs: null,
          station: station?.station ?? null,
          note: null,
        },
      },
    ],
    'add a spot',
  )
  picked.value = store.doc.spots.find(s => !before.has(s.id))?.id ?? picked.value
  // What it is called comes next.
  if (editor.value) editor.value.open = true
}
const used = computed(
  () =>
    [...store.doc.readings, ...store.doc.speedRuns, ...store.doc.calls, ...store.doc.watches].some(
      r => r.spotId === spot.value?.id,
    ) || store.job.baselineSpotId === spot.value?.id,
)
async function removeSpot() {
  if (spot.value && !used.value) await store.commit([{ table: 'spots', op: 'delete', rowId: spot.value.id }], 'remove a spot')
}
const baseline = () =>
  store.commit([{ table: 'jobs', op: 'update', rowId: store.job.id, fields: { baselineSpotId: spot.value!.id } }], 'baseline')
const { drag, start } = useDragging<string>((id, x, y) => {
  const s = store.doc.spots.find(x => x.id === id)
  if (s && view.value)
    void store.commit(
      [
        {
          table: 'spots',
          op: 'update',
          rowId: id,
          fields: {
            ...moveAlong(store.site, s, view.value.toAlong(x), view.value.sign),
            upM: round2(Math.max(0, view.value.toUp(y))),
          },
        },
      ],
      'move a spot',
    )
})
const spread = (s: { median: number; low: number; high: number; count: number } | null | undefined, decimals = 0) =>
  s ? `${num(s.median, decimals)}${s.count > 1 ? ` (${num(s.low, decimals)}…${num(s.high, decimals)})` : ''}` : '–'
const time = (iso: string) =>
  new Date(iso).toLocaleString(undefined, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', hour12: false })
function step(by: number) {
  const list = store.doc.spots
  const i = list.findIndex(s => s.id === spot.value?.id)
  picked.value = nth(list, (i + by + list.length) % list.length).id
}
useKeys({
  ArrowRight: { does: 'next spot', run: () => step(1) },
  ArrowLeft: { does: 'spot before', run: () => step(-1) },
  a: { does: 'add a spot outside', run: () => addSpot(false) },
})
</script>

<template>
  <div class="survey">
    <div ref="el" class="picture" :class="{ placing }" data-test="survey-picture" @click="place">
      <p v-if="placing" class="placing-words" role="status">
        Press where {{ placing.station ? stationWords(placing.station.station) : placing.indoors ? 'the room' : 'the spot' }} is
        <button
          type="button"
          class="press small"
          data-test="place-anywhere"
          @click.stop="addSpot(placing.indoors, placing.station)"
        >
          place it later
        </button>
        <button type="button" class="press small bare" @click.stop="placing = null">no</button>
      </p>
      <DrawingView v-if="view" :drawing="view.drawing" label="Section of the house with the spots read">
        <template v-for="h in view.handles" :key="h.id">
          <g
            v-if="h.kind === 'spot'"
            class="spot"
            :class="{ on: h.id === spot?.id }"
            role="button"
            tabindex="0"
            :aria-label="`${h.label}: ${badge(h.id).join(', ') || 'nothing read'}`"
            @click="picked = h.id"
            @keydown.enter="picked = h.id"
            @pointerdown="e => start(h.id, e)"
          >
            <circle :cx="drag?.what === h.id ? drag.x : h.x" :cy="drag?.what === h.id ? drag.y : h.y" r="18" fill="transparent" />
            <circle
              v-if="h.id === spot?.id"
              :cx="drag?.what === h.id ? drag.x : h.x"
              :cy="drag?.what === h.id ? drag.y : h.y"
              r="8"
              fill="var(--mv-ink)"
            />
          </g>
        </template>
      </DrawingView>
      <div class="adders">
        <button type="button" class="press small" :disabled="!session.mayEdit" @click.stop="arm(true)">+ room</button
        ><button type="button" class="press small" :disabled="!session.mayEdit" @click.stop="arm(false)">+ outside</button>
      </div>
    </div>
    <div v-if="spot" class="desk">
      <div class="enter">
        <WalkStrip class="walked" :spot-id="spot.id" @go="id => (picked = id)" @add="s => arm(s.indoors, s)" />
        <header>
          <button type="button" class="press small bare roof" aria-label="Spot before" @click="step(-1)">‹</button>
          <h2>{{ spot.name }}</h2>
          <span v-if="store.job.baselineSpotId === spot.id" class="tag">baseline</span>
          <button v-else type="button" class="press small" :disabled="!session.mayEdit" @click="baseline">
            make it the baseline
          </button>
          <button type="button" class="press small bare roof" aria-label="Next spot" @click="step(1)">›</button>
          <dl class="fig">
            <div>
              <dt>RSRP</dt>
              <dd>
                {{ spread(mine?.rsrp)
                }}<small v-if="mine?.grade">
                  {{ '▮'.repeat(mine.grade.steps) }}{{ '▯'.repeat(5 - mine.grade.steps) }} {{ mine.grade.id }}</small
                >
              </dd>
            </div>
            <div>
              <dt>SINR</dt>
              <dd>{{ spread(mine?.sinr) }}</dd>
            </div>
            <div>
              <dt>down</dt>
              <dd>{{ spread(mine?.down, 1) }}</dd>
            </div>
            <div>
              <dt>up</dt>
              <dd>{{ spread(mine?.up, 1) }}</dd>
            </div>
          </dl>
        </header>
        <ReadingEntry v-if="session.mayEdit" :spot-id="spot.id" />
        <div class="at">
          <label class="press small"
            >photograph<input
              type="file"
              accept="image/*"
              capture="environment"
              multiple
              :disabled="!session.mayEdit || photos.busy.value"
              data-test="spot-photo"
              @change="bring"
          /></label>
          <label class="press small bare"
            >from the gallery<input
              type="file"
              accept="image/*"
              multiple
              :disabled="!session.mayEdit"
              data-test="spot-gallery"
              @change="bring"
          /></label>
          <PhotoThumb v-for="p in shots" :key="p.id" :photo="p" class="small" />
          <span v-if="photos.busy.value" class="soft" role="status">keeping…</span>
          <p v-if="photos.error.value" class="error" role="alert">{{ photos.error.value }}</p>
        </div>
        <p v-if="best" class="best" data-test="best-spot">
          Best so far: <b>{{ best.best.spot.name }}</b>, {{ best.quantity }} {{ num(best.byDb, 1) }} dB over
          {{ best.next.spot.name }}{{ best.beyondNoise ? '' : ': that may be chance, read both again' }}
        </p>
        <p class="soft tip">
          About 30 s at each spot, three times: the median counts, the spread is kept. Grades are {{ GRADE_SOURCE }}.
        </p>
      </div>
      <div class="side">
        <div class="roofadders">
          <button type="button" class="press" :disabled="!session.mayEdit" data-test="roof-room" @click="arm(true)">+ room</button
          ><button type="button" class="press" :disabled="!session.mayEdit" data-test="roof-outside" @click="arm(false)">
            + spot outside
          </button>
        </div>
        <details ref="editor" class="edit">
          <summary>the spot itself</summary>
          <div class="grid">
            <MvText label="Name" required :value="spot.name" :save="set('name')" />
            <MvNumber
              label="Height over ground"
              :unit="unit"
              :factor="factor"
              :value="spot.upM"
              :low="-20"
              :high="100"
              required
              :save="set('upM')"
            />
            <v-checkbox :model-value="spot.indoors" label="Indoors" @update:model-value="v => set('indoors')(!!v)" />
            <MvChoice
              :value="spot.station"
              :choices="[
                { value: null, title: 'none of the walk' },
                ...STATIONS.map(s => ({ value: s, title: stationWords(s) })),
              ]"
              label="Place of the walk"
              data-test="station"
              :save="set('station')"
            />
            <MvText label="Note" :value="spot.note" data-test="spot-note" :save="set('note')" />
            <v-checkbox :model-value="spot.needed" label="Must be proved here" @update:model-value="v => set('needed')(!!v)" />
            <MvText
              label="What hangs there on today’s Wi-Fi or wire"
              :value="spot.hangs"
              data-test="spot-hangs"
              :save="set('hangs')"
            />
            <MvNumber
              v-if="spot.indoors"
              label="People there"
              unit=""
              :value="spot.people"
              :low="0"
              :high="10000"
              :decimals="0"
              :save="set('people')"
            />
            <template v-if="spot.indoors">
              <MvChoice
                :value="spot.use"
                :choices="[
                  { value: null, title: `as usual here: ${USE_FIGURES[usualUse(store.job.kind)].words}` },
                  ...USES.map(u => ({ value: u, title: USE_FIGURES[u].words })),
                ]"
                label="Used as"
                data-test="room-use"
                :save="set('use')"
              />
              <MvNumber
                label="Level designed for"
                unit="dBm RSRP"
                :value="spot.needDbm"
                :low="-140"
                :high="-40"
                negative
                :hint="num(needAtDbm(store.job, { use: spot.use, needDbm: null }))"
                :save="set('needDbm')"
              />
            </template>
            <button v-if="!used" type="button" class="press small" @click="removeSpot">remove</button>
          </div>
        </details>
        <p v-if="spot.note" class="note">{{ spot.note }}</p>
        <TriedRanking :spot-id="spot.id" />
        <p v-if="!log.length" class="soft">Nothing read here yet{{ stop ? `, at ${stop.name}` : '' }}.</p>
        <ul>
          <li v-for="e in log" :key="e.id">
            <span class="soft">{{ time(e.at) }}</span><b class="fig">{{ e.text }}</b
            ><span class="soft"><template v-if="e.row.phase === 'after'">after · </template>{{ e.rest }}</span
            ><button type="button" class="tiny" :aria-label="`Withdraw ${e.text}`" @click="withdraw(e)">withdraw</button>
          </li>
        </ul>
        <button
          v-if="log.length && store.doc.setups.length > 1 && session.mayEdit"
          type="button"
          class="press small"
          data-test="move-readings"
          @click="moving = true"
        >
          made with another set-up…
        </button>
        <LazyMoveReadings v-if="moving" v-model="moving" :spot-id="spot.id" :spot-name="spot.name" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.survey {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.picture {
  flex: 1;
  min-height: 0;
  position: relative;
  overflow: hidden;
}
.placing {
  cursor: crosshair;
}
.placing .spot {
  pointer-events: none;
}
.placing-words {
  position: absolute;
  left: 20px;
  top: 12px;
  z-index: 1;
  display: flex;
  gap: 8px;
  align-items: center;
  background: var(--mv-sheet);
  border: 1px solid var(--mv-ink);
  padding: 4px 10px;
  font-weight: 600;
}
.at {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
  margin: 8px 0;
}
.at input {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
.at .press {
  position: relative;
  cursor: pointer;
}
.at .press:focus-within {
  outline: 2px solid var(--mv-computed);
}
.at .thumb {
  width: 74px;
  height: 56px;
}
.note {
  border-left: 3px solid var(--mv-line);
  padding-left: 8px;
}
.adders {
  position: absolute;
  right: 14px;
  top: 12px;
  display: flex;
  gap: 6px;
}
.spot {
  cursor: pointer;
}
.spot:focus-visible {
  outline: none;
}
.spot:focus-visible circle {
  stroke: var(--mv-computed);
  stroke-width: 2;
}
.desk {
  display: grid;
  grid-template-columns: 1.7fr 1fr;
  border-top: 1px solid var(--mv-ink);
  height: 50%;
  min-height: 230px;
}
.enter {
  padding: 10px 20px;
  border-right: 1px solid var(--mv-line);
  overflow: auto;
}
header {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 10px;
  flex-wrap: wrap;
}
.roof {
  display: none;
}
.tag {
  border: 1px solid var(--mv-ink);
  padding: 1px 8px;
  font-weight: 600;
  font-size: 12.5px;
}
dl {
  display: flex;
  gap: 22px;
  margin: 0;
  width: 100%;
  white-space: nowrap;
  font-size: 13px;
}
dl div {
  display: flex;
  gap: 6px;
}
dt {
  color: var(--mv-soft);
}
dd {
  margin: 0;
  font-weight: 600;
}
dd small {
  font-weight: 400;
  font-size: 12px;
  letter-spacing: 0;
}
.side {
  padding: 10px 16px;
  overflow: auto;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: grid;
  grid-template-columns: 96px 112px 1fr auto;
  gap: 8px;
  padding: 4px 0;
  border-bottom: 1px solid var(--mv-line);
  font-size: 12.5px;
  align-items: baseline;
}
li b {
  font-size: 13.5px;
}
.tiny {
  background: none;
  border: 0;
  text-decoration: underline;
  color: var(--mv-soft);
  cursor: pointer;
  font-size: 12.5px;
  padding: 2px;
}
.tip {
  font-size: 12.5px;
  margin-top: 8px;
}
summary {
  cursor: pointer;
  padding: 2px 0 6px;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin-bottom: 8px;
}
.roofadders {
  display: none;
}
@media (max-width: 900px) {
  .survey {
    overflow: auto;
    display: block;
  }
  .picture {
    display: none;
  }
  .picture.placing {
    display: block;
    height: 62vh;
    border-bottom: 1px solid var(--mv-ink);
  }
  .at .press.small {
    min-height: 56px;
    display: flex;
    align-items: center;
  }
  .adders {
    display: none;
  }
  .roofadders {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 8px;
    padding-bottom: 10px;
  }
  .desk {
    display: block;
    max-height: none;
  }
  .enter {
    border: 0;
    padding: 2px 14px 8px;
    overflow: visible;
  }
  header {
    margin-bottom: 2px;
  }
  .roof {
    display: block;
    font-size: 26px;
    padding: 0 18px;
    min-height: 40px;
  }
  h2 {
    flex: 1;
    text-align: center;
  }
  dl {
    display: none;
  }
  .enter {
    display: flex;
    flex-direction: column;
  }
  .walked {
    order: 1;
    padding-top: 10px;
  }
  .tip {
    display: none;
  }
}
</style>
