/** Whole jobs by hand: an empty crew made by its link, then what a person presses, types and reads; no request of the test's own. */
import type { Locator, Page } from '@playwright/test'
import { ensureDatabase } from '../../scripts/lib/cluster.mjs'
import { importTs, migrate } from '../../scripts/lib/database.mjs'
import { freePort, startServer } from '../../scripts/lib/system.mjs'
import { choose } from '../support/choose'
import { expect, sent, test as base, watchErrors } from '../support/fixtures'

export { expect, sent }

export const DESK = { width: 1280, height: 800 }
export const ROOF = { width: 390, height: 844 }

/** A database with no crew in it, and its server: as a real installation begins. */
export const test = base.extend<{ walker: Walker }, { own: { origin: string; databaseUrl: string } }>({
  own: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use, info) => {
      const name = `mv_walk${info.parallelIndex}_${Date.now()}`
      const url = (d: string) => process.env.MULTIVOX_TEST_URL!.replace('DATABASE', d)
      await ensureDatabase({ url }, name)
      await migrate(url(name))
      const port = await freePort()
      const env = {
        NUXT_DATABASE_URL: url(name),
        NUXT_SESSION_PASSWORD: 'a password of the walks, long enough for sealing',
        NUXT_SESSION_COOKIE_SECURE: 'false',
      }
      const server = await startServer({ build: process.env.MULTIVOX_BUILD!, port, env, quiet: true })
      await use({ origin: `http://localhost:${port}`, databaseUrl: url(name) })
      await server.stop()
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ own }, use) => use(own.origin),
  walker: async ({ page, own, quiet }, use) => {
    watchErrors(page, quiet)
    const walker = new Walker(page, quiet)
    await walker.join(await walker.link(own.databaseUrl))
    await use(walker)
    expect(quiet, 'console errors and failed requests').toEqual([])
  },
})

/** What a plan of which nothing is noted is asked for; each goes when it is met. */
export const NOTED_ON_THE_PLAN = [
  /earth is noted/,
  /comes in nowhere/,
  /What holds .* is not noted/,
  /overhead line/,
  /Which socket/,
]
/** What the owner says, which no drawing does. */
export const ASKED_OF_THE_OWNER = /Ask before/

let crews = 0

export class Walker {
  readonly crew = `Walkers ${process.pid} ${++crews}`
  readonly address = `${this.crew.replaceAll(' ', '.')}@crew.invalid`.toLowerCase()
  readonly password = 'a long enough password'

  constructor(
    readonly page: Page,
    private readonly quiet: string[] = [],
  ) {}

  /** The same person at another page. */
  on(page: Page): Walker {
    return Object.assign(Object.create(Walker.prototype) as Walker, this, { page })
  }

  /** Answers of that status were provoked. */
  forgive(status: number): void {
    const others = this.quiet.filter(e => !e.includes(`status of ${status}`))
    this.quiet.splice(0, this.quiet.length, ...others)
  }

  /** What the person who keeps the installation hands over: a link that is good once. */
  async link(databaseUrl: string): Promise<string> {
    const { crewToken } = (await importTs('server/services/setup.ts')) as { crewToken: (url: string) => Promise<string> }
    return crewToken(databaseUrl)
  }

  async join(token: string): Promise<void> {
    await this.page.goto(`/join#${token}`)
    await this.type({
      'Name of the crew': this.crew,
      'Your name': 'Ona Vale',
      'Address to sign in with': this.address,
    })
    await this.page.locator('input[type=password]').fill(this.password)
    await this.page.locator('form button[type=submit]').click()
    await expect(this.page.locator('[data-test=new-job]')).toBeVisible()
    await expect(this.page.locator('[data-test=job]')).toHaveCount(0)
  }

  /** A carrier of the crew, by its codes. */
  async carrier(name: string, codes: string): Promise<void> {
    await this.page.goto('/crew')
    await this.page.locator('[data-test=add-carrier]').click()
    await this.page.getByLabel('Carrier', { exact: true }).last().fill(name)
    await this.page.getByLabel('Codes').last().fill(codes)
    await this.page.locator('[data-test=keep-carriers]').click()
    await expect(this.page.getByRole('status').filter({ hasText: 'kept' })).toBeVisible()
    await this.page.goto('/')
  }

