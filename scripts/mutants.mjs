/**
 * How much the unit tests notice: single changes are made to the code, one at a time in a copy, and the tests of what
 * hangs on that file are run. `npm run mutants -- [--count 200] [--seed 1] [--in core/radio]`; not part of `npm test`.
 */
import { execFileSync, spawn } from 'node:child_process'
import { cpSync, mkdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { parseArgs } from 'node:util'
import ts from 'typescript'
import { importTs } from './lib/database.mjs'
import { DATA, ROOT } from './lib/system.mjs'

const { values: asked } = parseArgs({
  options: {
    count: { type: 'string', default: '200' },
    seed: { type: 'string', default: '1' },
    in: { type: 'string', multiple: true, default: ['core', 'app/job', 'app/replica', 'server/services'] },
  },
})
/** Share of the mutants that is to be noticed. */
const WANTED = 0.85
/** A change may make a loop without end: what runs longer was noticed, ms. */
const LONGEST_MS = 240_000

const SWAPS = new Map([
  ['+', '-'],
  ['-', '+'],
  ['*', '/'],
  ['/', '*'],
  ['<', '<='],
  ['<=', '<'],
  ['>', '>='],
  ['>=', '>'],
  ['===', '!=='],
  ['!==', '==='],
  ['&&', '||'],
  ['||', '&&'],
  ['??', '&&'],
])

/** @returns {{ file: string, from: number, to: number, line: number, was: string, is: string }[]} every change that is tried in a file */
function sites(/** @type {string} */ file) {
  const text = readFileSync(join(ROOT, file), 'utf8')
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true)
  /** @type {ReturnType<typeof sites>} */
  const found = []
  const put = (/** @type {ts.Node} */ node, /** @type {string} */ is) => {
    const from = node.getStart(source)
    const line = source.getLineAndCharacterOfPosition(from).line + 1
    found.push({ file, from, to: node.end, line, was: node.getText(source), is })
  }
  const visit = (/** @type {ts.Node} */ node) => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node)) return
    if (ts.isBinaryExpression(node)) {
      const swap = SWAPS.get(node.operatorToken.getText(source))
      const isText = node.operatorToken.kind === ts.SyntaxKind.PlusToken && /['"`]/.test(node.getText(source))
      if (swap && !isText) put(node.operatorToken, swap)
    }
    if (ts.isNumericLiteral(node)) put(node, node.text === '0' ? '1' : `(${node.text} * 1.1 + 1)`)
    if (node.kind === ts.SyntaxKind.TrueKeyword) put(node, 'false')
    if (node.kind === ts.SyntaxKind.FalseKeyword) put(node, 'true')
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      put(node, node.operand.getText(source))
    if (ts.isConditionalExpression(node)) {
      const [a, b] = [node.whenTrue.getText(source), node.whenFalse.getText(source)]
      put(node, `${node.condition.getText(source)} ? ${b} : ${a}`)
    }
    if (ts.isReturnStatement(node) && node.expression && ts.isArrayLiteralExpression(node.expression)) put(node.expression, '[]')
    ts.forEachChild(node, visit)
  }
  visit(source)
  return found.filter(s => s.was !== s.is)
}

const files = execFileSync('git', ['ls-files', ...asked.in], { cwd: ROOT, encoding: 'utf8' })
  .split('\n')
  .filter(f => /\.ts$/.test(f) && !/\.test\.ts$|\/index\.ts$|\/fake-|contract\.ts$/.test(f))
const all = files.flatMap(sites)
const { seeded } = await importTs('core/random.ts')
const random = seeded(Number(asked.seed))
const chosen = all
  .map(site => ({ site, at: random() }))
  .sort((a, b) => a.at - b.at)
  .slice(0, Number(asked.count))
  .map(c => c.site)

/** The copy that is changed: nothing of the repository itself is. */
const COPY = join(DATA, 'mutants')
rmSync(COPY, { recursive: true, force: true })
mkdirSync(COPY, { recursive: true })
for (const f of execFileSync('git', ['ls-files'], { cwd: ROOT, encoding: 'utf8' }).split('\n').filter(Boolean))
  if (!f.startsWith('docs/')) cpSync(join(ROOT, f), join(COPY, f))
for (const f of ['.nuxt', 'app/generated']) cpSync(join(ROOT, f), join(COPY, f), { recursive: true })
symlinkSync(join(ROOT, 'node_modules'), join(COPY, 'node_modules'))

/** @returns {Promise<'noticed' | 'survived' | 'no test'>} what some tests say of the change */
function tested(/** @type {string[]} */ which) {
  return new Promise(done => {
    let said = ''
    const args = ['vitest', ...which, '--run', '--bail', '1', '--reporter', 'dot']
    const run = spawn('npx', args, { cwd: COPY, detached: true })
    const end = setTimeout(() => run.pid && process.kill(-run.pid, 'SIGKILL'), LONGEST_MS)
    for (const stream of [run.stdout, run.stderr]) stream.on('data', d => (said += d))
    run.on('close', code => {
      clearTimeout(end)
      done(/No test files found/.test(said) ? 'no test' : code === 0 ? 'survived' : 'noticed')
    })
  })
}
/** The tests beside the file are quick and notice most; only then all that hang on it are run. */
const tried = async (/** @type {string} */ file) =>
  (await tested([`${dirname(file)}/`])) === 'noticed' ? 'noticed' : tested(['related', file])

console.log(`${chosen.length} of ${all.length} changes in ${files.length} files, seed ${asked.seed}`)
const survivors = []
let noticed = 0
for (const [i, site] of chosen.entries()) {
  const path = join(COPY, site.file)
  const text = readFileSync(path, 'utf8')
  writeFileSync(path, text.slice(0, site.from) + site.is + text.slice(site.to))
  const how = await tried(site.file)
  writeFileSync(path, text)
  if (how === 'noticed') noticed++
  else survivors.push({ ...site, how })
  const change = `${site.was.replace(/\s+/g, ' ').slice(0, 40)} → ${site.is.replace(/\s+/g, ' ').slice(0, 40)}`
  console.log(`${i + 1}/${chosen.length} ${how.padEnd(8)} ${site.file}:${site.line}  ${change}`)
}
rmSync(COPY, { recursive: true, force: true })
const share = chosen.length ? noticed / chosen.length : 1
console.log(`\n${noticed} of ${chosen.length} noticed (${Math.round(100 * share)} %, wanted ${100 * WANTED} %)`)
for (const s of survivors) console.log(`  ${s.how}: ${s.file}:${s.line}`)
process.exit(share >= WANTED ? 0 : 1)
