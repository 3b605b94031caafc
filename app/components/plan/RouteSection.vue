<script setup lang="ts">
import { layoutSection } from '#core/drawing/section'
import { acrossCorners } from '#core/fitting/ducts'
import { MOST_TURNED_DEG, nextCorner, wayThrough } from '#core/fitting/way'
import { waysIn } from '#core/fitting/ways-in'
import { feedsOf } from '#core/judge/feeds'
import { MOST_DROP } from '#core/fitting/wire'
import { buildingOf, inside } from '#core/site/building'
import { along, axisSign, moveAlong, round2 } from '#core/site/frame'
import type { Point } from '#core/site/frame'
import type { Run } from '#core/job/schema'
import type { Joint } from '#core/chain/tree'
import { neededM, stockLengthM } from '#core/fitting/lengths'
import { length, num } from '#core/units'

/** The way of every cable on the picture, corner by corner; where they come in; and what the boxes are fed by. */
const store = useJob()
const prefs = usePrefs()
const session = useSession()
const { el, width, height } = useWidth()
const { width: windowWidth } = useWindowSize()
const small = computed(() => windowWidth.value < 900)
const building = computed(() => buildingOf(store.here!))
const cables = computed(() => store.result!.lengths)
const picked = ref<string | null>(null)
const one = computed(() => cables.value.find(c => c.joint.run.id === picked.value) ?? cables.value[0] ?? null)
watchEffect(() => {
  if (picked.value === null && cables.value.length) picked.value = cables.value[0]!.joint.run.id
})

/** while a corner is under the finger the picture shows it moved */
const held = shallowRef<{ runId: string; way: Point[] } | null>(null)
const shownResult = computed(() => {
  const { tree } = store.result!
  if (!held.value || !tree) return store.result!
  const joints = tree.joints.map(j => (j.run.id === held.value!.runId ? { ...j, run: { ...j.run, way: held.value!.way } } : j))
  return { ...store.result!, tree: { ...tree, joints } }
})
const view = computed(() =>
  width.value && height.value
    ? layoutSection(store.doc!, shownResult.value, {
        width: width.value,
        height: Math.max(240, height.value),
        units: prefs.units,
        levels: false,
        // Beside the list the picture is narrow: what is read stands elsewhere, here it is cables.
        compact: width.value < 900,
        pins: true,
      })
    : null,
)
const wayOf = (run: Run): Point[] => (held.value?.runId === run.id ? held.value.way : (run.way ?? []))
const corners = computed(() => {
  const v = view.value
  const run = one.value?.joint.run
  if (!v || !run) return []
  return wayOf(run).map((p, index) => ({
    index,
    x: v.toX(along(store.site!, p, v.sign)),
    y: v.toY(p.upM),
  }))
})
const now = computed(() => {
  const c = one.value
  return c ? wayThrough(c.joint.from.at.node, wayOf(c.joint.run), c.joint.to.at.node) : null
})
/** A way that is written brings the cable that reaches, unless somebody measured it. */
function write({ run, line, from, to }: Joint, corners: Point[], label: string) {
  held.value = null
  const way = corners.length ? corners : null
  const needs = neededM(store.job!.kind, building.value, way, from.at.node, to.at.node)
  const longer = !run.measured && run.lengthM < needs - 0.05 ? { lengthM: stockLengthM(line, needs) } : {}
  void store.commit([{ table: 'runs', op: 'update', rowId: run.id, fields: { way, ...longer } }], label)
}
function addCorner() {
  const c = one.value
  if (!c || !now.value) return
  const next = nextCorner(now.value)
  if (!next) return
  const way = [...wayOf(c.joint.run)]
  way.splice(next.index, 0, next.at)
  write(c.joint, way, 'a corner')
}
const takeCorner = (index: number) =>
  one.value &&
  write(
    one.value.joint,
    wayOf(one.value.joint.run).filter((_, i) => i !== index),
    'a corner less',
  )
