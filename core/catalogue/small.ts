/** Generic small parts: what joins, parts, weakens and protects. @source losses common practice (no source) */
import { capital } from '../units'
import type { Connector, Gender, Part } from '../job/part'
import { injector, passing, source, splitter, tap } from './build'
import type { End, Facts } from './build'

const nSocket: End = ['N', 'socket']
const nPlug: End = ['N', 'plug']
const fSocket: End = ['F', 'socket', 75]
const fPlug: End = ['F', 'plug', 75]

const OUTSIDE: Facts = { outdoors: true, priceClass: 1, massKg: 0.15 }
const ARRESTORS: Part[] = [
  passing('arr-gas', 'arrestor', {
    name: 'Gas-tube arrestor, two N sockets',
    lossDb: 0.2,
    ends: [nSocket, nSocket],
    facts: { ...OUTSIDE, apart: ['jumper'] },
  }),
  passing('arr-gas-np', 'arrestor', {
    name: 'Gas-tube arrestor, N socket and plug',
    lossDb: 0.2,
    ends: [nSocket, nPlug],
    facts: OUTSIDE,
  }),
  passing('arr-gas-f', 'arrestor', {
    name: 'Gas-tube arrestor, two F sockets',
    lossDb: 0.3,
    ends: [fSocket, fSocket],
    facts: OUTSIDE,
  }),
  passing('arr-gas-sma', 'arrestor', {
    name: 'Gas-tube arrestor, SMA socket and plug',
    lossDb: 0.3,
    ends: [
      ['SMA', 'socket'],
      ['SMA', 'plug'],
    ],
    facts: OUTSIDE,
  }),
  passing('arr-gas-tnc', 'arrestor', {
    name: 'Gas-tube arrestor, two TNC sockets',
    lossDb: 0.2,
    ends: [
      ['TNC', 'socket'],
      ['TNC', 'socket'],
    ],
    facts: OUTSIDE,
  }),
  passing('arr-stub', 'arrestor', {
    name: 'Quarter-wave arrestor, N socket and plug',
    lossDb: 0.1,
    ends: [nSocket, nPlug],
    facts: {
      ...OUTSIDE,
      priceClass: 2,
    },
  }),
]

const lanSocket: End = ['RJ45', 'socket', 100]
const DATA_ARRESTORS: Part[] = [
  passing('arr-data', 'arrestor', {
    name: 'Data arrestor, PoE passed',
    lossDb: 0,
    ends: [lanSocket, lanSocket],
    facts: { ...OUTSIDE, mount: 'two screws' },
  }),
]

/** @source IEEE 802.3-2022: 15.4 W, 30 W and 60 W at the source; a passive one by its supply, common practice (no source) */
const INJECTORS: Part[] = [
  injector('inj-poe', 'PoE injector, 15 W', { gives: 'PoE', givesW: 15.4 }),
  injector('inj-poe-plus', 'PoE injector, 30 W', { gives: 'PoE', givesW: 30 }),
  injector('inj-poe-4', 'PoE injector, 60 W, four pairs', { gives: 'PoE', givesW: 60 }),
  injector('sw-poe', 'Switch, four sockets with PoE, 60 W in all', {
    gives: 'PoE',
    givesW: 60,
    fed: 4,
    facts: { massKg: 0.5, sizeMm: [160, 35, 100], powerW: 5, priceClass: 2 },
  }),
  injector('sw-plain', 'Switch, five sockets, no power given', {
    gives: 'nothing',
    givesW: 0,
    fed: 4,
    facts: { massKg: 0.3, sizeMm: [110, 27, 75], powerW: 3 },
  }),
  injector('inj-passive', 'Passive injector, 24 V', { gives: 'passive PoE', givesW: 24 }),
]

