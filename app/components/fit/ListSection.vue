<script setup lang="ts">
import { insert, SUPPLY_STATES } from '#core/job'
import type { Supply } from '#core/job'
import { amountWords, costOf, isLate, isThere, leftOvers, listCsv, quoteJob } from '#core/card'
import type { ListLine, Price } from '#core/card'
import { PICK_GROUPS } from '#core/install'
import type { PickGroup } from '#core/install'
import { v7 as uuidv7 } from 'uuid'
import { num } from '#core/units'

/** Everything the job takes, where it is and when it comes; by thumb it is ticked into the van. */
const store = useOpened()
const session = useSession()
const { book, byKey, error: priceError, save: savePrice } = usePrices()
const { next: visit } = useVisits()
const { once, doing } = useOnce()
const { width } = useWindowSize()
const t = useSay()

const quoted = computed(() => quoteJob(store.here, store.result, book.value))
const lines = computed(() => quoted.value.lines)
const onDay = computed(() => visit.value?.onDay ?? null)
const late = computed(() => new Set(onDay.value ? lines.value.filter(l => isLate(l, onDay.value!)).map(l => l.key) : []))

const supplier = ref<string | null>(null)
const day = ref<string | null>(null)
const missing = ref(false)
const suppliers = computed(() => {
  const by = new Map<string, number>()
  for (const l of lines.value) if (l.wanted) by.set(l.supplier ?? '', (by.get(l.supplier ?? '') ?? 0) + 1)
  return [...by].sort(([a], [b]) => Number(!a) - Number(!b) || a.localeCompare(b))
})
const shown = computed(() =>
  lines.value.filter(
    l =>
      (supplier.value === null || ((l.supplier ?? '') === supplier.value && l.wanted > 0)) &&
      (day.value === null || l.dueOn === day.value) &&
      (!missing.value || !isThere(l.state)),
  ),
)
const groups = computed(() =>
  (Object.keys(PICK_GROUPS) as PickGroup[])
    .map(id => ({ id, name: PICK_GROUPS[id], lines: shown.value.filter(l => l.group === id) }))
    .filter(g => g.lines.length),
)
const there = computed(() => lines.value.filter(l => isThere(l.state)).length)
const back = computed(() => leftOvers(lines.value))

/** A line's own row is begun with the first thing said of it. */
async function set(l: ListLine, fields: Partial<Supply>): Promise<{ field: string; message: string }[]> {
  if (l.supply) return store.commit([{ table: 'supplies', op: 'update', rowId: l.supply.id, fields }], 'the list')
  const begun = { key: l.key, name: null, quantity: null, state: l.state, supplier: null, dueOn: null, ...fields }
  return store.commit([{ table: 'supplies', op: 'insert', fields: begun }], 'the list')
}
const rowError = ref<{ key: string; words: string } | null>(null)
const change = async (l: ListLine, fields: Partial<Supply>) => {
  const [bad] = await set(l, fields)
  rowError.value = bad ? { key: l.key, words: bad.message } : null
}
/** ordered without a day comes after the supplier's usual days */
const setState = (l: ListLine, state: Supply['state']) => {
  const leadDays = byKey.value.get(l.key)?.leadDays
  const due = state === 'ordered' && !l.dueOn && leadDays ? { dueOn: dayAfter(dayOf(new Date()), leadDays) } : {}
  return once(() => change(l, { state, ...due }))
}
const pack = (l: ListLine) => setState(l, l.state === 'packed' ? 'here' : 'packed')
/** how many ride in the van, on every job */
function setVan(l: ListLine, text: string): string | undefined {
  const n = Number(text.replace(',', '.') || 0)
  if (!(n >= 0 && n <= 100_000)) return '0 or more'
  void savePrice({ ...priceOf(l), inVan: n })
  return undefined
}
const DAY_MS = 86_400_000
function setDue(l: ListLine, text: string): string | undefined {
  const today = dayOf(new Date())
  const dueOn = text || null
  if (dueOn && dueOn < today) return 'a day from today on'
  void change(l, { dueOn, ...(dueOn && l.state === 'to get' ? { state: 'ordered' as const } : {}) })
  // How long it took is how long it will take the next time.
  const leadDays = dueOn ? Math.round((Date.parse(dueOn) - Date.parse(today)) / DAY_MS) : null
  if (leadDays !== null && leadDays <= 400) void savePrice({ ...priceOf(l), leadDays })
  return undefined
}
const priceOf = (l: ListLine): Price =>
  byKey.value.get(l.key) ?? { key: l.key, minor: null, supplier: null, leadDays: null, inVan: 0 }
const setPrice = (l: ListLine, minor: number | null) => savePrice({ ...priceOf(l), minor })
/** the supplier of a thing is the same for the next job */
function setSupplier(l: ListLine, text: string): undefined {
  void savePrice({ ...priceOf(l), supplier: text || null })
  if (l.supply?.supplier) void change(l, { supplier: null })
}
const total = (l: ListLine): string => {
  const minor = costOf(l)
  return minor === null ? '' : amountWords(minor, book.value.money.currency)
}
const quantity = (l: ListLine) => `${num(l.quantity, l.quantity % 1 ? 1 : 0)}${l.unit ? ` ${l.unit}` : ''}`

