/** The materials a building, a skin or a sheet may be of; what they take stands in `site/materials.ts`. */
export const MATERIAL_IDS = [
  'open',
  'plasterboard',
  'timber',
  'brick',
  'block',
  'concrete',
  'reinforced concrete',
  'timber floor',
  'tiles',
  'sheet metal',
  'foil',
  'glass',
  'coated glass',
  'plastic',
] as const
export type MaterialId = (typeof MATERIAL_IDS)[number]
