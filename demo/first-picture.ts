/** What the first page shows of the program: the demo's loft with its level line, as the program itself draws it. */
import { pathInputs } from '../core/masts'
import { layoutSection } from '../core/drawing'
import type { Drawing } from '../core/drawing'
import { assess } from '../core/judge'
import { sayExpected } from '../core/promise'
import { computePaths, cutTile, Terrain } from '../core/terrain'
import { demoScenario } from './scenario'
import { demoTile } from './terrain'

export interface FirstPicture {
  wide: Drawing
  /** of a phone */
  narrow: Drawing
  job: string
  /** Mbit/s down, where, and what was agreed */
  promise: string
  where: string
  words: string
}

export function firstPicture(): FirstPicture {
  const terrain = new Terrain(cutTile(demoTile()))
  const doc = demoScenario().jobs.find(j => j.document.jobs[0]!.name === 'Net loft')!.document
  const paths = computePaths(terrain, pathInputs(doc))
  const a = assess(doc, { paths }, { atUtc: '2026-04-03T12:00:00.000Z' })
  const draw = (width: number, height: number, compact: boolean): Drawing =>
    layoutSection(doc, a, { width, height, units: 'metric', levels: true, compact }).drawing
  return {
    wide: draw(820, 560, false),
    narrow: draw(390, 470, true),
    job: doc.jobs[0]!.name,
    promise: sayExpected(a.promise!.down),
    where: `${a.promise!.where}, ${a.promise!.on}`,
    words: a.promise!.words,
  }
}
