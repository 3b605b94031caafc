/** What has to be on the machine: npm packages and Debian's. Needs nothing but Node.js itself. */
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

export const ROOT = resolve(fileURLToPath(new URL('../..', import.meta.url)))
export const DATA = process.env.MULTIVOX_DATA ? resolve(process.env.MULTIVOX_DATA) : join(ROOT, '.data')

/** Where figures are asked for as JSON, what a person reads goes beside them. */
export const say = (/** @type {string} */ text) =>
  (process.argv.includes('--json') ? process.stderr : process.stdout).write(`${text}\n`)

/** Ends with a message and no stack. @returns {never} */
export function fail(/** @type {string} */ text) {
  process.stderr.write(`\n${text}\n`)
  process.exit(1)
}

/** Runs a command to its end, its output shown. */
export function run(/** @type {string} */ command, /** @type {string[]} */ args, options = {}) {
  const r = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options })
  if (r.error) fail(`${command} could not be started: ${r.error.message}`)
  return r.status ?? 1
}

/** Installs the locked npm packages where they are missing or older than the lock. */
export function ensureNodeModules() {
  const lock = join(ROOT, 'package-lock.json')
  const stamp = join(ROOT, 'node_modules', '.multivox-lock')
  const hash = createHash('sha256').update(readFileSync(lock)).digest('hex')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return
  say('Installing npm packages…')
  if (run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']) !== 0) fail('npm ci failed; see above.')
  writeFileSync(stamp, hash)
}

/** The folder of PostgreSQL's own programs, newest version first. @returns {string | null} */
export function postgresBin() {
  const base = '/usr/lib/postgresql'
  if (!existsSync(base)) return null
  const versions = readdirSync(base)
    .filter(v => existsSync(join(base, v, 'bin', 'initdb')))
    .sort((a, b) => Number(b) - Number(a))
  return versions[0] ? join(base, versions[0], 'bin') : null
}

/** Chromium without a window to draw: a page opens in half the time. */
const SHELL = '/usr/bin/chromium-headless-shell'
export const chromium = () => [SHELL, '/usr/bin/chromium', '/usr/bin/chromium-browser'].find(p => existsSync(p)) ?? null

const has = (/** @type {string} */ command) => spawnSync('sh', ['-c', `command -v ${command}`]).status === 0

/** Debian's package makes a system cluster of its own unless it is told not to; nobody here wants that one. */
const QUIET = '/etc/postgresql-common/createcluster.d'
const KEEP_OFF = `mkdir -p ${QUIET} && { [ -e ${QUIET}/multivox.conf ] || echo 'create_main_cluster = false' > ${QUIET}/multivox.conf; }`

/** What installs packages, as one line of shell for root. */
export function installLine(/** @type {string[]} */ packages, quiet = '') {
  const keepOff = packages.includes('postgresql') && !existsSync('/etc/postgresql') ? `${KEEP_OFF} && ` : ''
  return `${keepOff}apt-get update ${quiet}&& apt-get install -y ${quiet}--no-install-recommends ${packages.join(' ')}`
}

/** The same for a person to type, by whatever makes root here. @param {{ root: boolean, sudo: boolean }} who */
export function handLine(/** @type {string[]} */ packages, { root, sudo }) {
  const line = installLine(packages)
  if (root) return line
  return `${sudo ? 'sudo sh' : 'su'} -c ${JSON.stringify(line)}`
}

/** Who installs here: root, or sudo, which may ask for a password. */
function installer() {
  const root = process.getuid?.() === 0
  const sudo = !root && has('sudo')
  const unasked = root || (sudo && spawnSync('sudo', ['-n', 'true']).status === 0)
  return { root, sudo, unasked: unasked && has('apt-get') }
}

/** @returns whether they are installed now */
function tryInstall(/** @type {string[]} */ packages, /** @type {boolean} */ root) {
  say(`Installing ${packages.join(', ')}…`)
  const script = `export DEBIAN_FRONTEND=noninteractive; ${installLine(packages, '-qq ')}`
  const [command, ...rest] = [...(root ? [] : ['sudo', '-n']), 'sh', '-c', script]
  return spawnSync(/** @type {string} */ (command), rest, { stdio: ['ignore', 'ignore', 'inherit'] }).status === 0
}

/** Installs Debian packages; as root, or by sudo without a question; else says the exact command. */
function install(/** @type {string[]} */ packages) {
  const who = installer()
  const manual = handLine(packages, who)
  if (!has('apt-get')) fail(`${packages.join(' and ')} wanted, and apt-get is not here. Install them by hand.`)
  if (!who.unasked) fail(`${packages.join(' and ')} wanted. Run this once, then try again:\n\n  ${manual}`)
  if (!tryInstall(packages, who.root)) fail(`Installing failed. Try by hand:\n\n  ${manual}`)
}

export function ensurePackages({ browser = false } = {}) {
  const database = () => (postgresBin() ? [] : ['postgresql'])
  // The shell where it can be had, all in one go; what is then still wanted is had with Chromium whole, or asked for.
  if (browser && !existsSync(SHELL)) {
    const who = installer()
    if (who.unasked) tryInstall([...database(), 'chromium-headless-shell'], who.root)
  }
  const wanted = [...database(), ...(browser && !chromium() ? ['chromium'] : [])]
  if (wanted.length) install(wanted)
  if (!postgresBin()) fail('PostgreSQL was installed, but its programs are not under /usr/lib/postgresql.')
}

/** @returns {Promise<number>} `wanted` where it is free, else any free port of loopback */
export function freePort(wanted = 0) {
  return new Promise((done, failed) => {
    const server = createServer()
    server.once('error', e => (wanted ? freePort().then(done, failed) : failed(e)))
    server.listen(wanted, '127.0.0.1', () => {
      const address = server.address()
      const port = typeof address === 'object' && address ? address.port : 0
      server.close(() => done(port))
    })
  })
}

/** A temporary folder that is gone when this process ends, with whatever others have left in it. */
export function passingFolder() {
  const folder = mkdtempSync(join(tmpdir(), 'multivox-run-'))
  // The database's user reads what is handed to it through here.
  chmodSync(folder, 0o711)
  process.on('exit', () => rmSync(folder, { recursive: true, force: true }))
  return folder
}

/** Where builds lie, each in a folder named by what it was made of: one that is served is never written over. */
const BUILDS = join(ROOT, '.output')
const SOURCES = ['app', 'core', 'server', 'shared', 'public', 'demo', 'nuxt.config.ts', 'package-lock.json']

/** A hash over names and contents of everything that goes into the build; what the build itself writes is no part of it. */
function sourceStamp() {
  const hash = createHash('sha256')
  const walk = (/** @type {string} */ path) => {
    if (path === join(ROOT, 'app', 'generated')) return
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) walk(join(path, name))
    else if (!/\.test\.ts$/.test(path))
      hash.update(`${path.slice(ROOT.length)} ${createHash('sha256').update(readFileSync(path)).digest('hex')}\n`)
  }
  for (const p of SOURCES) if (existsSync(join(ROOT, p))) walk(join(ROOT, p))
  return hash.digest('hex').slice(0, 16)
}

