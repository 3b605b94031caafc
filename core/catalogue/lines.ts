/**
 * Generic lines. 50 Ω low-loss constants from memory of data sheets, dB/100 m: k1·√f + k2·f, f in MHz; RG types
 * differ by make: a typical value with its spread.
 */
import type { LinePart } from '../job/part'
import { line } from './build'

const OUT = { grade: 'outdoor', jacket: 'polyethylene, black' } as const
const VOID = { grade: 'ceiling void', jacket: 'low smoke' } as const

export const LINES: readonly LinePart[] = [
  line('line-195', '195-type, 50 Ω', [1.168, 0.0016], [50, 5], [4.95, 13, 20], [2, 5, 10], 'N', {
    ...OUT,
    drumM: [100],
    priceClass: 1,
  }),
  line('line-195-sma', '195-type with SMA plugs, 50 Ω', [1.168, 0.0016], [50, 5], [4.95, 13, 9.3], [1, 2, 3, 5, 10], 'SMA', {
    ...OUT,
    priceClass: 1,
  }),
  line('line-195-void', '195-type for ceiling voids, 50 Ω', [1.168, 0.0016], [50, 6], [4.95, 13, 20], [5, 10], 'N', {
    ...VOID,
    drumM: [150],
    priceClass: 2,
  }),
  line('line-240', '240-type, 50 Ω', [0.794, 0.0011], [50, 5], [6.1, 19, 20], [5, 10, 15], 'N', {
    ...OUT,
    drumM: [100, 150],
    priceClass: 2,
  }),
  line('line-240-sma', '240-type with SMA plugs, 50 Ω', [0.794, 0.0011], [50, 5], [6.1, 19, 9.3], [3, 5, 10], 'SMA', {
    ...OUT,
    priceClass: 2,
  }),
  line('line-400', '400-type, 50 Ω', [0.401, 0.00085], [50, 4], [10.3, 25, 22], [5, 10, 15, 20, 30], 'N', {
    ...OUT,
    drumM: [100, 150],
    priceClass: 2,
  }),
  line('line-400-flex', '400-type, flexible, 50 Ω', [0.48, 0.00102], [50, 5], [10.3, 25, 22], [3, 5, 10, 15], 'N', {
    ...OUT,
    drumM: [100],
    priceClass: 3,
  }),
  line('line-400-void', '400-type for ceiling voids, 50 Ω', [0.401, 0.00085], [50, 5], [10.3, 30, 22], [10, 20, 30], 'N', {
    ...VOID,
    drumM: [150, 300],
    priceClass: 3,
  }),
  line('line-400-buried', '400-type, flooded, 50 Ω', [0.401, 0.00085], [50, 4], [10.3, 30, 22], [20, 30], 'N', {
    grade: 'buried',
    jacket: 'polyethylene, gel-filled',
    drumM: [150],
    priceClass: 3,
  }),
  line('line-600', '600-type, 50 Ω', [0.248, 0.00085], [50, 4], [15, 38, 25], [10, 20, 30, 50], 'N', {
    ...OUT,
    drumM: [100],
    priceClass: 3,
  }),
  line('line-rg58', 'RG-58, 50 Ω', [1.55, 0.0048], [50, 15], [4.95, 25, 20], [1, 3, 5], 'N', {
    ...OUT,
    drumM: [100],
    priceClass: 1,
  }),
  line('line-rg174', 'RG-174 with SMA plugs, 50 Ω', [2.9, 0.0095], [50, 15], [2.8, 15, 9.3], [0.5, 1, 2, 3], 'SMA', {
    grade: 'indoor',
    priceClass: 1,
  }),
  line('line-rg6', 'RG-6, 75 Ω', [0.62, 0.0022], [75, 12], [6.9, 35, 12], [5, 10, 15], 'F', {
    ...OUT,
    drumM: [100, 305],
    priceClass: 1,
  }),
  line('line-rg6-void', 'RG-6 for ceiling voids, 75 Ω', [0.62, 0.0022], [75, 12], [6.9, 35, 12], [10, 20, 30], 'F', {
    ...VOID,
    drumM: [305],
    priceClass: 2,
  }),
  line('line-rg11', 'RG-11, 75 Ω', [0.4, 0.0015], [75, 12], [10.3, 60, 16], [15, 25, 30], 'F', {
    ...OUT,
    drumM: [305],
    priceClass: 2,
  }),
]
