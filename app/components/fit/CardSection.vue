<script setup lang="ts">
import { nowUtc } from '~/replica/clock'
import { layoutSection } from '#core/drawing/section'
import { along } from '#core/site/frame'
import { presentStop } from '#core/survey/place'
import { num, say } from '#core/units'
import { cardOf, gateBefore } from '#core/work/card'
import type { CardStep } from '#core/work/card'
import type { FactState, GateId } from '#core/work/gates'
import { soonestByTwo, spanOf } from '#core/work/order'

/** What to do next, with everything at hand: the step, where it is, what must be true now, what comes after. */
const store = useJob()
const session = useSession()
const prefs = usePrefs()
const { el, width, height } = useWidth()
const now = useNow({ interval: 15_000 })
const { once, doing } = useOnce()
const { add: addPhotos, busy, error: photoError } = usePhotos()
const t = (s: string) => say(s, prefs.units)

const card = computed(() => cardOf(store.here!, store.result!))
const steps = computed(() => card.value.steps)
const picked = ref<string | null>(null)
const step = computed(() => steps.value.find(s => s.id === picked.value) ?? card.value.next ?? steps.value.at(-1) ?? null)
const index = computed(() => (step.value ? steps.value.indexOf(step.value) : -1))
const gate = computed(() => (step.value ? gateBefore(store.doc!, step.value, steps.value, now.value.toISOString()) : null))
const waitsFor = computed(() => (step.value?.needs ?? []).flatMap(id => steps.value.find(s => s.id === id && !s.done) ?? []))
const following = computed(() => steps.value.slice(index.value + 1).find(s => !s.done) ?? null)
const ready = computed(() => !!step.value && !step.value.done && !waitsFor.value.length && (gate.value?.open ?? true))
/** steps on one climb: what is up beside each other */
const onClimb = computed(() => {
  if (step.value?.stand !== 'up') return 0
  const up = (i: number) => steps.value[i]?.stand === 'up' && !steps.value[i]!.done
  let from = index.value
  let to = index.value
  while (up(from - 1)) from--
  while (up(to + 1)) to++
  return to - from + 1
})
const TITLES: Record<GateId, string> = {
  climb: 'No climbing until these are true now',
  drill: 'No hole until these are true now',
  raise: 'Nothing is raised until these are true now',
  energise: 'No power until these are true now',
  transmit: 'Nothing transmits until these are true now',
}
const spell = (minutes: number) =>
  minutes < 60 ? `${num(minutes)} min` : `${Math.floor(minutes / 60)} h ${String(Math.round(minutes % 60)).padStart(2, '0')}`

const mark = (s: CardStep, fields: { done: boolean; reason?: string | null }, label: string) =>
  store.commit(
    [
      {
        table: 'checks',
        op: 'insert',
        fields: {
          kind: 'step',
          key: s.id,
          reason: null,
          by: session.me!.name,
          atUtc: nowUtc(),
          stopId: presentStop(store.doc!)?.id ?? null,
          about: s.about,
          value: null,
          ...fields,
        },
      },
    ],
    label,
  )
const finish = () =>
  once(async () => {
    if (!step.value || !ready.value) return
    await mark(step.value, { done: true }, 'a step done')
    picked.value = null
  })
const undone = (s: CardStep) => once(() => mark(s, { done: false }, 'a step not done after all'))
const refusing = ref(false)
const why = ref('')
const refuse = () =>
  once(async () => {
    if (!step.value || !why.value.trim()) return
    await mark(step.value, { done: false, reason: why.value.trim() }, 'a step that is not so')
    refusing.value = false
    why.value = ''
    picked.value = null
  })
const fact = (f: FactState, done: boolean, value: number | null = null) =>
  store.commit(
    [
      {
        table: 'checks',
        op: 'insert',
        fields: {
          kind: 'fact',
          key: f.fact.key,
          done,
          reason: null,
          by: session.me!.name,
          atUtc: nowUtc(),
          stopId: presentStop(store.doc!)?.id ?? null,
          about: null,
          value,
        },
      },
    ],
    'what is true now',
  )
