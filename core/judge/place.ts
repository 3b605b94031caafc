/** Place judged: do the antennas hear each other, do the cables reach, may the holes be drilled. */
import { isCable } from '../chain/tree'
import { movesAbout } from '../job/schema'
import { RULE_OF_THUMB } from '../separation/rule-of-thumb'
import { meetsRuleOfThumb, servedShare } from '../separation/isolation'
import type { Loop, Pair } from '../separation/loop'
import { WINDOW_LEAD } from '../fitting/adapters'
import { spliceInto } from '../fitting/splice'
import { inside, surfacesBetween } from '../site/building'
import type { Joint, Tree } from '../chain/tree'
import { num } from '../units'
import { concat, listed, metres, words } from '../words'
import { fixtureDrafts } from './fixtures'
import { lengthDrafts } from './lengths'
import { exposureDrafts, placingDrafts } from './placing'
import { isLaid, isWorked } from './context'
import { serviceDrafts } from './services'
import type { Context, Worked } from './context'
import { COMMON, finding } from './finding'
import type { Draft, Finding } from './finding'

export function placeFindings(c: Context): Finding[] {
  const site = [...fixtureDrafts(c), ...(isLaid(c) ? serviceDrafts(c) : [])]
  if (!isWorked(c)) return site.map(d => finding('place', d))
  const drafts = [
    ...site,
    ...c.main.loops.flatMap(loopDrafts),
    ...c.lengths.flatMap(l => lengthDrafts(c, l)),
    ...drilling(c),
    ...placingDrafts(c),
    ...exposureDrafts(c),
  ]
  return drafts.map(d => finding('place', d))
}

/** A maker's separation is kept up or along. */
const keepsEither = (w: Pair, { upM, alongM }: { upM?: number; alongM?: number }): boolean =>
  (upM !== undefined && w.upM >= upM) || (alongM !== undefined && w.alongM >= alongM)

/** What stands between two antennas, in words: `tiles and a timber floor`. */
export function betweenWords(loop: Loop): string {
  const names = loop.worst.crossings.map(x => x.material)
  if (!names.length) return 'nothing between'
  const counted = [...new Set(names)].map(n => {
    const k = names.filter(m => m === n).length
    return k > 1 ? `${k} × ${n}` : n
  })
  return `${counted.join(', ')} between`
}

/** A figure in force is doubted from here on, dB: one and a half times what the sum is good to. */
const DOUBT_DB = 9

/** @returns why another figure than the sum is believed; null where the sum is */
function believedWords(w: Pair): string | null {
  if (w.inForce === 'computed') return null
  const words = { quick: 'the quick rule', maker: 'the maker’s figure', measured: 'measured on site' }[w.inForce]
  return `${words}${w.entered?.reason ? `: ${w.entered.reason}` : ''}; the sum says ${num(w.computedDb)} dB`
}

/** A sum within its own uncertainty of what is needed is not stable: what that may cost, or that it may not run at all. */
function steadyWords(loop: Loop, what: string): Pick<Draft, 'severity' | 'title' | 'sentence' | 'solves'> {
  if (loop.isSure) return { severity: 'good', title: 'Stable', sentence: `${what}.` }
  const spareDb = loop.isolationDb - loop.neededDb
  const mayLackDb = loop.uncertainDb - spareDb
  const { part } = loop.at
  const sum = `${what}: ${num(spareDb, 1)} dB to spare, and the sum is good to ±${num(loop.uncertainDb)}`
  if (part.lowestGainDb < part.gainDb)
    return {
      severity: 'note',
      title: `It runs; up to ${num(mayLackDb)} dB may be held back`,
      sentence:
        `${sum}. It lowers its own gain then, and ${num(100 * servedShare(mayLackDb))} % of the area stays served. ` +
        'The dry run shows it.',
      solves: true,
    }
  return {
    severity: 'fix',
    title: 'Not sure to run',
    sentence: `${sum}. It does not lower its gain: where ${num(mayLackDb)} dB are missing it shuts down.`,
    solves: true,
  }
}

