<script setup lang="ts">
import { lastOf, sure } from '#core/sure'
import { proxy } from 'comlink'
import { nowUtc } from '~/replica/clock'
import { ENOUGH } from '#core/coverage'
import type { FloorCoverage } from '#core/coverage'
import type { Place } from '#core/solve'
import type { MaterialId } from '#core/job'
import { partById } from '#core/catalogue'
import { antennasByRule, looseSteps } from '#core/fitting'
import { floorsOf, MATERIALS } from '#core/site'
import { num } from '#core/units'

/** What a phone shows all over a floor: short places hatched, figures where they hold; rooms with their share. */
const store = useOpened()
const session = useSession()
const { engine } = useEngine()
const floors = computed(() => floorsOf(store.here))
const level = ref(0)
/** coarse first, then fine */
const STEPS_M = [1, 0.25]
const {
  answer: cover,
  failed,
  working,
} = useAsked<FloorCoverage | null>(
  [() => store.doc, level, () => store.pathsRunning],
  tell => engine.coverage(toRaw(store.doc), nowUtc(), { level: level.value, stepsM: STEPS_M }, proxy(tell)),
  120,
)
const progress = computed(() => {
  if (working.value) return cover.value?.level === level.value ? 'finer…' : 'coarse…'
  return cover.value ? `to ${num(cover.value.map.stepM, 2)} m` : ''
})

const most = ref(3)
const places = shallowRef<Place[] | null>(null)
const searching = ref(false)
async function propose() {
  searching.value = true
  try {
    places.value = await engine.places(toRaw(store.doc), level.value, most.value, nowUtc())
    if (!places.value) failed.value = 'An amplifier at work is needed before places can be proposed.'
  } catch (e) {
    failed.value = messageOf(e)
  }
  searching.value = false
}
watch(level, () => (places.value = null))
const { doing, once } = useOnce()
/** domes are put there; the even-out of Level then hangs them on splitters and taps */
const putThere = () =>
  once(async () => {
    const dome = store.result.tree?.servers.find(s => s.part.shape === 'dome')?.part ?? sure(partById('ant-dome'))
    const steps = (places.value ?? []).flatMap((p, i) =>
      looseSteps(store.variant, dome, p).map(s => ({ ...s, rowId: `${s.rowId}-${i}` })),
    )
    await store.commitSteps(steps, 'antennas at the places proposed')
    places.value = null
  })

const rule = computed(() => antennasByRule(store.site, floors.value[level.value]?.use ?? 'home'))
const byRule = computed(() => {
  const { least, most } = rule.value
  return least === most ? num(least) : `${num(least)} to ${num(most)}`
})
/** what the sum and the rule leave out, said where they differ */
const bySum = computed(() => {
  const found = places.value
  if (!found?.length) return ''
  const reached = lastOf(found).share
  const share = percent(reached)
  if (reached < ENOUGH)
    return `By the sum ${num(found.length)} serve ${share}: not enough yet. Allow more of them, or feed them more.`
  if (found.length >= rule.value.least) return `By the sum ${num(found.length)} serve ${share}: both agree.`
  return (
    `By the sum ${num(found.length)} serve ${share}, fewer than by the rule: it knows the walls that are drawn, not shelves, ` +
    'people and shut doors. Take the rule where the floor is furnished.'
  )
})
const drawing = ref(false)
const material = ref<MaterialId>('plasterboard')
const WALLS: MaterialId[] = [
  'plasterboard',
  'timber',
  'brick',
  'block',
  'concrete',
  'reinforced concrete',
  'glass',
  'coated glass',
  'foil',
  'sheet metal',
]
const addWall = (from: { eastM: number; northM: number }, to: { eastM: number; northM: number }) => {
  if (Math.hypot(from.eastM - to.eastM, from.northM - to.northM) < 0.2) return
  void store.commit(
    [
      {
        table: 'walls',
        op: 'insert',
        fields: {
          level: level.value,
          fromEastM: from.eastM,
          fromNorthM: from.northM,
          toEastM: to.eastM,
          toNorthM: to.northM,
          material: material.value,
          lossDb: null,
        },
      },
    ],
    'an inside wall',
  )
}
const walls = computed(() => store.doc.walls.filter(w => w.level === level.value))
const planning = ref(false)
const setPeople = (id: string) => (people: number | null) =>
  store.commit([{ table: 'spots', op: 'update', rowId: id, fields: { people } }], 'people in a room')
