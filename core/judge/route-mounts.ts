/** What holds the antennas, judged: the mount, the pole in the wind, its screws, its metals. */
import { lastOf, nth } from '../sure'
import type { AntennaNode } from '../chain/tree'
import { gustOf, metalsOf, mountKind, screwsHold, standing } from '../install/mounts'
import { clampMisfit } from '../install/own-hole'
import { isStruck, travelHeightM } from '../install/striking'
import type { Fixing } from '../job/fixing'
import { round2 } from '../site/frame'
import { num } from '../units'
import { metres, sentenceOf, words } from '../words'
import type { Context } from './context'
import { COMMON } from './finding'
import type { Draft } from './finding'

/** Of what it bears: from here on a mast is told of, though it stands. */
const NEAR_LIMIT = 0.8

export function mountDrafts(c: Context): Draft[] {
  if (!c.tree) return []
  const gust = gustOf(c.site)
  return c.tree.donors.flatMap((at): Draft[] => {
    const { fixing } = at.node
    if (!fixing) return []
    const kind = mountKind(fixing.mount)
    const base = { subjectId: at.node.id }
    const out: Draft[] = []
    if (!kind.kinds.includes(c.job.kind))
      out.push({
        ...base,
        code: 'route.mount',
        severity: 'fix',
        title: `A ${kind.id} is none for a ${c.job.kind}`,
        sentence: `It takes ${kind.takes}.`,
        because: 'where mounts belong',
        source: COMMON,
      })
    if (c.job.kind === 'vehicle' && isStruck(at, c.site))
      out.push({
        ...base,
        code: 'route.strikes',
        severity: 'note',
        title: `${at.name} comes down before it drives`,
        sentence:
          fixing.mount === 'suction cup'
            ? 'Heat, frost and the wind of driving let it go: a line to something fixed even at a standstill.'
            : 'Struck, stowed and its lead coiled inside: on the card, and on the sheet of each stop.',
        because: `a ${fixing.mount} holds while nothing moves`,
        source: COMMON,
      })
    const misfit = clampMisfit(at)
    if (misfit)
      out.push({
        ...base,
        code: 'route.foot',
        severity: 'fix',
        title: `The clamp of ${at.name} does not fit ${num(misfit.throughMm)} mm of roof`,
        sentence:
          misfit.throughMm > misfit.mostMm
            ? 'A longer thread from its maker, or the hole stepped from below so that its nut lies in the inner skin.'
            : 'A plate under the nut that spreads it: so thin a skin gives way.',
        because: `its foot takes ${num(misfit.leastMm, 1)} to ${num(misfit.mostMm)} mm`,
        source: at.part.foot ? 'the part’s own figures' : COMMON,
      })
    const metals = metalsOf(fixing, c.job.kind)
    if (metals && metals.says !== 'good')
      out.push({
        ...base,
        code: 'route.metals',
        severity: metals.says,
        title: `${fixing.metal} on ${fixing.plate}: ${num(metals.apartV, 2)} V apart`,
        sentence:
          metals.says === 'note'
            ? 'A small noble screw in a large plate: greased it lasts, looked at each year.'
            : 'The baser one is eaten where water stands: a pad and a sleeve between, or a screw of the plate’s own kind.',
        because: `up to ${num(metals.mostV, 2)} V is borne in this air; the smaller part decides`,
        source: 'anodic index, MIL-STD-889, from memory',
        cures: [
          {
            label: 'a pad and sleeve between the two',
            gain: 'no current between them',
            cost: 'a pad, a sleeve',
            enough: true,
            steps: [{ table: 'nodes', op: 'update', rowId: at.node.id, fields: { fixing: { ...fixing, parted: true } } }],
          },
        ],
      })
    return kind.pole ? [...out, ...inWind(c, at, fixing, gust)] : out
  })
}

