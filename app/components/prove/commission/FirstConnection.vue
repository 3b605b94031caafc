<script setup lang="ts">
import {
  answers,
  cardFits,
  CAUSE_WORDS,
  clockOf,
  inferCause,
  LONGEST_S,
  REJECTS,
  SIM_MM,
  STATE_WORDS,
  TELLING,
  TEST_FACTS,
  TESTS,
} from '#core/connect'
import type { Lane, Telling, Test } from '#core/connect'
import { update } from '#core/job'
import type { Connection } from '#core/job'
import { num } from '#core/units'
import { nowUtc } from '~/replica/clock'

/** The one next step of a connection: SIM in, power on by the clock, what it reports, the likeliest cause and the next test. */
const props = defineProps<{ lane: Lane }>()
const store = useOpened()
const session = useSession()
const { note } = useChecks()
const row = computed(() => props.lane.row)
const now = ref(nowUtc())
useIntervalFn(() => (now.value = nowUtc()), 500)
const clock = computed(() => (row.value.poweredAtUtc ? clockOf(row.value.poweredAtUtc, now.value) : null))
const isCell = computed(() => row.value.kind === 'cellular')
const size = computed(() => props.lane.modem?.at.part.simSize ?? null)
const sizeMm = computed(() => (size.value && size.value !== 'eSIM' ? SIM_MM[size.value] : null))
const fits = computed(() => cardFits(props.lane.sim?.size ?? null, size.value ?? undefined))

const write = (fields: Partial<Connection>, label: string) => store.commit([update('connections', row.value.id, fields)], label)
const powerOn = () =>
  write({ poweredAtUtc: nowUtc(), state: isCell.value ? 'searching' : 'no internet', stateAtUtc: nowUtc() }, 'power on')
const startAgain = () => write({ poweredAtUtc: nowUtc(), state: 'searching', stateAtUtc: nowUtc() }, 'started anew')
const says = (state: Connection['state']) =>
  write({ state, stateAtUtc: nowUtc(), ...(answers(state) ? { poweredAtUtc: null } : {}) }, 'state of a connection')

/** What was tried is of this power-on alone. */
const keyOf = (what: string) => `first:${what}:${row.value.id}`
const said = (what: string) =>
  store.doc.checks.filter(c => c.kind === 'fact' && c.key === keyOf(what) && c.about === row.value.poweredAtUtc).at(-1)
const say = (what: string, done: boolean, value: number | null = null) =>
  note({ kind: 'fact', key: keyOf(what), done, value, about: row.value.poweredAtUtc }, 'a test of the first connection')
const telling = computed<Telling | null>(() =>
  // Two minutes of searching tell nothing yet.
  row.value.state === 'searching' && clock.value?.stage === 'usual' ? null : (TELLING.find(t => t === row.value.state) ?? null),
)
const reject = computed(() => said('reject')?.value ?? null)
const inferred = computed(() =>
  inferCause({
    state: telling.value,
    reject: reject.value,
    tests: Object.fromEntries(TESTS.flatMap(t => (said(t) ? [[t, said(t)!.done]] : []))),
  }),
)
const shown = computed(() => inferred.value.causes.filter((c, i) => i < 3 && c.share > 0.02))
const settled = computed(() => telling.value !== null && inferred.value.next === null)
const rejects = Object.entries(REJECTS).map(([code, r]) => ({ value: Number(code), title: `${code}: ${r.words}` }))
const answer = (t: Test, yes: boolean) => say(t, yes)
const portDrawing = computed(() => (props.lane.slot ? `slot ${props.lane.slot}` : props.lane.port))
</script>

