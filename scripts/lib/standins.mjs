import { importTs } from './database.mjs'

/**
 * A simulated modem behind a bridge on loopback.
 * @param {{ seed: number, port: number, code: string, origins: string[], technology?: 'LTE' | 'NR', aboutDeg?: number }} o
 * @returns {Promise<{ port: number, close: () => Promise<void> }>}
 */
export async function startStandins(o) {
  const [{ serveBridge }, { modemStandin }, { worldOf }] = await Promise.all([
    importTs('standins/bridge.ts'),
    importTs('standins/modem.ts'),
    importTs('core/world/world.ts'),
  ])
  const world = worldOf(o.seed, { aboutDeg: o.aboutDeg })
  const began = Date.now()
  return serveBridge({
    port: o.port,
    host: '127.0.0.1',
    code: o.code,
    origins: o.origins,
    open: () =>
      modemStandin({ world, operator: 'Tern', technology: o.technology ?? 'LTE', now: () => (Date.now() - began) / 1000 }),
  })
}
