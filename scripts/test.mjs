// npm test: installs what is missing, then lint, types, core, server and browser tests; ends with a plain summary line.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { build, installDebian, installModules } from './lib/install.mjs'
import { startRig } from './lib/rig.mjs'
import { say } from './lib/say.mjs'

const only = process.argv[2]
const wants = part => !only || only === part
if (only && !['lint', 'types', 'core', 'server', 'e2e'].includes(only)) {
  process.stderr.write('Usage: npm test [-- lint|types|core|server|e2e]\n')
  process.exit(2)
}
let passed = 0
let failed = 0
installDebian({ 'mariadbd': 'mariadb-server', 'mariadb-install-db': 'mariadb-server', 'mariadb': 'mariadb-client', ...(wants('e2e') ? { chromium: 'chromium' } : {}), ...(wants('server') || wants('e2e') ? { hledger: 'hledger', pdftotext: 'poppler-utils' } : {}) })
installModules()
if (!existsSync('.nuxt/tsconfig.json')) spawnSync('npx', ['nuxt', 'prepare'], { stdio: 'inherit' })
const run = (command, args, env = {}) => spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, CI: process.env.CI ?? '1', ...env } }).status === 0
const step = (name, work) => {
  say(name)
  if (work()) passed++
  else failed++
}
mkdirSync('.data/reports', { recursive: true })
function count(file, read) {
  try {
    const [p, f] = read(JSON.parse(readFileSync(file, 'utf8')))
    passed += p
    failed += f
  }
  catch {
    failed++
  }
}
const vitest = (project, env) => {
  const file = `.data/reports/${project}.json`
  rmSync(file, { force: true })
  const ok = run('npx', ['vitest', 'run', '--project', project, '--reporter=default', '--reporter=json', `--outputFile.json=${file}`, ...process.argv.slice(3)], env)
  count(file, r => [r.numPassedTests, r.numFailedTests + (ok ? 0 : Number(r.numFailedTests === 0))])
}
if (wants('lint')) step('lint', () => run('npx', ['eslint', '.']))
if (wants('types')) step('types', () => run('npx', ['nuxt', 'typecheck']))
if (wants('core')) {
  say('core')
  vitest('core', {})
}
if (wants('server') || wants('e2e')) build()
if (wants('server')) {
  say('server, against a throw-away database')
  const rig = await startRig('server')
  try {
    vitest('server', rig.env)
  }
  finally {
    await rig.stop()
  }
}
if (wants('e2e')) {
  say('browser, against the production build')
  const rig = await startRig('e2e')
  try {
    const file = '.data/reports/e2e.json'
    rmSync(file, { force: true })
    const ok = run('npx', ['playwright', 'test', '--reporter=list,json', ...process.argv.slice(3)], { ...rig.env, PLAYWRIGHT_JSON_OUTPUT_NAME: file })
    count(file, (r) => {
      // What passed only when it was tried again is a fault of the test or of the app: named, so that somebody mends it.
      if (r.stats.flaky) process.stdout.write(`\n${r.stats.flaky} passed only at the second try: see “flaky” above\n`)
      return [r.stats.expected + r.stats.flaky, r.stats.unexpected + (ok ? 0 : Number(r.stats.unexpected === 0))]
    })
  }
  finally {
    await rig.stop()
  }
}
process.stdout.write(`\n${passed} passed, ${failed} failed\n`)
process.exit(failed ? 1 : 0)
