<script setup lang="ts">
import { nth, sure } from '#core/sure'
import { layoutSection } from '#core/drawing'
import { neededM, nextCorner, stockFor, wayThrough } from '#core/fitting'
import { gustOf, standing } from '#core/install'
import type { Finding } from '#core/judge'
import { buildingOf, inside, moveAlong, round2 } from '#core/site'
import type { Point } from '#core/site'
import { jointM } from '#core/chain'
import type { Joint } from '#core/chain'
import { length, num } from '#core/units'

/** The way of every cable on the picture; ways in, mounts, feeds and the way of a surge as layers of the same picture. */
const store = useOpened()
const prefs = usePrefs()
const { el, width, height } = useWidth()
const { width: windowWidth } = useWindowSize()
const small = computed(() => windowWidth.value < 900)
const building = computed(() => buildingOf(store.here))

const LAYERS = ['cables', 'way in', 'mounts', 'feeds', 'surge'] as const
type Layer = (typeof LAYERS)[number]
const route = useRoute()
const layer = ref<Layer>(LAYERS.find(l => l === route.query.layer) ?? 'cables')
watch(
  () => route.query.layer,
  l => LAYERS.includes(l as Layer) && (layer.value = l as Layer),
)
/** in which layer a finding is settled, by its code */
const LAYER_OF: Record<string, Layer> = {
  'route.turns': 'cables',
  'route.tight': 'cables',
  'route.flue': 'way in',
  'route.no-hole': 'way in',
  'route.behind': 'way in',
  'route.found': 'way in',
  'route.plug': 'way in',
  'route.fill': 'way in',
  'route.jam': 'way in',
  'route.mount': 'mounts',
  'route.strikes': 'mounts',
  'route.foot': 'mounts',
  'route.metals': 'mounts',
  'route.mast': 'mounts',
  'route.screws': 'mounts',
  'route.ballast': 'mounts',
}
const layerOf = (f: Finding): Layer =>
  (f.noted?.layer as Layer | undefined) ?? LAYER_OF[f.code] ?? (f.code.startsWith('route.surge') ? 'surge' : 'feeds')
const findings = computed(() => store.result.findings.filter(f => f.section === 'route' && !f.accepted))
const here = computed(() => findings.value.filter(f => layerOf(f) === layer.value))
const open = (l: Layer) => findings.value.filter(f => layerOf(f) === l && f.severity !== 'note' && f.severity !== 'good').length

const cables = computed(() => store.result.lengths)
const picked = ref<string | null>(null)
const one = computed(() => cables.value.find(c => c.joint.run.id === picked.value) ?? cables.value[0] ?? null)
const piece = ref<number | null>(null)
function pick(runId: string) {
  picked.value = runId
  piece.value = null
}

/** while a corner is under the finger the picture shows it moved */
const held = shallowRef<{ rowId: string; corners: Point[] } | null>(null)
const shownResult = computed(() => {
  const { tree } = store.result
  const h = held.value
  if (!h || !tree) return store.result
  const joints = tree.joints.map(j => (j.run.id === h.rowId ? { ...j, run: { ...j.run, way: h.corners } } : j))
  return { ...store.result, tree: { ...tree, joints } }
})
/** sockets, ways in and electrodes are dragged too */
const { shown: shownDoc, hold: holdPart, drop: dropPart, rowOf } = useMoveParts()
const heldDoc = computed(() => {
  const h = held.value
  if (!h || layer.value !== 'surge') return shownDoc.value
  const fixtures = shownDoc.value.fixtures.map(f => (f.id === h.rowId ? { ...f, corners: h.corners } : f))
  return { ...shownDoc.value, fixtures }
})
const view = computed(() =>
  width.value && height.value
    ? layoutSection(heldDoc.value, shownResult.value, {
        width: width.value,
        height: Math.max(240, height.value),
        units: prefs.units,
        levels: false,
        // Beside the list the picture is narrow: what is read stands elsewhere, here it is cables.
        compact: width.value < 900,
        pins: true,
        loops: false,
        surgeWords: layer.value === 'surge',
        numberedRunId: layer.value === 'cables' ? (one.value?.joint.run.id ?? null) : null,
      })
    : null,
)
type Handle = NonNullable<typeof view.value>['handles'][number]
const pins = computed(() => view.value?.handles.filter(h => h.kind === 'fixture') ?? [])
function placed(h: Handle, x: number, y: number) {
  const v = view.value
  const row = rowOf(h) as Point | undefined
  return row && v ? { ...moveAlong(store.site, row, v.toAlong(x), v.sign), upM: round2(v.toUp(y)) } : null
}
const { start: startPin } = useDragging<Handle>(
  (h, x, y) => dropPart(h, placed(h, x, y)),
  (h, x, y) => holdPart(h, placed(h, x, y)),
)

