<script setup lang="ts">
import { nth } from '#core/sure'
import type { TreeNode } from '#core/chain'
import {
  carriedBy,
  gustOf,
  heightWords,
  isRaised,
  isScrewed,
  metalsOf,
  mountKind,
  mountsFor,
  screwsHold,
  standing,
  USUAL_GUST_MS,
  poleOf,
} from '#core/install'
import { BARE_FIXING, GRADE_IDS, METALS, SUBSTRATES } from '#core/job'
import type { Fixing, Mount } from '#core/job'
import { clearOfLinesM, lastCheck, linesKey, serviceAntennas, vehicleHeightM } from '#core/judge'
import { raising } from '#core/card'
import { buildingOf } from '#core/site'
import { length, num } from '#core/units'

/** What holds each outside antenna: the mount, the pole in the wind, its screws, its metals. */
const store = useOpened()
const prefs = usePrefs()
const t = useSay()
const session = useSession()
const { unit, factor } = useLengths()
const held = computed(() => {
  const { tree } = store.result
  return tree ? [...tree.donors, ...serviceAntennas(tree.nodes)] : []
})
const mounts = computed(() => mountsFor(store.job.kind))
const gust = computed(() => gustOf(store.site))
const words = <T extends string>(list: readonly T[]) => list.map(value => ({ value, title: value }))
const SCREWS = words(['lag', 'wood screw', 'anchor', 'bolt'] as const)
const write = (at: TreeNode, fixing: Fixing | null) =>
  store.commit([{ table: 'nodes', op: 'update', rowId: at.node.id, fields: { fixing } }], 'what holds an antenna')
const choose = (at: TreeNode) => (mount: Mount | null) =>
  write(
    at,
    mount && {
      ...BARE_FIXING,
      ...at.node.fixing,
      mount,
      // What pole it takes is not known from the bracket: it is noted, or stays open.
      sections: at.node.fixing?.sections ?? [],
    },
  )
/** a pole as it is usually bought, to be changed */
const FIRST = { outsideMm: 42, wallMm: 3, lengthM: 2 }
/** Only what is held can be changed in how it is. */
const change = (at: TreeNode, to: Partial<Fixing>) => write(at, at.node.fixing && { ...at.node.fixing, ...to })
const set = (at: TreeNode, field: keyof Fixing) => (v: unknown) => change(at, { [field]: v } as Partial<Fixing>)
const sectionsOf = (at: TreeNode) => at.node.fixing?.sections ?? []
type Section = Fixing['sections'][number]
const section = (at: TreeNode, i: number, field: keyof Section) => (v: number) =>
  change(at, { sections: sectionsOf(at).map((s, j) => (i === j ? { ...s, [field]: v } : s)) })
const addSection = (at: TreeNode) => {
  const last = sectionsOf(at).at(-1) ?? FIRST
  const next = { outsideMm: Math.max(10, last.outsideMm - 8), wallMm: last.wallMm, lengthM: 1 }
  return change(at, { sections: [...sectionsOf(at), next] })
}
const lessSection = (at: TreeNode) => change(at, { sections: sectionsOf(at).slice(0, -1) })
const setGust = (v: number | null) =>
  store.commit([{ table: 'sites', op: 'update', rowId: store.site.id, fields: { gustMs: v } }], 'the strongest gust')
const views = computed(() =>
  held.value.map(at => {
    const { tree } = store.result
    const f = at.node.fixing
    const kind = f ? mountKind(f.mount) : null
    const stands = f && tree && kind?.pole ? standing(tree, at, f, gust.value) : null
    const pulls =
      stands && !('refused' in stands) ? Math.max(nth(stands.sections, 0).upperN, nth(stands.sections, 0).lowerN) : null
    return {
      at,
      f,
      on: tree ? poleOf(tree, at) : null,
      kind,
      stands,
      carried: f && tree ? carriedBy(tree, at, f) : [],
      holds: f && pulls !== null ? screwsHold(f, pulls) : null,
      metals: f ? metalsOf(f, store.job.kind) : null,
    }
  }),
)
/** the nearest overhead line from where each is raised, as it was last said */
const raised = (at: TreeNode) => isRaised(store.job.kind, building.value, at.node)
const lineM = (at: TreeNode): number | null => {
  const said = lastCheck(store.doc, 'fact', linesKey(at.node.id))
  return said?.done ? (said.value ?? null) : null
}
const setLine = (at: TreeNode) => (value: number | null) =>
  note(
    { kind: 'fact', key: linesKey(at.node.id), about: raising(at).about, done: value !== null, value },
    'the nearest overhead line',
  )
const building = computed(() => buildingOf(store.here))
const { note } = useChecks()
const heightM = computed(() => vehicleHeightM({ tree: store.result.tree, building: building.value, site: store.site }))
const percent = (share: number) => `${num(100 * share)} %`
const m = (v: number) => length(v, prefs.units)
</script>

