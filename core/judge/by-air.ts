/** A booster that feeds a router by air, judged: whether the router hears enough, and not too much. */
import { heardByAir } from '../coverage/by-air'
import { num } from '../units'
import type { Laid } from './context'
import { COMMON } from './finding'
import type { Draft } from './finding'

/** What a modem hears above this it cannot tell apart any more, dBm RSRP. @source common practice (no source) */
const LOUD_DBM = -45

export function byAirDrafts(c: Laid): Draft[] {
  const levels = c.main?.levels
  if (!levels) return []
  return heardByAir(c.doc, c.tree, c.building, levels).map(({ router, level }): Draft => {
    const loud = level.rsrpDbm > LOUD_DBM
    return {
      code: 'choose.by-air',
      subjectId: router.node.id,
      severity: loud || !level.met ? 'fix' : 'note',
      title: `${router.name} hears ${level.server.name} by air: RSRP ${num(level.rsrpDbm)} dBm`,
      sentence: loud
        ? 'So near it is overloaded: a metre further off takes more than it costs.'
        : level.met
          ? 'By its own antennas, which stay on. What comes through one inside antenna is one layer: half of what two feeds carry.'
          : `It wants ${num(level.needDbm)} dBm: nearer to the antenna, or by a cable of its own.`,
      because: 'the level of the inside antenna, less the way to it',
      source: COMMON,
    }
  })
}
