/** Steps of what moves: a splitter tried in each of its settings, what runs past an antenna aloft, and what comes down before driving. */
import { standInAntennas, splitterOf } from '../fitting/stand-in'
import { struckIn } from '../install/striking'
import { jobOf, siteOf } from '../job/schema'
import { serviceAntennas } from '../judge/services'
import { TAKES } from './durations'
import { isUp, nameOf, worded } from './step'
import type { CardContext, Draft } from './step'

/** @returns the steps of a boat before anything is aimed */
export const aboard = (s: CardContext): Draft[] => (jobOf(s.doc).kind === 'boat' ? [...standIns(s), ...clearAloft(s)] : [])

/** Each setting is tried while nobody needs it: the own antennas, then both radios on the one, then on the other. */
function standIns({ a }: CardContext): Draft[] {
  const splitter = splitterOf(a.tree)
  if (!splitter) return []
  const antennas = standInAntennas(a.tree)
  const joined = antennas.map(at => ({ id: at.node.id, set: `both radios on ${nameOf(at)}` }))
  const settings = antennas.length > 1 ? [{ id: 'own', set: 'each radio on its own antenna' }, ...joined] : joined
  return settings.map(({ id, set }) => ({
    id: `stand-in:${id}`,
    words: `Try the splitter: ${set}`,
    stand: 'ground' as const,
    at: splitter.node,
    then:
      'A radio check on a working channel, heard and answered; ships seen on AIS, the own ship seen by another. ' +
      'Then its power off: the VHF radio still gets through.',
    minutes: TAKES.tried,
    needs: ['join', `hang:${splitter.node.id}`],
  }))
}

/** Halyards, sails and lamps share the mast with an antenna. */
function clearAloft(s: CardContext): Draft[] {
  const { a, building } = s
  return [...a.tree.donors, ...serviceAntennas(a.tree.nodes)]
    .filter(n => isUp(n.node, building))
    .map(n => ({
      id: `clear-of:${n.node.id}`,
      ...worded(name => `Hoist every halyard past ${name(n)}, switch every lamp on`),
      stand: 'ground' as const,
      at: n.node,
      then: 'No halyard, sail or vane touches it or its lead on either tack; no lamp is hidden by it from any side that must see it.',
      minutes: TAKES.tried,
      needs: [`raise:${n.node.id}`, `hang:${n.node.id}`],
    }))
}

/** What is struck before the journey is struck once while somebody watches the clock: it stands on the sheet of each stop. */
export function striking({ doc, a }: CardContext): Draft[] {
  const struck = struckIn(a.tree, siteOf(doc))
  if (!struck.length) return []
  return [
    {
      id: 'strike',
      words: `Strike and stow ${struck.map(nameOf).join(', ')} before driving`,
      stand: 'ground',
      at: struck[0]?.node ?? null,
      then:
        'Done once by whoever will do it, by the clock: antenna and pole down, lead coiled without a kink, ' +
        'way in closed, all of it stowed.',
      photo: 'where it is stowed',
      minutes: TAKES.struck,
      needs: ['prove'],
    },
  ]
}
