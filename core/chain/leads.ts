/** Leads that are fixed to a part: cable that nobody buys or cuts. Its plug is the part's port, its loss is the cable's. */
import { sure } from '../sure'
import { partOfKind } from '../catalogue/parts'
import type { Connector, LeadCoax, LinePart, Part, Port } from '../job/part'

/** A part's own lead, as a line of one length. */
export interface OwnLead {
  line: LinePart
  lengthM: number
  /** its maker does not say what coax it is */
  assumed: boolean
}

/** The line of the catalogue that a type of thin coax is alike. */
const ALIKE: Record<LeadCoax, string> = { '195': 'line-195', 'RG-58': 'line-rg58', 'RG-174': 'line-rg174' }
/** Of a lead of which nothing was said. Assumed: RG-58 lies between the other two. */
const USUAL: LeadCoax = 'RG-58'

/** Widest part of a plug on a thin lead, mm. @source IEC 61169 outlines and hexagon nuts, from memory */
const LEAD_PLUG_MM: Record<Connector, number> = {
  'N': 21,
  'SMA': 9.3,
  'RP-SMA': 9.3,
  'TS9': 6,
  'CRC9': 5,
  'F': 13,
  'FME': 10.5,
  'TNC': 15,
  'BNC': 14.5,
  'RJ45': 11.7,
  'DC': 6,
  'mains': 37,
}

/** The lead of a part is that of its antennas: data and supply have cables of their own. */
const NO_RADIO: ReadonlySet<Port['role']> = new Set(['lan', 'power', 'supply'])

/** Made once for each type and plug: a tree is worked out at every press. */
const made = new Map<string, LinePart>()

function leadLine(coax: LeadCoax, port: Port): LinePart {
  const key = `${coax} ${port.connector}`
  const held = made.get(key)
  if (held) return held
  const { constants, spreadPercent, diameterMm, bendMm } = sure(partOfKind(ALIKE[coax], 'line'))
  const line: LinePart = {
    id: `lead-${coax}`,
    kind: 'line',
    name: `own lead, ${coax}`,
    constants,
    impedanceOhm: 50,
    spreadPercent,
    diameterMm,
    bendMm,
    plugMm: LEAD_PLUG_MM[port.connector],
    stockM: [],
    ends: port.connector,
  }
  made.set(key, line)
  return line
}

/** @returns the lead that is fixed to a part's port; null where it has none, or the port is no radio's */
export function ownLead(part: Part, port: Port): OwnLead | null {
  if (part.kind === 'line' || !part.tailM || NO_RADIO.has(port.role)) return null
  return { line: leadLine(part.tailCoax ?? USUAL, port), lengthM: part.tailM, assumed: part.tailCoax === undefined }
}
