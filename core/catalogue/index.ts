export { antennaAt, isLike, partById, partOfKind, PARTS, usualPolarisation } from './parts'
export { wireById } from './wires'
export { overfedWords } from './radiates'
