<script setup lang="ts">
import { proxy } from 'comlink'
import { nowUtc } from '~/replica/clock'
import { sayExpected } from '#core/promise'
import type { Advice, Advised } from '#core/solve'
import type { Kit, PartChoice } from '#core/fitting'
import { given, num } from '#core/units'

/** Every approach worked out on this site, ranked: expected, calls, hours, holes, and why it stands where it stands. */
const emit = defineEmits<{ lay: [kit: Kit, choice: PartChoice] }>()
defineProps<{ busy: boolean }>()
const store = useOpened()
const session = useSession()
const { engine } = useEngine()
/** a change to the job, and a path come in, may turn the order */
const { answer: advised, failed } = useAsked<Advised>(
  [() => store.doc, () => store.result?.masts.length, () => store.pathsRunning],
  tell =>
    engine.advise(
      toRaw(store.doc),
      nowUtc(),
      proxy((soFar: Advised) => soFar.advice.length && tell(soFar)),
    ),
)
/** one scale for all rows, so that they compare at a glance */
const top = computed(
  () => Math.max(store.job.agreedDownMbps ?? 0, ...(advised.value?.advice ?? []).map(a => a.down?.high ?? 0)) || 1,
)
const at = (v: number) => shareOf(v, top.value)
const holes = ({ holes: h }: Advice): string =>
  [h.outside ? `${h.outside} hole${h.outside > 1 ? 's' : ''} out` : '', h.inside ? `${h.inside} in ceilings` : '']
    .filter(Boolean)
    .join(', ') || 'no hole'
const work = (a: Advice): string =>
  [a.hours ? `${num(a.hours, a.hours % 1 ? 1 : 0)} h` : 'no work', holes(a), COST_WORDS[a.cost]].join(' · ')
</script>

<template>
  <section class="advice" aria-label="Which approach" data-test="advice">
    <h2>
      Which approach, on this site
      <small v-if="store.job.agreedDownMbps !== null" class="soft"
        >agreed {{ given(store.job.agreedDownMbps) }} Mbit/s down</small
      >
    </h2>
    <p v-if="failed" class="error" role="alert">{{ failed }}</p>
    <p v-else-if="!advised" class="soft">Working each approach out…</p>
    <p v-if="advised?.none" class="none" role="note">{{ advised.none }}</p>
    <ul v-if="advised?.remarks.length" class="remarks" data-test="remarks">
      <li v-for="r in advised.remarks" :key="r">{{ r }}</li>
    </ul>
    <ol v-if="advised">
      <li v-for="(a, i) in advised.advice" :key="a.id" :data-test="`advice-${a.id.replaceAll(' ', '-')}`">
        <span class="rank fig">{{ i + 1 }}</span>
        <span class="name"
          ><strong>{{ a.name }}</strong
          ><small class="soft">{{ work(a) }}</small></span
        >
        <span class="got">
          <template v-if="a.down"
            ><b class="fig">{{ sayExpected(a.down) }}</b
            ><small class="soft">Mbit/s down {{ a.where }}</small
            ><span class="bar" aria-hidden="true"
              ><i class="range" :style="{ left: at(a.down.low), width: `calc(${at(a.down.high)} - ${at(a.down.low)})` }" /><i
                class="mid"
                :style="{ left: at(a.down.median) }" /><i
                v-if="store.job.agreedDownMbps !== null"
                class="agreed"
                :style="{ left: at(store.job.agreedDownMbps!) }" /></span
          ></template>
          <small v-else class="soft">not worked out</small>
        </span>
        <span class="why"
          ><b v-if="a.met" :class="a.met">{{ MET_WORDS[a.met] }}</b> {{ a.why }}
          <small v-if="a.cannot.length" class="soft">Cannot {{ a.cannot.join('; ') }}.</small></span
        >
        <button
          v-if="a.kit"
          type="button"
          class="press small"
          :disabled="busy || !session.mayEdit || !a.down"
          :data-test="`lay-${a.id.replaceAll(' ', '-')}`"
          @click="emit('lay', a.kit, a.choice)"
        >
          lay it out
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.advice {
  padding: 12px 20px;
}
h2 small {
  font-weight: 400;
  padding-left: 10px;
}
ol {
  list-style: none;
  padding: 0;
}
ol li {
  display: grid;
  grid-template-columns: 24px 230px 220px 1fr 100px;
  gap: 14px;
  align-items: start;
  padding: 9px 0;
  border-bottom: 1px solid var(--mv-line);
}
.remarks {
  margin: 4px 0 8px;
  padding-left: 18px;
  max-width: 900px;
}
.rank {
  font-size: 18px;
}
.name,
.got {
  display: flex;
  flex-direction: column;
}
.got b {
  font-size: 18px;
}
.bar {
  position: relative;
  height: 10px;
  margin-top: 4px;
  border-bottom: 1px solid var(--mv-line);
}
.bar i {
  position: absolute;
  top: 0;
  bottom: 2px;
}
.range {
  background: var(--mv-beam);
}
.mid {
  width: 2px;
  background: var(--mv-ink);
}
.agreed {
  width: 3px;
  background: var(--mv-agreed);
  outline: 1px solid var(--mv-ink);
}
.why small {
  display: block;
}
.likely {
  color: var(--mv-met);
}
.unlikely {
  color: var(--mv-short);
}
.none {
  border-left: 4px solid var(--mv-short);
  padding: 6px 12px;
}
@media (max-width: 900px) {
  .advice {
    padding: 10px 14px;
  }
  ol li {
    grid-template-columns: 22px 1fr auto;
    gap: 4px 10px;
  }
  .got,
  .why {
    grid-column: 2 / -1;
  }
  .press {
    grid-column: 3;
    grid-row: 1;
    min-height: 48px;
  }
}
</style>
