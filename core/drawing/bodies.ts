/** Vehicles from the side, by their body: outline, panes, wheels, and what a trailer is drawn by; to scale from length and roof. */
import type { Body } from '../job/schema'

/** Along from the rear (−1) to the front (1), and up as a share of the height of the roof. */
type Spot = readonly [along: number, up: number]

export interface Shape {
  outline: readonly Spot[]
  panes: readonly (readonly Spot[])[]
  /** along, where its axles are */
  wheels: readonly number[]
  /** lines of what it is drawn or parked by: drawbar, legs */
  lines: readonly (readonly [Spot, Spot])[]
}

/** The sill, as a share of the height of the roof. */
const SILL = 0.2
const box = (toFront: number): Spot[] => [
  [-1, SILL],
  [-1, 1],
  [toFront, 1],
]
/** A row of panes of one height. */
const row = (from: number, to: number, count: number, [low, high]: readonly [number, number]): Spot[][] => {
  const step = (to - from) / count
  return Array.from({ length: count }, (_, i) => {
    const [a, b] = [from + i * step, from + (i + 0.86) * step]
    return [
      [a, low],
      [b, low],
      [b, high],
      [a, high],
    ]
  })
}
const DRAWBAR = {
  lines: [
    [
      [0.82, SILL],
      [1, SILL],
    ],
    [
      [0.96, SILL],
      [0.96, 0.02],
    ],
  ],
} as const

export const SHAPES_OF: Record<Exclude<Body, 'sailing boat' | 'motor boat'>, Shape> = {
  'van': {
    outline: [...box(0.55), [0.8, 0.5], [1, 0.43], [1, SILL]],
    panes: [
      [
        [0.4, 0.9],
        [0.53, 0.9],
        [0.7, 0.5],
        [0.4, 0.5],
      ],
    ],
    wheels: [-0.58, 0.62],
    lines: [
      [
        [-1, 0.27],
        [0.35, 0.27],
      ],
    ],
  },
  'pick-up': {
    outline: [
      [-1, SILL + 0.04],
      [-1, 0.58],
      [-0.12, 0.58],
      [-0.06, 1],
      [0.3, 1],
      [0.52, 0.6],
      [0.96, 0.52],
      [1, SILL + 0.04],
    ],
    panes: [
      [
        [-0.01, 0.92],
        [0.1, 0.92],
        [0.1, 0.62],
        [-0.05, 0.62],
      ],
      [
        [0.14, 0.92],
        [0.28, 0.92],
        [0.43, 0.62],
        [0.14, 0.62],
      ],
    ],
    wheels: [-0.58, 0.64],
    lines: [],
  },
  'box truck': {
    outline: [...box(0.5), [0.5, 0.74], [0.7, 0.74], [0.84, 0.47], [1, 0.42], [1, SILL]],
    panes: [
      [
        [0.55, 0.69],
        [0.68, 0.69],
        [0.79, 0.47],
        [0.55, 0.47],
      ],
    ],
    wheels: [-0.56, 0.68],
    lines: [
      [
        [0.5, 0.74],
        [0.5, SILL],
      ],
    ],
  },
  'motorhome': {
    outline: [...box(0.82), [0.88, 0.72], [0.74, 0.66], [0.83, 0.46], [1, 0.4], [1, SILL]],
    panes: [
      [
        [0.58, 0.63],
        [0.71, 0.63],
        [0.79, 0.45],
        [0.58, 0.45],
      ],
      ...row(-0.8, 0.2, 2, [0.55, 0.78]),
    ],
    wheels: [-0.5, 0.66],
    lines: [],
  },
  'bus': {
    outline: [...box(0.96), [1, 0.86], [1, SILL - 0.04], [-1, SILL - 0.04]],
    panes: [...row(-0.94, 0.72, 6, [0.5, 0.84]), ...row(0.76, 0.98, 1, [0.42, 0.84])],
    wheels: [-0.5, 0.7],
    lines: [],
  },
  'caravan': {
    outline: [...box(0.68), [0.8, 0.7], [0.82, SILL]],
    panes: [...row(-0.78, 0.5, 2, [0.52, 0.76])],
    wheels: [-0.1],
    ...DRAWBAR,
  },
  'travel trailer': {
    outline: [...box(0.78), [0.82, 0.86], [0.82, SILL]],
    panes: [...row(-0.86, 0.6, 3, [0.52, 0.76])],
    wheels: [-0.2, 0],
    ...DRAWBAR,
  },
  'fifth wheel': {
    outline: [...box(0.94), [1, 0.9], [1, 0.5], [0.6, 0.5], [0.56, SILL]],
    panes: [...row(-0.9, 0.4, 3, [0.46, 0.68]), ...row(0.68, 0.9, 1, [0.68, 0.84])],
    wheels: [-0.3, -0.14],
    lines: [
      [
        [0.84, 0.5],
        [0.84, 0.42],
      ],
      [
        [0.5, SILL],
        [0.5, 0.01],
      ],
    ],
  },
}