/** The electrode whose way is drawn. */
const surged = computed(() => {
  const f = store.doc.fixtures.find(x => x.kind === 'electrode' && x.corners)
  return f?.corners ? { rowId: f.id, corners: f.corners } : null
})
const bent = computed<{ rowId: string; corners: readonly Point[] } | null>(() => {
  if (layer.value === 'surge') return surged.value
  if (layer.value !== 'cables' || !one.value) return null
  return { rowId: one.value.joint.run.id, corners: one.value.joint.run.way ?? [] }
})
const { dots, start, nudge } = useCorners({
  view: () => view.value,
  corners: () => (held.value && held.value.rowId === bent.value?.rowId ? held.value.corners : (bent.value?.corners ?? null)),
  hold: corners => bent.value && (held.value = { rowId: bent.value.rowId, corners }),
  write: (corners, label) => {
    if (layer.value === 'surge') writeSurge(corners)
    else if (one.value) write(one.value.joint, corners, label)
  },
})
function writeSurge(corners: Point[]) {
  held.value = null
  const { rowId } = sure(surged.value)
  void store.commit([{ table: 'fixtures', op: 'update', rowId, fields: { corners } }], 'the way of a surge')
}
/** A way that is written brings the cable that reaches, unless somebody measured it. A piece that moved is no longer as taped. */
function write(joint: Joint, corners: Point[], label: string) {
  const { run, from, to } = joint
  held.value = null
  const way = corners.length ? corners : null
  // A stretch between two stations that both stayed where they were keeps what a tape said of it.
  const stations = (list: readonly Point[]) => ['from', ...list, 'to'] as const
  const [old, next] = [stations(run.way ?? []), stations(corners)]
  const pieces = next.slice(1).map((station, i) => {
    const k = old.findIndex((o, at) => o === next[i] && old[at + 1] === station)
    return k < 0 ? null : (run.pieces?.[k] ?? null)
  })
  const drawn = { way, pieces: pieces.some(p => p !== null) ? pieces : null }
  const needs = neededM(store.job.kind, building.value, drawn, { from: from.at.node, to: to.at.node })
  const longer = run.partId && !run.measured && jointM(joint) < needs - 0.05 ? { lengthM: stockFor(joint, needs) } : {}
  void store.commit([{ table: 'runs', op: 'update', rowId: run.id, fields: { ...drawn, ...longer } }], label)
}
const now = computed(() => {
  const c = one.value
  return c ? wayThrough(c.joint.from.at.node, c.joint.run.way ?? [], c.joint.to.at.node) : null
})
function addCorner() {
  const next = now.value && nextCorner(now.value)
  if (!one.value || !next) return
  const way = [...(one.value.joint.run.way ?? [])]
  way.splice(next.index, 0, next.at)
  write(one.value.joint, way, 'a corner')
}
function takeCorner(index: number) {
  if (layer.value === 'surge') writeSurge(sure(surged.value).corners.filter((_, i) => i !== index))
  else if (one.value)
    write(
      one.value.joint,
      (one.value.joint.run.way ?? []).filter((_, i) => i !== index),
      'a corner less',
    )
}
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
  const kept = inside(building.value, a) ? way : [nth(way, 0)]
  write(c.joint, kept, 'draw the way')
}
/** each pole in the wind, in a line over the picture */
const stands = computed(() =>
  (store.result.tree?.donors ?? []).flatMap(at => {
    const { fixing } = at.node
    if (!fixing?.sections.length) return []
    const s = standing(store.result.tree!, at, fixing, gustOf(store.site))
    const first = nth(fixing.sections, 0)
    const overM = fixing.sections.reduce((sum, x) => sum + x.lengthM, 0)
    const says =
      'refused' in s
        ? 'no verdict'
        : `at ${num(s.gustMs)} m/s ${s.worst.used === null ? 'no verdict' : `${num(100 * s.worst.used)} % of what it bears`}`
    return [
      {
        id: at.node.id,
        pole: `pole ${length(overM, prefs.units)}, Ø ${num(first.outsideMm)} × ${num(first.wallMm, 1)} mm:`,
        says,
      },
    ]
  }),
)
</script>

