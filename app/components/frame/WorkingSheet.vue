<script setup lang="ts">
import { num } from '#core/units'

/** Where each figure comes from: the formula, what went in, the source. */
const open = defineModel<boolean>({ required: true })
const store = useJob()
const NAMES: Record<string, string> = {
  bearing: 'True bearing',
  magnetic: 'Magnetic bearing',
  diffraction: 'Diffraction loss',
  opinion: 'A second opinion',
  mount: 'RSRP at the mount',
  port: 'RSRP at the port',
  amplifier: 'Total power at the amplifier',
  isolation: 'Isolation',
  promise: 'The promise',
}
const show = (v: number | string) => (typeof v === 'number' ? num(v, Math.abs(v) < 10 ? 2 : 1) : v)
</script>

<template>
  <MvSheet v-model="open" title="Working">
    <p v-if="!Object.keys(store.result?.figures ?? {}).length" class="soft">No figure is computed yet.</p>
    <article v-for="(f, key) in store.result?.figures ?? {}" :key="key">
      <h3>
        {{ NAMES[key] ?? key }} <span class="fig">{{ show(f.value) }} {{ f.unit }}</span>
        <span v-if="f.low !== f.high" class="fig soft">{{ show(f.low) }} … {{ show(f.high) }}</span>
      </h3>
      <p class="formula">{{ f.formula }}</p>
      <ul>
        <li v-for="i in f.inputs" :key="i.name" :class="i.provenance">
          <i /> {{ i.name }} <span v-if="i.value !== ''" class="fig">{{ show(i.value) }} {{ i.unit }}</span>
          <small class="soft">{{ i.provenance }}</small>
        </li>
      </ul>
      <p class="soft src">{{ f.source }}</p>
    </article>
  </MvSheet>
</template>

<style scoped>
article {
  padding-bottom: 14px;
  margin-bottom: 14px;
  border-bottom: 1px solid var(--mv-line);
}
h3 .fig {
  margin-left: 6px;
}
.formula {
  font-family: var(--mv-mono);
  font-size: 13px;
  margin: 4px 0;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li i {
  display: inline-block;
  width: 22px;
  vertical-align: middle;
  margin-right: 6px;
  border-top: 3px solid var(--mv-ink);
}
li.computed i {
  border-top: 1.6px solid var(--mv-computed);
}
li.assumed i {
  border-top: 1.6px dashed var(--mv-ink);
}
.src {
  font-size: 12.5px;
  margin-top: 4px;
}
</style>
