/** Services on a database of their own, without the interface and without a request. */
import { v7 as uuidv7 } from 'uuid'
import { ensureDatabase } from '../scripts/lib/cluster.mjs'
import { migrate } from '../scripts/lib/database.mjs'
import { partById } from '../core/catalogue/parts'
import { newJobChanges } from '../core/job/defaults'
import { connect } from '../server/data/db'
import type { Db } from '../server/data/db'
import * as accounts from '../server/services/accounts'
import { applyBatch } from '../server/services/changes'
import { agree, crewFacts, crewWhole } from '../server/services/crew'
import * as jobs from '../server/services/jobs'
import { dropPart, keepParts, ownParts } from '../server/services/parts'
import { keepPrices, priceBook } from '../server/services/prices'
import { Refused } from '../server/services/refused'
import { crewToken } from '../server/services/setup'
import { newLink } from '../server/services/tokens'
import { expect, test } from './support/fixtures'

const PASSWORD = 'a long enough password'
const url = (name: string) => process.env.MULTIVOX_TEST_URL!.replace('DATABASE', name)

let db: Db
let address: string
let end: () => Promise<void>
test.beforeAll(async () => {
  const name = `mv_services_${Date.now()}_${process.pid}`
  await ensureDatabase({ url }, name)
  await migrate(url(name))
  address = url(name)
  const open = connect(address, 4)
  db = open.db
  end = () => open.client.end()
})
test.afterAll(() => end())

/** A crew of its own, made by its link. */
async function crew(name = 'Crew'): Promise<accounts.Member> {
  const email = `${uuidv7()}@crew.example`
  return accounts.acceptLink(db, { token: await crewToken(address), password: PASSWORD, name: 'Ona', email, crew: name })
}
const invite = (lead: accounts.Member, role: 'lead' | 'installer') =>
  newLink(db, {
    crewId: lead.crewId,
    kind: 'invite',
    madeBy: lead.id,
    role,
    expiresAt: new Date(Date.now() + 60_000).toISOString(),
  })
async function join(lead: accounts.Member, role: 'lead' | 'installer', email = `${uuidv7()}@crew.example`) {
  return accounts.acceptLink(db, { token: await invite(lead, role), password: PASSWORD, name: 'Tam', email })
}
/** @returns status and field of what was refused */
const refused = (asked: Promise<unknown>) =>
  asked.then(
    () => 'taken',
    (e: unknown) => (e instanceof Refused ? [e.status, e.errors?.[0]?.field ?? null] : e),
  )

test('a link makes a member once; what is missing, taken or made up is refused with its field', async () => {
  const lead = await crew()
  expect(lead.role).toBe('lead')
  const token = await invite(lead, 'installer')
  const whole = { token, password: PASSWORD, name: 'Tam', email: ` ${lead.email.toUpperCase()}` }
  expect(await refused(accounts.acceptLink(db, { token, password: PASSWORD, email: 'x@y' }))).toEqual([422, 'name'])
  expect(await refused(accounts.acceptLink(db, whole))).toEqual([409, 'email'])
  const made = await accounts.acceptLink(db, { ...whole, email: 'Tam@Crew.example' })
  expect([made.email, made.role, made.crewId]).toEqual(['tam@crew.example', 'installer', lead.crewId])
  expect(await refused(accounts.acceptLink(db, { ...whole, email: 'other@crew.example' }))).toEqual([410, null])
  expect(await refused(accounts.acceptLink(db, { ...whole, token: 'made up by somebody' }))).toEqual([410, null])
})

test('the last lead stays; who is shut out has no session, and no link of theirs is good', async () => {
  const lead = await crew()
  expect(await refused(accounts.changeMember(db, lead.crewId, lead.id, { role: 'viewer' }))).toEqual([409, null])
  const second = await join(lead, 'lead')
  const session = await accounts.beginSession(db, second)
  const asked = { crew: lead.crewId, session }
  expect((await accounts.memberOfSession(db, asked))[0]).toMatchObject({ memberId: second.id, role: 'lead', crewName: 'Crew' })
  const theirs = await invite(second, 'installer')
  await accounts.changeMember(db, lead.crewId, second.id, { active: false })
  expect(await accounts.memberOfSession(db, asked)).toEqual([])
  expect(await accounts.memberByEmail(db, second.email, true)).toBeNull()
  expect(
    await refused(accounts.acceptLink(db, { token: theirs, password: PASSWORD, name: 'N', email: 'n@crew.example' })),
  ).toEqual([410, null])
  expect(await refused(accounts.changeMember(db, lead.crewId, uuidv7(), { role: 'lead' }))).toEqual([404, null])
  const other = await crew()
  expect(await refused(accounts.changeMember(db, other.crewId, lead.id, { role: 'viewer' }))).toEqual([404, null])
})

