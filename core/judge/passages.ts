/** What comes through the shell of a site, and by which of its ways in. */
import { byOwnHole, byWindowLead, entering, passageAt, passersOf, placesOf } from '../install/passage'
import type { Passage, Passer } from '../install/passage'
import { wayInById } from '../install/ways-in'
import type { Context } from './context'

type Ways = Pick<Context, 'doc' | 'design' | 'tree' | 'lengths' | 'building'>

/** Everything of a plan that may pass somewhere. */
export const allPassers = ({ doc, design, tree, lengths, building }: Ways): Passer[] =>
  tree ? passersOf(tree, lengths, design?.plugs ?? 'factory', { building, fixtures: doc.fixtures }) : []

/** @returns what comes through the shell, but by a flat lead under a window or by the hole of an antenna's own foot */
export const crossersOf = (c: Ways): Passer[] =>
  entering(allPassers(c), c.building).filter(p => !byWindowLead(p) && !byOwnHole(p, c.building))

/** @returns every place that cables pass, the plan's way in first */
export function passagesOf(c: Ways): Passage[] {
  if (!c.tree) return []
  const places = placesOf(c.doc, c.design)
  const chosenId = c.design?.wayInId ?? null
  const passers = {
    passers: allPassers(c).filter(p => !byOwnHole(p, c.building)),
    building: c.building,
    chosenId,
    entries: places.filter(f => f.kind === 'way in'),
  }
  return places.map(f => passageAt(f, passers)).sort((a, b) => Number(b.at.id === chosenId) - Number(a.at.id === chosenId))
}

/** @returns of the places that cables pass, the ways in that are drilled for them */
export const drilledOf = (passages: readonly Passage[]): Passage[] =>
  passages.filter(({ at, cables }) => at.kind === 'way in' && cables.length > 0 && !!at.entry && wayInById(at.entry).drills)
