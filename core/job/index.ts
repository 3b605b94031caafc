export { ARCHIVE_FORMAT, ARCHIVE_VERSION, documentFrom, schemaFiles } from './archive'
export type { Manifest } from './archive'
export { applyChanges, fieldsOf, invertChanges, mergeFields, standing, takenBack } from './changes'
export type { FieldConflict } from './changes'
export { AFTER_ALL, asTemplate, insertsOf, remapped } from './copy'
export { BARE_FIXTURE, BARE_LABEL, BARE_SETUP, BARE_SIM, DEFAULT_SITE, insertChange, newJobChanges } from './defaults'
export { changesOf, editsOf, insert, remove, setField, update, upsert } from './edits'
export type { Edit, Fields, New } from './edits'
export { fieldOf, Id, Num, opt, Text, Whole } from './fields'
export type { FieldFacts } from './fields'
export { BARE_FIXING, BEHINDS, FEED_THROUGH, GRADE_IDS, METALS, SUBSTRATES } from './fixing'
export type { Entry, Feed, Fixing, Mount } from './fixing'
export { completeDocument, modernised, repairedSiteId, rowsBehind } from './legacy'
export type { MaterialId } from './materials'
export { CONNECTORS, isCoax, isExtender, isInverter, isOmni, OwnFigures, PartSchema, POLARISATIONS, SERVICES } from './part'
export type { Part, PartKind, Polarisation, Port, Service } from './part'
export { REFERENCES, referencesTo } from './references'
export type { Reference } from './references'
export {
  APPEND_ONLY,
  BODIES,
  CARRIES,
  CONNECTION_STATES,
  emptyDocument,
  COMPLAINTS,
  EnoughSchema,
  FIXTURES,
  jobOf,
  KINDS,
  LATER_FIELDS,
  movesAbout,
  partialSchema,
  PLACED_TABLES,
  rowSchema,
  siteOf,
  STATIONS,
  SIGNED,
  SUPPLY_STATES,
  TAKEN_AWAY,
  TABLE_FIELDS,
  TABLES,
  TIME_FIELDS,
  USAGES,
  USES,
  VISIT_STATES,
  WEATHER,
  without,
} from './schema'
export type {
  Body,
  Cell,
  Change,
  Check,
  Complaint,
  Design,
  Device,
  Enough,
  Fixture,
  FloorRow,
  IsolationRow,
  Job,
  Label,
  JobDocument,
  JobKind,
  Landmark,
  Mast,
  Node,
  Obstacle,
  Photo,
  Picture,
  Reading,
  Row,
  Run,
  SetupRow,
  Sim,
  Site,
  SpeedRun,
  Station,
  Step,
  Stop,
  Supply,
  Sweep,
  TableName,
  Appliance,
  Connection,
  ConnectionKind,
  ConnectionState,
  Failover,
  Network,
  Signature,
  UsageDay,
  Visit,
  Watch,
  Use,
  Zone,
} from './schema'
export { ChangeBatchSchema, ChangeSchema } from './wire'
