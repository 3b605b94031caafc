<script setup lang="ts">
import { given, num } from '#core/units'
import { sayExpected } from '#core/promise'

/** The promise: one figure along the foot of every screen, with what would narrow it most. */
const store = useJob()
const p = computed(() => store.result?.promise ?? null)
const agreed = computed(() => store.job?.agreedDownMbps ?? null)
const top = computed(() => Math.max(p.value ? p.value.down.high : 0, agreed.value ?? 0, p.value?.measured ?? 0) * 1.25 || 1)
const at = (v: number) => shareOf(v, top.value)
const lacks = computed(() => {
  const r = store.result
  if (!r) return 'working it out…'
  if (store.site?.latDeg == null) return 'Ask: the position is missing'
  if (!store.doc?.readings.length && !r.chosen) return 'Survey: nothing read yet; Bearings: no mast chosen'
  if (!r.tree?.donors.length) return 'Choose: no kit laid out yet'
  if (!r.levels) return 'Bearings: choose a mast, or read its band'
  return 'Choose: the kit is not whole'
})
const emit = defineEmits<{ next: [] }>()
useKeys({ m: { does: 'measure next', run: () => emit('next') } })
</script>

<template>
  <footer class="foot no-print" data-test="promise">
    <template v-if="p">
      <div class="figure">
        <span class="fig big">{{ sayExpected(p.down) }}</span>
        <span class="unit">Mbit/s down {{ p.where }}, {{ p.on }}</span>
      </div>
      <div class="said">
        <strong>{{
          p.measured !== null ? `measured ${num(p.measured, 1)}: ${store.result!.proof.verdict.short}` : p.words
        }}</strong>
        <span>{{ p.upWords }}</span>
      </div>
      <div
        class="bar"
        role="img"
        :aria-label="`expected ${num(p.down.low, 1)} to ${num(p.down.high, 1)}, agreed ${agreed ?? 'nothing'}`"
      >
        <i class="track" />
        <i class="range" :style="{ left: at(p.down.low), width: `calc(${at(p.down.high)} - ${at(p.down.low)})` }" />
        <i class="mid" :style="{ left: at(p.down.median) }" />
        <template v-if="agreed !== null"
          ><i class="mark" :style="{ left: at(agreed) }" /><b class="fig" :style="{ left: at(agreed) }">{{
            given(agreed)
          }}</b></template
        >
        <i v-if="p.measured !== null" class="got" :style="{ left: at(p.measured) }" />
      </div>
      <button v-if="p.next && p.measured === null" type="button" class="next" @click="emit('next')">
        <strong>Measure next: {{ p.next.words }}</strong>
        <span>would narrow ±{{ num(p.next.from, 1) }} to ±{{ num(p.next.to, 1) }}</span>
      </button>
      <div v-else class="next">
        <strong>{{
          p.measured !== null
            ? store.result!.proof.scored?.inside
              ? 'inside what was promised'
              : 'outside what was promised'
            : 'no single reading would narrow it much'
        }}</strong>
        <span>{{
          p.assumptions.length
            ? `assumed: ${p.assumptions[0]!.words}${p.assumptions.length > 1 ? ` and ${p.assumptions.length - 1} more` : ''}`
            : 'nothing assumed'
        }}</span>
      </div>
    </template>
    <template v-else>
      <div class="figure"><span class="fig big">–</span><span class="unit">Mbit/s: not yet</span></div>
      <div class="said grow">
        <strong>{{ lacks }}</strong><span>{{
          store.pathProgress
            ? `paths ${store.pathProgress.done} of ${store.pathProgress.of}`
            : agreed !== null
              ? `agreed ${given(agreed)} down`
              : 'nothing agreed yet'
        }}</span>
      </div>
    </template>
  </footer>
</template>

<style scoped>
.foot {
  background: var(--mv-foot);
  color: var(--mv-foot-ink);
  display: flex;
  align-items: center;
  gap: 24px;
  padding: 0 20px;
  min-height: 74px;
}
.figure {
  display: flex;
  align-items: baseline;
  gap: 7px;
  padding-right: 24px;
  border-right: 1px solid var(--mv-foot-bar);
  white-space: nowrap;
}
.big {
  font-size: 30px;
  font-weight: 600;
}
.unit {
  color: var(--mv-foot-soft);
}
.said,
.next {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.said span,
.next span {
  font-size: 12.5px;
  color: var(--mv-foot-soft);
}
.said.grow {
  flex: 1;
}
.bar {
  position: relative;
  flex: 1;
  min-width: 120px;
  height: 42px;
}
.bar i {
  position: absolute;
}
.track {
  left: 0;
  right: 0;
  top: 20px;
  height: 5px;
  background: var(--mv-foot-bar);
}
.range {
  top: 15px;
  height: 15px;
  background: var(--mv-foot-range);
}
.mid {
  top: 13px;
  height: 19px;
  width: 3px;
  background: var(--mv-foot-ink);
}
.mark {
  top: 9px;
  height: 26px;
  width: 3px;
  background: #e2c04f;
}
.got {
  top: 30px;
  border: 6px solid transparent;
  border-bottom-color: var(--mv-foot-ink);
  margin-left: -6px;
}
.bar b {
  position: absolute;
  top: -6px;
  transform: translateX(-120%);
  color: #e2c04f;
  font-size: 12.5px;
  font-weight: 400;
}
button.next {
  background: none;
  border: 0;
  text-align: left;
  cursor: pointer;
  color: inherit;
  padding: 6px 0;
}
button.next:hover strong {
  text-decoration: underline;
}
.next {
  max-width: 300px;
}
@media (max-width: 900px) {
  .foot {
    min-height: 62px;
    padding: 6px 14px;
    gap: 12px;
  }
  .bar,
  .said:not(.grow) span,
  .next {
    display: none;
  }
  .big {
    font-size: 20px;
  }
  .figure {
    padding-right: 12px;
    flex-direction: column;
    gap: 0;
  }
  .unit {
    font-size: 12.5px;
    line-height: 1.15;
  }
  .said strong {
    font-size: 13px;
  }
}
</style>
