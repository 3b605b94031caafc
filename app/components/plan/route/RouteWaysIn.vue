<script setup lang="ts">
import { nth } from '#core/sure'
import { BARE_FIXTURE, BEHINDS, insert, setField, update } from '#core/job'
import type { Entry, Fields, Fixture } from '#core/job'
import { BEHIND_SAYS, bitFor, entryPoint, waysIn } from '#core/install'
import type { RankedWay } from '#core/install'
import { crossersOf, passagesOf } from '#core/judge'
import { buildingOf, round2 } from '#core/site'
import { v7 as uuidv7 } from 'uuid'
import { num } from '#core/units'

/** Ways by which the cables come in, ranked; the one that is taken, on the picture, with what is known of it; ducts on the way. */
const store = useOpened()
const session = useSession()
const { once, doing } = useOnce()
const building = computed(() => buildingOf(store.here))
const plan = computed(() => {
  const { tree, lengths } = store.result
  return { doc: store.here, design: store.design, tree, lengths, building: building.value }
})
const cables = computed(() => crossersOf(plan.value))
const ways = computed(() => waysIn(store.job.kind, store.job.mayDrill, cables.value))
const passages = computed(() => passagesOf(plan.value))
const VERDICT = { go: 'go', ask: 'ask first', never: 'never here' }
const KNOWN_BY = [
  { value: 'known' as const, title: 'it is known' },
  { value: 'looked at' as const, title: 'looked at' },
]
const BEHIND = BEHINDS.map(value => ({ value, title: BEHIND_SAYS[value].words }))
const holeWords = (mm: number) => {
  const bit = bitFor(mm)
  return `${num(mm, 1)} mm${bit ? `, bit ${bit}` : ''}`
}
const taken = computed(() => passages.value.find(p => p.at.id === store.design?.wayInId) ?? null)
/** where a new one stands */
const atShell = (entry: Entry) =>
  cables.value[0] ? entryPoint(entry, cables.value[0], building.value) : { eastM: 0, northM: 0, upM: 1 }
const take = (w: RankedWay) =>
  once(() => {
    const there = store.doc.fixtures.find(f => f.kind === 'way in' && f.entry === w.id)
    const rowId = there?.id ?? uuidv7()
    const fields = { ...BARE_FIXTURE, kind: 'way in' as const, name: '', ...atShell(w.id), entry: w.id }
    const chosen = update('designs', store.variant.id, { wayInId: rowId })
    return store.commit(there ? [chosen] : [insert('fixtures', fields, rowId), chosen], 'take a way in')
  })
const addDuct = () =>
  once(() => {
    const at = taken.value?.at ?? atShell('wall')
    const fields = {
      ...BARE_FIXTURE,
      kind: 'duct' as const,
      name: '',
      eastM: at.eastM,
      northM: at.northM,
      upM: round2(at.upM + 0.5),
      openMm: 32,
    }
    return store.commit([insert('fixtures', fields)], 'a duct')
  })
const set = (f: Fixture, field: keyof Fields<'fixtures'>) => (v: unknown) =>
  store.commit([setField('fixtures', f.id, field, v)], 'a way in')
const setName = (f: Fixture) => (v: string | null) => set(f, 'name')(v ?? '')
const gone = (f: Fixture) => store.commit([{ table: 'fixtures', op: 'delete', rowId: f.id }], 'take it away')
const sealOf = (jacketsMm: number[]) =>
  jacketsMm.length === 1
    ? `gland for ${num(nth(jacketsMm, 0), 1)} mm, the jacket sleeved where it is thinner`
    : `an insert with ${jacketsMm.length} holes, ${[...new Set(jacketsMm.map(d => num(d, 1)))].join(' and ')} mm`
const TOO_WIDE = ': wider than any bit, crimp after pulling'
</script>

