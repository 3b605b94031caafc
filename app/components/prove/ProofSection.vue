<script setup lang="ts">
import { num, signed } from '#core/units'
import type { SpotProof } from '#core/promise/proof'

/** Before and after at the same spots; the promise scored; what stays unproven. */
const store = useJob()
const session = useSession()
const proof = computed(() => store.result!.proof)
const spots = computed(() => store.doc!.spots)
const picked = ref(
  store.result!.proof.judged?.before.spot.id ??
    store.doc!.spots.find(s => s.needed)?.id ??
    store.job!.baselineSpotId ??
    spots.value[0]?.id ??
    '',
)
const spot = computed(() => spots.value.find(s => s.id === picked.value))
const top = computed(
  () =>
    Math.max(
      1,
      store.job!.agreedDownMbps ?? 0,
      ...proof.value.spots.flatMap(p => [p.before.down?.high ?? 0, p.after.down?.high ?? 0]),
    ) * 1.12,
)
const pct = (v: number) => `${Math.min(100, (v / top.value) * 100)}%`
const rows = computed(() => {
  const list = [...proof.value.spots]
  return list.sort((a, b) => Number(b === proof.value.judged) - Number(a === proof.value.judged))
})
const change = (p: SpotProof) =>
  [
    p.rsrpChangeDb !== null ? `${signed(p.rsrpChangeDb)} dB level` : '',
    p.sinrChangeDb !== null ? `${signed(p.sinrChangeDb)} dB SINR` : '',
  ]
    .filter(Boolean)
    .join(' · ')
const scored = computed(() => proof.value.scored)
</script>

<template>
  <div class="proof">
    <div class="picture">
      <div class="verdict" :class="proof.verdict.met === null ? 'open' : proof.verdict.met ? 'met' : 'short'" data-test="verdict">
        <strong>{{ proof.verdict.words }}</strong>
        <span v-if="scored"
          >promised {{ num(scored.low, 1) }}–{{ num(scored.high, 1) }}, measured {{ num(scored.got, 1) }}:
          {{ scored.inside ? 'as promised' : scored.got > scored.high ? 'better than promised' : 'less than promised' }}</span
        >
      </div>
      <p v-if="!rows.length" class="soft pad">
        Nothing measured yet. Before is read in Survey; after is read here, at the same spots, at the same hour.
      </p>
      <article v-for="p in rows" :key="p.before.spot.id" :class="{ judged: p === proof.judged }">
        <header>
          <h2>{{ p.before.spot.name }}</h2>
          <span class="soft">{{ p.before.spot.needed ? 'must be proved here' : '' }}</span><span class="fig soft">{{
            change(p)
          }}</span>
        </header>
        <div
          v-for="side in [
            ['before', p.before],
            ['after', p.after],
          ] as const"
          :key="side[0]"
          class="bar"
        >
          <span>{{ side[0] }}</span>
          <div v-if="p.before.down || p.after.down" class="track">
            <i v-if="side[1].down" class="fill" :class="side[0]" :style="{ width: pct(side[1].down.median) }" />
            <i
              v-if="side[1].down && side[1].down.count > 1"
              class="whisk"
              :style="{ left: pct(side[1].down.low), width: `calc(${pct(side[1].down.high)} - ${pct(side[1].down.low)})` }"
            />
            <i v-if="store.job!.agreedDownMbps !== null" class="agreed" :style="{ left: pct(store.job!.agreedDownMbps) }" />
          </div>
          <span class="fig"
            ><b>{{ side[1].down ? num(side[1].down.median, 1) : '–' }}</b> ↓ {{ side[1].up ? num(side[1].up.median, 1) : '–' }} ↑
            · {{ side[1].rsrp ? num(side[1].rsrp.median) : '–' }} dBm · {{ side[1].sinr ? num(side[1].sinr.median) : '–' }} dB ·
            {{ side[1].runs.length }} tests</span
          >
        </div>
        <p class="words">{{ p.words }}</p>
      </article>
    </div>
    <aside>
      <section v-if="session.mayEdit" class="enter">
        <h2>After, at</h2>
        <v-select
          v-model="picked"
          :items="spots.map(s => ({ value: s.id, title: s.name + (s.needed ? ' (must be proved)' : '') }))"
          aria-label="Spot"
          data-test="after-spot"
        />
        <ReadingEntry v-if="spot" :key="spot.id" :spot-id="spot.id" phase="after" />
      </section>
      <section v-if="proof.nextStep">
        <h2>Next step</h2>
        <p>{{ proof.nextStep }}</p>
      </section>
      <section v-if="proof.unproven.length">
        <h2>Not proven by this</h2>
        <ul>
          <li v-for="u in proof.unproven" :key="u">{{ u }}</li>
        </ul>
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
article {
  padding: 14px 20px;
  border-bottom: 1px solid var(--mv-line);
}
article.judged {
  box-shadow: inset 4px 0 var(--mv-ink);
}
article header {
  display: flex;
  gap: 14px;
  align-items: baseline;
  margin-bottom: 6px;
}
article header .fig {
  margin-left: auto;
}
.bar {
  display: grid;
  grid-template-columns: 54px 1fr;
  gap: 2px 10px;
  align-items: center;
}
.bar > .fig {
  grid-column: 2;
  font-size: 12.5px;
  color: var(--mv-soft);
  margin-bottom: 6px;
}
.bar > .fig b {
  color: var(--mv-ink);
  font-size: 14px;
}
.track {
  position: relative;
  height: 20px;
  background: var(--mv-ground);
}
.track i {
  position: absolute;
  top: 0;
  bottom: 0;
}
.fill.before {
  background: repeating-linear-gradient(45deg, var(--mv-soft) 0 3px, transparent 3px 6px);
  border: 1px solid var(--mv-soft);
}
.fill.after {
  background: var(--mv-ink);
}
.track .whisk {
  top: 8px;
  bottom: 8px;
  border: 1px solid var(--mv-paper);
  background: var(--mv-soft);
}
.agreed {
  width: 3px;
  background: var(--mv-agreed);
  outline: 1px solid var(--mv-ink);
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
ul {
  padding-left: 18px;
  margin: 0;
}
.pad {
  padding: 24px 20px;
  font-size: 16px;
}
@media (max-width: 900px) {
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