test('a session ends by itself and by hand; a sealing secret is a member’s own', async () => {
  const [one, two] = [await crew(), await crew()]
  const session = await accounts.beginSession(db, one)
  await accounts.forgetSessions(db)
  expect(await accounts.memberOfSession(db, { crew: one.crewId, session })).toHaveLength(1)
  await accounts.endSession(db, two.crewId, session)
  expect(await accounts.memberOfSession(db, { crew: one.crewId, session })).toHaveLength(1)
  await accounts.endSession(db, one.crewId, session)
  expect(await accounts.memberOfSession(db, { crew: one.crewId, session })).toEqual([])
  const secret = async (m: accounts.Member) => Buffer.from(await accounts.sealingSecret(db, m.crewId, m.id)).toString('hex')
  expect(await secret(one)).toHaveLength(64)
  expect(await secret(one)).not.toBe(await secret(two))
  expect(await refused(accounts.sealingSecret(db, one.crewId, two.id))).toEqual([404, null])
})

test('what a crew agrees on is its own', async () => {
  const [one, two] = [await crew('One'), await crew('Two')]
  await agree(db, one.crewId, { carriers: [{ name: 'Tern', codes: ['99901'] }], enough: { needDataDbm: -100 } })
  expect(await crewFacts(db, one.crewId)).toEqual({
    carriers: [{ name: 'Tern', codes: ['99901'] }],
    enough: { needDataDbm: -100 },
    terrainVersion: 0,
  })
  expect((await crewFacts(db, two.crewId)).carriers).toEqual([])
  expect((await crewFacts(db, null)).carriers).toEqual([])
  expect((await crewWhole(db, two.crewId)).members.map(m => m.email)).toEqual([two.email])
})

test('parts and prices: the one sent last counts, the catalogue’s ids are taken, another crew’s stay', async () => {
  const [one, two] = [await crew(), await crew()]
  const shipped = partById('line-400')!
  const own = { ...shipped, id: 'own-line' }
  expect(await refused(keepParts(db, one.crewId, [shipped]))).toEqual([422, 'id'])
  expect(await keepParts(db, one.crewId, [own, { ...own, name: 'Named last' }])).toBe(1)
  expect((await ownParts(db, one.crewId)).map(p => p.name)).toEqual(['Named last'])
  expect(await ownParts(db, two.crewId)).toEqual([])
  expect(await dropPart(db, two.crewId, 'own-line')).toBe(false)
  expect(await dropPart(db, one.crewId, 'own-line')).toBe(true)
  const price = { key: 'own-line', minor: 1200, supplier: null, leadDays: 3, inVan: 0 }
  expect(await keepPrices(db, one.crewId, [price, { ...price, minor: 900 }])).toBe(1)
  await keepPrices(db, one.crewId, [{ ...price, minor: null, supplier: 'Depot' }])
  expect((await priceBook(db, one.crewId)).prices).toEqual([{ ...price, minor: null, supplier: 'Depot' }])
  expect((await priceBook(db, two.crewId)).prices).toEqual([])
})

test('a job and its pictures are removed and read by its own crew alone; another job’s picture is not written over', async () => {
  const [one, two] = [await crew(), await crew()]
  const make = async (m: accounts.Member) => {
    const { jobId, changes } = newJobChanges({ name: 'A job', latDeg: 46.7, lonDeg: -41.4, zone: 'UTC' }, uuidv7)
    await applyBatch(db, { crewId: m.crewId, memberId: m.id }, jobId, { sent: changes })
    return jobId
  }
  const [job, other] = [await make(one), await make(one)]
  const picture = { id: uuidv7(), mime: 'image/png', bytes: new Uint8Array([1, 2, 3]) }
  expect(await jobs.keepPicture(db, one.crewId, job, picture)).toBe(true)
  expect(await jobs.keepPicture(db, one.crewId, other, { ...picture, bytes: new Uint8Array([9]) })).toBe(false)
  expect([...(await jobs.pictureOf(db, one.crewId, job, picture.id))!.bytes]).toEqual([1, 2, 3])
  expect(await jobs.pictureOf(db, one.crewId, other, picture.id)).toBeNull()
  expect(await jobs.pictureOf(db, two.crewId, job, picture.id)).toBeNull()
  expect(await jobs.sequenceOf(db, two.crewId, job)).toBeNull()
  expect(await jobs.sequenceOf(db, one.crewId, job)).toBeGreaterThan(3)
  expect(await jobs.removeJob(db, two.crewId, job)).toBe(false)
  expect(await jobs.removeJob(db, one.crewId, job)).toBe(true)
  expect(await jobs.pictureOf(db, one.crewId, job, picture.id)).toBeNull()
})
