// What a start that was killed left behind: its app and stand-ins, known by the list that it kept, ended by the next start.
import { existsSync, readFileSync, readlinkSync, rmSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'

const file = dataDir => join(dataDir, 'running.json')
/** Identifiers are used again by the system: only a process that was started here, with the same command, is ours. */
function isOurs({ pid, command }) {
  try {
    return readlinkSync(`/proc/${pid}/cwd`) === resolve('.') && readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0').includes(command)
  }
  catch {
    return false
  }
}
/** Remembers the start itself and its children. */
export const keepRunning = (dataDir, children) => writeFileSync(file(dataDir), JSON.stringify({ start: process.pid, children }))
export const forgetRunning = dataDir => rmSync(file(dataDir), { force: true })
/** Ends what a dead start left running; says nothing about a start that is alive. Returns how many it ended. */
export async function endLeftovers(dataDir) {
  if (!existsSync(file(dataDir))) return 0
  const { start, children } = JSON.parse(readFileSync(file(dataDir), 'utf8'))
  if (start !== process.pid && isOurs({ pid: start, command: 'scripts/start.mjs' })) return 0
  const left = children.filter(isOurs)
  for (const { pid } of left) process.kill(pid, 'SIGTERM')
  for (let i = 0; i < 100 && left.some(isOurs); i++) await new Promise(done => setTimeout(done, 50))
  for (const child of left.filter(isOurs)) process.kill(child.pid, 'SIGKILL')
  forgetRunning(dataDir)
  return left.length
}
