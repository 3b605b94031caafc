import { describe, expect, it } from 'vitest'
import { CONTRACT, parties } from './contract'
import { FakeServer } from './fake-server'

describe('the server in memory keeps the contract of changes', () => {
  it.each(CONTRACT.map(c => [c.title, c] as const))('%s', async (_title, clause) => {
    const held = await clause.holds(await parties(new FakeServer().transport()))
    for (const [said, promised] of held) expect(said).toEqual(promised)
  })
})