const STAGES = /** @type {const} */ ([
  [/vite v[\d.]+ building/i, 'building the interface'],
  [/Client built/i, 'the interface is built'],
  [/precache/i, 'listing what is kept for use without a network'],
  [/Prerender/i, 'writing the shell'],
  [/Building Nuxt Nitro|Building.*nitro/i, 'building the server'],
])

/** Says what a build is at: a line for each stage, and that it still goes on. */
function progress() {
  const began = Date.now()
  const at = () => `${String(Math.round((Date.now() - began) / 1000)).padStart(3)} s`
  let stage = 'reading the sources'
  const timer = setInterval(() => say(`  ${at()}  ${stage}…`), 10_000)
  return {
    /** @param {string} text */
    heard(text) {
      const found = STAGES.find(([r]) => r.test(text))?.[1]
      if (found && found !== stage) say(`  ${at()}  ${(stage = found)}`)
    },
    end() {
      clearInterval(timer)
      say(`  ${at()}  built`)
    },
  }
}

/** Builds the app where there is no build of its present sources. @returns {Promise<string>} the build's folder */
export async function ensureBuild() {
  const stamp = sourceStamp()
  const folder = join(BUILDS, stamp)
  if (existsSync(join(folder, '.whole'))) return folder
  mkdirSync(BUILDS, { recursive: true })
  const lock = await claimWhenFree(join(BUILDS, 'building.json'))
  try {
    if (existsSync(join(folder, '.whole'))) return folder
    say('Building, once for these sources…')
    await buildInto(join(BUILDS, `.making-${process.pid}`), folder)
    prune(stamp)
    return folder
  } finally {
    lock.release()
  }
}