<template>
  <div class="route">
    <div class="left">
      <VariantBar />
      <div ref="el" class="picture">
        <DrawingView v-if="view" :drawing="view.drawing" label="Section with the ways of the cables">
          <circle
            v-for="h in pins"
            :key="h.id"
            :cx="h.x"
            :cy="h.y"
            :r="small ? 24 : 13"
            class="grab"
            role="button"
            tabindex="0"
            :aria-label="h.label"
            data-test="pin"
            @pointerdown="e => startPin(h, e)"
          />
          <g v-for="c in dots" :key="c.index" class="bent">
            <circle :cx="c.x" :cy="c.y" r="8" class="corner" />
            <circle
              :cx="c.x"
              :cy="c.y"
              :r="small ? 24 : 12"
              class="grab"
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
          </g>
        </DrawingView>
        <div v-if="layer === 'mounts' && stands.length" class="stands" data-test="pole-words">
          <p v-for="w in stands" :key="w.id">
            <b>{{ w.pole }}</b> {{ w.says }}
          </p>
        </div>
        <p v-if="!cables.length" class="over soft">
          No cable yet: lay a kit out in <NuxtLink :to="`/job/${store.id}/choose`">Choose</NuxtLink>.
        </p>
      </div>
      <RouteRibbon v-if="one && layer === 'cables'" :cable="one" :picked="piece" @pick="i => (piece = i)" />
    </div>
    <div class="side">
      <nav class="layers" role="tablist" aria-label="Layers of the picture">
        <button
          v-for="l in LAYERS"
          :key="l"
          type="button"
          role="tab"
          :aria-selected="l === layer"
          :class="{ on: l === layer }"
          :data-test="`layer-${l.replace(' ', '-')}`"
          @click="layer = l"
        >
          {{ l }}<span v-if="open(l)" class="count">{{ open(l) }}</span>
        </button>
      </nav>
      <div class="panel">
        <FindingRow v-for="f in here" :key="f.key" :finding="f" brief data-test="route-finding" />
        <RouteCables
          v-if="layer === 'cables'"
          :cable="one"
          :piece="piece"
          @pick="pick"
          @draw="draw"
          @add="addCorner"
          @take="takeCorner((one?.joint.run.way?.length ?? 1) - 1)"
          @straight="straight"
        />
        <RouteWaysIn v-else-if="layer === 'way in'" />
        <RouteMounts v-else-if="layer === 'mounts'" />
        <RouteFeeds v-else-if="layer === 'feeds'" />
        <RouteSurge v-else />
        <p class="soft">Local code and licensed people decide on mains, gas, earth and what stands behind a wall.</p>
      </div>
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
.over {
  position: absolute;
  left: 24px;
  top: 20px;
}
.stands {
  position: absolute;
  left: 8px;
  top: 30px;
  font-size: 13px;
}
.grab {
  fill: transparent;
  cursor: grab;
  touch-action: none;
}
.grab:focus-visible {
  outline: none;
  stroke: var(--mv-computed);
  stroke-width: 2;
}
.corner {
  fill: var(--mv-sheet);
  stroke: var(--mv-computed);
  stroke-width: 2;
}
.bent:focus-within .corner {
  stroke-width: 4;
}
.side {
  border-left: 1px solid var(--mv-line);
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.layers {
  display: flex;
  border-bottom: 1px solid var(--mv-line);
}
.layers button {
  flex: 1;
  padding: 9px 4px;
  background: none;
  border: 0;
  border-right: 1px solid var(--mv-line);
  color: var(--mv-ink);
  cursor: pointer;
  white-space: nowrap;
}
.layers button:last-child {
  border-right: 0;
}
.layers .on {
  background: var(--mv-ink);
  color: var(--mv-sheet);
  font-weight: 600;
}
.count {
  margin-left: 6px;
  padding: 0 6px;
  background: var(--mv-short);
  color: var(--mv-sheet);
  font-weight: 700;
  font-size: 12px;
}
.panel {
  overflow: auto;
  padding: 12px 20px;
}
.panel :deep(section) {
  margin-bottom: 18px;
}
@media (max-width: 900px) {
  .route {
    display: block;
    overflow: auto;
  }
  .picture {
    height: 40vh;
    flex: none;
  }
  .side {
    border: 0;
  }
  .layers {
    position: sticky;
    top: 0;
    z-index: 2;
    background: var(--mv-paper);
    overflow-x: auto;
  }
  .layers button {
    min-height: 56px;
    padding: 0 12px;
  }
  .panel {
    padding: 12px 14px;
    overflow: visible;
  }
}
</style>
