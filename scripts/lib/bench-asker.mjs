/** Asks over and over on a number of connections; what to ask comes as JSON on standard input, the times go out the same way. */
import { randomUUID } from 'node:crypto'
import { Agent, request } from 'node:http'
import { performance } from 'node:perf_hooks'

let text = ''
for await (const chunk of process.stdin) text += chunk
const { origin, cookie, asks, connections, seconds } = JSON.parse(text)
const agent = new Agent({ keepAlive: true, maxSockets: connections })
const until = performance.now() + seconds * 1000
/** @type {number[]} */
const times = []

/** @returns {Promise<void>} */
function once(/** @type {{ method?: string, path: string, body?: unknown }} */ ask) {
  return new Promise((done, failed) => {
    // A change is taken once: each asking has a number of its own.
    const body = ask.body ? JSON.stringify(ask.body).replace('NEW', randomUUID().replace(/^(.{14})4/, '$17')) : null
    const began = performance.now()
    const headers = { cookie, ...(body ? { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) } : {}) }
    const r = request(origin + ask.path, { agent, method: ask.method ?? 'GET', headers }, answer => {
      if (answer.statusCode !== 200) failed(new Error(`${ask.path}: ${answer.statusCode}`))
      answer.on('data', () => {})
      answer.on('end', () => {
        times.push(performance.now() - began)
        done()
      })
    })
    r.on('error', failed)
    r.end(body)
  })
}

await Promise.all(
  Array.from({ length: connections }, async (_, i) => {
    for (let n = i; performance.now() < until; n++) await once(asks[n % asks.length])
  }),
)
process.stdout.write(JSON.stringify(times), () => process.exit(0))
