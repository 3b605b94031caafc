<script setup lang="ts">
import { branchWords, readSwept } from '#core/aim'
import { num } from '#core/units'

/** Both branches of a pair, each read with the other unplugged: alike, or a plug, a cable or an antenna is bad. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ headingDeg: number; band: string | null; setupId: string | null }>()
const session = useSession()
const typed = reactive<Record<1 | 2, string>>({ 1: '', 2: '' })
const error = ref('')
const live = useLive(ref('RSRP'), ref(0))
const sweeps = useSweeps()
const sweep = computed(() => sweeps.latest('branch'))
const steps = computed(() => sweeps.stepsOf(sweep.value))
const stepOf = (n: 1 | 2) => steps.value.findLast(s => s.pass === n)
const of = (n: 1 | 2) => stepOf(n)?.value ?? null
const words = computed(() => branchWords(of(1), of(2)))
const { once, doing } = useOnce()
const keep = (n: 1 | 2) =>
  once(async () => {
    error.value = ''
    let value: number
    try {
      value = typed[n] || live.dwelt.value === null ? readSwept(typed[n], 'RSRP') : live.dwelt.value
    } catch (e) {
      error.value = messageOf(e)
      return
    }
    const { band, setupId, headingDeg } = props
    const how = { quantity: 'RSRP', band, setupId, axis: 'branch' } as const
    const id = sweep.value?.id ?? (await sweeps.begin(how, 'compare two branches'))
    if (!id) return
    const bad = await sweeps.keep(id, { pass: n, headingDeg, value }, stepOf(n))
    error.value = bad[0]?.message ?? ''
    typed[n] = ''
    live.again()
  })
</script>

<template>
  <MvSheet v-model="open" title="Both branches">
    <div data-test="branches">
      <p class="soft">
        Power off, unplug the other branch, power on, wait for the level, read; then the other way about. An unplugged port takes
        no harm on a receiver; never unplug an amplifier’s antenna with its power on.
      </p>
      <div v-for="n in [1, 2] as const" :key="n" class="row">
        <b>branch {{ n }}</b>
        <input
          v-model="typed[n]"
          class="fig"
          inputmode="decimal"
          :placeholder="live.dwelt.value !== null ? num(live.dwelt.value, 1) : '−90'"
          :aria-label="`RSRP of branch ${n}, dBm`"
          :data-test="`branch-${n}`"
          @keydown.enter="keep(n)"
        />
        <button
          type="button"
          class="press"
          :disabled="doing || !session.mayEdit"
          :data-test="`keep-branch-${n}`"
          @click="keep(n)"
        >
          keep
        </button>
        <span class="fig">{{ of(n) !== null ? `${num(of(n)!, 1)} dBm` : 'not read' }}</span>
      </div>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
      <p v-if="words" class="said" data-test="branch-words">{{ words }}</p>
    </div>
  </MvSheet>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 78px minmax(90px, 1fr) auto;
  gap: 10px;
  align-items: center;
  margin: 8px 0;
}
.row input {
  font-size: 22px;
  border: 0;
  border-bottom: 1px solid var(--mv-ink);
  background: none;
  min-width: 0;
  color: var(--mv-ink);
}
.row .press {
  min-height: 56px;
}
.row .fig:last-child {
  grid-column: 2 / -1;
}
.said {
  font-weight: 600;
}
</style>
