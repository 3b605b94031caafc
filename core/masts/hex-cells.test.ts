import { describe, expect, it } from 'vitest'
import { changesOf } from '../job/edits'
import { House } from '../../tests/support/house'
import { hexCells } from './hex-cells'
import { logIndex } from '../survey/spots'

const cellsOf = (h: House) => logIndex(h.doc).readings.map(r => r.cellId)

describe('cells kept in hexadecimal', () => {
  it('are corrected by rows of their own: 28 bits, eNB above the last two figures', () => {
    // eNB 291, cell 69: 0x12345; 0x1A2B3C = 1,715,004. @source 3GPP TS 36.413 §9.2.1.38
    const h = new House('router').reads('Kitchen', -100, 5, { cellId: '00012345' }).reads('Hall', -99, 5, { cellId: '1A2B3C' })
    const found = h.assess().findings.find(f => f.code === 'survey.cells-in-hex')!
    expect(found.title).toBe('2 rows tell their cell in hexadecimal')
    const before = h.doc.readings.length
    h.apply(changesOf(found.cures[0]!.steps, h.id))
    expect(cellsOf(h).sort()).toEqual(['1715004', '74565'])
    // What was kept is there still, replaced.
    expect(h.doc.readings).toHaveLength(before + 2)
    expect(h.assess().findings.some(f => f.code === 'survey.cells-in-hex')).toBe(false)
  })
  it('decimal ones stay: of a device that told no letter, and of what it told afterwards', () => {
    const h = new House('router').reads('Kitchen', -100, 5, { cellId: '74565' })
    expect(hexCells(logIndex(h.doc))).toEqual([])
    h.reads('Hall', -99, 5, { cellId: '1A2B3C', takenAtUtc: '2026-04-01T12:00:00.000Z' })
    expect(hexCells(logIndex(h.doc)).map(c => c.cellId)).toEqual(['1715004'])
  })
  it('a code of more bits than a cell has is left as it is', () => {
    const h = new House('router').reads('Kitchen', -100, 5, { cellId: 'FFFFFFFF' })
    expect(hexCells(logIndex(h.doc))).toEqual([])
  })
})