const tell = (f: FactState) => once(() => fact(f, !f.stands)).then(() => (now.value = new Date()))
const measure = (f: FactState) => async (v: number | null) => {
  const troubles = await fact(f, v !== null, v)
  now.value = new Date()
  return troubles
}
const saidBy = (f: FactState): string => {
  if (f.known !== null) return f.known
  if (!f.said?.atUtc || !f.said.done) return ''
  const at = new Date(f.said.atUtc).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false })
  return f.lapsed ? `${at}: lapsed, say it again` : `${f.said.by}, ${at}`
}
function shoot(e: Event) {
  const input = e.target as HTMLInputElement
  const s = step.value
  const node = s && store.doc!.nodes.find(n => s.id.endsWith(n.id))
  void addPhotos(input.files, { nodeId: node?.id, at: node ? null : (s?.at ?? null) }).then(() => (input.value = ''))
}

const view = computed(() =>
  width.value && height.value
    ? layoutSection(store.doc!, store.result!, {
        width: width.value,
        height: height.value,
        units: prefs.units,
        levels: false,
        compact: true,
        pins: true,
        loops: false,
        numberedRunId: step.value?.id.startsWith('pull:') ? step.value.id.slice(5) : null,
      })
    : null,
)
const ring = computed(() => {
  const v = view.value
  const at = step.value?.at
  return v && at ? { x: v.toX(along(store.site!, at, v.sign)), y: v.toY(at.upM) } : null
})
/** the open steps by where one stands: a climb is one block */
const blocks = computed(() => {
  const out: { stand: CardStep['stand'] | 'done'; steps: CardStep[] }[] = []
  for (const s of steps.value) {
    const stand = s.done ? 'done' : s.stand
    const last = out.at(-1)
    if (last?.stand === stand) last.steps.push(s)
    else out.push({ stand, steps: [s] })
  }
  return out
})
const STANDS = { 'done': 'done', 'in coverage': 'while there is coverage', 'ground': 'on the ground, inside', 'up': 'one climb' }
const listing = ref(false)
useKeys({
  d: { does: 'done, next', run: () => void finish() },
  j: { does: 'the step after', run: () => (picked.value = steps.value[index.value + 1]?.id ?? picked.value) },
  k: { does: 'the step before', run: () => (picked.value = steps.value[index.value - 1]?.id ?? picked.value) },
})
</script>