const floorName = (f: { level: number; name: string | null }) => f.name ?? (f.level === 0 ? 'ground' : `floor ${f.level}`)
/** one level where all its rooms need the same */
const levelWords = computed(() => {
  const needs = new Set(cover.value?.rooms.map(r => r.needDbm))
  return needs.size > 1 ? 'above what each room needs' : `above ${num([...needs][0] ?? cover.value!.needDbm)} dBm RSRP`
})
const percent = (v: number) => `${num(100 * v)} %`
</script>

<template>
  <div class="coverage">
    <div class="map">
      <div class="floors" role="radiogroup" aria-label="Floor">
        <button
          v-for="f in [...floors].reverse()"
          :key="f.level"
          type="button"
          role="radio"
          :aria-checked="level === f.level"
          :class="{ on: level === f.level }"
          @click="level = f.level"
        >
          {{ floorName(f) }}
        </button>
      </div>
      <PlanPane
        class="pane"
        :level="level"
        :coverage="cover"
        :proposed="places ?? undefined"
        :drawing="drawing"
        @wall="addWall"
      />
    </div>
    <aside>
      <h2>
        <template v-if="cover"
          ><b class="fig">{{ percent(cover.share) }}</b> {{ levelWords }}</template
        >
        <template v-else>Coverage of the floor</template>
        <small class="soft" role="status" data-test="coverage-state">{{ progress }}</small>
      </h2>
      <p v-if="failed" class="error" role="alert">{{ failed }}</p>
      <p v-if="!cover && !working && !failed" class="soft">
        Nothing is sent here yet: an amplifier with inside antennas, and a reading or a mast on its band, come first.
      </p>
      <p v-if="cover" class="legendline soft">
        <svg width="26" height="12" aria-hidden="true">
          <path d="M2 10L10 2M12 10L20 2" stroke="var(--mv-short)" stroke-width="1.2" />
        </svg>
        short
        <svg width="20" height="12" aria-hidden="true"><path d="M5 8L8 5M13 8L16 5" stroke="var(--mv-soft)" /></svg> up to 10 dB
        over · white: well served
      </p>
      <table v-if="cover" data-test="room-shares">
        <thead>
          <tr>
            <th scope="col">room</th>
            <th scope="col">people</th>
            <th scope="col" class="r" title="level it is designed for, dBm RSRP">needs</th>
            <th scope="col" class="r">served</th>
            <th scope="col" class="r" title="median and weakest tenth of the room, RSRP">dBm</th>
            <th scope="col" class="r" title="ITU-R P.1238, whose exponent already holds the walls: a check, never added">
              check
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in cover.rooms" :key="r.spot.id">
            <td>{{ r.spot.name }}</td>
            <td>
              <MvNumber
                label="people"
                unit=""
                :value="store.doc.spots.find(s => s.id === r.spot.id)?.people ?? null"
                :hint="r.spot.people === null ? undefined : num(r.spot.people)"
                :low="0"
                :high="10000"
                :decimals="0"
                :save="setPeople(r.spot.id)"
              />
            </td>
            <td class="r fig soft">{{ num(r.needDbm) }}</td>
            <td class="r fig" :class="{ short: r.share < 0.95 }">{{ percent(r.share) }}</td>
            <td class="r fig">
              {{ num(r.medianDbm) }} <small class="soft">{{ num(r.tenthDbm) }}</small>
            </td>
            <td class="r fig soft">
              {{ r.measuredDbm !== null ? `${num(r.measuredDbm)} read` : r.checkDbm !== null ? num(r.checkDbm) : '–' }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="cover" class="soft small">
        {{
          cover.correctionDb !== null
            ? `Corrected by ${num(cover.correctionDb, 1)} dB, as its rooms read with the booster on.`
            : 'Not yet measured: one room read with the booster on corrects it.'
        }}
        {{ cover.drawn ? '' : 'No inside walls are drawn on this floor: their loss is within P.1238’s exponent.' }}
      </p>
      <fieldset :disabled="!session.mayEdit">
        <legend>
          Inside walls <small class="soft">{{ walls.length }} on this floor</small>
        </legend>
        <MvChoice
          :value="material"
          :save="v => (material = v)"
          label="of"
          :choices="WALLS.map(m => ({ value: m, title: MATERIALS[m].words }))"
          data-test="draw-material"
        />
        <div class="acts">
          <button type="button" class="press small" :aria-pressed="drawing" data-test="draw-walls" @click="drawing = !drawing">
            {{ drawing ? 'done' : 'draw walls' }}
          </button>
          <button type="button" class="press small" data-test="floor-plan" @click="planning = true">floor plan…</button>
        </div>
        <small v-if="drawing" class="soft"
          >Press from corner to corner; Alt leaves the square, Esc lifts the pencil, undo takes one back.</small
        >
      </fieldset>
      <fieldset :disabled="!session.mayEdit">
        <legend>Where antennas would serve it best</legend>
        <div class="acts">
          <MvChoice :value="most" :save="v => (most = v)" label="at most" :choices="[1, 2, 3, 4, 6, 8]" />
          <button type="button" class="press small" :disabled="searching" data-test="propose-places" @click="propose">
            {{ searching ? 'searching…' : 'propose places' }}
          </button>
        </div>
        <small class="soft"
          >By the rule {{ byRule }} ceiling antenna{{ byRule === '1' ? '' : 's' }}: one for 110 to 140 m² among ordinary walls,
          the closer the higher the level wanted; corridor crossings reach furthest (common practice).
          {{ bySum || 'By the sum: propose.' }}</small
        >
        <ol v-if="places?.length" data-test="places">
          <li v-for="(p, i) in places" :key="i">
            {{ i ? 'and' : '' }} place {{ i + 1 }}: <b class="fig">{{ percent(p.share) }}</b> served
          </li>
        </ol>
        <button v-if="places?.length" type="button" class="press small" :disabled="doing" data-test="put-there" @click="putThere">
          put {{ places.length === 1 ? 'a dome' : `${places.length} domes` }} there
        </button>
      </fieldset>
    </aside>
    <LazyFloorPlanSheet v-if="planning" v-model="planning" :level="level" />
  </div>
</template>

<style scoped>
.coverage {
  display: grid;
  grid-template-columns: 1fr 388px;
  height: 100%;
  min-height: 0;
}
.map {
  position: relative;
  min-height: 0;
  background: var(--mv-paper);
}
.pane {
  height: 100%;
  margin-left: 104px;
}
.floors {
  position: absolute;
  left: 12px;
  top: 10px;
  display: flex;
  flex-direction: column;
  z-index: 1;
}
.floors button {
  background: var(--mv-sheet);
  border: 1px solid var(--mv-line);
  border-bottom-width: 0;
  min-height: 30px;
  padding: 2px 12px;
  text-align: left;
  cursor: pointer;
}
.floors button:last-child {
  border-bottom: 3px solid var(--mv-ink);
}
.floors button.on {
  background: var(--mv-ink);
  color: var(--mv-sheet);
  font-weight: 700;
}
aside {
  border-left: 1px solid var(--mv-line);
  padding: 12px 16px;
  overflow: auto;
}
h2 {
  font-size: 16px;
}
h2 b {
  font-size: 24px;
}
h2 small {
  font-weight: 400;
  padding-left: 6px;
}
.legendline {
  font-size: 12.5px;
  display: flex;
  gap: 6px;
  align-items: center;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 13.5px;
}
th {
  text-align: left;
  font-weight: 400;
  font-size: 12px;
  color: var(--mv-soft);
}
td {
  border-top: 1px solid var(--mv-line);
  padding: 7px 4px 3px 0;
}
td :deep(.v-input) {
  width: 74px;
}
.r {
  text-align: right;
}
.short {
  color: var(--mv-short);
  font-weight: 700;
}
.small {
  font-size: 12.5px;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--mv-line);
  padding: 10px 0;
  display: grid;
  gap: 8px;
}
legend {
  font-weight: 700;
  padding-top: 8px;
  float: left;
}
legend + * {
  clear: both;
}
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
}
ol {
  margin: 0;
  padding-left: 18px;
}
@media (max-width: 900px) {
  .coverage {
    grid-template-columns: 1fr;
    grid-template-rows: 46vh auto;
    overflow: auto;
  }
  .press,
  .floors button {
    min-height: 44px;
  }
}
</style>
