<script setup lang="ts">
import { proxy } from 'comlink'
import { nowUtc } from '~/replica/clock'
import { sayExpected } from '#core/promise'
import type { Advice, Advised } from '#core/solve'
import type { Kit, PartChoice } from '#core/fitting'
import { given, num } from '#core/units'
import { ticksFromZero } from '#core/drawing'
import { lastOf } from '#core/sure'

/** Every way worked out on this site as a whole design, ranked, on one scale with what was agreed. */
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
const agreed = computed(() => store.job.agreedDownMbps)
/** one scale for all rows, so that they compare at a glance */
const ticks = computed(() => {
  const top = Math.max(agreed.value ?? 0, ...(advised.value?.advice ?? []).map(a => a.down?.high ?? 0))
  return top > 0 ? ticksFromZero(top, 4) : []
})
const at = (v: number) => shareOf(v, lastOf(ticks.value))
const COUNTS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve']
const title = computed(() => {
  const count = advised.value?.advice.length ?? 0
  return `${COUNTS[count] ?? count} ${count === 1 ? 'way' : 'ways'} for this ${store.job.kind}, best first`
})
const holes = ({ holes: h }: Advice): string =>
  [h.outside ? `${h.outside} out` : '', h.inside ? `${h.inside} in` : ''].filter(Boolean).join(', ') || 'none'
const up = (a: Advice): string => (a.up ? num(a.up.median, a.up.median < 10 ? 1 : 0) : '–')
const hours = (a: Advice): string => (a.hours ? `${num(a.hours, a.hours % 1 ? 1 : 0)} h` : 'none')
/** in one line, where there is no room for columns */
const facts = (a: Advice): string => {
  const { outside, inside } = a.holes
  const drilled = [outside ? `${outside} hole${outside > 1 ? 's' : ''} out` : '', inside ? `${inside} in ceilings` : '']
  return [
    a.up ? `up ${up(a)}` : '',
    `calls ${CALL_WORDS[a.calls]}`,
    a.hours ? hours(a) : 'no work',
    COST_WORDS[a.cost],
    drilled.filter(Boolean).join(', ') || 'no hole',
  ]
    .filter(Boolean)
    .join(' · ')
}
/** whose limits are all shown */
const full = ref<Advice['id'] | null>(null)
/** what can be laid out: all that is a kit; the best of them is the main action */
const best = computed(() => advised.value?.advice.find(a => a.kit)?.id ?? null)
</script>

