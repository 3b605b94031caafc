<script setup lang="ts">
import { layoutSection } from '#core/drawing'
import { along } from '#core/site'
import { climbOf, gatesBefore, hoursWords, mayGoOn, readsBeside } from '#core/card'
import type { CardStep } from '#core/card'
import { num } from '#core/units'

/** What to do next, with everything at hand: the step, where it is, what must be true now, what comes after. */
const store = useOpened()
const session = useSession()
const prefs = usePrefs()
const { el, width, height } = useWidth()
const now = useNow({ interval: 15_000 })
const { once, doing } = useOnce()
const { fleet } = useFleet()
const { note } = useChecks()
const t = useSay()

const { card, steps, lines, planned, visit } = useCard(now)
const picked = ref<string | null>(null)
const step = computed(() => steps.value.find(s => s.id === picked.value) ?? card.value.next ?? steps.value.at(-1) ?? null)
const index = computed(() => (step.value ? steps.value.indexOf(step.value) : -1))
const gates = computed(() => (step.value ? gatesBefore(store.here, step.value, steps.value, now.value.toISOString()) : []))
const waitsFor = computed(() => (step.value?.needs ?? []).flatMap(id => steps.value.find(s => s.id === id && !s.done) ?? []))
const following = computed(() => steps.value.slice(index.value + 1).find(s => !s.done && !s.waits && !s.hardensUntil) ?? null)
/** what the dry run says against going on; it is done once something was read and nothing of it stops */
const dryTrouble = computed(() => {
  if (step.value?.id !== 'dry-run') return ''
  const reads = readsBeside(store.doc, store.result.drill.dryRun).filter(r => r.value !== null)
  if (!reads.length) return 'Read at least one of these figures.'
  return mayGoOn(reads) ? '' : 'What was read stops here: find out, or change the plan.'
})
const ready = computed(
  () =>
    !!step.value &&
    !step.value.done &&
    !waitsFor.value.length &&
    !step.value.hardensUntil &&
    gates.value.every(g => g.open) &&
    !dryTrouble.value,
)
const climb = computed(() => (step.value ? climbOf(steps.value, step.value) : null))
/** before the ladder: everything that goes up, once */
const bundle = computed(() =>
  climb.value && climb.value.steps.length > 1 && climb.value.steps[0] === step.value ? climb.value.takes : null,
)
/** how many steps something late holds up */
const heldUp = computed(() => steps.value.filter(s => s.waits).length)
const spell = (minutes: number) =>
  minutes < 60 ? `${num(minutes)} min` : `${Math.floor(minutes / 60)} h ${String(Math.round(minutes % 60)).padStart(2, '0')}`

const mark = (s: CardStep, said: { done: boolean; reason?: string | null }, label: string) =>
  note({ kind: 'step', key: s.id, about: s.about, ...said }, label)
const finish = () =>
  once(async () => {
    if (!step.value || !ready.value) return
    const said = mark(step.value, { done: true }, 'a step done')
    // The next step stands there at once; the device writes beside it.
    picked.value = null
    await said
  })
const undone = (s: CardStep) => once(() => mark(s, { done: false }, 'a step not done after all'))
const stop = (why: string) =>
  once(async () => {
    if (!step.value) return
    await mark(step.value, { done: false, reason: why }, 'a problem with a step')
    picked.value = null
  })
const dropOwn = (s: CardStep) =>
  once(async () => {
    await store.commit([{ table: 'ownSteps', op: 'delete', rowId: s.id.slice('own:'.length) }], 'a step by hand taken away')
    picked.value = null
  })

const photos = computed(() => store.doc.photos.filter(p => step.value && p.stepKey === step.value.id))

