<script setup lang="ts">
import type { NuxtError } from '#app'

/**
 * Stands where the program itself did not start or broke. A part of it that the network did not bring is asked for again
 * by itself, each time after a longer pause; what was kept on this device is not touched.
 */
const props = defineProps<{ error: NuxtError }>()
const missing = computed(() => /dynamically imported module|module script failed|preload CSS/i.test(props.error.message))
const unknown = computed(() => props.error.statusCode === 404)
const leftS = ref<number | null>(null)
const again = () => location.reload()
onMounted(() => {
  if (!missing.value) return
  const n = countReload()
  if (n !== null) leftS.value = pauseMs(n) / 1000
})
useIntervalFn(() => {
  if (leftS.value === null) return
  leftS.value--
  if (leftS.value <= 0) {
    leftS.value = null
    again()
  }
}, 1000)
</script>

<template>
  <main class="broken">
    <h1>
      {{ missing ? 'The program did not load whole' : unknown ? 'There is no such page' : 'Something in the program broke' }}
    </h1>
    <p v-if="missing">
      The connection broke off. {{ leftS !== null ? `Trying again in ${leftS} s.` : 'Try again where the network is better.' }}
    </p>
    <p v-else-if="!unknown">{{ error.message }}</p>
    <p v-if="!unknown" class="soft">What you entered is kept on this device.</p>
    <p>
      <button v-if="!unknown" type="button" class="press go" data-test="load-again" @click="again">Try again</button>
      <a class="press" href="/">All jobs</a>
    </p>
  </main>
</template>

<style scoped>
.broken {
  max-width: 560px;
  margin: 0 auto;
  padding: 48px 20px;
  display: grid;
  gap: 12px;
  color: var(--mv-ink);
}
.broken p {
  margin: 0;
}
.broken a {
  color: inherit;
  text-decoration: none;
}
</style>
