import ical from 'ical-generator'
import { readCustomerPage } from '../../services/customer-pages'
import { useDb } from '../../data/db'
import { customerHtml, NO_PAGE } from '../../http/customer-html'
import { mayOpenPage } from '../../http/tries'
import type { CustomerPage } from '../../../core/report'

/** Longer than any token: what is longer is none. */
const LONGEST = 80
const HEADERS = {
  'cache-control': 'private, no-store',
  'content-security-policy':
    "default-src 'none'; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
  'referrer-policy': 'no-referrer',
  'x-robots-tag': 'noindex, nofollow',
}

/** The customer's page, or its calendar: whoever has the link reads them, and nobody else learns whether there is one. */
export default defineEventHandler(async event => {
  setResponseHeaders(event, HEADERS)
  const asked = getRouterParam(event, 'token') ?? ''
  const isCalendar = asked.endsWith('.ics')
  const token = asked.replace(/\.ics$/, '').slice(0, LONGEST)
  const isLet = await mayOpenPage(event)
  const found = isLet ? await readCustomerPage(useDb(), token, !isCalendar) : null
  if (!found) {
    setResponseStatus(event, 404)
    setResponseHeader(event, 'content-type', 'text/html; charset=utf-8')
    return NO_PAGE
  }
  if (isCalendar) {
    setResponseHeaders(event, {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': 'attachment; filename="look-at.ics"',
    })
    return calendar(found)
  }
  setResponseHeader(event, 'content-type', 'text/html; charset=utf-8')
  return customerHtml(found, `${token}.ics`)
})

function calendar(p: CustomerPage): string {
  const out = ical({
    name: p.title.replace(/\p{Cc}+/gu, ' '),
    prodId: { company: 'Multivox', product: 'Look at', language: 'EN' },
  })
  for (const l of p.lookAt)
    if (l.onDay)
      out.createEvent({
        id: `${l.onDay}-${p.fittedOn}@multivox`,
        start: new Date(`${l.onDay}T00:00:00Z`),
        allDay: true,
        summary: l.what,
        description: p.phone ? `${p.crew}, ${p.phone}` : p.crew,
      })
  // Lines of one maker’s own, which no calendar needs.
  const lines = out
    .toString()
    .split('\r\n')
    .filter(l => !/^X-(?!WR-)/.test(l))
  return `${lines.join('\r\n').trimEnd()}\r\n`
}
