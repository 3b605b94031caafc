/** What this device keeps of the member who is signed in, sealed: lists, packs, masts near a stop. */

export async function keep(name: string, value: unknown): Promise<void> {
  await useSession().own?.store.keep(name, value)
}

export async function kept<T>(name: string): Promise<T | undefined> {
  return useSession().own?.store.kept<T>(name)
}
