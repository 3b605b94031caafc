<script setup lang="ts">
import { useTheme } from 'vuetify'

const prefs = usePrefs()
const session = useSession()
const theme = useTheme()
watchEffect(() => {
  document.documentElement.dataset.theme = prefs.night ? 'night' : 'sun'
  theme.change(prefs.night ? 'night' : 'sun')
})
onMounted(() => void session.load())
</script>

<template>
  <v-app>
    <NuxtPage v-if="session.loaded" />
    <p v-else class="loading soft">
      Opening…
    </p>
  </v-app>
</template>

<style>
.loading { padding: 24px; }
</style>
