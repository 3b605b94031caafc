export { antennaAt, isLike, partById, partOfKind, PARTS, usualPolarisation } from './parts'
export { overfedWords } from './radiates'
