// npm test: installs what is missing, then lint, types, core, server and browser tests; ends with a plain summary line.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs'
import { join, relative } from 'node:path'
import { installDebian, installModules } from './lib/install.mjs'
import { startRig } from './lib/rig.mjs'
import { say } from './lib/say.mjs'

const only = process.argv[2]
const wants = (part) => !only || only === part
if (
  only &&
  !['lint', 'types', 'core', 'app', 'server', 'trial', 'e2e', 'firm', 'two'].includes(only)
) {
  process.stderr.write('Usage: npm test [-- lint|types|core|app|server|trial|e2e|firm|two]\n')
  process.exit(2)
}
let passed = 0
let failed = 0
/** What failed, by name: the last lines of a long run say it, not only how many. */
const failures = []
installDebian({
  mariadbd: 'mariadb-server',
  'mariadb-install-db': 'mariadb-server',
  mariadb: 'mariadb-client',
  ...(wants('e2e') || wants('firm') || wants('two') ? { chromium: 'chromium' } : {}),
  ...(wants('two') ? { nginx: 'nginx-light' } : {}),
  ...(wants('server') || wants('e2e') || wants('firm')
    ? {
        ...{ hledger: 'hledger', pdftotext: 'poppler-utils', openssl: 'openssl' },
        ...{ nginx: 'nginx-light', caddy: 'caddy', 'systemd-analyze': 'systemd' },
      }
    : {}),
})
installModules()
/** Whether what is made of the catalogue of routes and of the guide is younger than all of it. */
function isPrepared() {
  const made = ['.nuxt/tsconfig.json', '.nuxt/addresses.ts', '.nuxt/help.ts']
  if (!made.every((file) => existsSync(file))) return false
  const oldest = Math.min(...made.slice(1).map((file) => statSync(file).mtimeMs))
  const files = ['shared', 'docs/guide', 'modules'].flatMap((folder) =>
    readdirSync(folder, { recursive: true, withFileTypes: true }),
  )
  return files.every(({ parentPath, name }) => statSync(join(parentPath, name)).mtimeMs < oldest)
}
if (!isPrepared()) spawnSync('npx', ['nuxt', 'prepare'], { stdio: 'inherit' })
const run = (command, args, env = {}) =>
  spawnSync(command, args, {
    stdio: 'inherit',
    env: { ...process.env, CI: process.env.CI ?? '1', ...env },
  }).status === 0
// One test while it is written: core needs no rig, so that it can be run again at each change.
if (['core', 'app'].includes(only) && process.argv.includes('--watch')) {
  const files = process.argv.slice(3).filter((argument) => argument !== '--watch')
  process.exit(run('npx', ['vitest', 'watch', '--project', only, ...files]) ? 0 : 1)
}
const began = Date.now()
/** A part begins: says when, so that whoever waits sees which of them takes its time. */
const part = (name) => say(`${name} (${Math.round((Date.now() - began) / 1000)} s in)`)
const step = (name, work) => {
  part(name)
  if (work()) return void passed++
  failed++
  failures.push(name)
}
/** Runs beside what follows; says afterwards how it went. */
function beside(command, args, env = {}) {
  const child = spawn(command, args, { env: { ...process.env, CI: process.env.CI ?? '1', ...env } })
  const said = []
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => said.push(part))
  return new Promise((done) =>
    child.once('close', (code) =>
      done(() => {
        process.stdout.write(Buffer.concat(said))
        return code === 0
      }),
    ),
  )
}
mkdirSync('.data/reports', { recursive: true })
function count(file, read) {
  try {
    const [p, f, names] = read(JSON.parse(readFileSync(file, 'utf8')))
    passed += p
    failed += f
    failures.push(...names)
  } catch {
    failed++
    failures.push(`${file} says nothing`)
  }
}
/** The tests of a Vitest report that failed, and files that could not be run. */
const failedOfVitest = (report) =>
  report.testResults.flatMap(({ name, status, assertionResults }) => {
    const tests = assertionResults.filter((test) => test.status === 'failed')
    if (!tests.length) return status === 'failed' ? [relative('.', name)] : []
    return tests.map((test) => `${relative('.', name)} › ${test.fullName}`)
  })
