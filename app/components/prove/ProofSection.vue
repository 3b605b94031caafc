<script setup lang="ts">
import { given, mbps, num, signed } from '#core/units'
import { linesAt, provenBy } from '#core/prove'
import type { SetupLine } from '#core/prove'
import { clockAt, traitsOf } from '#core/survey'

/** Set-ups compared at one place: what changed stands heavy, each test is a dot; the promise scored; what stays unproven. */
const store = useOpened()
const session = useSession()
const proof = computed(() => store.result.proof)
const spots = computed(() => store.doc.spots)
const picked = ref(
  store.result.proof.judged?.before.spot.id ??
    store.doc.spots.find(s => s.needed)?.id ??
    store.job.baselineSpotId ??
    spots.value[0]?.id ??
    '',
)
const spot = computed(() => spots.value.find(s => s.id === picked.value))
const lines = computed(() => linesAt(store.here, store.log, picked.value))
const proven = computed(() => provenBy(lines.value, clockAt(store.doc), store.log.usual))
const here = computed(() => proof.value.spots.find(p => p.before.spot.id === picked.value) ?? null)
const scored = computed(() => proof.value.scored)
const designName = (id: string | null) => store.doc.designs.find(d => d.id === id)?.name ?? 'the plan'
const traits = (l: SetupLine) => (l.setup ? traitsOf(l.setup, designName) : [])
const agreed = computed(() => ({ down: store.job.agreedDownMbps, up: store.job.agreedUpMbps }))

/** A scale that ends at a round figure, with four or five marks. */
function scaleOf(values: (number | null)[]) {
  const top = Math.max(1, ...values.map(v => v ?? 0)) * 1.08
  const step = [0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500].find(s => top / s <= 6) ?? 1000
  const end = Math.ceil(top / step) * step
  return { end, marks: Array.from({ length: Math.round(end / step) + 1 }, (_, i) => i * step) }
}
const scales = computed(() => ({
  down: scaleOf([agreed.value.down, ...lines.value.flatMap(l => l.summary.runs.map(r => r.downMbps))]),
  up: scaleOf([agreed.value.up, ...lines.value.flatMap(l => l.summary.runs.map(r => r.upMbps))]),
}))
const SIDES = ['down', 'up'] as const
const dots = (l: SetupLine, side: 'down' | 'up') =>
  l.summary.runs.map((r, i) => ({
    id: r.id,
    value: r.wouldNotLoad ? 0 : side === 'down' ? r.downMbps : r.upMbps,
    jitter: ((i * 7) % 5) * 3 - 6,
  }))
const plotWords = (l: SetupLine, side: 'down' | 'up'): string => {
  const s = l.summary[side]
  return s ? `${mbps(s.median)} Mbit/s, ${s.count} tests` : 'not tested'
}
const calls = computed(() => proof.value.calls)
/** widest share, so that all stand on one scale */
const widest = computed(() => Math.max(1, ...(proof.value.shares?.shares.map(s => Math.abs(s.db)) ?? [])))
</script>

