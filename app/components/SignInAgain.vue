<script setup lang="ts">
/** The session ran out while something is open: signed in again beside it, and nothing of it is lost. */
/** What goes on then. Called, not emitted: by then this may be put away, as the session goes on. */
const { after } = defineProps<{ after: () => unknown }>()
const session = useSession()
const { email, password, error, busy, enter } = useSignIn(() => after())
</script>

<template>
  <form @submit.prevent="enter('password')">
    <button v-if="session.demo" type="button" class="press filled" :disabled="busy" @click="enter('demo')">into the demo</button>
    <template v-else>
      <v-text-field v-model="email" label="Address" type="email" autocomplete="username" />
      <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" />
      <button type="submit" class="press filled" :disabled="busy">sign in</button>
    </template>
    <span v-if="error" class="error" role="alert">{{ error }}</span>
  </form>
</template>