/** The tests of a Playwright report that failed, from its suites within suites. */
const failedOfPlaywright = (suite) => [
  ...(suite.specs ?? []).filter((spec) => !spec.ok).map((spec) => `${spec.file} › ${spec.title}`),
  ...(suite.suites ?? []).flatMap(failedOfPlaywright),
]
/** How a run of Vitest is called, and where it says how it went. */
function vitestOf(project, name = project, ...more) {
  const file = `.data/reports/${name}.json`
  rmSync(file, { force: true })
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${file}`]
  return {
    args: ['vitest', 'run', '--project', project, ...reporters, ...more, ...process.argv.slice(3)],
    tell: (ok) =>
      count(file, (r) => [
        r.numPassedTests,
        r.numFailedTests + (ok ? 0 : Number(r.numFailedTests === 0)),
        failedOfVitest(r),
      ]),
  }
}
function vitest(project, env) {
  const { args, tell } = vitestOf(project)
  tell(run('npx', args, env))
}
/** Server tests, a half of their files on each rig: they wait for the database more than they work. */
async function server() {
  // One file that is named goes to one rig.
  const rigs = process.argv[3] ? ['server-1'] : ['server-1', 'server-2']
  const started = []
  try {
    for (const name of rigs) started.push(await startRig(name))
    const halves = started.map((rig, i) => ({
      ...vitestOf('server', rigs[i], ...(rigs[1] ? [`--shard=${i + 1}/2`] : [])),
      env: rig.env,
    }))
    const ran = await Promise.all(halves.map(({ args, env }) => beside('npx', args, env)))
    for (const [i, say] of ran.entries()) halves[i].tell(say())
  } finally {
    await Promise.all(started.map((rig) => rig.stop()))
  }
}
// Two cores: it is built beside what one of them is enough for.
const built = ['server', 'trial', 'e2e', 'firm', 'two'].some(wants)
  ? beside(process.execPath, [
      '--input-type=module',
      '-e',
      `import { build } from './scripts/lib/install.mjs'; build()`,
    ])
  : () => true
// Types are read beside the rules: each is at one core for minutes.
const typed = wants('types') ? beside('npm', ['run', '--silent', 'typecheck']) : null
if (wants('lint')) {
  step('format', () => run('npx', ['prettier', '--check', '--log-level', 'warn', '.']))
  step('lint', () => run('npx', ['eslint', '.']))
}
if (wants('core')) {
  part('core')
  vitest('core', {})
}
if (wants('app')) {
  part('app, its parts one by one')
  vitest('app', {})
}
if (typed) {
  const isTyped = await typed
  step('types', isTyped)
}
if (!(await built)()) process.exit(1)
if (wants('server')) {
  part('server, against throw-away databases')
  await server()
}
/** Browser tests, a worker on each rig; what passed only when it was tried again is named, so that somebody mends it. */
async function browser(names, files, options) {
  const [name] = names
  const rigs = []
  for (const each of names) rigs.push(await startRig(each, options))
  try {
    const file = `.data/reports/${name}.json`
    rmSync(file, { force: true })
    const ok = run('npx', ['playwright', 'test', '--reporter=list,json', ...files], {
      RIGS: JSON.stringify(rigs.map((rig) => rig.env)),
      PLAYWRIGHT_JSON_OUTPUT_NAME: file,
      // What failed in one part is not cleared away by the next.
      RESULTS: `test-results/${name}`,
    })
    count(file, (r) => {
      if (r.stats.flaky)
        process.stdout.write(
          `\n${r.stats.flaky} passed only at the second try: see “flaky” above\n`,
        )
      return [
        r.stats.expected + r.stats.flaky,
        r.stats.unexpected + (ok ? 0 : Number(r.stats.unexpected === 0)),
        failedOfPlaywright(r),
      ]
    })
    // Whatever was pressed: the books agree, and nothing is nowhere.
    for (const check of ['check-books', 'check-run'])
      for (const { env } of rigs)
        step(`${check}, afterwards`, () =>
          run(process.execPath, ['--import', 'tsx', `scripts/${check}.ts`], env),
        )
  } finally {
    await Promise.all(rigs.map((rig) => rig.stop()))
  }
}
if (wants('trial')) {
  step('trial: kills, races, wrong sign-ins, odd input', () =>
    run(process.execPath, ['--import', 'tsx', 'scripts/trial.ts', '--short']),
  )
  if (existsSync('.data/reports/trial.txt'))
    failures.push(...readFileSync('.data/reports/trial.txt', 'utf8').trim().split('\n'))
}
if (wants('e2e')) {
  part('browser, against the production build')
  // A worker waits for its page half of the time, so that two of them keep two cores busy.
  const rigs = Array.from(
    { length: Math.max(1, Number(process.env.BROWSERS) || 2) },
    (_, i) => `e2e-${i + 1}`,
  )
  await browser(rigs, process.argv.slice(3))
}
if (wants('e2e') || wants('firm')) {
  part('firms that begin, each in an empty database')
  await browser(['here', 'japan', 'kuwait'], ['tests/e2e/first-day'], { firm: true })
}
if (wants('two')) {
  part('the story of a day, on two processes behind a balancer')
  await browser(['two'], ['tests/e2e/01-story.spec.ts'], { processes: 2 })
}
part('done')
for (const name of failures) process.stdout.write(`\nfailed: ${name}`)
process.stdout.write(`\n${passed} passed, ${failed} failed\n`)
process.exit(failed ? 1 : 0)
