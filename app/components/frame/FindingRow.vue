<script setup lang="ts">
import { words } from '#core/words'
import { upsert } from '#core/job'
import type { Cure, Finding } from '#core/judge'
import { nowUtc } from '~/replica/clock'

/** One judgement: what, why, and the changes that would cure it. */
const props = defineProps<{ finding: Finding; brief?: boolean }>()
const store = useOpened()
const session = useSession()
const accepting = ref(false)
const reason = ref('')
const error = ref('')
const t = useSay()
const mark = { stop: 'STOP', fix: 'fix', note: 'note', good: 'good' }

/** cures that take a search are worked out in the worker, when the finding is looked at */
const solved = shallowRef<Cure[] | null>(null)
const { engine } = useEngine()
let asked = 0
watch(
  [() => props.finding, () => store.result],
  async ([f]) => {
    if (!f.solves || f.accepted) return
    const mine = ++asked
    const cures = await engine.cures(toRaw(store.doc), f.key, nowUtc()).catch(() => [])
    if (mine === asked) solved.value = cures
  },
  { immediate: true },
)
const cures = computed(() => (props.finding.solves ? (solved.value ?? []) : props.finding.cures))
/** what was pressed counts once: until the sum is worked out anew nothing more may be pressed */
const pressed = ref(false)
watch(
  () => store.result,
  () => (pressed.value = false),
)
async function cure(c: Cure) {
  if (pressed.value) return
  pressed.value = true
  error.value = (await store.cure(c))[0]?.message ?? ''
  if (error.value) pressed.value = false
}
/** what is not known is noted where it belongs, or left to who is on site, by a name */
const noteAt = computed(() => (props.finding.noted ? placeToNote(store.id, props.finding.noted) : null))
function onSite() {
  reason.value = 'decided on site'
  void accept()
}
async function accept() {
  if (!reason.value.trim()) {
    error.value = 'say why'
    return
  }
  const old = store.doc.checks.find(c => c.kind === 'accept' && c.key === props.finding.key)
  const fields = {
    kind: 'accept' as const,
    key: props.finding.key,
    done: true,
    reason: reason.value.trim(),
    by: session.member.name,
    atUtc: nowUtc(),
    stopId: null,
    about: null,
    value: null,
  }
  error.value = (await store.commit([upsert('checks', old?.id, fields)], 'accept a finding'))[0]?.message ?? ''
  accepting.value = false
}
async function reopen() {
  const old = store.doc.checks.find(c => c.kind === 'accept' && c.key === props.finding.key)
  if (old) await store.commit([{ table: 'checks', op: 'update', rowId: old.id, fields: { done: false } }], 'open a finding again')
}
</script>

<template>
  <article :class="['finding', finding.severity, { quiet: finding.accepted }]" :data-code="finding.code">
    <h3>
      <span class="mark">{{ mark[finding.severity] }}</span> {{ t(finding.title) }}
    </h3>
    <p>{{ t(finding.sentence) }}</p>
    <p v-if="!brief" class="soft why">
      {{ t(finding.because) }} <span>· {{ finding.source }}</span>
    </p>
    <p v-if="finding.solves && !solved && !finding.accepted" class="soft">working out what would cure it…</p>
    <div v-if="cures.length && !finding.accepted" class="cures">
      <button
        v-for="(c, i) in cures"
        :key="i"
        type="button"
        class="cure"
        :class="{ best: i === 0 }"
        :disabled="!session.mayEdit || pressed || !c.steps.length"
        @click="cure(c)"
      >
        <strong>{{ t(c.label) }}</strong><span class="fig">{{ t(c.gain) }}</span
        ><small>{{ t(c.enough || c.cost === 'not enough alone' ? c.cost : words`${c.cost} · not enough alone`) }}</small>
      </button>
    </div>
    <p v-if="finding.accepted" class="soft">
      accepted by {{ finding.accepted.by }}: {{ finding.accepted.reason }}
      <button type="button" class="tiny" @click="reopen">open again</button>
    </p>
    <p v-else-if="finding.holds && !brief" class="soft">This cannot be accepted: it is mended, or the work stops.</p>
    <p v-else-if="noteAt" class="notes">
      <NuxtLink :to="noteAt.path" class="tiny" data-test="note-it">note it in {{ noteAt.words }}</NuxtLink>
      <button v-if="session.mayEdit && !finding.holds" type="button" class="tiny" data-test="on-site" @click="onSite">
        decide on site, says {{ session.me?.name }}
      </button>
    </p>
    <template v-else-if="!brief && (finding.severity === 'stop' || finding.severity === 'fix') && session.mayEdit">
      <button v-if="!accepting" type="button" class="tiny" @click="accepting = true">accept with a reason</button>
      <form v-else class="accept" @submit.prevent="accept">
        <v-text-field v-model="reason" label="Why it may stay" autofocus :error-messages="error" />
        <button type="submit" class="press small">Accept as {{ session.me?.name }}</button>
      </form>
    </template>
    <p v-if="error && !accepting" class="error" role="alert">{{ error }}</p>
  </article>
</template>

<style scoped>
.finding {
  padding: 10px 0 10px 12px;
  border-left: 3px solid var(--mv-line);
  margin-bottom: 12px;
}
.stop {
  border-color: var(--mv-short);
}
.fix {
  border-color: var(--mv-agreed);
}
.good {
  border-color: var(--mv-met);
}
.quiet {
  opacity: 0.75;
}
h3 {
  font-size: 15px;
}
.mark {
  font-size: 11.5px;
  font-weight: 700;
  padding: 0 5px;
  border: 1px solid currentcolor;
  margin-right: 4px;
  vertical-align: 1px;
}
.stop .mark {
  background: var(--mv-short);
  border-color: var(--mv-short);
  color: var(--mv-sheet);
}
.good .mark {
  color: var(--mv-met);
}
.why {
  font-size: 12.5px;
  margin-top: 2px;
}
.cures {
  margin-top: 8px;
  display: grid;
  gap: 4px;
}
.cure {
  display: grid;
  grid-template-columns: 1fr auto;
  column-gap: 12px;
  text-align: left;
  padding: 5px 10px;
  border: 1px solid var(--mv-line);
  background: var(--mv-paper);
  cursor: pointer;
}
.cure strong {
  font-weight: 600;
}
.cure small {
  grid-column: 1 / -1;
  color: var(--mv-soft);
  font-size: 12.5px;
}
.cure.best {
  background: var(--mv-ink);
  color: var(--mv-sheet);
  border-color: var(--mv-ink);
}
.cure.best small {
  color: var(--mv-line);
}
[data-theme='night'] .cure.best small {
  color: var(--mv-paper);
}
.cure:hover:not(:disabled) {
  outline: 2px solid var(--mv-computed);
}
.notes {
  display: flex;
  gap: 16px;
}
.tiny {
  background: none;
  border: 0;
  padding: 4px 0;
  text-decoration: underline;
  cursor: pointer;
  color: var(--mv-soft);
  font-size: 12.5px;
}
.accept {
  display: flex;
  gap: 8px;
  align-items: start;
  margin-top: 6px;
}
@media (max-width: 640px) {
  .cure {
    min-height: 56px;
  }
  .tiny {
    min-height: 44px;
  }
  .accept {
    flex-direction: column;
  }
}
</style>
