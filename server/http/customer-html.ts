/** The customer's page as HTML: no script, nothing fetched, everything said within it. */
import { dayInWords } from '../../core/report'
import type { CustomerPage } from '../../core/report'
import { STYLE } from './customer-style'

const ESCAPED: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' }
const esc = (text: string | number): string => String(text).replace(/[&<>"']/g, c => ESCAPED[c]!)

/** As on the screen: whole numbers above ten, one place below. */
const rate = (v: number): string => (v >= 10 ? String(Math.round(v)) : String(Number(v.toPrecision(2))))

const text = (x: number, y: number, words: string, more = ''): string => `<text x="${x}" y="${y}" ${more}>${esc(words)}</text>`
const SHELLS: Record<CustomerPage['kind'], string> = {
  home: '<path d="M104 86 246 30 360 86V154H104Z"/>',
  building: '<path d="M104 42H360V154H104ZM104 98H360"/>',
  vehicle:
    '<path d="M104 70H330L352 104 360 110V140H104Z"/>' +
    '<circle cx="150" cy="142" r="13" fill="var(--ink)"/><circle cx="310" cy="142" r="13" fill="var(--ink)"/>',
  boat: '<path d="M90 104H366C350 140 320 150 290 150H160C126 150 104 136 90 104Z"/><path d="M240 104V14"/>',
}
const ANTENNA_AT: Record<CustomerPage['kind'], [number, number]> = {
  home: [104, 52],
  building: [110, 26],
  vehicle: [150, 56],
  boat: [240, 18],
}
const stroke = (d: string, width: number, more = ''): string =>
  `<path d="${d}" fill="none" stroke="var(--ink)" stroke-width="${width}" ${more}/>`
const box = ([x, y, width, height]: readonly [number, number, number, number], fill: string): string =>
  `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="var(--${fill})" stroke="var(--ink)" stroke-width="2"/>`
const LONGEST_ROOM = 20
const BOLD = 'font-weight="700"'

/** The site in a few strokes, by its kind: where the antenna, the box and the room are, not to scale. */
function picture({ kind, picture: p }: CustomerPage): string {
  const [ax, ay] = ANTENNA_AT[kind]
  const boxY = kind === 'boat' ? 116 : 128
  const room = p.room && p.room.length > LONGEST_ROOM ? `${p.room.slice(0, LONGEST_ROOM - 1)}…` : p.room
  const parts = [
    `<path d="M0 ${ay - 14}L${ax - 8} ${ay}L0 ${ay + 26}Z" fill="var(--beam)"/>`,
    '<rect y="154" width="390" height="18" fill="var(--ground)"/>',
    stroke('M0 154H390', 2),
    `<g fill="var(--sheet)" stroke="var(--ink)" stroke-width="2">${SHELLS[kind]}</g>`,
    stroke(`M${ax + 6} ${ay - 16}V${ay + 44}`, 3),
    stroke(`M${ax} ${ay + 14}V${boxY}H196`, 2),
    box([ax - 8, ay - 13, 9, 28], 'sheet'),
    box([196, boxY - 10, 42, 20], 'ink'),
    text(217, boxY + 4.5, 'box', `text-anchor="middle" fill="var(--sheet)" ${BOLD}`),
    p.inside ? stroke(`M250 ${boxY - 8}q7 8 0 16M258 ${boxY - 14}q13 14 0 28`, 1.6) : '',
    text(ax - 10, Math.max(13, ay - 22), 'antenna', `text-anchor="middle" ${BOLD}`),
    ...(p.mast ?? []).map((words, i) => text(6, ay + 42 + 17 * i, words, `fill="var(--link)" ${BOLD}`)),
    room ? text(352, boxY - 22, room, `text-anchor="end" ${BOLD}`) : '',
  ]
  const label = 'antenna outside, cable in, box inside'
  return `<figure><svg viewBox="0 0 390 172" role="img" aria-label="${label}" font-size="13">${parts.join('')}</svg></figure>`
}

/** The rate on a scale, what was agreed as a mark. */
function scale(now: number, agreed: number | null, said: string): string {
  const end = Math.max(now, agreed ?? 0, 1) * 1.35
  const x = (v: number): number => Math.round((358 * v) / end)
  const line = (d: string, colour: string, width: number): string =>
    `<path d="${d}" stroke="var(--${colour})" stroke-width="${width}"/>`
  const lines = [
    line('M0 10H358', 'line', 6),
    line(`M0 10H${x(now)}`, 'ink', 6),
    agreed === null ? '' : line(`M${x(agreed)} 1V19`, 'agreed', 5),
  ]
  return `<svg class="bar" viewBox="0 0 358 26" width="100%" role="img" aria-label="${esc(said)}">${lines.join('')}</svg>`
}

function speed({ speed: s, kept }: CustomerPage): string {
  if (s.now === null) return ''
  const met = s.agreed !== null && s.now >= s.agreed
  const said = `${rate(s.now)}: ${met ? 'as agreed' : 'less than agreed'}`
  const before =
    s.before === null
      ? ''
      : `<p><span class="soft">before</span><br><span class="was">${rate(s.before)}</span></p>` +
        '<p class="was" aria-hidden="true">→</p>'
  const now =
    `<p><span class="soft">now</span><br><span class="big">${rate(s.now)}</span> <b>Mbit/s</b><br>` +
    `down${s.where ? `, ${esc(s.where)}` : ''}</p>`
  const mark = (m: boolean): string => `<li class="${m ? 'met' : 'not'}">${m ? '✓' : '✗'} `
  return [
    `<section><div class="now">${before}${now}</div>`,
    `<p>${esc(s.does ?? '')}</p>`,
    s.did && s.did !== s.does ? `<p class="soft">before: ${esc(s.did)}</p>` : '',
    scale(s.now, s.agreed, said),
    s.agreed === null ? '' : `<p>${rate(s.agreed)} was agreed. <span class="${met ? 'met' : 'not'}">${esc(said)}</span></p>`,
    `<ul>${kept.map(k => `${mark(k.met)}${esc(k.words)}</li>`).join('')}</ul></section>`,
  ].join('')
}

const rowsOf = (rows: readonly { name: string; words: string }[]): string =>
  `<dl>${rows.map(r => `<dt>${esc(r.name)}</dt><dd>${esc(r.words)}</dd>`).join('')}</dl>`
const list = (title: string, rows: readonly { name: string; words: string }[], after = ''): string =>
  rows.length ? `<section><h2>${esc(title)}</h2>${rowsOf(rows)}${after}</section>` : ''

const HEAD =
  '<meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">' +
  '<meta name="robots" content="noindex,nofollow"><meta name="referrer" content="no-referrer">'
const page = (title: string, body: string): string =>
  `<!doctype html><html lang="en"><head>${HEAD}<title>${esc(title)}</title><style>${STYLE}</style></head><body>${body}</body></html>`

/** @param calendar  address of the page's own calendar, of the same link */
export function customerHtml(p: CustomerPage, calendar: string): string {
  const phone = p.phone.replace(/[^+\d]/g, '')
  const stops = p.ifItStops
  const call = phone
    ? `<a class="call" href="tel:${esc(phone)}"><span>Call ${esc(p.crew)}</span><span>${esc(p.phone)}</span></a>`
    : `<p class="call">Call ${esc(p.crew)}</p>`
  return page(
    p.title,
    [
      `<header><h1>${esc(p.title)}</h1><p class="soft">fitted by ${esc(p.crew)}, ${dayInWords(p.fittedOn)}</p></header><main>`,
      picture(p),
      speed(p),
      list(
        'How it comes in',
        p.connections.map(c => ({ name: c.name, words: c.when })),
        p.switchWords ? `<p class="soft">${esc(p.switchWords)}</p>` : '',
      ),
      list('Your networks', p.networks),
      `<section><h2>If it stops <span class="soft">${esc(stops.first)}</span></h2>`,
      `<ol>${stops.steps.map(s => `<li>${esc(s)}</li>`).join('')}</ol><p class="last">${esc(stops.last)}</p></section>`,
      `<section><h2>Look at <a href="${esc(calendar)}">put in my calendar</a></h2>`,
      rowsOf(p.lookAt.map(l => ({ name: l.onDay ? dayInWords(l.onDay) : l.when, words: l.what }))),
      `</section></main><footer>${call}<p>This page ends ${dayInWords(p.endsOn)}. It shows nothing but this.</p></footer>`,
    ].join(''),
  )
}

/** One answer for a link that was never made, has ended or was withdrawn. */
export const NO_PAGE = page(
  'Nothing here',
  '<header><h1>There is nothing at this address</h1></header><section>' +
    '<p>The link may have ended. Whoever fitted your antenna can give you another.</p></section>',
)
