<script setup lang="ts">
import { cornerFromName } from '#core/terrain'
import { parseNumber } from '#core/formats'
import type { CoverClasses, TerrainReport } from '../../../shared/api'

/** Ground and what stands on it: SRTM tiles, GeoTIFF rasters, land-cover classes with their heights. */
const open = defineModel<boolean>({ required: true })
const store = useOpened()
const error = ref('')
const done = ref<TerrainReport[]>([])
const busy = ref('')
const wanted = computed(() => {
  const s = store.site
  if (s.latDeg === null || s.lonDeg === null) return null
  const la = Math.floor(s.latDeg)
  const lo = Math.floor(s.lonDeg)
  return `${la < 0 ? 'S' : 'N'}${String(Math.abs(la)).padStart(2, '0')}${lo < 0 ? 'W' : 'E'}${String(Math.abs(lo)).padStart(3, '0')}.hgt`
})
function post<T>(file: File, more = ''): Promise<T> {
  return api<T>(`/api/terrain/import?name=${encodeURIComponent(file.name)}${more}`, { raw: file })
}
async function run(file: File, work: () => Promise<TerrainReport>) {
  busy.value = file.name
  error.value = ''
  try {
    if (file.size === 0) throw new RangeError(`“${file.name}” is empty.`)
    const report = await work()
    done.value = [...done.value.filter(d => d.name !== report.name), report]
    await store.terrainChanged(report.keys)
    return true
  } catch (x) {
    error.value = messageOf(x)
    return false
  } finally {
    busy.value = ''
  }
}
async function take(e: Event) {
  const input = e.target as HTMLInputElement
  for (const file of input.files ?? []) {
    const ok = await run(file, async () => {
      if (/\.hgt$/i.test(file.name)) cornerFromName(file.name)
      else if (!/\.tiff?$/i.test(file.name))
        throw new RangeError(`“${file.name}” is neither an SRTM height tile (.hgt) nor a GeoTIFF (.tif).`)
      return post<TerrainReport>(file)
    })
    if (!ok) break
  }
  input.value = ''
}

const cover = shallowRef<File | null>(null)
const classes = ref<{ value: number; share: number; height: string }[]>([])
async function takeCover(e: Event) {
  const file = pickedFile(e)
  classes.value = []
  if (!file) return
  cover.value = file
  busy.value = file.name
  error.value = ''
  try {
    const found = await post<CoverClasses>(file, '&kind=cover')
    classes.value = found.classes.map(c => ({ ...c, height: '0' }))
  } catch (x) {
    error.value = messageOf(x)
  }
  busy.value = ''
}
async function keepCover() {
  const heights: Record<string, number> = {}
  for (const c of classes.value) {
    try {
      const h = parseNumber(c.height)
      if (h !== null) heights[c.value] = h
      if (h !== null && (h < 0 || h > 200)) throw new RangeError('0 to 200 m')
    } catch (x) {
      error.value = `class ${c.value}: ${messageOf(x)}`
      return
    }
  }
  if (
    await run(cover.value!, () =>
      post<TerrainReport>(cover.value!, `&kind=cover&classes=${encodeURIComponent(JSON.stringify(heights))}`),
    )
  )
    classes.value = []
}
</script>

<template>
  <MvSheet v-model="open" title="Terrain and what stands on it">
    <p class="soft">
      SRTM height tiles (1″ or 3″, named by their south-west corner) and GeoTIFF (degrees or UTM), any number in any order: the
      finest that knows the ground counts, and a void is filled from the next.
      {{ wanted ? `This site lies in ${wanted}; masts beyond its edge want the neighbours too.` : '' }}
    </p>
    <label class="press file"
      >{{ busy && !classes.length ? `Cutting ${busy}…` : 'Choose .hgt or .tif'
      }}<input type="file" accept=".hgt,.tif,.tiff" multiple :disabled="!!busy" data-test="hgt-file" @change="take"
    /></label>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <ul data-test="terrain-done">
      <li v-for="t in done" :key="t.name">
        <strong class="fig">{{ t.name }}</strong> {{ t.kind === 'cover' ? 'land cover' : 'ground' }},
        {{ t.side === 361 || t.side === 3601 ? '1″' : '3″' }}, {{ t.blocks }} blocks{{
          t.voids
            ? `, ${t.voids} samples void: filled from other tiles where they know, else bridged along each path and said`
            : ', no voids'
        }}
      </li>
    </ul>
    <h3>Land cover</h3>
    <p class="soft">
      A GeoTIFF of classes. Give each class what it usually stands high; the sums add that to the ground, except right beside
      either antenna.
    </p>
    <label class="press file"
      >{{ cover && classes.length ? cover.name : 'Choose a .tif of classes'
      }}<input type="file" accept=".tif,.tiff" :disabled="!!busy" data-test="cover-file" @change="takeCover"
    /></label>
    <template v-if="classes.length">
      <table class="fig">
        <thead>
          <tr>
            <th>class</th>
            <th>share</th>
            <th>stands high</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in classes" :key="c.value">
            <td>{{ c.value }}</td>
            <td>{{ (c.share * 100).toFixed(1) }} %</td>
            <td>
              <input
                v-model="c.height"
                inputmode="decimal"
                :aria-label="`Height of class ${c.value}, m`"
                :data-test="`class-${c.value}`"
              />
              m
            </td>
          </tr>
        </tbody>
      </table>
      <button type="button" class="press filled" :disabled="!!busy" data-test="keep-cover" @click="keepCover">
        {{ busy ? 'Cutting…' : 'Take it in' }}
      </button>
    </template>
  </MvSheet>
</template>

<style scoped>
.file {
  display: inline-block;
  margin: 12px 0;
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
h3 {
  margin-top: 14px;
}
table {
  border-collapse: collapse;
  margin: 8px 0;
}
th,
td {
  text-align: right;
  padding: 3px 12px;
  border-bottom: 1px solid var(--mv-line);
}
th {
  font-weight: 400;
  color: var(--mv-soft);
}
td input {
  width: 70px;
  text-align: right;
  border: 0;
  border-bottom: 1px solid var(--mv-ink);
  background: none;
}
</style>
