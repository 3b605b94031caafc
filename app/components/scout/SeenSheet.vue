<script setup lang="ts">
import { v7 as uuidv7 } from 'uuid'
import { affineFromTies, inverse, normalise360, parsePosition, readWorldFile } from '#core/geo'
import type { Affine } from '#core/geo'
import { landmarksSeen, obstaclesHere } from '#core/survey'
import { parseNumber } from '#core/formats'
import { bearing, distance, fromMetres, length, num, toMetres } from '#core/units'
import { storePicture } from '~/utils/pictures'

/** What the terrain does not know: what stands in the way, what can be aimed by, and a picture of the place. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ spot: { latDeg: number; lonDeg: number; bearingDeg: number; distanceM: number } | null }>()
const emit = defineEmits<{ pick: []; done: [] }>()
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const obstacles = computed(() => obstaclesHere(store.doc))
const landmarks = computed(() => landmarksSeen(store.doc))
const { unit } = useLengths()
const place = computed(() => ({ latDeg: store.site.latDeg!, lonDeg: store.site.lonDeg! }))

const name = ref('')
const from = ref('')
const to = ref('')
const far = ref('')
const high = ref('')
const error = ref('')
watch(
  () => props.spot,
  s => {
    if (!s) return
    from.value = String(Math.round(normalise360(s.bearingDeg - 3)))
    to.value = String(Math.round(normalise360(s.bearingDeg + 3)))
    far.value = String(Math.round(fromMetres(s.distanceM, prefs.units)))
    markAt.value = `${s.latDeg.toFixed(5)}, ${s.lonDeg.toFixed(5)}`
  },
)
function number(text: string, what: string, low: number, top: number): number {
  let v: number | null
  try {
    v = parseNumber(text)
  } catch (e) {
    throw new RangeError(`${what}: ${messageOf(e)}`, { cause: e })
  }
  if (v === null || v < low || v > top) throw new RangeError(`${what}: ${low} to ${top}`)
  return v
}
async function addObstacle() {
  error.value = ''
  try {
    if (!name.value.trim()) throw new RangeError('what is it?')
    const fields = {
      name: name.value.trim(),
      fromDeg: number(from.value, 'from', 0, 360),
      toDeg: number(to.value, 'to', 0, 360),
      distanceM: toMetres(number(far.value, 'distance', 2, 100_000), prefs.units),
      heightM: toMetres(number(high.value, 'height', 0.5, 1700), prefs.units),
    }
    const bad = await store.commit([{ table: 'obstacles', op: 'insert', fields }], 'an obstacle')
    throwRefused(bad, true)
    name.value = from.value = to.value = far.value = high.value = ''
    emit('done')
  } catch (e) {
    error.value = messageOf(e)
  }
}
const remove = (table: 'obstacles' | 'landmarks' | 'pictures', id: string, label: string) =>
  store.commit([{ table, op: 'delete', rowId: id }], label)

const markName = ref('')
const markAt = ref('')
const markError = ref('')
async function addLandmark() {
  markError.value = ''
  try {
    if (!markName.value.trim()) throw new RangeError('what is it called?')
    const at = parsePosition(markAt.value)
    const { distanceM } = inverse(place.value, at)
    if (distanceM < 50) throw new RangeError('nearer than 50 m it is too close to aim by')
    const bad = await store.commit(
      [{ table: 'landmarks', op: 'insert', fields: { name: markName.value.trim(), ...at } }],
      'a landmark',
    )
    throwRefused(bad)
    markName.value = markAt.value = ''
    emit('done')
  } catch (e) {
    markError.value = messageOf(e)
  }
}

// A picture: its world file, or two points clicked on it and told on the ground.
const file = shallowRef<File | null>(null)
const url = ref('')
const size = ref({ w: 0, h: 0 })
const ties = ref<{ x: number; y: number; text: string }[]>([])
const pictureError = ref('')
const busy = ref(false)
async function takePicture(e: Event) {
  const input = e.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  pictureError.value = ''
  ties.value = []
  const image = files.find(f => /^image\/(png|jpeg|webp)$/.test(f.type))
  const world = files.find(f => /\.(pgw|jgw|wld|tfw|pngw|jpgw)$/i.test(f.name))
  if (!image) {
    pictureError.value = 'A PNG, JPEG or WebP picture is wanted.'
    return
  }
  if (image.size > 12_000_000) {
    pictureError.value = 'The picture is larger than 12 MB.'
    return
  }
  try {
    const bitmap = await createImageBitmap(image)
    size.value = { w: bitmap.width, h: bitmap.height }
    file.value = image
    if (url.value) URL.revokeObjectURL(url.value)
    url.value = URL.createObjectURL(image)
    if (world) await lay(readWorldFile(await world.text()))
  } catch (x) {
    pictureError.value = messageOf(x)
  }
}
function clickPicture(e: MouseEvent) {
  if (ties.value.length >= 2) ties.value = []
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  ties.value.push({
    x: ((e.clientX - box.left) / box.width) * size.value.w,
    y: ((e.clientY - box.top) / box.height) * size.value.h,
    text: '',
  })
}
async function layByTies() {
  pictureError.value = ''
  try {
    const [p, q] = ties.value.map(t => ({ x: t.x, y: t.y, at: parsePosition(t.text) }))
    await lay(affineFromTies(p!, q!))
  } catch (x) {
    pictureError.value = messageOf(x)
  }
}
async function lay(affine: Affine) {
  busy.value = true
  const id = uuidv7()
  try {
    await storePicture(store.id, id, file.value!)
    const old = store.doc.pictures.map(p => ({ table: 'pictures' as const, op: 'delete' as const, rowId: p.id }))
    const bad = await store.commit(
      [
        ...old,
        {
          table: 'pictures',
          op: 'insert',
          rowId: id,
          fields: {
            name: file.value!.name.slice(0, 120),
            widthPx: size.value.w,
            heightPx: size.value.h,
            affine: [...affine],
            opacity: 0.8,
          },
        },
      ],
      'a picture under the map',
    )
    throwRefused(bad)
    file.value = null
  } catch (x) {
    pictureError.value = messageOf(x)
  }
  busy.value = false
}
</script>

<template>
  <MvSheet v-model="open" title="Obstacles nearby" wide>
    <p v-if="store.site.latDeg === null" class="error">The position comes first: give it in Ask.</p>
    <template v-else>
      <h3>In the way</h3>
      <p class="soft">
        A tree line, a barn, a crane: bearings true, clockwise from one edge to the other, seen from here; its top above the
        ground there. It counts in every path and on the skyline.
      </p>
      <div v-for="o in obstacles" :key="o.id" class="has" data-test="obstacle">
        <strong>{{ o.name }}</strong><span class="fig"
          >{{ bearing(o.fromDeg) }} to {{ bearing(o.toDeg) }}, {{ length(o.distanceM, prefs.units, 0) }} off,
          {{ length(o.heightM, prefs.units) }} high</span
        ><button
          type="button"
          class="press small"
          :disabled="!session.mayEdit"
          @click="remove('obstacles', o.id, 'take an obstacle away')"
        >
          take away
        </button>
      </div>
      <form class="row" @submit.prevent="addObstacle">
        <v-text-field v-model="name" label="What" data-test="ob-name" /><v-text-field
          v-model="from"
          label="From"
          suffix="°"
          inputmode="decimal"
          data-test="ob-from"
        /><v-text-field v-model="to" label="To" suffix="°" inputmode="decimal" data-test="ob-to" /><v-text-field
          v-model="far"
          label="Distance"
          :suffix="unit"
          inputmode="decimal"
          data-test="ob-far"
        /><v-text-field v-model="high" label="Height" :suffix="unit" inputmode="decimal" data-test="ob-high" />
        <button type="submit" class="press" :disabled="!session.mayEdit" data-test="add-obstacle">Add</button>
      </form>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
      <h3>To aim by</h3>
      <p class="soft">
        Something far and plain to see: bearings are told left and right of it, and a compass can be swung by it.
        <button type="button" class="plain" data-test="pick-place" @click="emit('pick')">click it on the map</button>
      </p>
      <div v-for="l in landmarks" :key="l.id" class="has" data-test="landmark">
        <strong>{{ l.name }}</strong><span class="fig"
          >{{ bearing(l.bearingDeg) }} true, {{ distance(l.distanceM, prefs.units) }}</span
        ><button
          type="button"
          class="press small"
          :disabled="!session.mayEdit"
          @click="remove('landmarks', l.id, 'take a landmark away')"
        >
          take away
        </button>
      </div>
      <form class="row mark" @submit.prevent="addLandmark">
        <v-text-field v-model="markName" label="Landmark" data-test="mark-name" /><v-text-field
          v-model="markAt"
          label="Position"
          placeholder="46.81, −41.37"
          data-test="mark-at"
        />
        <button type="submit" class="press" :disabled="!session.mayEdit" data-test="add-landmark">Add</button>
      </form>
      <p v-if="markError" class="error" role="alert">{{ markError }}</p>
      <h3>A picture under the map</h3>
      <div v-for="p in store.doc.pictures" :key="p.id" class="has" data-test="picture">
        <strong>{{ p.name }}</strong><span class="fig"
          >{{ p.widthPx }} × {{ p.heightPx }}, {{ num(p.opacity * 100) }} %
          <input
            type="range"
            min="0.1"
            max="1"
            step="0.1"
            :value="p.opacity"
            aria-label="How dense the picture is"
            @change="
              e =>
                store.commit(
                  [
                    {
                      table: 'pictures',
                      op: 'update',
                      rowId: p.id,
                      fields: { opacity: Number((e.target as HTMLInputElement).value) },
                    },
                  ],
                  'picture',
                )
            " /></span
        ><button
          type="button"
          class="press small"
          :disabled="!session.mayEdit"
          @click="remove('pictures', p.id, 'take the picture away')"
        >
          take away
        </button>
      </div>
      <label class="press file"
        >Choose a picture, with its world file if there is one<input
          type="file"
          multiple
          accept="image/png,image/jpeg,image/webp,.pgw,.jgw,.wld,.tfw"
          data-test="picture-file"
          @change="takePicture"
      /></label>
      <template v-if="file">
        <p class="soft">
          {{
            busy
              ? 'Laying it…'
              : ties.length < 2
                ? `Click ${ties.length ? 'a second point' : 'a point'} on it that you know on the ground, the further apart the better.`
                : 'Where are the two on the ground?'
          }}
        </p>
        <div class="photo" @click="clickPicture">
          <img :src="url" alt="The picture to be laid under the map" /><i
            v-for="(t, i) in ties"
            :key="i"
            :style="{ left: `${(t.x / size.w) * 100}%`, top: `${(t.y / size.h) * 100}%` }"
            >{{ i + 1 }}</i
          >
        </div>
        <form v-if="ties.length === 2" class="row mark" @submit.prevent="layByTies">
          <v-text-field
            v-for="(t, i) in ties"
            :key="i"
            v-model="t.text"
            :label="`Point ${i + 1}`"
            placeholder="46.81, −41.37"
            :data-test="`tie-${i + 1}`"
          /><button type="submit" class="press filled" :disabled="busy" data-test="lay">Lay it</button>
        </form>
      </template>
      <p v-if="pictureError" class="error" role="alert">{{ pictureError }}</p>
    </template>
  </MvSheet>
</template>

<style scoped>
h3 {
  margin: 16px 0 4px;
}
h3:first-child {
  margin-top: 0;
}
.has {
  display: grid;
  grid-template-columns: 1fr 2fr auto;
  gap: 10px;
  align-items: center;
  border-bottom: 1px solid var(--mv-line);
  padding: 4px 0;
}
.row {
  display: grid;
  grid-template-columns: 1.6fr 0.8fr 0.8fr 1fr 1fr auto;
  gap: 8px;
  align-items: start;
  margin-top: 10px;
}
.row.mark {
  grid-template-columns: 1fr 1.4fr auto;
}
.row .press {
  min-height: 40px;
}
.plain {
  background: none;
  border: 0;
  border-bottom: 1px solid var(--mv-ink);
  cursor: pointer;
  padding: 4px 2px;
  color: var(--mv-ink);
}
.file {
  display: inline-block;
  margin: 8px 0;
  position: relative;
}
.file input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
  width: 100%;
}
.file:focus-within {
  outline: 2px solid var(--mv-computed);
  outline-offset: 2px;
}
.photo {
  position: relative;
  display: inline-block;
  max-width: 100%;
  cursor: crosshair;
}
.photo img {
  max-width: 100%;
  max-height: 46vh;
  display: block;
}
.photo i {
  position: absolute;
  width: 22px;
  height: 22px;
  margin: -11px;
  border: 2px solid var(--mv-short);
  background: var(--mv-sheet);
  text-align: center;
  font-style: normal;
  font-size: 12px;
  line-height: 18px;
  border-radius: 50%;
}
@media (max-width: 640px) {
  .row,
  .row.mark {
    grid-template-columns: 1fr 1fr;
  }
  .has {
    grid-template-columns: 1fr auto;
  }
}
</style>