const straight = () => one.value && write(one.value.joint, [], 'a way no longer drawn')
/** Drawn as it is guessed, to be changed from there: along walls and ceilings, upright where it climbs. */
function draw() {
  const c = one.value
  if (!c) return
  const [a, b] = [c.joint.from.at.node, c.joint.to.at.node]
  const down = inside(building.value, a) ? Math.max(a.upM, b.upM) : a.upM
  const at = (eastM: number, northM: number, upM: number): Point => ({
    eastM: round2(eastM),
    northM: round2(northM),
    upM: round2(upM),
  })
  const way = [at(a.eastM, a.northM, inside(building.value, a) ? down : b.upM), at(b.eastM, b.northM, down)]
  const kept = inside(building.value, a) ? way : [way[0]!]
  write(c.joint, kept, 'draw the way')
}
function placed(index: number, x: number, y: number): Point[] | null {
  const v = view.value
  const c = one.value
  if (!v || !c) return null
  const way = [...wayOf(c.joint.run)]
  const old = way[index]
  if (!old) return null
  way[index] = { ...moveAlong(store.site!, old, v.toAlong(x), v.sign), upM: round2(v.toUp(y)) }
  return way
}
const { start } = useDragging<number>(
  (index, x, y) => {
    const way = placed(index, x, y)
    if (way && one.value) write(one.value.joint, way, 'move a corner')
  },
  (index, x, y) => {
    const way = placed(index, x, y)
    if (way && one.value) held.value = { runId: one.value.joint.run.id, way }
  },
)
function nudge(index: number, alongM: number, upM: number) {
  const c = one.value
  const p = c && wayOf(c.joint.run)[index]
  if (!c || !p || !session.mayEdit) return
  const sign = view.value?.sign ?? axisSign(store.site!, null)
  const moved = moveAlong(store.site!, p, along(store.site!, p, sign) + alongM, sign)
  const way = wayOf(c.joint.run).map((w, i) => (i === index ? { ...w, ...moved, upM: round2(p.upM + upM) } : w))
  write(c.joint, way, 'move a corner')
}

/** what passes into the building at once: every cable with one end outside */
const entering = computed(() =>
  cables.value.filter(c => inside(building.value, c.joint.from.at.node) !== inside(building.value, c.joint.to.at.node)),
)
const passing = computed(() =>
  entering.value.map(c => ({
    jacketMm: c.joint.line?.diameterMm ?? 10,
    plugMm: store.design?.plugs === 'crimped' ? null : (c.joint.line?.plugMm ?? acrossCorners(c.joint.line?.diameterMm ?? 10)),
  })),
)
const ways = computed(() => waysIn(store.job!.kind, store.job!.mayDrill, passing.value))
const VERDICT = { go: 'go', ask: 'ask first', never: 'never here' }
const feeds = computed(() => (store.result!.tree ? feedsOf(store.doc!, store.result!.tree, store.job!.kind, building.value) : []))
const trouble = computed(() => store.result!.findings.filter(f => f.section === 'route' && !f.accepted))
const nameOf = (c: (typeof cables.value)[number]) => `${c.joint.from.at.part.name} to ${c.joint.to.at.part.name}`
const m = (v: number) => length(v, prefs.units)
</script>

