<script setup lang="ts">
import { nth, sure } from '#core/sure'
import 'ol/ol.css'
import OlMap from 'ol/Map'
import View from 'ol/View'
import Feature from 'ol/Feature'
import type { FeatureLike } from 'ol/Feature'
import { Circle, LineString, MultiPolygon, Point, Polygon } from 'ol/geom'
import ImageLayer from 'ol/layer/Image'
import TileLayer from 'ol/layer/Tile'
import VectorLayer from 'ol/layer/Vector'
import ImageStatic from 'ol/source/ImageStatic'
import VectorSource from 'ol/source/Vector'
import XYZ from 'ol/source/XYZ'
import { ScaleLine, defaults as controls } from 'ol/control'
import { fromLonLat, toLonLat } from 'ol/proj'
import { Circle as Dot, Fill, Stroke, Style, Text } from 'ol/style'
import type { Extent } from 'ol/extent'
import { bearingHalfWidth } from '#core/masts'
import type { MastView } from '#core/masts'
import { landmarksHere, moves, obstaclesHere } from '#core/survey'
import { direct, extentOf, inverse, normalise360 } from '#core/geo'
import type { Affine } from '#core/geo'
import type { Picture } from '#core/job'

/** The ground about the site with masts, sectors and wedges on it; a click tells a place, a drag moves the sheet. */
const props = defineProps<{ masts: MastView[]; selectedId: string | null; picking: boolean }>()
const emit = defineEmits<{
  pick: [mastId: string]
  place: [at: { latDeg: number; lonDeg: number; bearingDeg: number; distanceM: number }]
}>()
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const { engine } = useEngine()
const el = ref<HTMLElement | null>(null)
const words = ref('')
/** Before the first frame the map knows no places: a click would be lost. */
const ready = ref(false)
const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--mv-${name}`).trim()
const rgb = (name: string) => {
  const hex = css(name).replace('#', '')
  return [0, 2, 4].map(i => parseInt(hex.slice(i, i + 2), 16)) as [number, number, number]
}
const at = computed(() => {
  const s = store.site
  return s.latDeg !== null && s.lonDeg !== null ? { latDeg: s.latDeg, lonDeg: s.lonDeg } : null
})
/** A place in the map's own metres, east and north. */
const xyOf = (lonDeg: number, latDeg: number) => fromLonLat([lonDeg, latDeg]) as [east: number, north: number]
const xy = (p: { latDeg: number; lonDeg: number }) => xyOf(p.lonDeg, p.latDeg)
const toward = (bearingDeg: number, distanceM: number) => xy(direct(at.value!, bearingDeg, distanceM))
const fan = (from: { latDeg: number; lonDeg: number }, low: number, high: number, distanceM: number) => {
  const steps = Math.max(2, Math.ceil((high - low) / 3))
  return [
    xy(from),
    ...Array.from({ length: steps + 1 }, (_, i) => xy(direct(from, normalise360(low + ((high - low) * i) / steps), distanceM))),
    xy(from),
  ]
}

const drawn = new VectorSource()
const lines = new VectorSource()
const relief = new ImageLayer<ImageStatic>()
const under = new ImageLayer<ImageStatic>({ visible: false })
const tiles = new TileLayer({ visible: false })
let map: OlMap | null = null

const stroke = (colour: string, width: number, dash?: number[]) => new Stroke({ color: css(colour), width, lineDash: dash })
const label = (text: string, colour: string, offsetY: number, bold = false) =>
  new Text({
    text,
    font: `${bold ? 700 : 400} 13px "Atkinson Hyperlegible Next"`,
    fill: new Fill({ color: css(colour) }),
    stroke: new Stroke({ color: css('paper'), width: 4 }),
    offsetY,
    overflow: true,
  })
const tint = (colour: string, alpha: number) => `rgba(${rgb(colour).join(',')},${alpha})`

function styleOf(f: FeatureLike): Style | Style[] {
  const kind = f.get('kind') as string
  const on = f.get('on') as boolean
  switch (kind) {
    case 'site':
      return new Style({
        image: new Dot({ radius: 6, fill: new Fill({ color: css('ink') }), stroke: stroke('sheet', 2) }),
        zIndex: 9,
      })
    case 'bow':
      return new Style({ stroke: stroke('ink', 3), zIndex: 8 })
    case 'wedge':
      return new Style({ fill: new Fill({ color: tint('beam', on ? 0.6 : 0.3) }), zIndex: 2 })
    case 'ray':
      return new Style({ stroke: on ? stroke('computed', 2) : stroke('soft', 1, [4, 4]), zIndex: 3 })
    case 'sector':
      return new Style({
        stroke: stroke(on ? 'computed' : 'soft', on ? 1.6 : 1),
        fill: new Fill({ color: tint(on ? 'computed' : 'soft', 0.14) }),
        zIndex: 4,
      })
    case 'mast':
      return new Style({
        image: new Dot({
          radius: on ? 6 : 4.5,
          fill: new Fill({ color: css(on ? 'computed' : 'sheet') }),
          stroke: stroke(on ? 'computed' : f.get('mine') ? 'ink' : 'soft', 1.8),
        }),
        zIndex: on ? 8 : 6,
      })
    case 'accuracy':
      return new Style({ stroke: stroke('soft', 1, [2, 4]), zIndex: 3 })
    case 'obstacle':
      return new Style({ stroke: stroke('short', 3), zIndex: 5 })
    case 'landmark':
      return new Style({
        image: new Dot({ radius: 5, fill: new Fill({ color: css('agreed') }), stroke: stroke('ink', 1.4) }),
        zIndex: 7,
      })
    default:
      return new Style({ stroke: stroke('line', 1) })
  }
}
/** Names lie in a layer of their own, where those that would cover each other give way. */
function nameOf(f: FeatureLike): Style | undefined {
  const name = f.get('name') as string | undefined
  if (!name) return undefined
  const on = f.get('on') as boolean
  switch (f.get('kind') as string) {
    case 'mast':
      return new Style({ text: label(name, on ? 'computed' : f.get('mine') ? 'ink' : 'soft', -14, on), zIndex: on ? 9 : 4 })
    case 'obstacle':
      return new Style({ text: label(name, 'short', 14), zIndex: 6 })
    case 'landmark':
      return new Style({ text: label(name, 'ink', 16), zIndex: 5 })
    default:
      return undefined
  }
}
const contourStyle = (f: FeatureLike) =>
  new Style({ stroke: new Stroke({ color: tint('soft', f.get('bold') ? 0.75 : 0.4), width: f.get('bold') ? 1.2 : 0.8 }) })

function draw() {
  drawn.clear()
  if (!at.value) return
  const features: Feature[] = []
  const add = (kind: string, geometry: import('ol/geom/Geometry').default, more: Record<string, unknown> = {}) =>
    features.push(new Feature({ geometry, kind, ...more }))
  add('site', new Point(xy(at.value)))
  const heading = store.site.headingDeg
  if (moves(store.doc) && heading !== null) add('bow', new LineString([xy(at.value), toward(heading, 1500)]))
  for (const m of props.masts.slice(0, 120)) {
    const on = m.mast.id === props.selectedId
    const shown = on || (m.matchesCarrier && m.rank <= 6)
    if (shown) add('ray', new LineString([xy(at.value), xy(m.mast)]), { on })
    if (on)
      add(
        'wedge',
        new Polygon([
          fan(
            at.value,
            m.bearingDeg - bearingHalfWidth(m, store.result.declination),
            m.bearingDeg + bearingHalfWidth(m, store.result.declination),
            m.distanceM,
          ),
        ]),
        { on },
      )
    if (on || m.rank <= 10) {
      const seen = new Set<number>()
      for (const c of store.doc.cells) {
        if (c.mastId !== m.mast.id || c.azimuthDeg === null || seen.has(c.azimuthDeg)) continue
        seen.add(c.azimuthDeg)
        const half = (c.beamwidthDeg ?? 65) / 2
        add('sector', new Polygon([fan(m.mast, c.azimuthDeg - half, c.azimuthDeg + half, on ? 2600 : 1600)]), { on })
      }
    }
    if (m.mast.accuracyM) add('accuracy', new Circle(xy(m.mast), m.mast.accuracyM / Math.cos((m.mast.latDeg * Math.PI) / 180)))
    add('mast', new Point(xy(m.mast)), {
      on,
      id: m.mast.id,
      name: m.rank <= 12 || on ? `${m.rank} ${m.mast.name}` : '',
      mine: m.ofSim,
    })
  }
  for (const o of obstaclesHere(store.doc)) {
    const high = o.toDeg < o.fromDeg ? o.toDeg + 360 : o.toDeg
    const arc = Array.from({ length: 13 }, (_, i) => toward(normalise360(o.fromDeg + ((high - o.fromDeg) * i) / 12), o.distanceM))
    add('obstacle', new LineString(arc), { name: o.name })
  }
  for (const l of landmarksHere(store.doc)) add('landmark', new Point(xy(l)), { name: l.name })
  drawn.addFeatures(features)
}

let asked = 0
async function shade() {
  if (!map) return
  const size = map.getSize()
  if (!size || nth(size, 0) < 10) return
  const e = map.getView().calculateExtent(size) as [number, number, number, number]
  const grow = 0.15
  const extent: [number, number, number, number] = [
    e[0] - (e[2] - e[0]) * grow,
    e[1] - (e[3] - e[1]) * grow,
    e[2] + (e[2] - e[0]) * grow,
    e[3] + (e[3] - e[1]) * grow,
  ]
  const mine = ++asked
  const width = Math.min(900, Math.round(nth(size, 0) * (1 + 2 * grow)))
  const height = Math.max(1, Math.round((width * (extent[3] - extent[1])) / (extent[2] - extent[0])))
  const r = await engine.relief(at.value, extent, {
    width,
    height,
    palette: {
      land: rgb('ground'),
      high: rgb(prefs.night ? 'line' : 'sheet'),
      sea: rgb('sky'),
      shadow: prefs.night ? [8, 8, 8] : [112, 104, 92],
    },
  })
  if (mine !== asked || !map) return
  const canvas = document.createElement('canvas')
  canvas.width = r.width
  canvas.height = r.height
  sure(canvas.getContext('2d')).putImageData(new ImageData(r.rgba, r.width, r.height), 0, 0)
  relief.setSource(
    new ImageStatic({ url: canvas.toDataURL(), imageExtent: extent as Extent, projection: 'EPSG:3857', interpolate: true }),
  )
  lines.clear()
  lines.addFeatures(r.contours.map((c, i) => new Feature({ geometry: new MultiPolygon(c.polygons), bold: (i + 1) % 5 === 0 })))
  words.value =
    r.unknown > 0.98
      ? 'no terrain held here: bring a tile'
      : `contours every ${r.stepM} m${r.unknown > 0.02 ? `, ${Math.round(r.unknown * 100)} % of the sheet has no terrain` : ''}`
}
const shadeSoon = useDebounceFn(shade, 120)

/** A turned picture is drawn north up first: the map lays it by its corners. */
async function layPicture(p: Picture | undefined) {
  under.setVisible(false)
  if (!p || !map) return
  const blob = await pictureBlob(store.id, p.id)
  if (!blob) return
  const bitmap = await createImageBitmap(blob)
  const t = p.affine as Affine
  const [w, s, e, n] = extentOf(t, p.widthPx, p.heightPx)
  const scale = Math.min(1, 2000 / Math.max(p.widthPx, p.heightPx))
  const [west, south] = xyOf(w, s)
  const [east, north] = xyOf(e, n)
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(Math.hypot(t[0], t[3]) ? ((e - w) / Math.hypot(t[0], t[1])) * scale : p.widthPx * scale)
  canvas.height = Math.max(1, Math.round((canvas.width * (north - south)) / (east - west)))
  const g = sure(canvas.getContext('2d'))
  const corner = (x: number, y: number) => {
    const [atEast, atNorth] = xyOf(t[0] * x + t[1] * y + t[2], t[3] * x + t[4] * y + t[5])
    return [((atEast - west) / (east - west)) * canvas.width, ((north - atNorth) / (north - south)) * canvas.height] as const
  }
  const o = corner(0, 0)
  const r = corner(p.widthPx, 0)
  const d = corner(0, p.heightPx)
  g.setTransform(
    (r[0] - o[0]) / bitmap.width,
    (r[1] - o[1]) / bitmap.width,
    (d[0] - o[0]) / bitmap.height,
    (d[1] - o[1]) / bitmap.height,
    o[0],
    o[1],
  )
  g.drawImage(bitmap, 0, 0)
  under.setSource(new ImageStatic({ url: canvas.toDataURL(), imageExtent: [west, south, east, north], projection: 'EPSG:3857' }))
  under.setOpacity(p.opacity)
  under.setVisible(true)
}

function fit() {
  if (!map || !at.value) return
  const near = props.masts.filter(m => m.matchesCarrier && (m.rank <= 2 || m.mast.id === props.selectedId))
  const reach = Math.max(5000, ...near.map(m => m.distanceM)) * 1.25
  map.getView().fit([toward(270, reach)[0], toward(180, reach)[1], toward(90, reach)[0], toward(0, reach)[1]], {
    padding: [18, 18, 18, 18],
  })
}

onMounted(() => {
  if (session.tiles) {
    tiles.setSource(new XYZ({ url: session.tiles, crossOrigin: 'anonymous' }))
    tiles.setVisible(true)
  }
  map = new OlMap({
    target: el.value!,
    layers: [
      relief,
      tiles,
      under,
      new VectorLayer({ source: lines, style: contourStyle }),
      new VectorLayer({ source: drawn, style: styleOf }),
      new VectorLayer({ source: drawn, style: nameOf, declutter: true }),
    ],
    view: new View({ center: at.value ? xy(at.value) : [0, 0], zoom: 10, maxZoom: 17, minZoom: 4 }),
    controls: controls({ attribution: false, rotate: false }).extend([
      new ScaleLine({ units: prefs.units === 'metric' ? 'metric' : 'us' }),
    ]),
  })
  fit()
  draw()
  void layPicture(store.doc.pictures[0])
  map.on('postrender', e => (ready.value ||= e.frameState !== null))
  map.on('moveend', () => void shadeSoon())
  map.on('click', e => {
    if (props.picking && at.value) {
      const [lonDeg, latDeg] = toLonLat(e.coordinate) as [number, number]
      const { distanceM, bearingDeg } = inverse(at.value, { latDeg, lonDeg })
      emit('place', { latDeg, lonDeg, distanceM, bearingDeg })
      return
    }
    const hit = map!.forEachFeatureAtPixel(e.pixel, f => (f.get('kind') === 'mast' ? (f.get('id') as string) : undefined), {
      hitTolerance: 8,
    })
    if (hit) emit('pick', hit)
  })
})
onUnmounted(() => {
  map?.setTarget(undefined)
  map = null
})
watch(
  [() => props.masts, () => props.selectedId, () => store.doc.obstacles, () => store.doc.landmarks, () => store.site.headingDeg],
  draw,
)
watch([() => at.value?.latDeg, () => at.value?.lonDeg], fit)
watch([() => prefs.night, () => store.terrainVersion], () => {
  draw()
  void shade()
})
watch(
  () => store.doc.pictures[0],
  p => void layPicture(p),
  { deep: true },
)
</script>

<template>
  <div class="map" :class="{ picking }">
    <div ref="el" class="sheet" tabindex="0" role="application" aria-label="Map: masts, bearings and terrain" data-test="map" />
    <span class="words fig">{{ !picking ? words : ready ? 'click the place' : 'drawing the map' }}</span>
    <button type="button" class="press small fit" @click="fit">whole</button>
  </div>
</template>

<style scoped>
.map {
  position: relative;
  width: 100%;
  height: 100%;
  background: repeating-linear-gradient(135deg, var(--mv-paper) 0 7px, var(--mv-line) 7px 8px);
}
.sheet {
  position: absolute;
  inset: 0;
}
.picking .sheet {
  cursor: crosshair;
}
.words {
  position: absolute;
  right: 8px;
  bottom: 6px;
  font-size: 12px;
  background: var(--mv-paper);
  padding: 1px 6px;
  pointer-events: none;
}
.fit {
  position: absolute;
  right: 8px;
  top: 8px;
}
.map :deep(.ol-zoom) {
  left: 8px;
  top: 8px;
}
.map :deep(.ol-zoom button) {
  width: 34px;
  height: 34px;
  background: var(--mv-sheet);
  color: var(--mv-ink);
  border: 1px solid var(--mv-ink);
  border-radius: 0;
  margin: 0 0 -1px;
}
.map :deep(.ol-control) {
  background: none;
  border-radius: 0;
  padding: 0;
}
.map :deep(.ol-scale-line) {
  background: var(--mv-paper);
  border-radius: 0;
  left: 8px;
  bottom: 6px;
  padding: 1px 4px;
}
.map :deep(.ol-scale-line-inner) {
  color: var(--mv-ink);
  border-color: var(--mv-ink);
  font-family: var(--mv-mono);
  font-size: 11.5px;
}
@media (max-width: 900px) {
  .fit {
    top: auto;
    bottom: 30px;
  }
  .map :deep(.ol-zoom button) {
    width: 56px;
    height: 56px;
    font-size: 22px;
  }
}
</style>
