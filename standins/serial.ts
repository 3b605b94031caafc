/** A modem's real port: a serial device of this machine, or one that a network serves as plain TCP. */
import { execFileSync } from 'node:child_process'
import { createReadStream, createWriteStream, existsSync } from 'node:fs'
import { connect } from 'node:net'
import type { ModemPort } from '../shared/modem'

/** @throws RangeError where there is no such device */
export function serialPort(path: string, baud = 115_200): ModemPort {
  if (!existsSync(path)) throw new RangeError(`There is no ${path}.`)
  execFileSync('stty', ['-F', path, String(baud), 'raw', '-echo', 'clocal'])
  const input = createReadStream(path, { encoding: 'latin1' })
  const output = createWriteStream(path, { encoding: 'latin1' })
  const close = () => {
    input.destroy()
    output.destroy()
  }
  return {
    name: path,
    kind: 'modem',
    write: text => void output.write(text),
    onText: take => void input.on('data', chunk => take(String(chunk))),
    onGone: take => {
      input.on('error', e => take(e.message))
      output.on('error', e => take(e.message))
      input.on('close', () => take('the port was closed'))
    },
    close,
  }
}

export function tcpPort(host: string, port: number): ModemPort {
  const socket = connect(port, host)
  socket.setEncoding('latin1')
  socket.setNoDelay(true)
  return {
    name: `${host}:${port}`,
    kind: 'modem',
    write: text => void socket.write(text, 'latin1'),
    onText: take => void socket.on('data', chunk => take(String(chunk))),
    onGone: take => {
      socket.on('error', e => take(e.message))
      socket.on('close', () => take('the connection was closed'))
    },
    close: () => void socket.destroy(),
  }
}