<template>
  <section class="ways" aria-label="Which way" data-test="advice">
    <header>
      <h2>{{ advised ? title : 'Working each way out…' }}</h2>
      <span v-if="advised" class="soft">each worked out as a whole design on these readings</span>
    </header>
    <p v-if="failed" class="error" role="alert">{{ failed }}</p>
    <p v-if="advised?.none" class="none" role="note">{{ advised.none }}</p>
    <ul v-if="advised?.remarks.length" class="remarks" data-test="remarks">
      <li v-for="r in advised.remarks" :key="r">{{ r }}</li>
    </ul>
    <table v-if="advised">
      <thead>
        <tr>
          <th colspan="2"><span class="visually-hidden">way</span></th>
          <th class="axis fig" aria-label="Mbit/s down">
            <span v-for="t in ticks" :key="t" :style="{ left: at(t) }">{{ t }}</span>
            <b v-if="agreed !== null && ticks.length" :style="{ left: at(agreed) }" class="promised"
              >agreed {{ given(agreed) }}</b
            >
          </th>
          <th>up</th>
          <th>calls</th>
          <th>work</th>
          <th>cost</th>
          <th>holes</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(a, i) in advised.advice"
          :key="a.id"
          :class="{ first: !i }"
          :data-test="`advice-${a.id.replaceAll(' ', '-')}`"
        >
          <td class="glyph"><WayGlyph :way="a.id" /></td>
          <td class="name">
            <strong>{{ a.name }}</strong>
            <span
              ><b v-if="a.met" :class="a.met">{{ MET_WORDS[a.met] }}</b> {{ a.why }}</span
            >
            <small v-if="a.cannot.length" class="soft">
              Cannot {{ (full === a.id ? a.cannot : a.cannot.slice(0, 1)).join('; ')
              }}<button
                v-if="a.cannot.length > 1"
                type="button"
                class="link"
                :aria-expanded="full === a.id"
                @click="full = full === a.id ? null : a.id"
              >
                {{ full === a.id ? 'less' : `and ${a.cannot.length - 1} more` }}
              </button>
            </small>
            <small class="facts">{{ facts(a) }}</small>
          </td>
          <td class="axis">
            <i v-for="t in ticks" :key="t" class="tick" :style="{ left: at(t) }" />
            <i v-if="agreed !== null && ticks.length" class="agreed" :style="{ left: at(agreed) }" />
            <template v-if="a.down">
              <i
                class="range"
                :class="a.met"
                :style="{ left: at(a.down.low), width: `calc(${at(a.down.high)} - ${at(a.down.low)})` }"
              />
              <i class="mid" :style="{ left: at(a.down.median) }" />
              <b class="fig said" :style="{ left: `clamp(0px, calc(${at(a.down.median)} - 80px), calc(100% - 160px))` }"
                ><span>{{ sayExpected(a.down) }}</span></b
              >
              <small class="visually-hidden">Mbit/s down {{ a.where }}</small>
            </template>
            <small v-else class="soft">no figure yet</small>
          </td>
          <td class="fig">{{ up(a) }}</td>
          <td>{{ CALL_WORDS[a.calls] }}</td>
          <td class="fig">{{ hours(a) }}</td>
          <td>{{ COST_WORDS[a.cost] }}</td>
          <td>{{ holes(a) }}</td>
          <td class="act">
            <button
              v-if="a.kit"
              type="button"
              :class="a.id === best ? 'press filled small' : 'plain'"
              :disabled="busy || !session.mayEdit"
              :data-test="`lay-${a.id.replaceAll(' ', '-')}`"
              @click="emit('lay', a.kit, a.choice)"
            >
              lay out
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.ways {
  padding: 14px 20px;
}
header {
  display: flex;
  gap: 24px;
  align-items: baseline;
  flex-wrap: wrap;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--mv-soft);
  vertical-align: bottom;
  padding: 2px 8px;
}
.axis + * {
  padding-left: 24px;
}
td {
  padding: 10px 8px;
  vertical-align: top;
  border-bottom: 1px solid var(--mv-line);
}
.first td {
  background: var(--mv-sheet);
}
.first .glyph {
  box-shadow: inset 5px 0 var(--mv-ink);
}
.glyph {
  width: 76px;
  padding-left: 14px;
}
.name {
  max-width: 380px;
}
.name > * {
  display: block;
  font-size: 13px;
}
.name strong {
  font-size: 16px;
}
.axis {
  position: relative;
  width: 320px;
  height: 58px;
  padding: 0;
}
th.axis {
  height: 42px;
}
th.axis > * {
  position: absolute;
  bottom: 2px;
  transform: translateX(-50%);
}
th.axis .promised {
  bottom: 18px;
  color: var(--mv-ink);
  white-space: nowrap;
}
.axis i {
  position: absolute;
  top: 0;
  bottom: 0;
}
.axis .tick {
  border-left: 1px solid var(--mv-line);
}
.axis .agreed {
  width: 3px;
  margin-left: -1px;
  background: var(--mv-agreed);
}
.axis .range {
  top: 12px;
  bottom: auto;
  height: 16px;
  background: var(--mv-beam);
}
.axis .range.unlikely {
  background: color-mix(in srgb, var(--mv-short) 30%, var(--mv-paper));
}
.axis .mid {
  top: 9px;
  bottom: auto;
  height: 22px;
  width: 3px;
  margin-left: -1px;
  background: var(--mv-ink);
}
.said {
  position: absolute;
  top: 34px;
  width: 160px;
  text-align: center;
  white-space: nowrap;
}
/* the figure stands on a plate: no line of the scale goes through it */
.said span {
  padding: 0 6px;
  background: var(--mv-paper);
}
.first .said span {
  background: var(--mv-sheet);
}
.facts {
  display: none !important;
}
.link {
  background: none;
  border: 0;
  padding: 0 0 0 6px;
  text-decoration: underline;
  cursor: pointer;
}
.likely {
  color: var(--mv-met);
}
b.unlikely {
  color: var(--mv-short);
}
.act {
  text-align: right;
  white-space: nowrap;
}
.remarks {
  margin: 4px 0 8px;
  padding-left: 18px;
  max-width: 900px;
}
.none {
  border-left: 4px solid var(--mv-short);
  padding: 6px 12px;
}
@media (max-width: 900px) {
  .ways {
    padding: 10px 14px;
  }
  thead {
    display: none;
  }
  tr {
    display: grid;
    grid-template-columns: 60px 1fr auto;
    gap: 4px 10px;
    padding: 10px 0;
    border-bottom: 1px solid var(--mv-line);
  }
  tr td {
    display: none;
    padding: 0;
    border: 0;
    background: none !important;
    box-shadow: none !important;
  }
  tr .glyph,
  tr .name,
  tr .axis,
  tr .act {
    display: block;
    width: auto;
    max-width: none;
  }
  tr .name {
    grid-column: 2 / -1;
  }
  tr .axis {
    grid-column: 1 / 3;
  }
  tr .act {
    align-self: center;
  }
  .facts {
    display: block !important;
  }
  .link {
    min-height: 32px;
  }
  .first .said span {
    background: var(--mv-paper);
  }
  .act button {
    min-height: 48px;
  }
}
</style>
