<script setup lang="ts">
import type { CustomerPageItem, HandoverItem } from '../../../shared/api'

/** The customer's page: a link to what was handed over last, told once, withdrawn at any time, its openings counted. */
const props = defineProps<{ frozen: HandoverItem[] }>()
const store = useOpened()
const session = useSession()
const pages = ref<CustomerPageItem[]>([])
const link = ref('')
const code = ref('')
const error = ref('')
const { doing, once } = useOnce()
const load = async () => {
  pages.value = await api<CustomerPageItem[]>(`/api/jobs/${store.id}/pages`).catch(() => pages.value)
}
onMounted(load)
const good = computed(() => pages.value.find(p => !p.withdrawnAt && p.endsAt > new Date().toISOString()) ?? null)
const act = (work: () => Promise<void>) =>
  once(async () => {
    error.value = ''
    try {
      await work()
    } catch (e) {
      error.value = e instanceof TypeError ? 'No connection: the link is made by the server.' : messageOf(e)
    }
  })
const make = () =>
  act(async () => {
    const last = props.frozen[0]
    if (!last) return
    const { path } = await api<{ path: string }>(`/api/jobs/${store.id}/pages`, { body: { handoverId: last.id } })
    link.value = location.origin + path
    const { toString } = await import('qrcode')
    code.value = await toString(link.value, { type: 'svg', margin: 1, errorCorrectionLevel: 'M' })
    await load()
  })
const withdraw = (page: CustomerPageItem) =>
  act(async () => {
    await api(`/api/jobs/${store.id}/pages/${page.id}`, { method: 'DELETE' })
    link.value = code.value = ''
    await load()
  })
const copied = ref(false)
async function copy() {
  await navigator.clipboard.writeText(link.value)
  copied.value = true
}
</script>

<template>
  <section class="page no-print" aria-label="The customer’s page" data-test="customer-page">
    <h2>The customer’s page</h2>
    <template v-if="link">
      <p>
        <a :href="link" target="_blank" rel="noopener noreferrer" data-test="page-link">{{ link }}</a>
      </p>
      <p class="soft">
        Told once: it is not kept here. Whoever has it reads the page, without an account; nothing else of the job.
      </p>
      <!-- eslint-disable-next-line vue/no-v-html -- drawn by a library from our own address -->
      <div class="code" role="img" aria-label="the link as a code, for the box’s label" v-html="code" />
      <button type="button" class="press small" @click="copy">{{ copied ? 'copied' : 'copy the link' }}</button>
    </template>
    <p v-if="good" data-test="page-state">
      Good until {{ dayAndTime(good.endsAt) }}; opened {{ good.openings === 1 ? 'once' : `${good.openings} times`
      }}{{ good.openedAt ? `, last ${dayAndTime(good.openedAt)}` : '' }}.
    </p>
    <p v-else-if="!frozen.length" class="soft">It is made from what was handed over: hand over first.</p>
    <p v-else class="soft">None is out: with a link the customer reads what was fitted, and what to do when it stops.</p>
    <p v-if="session.mayEdit && frozen.length" class="acts">
      <button type="button" class="press small" :disabled="!!doing" data-test="page-make" @click="make">
        {{ good ? 'another link; this one ends' : 'make the link' }}
      </button>
      <button
        v-if="good"
        type="button"
        class="press small bare"
        :disabled="!!doing"
        data-test="page-withdraw"
        @click="withdraw(good)"
      >
        withdraw it
      </button>
    </p>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
  </section>
</template>

<style scoped>
.page {
  display: grid;
  gap: 6px;
  justify-items: start;
}
a {
  overflow-wrap: anywhere;
}
.code {
  width: 132px;
  background: #fff;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
@media (max-width: 900px) {
  .press {
    min-height: 56px;
  }
}
</style>
