/** What has to be on the machine: npm packages and Debian's. Needs nothing but Node.js itself. */
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

export const ROOT = resolve(fileURLToPath(new URL('../..', import.meta.url)))
export const DATA = process.env.MULTIVOX_DATA ? resolve(process.env.MULTIVOX_DATA) : join(ROOT, '.data')

export const say = (/** @type {string} */ text) => process.stdout.write(`${text}\n`)

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
  const versions = readdirSync(base).filter(v => existsSync(join(base, v, 'bin', 'initdb'))).sort((a, b) => Number(b) - Number(a))
  return versions[0] ? join(base, versions[0], 'bin') : null
}

export const chromium = () => ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(p => existsSync(p)) ?? null

const has = (/** @type {string} */ command) => spawnSync('sh', ['-c', `command -v ${command}`]).status === 0

/**
 * Installs Debian packages; as root, or by sudo without a question; else says the exact command.
 * The system cluster that Debian's package would make is not made where none is there yet.
 */
function install(/** @type {string[]} */ packages) {
  const root = process.getuid?.() === 0
  const sudo = !root && has('sudo') && spawnSync('sudo', ['-n', 'true']).status === 0
  const manual = `${root ? '' : 'sudo '}apt-get update && ${root ? '' : 'sudo '}apt-get install -y ${packages.join(' ')}`
  if (!has('apt-get')) fail(`${packages.join(' and ')} wanted, and apt-get is not here. Install them by hand.`)
  if (!root && !sudo) fail(`${packages.join(' and ')} wanted. Run this once, then try again:\n\n  ${manual}`)
  say(`Installing ${packages.join(', ')}…`)
  const prefix = root ? [] : ['sudo', '-n']
  const quiet = '/etc/postgresql-common/createcluster.d'
  const keepOff = packages.includes('postgresql') && !existsSync('/etc/postgresql')
    ? `mkdir -p ${quiet} && { [ -e ${quiet}/multivox.conf ] || echo 'create_main_cluster = false' > ${quiet}/multivox.conf; } && `
    : ''
  const script = `${keepOff}export DEBIAN_FRONTEND=noninteractive; apt-get update -qq && apt-get install -y -qq --no-install-recommends ${packages.join(' ')}`
  const [command, ...rest] = [...prefix, 'sh', '-c', script]
  const r = spawnSync(/** @type {string} */ (command), rest, { stdio: ['ignore', 'ignore', 'inherit'] })
  if (r.status !== 0) fail(`Installing failed. Try by hand:\n\n  ${manual}`)
}

export function ensurePackages({ browser = false } = {}) {
  const wanted = []
  if (!postgresBin()) wanted.push('postgresql')
  if (browser && !chromium()) wanted.push('chromium')
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

/** A hash over names, sizes and times of everything that goes into the build. */
function sourceStamp() {
  const hash = createHash('sha256')
  const walk = (/** @type {string} */ path) => {
    const s = statSync(path)
    if (s.isDirectory()) for (const name of readdirSync(path).sort()) walk(join(path, name))
    else if (!/\.test\.ts$/.test(path)) hash.update(`${path.slice(ROOT.length)} ${s.size} ${createHash('sha256').update(readFileSync(path)).digest('hex')}\n`)
  }
  for (const p of ['app', 'core', 'server', 'shared', 'public', 'demo', 'nuxt.config.ts', 'package-lock.json']) if (existsSync(join(ROOT, p)) && p !== 'app/generated') walk(join(ROOT, p))
  return hash.digest('hex')
}

/** Builds the app where its sources changed since the last build. */
export function ensureBuild() {
  const stamp = join(ROOT, '.output', '.stamp')
  const now = sourceStamp()
  if (existsSync(join(ROOT, '.output', 'server', 'index.mjs')) && existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return
  say('Building…')
  const r = spawnSync('npx', ['nuxt', 'build'], { cwd: ROOT, encoding: 'utf8', env: { ...process.env, NODE_OPTIONS: '--max-old-space-size=6144', NUXT_TELEMETRY_DISABLED: '1' } })
  if (r.status !== 0) fail(`${r.stdout}\n${r.stderr}\nThe build failed; see above.`)
  writeFileSync(stamp, now)
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

/** Ends a server left over from a crash: ours by its number, kept in the data folder, and by what it runs. */
export async function endLeftOver(/** @type {string} */ pidFile) {
  if (!existsSync(pidFile)) return
  const pid = Number(readFileSync(pidFile, 'utf8'))
  rmSync(pidFile)
  const line = `/proc/${pid}/cmdline`
  if (!pid || !existsSync(line) || !readFileSync(line, 'utf8').includes(join(ROOT, '.output', 'server', 'index.mjs'))) return
  process.kill(pid, 'SIGTERM')
  for (let i = 0; i < 50 && existsSync(line); i++) await new Promise(done => setTimeout(done, 100))
}

/** Starts the built server and waits until it answers. @param {{ port: number, host?: string, env: Record<string, string>, quiet?: boolean, pidFile?: string }} o */
export async function startServer({ port, host = '127.0.0.1', env, quiet = false, pidFile }) {
  if (pidFile) await endLeftOver(pidFile)
  const child = spawn(process.execPath, [join(ROOT, '.output', 'server', 'index.mjs')], {
    cwd: ROOT, env: { ...process.env, NODE_ENV: 'production', HOST: host, PORT: String(port), NITRO_HOST: host, NITRO_PORT: String(port), ...env },
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'],
  })
  if (pidFile) writeFileSync(pidFile, String(child.pid))
  const ended = new Promise(done => child.once('exit', done))
  for (let i = 0; ; i++) {
    if (child.exitCode !== null) throw new Error(`the server ended at once, with ${child.exitCode}`)
    const ok = await fetch(`http://127.0.0.1:${port}/api/health`).then(r => r.ok, () => false)
    if (ok) break
    if (i > 150) {
      child.kill('SIGKILL')
      throw new Error('the server did not answer within 30 s')
    }
    await new Promise(done => setTimeout(done, 200))
  }
  return {
    child, port,
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
export function endTogether(cluster) {
  let stopping = false
  const running = {
    /** @type {Awaited<ReturnType<typeof startServer>> | null} */
    server: null,
    stop: async (/** @type {number} */ code) => {
      if (stopping) return
      stopping = true
      await running.server?.stop()
      await cluster?.stop()
      process.exit(code)
    },
  }
  process.on('SIGINT', () => void running.stop(0))
  process.on('SIGTERM', () => void running.stop(0))
  return running
}
