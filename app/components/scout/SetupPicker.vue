<script setup lang="ts">
import { entryOf } from '#core/sure'
import { round2 } from '#core/site'
import { asPlanned, setUpsOf, setupWords, toTrue, traitsOf } from '#core/survey'
import type { SetUp } from '#core/survey'
import type { SetupRow } from '#core/job'

/** Which set-up a reading is made with; the next one is a copy with one thing changed: two taps. */
const props = defineProps<{ after?: boolean }>()
const id = defineModel<string | null>({ required: true })
const store = useOpened()
const session = useSession()
const { all, copyOf, error } = useSetups()
const now = computed(() => all.value.find(s => s.row.id === id.value) ?? null)
const fits = (s: SetUp) => !props.after || s.phase === 'after'
/** the last that was used here: what Prove used says nothing of the survey */
const lastUsed = computed(() => {
  const here = new Map(all.value.filter(s => (s.phase === 'after') === !!props.after).map(s => [s.row.id, s]))
  const rows = [...store.doc.readings, ...store.doc.speedRuns].filter(r => r.setupId && here.has(r.setupId))
  const last = rows.reduce<(typeof rows)[number] | null>((a, b) => (!a || b.takenAtUtc >= a.takenAtUtc ? b : a), null)
  return last ? entryOf(here, last.setupId!) : null
})
const place = props.after ? 'prove' : 'survey'
// What a person chose here stays chosen; else in Survey what was used last, in Prove what is to stay.
watchEffect(() => {
  if (now.value && fits(now.value)) return
  const chosen = all.value.find(s => s.row.id === store.chosenSetups[place] && fits(s))
  const found =
    chosen ??
    (props.after
      ? all.value.filter(s => s.phase === 'after').at(-1)
      : (lastUsed.value ?? all.value.find(s => s.phase !== 'after')))
  id.value = found?.row.id ?? null
})
watch(id, v => v && (store.chosenSetups[place] = v))
const designName = (d: string | null) => store.doc.designs.find(x => x.id === d)?.name ?? 'the plan'
/** what the first reading of the finished work is taken as made with, until said otherwise */
const planned = computed(() => {
  const row = store.design && { id: '', ...asPlanned(store.doc, store.design) }
  const made = row && setUpsOf({ ...store.doc, setups: [row] }).get('')
  return made ? setupWords(made) : 'not said yet'
})
const open = ref(false)
const { doing, once } = useOnce()
const from = computed<SetUp | null>(() => now.value ?? lastUsed.value ?? all.value[0] ?? null)

async function copy(changed: Partial<SetupRow>) {
  if (!session.mayEdit) return
  await once(async () => {
    // The first of all is of before; later ones are what was tried between, until they are said to stay.
    const mark = props.after ? 'after' : from.value ? null : 'before'
    const made = await copyOf(from.value, changed, mark)
    if (!made) return
    id.value = made
    open.value = false
  })
}
async function addDevice(kind: 'phone' | 'router' | 'modem') {
  const name = { phone: 'Phone', router: 'Router', modem: 'Modem' }[kind]
  const n = store.doc.devices.filter(d => d.kind === kind).length
  const before = new Set(store.doc.devices.map(d => d.id))
  await store.commit(
    [{ table: 'devices', op: 'insert', fields: { name: n ? `${name} ${n + 1}` : name, kind, antennaDbi: null } }],
    'a device',
  )
  const made = store.doc.devices.find(d => !before.has(d.id))
  if (made) await copy({ deviceId: made.id })
}
async function mark(value: SetupRow['mark']) {
  if (now.value)
    await store.commit([{ table: 'setups', op: 'update', rowId: now.value.row.id, fields: { mark: value } }], 'mark a set-up')
}
const rename = (name: string | null) =>
  now.value
    ? store.commit([{ table: 'setups', op: 'update', rowId: now.value.row.id, fields: { name } }], 'name a set-up')
    : undefined