<template>
  <section class="first" data-test="first-connection">
    <template v-if="!clock">
      <header>
        <h2>{{ isCell ? `${row.name} into ${portDrawing}` : `${row.name} to ${lane.port}` }}</h2>
        <button v-if="session.mayEdit" type="button" class="press filled" data-test="power-on" @click="powerOn">
          power is on now
        </button>
      </header>
      <div v-if="isCell" class="card">
        <svg viewBox="0 0 200 112" role="img" :aria-label="`the card, chip down, cut corner outward, into ${portDrawing}`">
          <rect x="1" y="1" width="64" height="110" fill="var(--mv-ground)" stroke="var(--mv-ink)" />
          <text x="10" y="20" font-size="12.5" fill="var(--mv-ink)">{{ portDrawing }}</text>
          <rect x="58" y="24" width="11" height="66" fill="var(--mv-ink)" />
          <path d="M82 30H144L158 44V86H82Z" fill="var(--mv-sheet)" stroke="var(--mv-ink)" stroke-width="2" />
          <path d="M90 62H120V80H90ZM105 62V80M90 71H120" fill="none" stroke="var(--mv-soft)" />
          <path d="M196 58H170M179 49L170 58L179 67" fill="none" stroke="var(--mv-ink)" stroke-width="2.2" />
        </svg>
        <dl>
          <dt class="short">Power off first</dt>
          <dd>then the cover</dd>
          <dt>{{ size ?? 'size of the slot' }}</dt>
          <dd>
            {{ sizeMm ? `${num(sizeMm[0], 1)} × ${num(sizeMm[1], 1)} mm` : 'by the box’s own sheet'
            }}{{
              fits === 'adapter'
                ? `; the ${lane.sim!.size} card wants its adapter`
                : fits === 'too large'
                  ? `; the ${lane.sim!.size} card is too large for it`
                  : ''
            }}
          </dd>
          <dt>chip down</dt>
          <dd>cut corner as drawn on the slot</dd>
          <dt>until it clicks</dt>
          <dd>a second push lets it out</dd>
        </dl>
      </div>
      <p class="soft">
        Power on is pressed at the moment the lamp lights: the clock runs from it, whatever becomes of this phone.
      </p>
    </template>
    <template v-else>
      <header>
        <h2>{{ row.name }}: {{ STATE_WORDS[row.state].words }}</h2>
        <b class="fig big" role="timer" :class="{ short: clock.stage === 'too long' }">{{ minutesSeconds(clock.s) }}</b>
      </header>
      <p class="stage">
        {{
          clock.stage === 'usual'
            ? 'Two minutes are usual: wait. Lamps wander.'
            : clock.stage === 'long'
              ? `Wait until ${LONGEST_S / 60} minutes; read what it reports meanwhile.`
              : 'Past five minutes it is SIM, plan or number, not the antenna.'
        }}
      </p>
      <div v-if="session.mayEdit" class="reports" role="group" aria-label="What it reports">
        <button type="button" class="press filled" data-test="it-answers" @click="says('up')">it answers</button>
        <button
          v-for="t in TELLING"
          :key="t"
          type="button"
          class="press small"
          :class="{ chosen: row.state === t }"
          :aria-pressed="row.state === t"
          :data-test="`says-${t.replaceAll(' ', '-')}`"
          @click="says(t)"
        >
          {{ STATE_WORDS[t].words }}
        </button>
      </div>
      <MvChoice
        v-if="row.state === 'denied'"
        label="Number of the refusal, where it is told"
        :value="reject"
        :choices="rejects"
        clearable
        :save="v => say('reject', v !== null, v)"
      />
      <template v-if="telling">
        <h3>Likeliest, by what is known</h3>
        <ol class="causes">
          <li v-for="c in shown" :key="c.cause">
            <span class="share" aria-hidden="true"><i :style="{ width: `${100 * c.share}%` }" /></span>
            <b class="fig">{{ num(100 * c.share) }} %</b>
            <span
              ><b>{{ CAUSE_WORDS[c.cause].words }}</b>
              <span class="soft">{{ CAUSE_WORDS[c.cause].whose }} to mend: {{ CAUSE_WORDS[c.cause].cure }}</span></span
            >
          </li>
        </ol>
        <div v-if="inferred.next && !settled" class="test" data-test="next-test">
          <p>
            <b>{{ TEST_FACTS[inferred.next.test].asks }}</b>
            <span class="soft"> {{ inferred.next.minutes }} min; it tells most for its time.</span>
          </p>
          <button
            v-for="(words, i) in TEST_FACTS[inferred.next.test].answers"
            :key="words"
            type="button"
            class="press"
            :data-test="i ? 'test-no' : 'test-yes'"
            @click="answer(inferred.next.test, i === 0)"
          >
            {{ words }}
          </button>
        </div>
        <p v-else-if="settled" class="stage">Sure enough: do that, then start it anew.</p>
      </template>
      <button v-if="session.mayEdit" type="button" class="plain" data-test="start-again" @click="startAgain">
        power off and on: start the clock anew
      </button>
    </template>
  </section>
</template>

<style scoped>
.first {
  padding: 14px 20px;
  display: grid;
  gap: 10px;
  align-content: start;
}
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 8px 16px;
  align-items: center;
}
.big {
  font-size: 30px;
  line-height: 1;
}
.short {
  color: var(--mv-short);
}
.card {
  display: grid;
  grid-template-columns: 200px 1fr;
  gap: 20px;
  align-items: center;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 16px;
  margin: 0;
}
dt {
  font-weight: 700;
}
dd {
  margin: 0;
  color: var(--mv-soft);
}
.stage {
  font-weight: 600;
}
.reports {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.chosen {
  background: var(--mv-ink);
  color: var(--mv-sheet);
}
.causes {
  list-style: none;
  margin: 0;
  padding: 0;
}
.causes li {
  display: grid;
  grid-template-columns: 90px 48px 1fr;
  gap: 10px;
  align-items: baseline;
  padding: 4px 0;
}
.causes .soft {
  display: block;
  font-size: 12.5px;
}
.causes .fig {
  text-align: right;
}
.share {
  height: 10px;
  background: var(--mv-line);
  position: relative;
}
.share i {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--mv-ink);
}
.test {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  border-left: 3px solid var(--mv-computed);
  padding-left: 12px;
}
.test p {
  flex: 1 0 100%;
}
@media (max-width: 900px) {
  .first {
    padding: 12px 14px;
  }
  .card {
    grid-template-columns: 1fr;
  }
  .card svg {
    max-width: 240px;
  }
  .first .press {
    min-height: 56px;
  }
  .big {
    font-size: 56px;
  }
}
</style>
