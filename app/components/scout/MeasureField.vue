<script setup lang="ts">
/** One length of the site, in the member's unit; what stands by its shape moves with it. */
export type Measure = 'lengthM' | 'depthM' | 'storeyHeightM' | 'roofRiseM' | 'mizzenRiseM'
defineProps<{ field: Measure; label: string; low: number; high: number; optional?: boolean; phrase?: boolean }>()
const store = useOpened()
const edits = useSiteEdits()
const { unit, factor } = useLengths()
</script>

<template>
  <MvNumber
    :phrase="phrase"
    :label="label"
    :unit="unit"
    :factor="factor"
    :value="store.site[field]"
    :low="low"
    :high="high"
    :required="!optional"
    :decimals="1"
    :save="(v: number | null) => edits.setSite({ [field]: v }, fieldWord(field))"
  />
</template>