<template>
  <div class="cardpage">
    <p v-if="!steps.length" class="empty">
      No step yet: the card is made from the kit that is laid out in
      <NuxtLink :to="`/job/${store.id}/choose`">Choose</NuxtLink>.
    </p>
    <template v-else>
      <nav class="list" :class="{ listing }" aria-label="All steps">
        <section v-for="(b, i) in blocks" :key="i">
          <h3>
            {{ STANDS[b.stand] }}<span class="soft">{{ b.stand === 'up' ? ` · ${b.steps.length} steps` : '' }}</span>
          </h3>
          <ol>
            <li v-for="s in b.steps" :key="s.id">
              <button
                type="button"
                :class="{ on: s.id === step?.id, done: s.done, stopped: s.notSo }"
                :data-test="`step-${s.id.split(':')[0]}`"
                @click="((picked = s.id), (listing = false))"
              >
                <i aria-hidden="true">{{ s.done ? '✓' : s.notSo ? '!' : '' }}</i><span
                  >{{ t(s.words) }}<small v-if="s.changed" class="error">the plan changed since</small
                  ><small v-if="s.notSo" class="error">{{ s.notSo }}</small></span
                >
                <span class="fig soft">{{ s.done ? '' : `${num(spanOf(s.minutes).likely)} min` }}</span>
              </button>
            </li>
          </ol>
        </section>
      </nav>
      <article v-if="step" class="card" :class="{ listing }" :data-step="step.id" aria-live="polite">
        <div class="bar" aria-hidden="true">
          <i v-for="s in steps" :key="s.id" :class="{ done: s.done, here: s.id === step.id, stopped: s.notSo }" />
        </div>
        <p class="row soft">
          <button type="button" class="link" data-test="all-steps" @click="listing = !listing">
            step {{ index + 1 }} of {{ steps.length }}</button
          ><span v-if="onClimb > 1"> · one climb, {{ onClimb }} steps on it</span>
          <b class="fig left" data-test="time-left"
            >{{ spell(card.left.likely) }} ± {{ num(card.left.sigma) }} left{{
              step.people === 2 || onClimb ? `, two: ${spell(soonestByTwo(steps.filter(s => !s.done)))} at best` : ''
            }}</b
          >
        </p>
        <h1 data-test="step-words">{{ t(step.words) }}</h1>
        <div ref="el" class="picture">
          <DrawingView v-if="view" :drawing="view.drawing" label="Where this step is">
            <circle v-if="ring" :cx="ring.x" :cy="ring.y" r="16" class="ring" />
          </DrawingView>
          <label class="shoot"
            >{{ busy ? 'taking it in…' : 'photograph +'
            }}<input
              type="file"
              accept="image/*"
              capture="environment"
              :disabled="busy || !session.mayEdit"
              aria-label="photograph of this step"
              @change="shoot"
          /></label>
        </div>
        <p v-if="photoError" class="error" role="alert">{{ photoError }}</p>
        <section v-if="gate" class="gate" :class="{ open: gate.open }" data-test="gate">
          <h2>{{ gate.open ? 'Go: all of it is true now' : TITLES[gate.gate] }}</h2>
          <div v-for="f in gate.facts" :key="f.fact.key" class="fact" :class="{ stands: f.stands }">
            <template v-if="f.fact.figure">
              <span>{{ f.fact.words }}</span>
              <MvNumber
                :label="f.fact.key"
                :value="f.lapsed || !f.said?.done ? null : (f.said.value ?? null)"
                :unit="f.fact.figure.unit"
                :low="0"
                :high="1000"
                :decimals="1"
                :save="measure(f)"
                :data-test="`fact-${f.fact.key}`"
              />
            </template>
            <label v-else
              ><input
                type="checkbox"
                :checked="f.stands"
                :disabled="!session.mayEdit || f.known !== null || doing"
                :data-test="`fact-${f.fact.key}`"
                @change="tell(f)"
              /><span>{{ f.fact.words }}</span></label
            >
            <small :class="f.stop ? 'error' : 'soft'">{{ f.stop ?? saidBy(f) }}</small>
          </div>
        </section>
        <p v-if="waitsFor.length" class="waits">
          After: <span v-for="(w, i) in waitsFor.slice(0, 3)" :key="w.id">{{ i ? ', ' : '' }}{{ t(w.words) }}</span
          >{{ waitsFor.length > 3 ? ` and ${waitsFor.length - 3} more` : '' }}.
        </p>
        <dl>
          <template v-if="step.parts.length || step.tools.length">
            <dt>take {{ step.stand === 'up' ? 'up' : 'along' }}</dt>
            <dd>{{ t([...step.parts, ...step.tools].join(', ')) }}</dd>
          </template>
          <dt>then</dt>
          <dd>{{ t(step.then) }}</dd>
          <template v-if="step.figure">
            <dt>figure</dt>
            <dd>
              <b>{{ t(step.figure) }}</b>
            </dd>
          </template>
          <template v-if="step.photo">
            <dt>photo</dt>
            <dd>{{ step.photo }}</dd>
          </template>
          <template v-if="step.people === 2">
            <dt>who</dt>
            <dd>two people</dd>
          </template>
          <template v-if="step.dry">
            <dt>weather</dt>
            <dd>dry</dd>
          </template>
          <template v-if="following">
            <dt class="soft">next</dt>
            <dd class="soft">{{ t(following.words) }}</dd>
          </template>
        </dl>
        <p v-if="step.done" class="soft" data-test="done-by">
          Done by {{ step.mark?.by }}, {{ dayAndTime(step.mark!.atUtc!) }}.
          <span v-if="step.changed" class="error">The plan has changed since: look at it again.</span>
        </p>
        <p v-if="step.notSo" class="error">Not so: {{ step.notSo }}</p>
        <form v-if="refusing" class="refuse" @submit.prevent="refuse">
          <v-text-field v-model="why" label="What is not so" autofocus data-test="why" />
          <button type="submit" class="press">keep</button>
        </form>
        <div v-if="session.mayEdit" class="does">
          <template v-if="step.done">
            <button type="button" class="press" :disabled="doing" data-test="undone" @click="undone(step)">
              not done after all
            </button>
            <button v-if="card.next" type="button" class="press" @click="picked = null">to the next</button>
          </template>
          <template v-else>
            <button type="button" class="press finish" :disabled="!ready || doing" data-test="step-done" @click="finish">
              Done, next
            </button>
            <button v-if="step.notSo" type="button" class="press" :disabled="doing" data-test="so-now" @click="undone(step)">
              it is so now
            </button>
            <button v-else type="button" class="press" data-test="not-so" @click="refusing = !refusing">not so</button>
          </template>
        </div>
        <p class="soft">Local rules and licensed people decide; this card does not replace them.</p>
      </article>
    </template>
  </div>
</template>

