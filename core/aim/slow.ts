/** A slow turn without a stop: what is heard on the way is gathered by sectors, and each sector passed becomes one step. */
import { entryOf, nth } from '../sure'
import { circularMean, normalise360, turn } from '../geo/angles'
import { inRange, positive } from '../check'
import { median } from '../survey/stats'
import type { SweepStep } from './sweep'

/** Fewer in a sector than this say nothing: it was passed too fast. */
export const LEAST_IN_SECTOR = 3
/** Shares of the beam; and bounds, as a hand turns and a compass tells, degrees. */
const SECTORS_A_BEAM = 6
const [NARROWEST_DEG, WIDEST_DEG] = [4, 15]
/** The last samples that tell how fast it turns. */
const SPEED_SAMPLES = 20

/** @returns width of a sector for a beam, degrees: whole sectors fill the circle */
export function sectorFor(beamwidthDeg: number): number {
  const wanted = Math.min(WIDEST_DEG, Math.max(NARROWEST_DEG, positive('beamwidthDeg', beamwidthDeg) / SECTORS_A_BEAM))
  return 360 / Math.ceil(360 / wanted)
}

export class SlowTurn {
  private readonly open = new Map<number, { headings: number[]; values: number[] }>()
  private recent: { headingDeg: number; atMs: number }[] = []
  private readonly passed = new Set<number>()
  /** sectors that were left with too few */
  private readonly hurried = new Set<number>()
  private readonly count: number

  constructor(readonly sectorDeg: number) {
    this.count = Math.round(360 / positive('sectorDeg', sectorDeg))
  }

  /** @returns the steps of sectors that are left behind, where enough was heard in them */
  add(headingDeg: number, value: number, atMs: number): SweepStep[] {
    inRange('value', value, -1e6, 1e6)
    const at = normalise360(headingDeg)
    this.recent = [...this.recent, { headingDeg: at, atMs }].slice(-SPEED_SAMPLES)
    const sector = Math.floor(at / this.sectorDeg) % this.count
    const held = this.open.get(sector) ?? { headings: [], values: [] }
    held.headings.push(at)
    held.values.push(value)
    this.open.set(sector, held)
    // The sector next to this one stays open: a compass wavers across the line between them.
    const behind = [...this.open.keys()].filter(k => Math.min(Math.abs(k - sector), this.count - Math.abs(k - sector)) > 1)
    return behind.flatMap(k => this.close(k) ?? [])
  }

  /** The turn ends here. @returns the steps of the sectors under way */
  end(): SweepStep[] {
    return [...this.open.keys()].flatMap(k => this.close(k) ?? [])
  }

  private close(sector: number): SweepStep | null {
    const { headings, values } = entryOf(this.open, sector)
    this.open.delete(sector)
    if (values.length < LEAST_IN_SECTOR) {
      if (!this.passed.has(sector)) this.hurried.add(sector)
      return null
    }
    this.passed.add(sector)
    this.hurried.delete(sector)
    return { headingDeg: circularMean(headings).meanDeg!, value: median(values) }
  }

  /** Share of the circle that has a step, 0…1. */
  get covered(): number {
    return this.passed.size / this.count
  }
  /** Sectors that were passed too fast, by their middles, degrees. */
  get missed(): number[] {
    return [...this.hurried].map(s => (s + 0.5) * this.sectorDeg).sort((a, b) => a - b)
  }

  /** @returns degrees a second over the last samples; and the most at which each sector still hears enough */
  speed(): { now: number; most: number } {
    const [first, last] = [this.recent[0], this.recent.at(-1)]
    const seconds = first && last ? (last.atMs - first.atMs) / 1000 : 0
    if (!first || !last || seconds <= 0) return { now: 0, most: Infinity }
    // Signed: what a compass wavers by is no turning.
    const turned = Math.abs(
      this.recent.slice(1).reduce((sum, r, i) => sum + turn(nth(this.recent, i).headingDeg, r.headingDeg), 0),
    )
    const each = seconds / (this.recent.length - 1)
    // One more than the least: a sector rarely begins with a sample.
    return { now: turned / seconds, most: this.sectorDeg / ((LEAST_IN_SECTOR + 1) * each) }
  }
}
