<script setup lang="ts">
/** A one-time link: first set-up, an invitation, or a new password. */
const session = useSession()
const router = useRouter()
const token = ref('')
const kind = ref<'invite' | 'reset' | 'set-up'>('invite')
const crew = ref('')
const name = ref('')
const email = ref('')
const password = ref('')
const error = ref('')
const fields = ref<Record<string, string>>({})
const busy = ref(false)
onMounted(async () => {
  token.value = location.hash.slice(1)
  try {
    kind.value = (await api<{ kind: typeof kind.value }>('/api/auth/token', { body: { token: token.value } })).kind
  } catch (e) {
    error.value = messageOf(e)
  }
})
async function accept() {
  if (busy.value) return
  busy.value = true
  error.value = ''
  fields.value = {}
  try {
    await api('/api/auth/accept', {
      body: {
        token: token.value,
        password: password.value,
        ...(kind.value === 'reset' ? {} : { name: name.value, email: email.value }),
        ...(kind.value === 'set-up' ? { crew: crew.value } : {}),
      },
    })
    await session.refresh()
    await router.replace('/')
  } catch (e) {
    error.value = messageOf(e)
    if (e instanceof ApiError) fields.value = Object.fromEntries((e.problem.errors ?? []).map(x => [x.field, x.message]))
  }
  busy.value = false
}
useHead({ title: 'Join · Multivox' })
</script>

<template>
  <main class="join">
    <h1>{{ kind === 'set-up' ? 'Set up this installation' : kind === 'reset' ? 'A new password' : 'Join the crew' }}</h1>
    <form @submit.prevent="accept">
      <v-text-field v-if="kind === 'set-up'" v-model="crew" label="Name of the crew" :error-messages="fields.crew" />
      <template v-if="kind !== 'reset'">
        <v-text-field v-model="name" label="Your name" autocomplete="name" :error-messages="fields.name" />
        <v-text-field
          v-model="email"
          label="Address to sign in with"
          type="email"
          autocomplete="username"
          :error-messages="fields.email"
        />
      </template>
      <v-text-field
        v-model="password"
        label="Password, ten characters or more"
        type="password"
        autocomplete="new-password"
        :error-messages="fields.password"
      />
      <button type="submit" class="press filled" :disabled="busy || password.length < 10">Go on</button>
    </form>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
  </main>
</template>

<style scoped>
.join {
  max-width: 460px;
  margin: 10vh auto;
  padding: 0 20px;
}
form {
  display: grid;
  gap: 12px;
  margin: 16px 0;
}
</style>