<style scoped>
.cardpage {
  height: 100%;
  display: grid;
  grid-template-columns: minmax(300px, 420px) minmax(0, 1fr);
}
.list {
  overflow: auto;
  border-right: 1px solid var(--mv-line);
  padding: 12px 20px;
}
.list h3 {
  font-size: 13px;
  font-weight: 600;
  margin: 10px 0 4px;
}
.list ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.list button {
  width: 100%;
  display: grid;
  grid-template-columns: 18px 1fr auto;
  gap: 6px;
  text-align: left;
  background: none;
  border: 0;
  border-bottom: 1px solid var(--mv-line);
  padding: 6px 4px;
  color: var(--mv-ink);
  cursor: pointer;
}
.list button.on {
  background: var(--mv-ink);
  color: var(--mv-sheet);
}
.list button.on .soft,
.list button.on .error {
  color: inherit;
}
.list button.done {
  color: var(--mv-soft);
}
.list button.done.on {
  color: var(--mv-sheet);
}
.list i {
  font-style: normal;
  font-weight: 700;
  color: var(--mv-met);
}
.list .stopped i {
  color: var(--mv-short);
}
.list .on i {
  color: inherit;
}
.list small {
  display: block;
}
.card {
  overflow: auto;
  padding: 14px 24px 24px;
  max-width: 760px;
}
.bar {
  display: flex;
  gap: 2px;
}
.bar i {
  flex: 1;
  height: 8px;
  background: var(--mv-line);
}
.bar .done {
  background: var(--mv-met);
}
.bar .stopped {
  background: var(--mv-short);
}
.bar .here {
  background: var(--mv-ink);
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
.shoot {
  position: absolute;
  right: 10px;
  bottom: 8px;
  color: var(--mv-computed);
  background: var(--mv-sheet);
  padding: 4px 8px;
  cursor: pointer;
}
.shoot input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.shoot:focus-within {
  outline: 2px solid var(--mv-computed);
}
.gate {
  border: 2px solid var(--mv-short);
  background: var(--mv-sheet);
  padding: 10px 14px;
  margin: 12px 0;
}
.gate h2 {
  color: var(--mv-short);
  font-size: 16px;
}
.gate.open {
  border-color: var(--mv-met);
}
.gate.open h2 {
  color: var(--mv-met);
}
.fact {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  align-items: center;
  padding: 5px 0;
}
.fact label {
  display: flex;
  gap: 10px;
  align-items: flex-start;
}
.fact:not(.stands) label {
  font-weight: 600;
}
.fact input[type='checkbox'] {
  width: 22px;
  height: 22px;
  flex: none;
}
.fact > .v-input,
.fact :deep(.v-input) {
  max-width: 150px;
}
.waits {
  border-left: 4px solid var(--mv-agreed);
  padding-left: 10px;
}
dl {
  display: grid;
  grid-template-columns: 74px 1fr;
  gap: 6px 10px;
  margin: 12px 0;
}
dt {
  color: var(--mv-soft);
}
dd {
  margin: 0;
}
.does {
  display: flex;
  gap: 10px;
  margin: 12px 0;
}
.does .press {
  min-height: 56px;
  padding: 0 20px;
}
.does .finish {
  flex: 1;
  font-size: 17px;
  background: var(--mv-ink);
  color: var(--mv-sheet);
}
.does .finish:disabled {
  background: var(--mv-line);
  border-color: var(--mv-line);
  color: var(--mv-soft);
  opacity: 1;
}
.refuse {
  display: flex;
  gap: 8px;
  align-items: flex-start;
}
.empty {
  padding: 32px 20px;
  font-size: 16px;
}
@media (max-width: 900px) {
  .cardpage {
    display: block;
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
  .list button {
    min-height: 56px;
    align-items: center;
  }
  .card {
    padding: 12px 14px 24px;
    overflow: visible;
  }
  .card.listing .picture,
  .card.listing .gate,
  .card.listing dl {
    display: none;
  }
  .link {
    min-height: 44px;
    text-decoration: underline;
  }
  .picture {
    height: 190px;
  }
  .fact label {
    min-height: 56px;
    align-items: center;
  }
  .fact input[type='checkbox'] {
    width: 28px;
    height: 28px;
  }
  .does {
    position: sticky;
    bottom: 0;
    background: var(--mv-paper);
    padding: 8px 0;
  }
  .shoot {
    min-height: 44px;
    display: flex;
    align-items: center;
  }
}
</style>