/** the cable that is pulled; the picture is drawn anew for another one alone, not for every step */
const pulledRunId = computed(() => (step.value?.id.startsWith('pull:') ? step.value.id.slice(5) : null))
const view = computed(() =>
  width.value && height.value
    ? layoutSection(planned.value, store.result, {
        width: width.value,
        height: height.value,
        units: prefs.units,
        levels: false,
        compact: true,
        pins: true,
        loops: false,
        numberedRunId: pulledRunId.value,
      })
    : null,
)
const ring = computed(() => {
  const v = view.value
  const at = step.value?.at
  return v && at ? { x: v.toX(along(store.site, at, v.sign)), y: v.toY(at.upM) } : null
})
const { width: screen } = useWindowSize()
/** by thumb the day by the clock has no room */
const roof = computed(() => screen.value <= 900)
const listing = ref(false)
const days = ref(false)
useKeys({
  d: { does: 'done, next', run: () => void finish() },
  j: { does: 'the step after', run: () => (picked.value = steps.value[index.value + 1]?.id ?? picked.value) },
  k: { does: 'the step before', run: () => (picked.value = steps.value[index.value - 1]?.id ?? picked.value) },
  v: { does: 'days on site', run: () => (days.value = true) },
})
</script>

<template>
  <div class="cardpage">
    <p v-if="!steps.length" class="empty">
      No step yet: the card is made from the kit that is laid out in
      <NuxtLink :to="`/job/${store.id}/choose`">Choose</NuxtLink>.
    </p>
    <template v-else>
      <DayStrip
        v-if="!roof && card.steps.some(s => !s.done)"
        class="strip"
        :steps="steps"
        :visit="visit"
        :step-id="step?.id ?? null"
        @pick="id => (picked = id)"
      />
      <div class="scroll">
        <nav v-if="!roof || listing" class="list" :class="{ listing }" aria-label="All steps">
          <p class="when">
            <button type="button" class="plain" data-test="days" @click="days = true">
              {{
                visit
                  ? `${dayWords(visit.onDay)}, ${hoursWords(visit)}${visit.team ? `, ${visit.team}` : ''}`
                  : 'no day on site yet'
              }}
            </button>
            <a
              :href="`/api/jobs/${store.id}/plan.pdf?what=card&units=${prefs.units}`"
              download="job-card.pdf"
              data-test="card-pdf"
              >on paper</a
            >
            <NuxtLink v-if="fleet" :to="`/fleet/${store.id}`" data-test="fleet">fleet of {{ fleet.units.length }}</NuxtLink>
            <NuxtLink v-else-if="session.mayEdit" :to="`/fleet/${store.id}`" class="soft">more like it</NuxtLink>
          </p>
          <StepList :steps="steps" :step-id="step?.id ?? null" @pick="id => ((picked = id), (listing = false))" />
        </nav>
        <article v-if="step" class="card" :class="{ listing }" :data-step="step.id" aria-live="polite">
          <StepBar :steps="steps" :step-id="step.id" />
          <p class="row soft">
            <button type="button" class="link" data-test="all-steps" @click="listing = !listing">
              step {{ index + 1 }} of {{ steps.length }}</button
            ><span v-if="climb && climb.steps.length > 1"> · one climb, {{ climb.steps.length }} steps on it</span>
            <b class="fig left" data-test="time-left">{{
              card.left.likely ? `${spell(card.left.likely)} ± ${num(card.left.sigma)} left` : 'all done'
            }}</b>
          </p>
          <h1 data-test="step-words">{{ t(step.words) }}</h1>
          <div ref="el" class="picture">
            <DrawingView v-if="view" :drawing="view.drawing" label="Where this step is">
              <circle v-if="ring" :cx="ring.x" :cy="ring.y" r="16" class="ring" />
            </DrawingView>
          </div>
          <div v-if="photos.length" class="photos"><PhotoThumb v-for="p in photos" :key="p.id" :photo="p" /></div>
          <GateBox v-for="g in gates" :key="`${g.gate} ${g.need.of}`" :gate="g" @said="now = new Date()" />
          <DryRunReads v-if="step.id === 'dry-run' && !step.done" />
          <p v-if="dryTrouble && !step.done" class="waits" data-test="dry-trouble">{{ dryTrouble }}</p>
          <p v-if="step.hardensUntil && !step.done" class="waits" data-test="hardens">
            What was filled or glued hardens until {{ dayAndTime(step.hardensUntil) }}; its maker’s sheet wins.
          </p>
          <p v-if="waitsFor.length" class="waits">
            After: <span v-for="(w, i) in waitsFor.slice(0, 3)" :key="w.id">{{ i ? ', ' : '' }}{{ t(w.words) }}</span
            >{{ waitsFor.length > 3 ? ` and ${waitsFor.length - 3} more` : '' }}.
          </p>
          <StepFacts v-if="!listing" :step="step" :bundle="bundle" :following="following" :held-up="heldUp" />
          <StepTaught :key="step.id" :step="step" :fleet="fleet" />
          <p v-if="step.done" class="soft" data-test="done-by">
            {{ step.mark ? `Done by ${step.mark.by}, ${dayAndTime(step.mark.atUtc!)}.` : 'Done: the job itself shows it.' }}
            <span v-if="step.against" class="error" data-test="against">{{ step.against }}.</span>
            <span v-if="step.changed" class="error">The plan has changed since: look at it again.</span>
          </p>
          <p v-if="step.notSo" class="error">Problem: {{ step.notSo }}</p>
          <p class="soft">Local rules and licensed people decide; this card does not replace them.</p>
        </article>
      </div>
      <StepDoes
        v-if="step && session.mayEdit"
        class="reach"
        :step="step"
        :ready="ready"
        :busy="doing"
        :has-next="!!card.next"
        @done="finish"
        @undone="undone(step)"
        @next="picked = null"
        @problem="stop"
        @drop="dropOwn(step)"
      />
      <VisitSheet v-model="days" :card="card" :lines="lines" />
    </template>
  </div>
