<script setup lang="ts">
const open = defineModel<boolean>({ required: true })
const store = useJob()
const findings = computed(() => store.result?.findings ?? [])
</script>

<template>
  <MvSheet v-model="open" title="Findings">
    <p v-if="!findings.length" class="soft">Nothing to say yet: findings come with readings, masts and a kit.</p>
    <FindingRow v-for="f in findings" :key="f.key" :finding="f" />
  </MvSheet>
</template>
