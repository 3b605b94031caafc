import { startQueue, stopQueue } from '../services/queue'
import { clearUploads } from '../http/upload'

/** Work that another node left is taken up as soon as this one serves; what a killed one left on its disk goes. */
export default defineNitroPlugin(nitro => {
  if (!useRuntimeConfig().databaseUrl) return
  clearUploads()
  startQueue()
  nitro.hooks.hook('close', stopQueue)
})
