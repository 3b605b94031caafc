/**
 * Which rows name which, and what becomes of them when the named row goes. The browser applies it to
 * its copy, the database holds it as keys, so that both end with the same rows.
 */
import type { TableName } from './schema'

export interface Reference {
  table: TableName
  field: string
  target: TableName
  /** it goes as well; it lets go of the row (null); or the row cannot go while it is named */
  whenGone: 'goes too' | 'lets go' | 'forbids'
}

const reference = (table: TableName, field: string, target: TableName, whenGone: Reference['whenGone']): Reference => ({
  table,
  field,
  target,
  whenGone,
})

export const REFERENCES: readonly Reference[] = [
  reference('jobs', 'baselineSpotId', 'spots', 'lets go'),
  reference('jobs', 'designId', 'designs', 'lets go'),
  reference('jobs', 'stopId', 'stops', 'lets go'),
  reference('obstacles', 'stopId', 'stops', 'goes too'),
  reference('landmarks', 'stopId', 'stops', 'goes too'),
  reference('photos', 'stopId', 'stops', 'lets go'),
  reference('photos', 'spotId', 'spots', 'lets go'),
  reference('photos', 'nodeId', 'nodes', 'lets go'),
  reference('labels', 'nodeId', 'nodes', 'goes too'),
  reference('setups', 'deviceId', 'devices', 'forbids'),
  reference('setups', 'simId', 'sims', 'forbids'),
  reference('setups', 'designId', 'designs', 'lets go'),
  reference('readings', 'setupId', 'setups', 'forbids'),
  reference('speedRuns', 'setupId', 'setups', 'forbids'),
  reference('calls', 'setupId', 'setups', 'forbids'),
  reference('calls', 'spotId', 'spots', 'forbids'),
  reference('calls', 'stopId', 'stops', 'forbids'),
  reference('calls', 'replacesId', 'calls', 'forbids'),
  reference('watches', 'setupId', 'setups', 'forbids'),
  reference('watches', 'spotId', 'spots', 'forbids'),
  reference('watches', 'stopId', 'stops', 'forbids'),
  reference('watches', 'replacesId', 'watches', 'forbids'),
  reference('readings', 'spotId', 'spots', 'forbids'),
  reference('readings', 'stopId', 'stops', 'forbids'),
  reference('readings', 'replacesId', 'readings', 'forbids'),
  reference('speedRuns', 'spotId', 'spots', 'forbids'),
  reference('speedRuns', 'stopId', 'stops', 'forbids'),
  reference('speedRuns', 'replacesId', 'speedRuns', 'forbids'),
  reference('cells', 'mastId', 'masts', 'goes too'),
  reference('designs', 'mastId', 'masts', 'lets go'),
  reference('designs', 'wayInId', 'fixtures', 'lets go'),
  reference('nodes', 'designId', 'designs', 'goes too'),
  reference('nodes', 'sourceId', 'fixtures', 'lets go'),
  reference('runs', 'designId', 'designs', 'goes too'),
  reference('runs', 'fromNodeId', 'nodes', 'goes too'),
  reference('runs', 'toNodeId', 'nodes', 'goes too'),
  reference('isolations', 'designId', 'designs', 'goes too'),
  reference('isolations', 'donorId', 'nodes', 'goes too'),
  reference('isolations', 'serverId', 'nodes', 'goes too'),
  reference('checks', 'stopId', 'stops', 'lets go'),
  reference('sweeps', 'setupId', 'setups', 'forbids'),
  reference('sweeps', 'designId', 'designs', 'goes too'),
  reference('sweeps', 'stopId', 'stops', 'forbids'),
  reference('steps', 'sweepId', 'sweeps', 'goes too'),
  reference('steps', 'replacesId', 'steps', 'forbids'),
]

/** The references to a table. */
export const referencesTo = (target: TableName): readonly Reference[] => REFERENCES.filter(r => r.target === target)