interface Choice {
  words: string
  changed: Partial<SetupRow>
  test?: string
}
/** what may be different, each with its answers */
const questions = computed<
  { ask: 'read by' | 'fed by' | 'SIM' | 'tested over' | 'antenna' | 'its own antennas' | 'booster'; choices: Choice[] }[]
>(() => [
  { ask: 'read by', choices: store.doc.devices.map(d => ({ words: d.name, changed: { deviceId: d.id } })) },
  {
    ask: 'fed by',
    choices: [
      { words: 'its battery', changed: { power: 'battery' } },
      { words: 'its lead', changed: { power: 'lead' } },
    ],
  },
  { ask: 'SIM', choices: store.doc.sims.map(s => ({ words: s.name, changed: { simId: s.id } })) },
  {
    ask: 'tested over',
    choices: (['device', 'LAN', 'Wi-Fi 2.4', 'Wi-Fi 5'] as const).map(link => ({
      words: link === 'device' ? 'the device itself' : link,
      changed: { link },
    })),
  },
  {
    ask: 'antenna',
    choices: [
      { words: 'built in', changed: { antenna: 'built in', designId: null } },
      ...store.doc.designs.map((d): Choice => ({
        words: `outside, of plan ${d.name}`,
        changed: { antenna: 'outside', designId: d.id },
        test: 'setup-outside',
      })),
    ],
  },
  {
    ask: 'its own antennas',
    choices: [
      { words: 'on it', changed: { ownAntennas: 'in' }, test: 'setup-own-in' },
      { words: 'taken off', changed: { ownAntennas: 'out' }, test: 'setup-own-out' },
    ],
  },
  { ask: 'booster', choices: (['none', 'off', 'on'] as const).map(booster => ({ words: booster, changed: { booster } })) },
])
const isNow = (c: Choice) =>
  !!from.value && Object.entries(c.changed).every(([k, v]) => from.value!.row[k as keyof SetupRow] === v)
const lock = ref('')
const donor = computed(() => store.result?.levels?.sources[0] ?? null)
/** held as the plan has it: height and heading of its donor */
const asDrawn = computed<Partial<SetupRow> | null>(() =>
  donor.value && from.value?.row.designId === store.design?.id
    ? {
        antennaUpM: round2(donor.value.donor.node.upM),
        antennaDeg: Math.round(toTrue(store.doc, donor.value.turned.azimuthDeg)) % 360,
      }
    : null,
)
/** where the outside antenna is, typed field by field and taken as one change */
const where = reactive<Pick<SetupRow, 'place' | 'antennaUpM' | 'antennaDeg'>>({ place: null, antennaUpM: null, antennaDeg: null })
watch(
  [open, () => from.value?.row.id],
  () => {
    const { place = null, antennaUpM = null, antennaDeg = null } = from.value?.row ?? {}
    Object.assign(where, { place, antennaUpM, antennaDeg })
  },
  { immediate: true },
)
const typed = (field: keyof typeof where) => (v: string | number | null) => {
  Object.assign(where, { [field]: v === '' ? null : v })
  return Promise.resolve([])
}
const { unit, factor } = useLengths()
</script>

