/** Coax from the antenna against a modem out there with Ethernet down the same way: by what reaches the modem. */
import { nth } from '../sure'
import { jointM, wayTo } from '../chain/tree'
import { CHANNEL_M, POE_CLASSES, poeArrives } from '../chain/poe'
import { num } from '../units'
import { concat, metres, words } from '../words'
import type { Words } from '../words'
import type { Assessment } from './assess'

/** Class of supply that an outdoor modem asks for where nobody has chosen one. Assumed. */
const OUTDOOR_CLASS = nth(POE_CLASSES, 2)

/** @returns one sentence; null where no coax runs from an outside antenna to a router */
export function overData(a: Pick<Assessment, 'tree' | 'levels'>): Words | null {
  const modem = a.levels?.modems[0]
  const { tree } = a
  if (!modem || !tree) return null
  // The modem is out there already.
  if (tree.routers.find(r => r.node.id === modem.routerId)?.part.outdoors) return null
  const i = tree.visits.findIndex(v => v.at.node.id === modem.routerId && v.entry?.id === modem.port)
  const lengthM = i < 0 ? 0 : wayTo(tree, i).reduce((s, v) => s + (v.joint ? jointM(v.joint) : 0), 0)
  if (lengthM < 2) return null
  const reach = Math.min(CHANNEL_M, lengthM)
  const far = lengthM > CHANNEL_M ? ', by a switch half way' : ''
  return concat(
    `By coax the modem gets RSRP ${num(modem.rsrpDbm, 1)} dBm, ${num(modem.feedLossDb, 1)} dB less than at the antenna's plug. `,
    words`A modem out there with Ethernet over the same ${metres(lengthM)} loses none of it${far}; `,
    `${num(poeArrives(OUTDOOR_CLASS, reach), 1)} W of class ${OUTDOOR_CLASS.poeClass} arrive.`,
  )
}