async function buildInto(/** @type {string} */ making, /** @type {string} */ folder) {
  const seen = progress()
  let said = ''
  const env = {
    ...process.env,
    TMPDIR: passingFolder(),
    MULTIVOX_OUTPUT: making,
    MULTIVOX_BUILD_DIR: join(ROOT, '.nuxt-build'),
    NODE_OPTIONS: '--max-old-space-size=6144',
    NUXT_TELEMETRY_DISABLED: '1',
  }
  const code = await new Promise(done => {
    const child = spawn(process.execPath, [join(ROOT, 'node_modules/nuxt/bin/nuxt.mjs'), 'build'], {
      cwd: ROOT,
      env,
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    for (const stream of [child.stdout, child.stderr]) {
      stream.on('data', d => {
        said += d
        seen.heard(String(d))
      })
    }
    const parted = endsWithUs(child)
    const ended = (/** @type {number | null} */ n) => {
      parted()
      done(n)
    }
    child.once('error', () => ended(1))
    child.once('exit', ended)
  })
  seen.end()
  if (code !== 0) fail(`${said}\nThe build failed; see above.`)
  rmSync(folder, { recursive: true, force: true })
  renameSync(making, folder)
  writeFileSync(join(folder, '.whole'), '')
}

/** How the browser of tests, pictures and bench is started: nothing it does of itself, no sandbox that root has not. */
export const CHROMIUM_ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]

/**
 * A child that does not outlive this process: whatever ends us ends it first.
 * @returns what lets go of it once it has ended
 */
function endsWithUs(/** @type {import('node:child_process').ChildProcess} */ child) {
  const kill = () => void child.kill('SIGKILL')
  const signals = /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP'])
  const onSignal = (/** @type {NodeJS.Signals} */ signal) => {
    kill()
    // Where nobody else listens, the signal does what it would have done.
    if (process.listenerCount(signal) > 1) return
    process.removeListener(signal, onSignal)
    process.kill(process.pid, signal)
  }
  process.once('exit', kill)
  for (const s of signals) process.on(s, onSignal)
  return () => {
    process.removeListener('exit', kill)
    for (const s of signals) process.removeListener(s, onSignal)
  }
}

/** Takes older builds away that nobody serves; and what a build that was broken off left. */
function prune(/** @type {string} */ keep) {
  const served = new Set()
  for (const pid of readdirSync('/proc').filter(p => /^\d+$/.test(p))) {
    try {
      for (const m of readFileSync(`/proc/${pid}/cmdline`, 'utf8').matchAll(/\.output\/([0-9a-f]{16})\//g)) served.add(m[1])
    } catch {
      // It has ended meanwhile, or is another's.
    }
  }
  const left = ['server', 'public', 'nitro.json', '.stamp']
  for (const name of readdirSync(BUILDS)) {
    const old =
      (/^[0-9a-f]{16}$/.test(name) && name !== keep && !served.has(name)) || name.startsWith('.making-') || left.includes(name)
    if (old) rmSync(join(BUILDS, name), { recursive: true, force: true })
  }
}

/** A secret of this data folder, made once. */
export async function secret(/** @type {string} */ folder, /** @type {string} */ name) {
  const { randomBytes } = await import('node:crypto')
  const file = join(folder, `${name}.secret`)
  if (!existsSync(file)) {
    mkdirSync(folder, { recursive: true })
    writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 })
  }
  return readFileSync(file, 'utf8')
}

/** When a process began, in ticks since the machine did: a number given to another process later is told apart. @returns {string | null} */
function startOf(/** @type {number} */ pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? null
  } catch {
    return null
  }
}

/** @typedef {{ pid: number, start: string | null, at?: string }} Claim */

/** @returns {Claim | null} who holds the file, where that one lives */
function holderOf(/** @type {string} */ file) {
  try {
    const held = JSON.parse(readFileSync(file, 'utf8'))
    return held.start !== null && startOf(held.pid) === held.start ? held : null
  } catch {
    return null
  }
}