/** Where a supply begins, and what changes or bridges it. @source sizes as they are sold, common practice (no source) */
const SOURCES: Part[] = [
  source('fuse-tap', 'Fuse tap', { takes: 'nothing', gives: 'DC', sockets: 1, more: { mount: 'plugs into the fuse board' } }),
  source('fuse-board-6', 'Fuse board, six ways', {
    takes: 'nothing',
    gives: 'DC',
    sockets: 6,
    more: { mount: 'two screws', sizeMm: [90, 130, 40] },
  }),
  source('conv-12', 'Converter to 12 V, holds while cranking', {
    takes: 'DC',
    gives: 'DC',
    sockets: 1,
    more: { volts: 12, mostW: 60, mount: 'two screws', massKg: 0.3, priceClass: 2 },
  }),
  source('inv-150', 'Inverter to mains, pure sine, 150 W', {
    takes: 'DC',
    gives: 'mains',
    sockets: 2,
    more: { mostW: 150, mount: 'two screws', sizeMm: [110, 60, 190], massKg: 0.9, temperatureC: [-10, 50], priceClass: 2 },
  }),
  source('ups-150', 'UPS, four sockets, 150 W·h', {
    takes: 'mains',
    gives: 'mains',
    sockets: 4,
    more: { mostW: 500, batteryWh: 150, mount: 'stands by a socket', massKg: 6, temperatureC: [0, 40], priceClass: 2 },
  }),
  source('ups-500', 'UPS, six sockets, 500 W·h', {
    takes: 'mains',
    gives: 'mains',
    sockets: 6,
    more: { mostW: 900, batteryWh: 500, mount: 'stands by a socket', massKg: 14, temperatureC: [0, 40], priceClass: 3 },
  }),
]

const PADS: Part[] = [
  ...[1, 2, 3, 6, 10, 15, 20, 30].map(db =>
    passing(`pad-${db}`, 'pad', { name: `Attenuator ${db} dB`, lossDb: db, ends: [nSocket, nPlug], facts: { priceClass: 1 } }),
  ),
  ...[3, 6, 10].map(db =>
    passing(`pad-${db}-f`, 'pad', {
      name: `Attenuator ${db} dB, 75 Ω`,
      lossDb: db,
      ends: [fSocket, fPlug],
      facts: { priceClass: 1 },
    }),
  ),
  ...[3, 6, 10].map(db =>
    passing(`pad-${db}-sma`, 'pad', {
      name: `Attenuator ${db} dB, SMA`,
      lossDb: db,
      ends: [
        ['SMA', 'socket'],
        ['SMA', 'plug'],
      ],
      facts: { priceClass: 1 },
    }),
  ),
]

