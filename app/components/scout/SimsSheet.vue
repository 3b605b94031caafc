<script setup lang="ts">
import { nowUtc } from '~/replica/clock'
import type { SimSide } from '#core/solve'
import { sayExpected } from '#core/promise'
import type { Expected } from '#core/promise'
import { NINE_IN_TEN } from '#core/survey'
import { bearing, distance, num } from '#core/units'

/** The SIMs side by side: for each its masts in order, and the same plan aimed at the best of them. */
const open = defineModel<boolean>({ required: true })
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const { engine } = useEngine()
const { answer: sides, failed } = useAsked<SimSide[]>(
  [() => store.whole, () => store.pathsRunning],
  () => engine.sims(toRaw(store.whole!), nowUtc()),
  200,
)
const agreed = computed(() => store.job?.agreedDownMbps ?? null)
const count = (n: number, one: string) => `${num(n)} ${one}${n === 1 ? '' : 's'}`
const ROWS: { label: string; of: (s: SimSide) => string; better?: (s: SimSide) => Expected | null }[] = [
  { label: 'SIM', of: s => s.sims.join(', ') || 'none yet' },
  { label: 'read here', of: s => `${count(s.readings, 'reading')}, ${count(s.tests, 'test')}` },
  {
    label: 'worked out for',
    of: s => (s.at ? `${s.at.mast.mast.name}${s.at.band ? `, ${s.at.band}` : ''}` : 'no mast of it can be used here'),
  },
  { label: 'down, Mbit/s', of: s => (s.down ? sayExpected(s.down) : '–'), better: s => s.down },
  { label: 'up, Mbit/s', of: s => (s.up ? sayExpected(s.up) : '–'), better: s => s.up },
  { label: 'where', of: s => s.where || '–' },
  { label: 'plan’s cap, down', of: s => (s.capDownMbps !== null ? `${num(s.capDownMbps)} Mbit/s` : 'not said') },
  { label: 'what was agreed', of: s => (s.met ? MET_WORDS[s.met] : '–') },
  { label: 'assumed', of: s => (s.down ? s.assumed.join('; ') || 'nothing' : '–') },
]
/** Told as better only where no other's interval reaches into its own. */
const isBest = (row: (typeof ROWS)[number], s: SimSide): boolean => {
  const mine = row.better?.(s)
  const others = (sides.value ?? []).filter(x => x !== s).map(x => row.better?.(x))
  return !!mine && others.every(x => !!x && x.high < mine.low)
}
const { doing, once } = useOnce()
const error = ref('')
const take = (s: SimSide) =>
  once(async () => {
    if (!s.at) return
    const wrong = await store.commit(
      [
        { table: 'jobs', op: 'update', rowId: store.job.id, fields: { carrier: s.carrier } },
        {
          table: 'designs',
          op: 'update',
          rowId: store.variant.id,
          fields: { mastId: s.at.mast.mast.id, band: s.at.band },
        },
      ],
      `plan for ${s.carrier}`,
    )
    error.value = wrong[0]?.message ?? ''
  })
</script>

<template>
  <MvSheet v-model="open" title="SIMs side by side" wide>
    <p v-if="failed" class="error" role="alert">{{ failed }}</p>
    <p v-else-if="!sides" class="soft" role="status">Working out each SIM…</p>
    <table v-else class="beside" data-test="sims">
      <thead>
        <tr>
          <th scope="col">
            <span class="soft"
              >{{ sides.some(s => s.usualKit) ? 'the usual kit' : 'the same plan' }}, turned to each{{
                agreed !== null ? `; agreed ${num(agreed)} Mbit/s down` : ''
              }}</span
            >
          </th>
          <th v-for="s in sides" :key="s.carrier" scope="col" :class="{ on: s.planned }">
            {{ s.carrier }}
            <small v-if="s.planned" class="soft">planned</small>
            <button
              v-else-if="s.at"
              type="button"
              class="press small"
              :disabled="doing || !session.mayEdit"
              :data-test="`take-${s.carrier}`"
              @click="take(s)"
            >
              plan for it
            </button>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">masts, best first</th>
          <td v-for="s in sides" :key="s.carrier" :class="{ on: s.planned }">
            <ol v-if="s.masts.length">
              <li v-for="m in s.masts" :key="m.mast.id">
                {{ m.mast.name }}
                <small class="fig"
                  >{{ bearing(m.bearingDeg) }}, {{ distance(m.distanceM, prefs.units)
                  }}<template v-if="m.best"
                    >, {{ m.best.band }} {{ num(m.best.rsrpDbm) }} ± {{ num(NINE_IN_TEN * m.best.sigmaDb) }} dBm</template
                  ></small
                >
              </li>
            </ol>
            <span v-else>none that can be used</span>
          </td>
        </tr>
        <tr v-for="row in ROWS" :key="row.label">
          <th scope="row">{{ row.label }}</th>
          <td v-for="s in sides" :key="s.carrier" :class="{ on: s.planned, best: isBest(row, s) }">{{ row.of(s) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <p class="soft">
      Each is worked out on what its own SIM read. A figure is bold only where no other reaches into its range: else read and test
      both at the mount before one is chosen.
    </p>
  </MvSheet>
</template>

<style scoped>
.beside {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
  margin-bottom: 12px;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: 5px 12px 5px 10px;
  border-bottom: 1px solid var(--mv-line);
  font-weight: 400;
}
thead th:not(:first-child) {
  font-size: 20px;
  font-weight: 700;
}
thead button,
thead small {
  font-size: 13px;
  font-weight: 400;
  margin-left: 8px;
}
th:first-child {
  width: 160px;
  padding-left: 0;
}
tbody th {
  color: var(--mv-soft);
}
ol {
  margin: 0;
  padding-left: 18px;
}
.on {
  background: var(--mv-sky);
}
.best {
  font-weight: 700;
}
@media (max-width: 640px) {
  th:first-child {
    width: 84px;
  }
  th,
  td {
    padding: 5px 6px 5px 4px;
    overflow-wrap: anywhere;
  }
  thead button,
  thead small {
    margin-left: 0;
  }
}
</style>
