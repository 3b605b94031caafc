/** Cautions that stand at the step where they bite; those that can kill ask for a tick. */
import type { Section } from './finding'
import type { Job } from '../job/schema'

export interface Caution {
  key: string
  section: Section
  tick: boolean
  text: string
  /** kinds of site it bites on; all where left out */
  kinds?: readonly Job['kind'][]
}

/** @source common practice; national rules and licensed people decide */
export const CAUTIONS: readonly Caution[] = [
  {
    key: 'falls',
    section: 'aim',
    tick: true,
    kinds: ['home', 'building', 'vehicle'],
    text: 'Ladder footed and tied, roof dry, someone on the ground. Wind or wet: stop.',
  },
  {
    key: 'overhead',
    section: 'aim',
    tick: true,
    text: 'Overhead lines are further away than the pole’s full length, in every direction it can fall.',
  },
  {
    key: 'aloft',
    section: 'aim',
    tick: true,
    kinds: ['boat'],
    text: 'Going aloft: two halyards, a person of trust on the winch, nobody under it, engine and radar off. Wake or swell: stop.',
  },
  { key: 'storm', section: 'aim', tick: true, text: 'No thunder within earshot. Off the roof at the first.' },
  {
    key: 'services',
    section: 'place',
    tick: true,
    kinds: ['home', 'building'],
    text: 'Before drilling, find cables, pipes and gas behind the wall. Mains work is for a licensed electrician.',
  },
  {
    key: 'aboard',
    section: 'place',
    tick: true,
    kinds: ['vehicle', 'boat'],
    text:
      'Before drilling, know what lies behind: airbags, fuel, gas, tanks, looms, the hull itself. Battery off while ' +
      'wiring; a licensed electrician for shore power.',
  },
  {
    key: 'earth',
    section: 'level',
    tick: true,
    kinds: ['home', 'building'],
    text: 'Earthing of mast and arrestor follows local code; a licensed electrician decides. Nothing here survives a direct strike.',
  },
  {
    key: 'struck',
    section: 'level',
    tick: true,
    kinds: ['boat'],
    text:
      'A mast on the water is struck first. What is bonded, and how, follows local rules and a marine electrician; ' +
      'nothing here survives a direct strike.',
  },
  { key: 'rf', section: 'place', tick: true, text: 'People stay at least 20 cm from consumer booster antennas.' },
  {
    key: 'identified',
    section: 'route',
    tick: true,
    kinds: ['vehicle', 'boat'],
    text: 'Feed identified: an appliance on it was switched off and it went dark. Colour proves nothing; an unlabelled wire is not used.',
  },
  {
    key: 'dead',
    section: 'route',
    tick: true,
    kinds: ['vehicle', 'boat'],
    text:
      'Proven dead: the meter was tried on a live source before and after; solar, charger, shore power and inverter are off too, ' +
      'the fuse is out.',
  },
  {
    key: 'electrician',
    section: 'route',
    tick: true,
    kinds: ['home', 'building'],
    text: 'Whatever is beyond a plug, and the bond to the building’s earthing, is a licensed electrician’s.',
  },
  {
    key: 'wiring',
    section: 'level',
    tick: true,
    text: 'Power off and fuse out while anything is wired; mains is for a licensed electrician.',
  },
]

export const cautionsFor = (section: Section, kind: Job['kind']): Caution[] =>
  CAUTIONS.filter(c => c.section === section && (!c.kinds || c.kinds.includes(kind)))

/** What a country asks of a booster and of an earth, in words, from memory; figures only where they are certain. */
export const RULE_PACKS = {
  generic: {
    name: 'Generic',
    earth: 'Local code says what is earthed, with what conductor and how short.',
    booster: 'A booster needs the operator’s consent or an approved type in most countries: ask before it is switched on.',
    source: 'common practice (no source)',
  },
  US: {
    name: 'United States',
    earth: 'NEC 810.15, 810.20 and 810.21: mast and arrestor, 10 AWG copper, bonded to the building’s earthing (6 AWG).',
    booster: 'A consumer booster must be of a certified type and registered with the carrier before use.',
    source: '47 CFR 20.21, from memory',
  },
  UK: {
    name: 'United Kingdom',
    earth: 'BS EN 60728-11 with BS 7671, chapter 54: bonded to the main earthing terminal.',
    booster: 'Only a booster that meets the licence exemption’s technical terms may be used without the operator’s consent.',
    source: 'Wireless Telegraphy exemption regulations, from memory',
  },
  EU: {
    name: 'European Union',
    earth: 'EN 60728-11, clause 11: 16 mm² copper to the building’s earthing; the national form decides.',
    booster: 'A repeater needs the operator’s consent; national law decides.',
    source: 'from memory',
  },
  AU: {
    name: 'Australia',
    earth: 'AS/NZS 3000, section 5: bonded to the main earthing system; a licensed electrician.',
    booster: 'A repeater may be used only with the written consent of the carrier whose spectrum it repeats.',
    source: 'Radiocommunications Act 1992, from memory',
  },
} as const