<template>
  <div class="proof">
    <div class="picture">
      <div class="verdict" :class="proof.verdict.met === null ? 'open' : proof.verdict.met ? 'met' : 'short'" data-test="verdict">
        <strong>{{ proof.verdict.words }}</strong>
        <span v-if="scored"
          >promised {{ mbps(scored.low) }}–{{ mbps(scored.high) }}, measured {{ mbps(scored.got) }} Mbit/s:
          {{ scored.inside ? 'as promised' : scored.got > scored.high ? 'better than promised' : 'less than promised' }}</span
        >
        <span v-if="calls">{{ calls.words }}</span>
        <span v-if="proof.drops.after" data-test="drops">{{ proof.drops.after.words }}</span>
        <span v-if="proof.failover" data-test="failover-said">{{ proof.failover }}</span>
      </div>
      <p v-if="!lines.length" class="soft pad">
        Nothing measured here yet. Before is read in Survey; after is read here, at the same spots, at the same hour.
      </p>
      <div v-else class="table" data-test="lines">
        <header>
          <h2>
            {{ lines.length === 1 ? 'One set-up' : `${lines.length} set-ups` }} at
            <select v-model="picked" class="press small" aria-label="Spot">
              <option v-for="s in spots" :key="s.id" :value="s.id">{{ s.name }}{{ s.needed ? ' (must be proved)' : '' }}</option>
            </select>
          </h2>
          <span class="soft">what changed from the line above stands heavy</span>
        </header>
        <div class="line heads soft">
          <span /><span /><span>RSRP, dBm</span><span>SINR, dB</span>
          <span v-for="side in SIDES" :key="side" class="scale">
            <small>{{ side }}, Mbit/s</small>
            <i v-for="m in scales[side].marks" :key="m" :style="{ left: shareOf(m, scales[side].end) }" class="fig">{{
              given(m)
            }}</i>
          </span>
          <span>ping, ms</span>
        </div>
        <div v-for="l in lines" :key="l.setup?.row.id ?? 'none'" class="line" :class="{ marked: l.setup?.row.mark }">
          <strong>{{ l.setup?.row.mark ?? '' }}</strong>
          <span class="traits">
            <template v-if="l.setup">
              <span v-for="[t, words] in traits(l)" :key="t" :class="{ changed: l.changed.includes(t) }">{{ words }}</span>
            </template>
            <span v-else>{{ l.words }}</span>
            <span v-if="l.summary.band" class="soft">{{ l.summary.band }}</span>
          </span>
          <span class="fig" data-name="RSRP, dBm">{{ l.summary.rsrp ? num(l.summary.rsrp.median) : '–' }}</span>
          <span class="fig" data-name="SINR, dB">{{ l.summary.sinr ? num(l.summary.sinr.median) : '–' }}</span>
          <span
            v-for="side in SIDES"
            :key="side"
            class="plot"
            role="img"
            :aria-label="`${side}: ${plotWords(l, side)}`"
            :data-name="`${side}, Mbit/s`"
          >
            <i v-for="m in scales[side].marks" :key="m" class="mark" :style="{ left: shareOf(m, scales[side].end) }" />
            <i v-if="agreed[side] !== null" class="agreed" :style="{ left: shareOf(agreed[side]!, scales[side].end) }" />
            <template v-for="d in dots(l, side)" :key="d.id">
              <i
                v-if="d.value !== null"
                class="dot"
                :style="{ left: shareOf(d.value, scales[side].end), top: `calc(50% + ${d.jitter}px)` }"
              />
            </template>
            <template v-if="l.summary[side]">
              <i class="median" :style="{ left: shareOf(l.summary[side]!.median, scales[side].end) }" />
              <b class="fig" :style="{ left: shareOf(l.summary[side]!.median, scales[side].end) }">{{
                mbps(l.summary[side]!.median)
              }}</b>
            </template>
          </span>
          <span class="fig" data-name="ping, ms">{{ l.summary.ping ? num(l.summary.ping.median) : '–' }}</span>
        </div>
        <p v-if="agreed.down !== null || agreed.up !== null" class="soft legend"><i class="agreed" /> agreed</p>
      </div>
      <section v-if="proof.shares" class="shares" data-test="shares">
        <h2>Where {{ signed(proof.shares.totalDb) }} dB of RSRP came from</h2>
        <p class="soft">Against {{ proof.shares.against }}.</p>
        <ol>
          <li v-for="s in proof.shares.shares" :key="s.share" :class="{ open: s.share === 'unexplained' }">
            <b>{{ s.share }}</b>
            <span class="bar" aria-hidden="true"
              ><i
                :class="{ less: s.db < 0 }"
                :style="{ width: `${(Math.abs(s.db) / widest) * 50}%`, [s.db < 0 ? 'right' : 'left']: '50%' }"
            /></span>
            <b class="fig">{{ signed(s.db, 1) }} dB</b>
            <span class="soft">{{ s.words }}</span>
          </li>
        </ol>
        <p class="soft">{{ proof.shares.reserve }}.</p>
      </section>
      <div class="said">
        <section>
          <h2>What this shows</h2>
          <p v-if="here && here.after.runs.length + here.after.readings.length" class="words">{{ here.words }}</p>
          <p v-else-if="!proven.length" class="soft">Nothing yet.</p>
          <dl v-if="proven.length">
            <template v-for="p in proven" :key="p.what + p.words">
              <dt>{{ p.what }}</dt>
              <dd>{{ p.words }}</dd>
            </template>
          </dl>
        </section>
        <section>
          <h2>What it does not</h2>
          <ul v-if="proof.unproven.length">
            <li v-for="u in proof.unproven" :key="u">{{ u }}</li>
          </ul>
          <p v-else class="soft">Nothing changed together, and nothing needed is untested.</p>
        </section>
      </div>
    </div>
    <aside>
      <section v-if="session.mayEdit" class="enter">
        <h2>After, at</h2>
        <MvChoice
          :value="picked"
          :save="v => (picked = v)"
          :choices="spots.map(s => ({ value: s.id, title: s.name + (s.needed ? ' (must be proved)' : '') }))"
          aria-label="Spot"
          data-test="after-spot"
        />
        <ReadingEntry v-if="spot" :key="spot.id" :spot-id="spot.id" after />
      </section>
      <section v-if="proof.nextSteps.length" data-test="next-steps">
        <h2>{{ proof.nextSteps.length === 1 ? 'Next step' : 'Next steps, the most promising first' }}</h2>
        <ol class="steps">
          <li v-for="s in proof.nextSteps" :key="s.words">
            {{ s.words }}<span v-if="s.times > 1" class="soft">, about {{ num(s.times, 1) }} times the download</span>
          </li>
        </ol>
      </section>
    </aside>
  </div>
</template>

