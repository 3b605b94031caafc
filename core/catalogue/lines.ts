/**
 * Generic lines. 50 Ω low-loss constants from memory of data sheets, dB/100 m: k1·√f + k2·f, f in MHz; RG types
 * differ by make: a typical value with its spread.
 */
import type { LinePart } from '../job/part'
import { line } from './build'

const OUT = { grade: 'outdoor', jacket: 'polyethylene, black' } as const
/** Twisted pairs: no radio runs in them. @source ISO/IEC 11801-1: 100 Ω; bend four diameters laid, eight pulled, common practice */
const DATA = { medium: 'data' } as const
const VOID = { grade: 'ceiling void', jacket: 'low smoke' } as const

export const LINES: readonly LinePart[] = [
  line('line-195', '195-type, 50 Ω', {
    loss: [1.168, 0.0016],
    impedance: [50, 5],
    size: [4.95, 13, 20],
    stockM: [2, 5, 10],
    ends: 'N',
    more: {
      ...OUT,
      drumM: [100],
      priceClass: 1,
    },
  }),
  line('line-195-sma', '195-type with SMA plugs, 50 Ω', {
    loss: [1.168, 0.0016],
    impedance: [50, 5],
    size: [4.95, 13, 9.3],
    stockM: [1, 2, 3, 5, 10],
    ends: 'SMA',
    more: {
      ...OUT,
      priceClass: 1,
    },
  }),
  line('line-195-void', '195-type for ceiling voids, 50 Ω', {
    loss: [1.168, 0.0016],
    impedance: [50, 6],
    size: [4.95, 13, 20],
    stockM: [5, 10],
    ends: 'N',
    more: {
      ...VOID,
      drumM: [150],
      priceClass: 2,
    },
  }),
  line('line-240', '240-type, 50 Ω', {
    loss: [0.794, 0.0011],
    impedance: [50, 5],
    size: [6.1, 19, 20],
    stockM: [5, 10, 15],
    ends: 'N',
    more: {
      ...OUT,
      drumM: [100, 150],
      priceClass: 2,
    },
  }),
  line('line-240-sma', '240-type with SMA plugs, 50 Ω', {
    loss: [0.794, 0.0011],
    impedance: [50, 5],
    size: [6.1, 19, 9.3],
    stockM: [3, 5, 10],
    ends: 'SMA',
    more: {
      ...OUT,
      priceClass: 2,
    },
  }),
  line('line-400', '400-type, 50 Ω', {
    loss: [0.401, 0.00085],
    impedance: [50, 4],
    size: [10.3, 25, 22],
    stockM: [5, 10, 15, 20, 30],
    ends: 'N',
    more: {
      ...OUT,
      drumM: [100, 150],
      priceClass: 2,
    },
  }),
  line('line-400-flex', '400-type, flexible, 50 Ω', {
    loss: [0.48, 0.00102],
    impedance: [50, 5],
    size: [10.3, 25, 22],
    stockM: [3, 5, 10, 15],
    ends: 'N',
    more: {
      ...OUT,
      drumM: [100],
      priceClass: 3,
    },
  }),
  line('line-400-void', '400-type for ceiling voids, 50 Ω', {
    loss: [0.401, 0.00085],
    impedance: [50, 5],
    size: [10.3, 30, 22],
    stockM: [10, 20, 30],
    ends: 'N',
    more: {
      ...VOID,
      drumM: [150, 300],
      priceClass: 3,
    },
  }),
  line('line-400-buried', '400-type, flooded, 50 Ω', {
    loss: [0.401, 0.00085],
    impedance: [50, 4],
    size: [10.3, 30, 22],
    stockM: [20, 30],
    ends: 'N',
    more: {
      grade: 'buried',
      jacket: 'polyethylene, gel-filled',
      drumM: [150],
      priceClass: 3,
    },
  }),
  line('line-600', '600-type, 50 Ω', {
    loss: [0.248, 0.00085],
    impedance: [50, 4],
    size: [15, 38, 25],
    stockM: [10, 20, 30, 50],
    ends: 'N',
    more: {
      ...OUT,
      drumM: [100],
      priceClass: 3,
    },
  }),
  line('line-rg58', 'RG-58, 50 Ω', {
    loss: [1.55, 0.0048],
    impedance: [50, 15],
    size: [4.95, 25, 20],
    stockM: [1, 3, 5],
    ends: 'N',
    more: {
      ...OUT,
      drumM: [100],
      priceClass: 1,
    },
  }),
  line('line-rg174', 'RG-174 with SMA plugs, 50 Ω', {
    loss: [2.9, 0.0095],
    impedance: [50, 15],
    size: [2.8, 15, 9.3],
    stockM: [0.5, 1, 2, 3],
    ends: 'SMA',
    more: {
      grade: 'indoor',
      priceClass: 1,
    },
  }),
  line('line-rg6', 'RG-6, 75 Ω', {
    loss: [0.62, 0.0022],
    impedance: [75, 12],
    size: [6.9, 35, 12],
    stockM: [5, 10, 15],
    ends: 'F',
    more: {
      ...OUT,
      drumM: [100, 305],
      priceClass: 1,
    },
  }),
  line('line-rg6-void', 'RG-6 for ceiling voids, 75 Ω', {
    loss: [0.62, 0.0022],
    impedance: [75, 12],
    size: [6.9, 35, 12],
    stockM: [10, 20, 30],
    ends: 'F',
    more: {
      ...VOID,
      drumM: [305],
      priceClass: 2,
    },
  }),
  line('line-rg11', 'RG-11, 75 Ω', {
    loss: [0.4, 0.0015],
    impedance: [75, 12],
    size: [10.3, 60, 16],
    stockM: [15, 25, 30],
    ends: 'F',
    more: {
      ...OUT,
      drumM: [305],
      priceClass: 2,
    },
  }),
  line('data-6-out', 'Data cable Cat 6, outdoor', {
    loss: [0, 0],
    impedance: [100, 5],
    size: [6.9, 55, 11.7],
    stockM: [5, 10, 15, 20, 30, 50],
    ends: 'RJ45',
    more: {
      ...OUT,
      ...DATA,
      drumM: [100, 305],
      priceClass: 2,
    },
  }),
  line('data-6', 'Data cable Cat 6, indoor', {
    loss: [0, 0],
    impedance: [100, 5],
    size: [6, 48, 11.7],
    stockM: [1, 2, 3, 5, 10, 20, 30],
    ends: 'RJ45',
    more: {
      ...DATA,
      grade: 'indoor',
      drumM: [305],
      priceClass: 1,
    },
  }),
  line('data-6-void', 'Data cable Cat 6 for ceiling voids', {
    loss: [0, 0],
    impedance: [100, 5],
    size: [6.2, 50, 11.7],
    stockM: [],
    ends: 'RJ45',
    more: {
      ...VOID,
      ...DATA,
      drumM: [305],
      priceClass: 2,
    },
  }),
]