const own = ref('')
const ownQuantity = ref('1')
const ownError = ref('')
const addOwn = () =>
  once(async () => {
    const n = Number(ownQuantity.value.replace(',', '.'))
    ownError.value = own.value.trim() ? '' : 'say what it is'
    if (!(n > 0 && n <= 10_000)) ownError.value = 'a number over 0'
    if (ownError.value) return
    const fields = {
      key: `own:${uuidv7()}`,
      name: own.value.trim(),
      quantity: n,
      state: 'to get' as const,
      supplier: null,
      dueOn: null,
    }
    ownError.value = (await store.commit([insert('supplies', fields)], 'a line by hand'))[0]?.message ?? ''
    if (!ownError.value) own.value = ''
  })
const dropOwn = (l: ListLine) =>
  once(() => store.commit([{ table: 'supplies', op: 'delete', rowId: l.supply!.id }], 'a line by hand taken away'))
const allBack = () =>
  once(() =>
    store.commit(
      back.value.map(l => ({
        table: 'supplies' as const,
        op: 'update' as const,
        rowId: l.supply!.id,
        fields: { state: 'brought back' },
      })),
      'brought back',
    ),
  )
const csv = () => downloadText('list.csv', listCsv(lines.value, book.value.money.currency), 'text/csv')
const roof = computed(() => width.value <= 900)
</script>

<template>
  <div class="listpage">
    <p v-if="!lines.length" class="empty">
      Nothing to take yet: the list is made from the kit that is laid out in
      <NuxtLink :to="`/job/${store.id}/choose`">Choose</NuxtLink>.
    </p>
    <template v-else>
      <section class="things" aria-label="The list">
        <header>
          <h1>
            <span class="fig" data-test="there">{{ there }} of {{ lines.length }}</span> there
            <small class="soft">{{ visit ? `before ${dayWords(visit.onDay)}` : 'no day on site yet' }}</small>
          </h1>
          <span class="out no-print"
            ><button type="button" class="plain" data-test="list-csv" @click="csv">CSV</button>
            <a :href="`/api/jobs/${store.id}/plan.pdf?what=list`" download="list.pdf" class="plain" data-test="list-pdf"
              >PDF</a
            ></span
          >
        </header>
        <DeliveryStrip :lines="lines" :visit-day="onDay" :day="day" @pick="d => (day = d)" />
        <p v-if="late.size" class="error" data-test="late-lines">
          {{ late.size === 1 ? 'One line comes' : `${late.size} lines come` }} after the visit: the card says what waits.
        </p>
        <div class="by" role="group" aria-label="By supplier">
          <button type="button" :class="{ on: supplier === null && !missing }" @click="((supplier = null), (missing = false))">
            all
          </button>
          <button type="button" :class="{ on: missing }" @click="((missing = !missing), (supplier = null))">
            what is missing <b class="fig">{{ lines.length - there }}</b>
          </button>
          <button
            v-for="[name, n] in suppliers"
            :key="name"
            type="button"
            :class="{ on: supplier === name }"
            @click="((supplier = supplier === name ? null : name), (missing = false))"
          >
            {{ name || 'no supplier noted' }} <b class="fig">{{ n }}</b>
          </button>
        </div>
        <p v-if="priceError" class="error" role="alert">{{ priceError }}</p>
        <div v-if="!roof" class="line heads soft" aria-hidden="true">
          <span class="n" /><span>what</span><span class="total">each</span><span class="total">together</span
          ><span class="total">in van</span><span>from</span><span>comes</span><span>where</span>
        </div>
        <div v-for="g in groups" :key="g.id" class="group">
          <h3>{{ g.name }}</h3>
          <div
            v-for="l in g.lines"
            :key="l.key"
            class="line"
            :class="{ there: isThere(l.state), late: late.has(l.key) }"
            :data-test="`line-${l.key}`"
          >
            <label v-if="roof" class="tick"
              ><input
                type="checkbox"
                :checked="l.state === 'packed'"
                :disabled="!session.mayEdit || doing"
                @change="pack(l)"
              /><span
                ><b class="fig">{{ quantity(l) }}</b> {{ t(l.name)
                }}<small class="soft"
                  >{{ l.state === 'packed' ? 'in the van' : l.state }}{{ l.dueOn ? `, ${dayWords(l.dueOn)}` : '' }}</small
                ></span
              ></label
            >
            <template v-else>
              <span class="fig n">{{ quantity(l) }}</span>
              <span class="what"
                >{{ t(l.name) }}<small v-if="l.note" class="soft">{{ t(l.note) }}</small></span
              >
              <MvMoney
                :label="`price of one ${l.name}`"
                :minor="l.eachMinor"
                :currency="book.money.currency"
                :disabled="!session.mayEdit"
                :save="v => setPrice(l, v)"
              />
              <span class="fig total">{{ total(l) }}</span>
              <MvCell
                type="number"
                :label="`${l.name} in the van`"
                :value="String(byKey.get(l.key)?.inVan || '')"
                :disabled="!session.mayEdit"
                :save="text => setVan(l, text)"
              />
              <MvCell
                :label="`supplier of ${l.name}`"
                :value="l.supplier ?? ''"
                :maxlength="80"
                placeholder="supplier"
                :disabled="!session.mayEdit"
                :save="text => setSupplier(l, text)"
              />
              <span v-if="isThere(l.state)" />
              <MvCell
                v-else
                type="date"
                :label="`day on which ${l.name} comes`"
                :value="l.supply?.dueOn ?? ''"
                :disabled="!session.mayEdit"
                :save="text => setDue(l, text)"
              />
              <select
                :value="l.state"
                :aria-label="`where ${l.name} is`"
                :disabled="!session.mayEdit || doing"
                data-test="state"
                @change="e => setState(l, (e.target as HTMLSelectElement).value as Supply['state'])"
              >
                <option v-for="s in SUPPLY_STATES" :key="s" :value="s">{{ s }}</option>
              </select>
              <button
                v-if="l.own && session.mayEdit"
                type="button"
                class="plain"
                :aria-label="`take ${l.name} away`"
                @click="dropOwn(l)"
              >
                away
              </button>
            </template>
            <small v-if="rowError?.key === l.key" class="error" role="alert">{{ rowError.words }}</small>
          </div>
        </div>
        <form v-if="session.mayEdit" class="own no-print" @submit.prevent="addOwn">
          <v-text-field v-model="ownQuantity" class="fig" label="Number" inputmode="decimal" data-test="own-quantity" />
          <v-text-field v-model="own" label="Something else" maxlength="160" :error-messages="ownError" data-test="own-line" />
          <button type="submit" class="press" :disabled="doing">onto the list</button>
        </form>
        <p v-if="back.length" class="soft">
          {{ back.length }} {{ back.length === 1 ? 'line' : 'lines' }} packed by a rough count: what is left over goes home.
          <button v-if="session.mayEdit" type="button" class="plain" :disabled="doing" data-test="all-back" @click="allBack">
            brought back
          </button>
        </p>
      </section>
      <QuotePanel :quoted="quoted" />
    </template>
  </div>
