<script setup lang="ts">
import type { Component } from 'vue'
import type { Section } from '#core/judge'

/** The frame: acts above, the section's screen between, the promise at the foot. */
const route = useRoute()
const router = useRouter()
const store = useJob()
const session = useSession()
const sending = useSending()
const section = computed(() => route.params.section as Section)
const act = computed(() => SECTIONS.find(s => s.id === section.value)?.act ?? 'scout')
const findings = ref(false)
const working = ref(false)
const keys = ref(false)

const LOADERS: Record<Section, () => Promise<{ default: Component }>> = {
  ask: () => import('~/components/scout/AskSection.vue'),
  survey: () => import('~/components/scout/SurveySection.vue'),
  bearings: () => import('~/components/scout/BearingsSection.vue'),
  choose: () => import('~/components/plan/ChooseSection.vue'),
  place: () => import('~/components/plan/PictureSection.vue'),
  level: () => import('~/components/plan/PictureSection.vue'),
  route: () => import('~/components/plan/RouteSection.vue'),
  card: () => import('~/components/fit/CardSection.vue'),
  list: () => import('~/components/fit/ListSection.vue'),
  aim: () => import('~/components/fit/AimSection.vue'),
  proof: () => import('~/components/prove/ProofSection.vue'),
  commission: () => import('~/components/prove/CommissionSection.vue'),
  handover: () => import('~/components/keep/HandoverSection.vue'),
}
/** A screen that a bad link did not bring is asked for again after a pause; what is shown says so meanwhile. */
const missing = reactive(new Set<string>())
const screenOf = ([id, load]: [string, (typeof LOADERS)[Section]]) =>
  defineAsyncComponent({
    loader: async () => {
      const loaded = await load()
      missing.delete(id)
      return loaded
    },
    onError: (_e, retry, _fail, tried) => {
      missing.add(id)
      // Once in place; after that by a new page, as long as that may help.
      setTimeout(() => (tried > 1 && countReload() !== null ? location.reload() : retry()), pauseMs(tried))
    },
  })
const SCREENS = Object.fromEntries(Object.entries(LOADERS).map(of => [of[0], screenOf(of)])) as unknown as Record<
  Section,
  Component
>
// The screen comes while the job is opened, not after it.
LOADERS[section.value]?.().catch(() => undefined)
const screen = computed(() => SCREENS[section.value])

/** What others change of the job is asked for while it is shown. */
let unwatch = () => {}
onBeforeUnmount(() => unwatch())
watch(
  [() => route.params.id, () => session.me?.memberId],
  ([id, me]) => {
    unwatch()
    if (!me) return void router.replace('/')
    unwatch = sending.watchJob(id as string)
    void store.open(id as string)
  },
  { immediate: true },
)
// Outside Plan everything is of the plan, whatever variant was looked at.
watch(act, a => a !== 'plan' && store.lookAt(null))
onBeforeUnmount(() => store.lookAt(null))
watchEffect(() => {
  if (!SECTIONS.some(s => s.id === section.value)) void router.replace(`/job/${route.params.id}/ask`)
})
useHead({ title: () => `${SECTIONS.find(s => s.id === section.value)?.name ?? ''} · ${store.job?.name ?? ''} · Multivox` })

function measureNext() {
  const next = store.result?.promise?.next
  void router.push({
    path: `/job/${store.id}/survey`,
    query: { spot: next?.id === 'share' ? store.job?.baselineSpotId : store.result?.levels?.sources[0]?.start.spot?.id },
  })
}
</script>

<template>
  <div class="frame">
    <ActBar :act="act" @open="findings = true" />
    <SectionBar :section="section" @findings="findings = true" @working="working = true" @keys="keys = true" />
    <TroubleBar />
    <main :aria-label="SECTIONS.find(s => s.id === section)?.name">
      <p v-if="store.state === 'missing'" class="empty">
        There is no such job in your crew. <NuxtLink to="/">All jobs</NuxtLink>
      </p>
      <p v-else-if="store.state === 'offline-unknown'" class="empty">
        This job was never opened on this device, and there is no connection.
        <button type="button" class="press" @click="store.fetchWhole()">Try again</button>
      </p>
      <p v-else-if="!store.doc || !store.result" class="empty soft" data-test="opening">
        {{ store.engineError ?? 'Opening the job…' }}
      </p>
      <template v-else>
        <p v-if="missing.has(section)" class="empty soft" role="status" data-test="screen-missing">
          This screen did not come over the network. It is asked for again by itself.
        </p>
        <component
          :is="screen"
          :key="`${store.id}-${section === 'place' || section === 'level' ? 'picture' : section}`"
          :section="section"
        />
      </template>
    </main>
    <PromiseFoot @next="measureNext" />
    <FindingsSheet v-if="findings" v-model="findings" :act="act" />
    <WorkingSheet v-model="working" />
    <KeysSheet v-model="keys" />
  </div>
</template>

<style scoped>
.frame {
  height: 100dvh;
  display: flex;
  flex-direction: column;
}
main {
  flex: 1;
  min-height: 0;
  position: relative;
  overflow: hidden;
}
.empty {
  padding: 32px 20px;
  font-size: 16px;
}
@media print {
  .frame {
    height: auto;
    display: block;
  }
  main {
    overflow: visible;
  }
}
</style>
