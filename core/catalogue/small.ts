/** Generic small parts: what joins, parts, weakens and protects. @source losses common practice (no source) */
import { capital } from '../units'
import type { Connector, Gender, Part } from '../job/part'
import { passing, splitter, tap } from './build'
import type { End, Facts } from './build'

const nSocket: End = ['N', 'socket']
const nPlug: End = ['N', 'plug']
const fSocket: End = ['F', 'socket', 75]
const fPlug: End = ['F', 'plug', 75]

const OUTSIDE: Facts = { outdoors: true, priceClass: 1, massKg: 0.15 }
const ARRESTORS: Part[] = [
  passing('arr-gas', 'arrestor', 'Gas-tube arrestor, two N sockets', 0.2, [nSocket, nSocket], { ...OUTSIDE, apart: ['jumper'] }),
  passing('arr-gas-np', 'arrestor', 'Gas-tube arrestor, N socket and plug', 0.2, [nSocket, nPlug], OUTSIDE),
  passing('arr-gas-f', 'arrestor', 'Gas-tube arrestor, two F sockets', 0.3, [fSocket, fSocket], OUTSIDE),
  passing(
    'arr-gas-sma',
    'arrestor',
    'Gas-tube arrestor, SMA socket and plug',
    0.3,
    [
      ['SMA', 'socket'],
      ['SMA', 'plug'],
    ],
    OUTSIDE,
  ),
  passing(
    'arr-gas-tnc',
    'arrestor',
    'Gas-tube arrestor, two TNC sockets',
    0.2,
    [
      ['TNC', 'socket'],
      ['TNC', 'socket'],
    ],
    OUTSIDE,
  ),
  passing('arr-stub', 'arrestor', 'Quarter-wave arrestor, N socket and plug', 0.1, [nSocket, nPlug], {
    ...OUTSIDE,
    priceClass: 2,
  }),
]

const PADS: Part[] = [
  ...[1, 2, 3, 6, 10, 15, 20, 30].map(db =>
    passing(`pad-${db}`, 'pad', `Attenuator ${db} dB`, db, [nSocket, nPlug], { priceClass: 1 }),
  ),
  ...[3, 6, 10].map(db => passing(`pad-${db}-f`, 'pad', `Attenuator ${db} dB, 75 Ω`, db, [fSocket, fPlug], { priceClass: 1 })),
  ...[3, 6, 10].map(db =>
    passing(
      `pad-${db}-sma`,
      'pad',
      `Attenuator ${db} dB, SMA`,
      db,
      [
        ['SMA', 'socket'],
        ['SMA', 'plug'],
      ],
      { priceClass: 1 },
    ),
  ),
]

const ADAPTERS: Part[] = [
  passing('adp-n-sma', 'adapter', 'Jumper 0.3 m, N socket to SMA plug', 0.3, [nSocket, ['SMA', 'plug']]),
  passing('adp-n-ts9', 'adapter', 'Jumper 0.2 m, N socket to TS9 plug', 0.4, [nSocket, ['TS9', 'plug']]),
  passing('adp-n-crc9', 'adapter', 'Jumper 0.2 m, N socket to CRC9 plug', 0.4, [nSocket, ['CRC9', 'plug']]),
  passing('adp-n-fme', 'adapter', 'Adapter, N socket to FME plug', 0.2, [nSocket, ['FME', 'plug']]),
  passing('adp-n-tnc', 'adapter', 'Adapter, N socket to TNC plug', 0.2, [nSocket, ['TNC', 'plug']]),
  passing('adp-n-bnc', 'adapter', 'Adapter, N socket to BNC plug', 0.2, [nSocket, ['BNC', 'plug']]),
  passing('adp-n-n', 'adapter', 'Adapter, two N sockets', 0.1, [nSocket, nSocket]),
  passing('adp-window', 'adapter', 'Flat window lead 0.3 m, two N sockets', 0.9, [nSocket, nSocket]),
  passing('adp-window-f', 'adapter', 'Flat window lead 0.25 m, two F sockets', 0.8, [fSocket, fSocket]),
  passing('adp-f-n', 'adapter', 'Adapter, F socket to N plug', 0.3, [fSocket, nPlug]),
  passing('adp-n-f', 'adapter', 'Adapter, N socket to F plug', 0.3, [nSocket, fPlug]),
  passing('adp-nn-plugs', 'adapter', 'Adapter, two N plugs', 0.1, [nPlug, nPlug]),
  passing('adp-n-angle', 'adapter', 'Right-angle, N socket to N plug', 0.1, [nSocket, nPlug]),
  passing('adp-f-f', 'adapter', 'Coupler, two F sockets', 0.2, [fSocket, fSocket]),
  passing('adp-ff-plugs', 'adapter', 'Adapter, two F plugs', 0.2, [fPlug, fPlug]),
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
  passing('jmp-n-1', 'adapter', 'Jumper 1 m, two N plugs', 0.4, [nPlug, nPlug]),
  passing('jmp-n-sma-1', 'adapter', 'Jumper 1 m, N plug to SMA plug', 0.6, [nPlug, ['SMA', 'plug']]),
  passing('jmp-sma-1', 'adapter', 'Jumper 1 m, two SMA plugs', 0.6, [
    ['SMA', 'plug'],
    ['SMA', 'plug'],
  ]),
].map(p => ({ ...p, priceClass: 1 as const }))

type Row = [id: string, words: string, gender: Gender, other: End]
function between(connector: Connector, what: 'adapter' | 'lead', lossDb: number, rows: Row[]) {
  return rows.map(([id, words, gender, other]) =>
    passing(`adp-${id}`, 'adapter', what === 'lead' ? capital(words) : `Adapter, ${words}`, lossDb, [[connector, gender], other]),
  )
}

const SHARING: Part[] = [
  ...[2, 3, 4, 6, 8].map(n => splitter(`spl-${n}`, n, n > 4 ? 0.7 : 0.4, nSocket, { priceClass: n > 4 ? 2 : 1, massKg: 0.3 })),
  ...[2, 3, 4].map(n => splitter(`spl-${n}-f`, n, 0.8, fSocket, { priceClass: 1, massKg: 0.1 })),
  ...[5, 6, 7, 8, 10, 13, 15, 20, 30].map(db => tap(`tap-${db}`, db, 0.3, nSocket, { priceClass: 1, massKg: 0.3 })),
  ...[6, 9, 12, 16].map(db => tap(`tap-${db}-f`, db, 0.6, fSocket, { priceClass: 1, massKg: 0.1 })),
]

export const SMALL: readonly Part[] = [...ARRESTORS, ...PADS, ...ADAPTERS, ...SHARING]
