/** What stands on the site judged against the plan: a socket within the lead of each box, and a satellite terminal's sky. */
import { lastOf } from '../sure'
import { injectorsOf } from '../chain/data'
import { sourcesIn, supplyWayOf } from '../chain/supply'
import type { TreeNode } from '../chain/tree'
import { moveSteps } from '../fitting/move'
import { sourcesOf } from './feeds'
import type { Part } from '../job/part'
import { obstaclesHere, toFrame } from '../survey/place'
import type { Fixture } from '../job/schema'
import { fromLocal, roofOver } from '../site/building'
import { between, round2, nearestTo } from '../site/frame'
import type { Point } from '../site/frame'
import { blockerOf, roofBlockers, skyView, windowOf } from '../site/sky'
import type { Blocker, SkyView } from '../site/sky'
import { normalise360, toDeg } from '../geo/angles'
import { num } from '../units'
import { concat, metres, words } from '../words'
import { isLaid } from './context'
import type { Context, Laid } from './context'
import { COMMON } from './finding'
import type { Cure, Draft } from './finding'

export const fixtureDrafts = (c: Context): Draft[] => [...sockets(c), ...skies(c)]

/** Lead of a box's power supply where its maker says nothing, m. @source common practice (no source) */
const LEAD_M = 1.5
/** A box hangs so far over its socket, m. Assumed. */
const OVER_SOCKET_M = 0.5

/** What hangs within the lead of its power supply; data cable and USB reach further. */
const ON_A_LEAD: ReadonlySet<Part['supply']> = new Set([undefined, 'mains', '12 V'])

function sockets(c: Context): Draft[] {
  if (!isLaid(c)) return []
  const { tree } = c
  const batteries = sourcesIn(tree).filter(s => s.part.takes === 'mains')
  return [...tree.amplifiers, ...tree.routers, ...injectorsOf(tree), ...batteries].flatMap((at): Draft[] => {
    const { node, part, name: box } = at
    const supply = part.kind === 'source' ? 'mains' : part.supply
    const planned = supplyWayOf(tree, at)
    // A planned lead is as long as it is; what hangs on a UPS is as far from the wall as that UPS lets it.
    if (planned && supply === '12 V') return []
    const onUps = planned?.parts[0]
    if (onUps) return farFromUps(c, at, onUps)
    const feed = ON_A_LEAD.has(supply) ? nearestTo(node, sourcesOf(c.doc, supply)) : null
    if (!feed) return []
    const { distanceM } = between(node, feed)
    const word = feed.kind === 'mains socket' ? 'socket' : '12 V feed'
    const name = feed.name || `the nearest ${word}`
    if (distanceM <= LEAD_M) return []
    const to = {
      eastM: feed.eastM,
      northM: feed.northM,
      upM: round2(feed.upM + OVER_SOCKET_M),
    }
    return [
      {
        code: 'place.socket',
        subjectId: node.id,
        severity: 'fix',
        title: words`${box} hangs ${metres(distanceM)} from ${name}`,
        sentence:
          feed.kind === 'mains socket'
            ? concat(
                words`Its lead reaches about ${metres(LEAD_M)}. `,
                'The box goes to the socket, or a licensed electrician brings one to it: ',
                'no extension lead for good.',
              )
            : concat(
                words`Its lead reaches about ${metres(LEAD_M)}. `,
                'The box goes to the feed, or a lead of the wire and fuse that Route works out ',
                'goes to it.',
              ),
        because: `straight from the box to the ${word}, against the lead`,
        source: COMMON,
        cures: [
          {
            label: `hang it over ${name}`,
            gain: 'within its lead',
            cost: 'its cables change their lengths',
            enough: true,
            steps: moveSteps(c, [{ table: 'nodes', op: 'update', rowId: node.id, fields: to }]),
          },
        ],
      },
    ]
  })
}

