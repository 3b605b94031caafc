<script setup lang="ts">
const open = defineModel<boolean>({ required: true })
</script>

<template>
  <MvSheet v-model="open" title="Keys">
    <dl>
      <template v-for="k in keysNow" :key="k.key">
        <dt>
          <kbd class="key">{{ k.key }}</kbd>
        </dt>
        <dd>{{ k.does }}</dd>
      </template>
    </dl>
  </MvSheet>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px 16px;
  margin: 0;
}
dd {
  margin: 0;
}
</style>
