export default defineEventHandler(async event => (await requireJob(event)).snapshot)