const ADAPTERS: Part[] = [
  passing('adp-n-sma', 'adapter', { name: 'Jumper 0.3 m, N socket to SMA plug', lossDb: 0.3, ends: [nSocket, ['SMA', 'plug']] }),
  passing('adp-n-ts9', 'adapter', { name: 'Jumper 0.2 m, N socket to TS9 plug', lossDb: 0.4, ends: [nSocket, ['TS9', 'plug']] }),
  passing('adp-n-crc9', 'adapter', {
    name: 'Jumper 0.2 m, N socket to CRC9 plug',
    lossDb: 0.4,
    ends: [nSocket, ['CRC9', 'plug']],
  }),
  passing('adp-n-fme', 'adapter', { name: 'Adapter, N socket to FME plug', lossDb: 0.2, ends: [nSocket, ['FME', 'plug']] }),
  passing('adp-n-tnc', 'adapter', { name: 'Adapter, N socket to TNC plug', lossDb: 0.2, ends: [nSocket, ['TNC', 'plug']] }),
  passing('adp-n-bnc', 'adapter', { name: 'Adapter, N socket to BNC plug', lossDb: 0.2, ends: [nSocket, ['BNC', 'plug']] }),
  passing('adp-n-n', 'adapter', { name: 'Adapter, two N sockets', lossDb: 0.1, ends: [nSocket, nSocket] }),
  passing('adp-window', 'adapter', { name: 'Flat window lead 0.3 m, two N sockets', lossDb: 0.9, ends: [nSocket, nSocket] }),
  passing('adp-window-f', 'adapter', { name: 'Flat window lead 0.25 m, two F sockets', lossDb: 0.8, ends: [fSocket, fSocket] }),
  passing('adp-f-n', 'adapter', { name: 'Adapter, F socket to N plug', lossDb: 0.3, ends: [fSocket, nPlug] }),
  passing('adp-n-f', 'adapter', { name: 'Adapter, N socket to F plug', lossDb: 0.3, ends: [nSocket, fPlug] }),
  passing('adp-nn-plugs', 'adapter', { name: 'Adapter, two N plugs', lossDb: 0.1, ends: [nPlug, nPlug] }),
  passing('adp-n-angle', 'adapter', { name: 'Right-angle, N socket to N plug', lossDb: 0.1, ends: [nSocket, nPlug] }),
  passing('adp-f-f', 'adapter', { name: 'Coupler, two F sockets', lossDb: 0.2, ends: [fSocket, fSocket] }),
  passing('adp-ff-plugs', 'adapter', { name: 'Adapter, two F plugs', lossDb: 0.2, ends: [fPlug, fPlug] }),
  ...between('SMA', 'adapter', 0.2, [
    ['sma-n', 'SMA socket to N plug', 'socket', ['N', 'plug']],
    ['sma-n-ss', 'SMA socket to N socket', 'socket', ['N', 'socket']],
    ['smap-n-plugs', 'SMA plug to N plug', 'plug', ['N', 'plug']],
    ['sma-sma', 'two SMA sockets', 'socket', ['SMA', 'socket']],
    ['sma-angle', 'right angle, SMA socket to SMA plug', 'socket', ['SMA', 'plug']],
    ['sma-fme', 'SMA plug to FME plug', 'plug', ['FME', 'plug']],
    ['sma-tnc', 'SMA socket to TNC plug', 'socket', ['TNC', 'plug']],
    ['sma-bnc', 'SMA plug to BNC socket', 'plug', ['BNC', 'socket']],
    ['smap-f', 'SMA plug to F socket', 'plug', fSocket],
  ]),
  ...between('SMA', 'lead', 0.3, [
    ['sma-ts9', 'lead 0.15 m, SMA socket to TS9 plug', 'socket', ['TS9', 'plug']],
    ['sma-crc9', 'lead 0.15 m, SMA socket to CRC9 plug', 'socket', ['CRC9', 'plug']],
    ['sma-rp', 'SMA socket to RP-SMA plug', 'socket', ['RP-SMA', 'plug']],
  ]),
  ...between('FME', 'adapter', 0.2, [
    ['fme-sma', 'FME plug to SMA plug', 'plug', ['SMA', 'plug']],
    ['fme-n', 'FME plug to N plug', 'plug', ['N', 'plug']],
    ['fme-tnc', 'FME plug to TNC plug', 'plug', ['TNC', 'plug']],
    ['fme-ts9', 'FME plug to TS9 plug', 'plug', ['TS9', 'plug']],
  ]),
  passing('jmp-n-1', 'adapter', { name: 'Jumper 1 m, two N plugs', lossDb: 0.4, ends: [nPlug, nPlug] }),
  passing('jmp-n-sma-1', 'adapter', { name: 'Jumper 1 m, N plug to SMA plug', lossDb: 0.6, ends: [nPlug, ['SMA', 'plug']] }),
  passing('jmp-sma-1', 'adapter', {
    name: 'Jumper 1 m, two SMA plugs',
    lossDb: 0.6,
    ends: [
      ['SMA', 'plug'],
      ['SMA', 'plug'],
    ],
  }),
].map(p => ({ ...p, priceClass: 1 as const }))

type Row = [id: string, words: string, gender: Gender, other: End]
function between(connector: Connector, what: 'adapter' | 'lead', lossDb: number, rows: Row[]) {
  return rows.map(([id, words, gender, other]) =>
    passing(`adp-${id}`, 'adapter', {
      name: what === 'lead' ? capital(words) : `Adapter, ${words}`,
      lossDb,
      ends: [[connector, gender], other],
    }),
  )
}

const SHARING: Part[] = [
  ...[2, 3, 4, 6, 8].map(n =>
    splitter(`spl-${n}`, n, { excessDb: n > 4 ? 0.7 : 0.4, end: nSocket, facts: { priceClass: n > 4 ? 2 : 1, massKg: 0.3 } }),
  ),
  ...[2, 3, 4].map(n => splitter(`spl-${n}-f`, n, { excessDb: 0.8, end: fSocket, facts: { priceClass: 1, massKg: 0.1 } })),
  ...[5, 6, 7, 8, 10, 13, 15, 20, 30].map(db =>
    tap(`tap-${db}`, db, { excessDb: 0.3, end: nSocket, facts: { priceClass: 1, massKg: 0.3 } }),
  ),
  ...[6, 9, 12, 16].map(db => tap(`tap-${db}-f`, db, { excessDb: 0.6, end: fSocket, facts: { priceClass: 1, massKg: 0.1 } })),
]

export const SMALL: readonly Part[] = [
  ...ARRESTORS,
  ...DATA_ARRESTORS,
  ...INJECTORS,
  ...SOURCES,
  ...PADS,
  ...ADAPTERS,
  ...SHARING,
]
