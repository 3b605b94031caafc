/** The usual kit of each approach, laid out on the site: every part of it can then be changed. */
import { lastOf, nth, sure } from '../sure'
import { jobOf, movesAbout, siteOf } from '../job/schema'
import { partById, partOfKind, PARTS } from '../catalogue/parts'
import { portsWith } from '../chain/data'
import { poeClassFor } from '../chain/poe'
import { changesOf } from '../job/edits'
import type { Maker } from '../job/defaults'
import type { AntennaPart, LinePart, Part, PassingPart } from '../job/part'
import type { Change, Design, JobDocument, JobKind, Site, Use } from '../job/schema'
import { RULE_OF_THUMB } from '../separation/rule-of-thumb'
import { axisSign, ridgeM, round2 } from '../site/frame'
import { USE_FIGURES } from '../site/use'
import { WINDOW_LEAD } from './adapters'
import { ceilingPlaces, fan, Layer, UNDER_CEILING_M, wholeFloor } from './layer'
import type { PartChoice } from './layer'
import { PAIR_APART_M } from './pair'
import { hasFoot, onRoofM } from './seat'

/** Spreaders stand about three fifths up the mast. @source common practice (no source) */
export const spreadersM = (site: Pick<Site, 'storeys' | 'storeyHeightM' | 'roofRiseM'>): number =>
  round2(site.storeys * site.storeyHeightM + 0.6 * site.roofRiseM)

/** Domes of a usual kit's floor, and floors it reaches: beyond that a design is drawn, not laid out. */
const MOST_DOMES = 16
const MOST_FLOORS = 4

/**
 * What is laid out at a press: a router inside, one outdoors behind its antenna, one at the window, a stick with a small
 * antenna; a booster, one that feeds a router by air, or an extender of two units that stays indoors.
 */
export type Kit = 'router' | 'outdoors' | 'window' | 'stick' | 'booster' | 'booster and router' | 'extender'

/** The least pad that takes so much away, else the largest, dB. */
export function padFor(overDb: number): PassingPart {
  const pads = PARTS.filter((p): p is PassingPart => p.kind === 'pad').sort((x, y) => x.lossDb - y.lossDb)
  return pads.find(p => p.lossDb >= overDb) ?? lastOf(pads)
}

/**
 * Lays out the usual kit: antenna on the mast-side gable, an arrestor for every down-lead at
 * the entrance, router or amplifier inside, domes in the ceilings; aboard, an omni on the roof or at the
 * spreaders and the box below it. What the design held before is removed.
 *
 * @param bearingDeg  of the mast in the site frame
 * @param choice  parts in the place of the usual ones
 */
export function kitChanges(
  doc: JobDocument,
  design: Design,
  kit: Kit,
  { bearingDeg, newId, choice = {} }: { bearingDeg: number | null; newId: Maker; choice?: PartChoice },
): Change[] {
  const site = siteOf(doc)
  const { kind, rules, mayDrill } = jobOf(doc)
  const ashore = !movesAbout(kind)
  const approach: Design['approach'] = boosts(kit) ? 'booster' : 'router'
  const changes: Change[] = emptied(doc, design, newId)
  changes.push({
    id: newId(),
    table: 'designs',
    rowId: design.id,
    op: 'update',
    baseVersion: design.version ?? 0,
    fields: { approach },
  })
  const lay = new Layer(doc, design, ashore ? axisSign(site, bearingDeg) : 1, kit === 'stick' ? { ...STICK, ...choice } : choice)
  const american = rules === 'US'
  if (!ashore) layAboard(lay, site, approach, american)
  else if (kit === 'outdoors') layOutdoors(lay, site, american)
  else if (kit === 'window') layWindow(lay, site, american)
  else if (kit === 'extender') layExtender(lay, site)
  else if (approach === 'router') layRouter(lay, site, american, mayDrill === 'no')
  else if (kind === 'home') layHomeBooster(lay, site, american, mayDrill === 'no')
  else layBuilding(lay, site, american)
  if (kit === 'booster and router') layByAir(lay, ashore)
  lay.supply()
  return [...changes, ...changesOf(lay.steps, newId)]
}

/** @returns changes that take out all that a design holds */
export function emptied(doc: JobDocument, design: Design, newId: Maker): Change[] {
  const gone = (table: 'nodes' | 'runs', rows: readonly { id: string; designId: string; version?: number }[]): Change[] =>
    rows
      .filter(r => r.designId === design.id)
      .map(r => ({ id: newId(), table, rowId: r.id, op: 'delete', baseVersion: r.version ?? 0, fields: {} }))
  return [...gone('runs', doc.runs), ...gone('nodes', doc.nodes)]
}

