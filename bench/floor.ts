/** A floor of 60 × 40 m at 0.25 m: 300 walls, 24 domes. */
import type { Sender, PlanWall, Grid } from '../core/coverage/map'
import { seeded } from '../core/random'

export interface Dome extends Omit<Sender, 'gainToward' | 'peak'> {
  gainDbi: number
  widthDeg: number
  floorDb: number
}

export function floor60(stepM: number): { grid: Grid; walls: PlanWall[]; domes: Dome[]; frequencyMHz: number; phoneDbi: number } {
  const random = seeded(60)
  const between = (low: number, high: number) => low + random() * (high - low)
  const grid: Grid = {
    x0: -30 + stepM / 2,
    y0: -20 + stepM / 2,
    stepM,
    columns: Math.round(60 / stepM),
    rows: Math.round(40 / stepM),
    upM: 1.2,
  }
  const walls = Array.from({ length: 300 }, (): PlanWall => {
    const [x, y, long] = [between(-30, 30), between(-20, 20), between(2, 7)]
    const along = random() < 0.5
    return { x1: x, y1: y, x2: x + (along ? long : 0.01), y2: y + (along ? 0.01 : long), lossDb: between(2, 9), fromM: 0, toM: 3 }
  })
  const domes = Array.from({ length: 24 }, (_, i): Dome => ({
    x: -25 + (i % 6) * 10,
    y: -15 + Math.floor(i / 6) * 10,
    upM: 2.7,
    fedRsrpDbm: -50,
    slabsDb: 0,
    // A cone straight down, as the C beside it draws it.
    gainDbi: 1.5,
    widthDeg: 180,
    floorDb: 10,
  }))
  return { grid, walls, domes, frequencyMHz: 806, phoneDbi: -3 }
}

/** What a cone loses off its axis each quarter of a degree, as the C has it by its formula. */
export const coneDb = (d: Pick<Dome, 'widthDeg' | 'floorDb'>): number[] =>
  Array.from({ length: 721 }, (_, i) => Math.min(12 * (i / 4 / d.widthDeg) ** 2, d.floorDb))
