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
// A page brought back out of the browser's own keeping may be of a member who has left.
useEventListener(window, 'pageshow', (e: PageTransitionEvent) => e.persisted && location.reload())

/** Role, carriers, ground and clock may change while the page stands open. */
const visible = useDocumentVisibility()
const ASK_MS = 60_000
useIntervalFn(() => {
  if (visible.value === 'visible' && session.me && !session.ended) void session.refresh().catch(() => {})
}, ASK_MS)
// What is typed and not yet taken is taken when the page is put away: leaving a field commits it.
useEventListener(window, 'pagehide', () => (document.activeElement as HTMLElement | null)?.blur())
useEventListener(document, 'visibilitychange', () => {
  if (document.visibilityState === 'hidden') (document.activeElement as HTMLElement | null)?.blur()
})
</script>

<template>
  <v-app>
    <UpdateBar />
    <NuxtPage v-if="session.loaded" />
    <p v-else class="loading soft">Opening…</p>
  </v-app>
</template>

<style>
.loading {
  padding: 24px;
}
</style>