<template>
  <section>
    <div class="head">
      <h2>What holds it</h2>
      <MvNumber
        class="gust"
        label="strongest gust"
        :value="store.site.gustMs"
        unit="m/s"
        :low="5"
        :high="95"
        :hint="String(USUAL_GUST_MS)"
        :decimals="0"
        :save="setGust"
        data-test="gust"
      />
    </div>
    <p v-if="heightM !== null" data-test="height-after">
      With everything on it the vehicle is <b class="fig">{{ t(heightWords(heightM)) }}</b>; a label at the wheel says so.
    </p>
    <p v-if="!views.length" class="soft">No outside antenna yet.</p>
    <div v-for="v in views" :key="v.at.node.id" class="mount" data-test="mount">
      <h3>{{ v.at.name }}</h3>
      <div class="fields">
        <MvChoice
          class="wide"
          label="held by"
          :value="v.f?.mount ?? null"
          :choices="mounts.map(x => ({ value: x.id, title: x.id }))"
          clearable
          :disabled="!session.mayEdit"
          :save="choose(v.at)"
          data-test="mount-kind"
        />
        <MvNumber
          v-if="raised(v.at) && !v.on"
          class="wide"
          label="nearest overhead line is away"
          :value="lineM(v.at)"
          :unit="unit"
          :factor="factor"
          :low="0"
          :high="1000"
          :decimals="1"
          :hint="`not known: stop; ${m(clearOfLinesM(v.at))} are kept`"
          :save="setLine(v.at)"
          data-test="line-away"
        />
        <MvNumber
          v-if="v.f?.mount === 'roof bolt'"
          class="wide"
          label="what it is bolted through is thick"
          :value="v.f.throughMm ?? null"
          unit="mm"
          :low="0.3"
          :high="300"
          :decimals="0"
          :save="set(v.at, 'throughMm')"
          data-test="through-mm"
        />
      </div>
      <p v-if="v.on" class="soft" data-test="on-pole">On the pole of {{ v.on.name }}, and raised with it.</p>
      <p v-else-if="!v.f" class="error" data-test="no-mount">Not planned: what holds it is not noted.</p>
      <template v-if="v.f && v.kind">
        <p class="soft">
          Takes {{ v.kind.takes }}. Never {{ v.kind.never }}. {{ v.kind.how }} Tools: {{ v.kind.tools }}.
          {{ v.kind.reversible ? 'Comes off without a trace.' : 'Leaves holes.' }}
        </p>
        <template v-if="v.kind.pole">
          <div v-for="(s, i) in v.f.sections" :key="i" class="fields three" data-test="pole-section">
            <MvNumber
              :label="v.f.sections.length > 1 ? `section ${i + 1} from below, Ø` : 'pole, Ø'"
              :value="s.outsideMm"
              unit="mm"
              :low="5"
              :high="500"
              :decimals="1"
              required
              :save="section(v.at, i, 'outsideMm')"
            />
            <MvNumber
              label="wall"
              :value="s.wallMm"
              unit="mm"
              :low="0.3"
              :high="50"
              :decimals="1"
              required
              :save="section(v.at, i, 'wallMm')"
            />
            <MvNumber
              :label="i ? 'long' : 'over the upper fixing'"
              :value="s.lengthM"
              :unit="unit"
              :factor="factor"
              :low="0.05"
              :high="30"
              :decimals="2"
              required
              :save="section(v.at, i, 'lengthM')"
            />
          </div>
          <p v-if="session.mayEdit" class="row">
            <button type="button" class="press small" @click="addSection(v.at)">+ section</button>
            <button v-if="v.f.sections.length" type="button" class="press small bare" @click="lessSection(v.at)">
              − top section
            </button>
          </p>
          <div class="fields">
            <MvChoice
              label="made of"
              :value="v.f.grade"
              :choices="words(GRADE_IDS)"
              clearable
              :disabled="!session.mayEdit"
              :save="set(v.at, 'grade')"
              data-test="grade"
            />
            <MvNumber
              label="its fixings apart"
              :value="v.f.apartM"
              :unit="unit"
              :factor="factor"
              :low="0.05"
              :high="10"
              :decimals="2"
              :save="set(v.at, 'apartM')"
              data-test="apart"
            />
            <template v-if="v.f.mount === 'weighted tripod'">
              <MvNumber
                label="middle to tipping edge"
                :value="v.f.baseM"
                unit="m"
                :low="0.1"
                :high="5"
                :save="set(v.at, 'baseM')"
              />
              <MvNumber
                label="weighed down by"
                :value="v.f.ballastKg"
                unit="kg"
                :low="0"
                :high="2000"
                :save="set(v.at, 'ballastKg')"
              />
            </template>
          </div>
          <div v-if="v.stands" class="stands" data-test="stands">
            <p v-if="'refused' in v.stands" class="error">{{ v.stands.refused }}</p>
            <template v-else>
              <p>
                At {{ num(v.stands.gustMs) }} m/s with {{ v.carried.length === 1 ? 'one part' : `${v.carried.length} parts` }} on
                it: <b class="fig">{{ num(v.stands.sections[0]!.momentNm) }} N·m</b> at the upper fixing, which takes
                {{ num(v.stands.sections[0]!.upperN) }} N, the lower {{ num(v.stands.sections[0]!.lowerN) }} N.
                <template v-if="v.stands.worst.used !== null">
                  <b class="fig" :class="{ error: v.stands.worst.used > 1 }">{{ percent(v.stands.worst.used) }}</b> of what the
                  tube bears; sways {{ num(v.stands.tipDeg!, 1) }}°, costs
                  {{ v.stands.costsDb! < 0.05 ? 'under 0.1' : num(v.stands.costsDb!, 1) }} dB. Down above
                  {{ num(v.stands.worst.mostGustMs!) }} m/s.
                </template>
                <template v-else>{{ num(v.stands.worst.stressMPa) }} MPa; what it is made of is not known: no verdict.</template>
              </p>
              <p v-if="v.stands.shorterGustMs !== null" class="soft">
                With the thinnest section left in it stands {{ num(v.stands.shorterGustMs) }} m/s.
              </p>
              <p v-if="v.stands.ballastKg !== null">It wants {{ num(v.stands.ballastKg) }} kg to stand.</p>
            </template>
          </div>
        </template>
        <div class="fields">
          <template v-if="isScrewed(v.f.mount)">
            <MvChoice
              label="into"
              :value="v.f.substrate"
              :choices="words(SUBSTRATES)"
              clearable
              :disabled="!session.mayEdit"
              :save="set(v.at, 'substrate')"
            />
            <MvChoice
              label="by"
              :value="v.f.screw"
              :choices="SCREWS"
              clearable
              :disabled="!session.mayEdit"
              :save="set(v.at, 'screw')"
            />
            <template v-if="v.f.screw">
              <MvNumber
                label="how many each fixing"
                :value="v.f.screwsEach"
                unit=""
                :low="1"
                :high="12"
                :decimals="0"
                :save="set(v.at, 'screwsEach')"
              />
              <MvNumber
                v-if="v.f.screw === 'anchor'"
                label="its maker’s failing load"
                :value="v.f.anchorN"
                unit="N"
                :low="1"
                :high="1000000"
                :decimals="0"
                :save="set(v.at, 'anchorN')"
              />
              <template v-else-if="v.f.screw !== 'bolt'">
                <MvNumber
                  label="Ø"
                  :value="v.f.screwMm"
                  unit="mm"
                  :low="2"
                  :high="40"
                  :decimals="1"
                  :save="set(v.at, 'screwMm')"
                />
                <MvNumber
                  label="thread in it"
                  :value="v.f.threadMm"
                  unit="mm"
                  :low="5"
                  :high="300"
                  :decimals="0"
                  :save="set(v.at, 'threadMm')"
                />
              </template>
            </template>
          </template>
          <MvChoice
            label="screw or clamp of"
            :value="v.f.metal"
            :choices="words(METALS)"
            clearable
            :disabled="!session.mayEdit"
            :save="set(v.at, 'metal')"
          />
          <MvChoice
            label="on"
            :value="v.f.plate"
            :choices="words(METALS)"
            clearable
            :disabled="!session.mayEdit"
            :save="set(v.at, 'plate')"
          />
          <label v-if="v.f.metal && v.f.plate" class="check"
            ><input
              type="checkbox"
              :checked="v.f.parted"
              :disabled="!session.mayEdit"
              data-test="parted"
              @change="e => set(v.at, 'parted')((e.target as HTMLInputElement).checked)"
            />
            a pad and a sleeve between them</label
          >
        </div>
        <p v-if="v.holds && isScrewed(v.f.mount)" data-test="holds">
          <template v-if="'refused' in v.holds"
            ><span class="soft">Screws: {{ v.holds.refused }}.</span></template
          >
          <template v-else>
            The screws of one fixing hold {{ num(v.holds.holdsN) }} N, the wind pulls {{ num(v.holds.pullsN) }} N:
            <b class="fig" :class="{ error: v.holds.used > 1 }">{{ percent(v.holds.used) }}</b>.
          </template>
        </p>
        <p v-if="v.metals" data-test="metals">
          {{ v.f.metal }} on {{ v.f.plate }}: {{ num(v.metals.apartV, 2) }} V of {{ num(v.metals.mostV, 2) }} V borne in this air,
          <b :class="{ error: v.metals.says === 'fix' }">{{
            v.metals.says === 'good' ? 'good' : v.metals.says === 'note' ? 'greased it lasts' : 'a pad and sleeve between'
          }}</b>.
        </p>
      </template>
    </div>
    <p class="soft">
      The assembled length and 3 m more from any overhead line; distance not known: stop. Over 3 m free, with ice, or with stays
      an engineer decides.
    </p>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  align-items: center;
}
.gust {
  max-width: 170px;
}
.mount {
  padding: 8px 0 14px;
  border-bottom: 1px solid var(--mv-line);
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin: 6px 0;
}
.fields.three {
  grid-template-columns: 1.3fr 1fr 1.3fr;
}
.fields .wide {
  grid-column: 1 / -1;
}
.row {
  display: flex;
  gap: 8px;
}
.stands {
  border-left: 4px solid var(--mv-ink);
  padding-left: 12px;
}
@media (max-width: 900px) {
  .press {
    min-height: 44px;
  }
}
</style>
