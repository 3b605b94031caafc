<script setup lang="ts">
import { nth, sure } from '#core/sure'
import {
  compassToMagnetic,
  deviationFrom,
  deviationOf,
  deviationSeen,
  fitDeviation,
  magneticToCompass,
  magneticToTrue,
  MOST_DEVIATION_DEG,
  normalise360,
  sunPosition,
  trueToMagnetic,
} from '#core/geo'
import type { CardEntry } from '#core/geo'
import { fixedBeamOver, sayRelative } from '#core/aim'
import type { MastView } from '#core/masts'
import { moves, NINE_IN_TEN, presentStop } from '#core/survey'
import { parseNumber } from '#core/formats'
import { bearing, num } from '#core/units'

/** Declination, the heading of nose or bow in whatever is at hand, the deviation card, and swinging for it. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ mast: MastView | null; landmarks: { id: string; name: string; bearingDeg: number }[] }>()
const store = useOpened()
const session = useSession()
const site = computed(() => store.site)
const dec = computed(() => store.result.declination)
const moving = computed(() => moves(store.doc))
const bow = computed(() => (store.job.kind === 'boat' ? 'bow' : 'nose'))
const card = computed<CardEntry[]>(() => site.value.deviation ?? [])
const stop = computed(() => presentStop(store.doc))

const reference = ref<'compass' | 'magnetic' | 'true'>('compass')
const toTrue = (deg: number): number => {
  const d = dec.value?.declinationDeg ?? 0
  return reference.value === 'true'
    ? deg
    : magneticToTrue(reference.value === 'compass' ? compassToMagnetic(deg, card.value) : deg, d)
}
const shownHeading = computed(() => {
  const h = site.value.headingDeg
  if (h === null) return null
  if (reference.value === 'true') return h
  const magnetic = trueToMagnetic(h, dec.value?.declinationDeg ?? 0)
  return reference.value === 'magnetic' ? magnetic : magneticToCompass(magnetic, card.value)
})
async function set(fields: Record<string, unknown>, label: string) {
  return stop.value && !('deviation' in fields)
    ? store.commit([{ table: 'stops', op: 'update', rowId: stop.value.id, fields }], label)
    : store.commit([{ table: 'sites', op: 'update', rowId: site.value.id, fields }], label)
}
const saveHeading = (v: number | null) =>
  set({ headingDeg: v === null ? null : (Math.round(toTrue(v) * 10) / 10) % 360 }, 'heading')
const saveSwing = (v: number | null) => set({ swingDeg: v ?? 0 }, 'swing')
const verdict = computed(() => {
  const pattern = store.result.levels?.sources[0]?.turned.pattern
  return pattern && site.value.swingDeg > 0 ? fixedBeamOver(site.value.swingDeg, pattern) : null
})

// Swinging: on each heading, what the compass shows of a thing whose bearing is known.
const by = ref<string>('sun')
const steer = ref('')
const look = ref('')
const looks = ref<CardEntry[]>([])
const swingError = ref('')
const thing = computed(() => {
  if (by.value === 'sun') {
    if (site.value.latDeg === null || site.value.lonDeg === null) return null
    const s = sunPosition({ latDeg: site.value.latDeg, lonDeg: site.value.lonDeg }, now.value)
    return s.altitudeDeg > 1 && s.altitudeDeg < 60 ? { trueDeg: s.azimuthDeg } : null
  }
  const l = props.landmarks.find(x => x.id === by.value)
  return l ? { trueDeg: l.bearingDeg } : null
})
const now = useNow({ interval: 5000 })
const fit = computed(() => {
  try {
    return fitDeviation(looks.value)
  } catch {
    return null
  }
})
function keepLook() {
  swingError.value = ''
  try {
    const s = parseNumber(steer.value)
    const l = parseNumber(look.value)
    if (s === null || l === null || s < 0 || s > 360 || l < 0 || l > 360)
      throw new RangeError('both are compass degrees, 0 to 360')
    if (!thing.value) throw new RangeError('the sun is too low or too high to swing by: take a landmark')
    if (!dec.value) throw new RangeError('no declination for this place and date')
    const d = deviationSeen(l, trueToMagnetic(thing.value.trueDeg, dec.value.declinationDeg))
    if (Math.abs(d) > MOST_DEVIATION_DEG)
      throw new RangeError(`that would be a deviation of ${num(d)}°: is it the right thing, and the right way round?`)
    looks.value = [
      ...looks.value.filter(x => Math.abs(x.headingDeg - s) > 1),
      { headingDeg: normalise360(s), deviationDeg: Math.round(d * 10) / 10 },
    ].sort((a, b) => a.headingDeg - b.headingDeg)
    steer.value = look.value = ''
  } catch (e) {
    swingError.value = messageOf(e)
  }
}
const smooth = async () => {
  const f = fitDeviation(looks.value)
  const entries = Array.from({ length: 24 }, (_, i) => i * 15).map(h => ({
    headingDeg: h,
    deviationDeg: Math.round(10 * deviationOf(f.coefficients, h)) / 10,
  }))
  await set({ deviation: entries }, 'deviation card')
  looks.value = []
}
const text = ref('')
async function enterCard() {
  swingError.value = ''
  try {
    const entries = text.value
      .split(/[\n;]+/)
      .map(l => l.trim())
      .filter(Boolean)
      .map(l => {
        const m = /^(\d{1,3}(?:[.,]\d+)?)\D*?([+\-−]?\d+(?:[.,]\d+)?)\s*°?\s*([EW])?$/i.exec(l.replace(/°/g, ' '))
        if (!m) throw new RangeError(`“${l}”: a heading and its deviation are wanted, such as “045 2.5 W”`)
        const size = sure(parseNumber(nth(m, 2)))
        const d = m[3] ? Math.abs(size) * (/w/i.test(m[3]) ? -1 : 1) : size
        if (Math.abs(d) > MOST_DEVIATION_DEG) throw new RangeError(`“${l}”: a deviation within ±${MOST_DEVIATION_DEG}° is wanted`)
        return { headingDeg: normalise360(sure(parseNumber(nth(m, 1)))), deviationDeg: d }
      })
    if (!entries.length) throw new RangeError('one heading and its deviation a line')
    const bad = await set({ deviation: entries.sort((a, b) => a.headingDeg - b.headingDeg) }, 'deviation card')
    throwRefused(bad)
    text.value = ''
  } catch (e) {
    swingError.value = messageOf(e)
  }
}
const east = (d: number) => `${num(Math.abs(d), 1)}° ${d < 0 ? 'W' : 'E'}`
const curve = computed(() =>
  Array.from(
    { length: 73 },
    (_, i) => `${i ? 'L' : 'M'}${i * 6.4 + 20} ${60 - 4 * Math.max(-12, Math.min(12, deviationFrom(card.value, i * 5)))}`,
  ).join(''),
)
</script>

<template>
  <MvSheet v-model="open" title="Compass, nose, sun" wide>
    <p v-if="dec" data-test="declination">
      Declination <b class="fig">{{ east(dec.declinationDeg) }}</b> today, ±{{ num(NINE_IN_TEN * dec.uncertaintyDeg, 1) }}° nine
      times in ten: magnetic = true − declination, east positive. Horizontal field {{ num(dec.horizontalNt) }} nT:
      <strong :class="{ error: dec.compass !== 'good' }">{{
        dec.compass === 'good'
          ? 'a compass can be trusted'
          : dec.compass === 'unsure'
            ? 'a compass is unsure here'
            : 'a compass is useless here'
      }}</strong>.
    </p>
    <p v-else class="error">
      No declination:
      {{
        site.latDeg === null
          ? 'the position is missing'
          : 'today’s date is outside the magnetic model, 2024-11-13 to 2029-11-12. Is the device’s date right?'
      }}
      Aim by the sun or a landmark.
    </p>
    <template v-if="moving">
      <h3>Where the {{ bow }} points{{ stop ? ` at ${stop.name}` : '' }}</h3>
      <div class="row">
        <MvChoice
          :value="reference"
          :save="v => (reference = v)"
          label="Read as"
          :choices="[
            { value: 'compass', title: 'its own compass' },
            { value: 'magnetic', title: 'magnetic, hand compass' },
            { value: 'true', title: 'true' },
          ]"
          data-test="heading-ref"
        />
        <MvNumber
          :key="reference"
          label="Heading"
          unit="°"
          :value="shownHeading"
          :low="0"
          :high="360"
          :decimals="0"
          :save="saveHeading"
        />
        <MvNumber
          :label="store.job.kind === 'boat' ? 'Swings at anchor ±' : 'May be parked ±'"
          unit="°"
          :value="site.swingDeg"
          :low="0"
          :high="180"
          :decimals="0"
          required
          :save="saveSwing"
        />
      </div>
      <p v-if="site.headingDeg !== null" data-test="heading-words">
        <b class="fig">{{ bearing(site.headingDeg) }}</b> true.
        {{ mast ? `${mast.mast.name} stands ${sayRelative(mast.frameBearingDeg, store.job.kind as 'vehicle' | 'boat')}.` : '' }}
        {{
          verdict
            ? verdict.serves
              ? `The beam fitted holds over the swing: at worst ${num(verdict.worstDb, 1)} dB off.`
              : `The beam fitted cannot follow: ${num(verdict.worstDb)} dB off at the ends, ${num(verdict.meanDb, 1)} on ` +
                `average; it serves ±${num(verdict.withinDeg)}°.`
            : ''
        }}
      </p>
      <h3>Deviation of its own compass</h3>
      <p class="soft">
        East positive, kept by compass heading: magnetic = compass + deviation. A hand compass away from iron wants none.
      </p>
      <div class="two">
        <div>
          <svg viewBox="0 0 500 120" width="100%" role="img" aria-label="Deviation over the heading">
            <path d="M20 60H481" stroke="var(--mv-line)" />
            <path v-if="card.length" :d="curve" fill="none" stroke="var(--mv-ink)" stroke-width="2" />
            <circle
              v-for="c in looks"
              :key="c.headingDeg"
              :cx="20 + c.headingDeg * 1.28"
              :cy="60 - 4 * Math.max(-12, Math.min(12, c.deviationDeg))"
              r="4"
              fill="var(--mv-computed)"
            />
            <text
              v-for="d in [0, 90, 180, 270, 360]"
              :key="d"
              :x="20 + d * 1.28"
              y="116"
              text-anchor="middle"
              font-size="12"
              fill="var(--mv-soft)"
            >
              {{ d }}
            </text>
            <text x="24" y="14" font-size="12" fill="var(--mv-soft)">12° E</text>
            <text x="24" y="104" font-size="12" fill="var(--mv-soft)">12° W</text>
          </svg>
          <p v-if="card.length" class="soft">
            {{ card.length }} headings; at the present one
            {{
              site.headingDeg !== null && dec
                ? east(deviationFrom(card, magneticToCompass(trueToMagnetic(site.headingDeg, dec.declinationDeg), card)))
                : '–'
            }}.
            <button
              type="button"
              class="plain"
              :disabled="!session.mayEdit"
              @click="set({ deviation: null }, 'no deviation card')"
            >
              take the card away
            </button>
          </p>
          <p v-else class="soft">No card yet.</p>
        </div>
        <div>
          <v-textarea
            v-model="text"
            label="Card, a heading a line"
            placeholder="000 2 W&#10;045 3.5 W&#10;090 1 E"
            rows="3"
            data-test="card"
          />
          <button
            type="button"
            class="press small"
            :disabled="!text.trim() || !session.mayEdit"
            data-test="keep-card"
            @click="enterCard"
          >
            Keep the card
          </button>
        </div>
      </div>
      <h3>Swing it</h3>
      <p class="soft">
        Turn through at least eight headings. On each, note what the compass shows of the heading, and of the thing sighted over
        it.
      </p>
      <div class="row swing">
        <MvChoice
          :value="by"
          :save="v => (by = v)"
          label="Sighting"
          :choices="[{ value: 'sun', title: 'the sun' }, ...landmarks.map(l => ({ value: l.id, title: l.name }))]"
          data-test="swing-by"
        />
        <v-text-field v-model="steer" label="Compass heading" suffix="°" inputmode="decimal" data-test="steer" />
        <v-text-field
          v-model="look"
          :label="by === 'sun' ? 'Compass bearing of the sun' : 'Compass bearing of it'"
          suffix="°"
          inputmode="decimal"
          data-test="look"
          @keydown.enter="keepLook"
        />
        <button type="button" class="press" data-test="keep-look" @click="keepLook">Keep</button>
      </div>
      <p v-if="swingError" class="error" role="alert">{{ swingError }}</p>
      <p v-if="looks.length" data-test="looks" class="fig">
        {{ looks.map(l => `${bearing(l.headingDeg)} ${east(l.deviationDeg)}`).join(' · ') }}
      </p>
      <button v-if="fit" type="button" class="press filled" data-test="make-card" :disabled="!session.mayEdit" @click="smooth">
        Make the card of {{ looks.length }} headings (they fit to {{ num(fit.residualDeg, 1) }}°)
      </button>
    </template>
    <p v-else class="soft">
      Stand clear of iron: three metres from a car, a gutter or a rebar floor. A mobile phone in the same hand is iron too.
    </p>
  </MvSheet>
</template>

<style scoped>
h3 {
  margin: 16px 0 6px;
}
.row {
  display: grid;
  grid-template-columns: 1.3fr 1fr 1fr;
  gap: 10px;
  align-items: start;
}
.row.swing {
  grid-template-columns: 1fr 1fr 1.2fr auto;
}
.two {
  display: grid;
  grid-template-columns: 1.3fr 1fr;
  gap: 16px;
}
@media (max-width: 640px) {
  .row,
  .row.swing,
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
