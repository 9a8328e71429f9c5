// Installs what is missing: Debian packages with apt-get, node modules with npm ci. Runs on a bare machine, so it uses only Node.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { say, stopWith } from './say.mjs'

const has = (command) =>
  spawnSync('sh', ['-c', `command -v ${command} || ls /usr/sbin/${command}`], { stdio: 'ignore' })
    .status === 0

/** @param {Record<string, string>} wanted command → Debian package */
export function installDebian(wanted) {
  process.env.PATH += ':/usr/sbin:/sbin'
  const missing = Object.entries(wanted)
    .filter(([command]) => !has(command))
    .map(([, pack]) => pack)
  if (missing.length === 0) return
  if (!has('apt-get'))
    stopWith(
      `${missing.join(', ')} is missing and there is no apt-get. Install it by hand and start again.`,
    )
  const apt = process.getuid?.() === 0 ? ['apt-get'] : ['sudo', '-n', 'apt-get']
  say(`installing ${missing.join(', ')} from Debian`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  const run = (args) => spawnSync(apt[0], [...apt.slice(1), ...args], { env, encoding: 'utf8' })
  const install = () => run(['install', '-y', '--no-install-recommends', ...missing])
  let result = install()
  if (result.status !== 0 && !result.error) {
    run(['update'])
    result = install()
  }
  if (result.status !== 0) {
    stopWith(
      `${missing.join(', ')} could not be installed. Ask someone with the right to run:\n  apt-get install ${missing.join(' ')}\n${(result.stderr ?? result.error?.message ?? '').slice(-400)}`,
    )
  }
}

const hash = (text) => createHash('sha256').update(text).digest('hex')
const mark = (name) => join('.data', `${name}.mark`)
export const isMarked = (name, value) =>
  existsSync(mark(name)) && readFileSync(mark(name), 'utf8') === value
export const setMark = (name, value) => {
  mkdirSync('.data', { recursive: true })
  writeFileSync(mark(name), value)
}

export function installModules() {
  const wanted = hash(readFileSync('package-lock.json'))
  if (existsSync('node_modules/.package-lock.json') && isMarked('modules', wanted)) return
  say('installing node modules (npm ci)')
  const result = spawnSync('npm', ['ci', '--no-audit', '--no-fund'], { encoding: 'utf8' })
  if (result.status !== 0) stopWith(`npm ci failed:\n${(result.stderr ?? '').slice(-1500)}`)
  setMark('modules', wanted)
}

const SOURCES = [
  'app',
  'core',
  'server',
  'shared',
  'docs/guide',
  'modules',
  'public',
  'assets',
  'nuxt.config.ts',
  'package-lock.json',
]
/** One word for what stands in these files and folders. */
export function fingerprint(paths) {
  const digest = createHash('sha256')
  const walk = (path) => {
    if (!existsSync(path)) return
    const info = statSync(path)
    if (info.isDirectory()) for (const name of readdirSync(path).sort()) walk(join(path, name))
    else digest.update(path).update(readFileSync(path))
  }
  paths.forEach(walk)
  return digest.digest('hex')
}

export function build() {
  const wanted = fingerprint(SOURCES)
  if (existsSync('.output/server/index.mjs') && isMarked('build', wanted)) return
  say('building (about half a minute)')
  const result = spawnSync('npx', ['nuxt', 'build'], {
    encoding: 'utf8',
    env: { ...process.env, NODE_ENV: 'production', BUILD_DIR: '.data/nuxt' },
  })
  if (result.status !== 0)
    stopWith(`the build failed:\n${`${result.stdout}${result.stderr}`.slice(-3000)}`)
  setMark('build', wanted)
}
