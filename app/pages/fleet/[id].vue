<script setup lang="ts">
import { unitNames } from '#core/card'
import { listed } from '#core/words'
import type { Fleet } from '../../../shared/api'

/** A fleet: the method, every unit with how far it is and what is its own, and what one taught the others. */
const route = useRoute()
const router = useRouter()
const session = useSession()
const t = useSay()
const id = computed(() => String(route.params.id))
const fleet = shallowRef<Fleet | null>(null)
const state = ref<'loading' | 'there' | 'offline' | 'missing'>('loading')
const error = ref('')
const { once, doing } = useOnce()

async function load() {
  const held = await kept<Fleet>(`fleet-page:${id.value}`)
  if (held) fleet.value = held
  try {
    fleet.value = await api<Fleet>(`/api/jobs/${id.value}/fleet`)
    state.value = 'there'
    await keep(`fleet-page:${id.value}`, fleet.value)
  } catch (e) {
    state.value = e instanceof ApiError && e.status === 404 ? 'missing' : 'offline'
    if (!(e instanceof Unreachable) && state.value !== 'missing') error.value = messageOf(e)
  }
}
watch([() => session.me?.memberId, id], ([me]) => (me ? void load() : void router.replace('/')), { immediate: true })

const method = computed(() => fleet.value?.units.find(u => u.method) ?? null)
const units = computed(() => fleet.value?.units.filter(u => !u.method) ?? [])
/** the method first */
const shown = computed(() => [...(method.value ? [method.value] : []), ...units.value])
const total = computed(() => fleet.value?.steps ?? 0)
const through = computed(() => units.value.filter(u => total.value > 0 && u.done >= total.value).length)
const share = (done: number) => (total.value ? Math.min(100, Math.round((100 * done) / total.value)) : 0)

const text = ref('')
const make = () =>
  once(async () => {
    error.value = ''
    try {
      const names = unitNames(text.value)
      await api(`/api/jobs/${fleet.value!.methodId}/fleet`, { body: { names } })
      text.value = ''
      await load()
    } catch (e) {
      error.value = e instanceof Unreachable ? 'No connection: a fleet is made with one.' : messageOf(e)
    }
  })
useHead({ title: 'Fleet · Multivox' })
</script>

<template>
  <div class="page">
    <PageHead
      :title="method?.name ?? 'Fleet'"
      :note="units.length ? `the method; ${units.length} made from it, ${through} through` : 'one alone so far'"
    >
      <NuxtLink v-if="method" class="press bare" :to="`/job/${method.id}/card`">its card</NuxtLink>
      <NuxtLink to="/" class="press">All jobs</NuxtLink>
    </PageHead>
    <main>
      <p v-if="state === 'missing'">There is no such job in your crew.</p>
      <p v-else-if="state === 'offline' && !fleet" class="soft">No connection, and this fleet was never opened here.</p>
      <p v-else-if="!fleet" class="soft">Opening…</p>
      <template v-else>
        <section class="units" data-test="units">
          <NuxtLink v-for="u in shown" :key="u.id" class="unit" :to="`/job/${u.id}/card`" data-test="unit">
            <strong>{{ u.name }}</strong>
            <span class="way" role="img" :aria-label="`${u.done} of ${total} steps done`"
              ><i :style="{ width: `${share(u.done)}%` }"
            /></span>
            <span class="fig">{{ total ? `${u.done}/${total}` : '' }}</span>
            <span class="soft differs">{{
              u.method ? 'the method' : u.differences.length ? t(listed(u.differences, '; ')) : 'as the method'
            }}</span>
            <span class="fig soft serial">{{ u.serials.join(' ') }}</span>
            <span class="soft">{{ u.nextOn ? dayWords(u.nextOn) : '' }}</span>
          </NuxtLink>
          <p v-if="!units.length" class="soft">
            No unit yet. Name them below: each gets this job’s plan, list and card; what was read and ticked here stays here.
          </p>
        </section>
        <section v-if="fleet.lessons.length" class="lessons">
          <h2>What they taught</h2>
          <dl>
            <template v-for="l in fleet.lessons" :key="l.fromId + l.text">
              <dt>{{ l.words }}</dt>
              <dd>
                {{ l.text }} <span class="soft">{{ l.from }}{{ l.by ? `, ${l.by}` : '' }}</span>
              </dd>
            </template>
          </dl>
        </section>
        <form v-if="session.mayEdit" class="make" @submit.prevent="make">
          <v-textarea
            v-model="text"
            label="More of them, one a line"
            rows="4"
            auto-grow
            :error-messages="error"
            data-test="unit-names"
          />
          <button type="submit" class="press filled" :disabled="doing || !text.trim()" data-test="make-units">
            {{ doing ? 'making them…' : 'make them' }}
          </button>
        </form>
      </template>
    </main>
  </div>
</template>

<style scoped>
.page {
  height: 100dvh;
  overflow: auto;
}
main {
  padding: 12px 24px 32px;
  max-width: 1180px;
}
.unit {
  display: grid;
  grid-template-columns: 200px 180px 56px minmax(0, 1fr) 170px 100px;
  gap: 14px;
  align-items: center;
  min-height: 48px;
  border-bottom: 1px solid var(--mv-line);
  color: inherit;
  text-decoration: none;
}
.way {
  height: 10px;
  background: var(--mv-line);
}
.way i {
  display: block;
  height: 100%;
  background: var(--mv-met);
}
.serial {
  overflow-wrap: anywhere;
}
.lessons {
  margin-top: 22px;
}
dl {
  display: grid;
  grid-template-columns: minmax(160px, 300px) 1fr;
  gap: 4px 18px;
  margin: 6px 0;
}
dt {
  font-weight: 600;
}
dd {
  margin: 0;
}
.make {
  margin-top: 24px;
  max-width: 520px;
}
@media (max-width: 900px) {
  .unit {
    grid-template-columns: 1fr 1fr auto;
    padding: 8px 0;
  }
  .differs,
  .serial {
    grid-column: 1 / -1;
  }
  dl {
    grid-template-columns: 1fr;
  }
}
</style>
