<script setup lang="ts">
/**
 * A newer Multivox waits for a quiet moment: nothing typed, nothing open, nothing unsent, and nobody
 * looking. Until then it only says so, and can be asked for.
 */
const { $pwa } = useNuxtApp()
const sending = useSending()
/** changes on their way to the device or the server: those of the open job count before they are written */
const unsent = computed(() => sending.total || sending.ofOpen)
const waits = computed(() => !!$pwa?.needRefresh)
const visibility = useDocumentVisibility()
const hidden = computed(() => visibility.value === 'hidden')

/** Whether something is being written anywhere on the page: a field in use, or one whose text is not taken yet. */
function busy(): boolean {
  const at = document.activeElement
  if (at && /^(INPUT|TEXTAREA|SELECT)$/.test(at.tagName)) return true
  if (document.querySelector('.v-overlay--active, [role=dialog]')) return true
  return [...document.querySelectorAll<HTMLInputElement | HTMLTextAreaElement>('form input, form textarea')].some(
    f => f.type !== 'checkbox' && f.type !== 'file' && f.value !== '' && f.value !== f.defaultValue,
  )
}
const refusal = ref('')
function take(asked: boolean) {
  refusal.value = ''
  if (!waits.value) return
  if (busy() || unsent.value) {
    if (asked)
      refusal.value = unsent.value
        ? 'First what is not sent yet goes to the server.'
        : 'Finish what you are typing first: it would be lost.'
    return
  }
  void $pwa?.updateServiceWorker(true)
}
watch(hidden, h => h && take(false))
</script>

<template>
  <div v-if="waits" class="update no-print" role="status" data-test="update">
    <span
      >A newer Multivox is here. It is taken when you put this page away. <b>{{ refusal }}</b></span
    >
    <button type="button" class="press small" @click="take(true)">take it now</button>
  </div>
</template>

<style scoped>
.update {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  padding: 4px 20px;
  background: var(--mv-ground);
  font-size: 12.5px;
}
</style>
