/** Signing in by form or into the demo, once at a time; what is wrong is said beside it. */
export function useSignIn(after: () => unknown = () => {}) {
  const session = useSession()
  const email = ref('')
  const password = ref('')
  const error = ref('')
  const busy = ref(false)
  async function enter(how: 'demo' | 'password') {
    if (busy.value) return
    busy.value = true
    error.value = ''
    try {
      await session.signIn(how === 'demo' ? 'demo' : { email: email.value, password: password.value })
      await after()
    } catch (e) {
      error.value = messageOf(e)
    }
    busy.value = false
  }
  return { email, password, error, busy, enter }
}
