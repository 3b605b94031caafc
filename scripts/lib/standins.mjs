import { importTs } from './database.mjs'

/**
 * A simulated modem behind a bridge on loopback, and beside it a position receiver behind another.
 * @param {{ seed: number, port: number, code: string, origins: string[], technology?: 'LTE' | 'NR', aboutDeg?: number,
 *   receiverPort?: number, at?: { latDeg: number, lonDeg: number, heightM: number } }} o
 * @returns {Promise<{ port: number, receiverPort: number, urls: string, close: () => Promise<void> }>}
 */
export async function startStandins(o) {
  const [{ serveBridge }, { modemStandin }, { receiverStandin }, { worldOf }] = await Promise.all([
    importTs('standins/bridge.ts'),
    importTs('standins/modem.ts'),
    importTs('standins/receiver.ts'),
    importTs('core/world/world.ts'),
  ])
  const world = worldOf(o.seed, { aboutDeg: o.aboutDeg })
  const began = Date.now()
  const now = () => (Date.now() - began) / 1000
  const serve = (port, open) => serveBridge({ port, host: '127.0.0.1', code: o.code, origins: o.origins, open })
  const modem = await serve(o.port, () => modemStandin({ world, operator: 'Tern', technology: o.technology ?? 'LTE', now }))
  const at = o.at ?? { latDeg: 46.8085, lonDeg: -41.362, heightM: 14 }
  const receiver = await serve(o.receiverPort ?? 0, () => receiverStandin({ at, seed: o.seed, now }))
  return {
    port: modem.port,
    receiverPort: receiver.port,
    urls: `ws://localhost:${modem.port} ws://localhost:${receiver.port}`,
    close: async () => void (await Promise.all([modem.close(), receiver.close()])),
  }
}
