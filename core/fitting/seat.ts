/** An antenna with a foot stands on the skin of a vehicle, not over it. */
import type { Part } from '../job/part'
import type { Job, Node, Site } from '../job/schema'
import { round2 } from '../site/frame'

/** What a gasket and a foot lift it, m. Assumed. */
const GASKET_M = 0.02
/** So far under or over a roof a part counts as standing on it, m. Assumed. */
const NEAR_M = 0.6

/** @returns whether it is bolted through the skin or held to it by a magnet */
export const hasFoot = ({ mount = '' }: Pick<Part, 'mount'>): boolean => /bolt through|magnet/.test(mount)

/** @returns how high a foot on the roof puts an antenna, m */
export const onRoofM = (site: Pick<Site, 'storeys' | 'storeyHeightM'>): number =>
  round2(site.storeys * site.storeyHeightM + GASKET_M)

/** @returns the height of a part that is taken in the place of another: on the roof where it has a foot and the other stood there */
export function seated(
  { job, site }: { job: Pick<Job, 'kind'>; site: Pick<Site, 'storeys' | 'storeyHeightM'> },
  node: Pick<Node, 'upM'>,
  part: Part,
): { upM?: number } {
  if (job.kind !== 'vehicle' || part.kind !== 'antenna' || !hasFoot(part)) return {}
  const upM = onRoofM(site)
  return Math.abs(node.upM - upM) <= NEAR_M ? { upM } : {}
}
