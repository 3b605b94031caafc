/**
 * Cells kept as a modem tells them, in hexadecimal, by a program that did not know yet: lists of masts have them decimal, so that
 * such a cell finds no mast, or another's.
 */
import type { Step } from '../job/edits'
import type { Reading, SpeedRun } from '../job/schema'
import { cellFromHex } from '../radio/cell-id'
import { correctionOf } from '../survey/moving'
import type { LogIndex } from '../survey/spots'
import type { Made } from '../survey/setups'

const HEX = /^[0-9a-f]{1,9}$/i
const LETTER = /[a-f]/i

/** A row with the cell that its code stands for. */
export interface HexCell {
  table: 'readings' | 'speedRuns'
  row: Made<Reading> | Made<SpeedRun>
  cellId: string
}

/**
 * A code with a letter is hexadecimal; of the device that told it, so are those before it that happen to hold digits alone.
 * @returns rows of the log to be corrected; none of a device that never told a letter
 */
export function hexCells({ readings, runs, doubted }: Pick<LogIndex, 'readings' | 'runs' | 'doubted'>): HexCell[] {
  const rows: Omit<HexCell, 'cellId'>[] = [
    ...readings.map(row => ({ table: 'readings' as const, row })),
    ...[...runs, ...doubted].map(row => ({ table: 'speedRuns' as const, row })),
  ]
  const deviceOf = (row: HexCell['row']): string => row.setup?.row.deviceId ?? ''
  const last = new Map<string, string>()
  for (const { row } of rows) {
    if (!row.cellId || !HEX.test(row.cellId) || !LETTER.test(row.cellId)) continue
    if (row.takenAtUtc > (last.get(deviceOf(row)) ?? '')) last.set(deviceOf(row), row.takenAtUtc)
  }
  return rows.flatMap(({ table, row }) => {
    if (!row.cellId || !HEX.test(row.cellId) || row.takenAtUtc > (last.get(deviceOf(row)) ?? '')) return []
    const cellId = cellFromHex(row.cellId, 'technology' in row && row.technology === 'NR' ? 'NR' : 'LTE')
    return cellId ? [{ table, row, cellId }] : []
  })
}

/** @returns corrections: each row again with its decimal cell, in place of the one that was kept */
export const cellCorrections = (cells: readonly HexCell[]): Step[] =>
  cells.map(({ table, row, cellId }) => ({ ...correctionOf(table, row, { cellId }), rowId: `new:cell-${row.id}` }))
