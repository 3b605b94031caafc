/** A router that hears an inside antenna by air: the level at its place, as its own antennas take it. */
import type { Levels } from '../chain/levels'
import type { RouterNode, Tree } from '../chain/tree'
import type { JobDocument, Spot } from '../job/schema'
import type { Building } from '../site/building'
import { DEVICE_GAIN_DBI } from '../survey/devices'
import { roomLevels } from './rooms'
import type { RoomLevel } from './rooms'

export interface ByAir {
  router: RouterNode
  level: RoomLevel
}

const placeOf = ({ node, name }: RouterNode): Spot => ({
  id: node.id,
  name,
  eastM: node.eastM,
  northM: node.northM,
  upM: node.upM,
  indoors: true,
  needed: false,
  station: null,
  note: null,
  people: null,
  use: null,
  needDbm: null,
  hangs: null,
})

/** @returns the routers without a cable to their modem, each with what it hears; none where nothing is repeated */
export function heardByAir(doc: JobDocument, tree: Tree, b: Building, levels: Levels): ByAir[] {
  if (!tree.byAir.length) return []
  const overPhoneDb = DEVICE_GAIN_DBI.router - DEVICE_GAIN_DBI.phone
  const rooms = roomLevels({ ...doc, spots: tree.byAir.map(placeOf) }, tree, b, levels)
  return tree.byAir.flatMap((router): ByAir[] => {
    const level = rooms.find(r => r.spot.id === router.node.id)
    return level
      ? [{ router, level: { ...level, rsrpDbm: level.rsrpDbm + overPhoneDb, noiseDbm: level.noiseDbm + overPhoneDb } }]
      : []
  })
}
