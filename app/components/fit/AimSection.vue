<script setup lang="ts">
import { nth } from '#core/sure'
import { nowUtc } from '~/replica/clock'
import { layoutDial } from '#core/drawing'
import { earShare, lastRound, nextHeading, readSwept, sweepHeadings, sweepMinutes, SWEPT } from '#core/aim'
import { angleBetween, magneticToTrue, normalise360, relativeToSun, trueToMagnetic, turn } from '#core/geo'
import { allTicked } from '#core/judge'
import { isOmni } from '#core/job'
import type { Sweep } from '#core/job'
import { parseNumber } from '#core/formats'
import { bearing, num, signed } from '#core/units'
import type { Measured } from '~/instruments/ring'

/** One turns, one reads; or one alone: big figure, one instruction, one dial, two buttons. */
const store = useOpened()
const sweeps = useSweeps()
const session = useSession()
const { el, width, height } = useWidth()
const now = useNow({ interval: 1000 })
const dec = computed(() => store.result.declination?.declinationDeg ?? 0)
const starting = ref(false)
/** of the document: one just begun is not yet worked out */
const sweep = computed(() => lastRound(store.here))
const steps = computed(() => sweeps.stepsOf(sweep.value))
const result = computed(() => {
  const view = store.result.sweep
  return view && view.sweep.id === sweep.value?.id ? view.result : null
})
const mast = computed(() => store.result.chosen)
const pass = ref(1)
type Quantity = Sweep['quantity']
const quantity = ref<Quantity>('SINR')
/** what is swept: of the sweep under way, else what was chosen for the next */
const swept = computed(() => (starting.value ? null : sweep.value?.quantity) ?? quantity.value)
const heading = ref<number>(store.design?.aimedDeg ?? (Math.round((mast.value?.bearingDeg ?? 0) / 15) * 15) % 360)
const useMagnetic = ref(true)
const value = ref('')
const error = ref('')
const planStep = computed(() => sweep.value?.stepDeg ?? null)
const struck = computed(() => sweep.value?.struckDeg ?? [])
const plan = computed(() =>
  (planStep.value ? sweepHeadings(planStep.value) : []).filter(h => !struck.value.some(s => angleBetween(s, h) < 1)),
)
/** a position of the bracket that cannot be reached is struck off, for this sweep */
async function strike() {
  if (!sweep.value) return
  await store.commit(
    [
      {
        table: 'sweeps',
        op: 'update',
        rowId: sweep.value.id,
        fields: { struckDeg: [...struck.value, normalise360(heading.value)] },
      },
    ],
    'a position out of reach',
  )
  if (next.value !== null) heading.value = next.value
}
const takenNow = computed(() => steps.value.filter(s => s.pass === pass.value).map(s => s.headingDeg))
const { estimate, found, pattern } = useEstimate({
  steps,
  quantity: swept,
  mastDeg: computed(() => mast.value?.bearingDeg ?? null),
  struck,
})
/** by the plan of positions; without one, where a reading would tell most, until it is known well enough */
const next = computed(() => {
  if (plan.value.length) return nextHeading(plan.value, takenNow.value, heading.value)
  return sweep.value && estimate.value && !found.value ? estimate.value.next : null
})
/** best heading with its interval: of few readings the fitted pattern's, of a full turn the turn's own */
const best = computed(() => {
  const e = estimate.value
  if (planStep.value === null && e && steps.value.length >= 3)
    return { headingDeg: e.headingDeg, plusMinusDeg: e.plusMinusDeg, noise: e.noiseDb as number | null }
  return result.value
})
watch(
  () => sweep.value?.id,
  () => (pass.value = steps.value.reduce((m, s) => Math.max(m, s.pass), 1)),
  { immediate: true },
)