/** Whether a kit repeats for phones, rather than feeding a modem by cable. */
export const boosts = (kit: Kit): boolean => kit === 'booster' || kit === 'booster and router' || kit === 'extender'

/** Where the down-lead comes in: outside the mast-side wall, within reach of the ground. */
const entrance = (site: Site) => ({ x: -site.lengthM / 2 - 0.15, upM: 1.2 })
const mountM = (site: Site): number => Math.max(site.storeys * site.storeyHeightM + 1.6, ridgeM(site) - 0.4)

/** A pole that is easily had reaches so far over the roof's top, m. @source common practice (no source) */
const OVER_ROOF_M = 1.2
/** Over an inside antenna by the rule of thumb where the roof lets it; where it does not, a finding says by how much not. */
const mountOver = (site: Site, serverM: number): number =>
  round2(Math.max(mountM(site), Math.min(serverM + RULE_OF_THUMB.upM + 0.05, ridgeM(site) + OVER_ROOF_M)))

/** Arrestor of a line's own plugs and impedance. */
const arrestorFor = (line: LinePart | undefined): string =>
  line?.impedanceOhm === 75 ? 'arr-gas-f' : line?.ends === 'SMA' ? 'arr-gas-sma' : 'arr-gas'
const windowLeadFor = (line: LinePart | undefined): string => (line?.impedanceOhm === 75 ? `${WINDOW_LEAD}-f` : WINDOW_LEAD)

/** Feeds of the outside antenna, one for each branch of the box: a pair of single ones where one antenna has not enough. */
function feedsFor(
  lay: Layer,
  box: string,
  usual: string,
  { x, upM }: { x: number; upM: number },
): [antenna: string, port: string, branch: string][] {
  const branches = portsWith(lay.part(box), 'cell')
  const antenna = lay.choice.antenna ?? sure(partOfKind(usual, 'antenna'))
  const own = portsWith(antenna, 'feed')
  const wanted = Math.min(branches.length, Math.max(2, own.length))
  const copies = own.length === 1 ? wanted : 1
  const nodes = Array.from({ length: copies }, (_, i) =>
    lay.node(antenna, x, upM, copies > 1 ? (i - (copies - 1) / 2) * PAIR_APART_M : 0),
  )
  return branches.slice(0, copies > 1 ? copies : Math.min(wanted, own.length)).map((branch, i) => {
    const port = nth(own, copies > 1 ? 0 : i)
    return [nth(nodes, copies > 1 ? i : 0), port.id, branch.id]
  })
}

function layRouter(lay: Layer, site: Site, american: boolean, windowOnly: boolean): void {
  const half = site.lengthM / 2
  const at = entrance(site)
  const router = lay.node(lay.choice.box ?? (american ? 'rtr-na-2' : 'rtr-2'), -half + 1.6, 1.1)
  const line = lay.choice.line ?? 'line-400'
  const inner = lay.choice.inner ?? lay.choice.line ?? 'line-240'
  for (const [i, [antenna, feed, branch]] of feedsFor(lay, router, 'ant-panel-x', {
    x: -half + 0.4,
    upM: mountM(site),
  }).entries()) {
    const aside = 0.25 * i
    const arrestor = lay.node(arrestorFor(lay.choice.line), at.x, at.upM, aside)
    lay.feed(antenna, feed, { to: arrestor, toPort: 'in', what: line })
    if (windowOnly) {
      const flat = lay.node(windowLeadFor(lay.choice.line), at.x + 0.1, at.upM, aside)
      lay.run(lay.run(arrestor, 'out', { to: flat, toPort: 'in', what: inner }), 'out', {
        to: router,
        toPort: branch,
        what: inner,
      })
    } else lay.run(arrestor, 'out', { to: router, toPort: branch, what: inner })
  }
}

/** @returns the smallest injector that feeds a box at the end of 100 m, by the kind of power that it asks for */
export function injectorFor(box: Part): string {
  if (box.supply === 'passive PoE') return 'inj-passive'
  const sourceW = poeClassFor(box.powerW ?? USUAL_POE_W)?.sourceW ?? Infinity
  return sourceW <= 15.4 ? 'inj-poe' : sourceW <= 30 ? 'inj-poe-plus' : 'inj-poe-4'
}
/** What a box over PoE takes where its maker says nothing, W. Assumed: the whole of class 3. */
const USUAL_POE_W = 12.95

