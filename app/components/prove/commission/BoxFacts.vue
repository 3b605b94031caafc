<script setup lang="ts">
import { BARE_LABEL, insert, setField } from '#core/job'
import type { Fields, Label } from '#core/job'

/** Boxes: what stands on each, its firmware, and the doors that are shut. */
const store = useOpened()
const boxes = computed(() =>
  (store.result.tree?.routers ?? []).map(at => ({ at, label: store.doc.labels.find(l => l.nodeId === at.node.id) ?? null })),
)
const set = (nodeId: string, label: Label | null, field: keyof Fields<'labels'>) => (v: unknown) =>
  store.commit(
    [
      label
        ? setField('labels', label.id, field, v)
        : insert('labels', { ...BARE_LABEL, nodeId, [field]: v } as Fields<'labels'>),
    ],
    'a box',
  )
const DOOR = ['off', 'on'] as const
</script>

<template>
  <section v-for="b in boxes" :key="b.at.node.id" class="box" data-test="box-facts">
    <h2>{{ b.at.name }}</h2>
    <p class="sentence">
      Serial {{ b.label?.serial ?? 'not read' }}, IMEI {{ b.label?.imei ?? 'not read' }}. Firmware
      <MvText
        phrase
        label="Firmware needed"
        hint="any"
        :value="b.label?.firmwareNeeded ?? null"
        :save="set(b.at.node.id, b.label, 'firmwareNeeded')"
      />
      is needed,
      <MvText
        phrase
        label="Firmware found"
        hint="not read"
        :value="b.label?.firmwareFound ?? null"
        :save="set(b.at.node.id, b.label, 'firmwareFound')"
      />
      found. WPS is
      <MvChoice
        phrase
        label="WPS"
        hint="not looked at"
        :value="b.label?.wps ?? null"
        :choices="DOOR"
        :save="set(b.at.node.id, b.label, 'wps')"
      />, the door from outside
      <MvChoice
        phrase
        label="Administered from outside"
        hint="not looked at"
        :value="b.label?.adminFromOutside ?? null"
        :choices="DOOR"
        :save="set(b.at.node.id, b.label, 'adminFromOutside')"
      />.
    </p>
  </section>
</template>

<style scoped>
.box {
  border-bottom: 1px solid var(--mv-line);
  padding-bottom: 8px;
}
.sentence {
  line-height: 2;
}
@media (max-width: 900px) {
  .sentence {
    line-height: 2.4;
  }
}
</style>