/** A box whose plug does not reach the UPS or the inverter that it is planned on. */
function farFromUps(c: Laid, box: TreeNode, ups: TreeNode): Draft[] {
  const { distanceM } = between(box.node, ups.node)
  if (distanceM <= LEAD_M) return []
  const to = { eastM: ups.node.eastM, northM: ups.node.northM, upM: round2(ups.node.upM + OVER_SOCKET_M) }
  return [
    {
      code: 'place.socket',
      subjectId: box.node.id,
      severity: 'fix',
      title: words`${box.name} hangs ${metres(distanceM)} from ${ups.name}`,
      sentence: words`Its lead reaches about ${metres(LEAD_M)}: the box goes to ${ups.name}, or that to the box.`,
      because: 'straight from the box to what it is plugged into, against the lead',
      source: COMMON,
      cures: [
        {
          label: `hang it over ${ups.name}`,
          gain: 'within its lead',
          cost: 'its cables change their lengths',
          enough: true,
          steps: moveSteps(c, [{ table: 'nodes', op: 'update', rowId: box.node.id, fields: to }]),
        },
      ],
    },
  ]
}

/** Up to here a link drops so seldom that few notice; from here on it does by the hour. Assumed. */
const FREE_SHARE = 0.01
const POOR_SHARE = 0.05
/** An antenna on its pole, as it hides the sky, m across. Assumed. */
const POLE_WIDTH_M = 0.3
/** A skyline of the terrain is taken in steps of this. */
const TERRAIN_STEP_DEG = 5

function skies(c: Context): Draft[] {
  return c.doc.fixtures.filter(f => f.kind === 'satellite terminal').map(f => skyDraft(c, f))
}

/** Everything that hides the sky from a place, in the site frame. */
function blockersAt(c: Context, at: Point, selfId: string): Blocker[] {
  const obstacles = obstaclesHere(c.doc).map((o): Blocker => ({
    name: o.name,
    fromDeg: toFrame(c.doc, o.fromDeg),
    toDeg: toFrame(c.doc, o.toDeg),
    elevationDeg: toDeg(Math.atan2(o.heightM - at.upM, o.distanceM)),
  }))
  const units = c.doc.fixtures
    .filter(f => f.id !== selfId && f.kind === 'roof unit')
    .flatMap(f => blockerOf(f.name || 'a roof unit', at, { ...f, upM: f.upM + (f.heightM ?? 0) }, f.widthM ?? POLE_WIDTH_M) ?? [])
  const antennas = (c.tree?.donors ?? []).flatMap(d => blockerOf(`the ${d.part.shape}`, at, d.node, POLE_WIDTH_M) ?? [])
  return [...obstacles.filter(b => b.elevationDeg > 0), ...units, ...antennas, ...roofBlockers(c.building, at), ...hills(c)]
}

function hills({ doc, horizon }: Context): Blocker[] {
  if (!horizon) return []
  const each = Math.max(1, Math.round((TERRAIN_STEP_DEG * horizon.rays) / 360))
  const out: Blocker[] = []
  for (let r = 0; r < horizon.rays; r += each) {
    const elevationDeg = Math.max(...horizon.elevationDeg.slice(r, r + each).filter(Number.isFinite))
    const at = toFrame(doc, (360 * (r + each / 2)) / horizon.rays)
    const half = (180 * each) / horizon.rays
    if (elevationDeg > 0)
      out.push({ name: 'the hills', fromDeg: normalise360(at - half), toDeg: normalise360(at + half), elevationDeg })
  }
  return out
}

const skyAt = (c: Context, f: Fixture, at: Point): SkyView => skyView(windowOf(f), blockersAt(c, at, f.id))

const percent = (share: number): string => `${num(100 * share, share < 0.1 ? 1 : 0)} %`