function loopDrafts(loop: Loop): Draft[] {
  const out: Draft[] = []
  const w = loop.worst
  const id = loop.at.node.id
  const what =
    `${num(loop.isolationDb)} dB isolation of ${num(loop.neededDb)} needed (gain ` +
    `${num(loop.at.part.gainDb)} + margin ${num(loop.marginDb)})`
  const by = believedWords(w)
  const because =
    by ??
    concat(
      words`free space over ${metres(w.distanceM)}, both patterns, ${betweenWords(loop)}, `,
      `${num(w.linesDb, 1)} dB in cables${loop.pairs.length > 1 ? `; ${loop.pairs.length} pairs together` : ''}`,
    )
  const source = 'ITU-R P.525, P.2040; scattered way 25 dB (assumed), ±6 dB until measured'
  out.push(
    loop.state === 'stable'
      ? { code: 'place.loop', subjectId: id, ...steadyWords(loop, what), because, source }
      : {
          code: 'place.loop',
          subjectId: id,
          severity: loop.state === 'oscillating' ? 'stop' : loop.heldBackDb < 1 ? 'note' : 'fix',
          title: loop.state === 'oscillating' ? 'It will oscillate' : `Gain held back by ${num(loop.heldBackDb)} dB`,
          sentence: `Donor and inside antenna hear each other: ${what}.`,
          because,
          source,
          solves: true,
        },
  )
  if (w.inForce !== 'computed' && Math.abs(w.isolationDb - w.computedDb) > DOUBT_DB)
    out.push({
      code: 'place.isolation-differs',
      subjectId: id,
      severity: 'note',
      title: `${num(Math.abs(w.isolationDb - w.computedDb))} dB apart from the sum`,
      sentence:
        `In force is ${num(w.isolationDb)} dB, the sum says ${num(w.computedDb)}: ` +
        'a material, a facing or a distance is not as drawn.',
      because: 'the sum is good to ±6 dB until measured',
      source: COMMON,
    })
  if (!meetsRuleOfThumb(w.alongM, w.upM))
    out.push({
      code: 'place.thumb',
      subjectId: id,
      severity: 'note',
      title: 'Closer than the rule of thumb',
      sentence: concat(
        words`${metres(w.upM)} up and ${metres(w.alongM)} along; fitters keep ${metres(RULE_OF_THUMB.upM)} up `,
        words`or ${metres(RULE_OF_THUMB.alongM)} along.`,
      ),
      because: loop.isSure ? 'the sum says it is stable all the same: prove it in the dry run' : 'the sum agrees: it is not sure',
      source: COMMON,
    })
  const wants = loop.at.part.separation
  if (wants && (w.upM < (wants.upM ?? 0) || w.alongM < (wants.alongM ?? 0)) && !keepsEither(w, wants))
    out.push({
      code: 'place.maker',
      subjectId: id,
      severity: loop.isSure ? 'note' : 'fix',
      title: 'Closer than its maker wants',
      sentence: concat(
        words`${metres(w.upM)} up and ${metres(w.alongM)} along; ${loop.at.name} wants `,
        words`${listed(
          [
            ...(wants.upM ? [words`${metres(wants.upM)} up`] : []),
            ...(wants.alongM ? [words`${metres(wants.alongM)} along`] : []),
          ],
          ' or ',
        )}.`,
      ),
      because: 'its maker’s separation',
      source: 'the part’s data',
    })
  if (!w.farField)
    out.push({
      code: 'place.near',
      subjectId: id,
      severity: 'note',
      title: 'Too close for the formula',
      sentence:
        'Under three wavelengths along and one up, or within the antennas’ own near field, the sum is a guess: try it loose first.',
      because: 'patterns and free space hold in the far field, from 2D²/λ',
      source: COMMON,
    })
  return out
}

/** Cables that go through the shell of the site where nothing may be drilled, and no way in that is there takes them. */
function drilling(c: Worked): Draft[] {
  if (c.job.mayDrill !== 'no') return []
  const holes = holesOf(c)
  if (!holes.length) return []
  const shell = c.job.kind === 'vehicle' ? 'body' : c.job.kind === 'boat' ? 'deck' : 'wall'
  return [
    {
      code: 'place.drill',
      subjectId: c.design.id,
      severity: 'fix',
      title: `Nothing may be drilled, and ${count(holes.length)} through the ${shell}`,
      sentence:
        `${count(holes.length, true)} planned through a ${shell} that must stay whole: a flat lead through a window, ` +
        'a vent or hatch that is there, or the modem at the window.',
      because: 'asked in Ask: no',
      source: COMMON,
      cures: !movesAbout(c.job.kind)
        ? [
            {
              label: 'flat leads through a window',
              gain: 'no hole',
              cost: '−0.9 dB each',
              enough: true,
              steps: holes.flatMap((j, i) =>
                spliceInto(j, WINDOW_LEAD, { at: atWall(c, j), firstM: j.run.lengthM / 2, n: i + 1 }),
              ),
            },
          ]
        : [],
    },
  ]
}

const count = (n: number, capital = false): string => (n === 1 ? `${capital ? 'One' : 'one'} cable is` : `${n} cables are`)

/** Cables, and leads fixed to an antenna, that go through the shell of the site. */
export const holesOf = (c: Pick<Worked, 'tree' | 'building'>): Joint[] => c.tree.joints.filter(j => needsHole(c, j))

/** A dome's lead goes up through the ceiling. */
export const ceilingHoles = (tree: Pick<Tree, 'servers'>): number => tree.servers.filter(s => s.part.shape === 'dome').length

function needsHole(c: Pick<Context, 'building'>, j: Joint): boolean {
  if (!isCable(j)) return false
  const lead = (id: string) => id.startsWith(WINDOW_LEAD)
  if (lead(j.from.at.node.partId) || lead(j.to.at.node.partId)) return false
  return inside(c.building, j.from.at.node) !== inside(c.building, j.to.at.node)
}

function atWall(c: Worked, j: Joint): { eastM: number; northM: number; upM: number } {
  const [a, b] = [j.from.at.node, j.to.at.node]
  const t = surfacesBetween(c.building, a, b, c.main.carrier.frequencyMHz).find(x => x.kind === 'outer wall')?.at ?? 0.5
  return {
    eastM: a.eastM + t * (b.eastM - a.eastM),
    northM: a.northM + t * (b.northM - a.northM),
    upM: Math.min(1.2, Math.max(a.upM, b.upM)),
  }
}
