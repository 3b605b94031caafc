/** `npm test`: what is missing is installed, then lint, types, unit tests, and the real interface. Ends with one line of counts. */
import { spawn } from 'node:child_process'
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT, chromium, ensureBuild, ensureNodeModules, ensurePackages, passingFolder, say } from './lib/system.mjs'

ensurePackages({ browser: true })
ensureNodeModules()

// What the steps leave in temporary folders lies in one of this run's own, and goes with it.
process.env.TMPDIR = passingFolder()

let passed = 0
let failed = 0

/** Runs a step with its output shown. @returns {Promise<boolean>} */
const step = (/** @type {string} */ name, /** @type {string[]} */ args, env = {}) =>
  new Promise(done => {
    const started = Date.now()
    say(`\n— ${name}`)
    const child = spawn(process.execPath, args, {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', ...env },
    })
    child.once('error', () => done(false))
    child.once('exit', code => {
      say(`— ${name}: ${code === 0 ? 'good' : 'failed'}, ${Math.round((Date.now() - started) / 1000)} s`)
      done(code === 0)
    })
  })
const count = (/** @type {boolean} */ ok) => (ok ? passed++ : failed++)
const bin = (/** @type {string} */ path) => join(ROOT, 'node_modules', path)
const results = join(ROOT, 'test-results')
rmSync(results, { recursive: true, force: true })

count(await step('prepare', [bin('nuxt/bin/nuxt.mjs'), 'prepare']))
/** Steps one after the other. */
const inTurn = async (/** @type {[string, string[]][]} */ ...steps) => {
  for (const [name, args] of steps) count(await step(name, args))
}
/** Adds the counts of a runner's own report; a run without a report is one failure. */
function tally(/** @type {boolean} */ ok, /** @type {string} */ file, /** @type {(r: any) => [number, number]} */ read) {
  if (!existsSync(file)) return failed++
  const [good, bad] = read(JSON.parse(readFileSync(file, 'utf8')))
  passed += good
  failed += bad
  if (!ok && bad === 0) failed++
}

const unit = join(results, 'unit.json')
let build = ''
// What reads the text alone has one core; the build has the other, which has one thread most of the time, then the unit tests.
await Promise.all([
  inTurn(
    ['types', [bin('vue-tsc/bin/vue-tsc.js'), '--noEmit', '-p', '.nuxt/tsconfig.app.json']],
    ['types of the server', [bin('vue-tsc/bin/vue-tsc.js'), '--noEmit', '-p', '.nuxt/tsconfig.server.json']],
    ['types of the tests', [bin('typescript/bin/tsc'), '--noEmit', '-p', 'tests/tsconfig.json']],
    ['format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level=warn', '.']],
    ['lint', [bin('eslint/bin/eslint.js'), '.']],
  ),
  ensureBuild().then(async made => {
    build = made
    const json = ['--reporter=default', '--reporter=json', `--outputFile.json=${unit}`]
    tally(await step('unit tests', [bin('vitest/vitest.mjs'), 'run', ...json]), unit, r => [r.numPassedTests, r.numFailedTests])
  }),
])

const e2e = join(results, 'e2e.json')
/** Tests that passed only when they were run once more: they count as passed, and are named. */
const again = (/** @type {any} */ suite) => [
  ...(suite.specs ?? []).filter((/** @type {any} */ s) => s.tests.some((/** @type {any} */ t) => t.status === 'flaky')),
  ...(suite.suites ?? []).flatMap(again),
]
tally(
  await step('the real interface', [bin('@playwright/test/cli.js'), 'test'], {
    MULTIVOX_CHROMIUM: chromium() ?? '',
    MULTIVOX_BUILD: build,
  }),
  e2e,
  r => {
    for (const s of again(r)) say(`passed the second time only: ${s.file}:${s.line} ${s.title}`)
    return [r.stats.expected + r.stats.flaky, r.stats.unexpected]
  },
)

say(`\n${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)