/** The modem outdoors behind its antenna, Ethernet and power down one lead: no radio cable but the short ones at the pole. */
function layOutdoors(lay: Layer, site: Site, american: boolean): void {
  const x = -site.lengthM / 2 + 0.4
  const upM = mountM(site)
  const router = lay.node(lay.choice.box ?? (american ? 'rtr-na-out' : 'rtr-out'), x, upM - 0.6)
  for (const [antenna, feed, branch] of feedsFor(lay, router, 'ant-panel-x', { x, upM }))
    lay.feed(antenna, feed, { to: router, toPort: branch, what: lay.choice.line ?? 'line-240' })
  const at = entrance(site)
  const arrestor = lay.node('arr-data', at.x, at.upM)
  const injector = lay.bySocket(injectorFor(lay.part(router)), -site.lengthM / 2 + 0.6, 0.6)
  lay.run(router, 'lan1', { to: arrestor, toPort: 'in', what: 'data-6-out' })
  lay.run(arrestor, 'out', { to: injector, toPort: 'out', what: 'data-6-out' })
}

/** A stick and what its one small socket bears: one feed, no weight. */
const STICK: PartChoice = { box: partOfKind('rtr-stick', 'router'), antenna: partOfKind('ant-panel-wide', 'antenna') }

/** Inside, before the pane of the mast-side wall, m. */
const AT_PANE = { insideM: 0.35, upM: 1.4 }

/** The router at the window that faces the mast, on a panel that stands there: no hole, no cable outdoors. */
function layWindow(lay: Layer, site: Site, american: boolean): void {
  const x = -site.lengthM / 2 + AT_PANE.insideM
  const router = lay.node(lay.choice.box ?? (american ? 'rtr-na-2' : 'rtr-2'), x + 0.4, 1)
  for (const [antenna, feed, branch] of feedsFor(lay, router, 'ant-window', { x, upM: AT_PANE.upM }))
    lay.feed(antenna, feed, { to: router, toPort: branch, what: lay.choice.line ?? 'line-195' })
}

/** A unit at the window hears, one in the room says it again, and a data cable carries it between them. */
function layExtender(lay: Layer, site: Site): void {
  const half = site.lengthM / 2
  const donor = lay.node(lay.choice.antenna ?? 'ant-extender', -half + AT_PANE.insideM, AT_PANE.upM)
  const room = Math.min(half - 0.6, -half + AT_PANE.insideM + EXTENDED_M)
  const amplifier = lay.node(lay.choice.box ?? 'amp-extender', room, 1.2)
  const own = lay.node(lay.choice.inside ?? 'ant-extender-room', room + 0.15, 1.3)
  lay.run(donor, '1', { to: amplifier, toPort: 'donor', what: 'data-6' })
  lay.screw(own, '1', amplifier, 'server')
}
/** Units of an extender stand so far apart, m. @source common practice (no source) */
const EXTENDED_M = 8

/** The router stands by the first inside antenna and hears it by antennas of its own. */
function layByAir(lay: Layer, ashore: boolean): void {
  const beside = lay.besideInside(BY_AIR_M)
  if (!beside) return
  const upM = ashore ? Math.max(0.8, beside.upM - BELOW_M) : beside.upM
  lay.at(sure(partById(ashore ? 'rtr-2' : 'rtr-mini')), { ...beside, upM })
}
/** So far from the antenna that it hears: near enough to be loud, far enough not to overload it, m. @source common practice (no source) */
const BY_AIR_M = 1.5
const BELOW_M = 1.4

function layHomeBooster(lay: Layer, site: Site, american: boolean, windowOnly: boolean): void {
  const half = site.lengthM / 2
  const at = entrance(site)
  const line = lay.choice.line ?? 'line-400'
  const domeM = site.storeyHeightM - 0.15
  const antenna = lay.node(lay.choice.antenna ?? 'ant-lpda', -half + 0.4, mountOver(site, domeM))
  const arrestor = lay.node(arrestorFor(lay.choice.line), at.x, at.upM)
  const amplifier = lay.node(lay.choice.box ?? (american ? 'amp-na-home' : 'amp-home'), -half + 1.6, 1.3)
  const dome = lay.node(lay.choice.inside ?? 'ant-dome', 0.6, domeM)
  lay.feed(antenna, '1', { to: arrestor, toPort: 'in', what: line })
  if (windowOnly) {
    const flat = lay.node(windowLeadFor(lay.choice.line), at.x + 0.1, at.upM)
    lay.toDonor(lay.run(arrestor, 'out', { to: flat, toPort: 'in', what: line }), 'out', amplifier, line)
  } else lay.toDonor(arrestor, 'out', amplifier, line)
  lay.run(amplifier, 'server', { to: dome, toPort: '1', what: lay.choice.inner ?? line })
}

