<script setup lang="ts">
import { sure } from '#core/sure'
import type { Act } from '#core/judge'

/** The five acts as places in the work, each with what is done or missing there. */
const props = defineProps<{ act: Act }>()
const emit = defineEmits<{ open: [] }>()
const store = useJob()
const router = useRouter()

/** to an act; the one that is shown tells what is still open in it */
function go(act: Act) {
  if (act === props.act && state(act).open.length) return emit('open')
  const first = sure(SECTIONS.find(s => s.act === act))
  void router.push(`/job/${store.id}/${first.id}`)
}
const state = useActStates()
const sending = useSending()
const linkWords = computed(() => {
  const n = store.unsent
  return {
    'sent': 'all sent',
    'keeping': 'keeping…',
    'unkept': 'last change not kept',
    'sending': `sending ${n}`,
    'offline': n ? `${n} not sent yet` : 'no connection',
    'signed-out': `signed out, ${n} not sent`,
    'failing': n ? `${n} not sent, trying` : 'all sent',
  }[store.link]
})
const elsewhere = computed(() => sending.total - (sending.waiting.get(store.id ?? '') ?? 0))
useKeys({
  1: { does: 'Scout', run: () => go('scout') },
  2: { does: 'Plan', run: () => go('plan') },
  3: { does: 'Fit', run: () => go('fit') },
  4: { does: 'Prove', run: () => go('prove') },
  5: { does: 'Keep', run: () => go('keep') },
})
const place = computed(() => {
  const s = store.site
  return s?.latDeg != null && s.lonDeg != null
    ? `${Math.abs(s.latDeg).toFixed(3)}° ${s.latDeg < 0 ? 'S' : 'N'} ${Math.abs(s.lonDeg).toFixed(3)}° ${s.lonDeg < 0 ? 'W' : 'E'}`
    : 'no position yet'
})
</script>

<template>
  <header class="acts no-print">
    <NuxtLink to="/" class="name" :title="'All jobs'">
      <strong>{{ store.job?.name ?? '…' }}</strong>
      <span class="soft">{{ store.job?.kind }} · {{ place }}</span>
    </NuxtLink>
    <nav aria-label="Acts">
      <button
        v-for="(a, i) in ACTS"
        :key="a.id"
        type="button"
        :class="{ on: a.id === act }"
        :aria-current="a.id === act ? 'step' : undefined"
        :title="a.id === act && state(a.id).open.length ? 'what is still open here' : `${a.name} (${i + 1})`"
        :data-test="`act-${a.id}`"
        :data-state="state(a.id).state"
        @click="go(a.id)"
      >
        <strong>{{ a.name }}</strong>
        <span class="words">{{ state(a.id).words }}</span>
        <i :class="state(a.id).state" :style="{ width: `${Math.round(state(a.id).done * 100)}%` }" />
      </button>
    </nav>
    <div class="link" role="status">
      <strong>kept here</strong>
      <span class="soft" data-test="link">{{ linkWords }}</span>
      <span v-if="elsewhere" class="soft" data-test="elsewhere">{{ elsewhere }} in other jobs</span>
    </div>
  </header>
</template>

<style scoped>
.acts {
  display: flex;
  border-bottom: 1px solid var(--mv-ink);
  background: var(--mv-sheet);
  min-height: 60px;
}
.name {
  width: 250px;
  padding: 9px 20px;
  display: flex;
  flex-direction: column;
  color: var(--mv-ink);
  text-decoration: none;
  border-right: 1px solid var(--mv-line);
  overflow: hidden;
  white-space: nowrap;
}
.name strong {
  font-size: 16px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.name span,
.words,
.link span {
  font-size: 12.5px;
}
nav {
  display: flex;
  flex: 1;
}
nav button {
  flex: 1;
  position: relative;
  text-align: left;
  padding: 9px 18px;
  background: none;
  border: 0;
  border-right: 1px solid var(--mv-line);
  cursor: pointer;
  display: flex;
  flex-direction: column;
  min-width: 0;
}
nav strong {
  font-size: 15px;
}
nav .words {
  color: var(--mv-soft);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 100%;
}
nav button.on {
  background: var(--mv-ink);
  color: var(--mv-sheet);
}
nav button.on .words {
  color: var(--mv-line);
}
[data-theme='night'] nav button.on .words {
  color: var(--mv-paper);
}
nav i {
  position: absolute;
  left: 0;
  bottom: 0;
  height: 4px;
}
i.done {
  background: var(--mv-met);
}
i.open {
  background: var(--mv-agreed);
}
i.trouble {
  background: var(--mv-short);
}
i.empty {
  background: transparent;
}
.link {
  width: 130px;
  padding: 9px 20px 9px 8px;
  text-align: right;
  display: flex;
  flex-direction: column;
}
@media (max-width: 900px) {
  .acts {
    flex-wrap: wrap;
    min-height: 0;
  }
  .name {
    width: auto;
    flex: 1;
    flex-direction: row;
    gap: 10px;
    align-items: baseline;
    padding: 3px 14px;
    border: 0;
  }
  .name span {
    display: none;
  }
  .link {
    width: auto;
    padding: 3px 14px;
  }
  .link strong {
    display: none;
  }
  nav {
    order: 3;
    width: 100%;
    flex: none;
    border-top: 1px solid var(--mv-line);
  }
  nav button {
    padding: 4px 2px 6px;
    align-items: center;
    min-height: 40px;
    justify-content: center;
  }
  nav button:last-child {
    border: 0;
  }
  nav .words {
    display: none;
  }
}
</style>