<style scoped>
.proof {
  height: 100%;
  display: grid;
  grid-template-columns: 1fr 460px;
}
.picture {
  overflow: auto;
}
.verdict {
  padding: 16px 20px;
  display: flex;
  flex-direction: column;
  border-bottom: 1px solid var(--mv-ink);
  background: var(--mv-sheet);
}
.verdict strong {
  font-size: 20px;
}
.verdict.met strong {
  color: var(--mv-met);
}
.verdict.short strong {
  color: var(--mv-short);
}
.verdict span {
  color: var(--mv-soft);
}
.table {
  padding: 10px 20px 6px;
  overflow-x: auto;
}
.table header {
  display: flex;
  gap: 14px;
  align-items: baseline;
  flex-wrap: wrap;
}
.table select {
  appearance: auto;
}
.line {
  display: grid;
  grid-template-columns: 52px minmax(150px, 1fr) 64px 56px minmax(140px, 1.5fr) minmax(100px, 1fr) 56px;
  gap: 22px;
  align-items: center;
  min-height: 58px;
  border-bottom: 1px solid var(--mv-line);
}
.line.heads {
  min-height: 40px;
  align-items: end;
  font-size: 12.5px;
}
.line.marked {
  background: var(--mv-sheet);
}
.scale {
  position: relative;
  height: 34px;
  border: 0;
}
.scale i {
  position: absolute;
  bottom: 0;
  transform: translateX(-50%);
  font-style: normal;
  font-size: 11.5px;
}
.traits {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  color: var(--mv-soft);
  font-size: 13px;
}
.traits .changed {
  color: var(--mv-ink);
  font-weight: 700;
}
.plot {
  position: relative;
  height: 56px;
}
.plot i {
  position: absolute;
}
.plot .mark {
  top: 0;
  bottom: 0;
  width: 1px;
  background: var(--mv-line);
}
.plot .dot {
  width: 8px;
  height: 8px;
  margin: -4px 0 0 -4px;
  border-radius: 50%;
  background: var(--mv-soft);
  opacity: 0.75;
}
.plot .median {
  top: 8px;
  bottom: 16px;
  width: 3px;
  margin-left: -1px;
  background: var(--mv-ink);
}
.plot b {
  position: absolute;
  bottom: 0;
  transform: translateX(-50%);
  font-size: 12.5px;
  background: var(--mv-paper);
  padding: 0 3px;
}
.marked .plot b {
  background: var(--mv-sheet);
}
.agreed {
  top: 0;
  bottom: 0;
  width: 3px;
  background: var(--mv-agreed);
  outline: 1px solid var(--mv-ink);
}
.legend {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 4px 0 0 12px;
  font-size: 12.5px;
}
.legend .agreed {
  height: 16px;
}
.shares {
  padding: 12px 20px 0;
}
.shares ol {
  list-style: none;
  margin: 6px 0;
  padding: 0;
}
.shares li {
  display: grid;
  grid-template-columns: 104px minmax(90px, 220px) 78px 1fr;
  gap: 0 14px;
  align-items: center;
  min-height: 30px;
  border-bottom: 1px solid var(--mv-line);
}
.shares .fig {
  text-align: right;
}
.bar {
  position: relative;
  height: 14px;
  background: linear-gradient(var(--mv-ink), var(--mv-ink)) 50% 0 / 1px 100% no-repeat;
}
.bar i {
  position: absolute;
  top: 2px;
  height: 10px;
  background: var(--mv-computed);
}
.bar i.less {
  background: var(--mv-short);
}
.open .bar i {
  background: none;
  border: 1.5px dashed var(--mv-soft);
}
.said {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 28px;
  padding: 12px 20px 20px;
}
.said dl {
  margin: 0;
}
.said dt {
  font-weight: 700;
  margin-top: 6px;
}
.said dd {
  margin: 0;
}
.words {
  font-weight: 600;
}
aside {
  border-left: 1px solid var(--mv-line);
  overflow: auto;
  padding: 12px 20px;
}
aside section {
  margin-bottom: 18px;
}
aside h2 {
  margin-bottom: 6px;
}
ul,
.steps {
  padding-left: 18px;
  margin: 0;
}
.pad {
  padding: 24px 20px;
  font-size: 16px;
}
@media (max-width: 900px) {
  .shares {
    padding: 12px 14px 0;
  }
  .shares li {
    grid-template-columns: 92px 1fr 72px;
    padding: 4px 0;
  }
  .shares li .soft {
    grid-column: 1 / -1;
    font-size: 12.5px;
  }
  .said {
    grid-template-columns: 1fr;
    padding: 12px 14px;
  }
  .line {
    grid-template-columns: 1fr 1fr;
    padding: 8px 0;
    gap: 4px 12px;
  }
  .line.heads {
    display: none;
  }
  /* without the heads, each figure names what it is of */
  .line [data-name]::before {
    content: attr(data-name) ' ';
    color: var(--mv-soft);
    font-family: var(--mv-sans);
    font-size: 12px;
    font-weight: 400;
  }
  .plot {
    height: 76px;
  }
  .plot .mark,
  .plot .agreed {
    top: 20px;
  }
  .plot .median {
    top: 26px;
  }
  .traits,
  .plot {
    grid-column: 1 / -1;
  }
  .proof {
    display: block;
    overflow: auto;
  }
  .picture {
    overflow: visible;
  }
  aside {
    border: 0;
    overflow: visible;
    padding: 12px 14px;
  }
}
</style>
