export default defineEventHandler(async event => {
  await closeSession(event)
  return { ok: true }
})
