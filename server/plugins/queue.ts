import { startQueue, stopQueue } from '../utils/queue'

/** Work that another node left is taken up as soon as this one serves. */
export default defineNitroPlugin((nitro) => {
  if (!useRuntimeConfig().databaseUrl) return
  startQueue()
  nitro.hooks.hook('close', stopQueue)
})
