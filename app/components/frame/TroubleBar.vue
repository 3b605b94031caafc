<script setup lang="ts">
/** What needs a person now: two values for one field, a refused change, a session that ended, an engine error. */
const store = useJob()
const session = useSession()
const NAMES: Record<string, string> = { agreedDownMbps: 'download agreed', agreedUpMbps: 'upload agreed', name: 'name', upM: 'height', lengthM: 'length', partId: 'part', today: 'what is there today' }
const word = (f: string) => NAMES[f] ?? f.replace(/([A-Z])/g, ' $1').toLowerCase()
const show = (v: unknown) => (v === null || v === '' ? 'nothing' : String(v))
const again = ref(false)
const email = ref('')
const password = ref('')
const error = ref('')
async function signIn(how: 'demo' | 'password') {
  error.value = ''
  try {
    await session.signIn(how === 'demo' ? 'demo' : { email: email.value, password: password.value })
    again.value = false
    await store.send()
    await store.fetchWhole()
  }
  catch (e) {
    error.value = messageOf(e)
  }
}
</script>

<template>
  <div class="trouble no-print">
    <section v-for="c in store.conflicts" :key="c.rowId + c.field" role="alert" data-test="conflict">
      <p>Two people set the <strong>{{ word(c.field) }}</strong>. Which stands?</p>
      <button type="button" class="press" @click="store.settle(c, 'mine')">mine: {{ show(c.mine) }}</button>
      <button type="button" class="press" @click="store.settle(c, 'theirs')">theirs: {{ show(c.theirs) }}</button>
    </section>
    <section v-for="(r, i) in store.refused" :key="i" role="alert">
      <p><strong>Not taken ({{ r.table }}):</strong> {{ r.detail }}</p>
      <button type="button" class="press" @click="store.refused.splice(i, 1)">understood</button>
    </section>
    <section v-if="session.ended" role="alert" data-test="ended">
      <p><strong>The session has ended.</strong> {{ store.unsent }} change{{ store.unsent === 1 ? '' : 's' }} kept here, sent when you sign in.</p>
      <template v-if="again">
        <button v-if="session.demo" type="button" class="press filled" @click="signIn('demo')">into the demo</button>
        <form v-else @submit.prevent="signIn('password')">
          <v-text-field v-model="email" label="Address" type="email" autocomplete="username" /><v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" />
          <button type="submit" class="press filled">sign in</button>
        </form>
        <span class="error">{{ error }}</span>
      </template>
      <button v-else type="button" class="press" @click="again = true">sign in again</button>
    </section>
    <section v-if="store.engineError" role="alert"><p>{{ store.engineError }}</p></section>
  </div>
</template>

<style scoped>
section { display: flex; gap: 10px; align-items: center; padding: 8px 20px; background: var(--mv-agreed); color: #191d22; flex-wrap: wrap; }
section .press { background: #fbf9f4; color: #191d22; border-color: #191d22; }
p { flex: 1; min-width: 220px; } form { display: flex; gap: 8px; align-items: center; }
form :deep(.v-input) { min-width: 180px; background: #fbf9f4; }
</style>