<template>
  <div class="route">
    <div class="left">
      <VariantBar />
      <div ref="el" class="picture">
        <DrawingView v-if="view" :drawing="view.drawing" label="Section with the ways of the cables">
          <circle
            v-for="c in corners"
            :key="c.index"
            :cx="c.x"
            :cy="c.y"
            :r="small ? 24 : 9"
            class="corner"
            role="button"
            tabindex="0"
            :aria-label="`corner ${c.index + 1}: drag it, arrow keys move it, Delete takes it away`"
            data-test="corner"
            @pointerdown="e => start(c.index, e)"
            @keydown.left.prevent.stop="nudge(c.index, -0.1, 0)"
            @keydown.right.prevent.stop="nudge(c.index, 0.1, 0)"
            @keydown.up.prevent.stop="nudge(c.index, 0, 0.1)"
            @keydown.down.prevent.stop="nudge(c.index, 0, -0.1)"
            @keydown.delete.prevent.stop="takeCorner(c.index)"
          />
        </DrawingView>
        <p v-if="!cables.length" class="over soft">
          No cable yet: lay a kit out in <NuxtLink :to="`/job/${store.id}/choose`">Choose</NuxtLink>.
        </p>
      </div>
    </div>
    <div class="side">
      <section v-for="f in trouble" :key="f.key" class="trouble" role="status" data-test="route-finding">
        <strong>{{ f.title }}</strong>
        <p>{{ f.sentence }}</p>
      </section>
      <section v-if="cables.length">
        <h2>Cables</h2>
        <table>
          <thead>
            <tr>
              <th>from, to</th>
              <th>needs</th>
              <th>is</th>
              <th>corners</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="c in cables"
              :key="c.joint.run.id"
              :class="{ on: c.joint.run.id === one?.joint.run.id, short: c.spareM < 0 }"
              data-test="cable-row"
            >
              <td>
                <button type="button" @click="picked = c.joint.run.id">{{ nameOf(c) }}</button>
                <small class="soft"
                  >{{ c.joint.line?.name }}{{ c.way ? ', drawn' : c.joint.run.measured ? ', measured' : ', guessed' }}</small
                >
              </td>
              <td class="fig" data-test="cable-needs">{{ m(c.neededM) }}</td>
              <td class="fig">{{ m(c.joint.run.lengthM) }}</td>
              <td class="fig">{{ c.way ? c.way.bends : '–' }}</td>
            </tr>
          </tbody>
        </table>
        <div v-if="one && now" class="one" data-test="one-cable">
          <p>
            <template v-if="one.joint.run.way?.length">
              <b class="fig">{{ m(now.lengthM) }}</b> by
              {{ now.pieces.length === 1 ? 'one piece' : `${now.pieces.length} pieces` }}, turned
              <b class="fig" :class="{ error: now.turnedDeg > MOST_TURNED_DEG }">{{ num(now.turnedDeg) }}°</b>; with ends, drip
              and corners {{ m(now.neededM) }}.
            </template>
            <template v-else
              >Guessed from its two ends: {{ m(one.neededM) }} with drip and plugs. Drawn, it is known better.
            </template>
            <span v-if="one.spareM < 0" class="error">{{ m(-one.spareM) }} too short.</span>
            <span v-else-if="one.spareM > 0.5" class="soft"
              >{{ m(one.spareM) }} over: laid in flat zigzags, never a tight coil.</span
            >
          </p>
          <p class="soft">
            {{ one.joint.line ? `Bend no tighter than ${num(one.joint.line.bendMm)} mm. ` : '' }}Weight is taken at the top, never
            by a plug; both ends are marked as it is pulled.
          </p>
          <p v-if="session.mayEdit" class="row">
            <button v-if="!one.joint.run.way?.length" type="button" class="press small" data-test="draw-way" @click="draw">
              draw its way
            </button>
            <template v-else>
              <button type="button" class="press small" data-test="add-corner" @click="addCorner">+ corner</button>
              <button
                type="button"
                class="press small"
                data-test="take-corner"
                @click="takeCorner(one.joint.run.way!.length - 1)"
              >
                − last corner
              </button>
              <button type="button" class="press small bare" data-test="no-way" @click="straight">guess it again</button>
            </template>
          </p>
        </div>
      </section>
      <section v-if="entering.length">
        <h2>Way in for {{ entering.length === 1 ? 'one cable' : `${entering.length} cables` }}</h2>
        <p class="soft">
          A hole is sized by the plug, its seal by the jacket.
          {{
            store.job!.mayDrill === 'no'
              ? 'Nothing may be drilled here.'
              : store.job!.mayDrill === 'ask'
                ? 'Drilling is asked for first.'
                : ''
          }}
        </p>
        <ol class="ways" data-test="ways-in">
          <li v-for="w in ways" :key="w.id" :class="w.verdict">
            <b>{{ w.words }}</b>
            <span class="verdict">{{ VERDICT[w.verdict] }}</span>
            <span class="soft"
              >{{ w.verdict === 'never' ? w.why : w.how
              }}{{
                w.holeMm !== null && w.verdict !== 'never'
                  ? ` Hole ${num(w.holeMm)} mm${w.bitMm ? `, bit ${w.bitMm}` : ': wider than any bit, crimp after pulling'}.`
                  : ''
              }}</span
            >
            <span v-if="w.caution && w.verdict !== 'never'" class="caution">{{ w.caution }}</span>
          </li>
        </ol>
      </section>
      <section v-if="feeds.length">
        <h2>Feeds</h2>
        <div v-for="f in feeds" :key="f.at.node.id" class="feed" data-test="feed">
          <p>
            <b>{{ f.at.part.name }}</b>, {{ num(f.powerW) }} W by {{ f.supply }}
            <span v-if="f.lengthM !== null" class="soft">, {{ m(f.lengthM) }} from {{ f.source!.name || f.source!.kind }}</span>
          </p>
          <p v-if="f.supply === '12 V' && f.lengthM === null" class="soft">
            No 12 V feed is noted on the site: put one on the picture in Place, and the wire is worked out.
          </p>
          <table v-if="f.tried.length">
            <thead>
              <tr>
                <th>wire</th>
                <th>at the box, from 10.5 V</th>
                <th>drop</th>
                <th>fuse</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="t in f.tried" :key="t.wire.id" :class="{ on: t.wire.id === f.wire?.id }">
                <td>{{ t.wire.words }}</td>
                <td class="fig">{{ t.fed.volts === null ? 'starves' : `${num(t.fed.volts, 2)} V` }}</td>
                <td class="fig" :class="{ error: t.fed.dropShare === null || t.fed.dropShare > MOST_DROP }">
                  {{ t.fed.dropShare === null ? '–' : `${num(100 * t.fed.dropShare, 1)} %` }}
                </td>
                <td class="fig">{{ t.fuseA === null ? 'none' : `${num(t.fuseA, t.fuseA % 1 ? 1 : 0)} A` }}</td>
              </tr>
            </tbody>
          </table>
          <p v-if="f.supply === '12 V' && f.wire" class="soft">
            {{ f.wire.words }} or thicker, fuse {{ num(f.fuseA ?? 0) }} A within 178 mm of the source, out while wiring. Colour
            proves nothing: switch an appliance off to find the feed, and prove it dead with a meter tried on a live one before
            and after.
          </p>
          <p v-if="f.supply === 'mains'" class="soft">
            By its plug with surge protection; anything beyond a plug is an electrician’s.
          </p>
          <p v-if="f.poe" class="soft">
            Class {{ f.poe.poeClass }}: {{ num(f.poe.arrivesW, 1) }} W arrive. Standard and passive are never mixed.
          </p>
        </div>
      </section>
      <p class="soft">Local code and licensed people decide on mains, gas, earth and what stands behind a wall.</p>
    </div>
  </div>
