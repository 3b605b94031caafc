/**
 * How long a step takes: least, likely and most, minutes, of somebody who has done it before.
 *
 * Held against what the trade says of whole jobs: an owner's kit one to three hours, a roof and a router half a day, a boat
 * two days.
 * @source common practice (no source); a crew's own hours in the quote win
 */
export type Minutes = readonly [number, number, number]

export const TAKES = {
  fetch: [3, 8, 20],
  gather: [5, 10, 30],
  labels: [3, 5, 15],
  register: [3, 8, 40],
  dryRun: [10, 20, 50],
  wayOpened: [5, 10, 30],
  hole: [8, 15, 45],
  coreFilled: [20, 30, 60],
  build: [6, 12, 25],
  mount: [8, 15, 45],
  raise: [3, 8, 25],
  box: [5, 8, 20],
  hung: [4, 7, 18],
  earth: [8, 15, 40],
  join: [3, 6, 15],
  plugIn: [3, 6, 15],
  wireIn: [15, 25, 60],
  sim: [2, 3, 8],
  network: [2, 3, 12],
  keys: [4, 8, 20],
  aim: [6, 12, 35],
  tighten: [3, 5, 12],
  seal: [4, 8, 20],
  height: [2, 3, 8],
  tried: [3, 6, 15],
  struck: [2, 4, 12],
  prove: [8, 15, 40],
  clear: [5, 8, 20],
} as const satisfies Record<string, Minutes>

/** Linings, lockers or trim that come off and go back. */
export const LININGS = { vehicle: [10, 20, 60], boat: [40, 80, 240] } as const satisfies Record<string, Minutes>

const times = ([a, m, b]: Minutes, by: number): Minutes => [a * by, m * by, b * by]

/** Up a mast in a chair everything takes twice as long. */
const ALOFT = 2
export const aloft = (minutes: Minutes): Minutes => times(minutes, ALOFT)

/** The second of two alike, side by side: tools and ladder are there. */
const BESIDE = 0.4
export const beside = (minutes: Minutes): Minutes => times(minutes, BESIDE)

/** Through a mast, under soles and behind lockers a metre takes three times as long. */
const ABOARD = 3

/** @param lengthM  from end to end, m */
export const pulling = (lengthM: number, aboard: boolean): Minutes =>
  times([4 + 0.4 * lengthM, 6 + 0.8 * lengthM, 12 + 2.2 * lengthM], aboard ? ABOARD : 1)
