<script setup lang="ts">
/** How long a cable is that is bought for a way. */
defineProps<{ lengthM: number | null; save: (lengthM: number) => Promise<{ field: string; message: string }[]> | undefined }>()
const { unit, factor } = useLengths()
</script>

<template>
  <MvNumber
    label="Length"
    :unit="unit"
    :factor="factor"
    :value="lengthM"
    :low="0"
    :high="500"
    required
    :decimals="1"
    :save="save"
  />
</template>