function skyDraft(c: Context, f: Fixture): Draft {
  const sky = skyAt(c, f, f)
  const name = f.name || 'The satellite terminal'
  const window = `a window of ${num(2 * windowOf(f).halfFieldDeg)}°${f.halfFieldDeg === null ? ' (assumed: its maker says)' : ''}`
  const hillsToo = c.horizon ? ', and the hills' : '; hills not held here'
  const because = `${window}, against roof, antennas, units and obstacles noted${hillsToo}`
  if (sky.hidden < FREE_SHARE)
    return {
      code: 'place.sky',
      subjectId: f.id,
      severity: 'good',
      title: `${name}: clear sky`,
      sentence: 'Nothing noted stands in the part of the sky it uses. Trees grow: look again each spring.',
      because,
      source: 'solid angle of what is hidden',
    }
  const words = sky.by.slice(0, 2).map(b => `${b.name} ${percent(b.share)}`)
  return {
    code: 'place.sky',
    subjectId: f.id,
    severity: sky.hidden < POOR_SHARE ? 'note' : 'fix',
    title: `${percent(sky.hidden)} of ${f.name ? `${f.name}’s` : 'the terminal’s'} sky is hidden`,
    sentence: `${words.join(', ')}: the link drops for seconds whenever its satellite goes behind, about that share of the time.`,
    because,
    source: 'solid angle of what is hidden; satellites taken as even over the window (assumed)',
    solves: true,
  }
}

const RAISE_STEP_M = 0.5
const MOST_RAISE_M = 4
/** Places over the roof are tried so far apart, and none nearer to its edge, m. */
const PLACE_STEP_M = 1.5
const EDGE_M = 0.5
/** A move worth making hides less than this share of what was hidden. */
const WORTH = 0.6

/** Higher where it stands; elsewhere on the roof at the same height over it. */
export function skyCures(c: Context, fixtureId: string): Cure[] {
  const f = c.doc.fixtures.find(x => x.id === fixtureId)
  if (!f) return []
  const { hidden } = skyAt(c, f, f)
  const out: Cure[] = []
  const raised = Array.from({ length: MOST_RAISE_M / RAISE_STEP_M }, (_, i) => (i + 1) * RAISE_STEP_M).map(up => ({
    up,
    left: skyAt(c, f, { ...f, upM: f.upM + up }).hidden,
  }))
  const clear = raised.find(r => r.left < FREE_SHARE) ?? lastOf(raised)
  if (clear.left < hidden * WORTH)
    out.push({
      label: words`raise it ${metres(clear.up)}`,
      gain: `${percent(clear.left)} hidden`,
      cost: 'a pole, more wind',
      enough: clear.left < FREE_SHARE,
      steps: [{ table: 'fixtures', op: 'update', rowId: f.id, fields: { upM: round2(f.upM + clear.up) } }],
    })
  const roof = roofOver(c.building, f)
  if (roof === null) return out
  const overM = Math.max(0.2, f.upM - roof)
  const [lx, ly] = [c.building.halfLengthM - EDGE_M, c.building.halfDepthM - EDGE_M]
  let best: { at: Point; left: number } | null = null
  for (let x = -lx; x <= lx; x += PLACE_STEP_M)
    for (let y = -ly; y <= ly; y += PLACE_STEP_M) {
      const flat = fromBuilding(c, x, y)
      const top = roofOver(c.building, flat)
      if (top === null) continue
      const at = { ...flat, upM: round2(top + overM) }
      const left = skyAt(c, f, at).hidden
      if (!best || left < best.left - 0.001) best = { at, left }
    }
  if (best && best.left < hidden * WORTH)
    out.push({
      label: words`move it ${metres(between(f, best.at).groundM)} along the roof`,
      gain: `${percent(best.left)} hidden`,
      cost: 'another hole, another cable',
      enough: best.left < FREE_SHARE,
      steps: [{ table: 'fixtures', op: 'update', rowId: f.id, fields: { ...best.at } }],
    })
  return out
}

function fromBuilding(c: Context, x: number, y: number): Pick<Point, 'eastM' | 'northM'> {
  const at = fromLocal(c.building.axisDeg, x, y)
  return { eastM: round2(at.eastM), northM: round2(at.northM) }
}
