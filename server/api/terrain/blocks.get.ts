import { packHeights, readBlocks } from '../../services/terrain'
import { queryOf, queryText } from '../../http/validate'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { problem } from '../../http/problem'

const MOST = 60

/**
 * Blocks in one answer: for each a line `key side ground` or `key side cover`, an empty line, then
 * their heights one after another. A block not held is left out. `coarse=1` thins them to 3″.
 */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  const keys = (queryText(event, 'keys', 1000) ?? '').split(',').filter(Boolean)
  const coarse = queryOf(event, 'coarse') === '1'
  if (keys.length > MOST || keys.some(k => !/^\d{1,4}:\d{1,4}$/.test(k)))
    problem(422, `keys must be at most ${MOST} of row:column.`, [{ field: 'keys', message: 'do not read as blocks' }])
  const db = useDb()
  const [ground, cover] = await Promise.all([
    readBlocks(db, me.crewId, keys, { kind: 'ground', coarse }),
    readBlocks(db, me.crewId, keys, { kind: 'cover', coarse }),
  ])
  setResponseHeader(event, 'content-type', 'application/octet-stream')
  setResponseHeader(event, 'cache-control', 'private, no-store')
  const head = [...ground.map(b => `${b.key} ${b.side} ground\n`), ...cover.map(b => `${b.key} ${b.side} cover\n`)]
  return Buffer.concat([Buffer.from(head.join('') + '\n'), ...[...ground, ...cover].map(packHeights)])
})
