<script setup lang="ts">
import { editsOf } from '#core/job'
import { copyDesign } from '#core/fitting'
import { v7 as uuidv7 } from 'uuid'

/** Variants of the plan: which is shown, another as a copy, all of them side by side; and what is made of the one shown. */
const store = useOpened()
const session = useSession()
const designs = computed(() => [...store.doc.designs].sort((a, b) => a.name.localeCompare(b.name)))
const { doing, once } = useOnce()
const isPlan = computed(() => store.variant.id === store.planId)
/** from here on the whole job, its card and its papers are made of it */
const choose = (id: string) =>
  once(() => store.commit([{ table: 'jobs', op: 'update', rowId: store.job.id, fields: { designId: id } }], 'another plan'))
const copy = () =>
  once(async () => {
    const { changes, designId } = copyDesign(store.doc, store.variant, uuidv7)
    const wrong = await store.commit(editsOf(changes), 'copy the variant')
    if (!wrong.length) store.lookAt(designId)
  })
const comparing = ref(false)
/** on the phone: what is made of the plan, behind one press */
const more = ref(false)
const picking = ref(false)
const drilling = ref(false)
const laidOut = computed(() => !!store.result.tree?.nodes.length)
const first = computed(() => store.result.drill.assumed.filter(a => a.first).length)
useKeys({
  v: { does: 'variants side by side', run: () => (comparing.value = true) },
  k: { does: 'pick list and labels', run: () => (picking.value = laidOut.value) },
  d: { does: 'before you drill', run: () => (drilling.value = laidOut.value) },
})
</script>

<template>
  <div class="variants no-print">
    <span class="soft">variant</span>
    <span class="which" role="radiogroup" aria-label="Variant shown">
      <button
        v-for="d in designs"
        :key="d.id"
        type="button"
        role="radio"
        :aria-checked="d.id === store.variant.id"
        :class="{ on: d.id === store.variant.id }"
        :data-test="`variant-${d.name}`"
        @click="store.lookAt(d.id)"
      >
        {{ d.name }}<small v-if="d.id === store.planId && designs.length > 1"> plan</small>
      </button>
    </span>
    <button
      v-if="!isPlan"
      type="button"
      class="press small"
      :disabled="!session.mayEdit || doing"
      data-test="make-plan"
      @click="choose(store.variant.id)"
    >
      make {{ store.variant.name }} the plan
    </button>
    <span class="seldom" :class="{ open: more }">
      <button
        type="button"
        class="plain"
        :disabled="!session.mayEdit || doing || !laidOut"
        data-test="copy-variant"
        @click="copy"
      >
        copy as another
      </button>
      <button v-if="designs.length > 1" type="button" class="plain" data-test="compare-variants" @click="comparing = true">
        side by side <kbd class="key">V</kbd>
      </button>
    </span>
    <span class="gap" />
    <span class="seldom" :class="{ open: more }">
      <button type="button" class="plain" :disabled="!laidOut" data-test="pick-list" @click="picking = true">
        pick list, labels <kbd class="key">K</kbd>
      </button>
    </span>
    <button
      type="button"
      class="plain"
      :class="{ short: first }"
      :disabled="!laidOut"
      data-test="before-drill"
      @click="drilling = true"
    >
      before you drill: {{ store.result.drill.assumed.length }} assumed <kbd class="key">D</kbd>
    </button>
    <button type="button" class="plain more" :aria-expanded="more" data-test="variant-more" @click="more = !more">
      {{ more ? 'less' : 'more' }}
    </button>
    <LazyVariantsSheet v-if="comparing" v-model="comparing" @choose="choose" />
    <LazyPickListSheet v-if="picking" v-model="picking" />
    <LazyDrillSheet v-if="drilling" v-model="drilling" />
  </div>
</template>

<style scoped>
.variants {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 20px;
  min-height: 36px;
  border-bottom: 1px solid var(--mv-line);
  font-size: 13px;
  flex: none;
}
.which {
  display: flex;
}
.which button {
  border: 1px solid var(--mv-ink);
  border-left-width: 0;
  background: none;
  min-width: 30px;
  max-width: 180px;
  min-height: 26px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}
.which button:first-child {
  border-left-width: 1px;
}
.which button.on {
  background: var(--mv-ink);
  color: var(--mv-sheet);
  font-weight: 700;
}
.gap {
  flex: 1;
}
.seldom {
  display: contents;
}
.more {
  display: none;
}
.short {
  color: var(--mv-short);
}
@media (max-width: 900px) {
  .variants {
    padding: 4px 14px;
    flex-wrap: wrap;
    gap: 8px 14px;
  }
  .which button {
    min-width: 48px;
    min-height: 44px;
  }
  .plain {
    min-height: 44px;
  }
  .variants > .soft {
    display: none;
  }
  .more {
    display: inline-block;
    order: 1;
  }
  .seldom {
    display: none;
  }
  .seldom.open {
    display: contents;
  }
  .seldom > * {
    order: 2;
  }
  .key {
    display: none;
  }
}
</style>