  /** A job from the list, as its kind of site. */
  async begin(kind: string, job: string, more: Record<string, string>): Promise<void> {
    await this.page.locator('[data-test=new-job]').click()
    if (kind !== 'home') await this.choose(this.page.locator('[data-test=kind]'), kind)
    await this.type({ Job: job, ...more })
    await this.page.locator('[data-test=create]').click()
    await expect(this.page).toHaveURL(/\/ask$/)
    await sent(this.page)
  }

  /** Texts into fields by their labels, each left before the next. */
  async type(texts: Record<string, string>, where: Page | Locator = this.page): Promise<void> {
    for (const [label, text] of Object.entries(texts)) {
      const field = where.getByLabel(label, { exact: true }).first()
      await field.fill(text)
      await field.blur()
    }
  }

  /** Each keeps what was typed, and says so after a reload. */
  async keeps(texts: Record<string, string>): Promise<void> {
    await sent(this.page)
    await this.page.reload()
    for (const [label, text] of Object.entries(texts))
      await expect(this.page.getByLabel(label, { exact: true }).first(), label).toHaveValue(text)
  }

  /** A mast entered by hand, and aimed at. */
  async mast(name: string, position: string, carrier: string, bands: string, heightM = '30'): Promise<void> {
    await this.section('Bearings')
    await this.page.locator('[data-test=add-mast]').click()
    const dialog = this.page.getByRole('dialog')
    await this.type({ Mast: name, Position: position }, dialog)
    await dialog.getByLabel('Carrier').fill(carrier)
    await dialog.getByLabel('Bands or channels').fill(bands)
    await dialog.getByLabel('Height over ground').fill(heightM)
    await dialog.getByRole('button', { name: 'Add it' }).click()
    await this.page.locator(`[data-test="mast-${name}"]`).click()
    await this.page.locator('[data-test=choose-mast]').click()
    await expect(this.page.locator('.chosen')).toContainText(/B\d/)
    await sent(this.page)
  }

  choose(select: Locator, word: string | RegExp): Promise<void> {
    return choose(select, word)
  }

  section(name: string): Promise<void> {
    return this.page.getByRole('link', { name, exact: true }).click()
  }

  act(name: string): Promise<void> {
    return this.page
      .locator('header.acts')
      .getByRole('button', { name: new RegExp(name) })
      .click()
  }

  /** An act is green only when nothing of it is open; pressed where it stands, it says what is. */
  async open(name: string): Promise<string> {
    const button = this.page.locator('header.acts').getByRole('button', { name: new RegExp(name) })
    if ((await button.getAttribute('aria-current')) === null) await button.click()
    await button.click()
    const sheet = this.page.getByRole('dialog')
    await expect(sheet).toBeVisible()
    const text = (await sheet.textContent()) ?? ''
    await this.page.keyboard.press('Escape')
    await expect(sheet).toBeHidden()
    return text
  }

  /** A place of the walk, picked by its name. */
  spot(name: string): Promise<void> {
    return this.page
      .getByRole('button', { name: new RegExp(`^${name}`) })
      .first()
      .click()
  }

  /** A level at the spot that is shown. */
  async level(figures: Record<string, string>): Promise<void> {
    for (const [field, text] of Object.entries(figures)) await this.page.locator(`[data-test=${field}] input`).fill(text)
    await this.page.locator('[data-test=keep]').click()
    await expect(this.page.locator('[data-test=rsrp] input')).toHaveValue('')
  }

