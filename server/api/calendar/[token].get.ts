import { DateTime } from 'luxon'
import { boardVisits, calendarOf } from '../../services/board'
import { calendarCrew } from '../../services/tokens'
import { useDb } from '../../data/db'
import { problem } from '../../http/problem'

const BACK_DAYS = 30
const AHEAD_DAYS = 180

/** The crew's visits for a calendar program, which signs in nowhere: who has the address may read them. */
export default defineEventHandler(async event => {
  const token = (getRouterParam(event, 'token') ?? '').replace(/\.ics$/, '')
  const crew = token.length > 100 ? null : await calendarCrew(useDb(), token)
  if (!crew) problem(404, 'This calendar has ended: make a new address on the board.')
  const today = DateTime.utc()
  const from = today.minus({ days: BACK_DAYS }).toISODate()
  const to = today.plus({ days: AHEAD_DAYS }).toISODate()
  const list = await boardVisits(useDb(), crew.crewId, { from, to })
  setResponseHeaders(event, { 'content-type': 'text/calendar; charset=utf-8', 'cache-control': 'private, no-store' })
  return calendarOf(crew.crewName, list, new Date())
})