function inWind(c: Context, at: AntennaNode, fixing: Fixing, gust: number): Draft[] {
  const stands = standing(c.tree!, at, fixing, gust)
  const base = { subjectId: at.node.id, because: `gust of ${num(gust)} m/s${c.site.gustMs === null ? ', assumed' : ''}` }
  const source = 'EN 1991-1-4 and TIA-222 force coefficients; cantilever; 0.6 of the yield borne'
  if ('refused' in stands)
    return [
      {
        ...base,
        code: 'route.mast',
        severity: 'note',
        title: 'The pole in the wind: no verdict',
        sentence: sentenceOf(stands.refused),
        source,
      },
    ]
  const { worst } = stands
  const section = stands.sections.length > 1 ? `section ${stands.sections.indexOf(worst) + 1}, ` : ''
  const out: Draft[] = []
  if (worst.used === null)
    out.push({
      ...base,
      code: 'route.mast',
      severity: 'note',
      title: 'The pole in the wind: no verdict',
      sentence: `${num(worst.momentNm)} N·m at its fixing, ${num(worst.stressMPa)} MPa; what it is made of is not known.`,
      source,
    })
  else if (worst.used > NEAR_LIMIT) {
    const down = `Taken down, or its top section left in, above ${num(worst.mostGustMs!)} m/s`
    const shorter = stands.shorterGustMs === null ? '' : `; with the thinnest left in it stands ${num(stands.shorterGustMs)} m/s`
    out.push({
      ...base,
      code: 'route.mast',
      severity: worst.used > 1 ? 'fix' : 'note',
      title: `The pole bears ${num(100 * worst.used)} % of what it may`,
      sentence: `${section}Ø ${num(worst.outsideMm)} × ${num(worst.wallMm, 1)} mm: ${num(worst.stressMPa)} MPa. ${down}${shorter}.`,
      source,
      cures:
        worst.used > 1 && fixing.sections.length > 1
          ? [
              {
                label: 'leave the top section in',
                gain: `stands ${num(stands.shorterGustMs ?? 0)} m/s`,
                cost: words`${metres(lastOf(fixing.sections).lengthM)} lower`,
                enough: (stands.shorterGustMs ?? 0) >= gust,
                steps: [
                  {
                    table: 'nodes',
                    op: 'update',
                    rowId: at.node.id,
                    fields: {
                      upM: round2(at.node.upM - lastOf(fixing.sections).lengthM),
                      fixing: { ...fixing, sections: fixing.sections.slice(0, -1) },
                    },
                  },
                ],
              },
            ]
          : [],
    })
  }
  const holds = screwsHold(fixing, Math.max(nth(stands.sections, 0).upperN, nth(stands.sections, 0).lowerN))
  if ('used' in holds && holds.used > 1)
    out.push({
      ...base,
      code: 'route.screws',
      severity: 'fix',
      title: `The screws hold ${num(holds.holdsN)} N, the wind pulls ${num(holds.pullsN)} N`,
      sentence: 'Longer or thicker ones, more of them, or fixings further apart.',
      source: fixing.screw === 'anchor' ? 'a quarter of the maker’s ultimate load' : 'NDS 12.2',
    })
  if (stands.ballastKg !== null && (fixing.ballastKg ?? 0) < stands.ballastKg)
    out.push({
      ...base,
      code: 'route.ballast',
      severity: 'fix',
      title: `The tripod wants ${num(stands.ballastKg)} kg, it has ${num(fixing.ballastKg ?? 0)} kg`,
      sentence: 'Slabs on a mat; what the roof bears is its owner’s to say.',
      source: 'moment over the edge it would tip on, held by half as much again',
    })
  return out
}

/** How high a vehicle is afterwards, m. */
export const vehicleHeightM = ({ building, tree, site }: Pick<Context, 'tree' | 'building' | 'site'>): number | null =>
  building.kind === 'vehicle' && tree ? travelHeightM(tree, site, building.eavesM) : null