  /** What is typed next was taken at an hour of yesterday, by the clock of the place. */
  async takenAt(hour: string): Promise<void> {
    const { page } = this
    const taken = page.locator('[data-test=taken]')
    if (!(await taken.isVisible())) {
      if (!(await page.locator('[data-test=taken-change]').isVisible())) await page.locator('[data-test=more]').click()
      await page.locator('[data-test=taken-change]').click()
    }
    const day = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10)
    await taken.fill(`${day}T${hour}`)
  }

  async speed(down: string, up: string): Promise<void> {
    await this.page.locator('[data-test=down] input').fill(down)
    await this.page.locator('[data-test=up] input').fill(up)
    await this.page.locator('[data-test=keep]').click()
    await expect(this.page.locator('[data-test=down] input')).toHaveValue('')
  }

  /** A vehicle or boat begun at a place, of a body, with its measures kept. */
  async beginAboard(kind: 'vehicle' | 'boat', job: string, body: string, more: Record<string, string> = {}): Promise<void> {
    const { page } = this
    await this.carrier('Tern', '99901')
    await this.begin(kind, job, { 'Position (may follow)': '47.42, -40.60', 'Agreed down': '6' })
    await this.choose(page.locator('[data-test=carrier]'), 'Tern')
    await this.choose(page.locator('[data-test=body]'), body)
    await this.type(more)
    await this.keeps(more)
  }

  /** May we drill: as the owner said. */
  mayDrill(word: 'yes' | 'no' | 'still to ask'): Promise<void> {
    return this.choose(this.page.locator('.mv-choice').filter({ hasText: 'May we drill?' }), word)
  }

  /** The same level three times at a place of the walk, each a little off the other. */
  async levels(spot: string, rsrp: number, more: Record<string, string> = {}): Promise<void> {
    await this.spot(spot)
    for (const off of [0, 1, -1]) await this.level({ rsrp: String(rsrp + off), band: 'B20', width: '10', ...more })
  }

  /** Another part in the place of one in the order of the signal. */
  async swap(role: string, part: string): Promise<void> {
    const row = this.page.locator(`[data-role="${role}"]`).first()
    await this.choose(row.locator('.mv-choice').first(), part)
    await expect(row).toContainText(part)
    await sent(this.page)
  }

  /** An approach pressed: its kit stands in the order of the signal. */
  async lay(approach: 'router' | 'booster'): Promise<void> {
    await this.page.locator(`[data-test=approach-${approach}]`).click()
    await expect(this.page.locator('[data-role=outside]').first()).toBeVisible()
    await sent(this.page)
  }

  /** A section of Plan, from wherever one is. */
  async planned(section: 'Choose' | 'Place' | 'Level' | 'Route'): Promise<void> {
    const act = this.page.locator('header.acts').getByRole('button', { name: /Plan/ })
    if ((await act.getAttribute('aria-current')) === null) await act.click()
    await this.section(section)
  }

  /** A part put where its figures say, m. */
  async place(part: string, figures: { along?: string; across?: string; up?: string }): Promise<void> {
    const { page } = this
    await page.locator(`[data-test=part-${part}]`).first().focus()
    const along = page.locator('[data-test=place-along] input')
    if (!(await along.isVisible())) await page.locator('[data-test=by-figure]').click()
    for (const [field, value] of Object.entries(figures)) {
      const input = page.locator(`[data-test=place-${field}] input`)
      await input.fill(value)
      await input.blur()
      await expect(input).toHaveValue(new RegExp(`^${value.replace('-', '[-−]').replace('.', '\\.')}0*$`))
    }
    await sent(page)
  }

  /** Just outside the wall at which the antenna stands, as Place says it along the building. @param halfM  half of its length */
  async outsideOf(halfM: number): Promise<string> {
    const { page } = this
    await page.locator('[data-test=part-outside]').first().focus()
    const along = page.locator('[data-test=place-along] input')
    if (!(await along.isVisible())) await page.locator('[data-test=by-figure]').click()
    const now = Number((await along.inputValue()).replace('−', '-'))
    return String(Math.sign(now) * (halfM + 0.2))
  }

  /** Route, the layer of one thing. */
  async layer(name: 'mounts' | 'way-in' | 'surge' | 'feeds' | 'cables'): Promise<void> {
    await this.planned('Route')
    await this.page.locator(`[data-test=layer-${name}]`).click()
  }

  /** What a box aboard is fed from is noted, and its lead is laid from there. */
  async fedFrom12V(): Promise<void> {
    await this.source('12 V feed')
    await this.layer('feeds')
    await this.page.locator('[data-test=lay-supply]').click()
    await expect(this.page.locator('[data-test=supply-lead]')).toContainText('Fuse tap')
    await sent(this.page)
  }

  /** Tested three times with what is fitted: not met before, and met by that. */
  async proved(downs: readonly [string, string, string], up: string, agreed: string): Promise<void> {
    const verdict = this.page.locator('[data-test=verdict]')
    await expect(verdict).toContainText('nothing measured after yet')
    await this.page.getByRole('button', { name: 'speed', exact: true }).click()
    for (const down of downs) await this.speed(down, up)
    await expect(verdict).toContainText(`meets the ${agreed} agreed`)
  }

  /** On the phone: the card, and the list of all its steps. */
  async card(): Promise<void> {
    await this.page.setViewportSize(ROOF)
    await this.page.goto(this.page.url().replace(/\/job\/([^/]+).*/, '/job/$1/card'))
    await expect(this.page.locator('[data-test=step-words]')).toBeVisible()
    await this.page.locator('[data-test=all-steps]').click()
  }

  /** A step of the card, by what it is and its words. */
  step(kind: string, words?: string | RegExp): Locator {
    const all = this.page.locator(`[data-test=step-${kind}]`)
    return words === undefined ? all : all.filter({ hasText: words })
  }

  /** A step opened out of the list: what it says. */
  async openStep(kind: string, words?: string | RegExp): Promise<Locator> {
    await this.step(kind, words).first().click()
    await expect(this.page.locator('[data-test=step-words]')).toBeVisible()
    return this.page.locator('main')
  }

  /** Route: what holds the antenna, how far the lines are, a hole with nothing behind it, and a bonded rod. */
  async route(mount: string | RegExp): Promise<void> {
    const { page } = this
    await this.section('Route')
    await page.locator('[data-test=layer-mounts]').click()
    await this.choose(page.locator('[data-test=mount-kind]').first(), mount)
    const line = page.locator('[data-test=line-away] input').first()
    await line.fill('40')
    await line.blur()
    await page.locator('[data-test=layer-way-in]').click()
    await page.locator('[data-test=take-wall]').click()
    await this.choose(page.locator('[data-test=behind]').first(), 'nothing in the way')
    await page.locator('[data-test=layer-surge]').click()
    await page.locator('[data-test=add-electrode]').click()
    const electrode = page.locator('[data-test=electrode]')
    await this.choose(electrode.locator('[data-test=electrode-kind]'), /rod/)
    await this.choose(electrode.locator('[data-test=bonded]'), 'yes')
    await this.choose(electrode.locator('.mv-choice').last(), /solid/)
    await sent(page)
  }

  /** What a box is fed from is noted, where the plan puts it. */
  async source(kind: 'mains socket' | '12 V feed'): Promise<void> {
    await this.planned('Place')
    await this.page.locator('[data-test=pins]').first().click()
    await this.page.locator(`[data-test=add-${kind.replaceAll(' ', '-')}]`).click()
    await this.page.keyboard.press('Escape')
    await sent(this.page)
  }

  /** On the card: the step that is shown is done, every fact of its gates said; `read` is for a dry run, dBm. */
  async done(read?: string): Promise<void> {
    const words = this.page.locator('[data-test=step-words]')
    const before = (await words.textContent())!
    const unsaid = this.page.locator('[data-test=gate] input[type=checkbox]:enabled:not(:checked)')
    for (let left = await unsaid.count(); left; left--) {
      await unsaid.first().check()
      await expect(unsaid).toHaveCount(left - 1)
    }
    if (read) {
      const level = this.page.locator('[data-test=dry-reads] .read', { hasText: 'RSRP' }).first().getByLabel('read')
      await level.fill(read)
      await level.blur()
    }
    await this.page.locator('[data-test=step-done]').click()
    await expect(words).not.toHaveText(before)
  }

  /** Handed over open: somebody is named, and it is frozen. @returns the paper */
  /** A phrase of a sentence: typed, or chosen where it is a list. */
  async says(label: string, value: string | RegExp, where: Page | Locator = this.page): Promise<void> {
    const list = where.locator('.mv-choice', { has: this.page.getByLabel(label, { exact: true }) })
    if (await list.count()) return choose(list.first(), value)
    const field = where.getByLabel(label, { exact: true })
    await field.fill(value as string)
    await field.blur()
  }
  /** Every network's delivered password gone and its new one with its owner; the doors of each box looked at. */
  async handAccess(to: string): Promise<void> {
    for (const kind of ['house', 'management']) {
      await this.page.locator(`[data-test=network-${kind}]`).click()
      const net = this.page.locator('[data-test=network-editor]')
      await expect(net).toContainText(kind === 'house' ? 'For the house' : 'For management')
      await this.says('Password', 'changed', net)
      await this.says('Given to', to, net)
    }
    await this.page.keyboard.press('Escape')
    const doors = this.page.getByRole('button', { name: /looked at: both off/ })
    for (let left = await doors.count(); left > 0; left--) {
      await doors.first().click()
      await expect(doors).toHaveCount(left - 1)
    }
  }
  async handOver(by: string): Promise<Locator> {
    await this.act('Keep')
    await this.page.locator('[data-test=hand-over]').click()
    await expect(this.page.locator('[data-test=take-open]')).toBeDisabled()
    await this.page.locator('[data-test=taken-by] input').fill(by)
    await this.page.locator('[data-test=take-open]').click()
    await expect(this.page.locator('[data-test=frozen]')).toHaveCount(1)
    return this.page.locator('.paper')
  }
}