<template>
  <div class="setup" data-test="setup">
    <select v-model="id" class="press small" aria-label="Set-up" :title="now ? setupWords(now) : ''">
      <option v-if="!all.length" :value="null">no set-up yet</option>
      <option v-for="s in all.filter(x => !after || x.phase === 'after')" :key="s.row.id" :value="s.row.id">
        {{ s.row.mark ? `${s.row.mark}: ` : '' }}{{ setupWords(s) }}
      </option>
      <option v-if="after && !all.some(s => s.phase === 'after')" :value="null">after: {{ planned }}</option>
    </select>
    <button v-if="session.mayEdit" type="button" class="press small" data-test="setup-change" @click="open = true">
      change…
    </button>
    <MvSheet v-model="open" title="The same, with one thing changed">
      <p v-if="from" class="soft">
        Now: <b>{{ setupWords(from) }}</b>. Press what is different; everything else stays. What changed is told by itself later.
      </p>
      <dl>
        <template v-for="q in questions" :key="q.ask">
          <dt>{{ q.ask }}</dt>
          <dd>
            <button
              v-for="(c, n) in q.choices"
              :key="n"
              type="button"
              class="press small"
              :class="{ on: isNow(c) }"
              :disabled="doing"
              :data-test="c.test"
              @click="copy(c.changed)"
            >
              {{ c.words }}
            </button>
            <template v-if="q.ask === 'read by'">
              <button type="button" class="press small bare" :disabled="doing" @click="addDevice('phone')">+ phone</button>
              <button
                type="button"
                class="press small bare"
                :disabled="doing"
                data-test="add-router"
                @click="addDevice('router')"
              >
                + router
              </button>
            </template>
            <span v-else-if="q.ask === 'SIM'" class="soft">more SIMs in Ask</span>
          </dd>
          <template v-if="q.ask === 'antenna' && from?.row.antenna === 'outside'">
            <dt>held there</dt>
            <dd class="where" data-test="setup-where">
              <MvText label="Held or fixed at" :value="where.place" :save="typed('place')" />
              <MvNumber
                label="Above ground"
                :unit="unit"
                :factor="factor"
                :value="where.antennaUpM"
                :low="-20"
                :high="300"
                :save="typed('antennaUpM')"
              />
              <MvNumber
                label="Pointing, true"
                unit="°"
                :value="where.antennaDeg"
                :low="0"
                :high="360"
                :save="typed('antennaDeg')"
              />
              <button
                v-if="asDrawn"
                type="button"
                class="press small bare"
                :disabled="doing"
                @click="Object.assign(where, asDrawn)"
              >
                as in the plan
              </button>
              <button
                type="button"
                class="press small"
                :disabled="doing"
                data-test="setup-where-take"
                @click="copy({ ...where })"
              >
                take
              </button>
            </dd>
          </template>
        </template>
        <dt>locked to</dt>
        <dd>
          <form @submit.prevent="copy({ bandLock: lock.trim() || null })">
            <v-text-field v-model="lock" label="Band, empty for none" /><button
              type="submit"
              class="press small"
              :disabled="doing"
            >
              take
            </button>
          </form>
        </dd>
        <template v-if="now">
          <dt>called</dt>
          <dd>
            <MvText
              :key="now.row.id"
              label="Empty: by what it is made of"
              :value="now.row.name"
              :save="rename"
              data-test="setup-name"
            />
          </dd>
        </template>
        <dt>counts as</dt>
        <dd>
          <button
            v-for="m in ['before', null, 'after'] as const"
            :key="String(m)"
            type="button"
            class="press small"
            :class="{ on: now?.row.mark === m }"
            :disabled="!now || doing"
            @click="mark(m)"
          >
            {{ m ?? 'between' }}
          </button>
        </dd>
      </dl>
      <p v-if="from" class="soft">
        {{
          traitsOf(from, designName)
            .map(t => t[1])
            .join(' · ')
        }}
      </p>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
    </MvSheet>
  </div>
</template>

<style scoped>
.setup {
  display: flex;
  gap: 4px;
  min-width: 0;
}
.setup select {
  max-width: 270px;
  text-overflow: ellipsis;
  appearance: auto;
}
dl {
  display: grid;
  grid-template-columns: 96px 1fr;
  gap: 10px;
  align-items: center;
  margin: 12px 0;
}
dt {
  color: var(--mv-soft);
}
dd {
  margin: 0;
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  align-items: center;
}
dd.where > * {
  flex: 1 1 150px;
}
dd.where > :first-child {
  flex-basis: 100%;
}
dd.where > .press {
  flex: 0 0 auto;
}
form {
  display: flex;
  gap: 8px;
  align-items: center;
  flex: 1;
}
@media (max-width: 640px) {
  .setup select {
    max-width: 142px;
    min-height: 44px;
  }
  .setup .press.small {
    min-height: 44px;
  }
  dl {
    grid-template-columns: 1fr;
  }
  dd .press.small {
    min-height: 56px;
  }
}
</style>
