<script setup lang="ts">
/** How long a cable is that is bought for a way; as a phrase its unit follows it. */
defineProps<{
  lengthM: number | null
  phrase?: boolean
  save: (lengthM: number) => Promise<{ field: string; message: string }[]> | undefined
}>()
const { unit, factor } = useLengths()
</script>

<template>
  <span :class="{ phrase }">
    <MvNumber
      label="Length"
      :phrase="phrase"
      :unit="unit"
      :factor="factor"
      :value="lengthM"
      :low="0"
      :high="500"
      required
      :decimals="1"
      :save="save"
    />
    <template v-if="phrase">{{ unit }}</template>
  </span>
</template>

<style scoped>
.phrase {
  display: inline-flex;
  align-items: baseline;
  gap: 4px;
}
</style>
