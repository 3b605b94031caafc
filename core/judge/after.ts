/** What each room reads after fitting beside what the sum has for it, and where they part what may be behind it. */
import { readWithBooster } from '../coverage/rooms'
import type { RoomLevel } from '../coverage/rooms'
import { median } from '../survey/stats'
import { num, signed } from '../units'
import type { Worked } from './context'
import { COMMON } from './finding'
import type { Draft } from './finding'

interface RoomBeside {
  room: RoomLevel
  readDbm: number
  /** read − sum, dB */
  offDb: number
}

/** @returns every room that was read with the booster at work, on the band of the sum and of the plan's carrier alone */
const roomsBeside = (c: Pick<Worked, 'main' | 'own'>): RoomBeside[] =>
  c.main.rooms.flatMap(room => {
    const readDbm = readWithBooster(c.own, room.spot, c.main.carrier.band.name)
    return readDbm === null ? [] : [{ room, readDbm, offDb: readDbm - room.rsrpDbm }]
  })

/** So far apart a room is told, dB. @source one standard deviation of ITU-R P.1238, residential, from memory: 8 dB */
const ROOM_OFF_DB = 8
/** So far apart all rooms together are told: what shadows one room does not shadow them all, dB. Assumed. */
const ALL_OFF_DB = 5
const TOGETHER = 2

export function afterDrafts(c: Worked): Draft[] {
  const beside = roomsBeside(c)
  if (!beside.length) return []
  const middle = median(beside.map(b => b.offDb))
  const together =
    beside.length >= TOGETHER && Math.abs(middle) >= ALL_OFF_DB && beside.every(b => Math.sign(b.offDb) === Math.sign(middle))
  if (together) return [allOff(c, beside, middle)]
  const off = beside.filter(b => Math.abs(b.offDb) >= ROOM_OFF_DB)
  return off.map(b => roomOff(b, beside.length - off.length))
}

const figures = ({ room, readDbm }: RoomBeside): string => `${num(readDbm)} dBm read, ${num(room.rsrpDbm)} by the sum`
const short = ({ room, readDbm }: RoomBeside): boolean => readDbm < room.needDbm

/** Of one room: what lies between its antenna and it, or what was read. */
function roomOff(b: RoomBeside, asTheSum: number): Draft {
  const { spot, server } = b.room
  return {
    code: 'level.room-off',
    subjectId: spot.id,
    severity: short(b) ? 'fix' : 'note',
    title: `${spot.name} reads ${num(Math.abs(b.offDb))} dB ${b.offDb < 0 ? 'less' : 'more'} than the sum`,
    sentence:
      `${figures(b)}. ` +
      (b.offDb < 0
        ? `Look for a wall or steel between it and ${server.name} that is not drawn, for that antenna’s own cable and plug, ` +
          'and whether the phone held another cell or band.'
        : 'It may hold another cell, or hear the mast itself through a window: read it with the booster off.'),
    because:
      asTheSum === 0
        ? 'no other room reads as the sum has it: read one more to tell a wall of its own from what all rooms share'
        : `${asTheSum === 1 ? 'another room reads' : `${asTheSum} other rooms read`} as the sum has it: up to the antennas it is right`,
    source: COMMON,
  }
}

/** Of all rooms: what is common to them lies before the inside antennas. */
function allOff(c: Worked, beside: readonly RoomBeside[], middle: number): Draft {
  const amp = c.main.levels?.amplifiers[0]
  const less = middle < 0
  const each = beside.map(b => `${b.room.spot.name} ${signed(b.offDb)}`).join(', ')
  return {
    code: 'level.rooms-off',
    subjectId: c.design.id,
    severity: beside.some(short) ? 'fix' : 'note',
    title: `All rooms read about ${num(Math.abs(middle))} dB ${less ? 'less' : 'more'} than the sum`,
    sentence:
      `${each} dB. ` +
      (less
        ? `What they share lies before the inside antennas: the level at the mount, the donor’s aim, a plug that is not home, ` +
          `${amp ? `or ${amp.at.name} that lowers its own gain` : 'or the gain'}. Read at its donor port, then its gain.`
        : 'The level at the mount was reckoned or read too low, or the booster has more gain than its sheet says: read at the donor port.'),
    because: `median of ${beside.length} rooms read with the booster on`,
    source: COMMON,
  }
}
