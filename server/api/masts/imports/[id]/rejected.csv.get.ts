import { Readable } from 'node:stream'
import { csvLine } from '../../../../../core/formats'
import { rejectedRows } from '../../../../services/mast-import'
import { requireImport } from '../../../../http/imports'

/** Every row that was not taken, with its line and the reason. */
export default defineEventHandler(async event => {
  const { me, state } = await requireImport(event)
  setResponseHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setResponseHeader(event, 'content-disposition', 'attachment; filename="rows-not-taken.csv"')
  async function* lines() {
    yield csvLine(['line', 'reason', 'row'])
    for await (const rows of rejectedRows(me.crewId, state.id)) yield rows.map(r => csvLine([r.line, r.reason, r.row])).join('')
  }
  return sendStream(event, Readable.from(lines()))
})