const safe = computed(() => allTicked(store.doc, 'aim', now.value.toISOString()))
/** at the desk the figures may be looked at by anyone; on the roof the list comes first */
const roof = useMediaQuery('(max-width: 900px)')
/** the carrier that is listened to: one band, so that what turns is the antenna and not the modem's mind */
const bands = computed(() =>
  [...new Set([...(mast.value?.path?.bands ?? []).map(b => b.band), store.design?.band ?? ''])].filter(Boolean),
)
const band = ref<string | null>(store.design?.band ?? mast.value?.best?.band ?? null)
const listensTo = computed(() => (sweep.value ? sweep.value.band : band.value))
// A figure of one quantity is none of another.
watch(swept, () => {
  if (live.value.value === null) value.value = ''
  error.value = ''
})
/** what reads: as it is to stay, else what read last */
const readBy = () => (store.doc.setups.findLast(s => s.mark === 'after') ?? store.doc.setups.at(-1))?.id ?? null
const dwellS = ref(30)
const reads = computed(() => SWEPT[swept.value])
const holdS = computed(() => sweep.value?.dwellS ?? dwellS.value)
async function begin(stepDeg: number | null, turnSlowly = false) {
  starting.value = true
  await sweeps
    .begin(
      {
        quantity: quantity.value,
        setupId: readBy(),
        band: band.value,
        dwellS: dwellS.value,
        reference: useMagnetic.value ? 'magnetic' : 'true',
        slow: turnSlowly,
        stepDeg,
      },
      'start a sweep',
    )
    .finally(() => (starting.value = false))
  pass.value = 1
  anew.value = false
  tone.begin()
  if (turnSlowly) slow.begin(pattern.value?.beamwidthDeg ?? 60)
  else slow.end()
}
const { once } = useOnce()
const keepStep = () => once(saveStep)
const press = () => (mustConfirm.value ? confirmStand() : live.value.value !== null && !typing.value ? keepDwelt() : keepStep())
async function saveStep() {
  if (!sweep.value || starting.value) return
  let v: number
  try {
    v = readSwept(value.value, swept.value)
  } catch (e) {
    error.value = messageOf(e)
    return
  }
  const old = steps.value.find(s => s.pass === pass.value && angleBetween(s.headingDeg, heading.value) < 1)
  const bad = await sweeps.keep(sweep.value.id, { pass: pass.value, headingDeg: heading.value, value: v }, old)
  error.value = bad[0]?.message ?? ''
  if (bad.length) return
  value.value = ''
  tone.kept(v)
  live.again()
  settled.value = 0
  if (next.value !== null) heading.value = next.value
}
/** the phone laid along the boom, or a receiver on the pole: the heading follows it */
const sensed = useTurned(heading, dec)
const { compass } = sensed
const live = useLive(swept, heading)
/** turned without a stop: a step for each sector passed */
const slow = useSlowTurn(step => {
  if (sweep.value?.slow) void sweeps.keep(sweep.value.id, { pass: pass.value, ...step }, null)
})
watch(
  () => live.modem.sample,
  s => {
    const told = s && live.what.value ? s[live.what.value] : null
    if (told && slow.turning.value) slow.hear(heading.value, told.value, s!.atMs)
  },
)
const mayTurnSlowly = computed(
  () => live.told.value.includes(quantity.value as never) && (sensed.by.value === 'phone' || sensed.by.value === 'receiver'),
)
const listening = ref(false)
const receiving = ref(false)
const tilting = ref(false)
const comparing = ref(false)
/** two feeds into one box: each must do its part */
const paired = computed(() => (store.result.levels?.modems.length ?? 0) >= 2)
/** of a booster: what the plan leaves it, to be watched by its lamps while the level rises */
const booster = computed(() => {
  const a = store.result.levels?.amplifiers[0]
  const loop = store.result.loops[0]
  if (!a || !loop) return ''
  const held = loop.heldBackDb > 0.5 ? `its loop holds ${num(loop.heldBackDb)} dB back` : 'its loop holds nothing back'
  return `booster at ${num(a.gainDb)} dB: ${held}; ${num(a.inputMarginDb)} dB more at its input and it is overloaded`
})
/** kept by itself once it was held long enough */
const byItself = ref(false)
/** something tells where the antenna stands: a sensor, or a stand-in that turns as it is told */
const senses = computed(() => !!sensed.by.value || live.modem.link?.kind === 'stand-in')
/** without that the person who turns says that it stands there; only then may a step be kept by itself */
const standsAt = ref<number | null>(null)
const mustConfirm = computed(() => byItself.value && !senses.value && standsAt.value !== heading.value)
function confirmStand() {
  standsAt.value = heading.value
  live.again()
}
/** what hears all round has no front to be turned */
const omni = computed(() => {
  const donor = store.result.tree?.donors[0]
  return !!donor && isOmni(donor.part)
})
const apart = computed(() => store.result.findings.find(f => f.code === 'bearings.sweep-differs' && !f.accepted) ?? null)
/** typed over: the modem's figure waits until the step is kept */
const typing = ref(false)
watch(live.value, v => {
  if (v === null || typing.value) return
  value.value = num(v, 1)
  tone.set(earShare(swept.value, v), say(v))
})
const say = (v: number) => num(v, 0).replace('−', 'minus ')
watch(live.heldS, s => {
  if (
    byItself.value &&
    !mustConfirm.value &&
    sweep.value &&
    s >= holdS.value &&
    next.value !== null &&
    (safe.value || !roof.value)
  )
    void keepDwelt()
})
/** What is kept is the middle of all that was heard here, not the last answer. */
async function keepDwelt() {
  if (live.dwelt.value !== null && !typing.value) value.value = num(live.dwelt.value, 1)
  await keepStep()
  typing.value = false
}
/** the best the modem tells is what is shown, until another is chosen */
watch(live.told, t => {
  if (!sweep.value && t.length && !t.includes(quantity.value as never)) quantity.value = nth(t, 0)
})
/** a stand-in is told how its antenna stands; a real one is turned by hand */
watch(
  [heading, pattern, () => live.modem.link],
  () => {
    const p = pattern.value
    if (p)
      live.modem.turn({
        headingDeg: heading.value,
        gainDbi: p.gainDbi,
        beamwidthDeg: p.beamwidthDeg,
        frontToBackDb: p.frontToBackDb,
      })
  },
  { immediate: true },
)
/** after it was locked: the same, or did tightening move it? */
const afterLock = computed(() => {
  const b = result.value
  if (!locked.value || !b || live.dwelt.value === null || live.heldS.value < 5) return ''
  const lost = b.best - live.dwelt.value
  const noise = b.noise ?? best.value?.noise ?? 1.5
  return Math.abs(lost) <= 2 * noise
    ? `now ${num(live.dwelt.value, 1)}, best was ${num(b.best, 1)}: within its noise`
    : lost > 0
      ? `${num(lost, 1)} ${reads.value.unit} lost in tightening: loosen, turn back, lock again`
      : `${num(-lost, 1)} ${reads.value.unit} better than any step`
})
/** Locked is where the antenna stands, not where it would be best. */
async function lock() {
  const to = heading.value
  await store.commit(
    [
      {
        table: 'designs',
        op: 'update',
        rowId: store.variant.id,
        fields: { aimedDeg: (Math.round(to * 10) / 10) % 360, aimedAtUtc: nowUtc() },
      },
    ],
    'lock the aim',
  )
}
const settled = ref(0)
useIntervalFn(() => settled.value++, 1000)
/** span of the strip of the last minute, by what is told */
const STRIP: Record<Measured, [number, number]> = {
  rsrpDbm: [-125, -65],
  rsrqDb: [-22, -3],
  sinrDb: [-10, 30],
  rssiDbm: [-113, -51],
}
/** while one is under way the choice of another waits behind a word */
const anew = ref(false)
const choosing = computed(
  () => !sweep.value || !steps.value.length || anew.value || locked.value || (next.value === null && !!result.value),
)
const dialSize = computed(() => Math.max(200, Math.min(width.value, height.value || 340)))
/** of few readings the dial shows the fitted pattern's interval */
const withBest = computed(() => {
  const a = store.result
  if (!a.sweep?.result || !best.value || planStep.value !== null) return a
  const { headingDeg, plusMinusDeg } = best.value
  return { ...a, sweep: { ...a.sweep, result: { ...a.sweep.result, headingDeg, plusMinusDeg } } }
})
const dial = computed(() =>
  layoutDial(withBest.value, {
    size: dialSize.value,
    masts: 1,
    showSweep: true,
    headingDeg: heading.value,
    selectedId: mast.value?.mast.id ?? null,
    labels: false,
  }),
)
const shown = (trueDeg: number) => bearing(normalise360(useMagnetic.value ? trueToMagnetic(trueDeg, dec.value) : trueDeg))
/** locked after the last step: what is wanted now is a second look, not another turn */
const locked = computed(() => {
  const d = store.design
  return (
    d?.aimedDeg != null &&
    !!d.aimedAtUtc &&
    (!sweep.value || sweep.value.startedAtUtc <= d.aimedAtUtc) &&
    steps.value.every(s => s.takenAtUtc <= d.aimedAtUtc!) &&
    angleBetween(heading.value, d.aimedDeg) < 2
  )
})
/** where it is to be turned to: the next reading, or the best once it is known, or the mast */
const target = computed(() =>
  best.value && next.value === null ? best.value.headingDeg : (next.value ?? mast.value?.bearingDeg ?? null),
)
const instruction = computed(() => {
  if (omni.value) return 'it hears all round: upright, read, tighten, read again'
  if (locked.value) return 'locked: read again'
  if (target.value === null) return 'turn, read, keep'
  const t = turn(heading.value, target.value)
  return Math.abs(t) < 2 ? `hold ${shown(heading.value)}` : `${num(Math.abs(t))}° ${t > 0 ? 'on, right' : 'back, left'}`
})
/** the last few that were kept, in the order of work: a slip is taken back where it is seen */
const lately = computed(() => [...steps.value].sort((a, b) => a.takenAtUtc.localeCompare(b.takenAtUtc)).slice(-SHOWN))
const SHOWN = 5
/** the best is known, or every position of the pass was read: what is left is to lock */
const mayLock = computed(
  () => !locked.value && !!sweep.value && (plan.value.length ? next.value === null && steps.value.length > 0 : !!found.value),
)
/** quantity, band and time of each position of the sweep that is begun next, in one line */
const how = ref(false)
const howWords = computed(() => [SWEPT[quantity.value].words, band.value, `${dwellS.value} s`].filter(Boolean).join(' · '))
const arrow = computed(() => (turn(heading.value, target.value ?? heading.value) < 0 ? -1 : 1))
const { bow, beside, tolerance } = useBearingWords(() => mast.value)
const aside = computed(() =>
  [bow.value, beside.value, tolerance.value.oneDb !== null ? `${num(tolerance.value.oneDb)}° off costs 1 dB` : '']
    .filter(Boolean)
    .join(' · '),
)
const sun = computed(() => {
  const s = store.site
  return mast.value && s.latDeg !== null && s.lonDeg !== null
    ? relativeToSun({ latDeg: s.latDeg, lonDeg: s.lonDeg }, now.value, result.value?.headingDeg ?? mast.value.bearingDeg)
    : null
})
const headingText = ref('')
function setHeading() {
  try {
    const v = parseNumber(headingText.value)
    if (v === null) return
    if (v < 0 || v > 360) throw new RangeError('0 to 360°')
    heading.value = normalise360(useMagnetic.value ? magneticToTrue(v, dec.value) : v)
    error.value = ''
  } catch (e) {
    error.value = messageOf(e)
  }
  headingText.value = ''
}
const tone = useTone()
watch(value, v => {
  const n = Number(v.replace(',', '.').replace('−', '-'))
  if (Number.isFinite(n) && live.value.value === null) tone.set(earShare(swept.value, n), v)
})
const { isSupported, request, release } = useWakeLock()
onMounted(() => void (isSupported.value && request('screen').catch(() => {})))
onUnmounted(() => {
  void release().catch(() => {})
  tone.stop()
})
const by = (d: number) => (heading.value = normalise360(heading.value + d))
useKeys({
  ArrowRight: { does: 'heading on', run: () => by(planStep.value ?? 5) },
  ArrowLeft: { does: 'heading back', run: () => by(-(planStep.value ?? 5)) },
  t: { does: 'tone', run: tone.toggle },
  l: { does: 'lock the aim', run: () => void lock() },
})
</script>