</template>

<style scoped>
.listpage {
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
}
.things {
  overflow: auto;
  padding: 14px 20px 24px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin-bottom: 8px;
}
h1 small {
  font-weight: 400;
  font-size: 14px;
  margin-left: 8px;
}
.out a {
  color: inherit;
  margin-left: 10px;
}
.by {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin: 10px 0 4px;
}
.by button {
  background: none;
  border: 0;
  border-bottom: 2px solid transparent;
  padding: 4px 0;
  color: var(--mv-soft);
  cursor: pointer;
}
.by button.on {
  color: var(--mv-ink);
  border-bottom-color: var(--mv-ink);
}
h3 {
  font-size: 13px;
  font-weight: 600;
  margin: 14px 0 2px;
  border-bottom: 1px solid var(--mv-ink);
  padding-bottom: 3px;
}
.line {
  display: grid;
  grid-template-columns: 46px minmax(140px, 1fr) 68px 72px 44px 150px 116px 96px auto;
  gap: 10px;
  align-items: baseline;
  border-bottom: 1px solid var(--mv-line);
  border-left: 4px solid transparent;
  padding: 4px 0 4px 6px;
}
.heads {
  font-size: 12px;
  border-bottom: 0;
}
.line.there {
  border-left-color: var(--mv-met);
}
.line.late {
  border-left-color: var(--mv-short);
}
.line > .error {
  grid-column: 2 / -1;
}
.n,
.total {
  text-align: right;
}
.what small {
  display: block;
}
select {
  width: 100%;
  min-width: 0;
  border: 0;
  border-bottom: 1px solid var(--mv-line);
  background: transparent;
  padding: 3px 0;
  color: var(--mv-ink);
}
.own {
  display: grid;
  grid-template-columns: 90px minmax(0, 1fr) auto;
  gap: 10px;
  align-items: start;
  margin: 16px 0;
}
.empty {
  padding: 32px 20px;
  font-size: 16px;
}
@media (max-width: 1100px) and (min-width: 901px) {
  .listpage {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
}
@media (max-width: 900px) {
  .listpage {
    display: block;
    overflow: auto;
  }
  .things {
    padding: 12px 14px;
    overflow: visible;
  }
  .line {
    display: block;
  }
  .tick {
    display: flex;
    gap: 14px;
    align-items: center;
    min-height: 56px;
  }
  .tick input {
    width: 28px;
    height: 28px;
    flex: none;
  }
  .tick small {
    display: block;
  }
  .by button {
    min-height: 44px;
  }
}
</style>
