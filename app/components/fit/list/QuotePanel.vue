<script setup lang="ts">
import { moneyWords } from '#core/card'
import type { Money, QuotedJob } from '#core/card'
import { PICK_GROUPS } from '#core/install'
import type { PickGroup } from '#core/install'
import { num } from '#core/units'

/** What the customer is quoted: material with its margin, hours, tax; every line adds up to the last digit. */
const props = defineProps<{ quoted: QuotedJob }>()
const store = useOpened()
const session = useSession()
const { book, saveMoney } = usePrices()
const money = computed(() => book.value.money)
const words = (minor: number) => moneyWords(minor, money.value.currency)
const lead = computed(() => session.me?.role === 'lead')
const groups = computed(() =>
  (Object.keys(PICK_GROUPS) as PickGroup[]).flatMap(g => {
    const keys = new Set(props.quoted.lines.filter(l => l.group === g).map(l => l.key))
    const minor = props.quoted.quote.lines.filter(l => keys.has(l.key)).reduce((sum, l) => sum + (l.sellMinor ?? 0), 0)
    return keys.size ? [{ id: g, name: PICK_GROUPS[g], minor }] : []
  }),
)
const set = (fields: Record<string, unknown>) =>
  store.commit([{ table: 'jobs', op: 'update', rowId: store.job.id, fields }], 'the quote')
const setMoney = inLine((fields: Partial<Money>) => saveMoney({ ...money.value, ...fields }))
const setCurrency = (code: string | null) => {
  const currency = (code ?? '').trim().toUpperCase()
  if (!/^[A-Z]{3}$/.test(currency))
    return Promise.resolve([{ field: 'currency', message: 'three letters, as on a bank statement' }])
  return setMoney({ currency })
}
const pdf = `/api/jobs/${store.id}/plan.pdf?what=quote`
const crewTerms = ref(false)
</script>

<template>
  <aside class="quote" aria-label="Quote" data-test="quote">
    <h2>Quote</h2>
    <table>
      <tbody>
        <tr v-for="g in groups" :key="g.id">
          <th scope="row">{{ g.name }}</th>
          <td class="fig">{{ words(g.minor) }}</td>
        </tr>
        <tr>
          <th scope="row">Work, {{ num(quoted.quote.hours, 2) }} h</th>
          <td class="fig">{{ words(quoted.quote.hoursMinor) }}</td>
        </tr>
        <tr v-if="money.taxPercent !== null">
          <th scope="row">Tax, {{ num(money.taxPercent, money.taxPercent % 1 ? 1 : 0) }} %</th>
          <td class="fig">{{ words(quoted.quote.taxMinor) }}</td>
        </tr>
        <tr class="sum">
          <th scope="row">Together</th>
          <td class="fig" data-test="total">{{ words(quoted.quote.totalMinor) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="quoted.quote.unpriced" class="error" data-test="unpriced">
      {{ quoted.quote.unpriced === 1 ? 'One line has' : `${quoted.quote.unpriced} lines have` }} no price: not in the sum.
    </p>
    <p class="soft">
      {{ words(quoted.quote.marginMinor) }} of it is margin; the card says {{ num(quoted.cardHours, 2) }} hours of people.
    </p>
    <div class="fields">
      <MvNumber
        label="Margin of this job"
        :value="store.job.quoteMarginPercent"
        unit="%"
        :low="0"
        :high="500"
        :hint="num(money.marginPercent, money.marginPercent % 1 ? 1 : 0)"
        :save="quoteMarginPercent => set({ quoteMarginPercent })"
        data-test="margin"
      />
      <MvNumber
        label="Hours quoted"
        :value="store.job.quoteHours"
        unit="h"
        :low="0"
        :high="2000"
        :hint="num(quoted.cardHours, 2)"
        :save="quoteHours => set({ quoteHours })"
        data-test="quote-hours"
      />
    </div>
    <p class="row">
      <a class="press" :href="pdf" download="quote.pdf" data-test="quote-pdf">quote as PDF</a>
      <button v-if="lead" type="button" class="plain" @click="crewTerms = !crewTerms">the crew’s terms</button>
    </p>
    <div v-if="crewTerms" class="fields">
      <MvText label="Currency" :value="money.currency" required :save="setCurrency" data-test="currency" />
      <label class="hour"
        ><span class="soft">an hour of one</span
        ><MvMoney
          label="an hour of one person"
          :minor="money.hourMinor"
          :currency="money.currency"
          :save="v => setMoney({ hourMinor: v })"
      /></label>
      <MvNumber
        label="Margin"
        :value="money.marginPercent"
        unit="%"
        :low="0"
        :high="500"
        required
        :save="v => setMoney({ marginPercent: v })"
      />
      <MvNumber
        label="Tax"
        :value="money.taxPercent"
        unit="%"
        :low="0"
        :high="100"
        :save="taxPercent => setMoney({ taxPercent })"
      />
    </div>
  </aside>
</template>

<style scoped>
.quote {
  border-left: 1px solid var(--mv-line);
  padding: 14px 20px;
  overflow: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin: 8px 0;
}
th {
  text-align: left;
  font-weight: 400;
}
td {
  text-align: right;
  white-space: nowrap;
}
th,
td {
  padding: 4px 0;
  border-bottom: 1px solid var(--mv-line);
}
.sum th,
.sum td {
  font-weight: 700;
  border-bottom: 3px double var(--mv-ink);
  font-size: 16px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin: 10px 0;
}
.row {
  display: flex;
  gap: 14px;
  align-items: center;
}
.hour {
  font-size: 12px;
}
a.press {
  text-decoration: none;
  color: inherit;
}
</style>
