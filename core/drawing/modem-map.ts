/** Which SIM lies in which slot, and which feed comes to which port: the modems of a box as one picture. */
import type { Modem } from '../chain/modems'
import { textWidth } from './primitives'
import type { Drawing, Primitive } from './primitives'

const ROW_PX = 30
const GAP_PX = 18
const BOX_PX = 22

/** A name cut to the width that it has. */
function cut(name: string, px: number): string {
  if (textWidth(name) <= px) return name
  let short = name
  while (short.length > 1 && textWidth(`${short}…`) > px) short = short.slice(0, -1)
  return `${short.trimEnd()}…`
}

/**
 * SIMs on the left, each line to its slot and modem; antennas on the right, each feed to its port.
 *
 * @param modems  of one box
 * @param width  px, from 300 on
 */
export function layoutModemMap(modems: readonly Modem[], width: number): Drawing {
  const p: Primitive[] = []
  const simW = width * 0.36
  const modemX = width * 0.43
  const modemW = Math.min(110, width * 0.2)
  const portX = modemX + modemW
  const antennaX = width * 0.72
  let y = 22
  p.push({ kind: 'text', style: 'small', x: 0, y: 12, text: 'SIM' })
  p.push({ kind: 'text', style: 'small', x: modemX, y: 12, text: 'modem' })
  p.push({ kind: 'text', style: 'small', x: antennaX, y: 12, text: 'antenna, feed' })
  for (const m of modems) {
    const rows = Math.max(1, m.slots.length, m.ports.length)
    const high = rows * ROW_PX
    const rowY = (i: number, of: number): number => y + (i + 0.5) * (high / Math.max(1, of))
    for (const [i, s] of m.slots.entries()) {
      const at = rowY(i, m.slots.length)
      const works = s.sim !== null && s.sim.id === m.sim?.id
      const style = works ? 'labelBold' : s.sim ? 'label' : 'labelSoft'
      const name = `${s.slot}  ${s.sim ? s.sim.name : 'empty'}`
      const waiting = `${name}, stands by`
      const text = s.sim && !works && textWidth(waiting) <= simW ? waiting : name
      p.push({ kind: 'text', style, x: 0, y: at + 4, text: cut(text, simW) })
      if (s.sim) p.push({ kind: 'line', style: works ? 'tickBold' : 'tick', x1: simW + 6, y1: at, x2: modemX, y2: at })
    }
    p.push({ kind: 'rect', style: 'solid', x: modemX, y: y + 3, w: modemW, h: high - 6 })
    p.push({
      kind: 'text',
      style: 'labelInverse',
      x: modemX + modemW / 2,
      y: y + high / 2 + 4,
      anchor: 'middle',
      text: modems.length > 1 ? `modem ${m.index + 1}` : cut(m.at.name, modemW - 8),
    })
    for (const [i, port] of m.ports.entries()) {
      const at = rowY(i, m.ports.length)
      p.push({ kind: 'circle', style: 'ring', x: portX, y: at, r: BOX_PX / 4 })
      p.push({ kind: 'text', style: 'small', x: portX + 9, y: at - 3, text: port.port.id })
      if (port.from) {
        p.push({ kind: 'line', style: 'rule', x1: portX + BOX_PX / 4, y1: at, x2: antennaX - 6, y2: at })
        const name = `${port.from.antenna.name}, ${port.from.feed}`
        p.push({ kind: 'text', style: 'label', x: antennaX, y: at + 4, text: cut(name, width - antennaX) })
      } else p.push({ kind: 'text', style: 'labelSoft', x: antennaX, y: at + 4, text: 'its own small antenna' })
    }
    y += high + GAP_PX
  }
  return { width, height: y - GAP_PX + 6, primitives: p }
}