</template>

<style scoped>
.route {
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 480px;
}
.left {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.picture {
  flex: 1;
  position: relative;
  overflow: hidden;
  min-height: 0;
}
td.fig {
  white-space: nowrap;
}
.over {
  position: absolute;
  left: 24px;
  top: 20px;
}
.corner {
  fill: var(--mv-sheet);
  stroke: var(--mv-computed);
  stroke-width: 2;
  cursor: grab;
  touch-action: none;
}
.corner:focus-visible {
  outline: none;
  stroke-width: 4;
}
.side {
  border-left: 1px solid var(--mv-line);
  overflow: auto;
  padding: 12px 20px;
}
.side section {
  margin-bottom: 18px;
}
.trouble {
  border-left: 4px solid var(--mv-short);
  padding-left: 10px;
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
.ways {
  list-style: none;
  padding: 0;
  margin: 6px 0;
}
.ways li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--mv-line);
}
.ways li > .soft,
.ways li > .caution {
  grid-column: 1 / -1;
  font-size: 13px;
}
.go .verdict {
  color: var(--mv-met);
  font-weight: 600;
}
.never > b,
.never .verdict {
  color: var(--mv-short);
}
.caution {
  font-weight: 600;
}
.feed {
  padding: 6px 0;
}
@media (max-width: 900px) {
  .route {
    display: block;
    overflow: auto;
  }
  .picture {
    height: 44vh;
    flex: none;
  }
  .side {
    border: 0;
    padding: 12px 14px;
    overflow: visible;
  }
  td button,
  .row .press.small {
    min-height: 44px;
  }
}
</style>