<template>
  <div class="aim">
    <section v-if="!safe && roof" class="gate" aria-label="Go or stop">
      <h1>Before anyone climbs</h1>
      <p class="soft">Tick what is true now, here. Local rules and licensed people decide; this list does not replace them.</p>
      <CautionTicks section="aim" />
      <p class="error">Something not true: stop.</p>
    </section>
    <template v-else>
      <details v-if="!roof" class="deskgate" :open="!safe && store.design?.aimedDeg == null">
        <summary>{{ safe ? 'go: everything is ticked' : 'before anyone climbs: not all is ticked' }}</summary>
        <CautionTicks section="aim" brief />
      </details>
      <div class="reading">
        <div class="figure">
          <input
            v-model="value"
            class="fig huge"
            inputmode="decimal"
            :aria-label="`${reads.words} read now`"
            placeholder="–"
            data-test="aim-value"
            @input="typing = value !== ''"
            @keydown.enter="press"
          />
          <button
            v-if="live.value.value === null"
            type="button"
            class="sign fig"
            aria-label="minus or plus"
            @click="value = /^[-−]/.test(value) ? value.slice(1) : `−${value}`"
          >
            ±
          </button>
          <div class="beside">
            <strong>{{ reads.words }} {{ reads.unit }}{{ listensTo ? `, ${listensTo}` : '' }}</strong
            ><span class="soft">{{
              result ? `best ${num(result.best, 1)} at ${shown(result.headingDeg)}` : 'nothing kept yet'
            }}</span
            ><span class="soft"
              >held {{ Math.min(live.value.value === null ? settled : live.heldS.value, holdS) }} s of {{ holdS }}</span
            >
          </div>
        </div>
        <p v-if="error" class="error" role="alert">{{ error }}</p>
        <LiveStrip
          v-if="live.what.value && live.value.value !== null"
          :what="live.what.value"
          :low="STRIP[live.what.value][0]"
          :high="STRIP[live.what.value][1]"
          :best="result?.best"
        />
        <div class="listen">
          <button type="button" class="press small" data-test="listen" @click="listening = true">
            {{ live.modem.live ? `hears ${live.modem.link!.name}` : live.modem.trouble || 'listen to a modem' }}
          </button>
          <span v-if="live.modem.live && live.value.value === null" class="soft" data-test="not-told"
            >it does not tell {{ reads.words }}: sweep by {{ live.told.value.join(' or ') || 'what you read yourself' }}</span
          >
          <label v-if="live.value.value !== null" class="auto"
            ><input v-model="byItself" type="checkbox" data-test="by-itself" /> keep after {{ holdS }} s</label
          >
          <button
            v-if="roof"
            type="button"
            class="press small"
            :aria-pressed="compass.on.value"
            data-test="compass"
            @click="compass.toggle"
          >
            {{ compass.on.value ? `turned by this phone, ±${num(compass.accuracyDeg.value)}°` : 'heading by this phone' }}
          </button>
          <button type="button" class="press small" data-test="receiver" @click="receiving = true">
            {{ sensed.by.value === 'receiver' ? 'turned by the receiver' : sensed.receiver.trouble || 'heading by a receiver' }}
          </button>
          <span v-if="sensed.by.value === 'other phone'" class="soft hint" role="status" data-test="looks-on"
            >looks on: another phone turns and keeps; its steps come here when both have a network</span
          >
          <span v-if="slow.turning.value" class="slowly" role="status" data-test="slow-words"
            >{{ slow.words.value }} <button type="button" class="press small" @click="slow.end()">end the turn</button></span
          >
          <span v-if="compass.on.value" class="soft hint">along the boom, away from steel; a figure of eight sets it right</span>
          <span v-if="compass.trouble.value" class="error" role="status">{{ compass.trouble.value }}</span>
          <label v-if="tone.on.value" class="auto"><input v-model="tone.spoken.value" type="checkbox" /> say the figures</label>
        </div>
        <div class="tell">
          <svg viewBox="0 0 44 36" width="44" height="36" aria-hidden="true">
            <path
              d="M6 28Q8 8 32 10M24 2L34 10L24 18"
              fill="none"
              stroke="currentColor"
              stroke-width="4"
              :transform="arrow < 0 ? 'translate(44 0) scale(-1 1)' : ''"
            />
          </svg>
          <strong>{{ instruction }}</strong>
          <span
            >antenna at<br /><b class="fig">{{ shown(heading) }}</b>
            <button type="button" class="ref" data-test="ref" @click="useMagnetic = !useMagnetic">
              {{ useMagnetic ? 'magnetic' : 'true' }}
            </button></span
          >
        </div>
        <div class="sides">
          <span v-if="best && best.plusMinusDeg < 90" class="met" data-test="best"
            ><b>best {{ shown(best.headingDeg - best.plusMinusDeg) }}–{{ shown(best.headingDeg + best.plusMinusDeg) }}</b
            ><br /><small
              >9 in 10 sure{{ best.noise !== null ? `, noise ±${num(best.noise, 1)} dB` : ', one pass only' }}</small
            ></span
          ><span v-else />
          <span v-if="mast" class="blue"
            ><b>{{ mast.mast.name }} at {{ shown(mast.bearingDeg) }}</b
            ><br /><small
              >{{
                sun
                  ? `${num(Math.abs(sun.turnDeg))}° ${sun.turnDeg > 0 ? 'right' : 'left'} of the sun now`
                  : 'sun too low or high to aim by'
              }}<template v-if="aside"> · {{ aside }}</template></small
            ></span
          >
        </div>
      </div>
      <div ref="el" class="dial"><DrawingView :drawing="dial" label="Dial: measured steps and the computed bearing" /></div>
      <p class="below soft">
        <b v-if="apart" class="error" data-test="apart">{{ apart.title }}: {{ apart.sentence }}</b
        ><span v-if="booster" data-test="booster-watch">{{ booster }}</span
        ><span v-if="afterLock" data-test="after-lock">{{ afterLock }}</span
        ><span v-else-if="locked">tightening moves it: one more reading shows by how much</span
        ><span v-else-if="next !== null && !plan.length"
          >{{ steps.length ? `then ${shown(next)}: it would tell most` : `begin at ${shown(next)}` }},
          {{ steps.length }} kept</span
        ><span v-else-if="found && !plan.length">known well enough: turn to {{ shown(best!.headingDeg) }} and lock</span
        ><span v-else-if="next !== null">then {{ shown(next) }}, pass {{ pass }}, {{ takenNow.length }} of {{ plan.length }}</span
        ><span v-else-if="plan.length"
          >pass {{ pass }} is full: <button type="button" class="ref" @click="pass++">another pass</button></span
        ><span v-if="result?.second">second rise at {{ shown(result.second.headingDeg) }}: a reflection, or another mast</span
        ><span v-if="result?.flat">hardly moves with turning: not the antenna’s direction that limits</span>
      </p>
      <ol v-if="lately.length" class="kept" aria-label="Kept last" data-test="kept-steps">
        <li v-for="s in lately" :key="s.id">
          <span class="fig"
            >{{ shown(s.headingDeg) }} <b>{{ num(s.value, reads.decimals) }}</b></span
          >
          <button
            v-if="session.mayEdit"
            type="button"
            :aria-label="`take back ${num(s.value, reads.decimals)} at ${shown(s.headingDeg)}`"
            @click="sweeps.takeBack(s)"
          >
            ×
          </button>
        </li>
      </ol>
      <div class="start">
        <button v-if="!choosing" type="button" class="press small" data-test="anew" @click="anew = true">another sweep</button>
        <template v-if="choosing">
          <button type="button" class="press small begin" :disabled="!session.mayEdit" data-test="sweep-few" @click="begin(null)">
            guided sweep
          </button>
          <button type="button" class="how" :aria-expanded="how" data-test="how" @click="how = !how">
            <span class="soft">{{ howWords }}</span> · change
          </button>
          <div v-if="how" class="hows">
            <select v-model="quantity" class="press small" aria-label="What is read" data-test="quantity">
              <option v-for="(q, key) in SWEPT" :key="key" :value="key">{{ q.words }}</option>
            </select>
            <select v-model="band" class="press small" aria-label="On which band" data-test="aim-band">
              <option v-for="b in bands" :key="b" :value="b">{{ b }}</option>
              <option :value="null">band not told</option>
            </select>
            <select v-model="dwellS" class="press small" aria-label="Seconds at each position" data-test="dwell">
              <option v-for="d in [10, 30, 60, 120]" :key="d" :value="d">{{ d }} s each</option>
            </select>
            <button
              v-for="s in [15, 30, 45]"
              :key="s"
              type="button"
              class="press small"
              :disabled="!session.mayEdit"
              :data-test="`sweep-${s}`"
              @click="begin(s)"
            >
              {{ s === 45 ? 'eight positions' : `${s}° steps` }}, {{ Math.round(sweepMinutes(360 / s, dwellS)) }} min
            </button>
            <button
              v-if="mayTurnSlowly"
              type="button"
              class="press small"
              :disabled="!session.mayEdit"
              data-test="sweep-slow"
              @click="begin(null, true)"
            >
              one slow turn
            </button>
          </div>
        </template>
        <label class="turnto"
          >at
          <input
            v-model="headingText"
            class="fig"
            inputmode="decimal"
            :placeholder="shown(heading)"
            aria-label="Heading now, degrees"
            data-test="heading"
            @keydown.enter="setHeading"
            @blur="setHeading"
          />°</label
        >
        <button type="button" class="press small" @click="by(-(planStep ?? 5))">−{{ planStep ?? 5 }}°</button
        ><button type="button" class="press small" @click="by(planStep ?? 5)">+{{ planStep ?? 5 }}°</button>
        <button
          v-if="sweep && planStep && planStep >= 45 && session.mayEdit"
          type="button"
          class="press small"
          data-test="strike"
          @click="strike"
        >
          out of reach
        </button>
        <button type="button" class="press small" data-test="tilt-open" @click="tilting = true">
          {{ store.design?.aimedTiltDeg != null ? `tilt ${signed(store.design.aimedTiltDeg)}°` : 'tilt…' }}
        </button>
        <button v-if="paired" type="button" class="press small" data-test="branches-open" @click="comparing = true">
          both branches…
        </button>
      </div>
      <div class="buttons">
        <button
          type="button"
          class="press"
          :class="{ go: !mayLock }"
          data-test="keep-step"
          :disabled="!sweep || starting || !session.mayEdit || sensed.by.value === 'other phone'"
          @click="press"
        >
          {{ mustConfirm ? `It stands at ${shown(heading)}` : 'Keep this step' }}
        </button>
        <button type="button" class="press" :class="{ go: mayLock }" data-test="lock" :disabled="!session.mayEdit" @click="lock">
          {{ store.design?.aimedDeg != null ? `locked at ${shown(store.design.aimedDeg)}` : 'lock here' }}
          <kbd class="key">L</kbd>
        </button>
        <button type="button" class="press" :aria-pressed="tone.on.value" @click="tone.toggle">
          {{ tone.on.value ? 'Tone off' : 'Tone on' }}
        </button>
      </div>
      <LazyModemSheet v-if="listening" v-model="listening" />
      <LazyReceiverSheet v-if="receiving" v-model="receiving" />
      <LazyBranchSheet v-if="comparing" v-model="comparing" :heading-deg="heading" :band="listensTo" :setup-id="readBy()" />
      <LazyTiltSheet
        v-if="tilting"
        v-model="tilting"
        :quantity="swept"
        :band="listensTo"
        :heading-deg="heading"
        :setup-id="readBy()"
      />
    </template>
  </div>
