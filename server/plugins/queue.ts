import { stopQueue, useQueue } from '../utils/queue'

/** Work that another node left is taken up as soon as this one serves. */
export default defineNitroPlugin((nitro) => {
  if (!useRuntimeConfig().databaseUrl) return
  void useQueue().catch(e => console.error('queue:', e))
  nitro.hooks.hook('close', stopQueue)
})
