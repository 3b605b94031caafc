/** What moves, by the shape of its body: usual measures, and what it is made of. */
import type { Body, Site } from '../job/schema'

type Measures = Pick<Site, 'lengthM' | 'depthM' | 'storeyHeightM' | 'roofRiseM' | 'wallMaterial' | 'roofMaterial'>

export interface BodyFigures extends Measures {
  kind: 'vehicle' | 'boat'
  words: string
  /** which end is meant by ahead */
  ahead: 'nose' | 'bow' | 'drawbar' | 'kingpin'
}

const METAL = { wallMaterial: 'sheet metal', roofMaterial: 'sheet metal' } as const
const GLASS_FIBRE = { wallMaterial: 'plastic', roofMaterial: 'plastic' } as const
const vehicle = (
  words: string,
  [lengthM, depthM, storeyHeightM]: readonly [number, number, number],
  { ahead = 'nose', of = METAL }: { ahead?: BodyFigures['ahead']; of?: typeof METAL | typeof GLASS_FIBRE } = {},
): BodyFigures => ({ kind: 'vehicle', words, ahead, lengthM, depthM, storeyHeightM, roofRiseM: 0, ...of })

/** Length, width, ground to roof, m. @source common practice (no source) */
export const BODY_FIGURES: Record<Body, BodyFigures> = {
  'van': vehicle('van', [6, 2.05, 2.6]),
  'pick-up': vehicle('pick-up', [5.3, 1.9, 1.85]),
  'box truck': vehicle('box truck', [7.2, 2.2, 3.3]),
  'motorhome': vehicle('motorhome', [7.4, 2.3, 2.9], { of: GLASS_FIBRE }),
  'bus': vehicle('bus', [12, 2.5, 3.4]),
  'caravan': vehicle('caravan', [6.5, 2.3, 2.6], { ahead: 'drawbar' }),
  'travel trailer': vehicle('travel trailer', [8, 2.5, 3.2], { ahead: 'drawbar' }),
  'fifth wheel': vehicle('fifth-wheel trailer', [11, 2.5, 3.9], { ahead: 'kingpin', of: GLASS_FIBRE }),
  'sailing boat': {
    ...{ kind: 'boat', words: 'sailing boat', ahead: 'bow', lengthM: 12, depthM: 3.8, storeyHeightM: 1.8, roofRiseM: 13 },
    ...GLASS_FIBRE,
  },
  'motor boat': {
    ...{ kind: 'boat', words: 'motor boat', ahead: 'bow', lengthM: 10, depthM: 3.4, storeyHeightM: 2.6, roofRiseM: 2 },
    ...GLASS_FIBRE,
  },
}

/** @returns the body of a site; what was measured before bodies were told is a van, or a sailing boat */
export const bodyOf = (site: Pick<Site, 'body'>, kind: 'vehicle' | 'boat'): Body =>
  site.body ?? (kind === 'boat' ? 'sailing boat' : 'van')

/** @returns what changes where a site takes another body: figures that nobody has changed take those usual of it */
export function withBody(site: Site, body: Body, usual: Measures): Partial<Site> {
  const { lengthM, depthM, storeyHeightM, roofRiseM, wallMaterial, roofMaterial } = BODY_FIGURES[body]
  const next: Measures = { lengthM, depthM, storeyHeightM, roofRiseM, wallMaterial, roofMaterial }
  const before: Measures[] = site.body ? [BODY_FIGURES[site.body]] : [usual]
  const untouched = (Object.keys(next) as (keyof Measures)[]).filter(f => before.some(b => b[f] === site[f]))
  return { body, ...Object.fromEntries(untouched.map(f => [f, next[f]])) }
}