</template>

<style scoped>
.aim {
  height: 100%;
  display: grid;
  grid-template: auto 1fr auto auto auto auto / 420px 1fr;
  overflow: auto;
}
.deskgate {
  grid-column: 1 / -1;
  grid-row: 1;
  padding: 6px 20px;
  border-bottom: 1px solid var(--mv-line);
}
.deskgate summary {
  cursor: pointer;
  font-weight: 600;
}
.gate {
  grid-column: 1 / -1;
  padding: 24px 20px;
  max-width: 640px;
  display: grid;
  gap: 12px;
  align-content: start;
}
.tick {
  display: flex;
  gap: 14px;
  align-items: center;
  min-height: 56px;
  border: 1px solid var(--mv-ink);
  padding: 8px 14px;
  background: var(--mv-sheet);
  font-size: 16px;
  cursor: pointer;
}
.tick input {
  width: 26px;
  height: 26px;
  flex: none;
  accent-color: var(--mv-met);
}
.reading {
  grid-column: 1;
  grid-row: 2;
  padding: 8px 20px 0;
  border-right: 1px solid var(--mv-line);
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.figure {
  display: flex;
  justify-content: space-between;
  align-items: flex-end;
  gap: 8px;
}
.huge {
  font-size: 68px;
  font-weight: 600;
  width: 5.1ch;
  border: 0;
  border-bottom: 2px solid var(--mv-line);
  background: none;
  line-height: 1;
  padding: 0;
}
.huge:focus {
  outline: none;
  border-color: var(--mv-computed);
}
.sign {
  display: none;
}
.beside {
  text-align: right;
  display: flex;
  flex-direction: column;
}
.beside strong {
  font-size: 20px;
}
.listen {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
  font-size: 13px;
}
.auto {
  display: flex;
  gap: 6px;
  align-items: center;
  min-height: 34px;
}
.auto input {
  width: 20px;
  height: 20px;
}
.tell {
  background: var(--mv-ink);
  color: var(--mv-sheet);
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 14px 16px;
  min-height: 76px;
}
.tell strong {
  font-size: 26px;
  flex: 1;
  line-height: 1.1;
}
.tell span {
  text-align: right;
  font-size: 13px;
}
.ref {
  background: none;
  border: 0;
  text-decoration: underline;
  cursor: pointer;
  padding: 4px 2px;
}
.sides {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
.met {
  color: var(--mv-met);
}
.blue {
  color: var(--mv-computed);
  text-align: right;
}
small {
  color: var(--mv-soft);
  font-size: 12.5px;
}
.dial {
  grid-column: 2;
  grid-row: 2 / 6;
  min-height: 0;
  display: flex;
  align-items: center;
  justify-content: center;
  overflow: hidden;
}
.below {
  grid-column: 1;
  padding: 4px 20px;
  display: flex;
  justify-content: space-between;
  gap: 10px;
  font-size: 13px;
  border-right: 1px solid var(--mv-line);
}
.kept {
  grid-column: 1;
  list-style: none;
  margin: 0;
  padding: 2px 20px;
  display: flex;
  gap: 4px;
  overflow: hidden;
  border-right: 1px solid var(--mv-line);
}
.kept li {
  flex: 1 1 0;
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-bottom: 2px solid var(--mv-ink);
  font-size: 13px;
}
.kept button {
  background: none;
  border: 0;
  cursor: pointer;
  font-size: 18px;
  min-width: 30px;
  min-height: 34px;
}
.start {
  grid-column: 1;
  padding: 8px 20px;
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  align-items: center;
  border-right: 1px solid var(--mv-line);
}
.how {
  background: none;
  border: 0;
  padding: 6px 4px;
  cursor: pointer;
  text-decoration: underline;
}
.how span {
  display: inline-block;
  text-decoration: none;
}
.hows {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  width: 100%;
}
.turnto {
  font-size: 16px;
}
.turnto input {
  width: 64px;
  border: 0;
  border-bottom: 1px solid var(--mv-ink);
  background: none;
  font-size: 18px;
  text-align: right;
}
.buttons {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: 2fr 1.4fr 1fr;
  gap: 10px;
  padding: 12px 16px;
  border-top: 1px solid var(--mv-ink);
  background: var(--mv-sheet);
}
.buttons .press {
  text-align: center;
  min-height: 60px;
  font-size: 18px;
  font-weight: 700;
}
@media (max-width: 900px) {
  .sign {
    display: block;
    min-width: 56px;
    min-height: 56px;
    font-size: 24px;
    background: var(--mv-sheet);
    border: 1px solid var(--mv-line);
  }
  .beside strong {
    font-size: 16px;
  }
  .aim {
    display: flex;
    flex-direction: column;
  }
  .reading {
    border: 0;
    padding: 8px 16px 4px;
    gap: 8px;
  }
  .huge {
    width: 5.1ch;
    font-size: 58px;
  }
  .strip {
    height: 40px;
  }
  .auto {
    min-height: 44px;
  }
  .listen {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 8px;
  }
  .listen .hint,
  .listen .slowly,
  .listen > .error {
    grid-column: 1 / -1;
  }
  .listen .press {
    min-height: 44px;
    padding: 4px 8px;
    font-size: 12.5px;
    line-height: 1.2;
  }
  .dial {
    flex: 1 1 200px;
    min-height: 200px;
  }
  .start {
    border: 0;
    padding: 4px 16px;
    flex: none;
  }
  .start .press {
    white-space: nowrap;
    min-height: 48px;
  }
  .below,
  .kept {
    border: 0;
    flex: none;
  }
  /* three fit beside each other */
  .kept li:nth-last-child(n + 4) {
    display: none;
  }
  .tell {
    min-height: 58px;
    padding: 6px 14px;
  }
  .tell strong {
    font-size: 22px;
  }
  .sides small {
    display: none;
  }
  .turnto {
    white-space: nowrap;
  }
  .buttons {
    flex: none;
    position: sticky;
    bottom: 0;
    gap: 6px;
    padding: 8px 10px;
  }
  .buttons .press {
    padding: 4px 6px;
    font-size: 16px;
  }
  .buttons .key {
    display: none;
  }
}
</style>