/** A riser at the mast's end: the amplifier on the top floor, a splitter in it, and on each floor its domes by a splitter of their own. */
function layBuilding(lay: Layer, site: Site, american: boolean): void {
  const half = site.lengthM / 2
  const roofM = lay.ceilingM(site.storeys - 1) + UNDER_CEILING_M
  const antenna = lay.node(lay.choice.antenna ?? 'ant-lpda', -half + 0.6, roofM + 2.2)
  const arrestor = lay.node('arr-gas', -half + 0.3, roofM + 0.4)
  const riser = -half + 2
  const top = site.storeys - 1
  const amplifier = lay.node(lay.choice.box ?? (american ? 'amp-na-building' : 'amp-building'), riser, lay.wallM(top))
  lay.run(antenna, '1', { to: arrestor, toPort: 'in', what: 'line-400' })
  lay.toDonor(arrestor, 'out', amplifier, 'line-400')
  const floors = Math.min(site.storeys, MOST_FLOORS)
  const feedOf = fan(lay, [amplifier, 'server'], floors, { alongM: riser, upM: i => lay.ceilingM(top - i) - 0.5 })
  for (let f = 0; f < floors; f++) {
    const level = top - f
    const places = ceilingPlaces(wholeFloor(site), Math.min(MOST_DOMES, antennasByRule(site, lay.useOf(level)).most))
    const floorFeed = fan(lay, feedOf(f), places.length, { alongM: riser + 1, upM: () => lay.ceilingM(level) })
    for (const [i, at] of places.entries()) {
      const dome = lay.node(lay.choice.inside ?? 'ant-dome', at.alongM, lay.ceilingM(level), at.acrossM)
      const [from, out] = floorFeed(i)
      lay.run(from, out, { to: dome, toPort: '1', what: 'line-400' })
    }
  }
}

/** @returns how many ceiling antennas a floor takes by the rule: one for 140 m² at least, at most as close as its use asks for */
export function antennasByRule(site: Pick<Site, 'lengthM' | 'depthM'>, use: Use): { least: number; most: number } {
  const areaM2 = site.lengthM * site.depthM
  return { least: Math.max(1, Math.round(areaM2 / WIDEST_M2)), most: Math.max(1, Math.ceil(areaM2 / USE_FIGURES[use].areaM2)) }
}
const WIDEST_M2 = Math.max(...Object.values(USE_FIGURES).map(u => u.areaM2))

/** A bull bar's bracket: before the nose, so high over the road, m. Assumed. */
const BULL_BAR = { aheadM: 0.1, upM: 1.1 }

/** A whip on a bracket stands at the front; what is bolted or held by a magnet stands on the roof. */
function placeAboard(kind: JobKind, site: Site, antenna: AntennaPart | undefined, over: { x: number; upM: number }) {
  if (kind !== 'vehicle' || !antenna) return over
  if (/bracket/.test(antenna.mount ?? '') && /bolt/.test(antenna.mount ?? ''))
    return { x: site.lengthM / 2 + BULL_BAR.aheadM, upM: BULL_BAR.upM }
  return hasFoot(antenna) ? { ...over, upM: onRoofM(site) } : over
}

function layAboard(lay: Layer, site: Site, approach: Design['approach'], american: boolean): void {
  const boat = lay.kind === 'boat'
  const roofM = site.storeys * site.storeyHeightM
  const upM = boat ? spreadersM(site) : roofM + 0.25
  const x = boat ? 0.05 * site.lengthM : -0.15 * site.lengthM
  const boxM = boat ? site.storeyHeightM * 0.6 : site.storeyHeightM * 0.72
  const boxAt = x - (boat ? 0.2 : 0.08) * site.lengthM
  const line = lay.choice.line ?? 'line-240'
  if (approach === 'router') {
    // Aboard a box runs on what the battery gives.
    const router = lay.node(lay.choice.box ?? (american ? 'rtr-na-4' : 'rtr-mobile-2'), boxAt, boxM)
    const at = placeAboard(lay.kind, site, lay.choice.antenna, { x, upM })
    for (const [antenna, feed, branch] of feedsFor(lay, router, 'ant-omni-x', { x: at.x, upM: at.upM }))
      lay.feed(antenna, feed, { to: router, toPort: branch, what: line })
    lay.byRole(router)
    return
  }
  const at = placeAboard(lay.kind, site, lay.choice.antenna, { x, upM })
  const antenna = lay.node(lay.choice.antenna ?? 'ant-omni', at.x, at.upM)
  const amplifier = lay.node(lay.choice.box ?? (american ? 'amp-na-mobile' : 'amp-mobile'), boxAt, boxM)
  const panel = lay.node(lay.choice.inside ?? 'ant-panel-in', x + 0.35 * site.lengthM, boxM)
  lay.toDonor(antenna, '1', amplifier, line)
  lay.feed(amplifier, 'server', { to: panel, toPort: '1', what: lay.choice.inner ?? 'line-195' })
}
