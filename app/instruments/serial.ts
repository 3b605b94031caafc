/// <reference types="w3c-web-serial" />
import type { ModemPort } from '../../shared/modem'

export const serialHere = (): boolean => 'serial' in navigator

const BAUD = 115_200

/**
 * A modem at this machine's own port, chosen by the person.
 * @throws Error in words: none here, none chosen, busy
 */
export async function openSerial(baudRate = BAUD): Promise<ModemPort> {
  if (!serialHere())
    throw new Error('This browser has no way to a serial port: use a bridge, or paste what the modem’s page shows.')
  const port = await navigator.serial.requestPort().catch(() => null)
  if (!port) throw new Error('No port was chosen.')
  await port.open({ baudRate }).catch(() => {
    throw new Error('The port is busy: another program has it.')
  })
  let open = true
  let gone: (why: string) => void = () => {}
  const writer = port.writable!.getWriter()
  const reader = port.readable!.getReader()
  const decoder = new TextDecoder('latin1')
  const encoder = new TextEncoder()
  const close = async () => {
    if (!open) return
    open = false
    await reader.cancel().catch(() => {})
    reader.releaseLock()
    writer.releaseLock()
    await port.close().catch(() => {})
  }
  return {
    name: 'this machine’s port',
    kind: 'modem',
    write: text => void writer.write(encoder.encode(text)).catch(() => gone('it was unplugged')),
    onText: take =>
      void (async () => {
        while (open) {
          const got = await reader.read().catch(() => null)
          if (!got || got.done) break
          take(decoder.decode(got.value))
        }
        if (open) gone('it was unplugged')
      })(),
    onGone: g => (gone = g),
    close: () => void close(),
  }
}
