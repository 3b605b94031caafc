<script setup lang="ts">
import { endNames, lineOf } from '#core/chain'
import { MOST_TURNED_DEG } from '#core/fitting'
import { cableLabels, layingOf, pulledFrom, pullingOrder } from '#core/install'
import type { CableLength } from '#core/fitting'
import { overData } from '#core/judge'
import { buildingOf } from '#core/site'
import { length, num } from '#core/units'

/** Every cable in the order in which it is pulled; the one picked with its pieces, bends, clips and plugs. */
const props = defineProps<{ cable: CableLength | null; piece: number | null }>()
const emit = defineEmits<{ pick: [runId: string]; piece: [index: number | null]; draw: []; add: []; take: []; straight: [] }>()
const store = useOpened()
const prefs = usePrefs()
const t = useSay()
const session = useSession()
const { unit, factor } = useLengths()
const building = computed(() => buildingOf(store.here))
const codes = computed(() => {
  const labels = store.result.tree && store.design ? cableLabels(store.result.tree, store.design.name) : []
  return new Map(labels.map(l => [l.runId, l.code]))
})
/** of what is alike the lower label first */
const cables = computed(() => {
  const code = (c: CableLength) => codes.value.get(c.joint.run.id) ?? ''
  const named = [...store.result.lengths].sort((a, b) => code(a).localeCompare(code(b), 'en', { numeric: true }))
  return pullingOrder(named)
})
const laid = computed(() => (props.cable ? layingOf(props.cable, building.value) : null))
const now = computed(() => props.cable?.way ?? null)
const chosenPiece = computed(() => now.value?.pieces.find(p => p.index === props.piece) ?? null)
const m = (v: number) => length(v, prefs.units)
const nameOf = (c: CableLength) => endNames(c.joint)
function tape(v: number | null) {
  const run = props.cable?.joint.run
  const piece = chosenPiece.value
  if (!run || !piece) return
  const pieces = Array.from({ length: (run.way?.length ?? 0) + 1 }, (_, i) => run.pieces?.[i] ?? null)
  pieces[piece.index] = v
  return store.commit(
    [{ table: 'runs', op: 'update', rowId: run.id, fields: { pieces: pieces.some(p => p !== null) ? pieces : null } }],
    'a piece measured',
  )
}
const instead = computed(() => {
  const words = overData(store.result)
  return words && t(words)
})
const picking = ref(false)
</script>