</template>

<style scoped>
.cardpage {
  height: 100%;
  display: grid;
  grid-template-columns: minmax(300px, 420px) minmax(0, 1fr);
  grid-template-rows: auto minmax(0, 1fr) auto;
}
.scroll {
  display: contents;
}
.list {
  grid-row: 2 / 4;
}
.card,
.reach {
  grid-column: 2;
}
.strip {
  grid-column: 1 / -1;
}
.when {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 12px;
  align-items: baseline;
}
.when a {
  color: var(--mv-computed);
}
.photos {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  margin: 8px 0;
}
.list {
  overflow: auto;
  border-right: 1px solid var(--mv-line);
  padding: 12px 20px;
}
.card {
  overflow: auto;
  padding: 14px 24px 24px;
  max-width: 760px;
}
.row {
  display: flex;
  gap: 8px;
  align-items: baseline;
  margin: 6px 0;
}
.row .left {
  margin-left: auto;
  color: var(--mv-ink);
}
.link {
  background: none;
  border: 0;
  padding: 0;
  color: var(--mv-soft);
  cursor: pointer;
}
h1 {
  font-size: 24px;
  margin: 4px 0 8px;
}
.picture {
  position: relative;
  height: 240px;
  overflow: hidden;
}
.ring {
  fill: none;
  stroke: var(--mv-short);
  stroke-width: 3;
}
.waits {
  border-left: 4px solid var(--mv-agreed);
  padding-left: 10px;
}
.empty {
  padding: 32px 20px;
  font-size: 16px;
}
@media (max-width: 900px) {
  .cardpage {
    display: flex;
    flex-direction: column;
  }
  .scroll {
    display: block;
    flex: 1;
    min-height: 0;
    overflow: auto;
  }
  .list {
    display: none;
    border: 0;
    padding: 12px 14px;
  }
  .list.listing {
    display: block;
  }
  .card {
    padding: 12px 14px 24px;
    overflow: visible;
  }
  .card.listing .picture,
  .card.listing .gate {
    display: none;
  }
  .link {
    min-height: 44px;
    text-decoration: underline;
  }
  .picture {
    height: 190px;
  }
}
</style>