<template>
  <section v-if="cables.length">
    <h2>Which way in, for {{ cables.length === 1 ? 'one cable' : `${cables.length} cables` }}</h2>
    <p class="soft">
      The hole is sized by the plug, its seal by the jacket.
      {{
        store.job.mayDrill === 'no'
          ? 'Nothing may be drilled here.'
          : store.job.mayDrill === 'ask'
            ? 'Drilling is asked for first.'
            : ''
      }}
    </p>
    <div v-if="taken" class="taken" data-test="taken">
      <p>
        <b>{{ ways.find(w => w.id === taken?.at.entry)?.words ?? taken.at.entry }}</b>, taken for
        {{ taken.cables.length === 1 ? 'one cable' : `${taken.cables.length} cables` }}
      </p>
      <div class="fields">
        <MvText label="name" :value="taken.at.name || null" :save="setName(taken.at)" />
        <MvNumber
          label="free inside"
          :value="taken.at.openMm"
          unit="mm"
          :low="2"
          :high="1000"
          :decimals="1"
          :save="set(taken.at, 'openMm')"
          data-test="open-mm"
        />
        <MvChoice
          class="wide"
          label="what is behind"
          :value="taken.at.behindFound"
          :choices="BEHIND"
          clearable
          :disabled="!session.mayEdit"
          :save="set(taken.at, 'behindFound')"
          data-test="behind"
        />
        <MvChoice
          label="how one knows"
          :value="taken.at.behind"
          :choices="KNOWN_BY"
          clearable
          :disabled="!session.mayEdit"
          :save="set(taken.at, 'behind')"
        />
        <MvNumber
          label="goes through"
          :value="taken.at.wallMm"
          unit="mm"
          :low="0.3"
          :high="3000"
          :decimals="1"
          :save="set(taken.at, 'wallMm')"
        />
        <MvText
          class="wide"
          label="in words: brick, stud, foam, how thick"
          :value="taken.at.behindWhat"
          :save="set(taken.at, 'behindWhat')"
        />
      </div>
      <ul v-if="taken.needsMm !== null && taken.bareMm !== null">
        <li>
          with one plug at a time <b class="fig">{{ num(taken.needsMm, 1) }} mm</b
          >{{ taken.bitMm ? `, bit ${taken.bitMm}` : ', wider than any bit' }}; crimped after pulling
          {{ holeWords(taken.bareMm) }}
        </li>
        <li>{{ sealOf(taken.cables.map(c => c.jacketMm)) }}</li>
        <li v-if="taken.fill">
          <b class="fig">{{ num(100 * taken.fill.fill) }} %</b> full of {{ num(100 * taken.fill.most) }} % by the rule of thumb
        </li>
        <li>
          falls outward, drip loop or a tie as drip point below; plate sealed on three edges, its lower edge open; sealant or
          gasket, not both
        </li>
      </ul>
    </div>
    <ol class="ways" data-test="ways-in">
      <li v-for="w in ways" :key="w.id" :class="[w.verdict, { on: w.id === taken?.at.entry }]">
        <b>{{ w.words }}</b>
        <span class="verdict">{{ VERDICT[w.verdict] }}</span>
        <span class="soft"
          >{{ w.verdict === 'never' ? w.why : w.how
          }}{{
            w.holeMm !== null && w.verdict !== 'never'
              ? ` Hole ${num(w.holeMm)} mm${w.bitMm ? `, bit ${w.bitMm}` : TOO_WIDE}.`
              : ''
          }}</span
        >
        <span v-if="w.caution && w.verdict !== 'never'" class="caution">{{ w.caution }}</span>
        <button
          v-if="w.verdict !== 'never' && w.id !== taken?.at.entry && session.mayEdit"
          type="button"
          class="press small"
          :disabled="doing"
          :data-test="`take-${w.id}`"
          @click="take(w)"
        >
          take it
        </button>
      </li>
    </ol>
  </section>
  <p v-else class="soft">No cable comes in from outside.</p>
  <section>
    <h2>Ducts, pipes, masts on the way</h2>
    <div v-for="p in passages.filter(x => x.at.kind === 'duct')" :key="p.at.id" class="duct" data-test="duct">
      <div class="fields">
        <MvText label="name" :value="p.at.name || null" :save="setName(p.at)" />
        <MvNumber
          label="inside"
          :value="p.at.openMm"
          unit="mm"
          :low="2"
          :high="1000"
          :decimals="1"
          :save="set(p.at, 'openMm')"
          data-test="duct-mm"
        />
        <button type="button" class="press bare" :disabled="!session.mayEdit" @click="gone(p.at)">take away</button>
      </div>
      <p v-if="p.fill">
        {{ p.cables.length }} in it, <b class="fig" :class="{ error: !p.fill.fits }">{{ num(100 * p.fill.fill) }} %</b> of
        {{ num(100 * p.fill.most) }} %{{ p.fill.jams ? ', three can wedge' : ''
        }}{{
          p.needsMm !== null && p.at.openMm !== null && p.needsMm > p.at.openMm ? `; plugs want ${num(p.needsMm, 1)} mm` : ''
        }}
      </p>
      <p v-else class="soft">No drawn way comes within 0.6 m of it: drag it onto one.</p>
    </div>
    <button type="button" class="press small" :disabled="!session.mayEdit || doing" data-test="add-duct" @click="addDuct">
      a duct
    </button>
    <p class="soft">A lamp and its wire on one cable count once. Never in one duct with mains. An inner rim keeps water out.</p>
  </section>
</template>

<style scoped>
.taken {
  border-left: 4px solid var(--mv-ink);
  padding-left: 12px;
  margin: 8px 0 12px;
}
.taken ul {
  padding-left: 18px;
  margin: 6px 0;
  font-size: 13.5px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin: 6px 0;
}
.fields .wide {
  grid-column: 1 / -1;
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
.ways li.on {
  background: var(--mv-sheet);
}
.ways li > .soft,
.ways li > .caution,
.ways li > .press {
  grid-column: 1 / -1;
  font-size: 13px;
  justify-self: start;
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
@media (max-width: 900px) {
  .press {
    min-height: 44px;
  }
}
</style>