<template>
  <section v-if="cables.length">
    <div class="head">
      <h2>Cables, in the order they are pulled</h2>
      <button type="button" class="press bare small" data-test="labels" @click="picking = true">labels, list</button>
    </div>
    <PickListSheet v-model="picking" />
    <table>
      <thead>
        <tr>
          <th>label, from and to</th>
          <th>needs</th>
          <th>is</th>
          <th>corners</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="c in cables"
          :key="c.joint.run.id"
          :class="{ on: c.joint.run.id === cable?.joint.run.id, short: c.spareM < 0 }"
          data-test="cable-row"
        >
          <td>
            <button type="button" @click="emit('pick', c.joint.run.id)">
              <b class="fig">{{ codes.get(c.joint.run.id) }}</b> {{ nameOf(c) }}
            </button>
            <small class="soft"
              >{{ lineOf(c.joint)?.name
              }}{{ c.joint.run.partId && c.joint.run.measured ? ', measured' : c.way ? ', way drawn' : ', way guessed' }}</small
            >
          </td>
          <td class="fig" data-test="cable-needs">{{ m(c.neededM) }}</td>
          <td class="fig">{{ m(c.lengthM) }}</td>
          <td class="fig">{{ c.way ? c.way.bends : '–' }}</td>
        </tr>
      </tbody>
    </table>
    <div v-if="cable" class="one" data-test="one-cable">
      <p>
        <template v-if="now">
          <b class="fig">{{ m(now.lengthM) }}</b> by {{ now.pieces.length === 1 ? 'one piece' : `${now.pieces.length} pieces` }},
          turned <b class="fig" :class="{ error: now.turnedDeg > MOST_TURNED_DEG }">{{ num(now.turnedDeg) }}°</b>; with ends, drip
          and corners {{ m(now.neededM) }}.
        </template>
        <template v-else
          >Guessed from its two ends: {{ m(cable.neededM) }} with drip and plugs. Drawn, it is known better.
        </template>
        <span v-if="cable.spareM < 0" class="error">{{ m(-cable.spareM) }} too short.</span>
        <span v-else-if="cable.spareM > 0.5" class="soft"
          >{{ m(cable.spareM) }} over: laid in flat zigzags, or as a loose bundle, never a tight coil.</span
        >
      </p>
      <p v-if="session.mayEdit" class="row">
        <button v-if="!cable.joint.run.way?.length" type="button" class="press small" data-test="draw-way" @click="emit('draw')">
          draw its way
        </button>
        <template v-else>
          <button type="button" class="press small" data-test="add-corner" @click="emit('add')">+ corner</button>
          <button type="button" class="press small" data-test="take-corner" @click="emit('take')">− last corner</button>
          <button type="button" class="press small bare" data-test="no-way" @click="emit('straight')">guess it again</button>
        </template>
      </p>
      <MvNumber
        v-if="chosenPiece"
        :label="`piece ${chosenPiece.index + 1}, by tape`"
        :value="chosenPiece.taped ? chosenPiece.lengthM : null"
        :unit="unit"
        :factor="factor"
        :low="0"
        :high="500"
        :decimals="2"
        :hint="num(chosenPiece.lengthM * factor, 1)"
        :save="tape"
        data-test="piece-tape"
      />
      <p v-else-if="now" class="soft">Press a piece of the way below the picture to enter what a tape says.</p>
      <ul v-if="laid" class="laying" data-test="laying">
        <li>
          pulled from the
          {{ cable.joint.ends[pulledFrom(cable.joint)].at.name }} end, plug taped; both ends marked
          <b class="fig">{{ codes.get(cable.joint.run.id) }}</b> as it is pulled
        </li>
        <li>
          bend no tighter than {{ num(laid.bendMm) }} mm; about {{ laid.clips }} clips, the weight taken at the top, never by a
          plug
        </li>
        <li v-if="laid.joints">
          no length that is sold reaches: {{ laid.joints === 1 ? 'one joint' : `${laid.joints} joints` }},
          {{ laid.jointIndoors ? 'indoors' : 'in a sealed box, plug downward' }}, about {{ num(0.2 * laid.joints, 1) }} dB
        </li>
        <li v-if="laid.rightAngle.from || laid.rightAngle.to">
          a right-angle plug at
          {{
            [laid.rightAngle.from && cable.joint.from.at.name, laid.rightAngle.to && cable.joint.to.at.name]
              .filter(Boolean)
              .join(' and ')
          }}: it turns before it may
        </li>
        <li class="soft">ends free until both are done, the bottom exit last; joints indoors; clear of mains by 50 mm</li>
      </ul>
      <p v-if="instead" class="soft instead" data-test="coax-or-data">{{ instead }}</p>
    </div>
  </section>
  <p v-else class="soft">No cable yet: lay a kit out in <NuxtLink :to="`/job/${store.id}/choose`">Choose</NuxtLink>.</p>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 13px;
}
th,
td {
  text-align: right;
  padding: 5px 4px;
  border-bottom: 1px solid var(--mv-line);
  vertical-align: top;
}
td.fig {
  white-space: nowrap;
}
th {
  font-weight: 400;
  color: var(--mv-soft);
  font-size: 12.5px;
}
th:first-child,
td:first-child {
  text-align: left;
}
td button {
  display: block;
  background: none;
  border: 0;
  padding: 0;
  text-align: left;
  color: var(--mv-ink);
  cursor: pointer;
}
tr.on {
  background: var(--mv-sheet);
}
tr.on td:first-child,
tr.on td button {
  font-weight: 700;
}
tr.short td:nth-child(3) {
  color: var(--mv-short);
  font-weight: 700;
}
.one {
  padding: 8px 0;
}
.row {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  margin: 6px 0;
}
.laying {
  margin: 6px 0;
  padding-left: 18px;
  font-size: 13.5px;
}
@media (max-width: 900px) {
  td button,
  .row .press.small {
    min-height: 44px;
  }
}
</style>
