<script setup lang="ts">
import { sure } from '#core/sure'
import { v7 as uuidv7 } from 'uuid'
import { axisSign, MATERIALS, planAffine, wallsFromLines } from '#core/site'
import type { MaterialId } from '#core/job'
import { length } from '#core/units'
import { LARGEST_PLAN, readFloorPlan } from '~/utils/floor-plans'
import type { PlanLines, PlanPicture } from '~/utils/floor-plans'
import { storePicture } from '~/utils/pictures'

/** A floor's plan: a picture set to scale by two corners, or a drawing whose lines become walls. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ level: number }>()
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const error = ref('')
const busy = ref(false)
const name = ref('')
const picture = shallowRef<PlanPicture | null>(null)
const lines = shallowRef<PlanLines | null>(null)
const url = ref('')
const ties = ref<{ x: number; y: number }[]>([])
const distanceM = ref<number | null>(null)
const material = ref<MaterialId>('plasterboard')
const unitM = ref<number | null>(null)
const UNITS = [
  { value: 0.001, title: 'millimetres' },
  { value: 0.01, title: 'centimetres' },
  { value: 1, title: 'metres' },
  { value: 0.0254, title: 'inches' },
  { value: 0.3048, title: 'feet' },
]
const WALLS: MaterialId[] = ['plasterboard', 'timber', 'brick', 'block', 'concrete', 'reinforced concrete', 'glass']
const held = computed(() => store.doc.floorPlans.filter(p => p.level === props.level))
const { unit, factor } = useLengths()
watch(picture, p => {
  if (url.value) URL.revokeObjectURL(url.value)
  url.value = p ? URL.createObjectURL(p.blob) : ''
})
onBeforeUnmount(() => url.value && URL.revokeObjectURL(url.value))

async function bring(e: Event) {
  const file = pickedFile(e)
  if (!file) return
  error.value = ''
  picture.value = lines.value = null
  ties.value = []
  busy.value = true
  try {
    const read = await readFloorPlan(file, store.site)
    name.value = file.name.slice(0, 120)
    if (read.kind === 'picture') {
      picture.value = read
      distanceM.value = store.site.lengthM
    } else {
      lines.value = read
      unitM.value = read.unitM
      if (read.unitM === null) error.value = 'The drawing does not say what its unit is: say it below.'
    }
  } catch (x) {
    error.value = messageOf(x)
  }
  busy.value = false
}
function tie(e: MouseEvent) {
  if (ties.value.length >= 2) ties.value = []
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  const p = sure(picture.value)
  ties.value.push({
    x: ((e.clientX - box.left) / box.width) * p.widthPx,
    y: ((e.clientY - box.top) / box.height) * p.heightPx,
  })
}
async function lay() {
  const p = sure(picture.value)
  error.value = ''
  busy.value = true
  try {
    const [left, right] = ties.value
    const { chosen } = store.result
    const affine = planAffine({
      left: sure(left),
      right: sure(right),
      distanceM: distanceM.value ?? 0,
      axisDeg: store.site.axisDeg,
      halfDepthM: store.site.depthM / 2,
      sign: axisSign(store.site, chosen?.path ? chosen.frameBearingDeg : null),
    })
    const id = uuidv7()
    await storePicture(store.id, id, p.blob)
    const bad = await store.commit(
      [
        ...held.value.map(h => ({ table: 'floorPlans' as const, op: 'delete' as const, rowId: h.id })),
        {
          table: 'floorPlans',
          op: 'insert',
          rowId: id,
          fields: {
            level: props.level,
            name: name.value,
            widthPx: p.widthPx,
            heightPx: p.heightPx,
            affine: [...affine],
            opacity: 0.6,
          },
        },
      ],
      'a floor plan',
    )
    throwRefused(bad)
    open.value = false
  } catch (x) {
    error.value = messageOf(x)
  }
  busy.value = false
}
async function takeWalls() {
  error.value = ''
  try {
    const walls = wallsFromLines(lines.value!.lines, unitM.value ?? 0, store.site.axisDeg)
    const bad = await store.commit(
      walls.map(w => ({
        table: 'walls' as const,
        op: 'insert' as const,
        fields: { level: props.level, ...w, material: material.value, lossDb: null },
      })),
      `${walls.length} walls from ${name.value}`,
    )
    throwRefused(bad)
    open.value = false
  } catch (x) {
    error.value = messageOf(x)
  }
}
const remove = (id: string) => store.commit([{ table: 'floorPlans', op: 'delete', rowId: id }], 'take a floor plan away')
const fade = (id: string) => (v: number | null) =>
  store.commit(
    [{ table: 'floorPlans', op: 'update', rowId: id, fields: { opacity: (v ?? 60) / 100 } }],
    'how strong the plan shows',
  )
</script>

<template>
  <MvSheet v-model="open" title="The floor’s plan" wide>
    <div v-for="p in held" :key="p.id" class="held">
      <strong>{{ p.name }}</strong>
      <MvNumber
        label="How strong it shows"
        unit="%"
        :value="p.opacity * 100"
        :low="0"
        :high="100"
        :decimals="0"
        :save="fade(p.id)"
      />
      <button type="button" class="press small" :disabled="!session.mayEdit" @click="remove(p.id)">take away</button>
    </div>
    <label class="press file"
      >{{ busy ? 'reading…' : 'Picture, PDF page, DXF or GeoJSON'
      }}<input
        type="file"
        accept=".png,.jpg,.jpeg,.webp,.pdf,.dxf,.geojson,.json,image/*"
        :disabled="busy || !session.mayEdit"
        data-test="plan-file"
        @change="bring"
    /></label>
    <span class="soft"> up to {{ LARGEST_PLAN / 1e6 }} MB; it stays with the job, also without a connection.</span>
    <p v-if="error" class="error" role="alert">{{ error }}</p>

    <template v-if="picture">
      <p>
        Set it to scale: press the outside corner at the <b>{{ ties.length === 1 ? 'right' : 'left' }}</b> end of the wall that is
        at the top of the plan, {{ ties.length === 1 ? 'last' : 'then the one at its right end' }}.
      </p>
      <div class="sheet" @click="tie">
        <img :src="url" alt="the plan" data-test="plan-picture" />
        <i
          v-for="(t, i) in ties"
          :key="i"
          :style="{ left: `${(t.x / picture.widthPx) * 100}%`, top: `${(t.y / picture.heightPx) * 100}%` }"
        />
      </div>
      <div class="scale">
        <MvNumber
          label="Between the two corners"
          :unit="unit"
          :factor="factor"
          :value="distanceM"
          :low="1"
          :high="400"
          :decimals="2"
          :save="async v => ((distanceM = v), [])"
        />
        <span class="soft">the site is {{ length(store.site.lengthM, prefs.units) }} long as entered</span>
        <button type="button" class="press" :disabled="ties.length < 2 || busy" data-test="lay-plan" @click="lay">
          lay it under the floor
        </button>
      </div>
    </template>

    <div v-if="lines" class="scale">
      <span>{{ lines.lines.length }} lines in the drawing.</span>
      <MvChoice :value="unitM" :save="v => (unitM = v)" label="Its unit" :choices="UNITS" data-test="plan-unit" />
      <MvChoice
        :value="material"
        :save="v => (material = v)"
        label="Walls of"
        :choices="WALLS.map(m => ({ value: m, title: MATERIALS[m].words }))"
      />
      <button type="button" class="press" :disabled="unitM === null" data-test="take-walls" @click="takeWalls">
        take its lines as walls
      </button>
    </div>
  </MvSheet>
</template>

<style scoped>
.held,
.scale {
  display: flex;
  gap: 14px;
  align-items: center;
  margin: 10px 0;
  flex-wrap: wrap;
}
.held :deep(.v-input),
.scale :deep(.v-input) {
  max-width: 220px;
}
.sheet {
  position: relative;
  cursor: crosshair;
  border: 1px solid var(--mv-line);
}
.sheet img {
  display: block;
  width: 100%;
}
.sheet i {
  position: absolute;
  width: 14px;
  height: 14px;
  margin: -7px;
  border: 2px solid var(--mv-computed);
  border-radius: 50%;
  background: color-mix(in srgb, var(--mv-sheet) 60%, transparent);
}
</style>