/** Takes a file for this process, where nobody that lives has it. @returns {{ tell: (at: string) => void, release: () => void } | null} */
export function claim(/** @type {string} */ file) {
  const mine = { pid: process.pid, start: startOf(process.pid) }
  for (let i = 0; i < 3; i++) {
    try {
      writeFileSync(file, JSON.stringify(mine), { flag: 'wx', mode: 0o600 })
      return {
        tell: at => writeFileSync(file, JSON.stringify({ ...mine, at })),
        release: () => rmSync(file, { force: true }),
      }
    } catch (e) {
      if (/** @type {{ code?: string }} */ (e).code !== 'EEXIST') throw e
      if (holderOf(file)) return null
      rmSync(file, { force: true })
    }
  }
  return null
}

async function claimWhenFree(/** @type {string} */ file) {
  for (let said = false; ; said = true) {
    const mine = claim(file)
    if (mine) return mine
    if (!said) say('Another build goes on in this folder: waiting for it…')
    await new Promise(done => setTimeout(done, 500))
  }
}

/** One Multivox a data folder: a second start says where the first one is, and ends without touching it. */
export function claimFolder(/** @type {string} */ folder) {
  mkdirSync(folder, { recursive: true })
  const file = join(folder, 'running.json')
  const mine = claim(file)
  if (mine) return mine
  const held = holderOf(file)
  say(
    `\n  Multivox runs here already${held?.at ? `:  ${held.at}` : ' and is starting'}\n\n  It is process ` +
      `${held?.pid ?? '?'}; Ctrl-C where it was started ends it. Nothing was changed.`,
  )
  return process.exit(0)
}

const SERVER_LINE = /\.output\/[0-9a-f]{16}\/server\/index\.mjs/

/** Ends a server left over from a crash: ours by its number, kept in the data folder, and by what it runs. */
export async function endLeftOver(/** @type {string} */ pidFile) {
  if (!existsSync(pidFile)) return
  const pid = Number(readFileSync(pidFile, 'utf8'))
  rmSync(pidFile)
  const line = `/proc/${pid}/cmdline`
  if (!pid || !existsSync(line) || !SERVER_LINE.test(readFileSync(line, 'utf8'))) return
  process.kill(pid, 'SIGTERM')
  for (let i = 0; i < 50 && existsSync(line); i++) await new Promise(done => setTimeout(done, 100))
}

/**
 * Starts a built server and waits until it answers.
 * @param {{ build: string, port: number, host?: string, env: Record<string, string>, quiet?: boolean, pidFile?: string }} o
 */
export async function startServer({ build, port, host = '127.0.0.1', env, quiet = false, pidFile }) {
  if (pidFile) await endLeftOver(pidFile)
  const child = spawn(process.execPath, [join(build, 'server', 'index.mjs')], {
    cwd: ROOT,
    env: {
      ...process.env,
      NODE_ENV: 'production',
      HOST: host,
      PORT: String(port),
      NITRO_HOST: host,
      NITRO_PORT: String(port),
      ...env,
    },
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'],
  })
  if (pidFile) writeFileSync(pidFile, String(child.pid))
  const ended = new Promise(done => child.once('exit', done))
  for (let i = 0; ; i++) {
    if (child.exitCode !== null) throw new Error(`the server ended at once, with ${child.exitCode}`)
    const ok = await fetch(`http://127.0.0.1:${port}/api/health`).then(
      r => r.ok,
      () => false,
    )
    if (ok) break
    if (i > 150) {
      child.kill('SIGKILL')
      throw new Error('the server did not answer within 30 s')
    }
    await new Promise(done => setTimeout(done, 200))
  }
  return {
    child,
    port,
    stop: async (/** @type {NodeJS.Signals} */ signal = 'SIGTERM') => {
      if (child.exitCode === null && child.signalCode === null) child.kill(signal)
      await ended
      if (pidFile) rmSync(pidFile, { force: true })
    },
  }
}

/**
 * Ctrl-C, a kill, or the server's own end: the server is stopped first, then the cluster, each once.
 * @param {{ stop: () => Promise<void> } | null} cluster
 */
export function endTogether(cluster, /** @type {{ release: () => void } | null} */ held = null) {
  let stopping = false
  const running = {
    /** @type {Awaited<ReturnType<typeof startServer>> | null} */
    server: null,
    /** @type {{ port: number, close: () => Promise<void> } | null} */
    standins: null,
    stop: async (/** @type {number} */ code) => {
      if (stopping) return
      stopping = true
      await running.server?.stop()
      await running.standins?.close()
      await cluster?.stop()
      held?.release()
      process.exit(code)
    },
  }
  // A terminal that is closed (SIGHUP) ends everything as Ctrl-C does.
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void running.stop(0))
  return running
}
