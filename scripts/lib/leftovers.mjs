// Whose a data folder is. One start owns it; what a start that was killed left behind, its app and
// stand-ins, is known by the list that it kept, and ended by the next start.
import { closeSync, openSync, readFileSync, readlinkSync, rmSync, writeSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { readIfThere, readJson, writeWhole } from './files.mjs'

const START = 'scripts/start.mjs'
const file = (dataDir) => join(dataDir, 'running.json')
const lock = (dataDir) => join(dataDir, 'owner')
/** Identifiers are used again by the system: only a process that was started here, with the same command, is ours. */
function isOurs({ pid, command }) {
  try {
    return (
      readlinkSync(`/proc/${pid}/cwd`) === resolve('.') &&
      readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0').includes(command)
    )
  } catch {
    return false
  }
}
function isStart(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8')
      .split('\0')
      .some((word) => word.endsWith(START))
  } catch {
    return false
  }
}
/** Takes the folder for this process. Answers the process that has it, or null when it is ours now. */
export function takeFolder(dataDir) {
  for (let attempt = 0; attempt < 3; attempt++) {
    try {
      const handle = openSync(lock(dataDir), 'wx', 0o600)
      writeSync(handle, String(process.pid))
      closeSync(handle)
      return null
    } catch (error) {
      if (error.code !== 'EEXIST') throw error
    }
    const owner = Number(readIfThere(lock(dataDir)) ?? 0)
    if (owner === process.pid) return null
    if (owner && isStart(owner)) return owner
    // It is gone, or never wrote its name: the folder is free.
    rmSync(lock(dataDir), { force: true })
  }
  return Number(readIfThere(lock(dataDir)) ?? 0) || -1
}
export function leaveFolder(dataDir) {
  if (Number(readIfThere(lock(dataDir)) ?? 0) === process.pid)
    rmSync(lock(dataDir), { force: true })
}
/** Remembers the start itself and its children. */
export const keepRunning = (dataDir, children) =>
  writeWhole(file(dataDir), JSON.stringify({ start: process.pid, children }))
export const forgetRunning = (dataDir) => rmSync(file(dataDir), { force: true })
/** Ends what a dead start left running; says nothing about a start that is alive. Returns how many it ended. */
export async function endLeftovers(dataDir) {
  // A list that cannot be read was being written when the power went: nothing of it runs any more.
  const { start, children } = readJson(file(dataDir)) ?? { start: 0, children: [] }
  if (start !== process.pid && isOurs({ pid: start, command: START })) return 0
  const left = (Array.isArray(children) ? children : []).filter(isOurs)
  for (const { pid } of left) process.kill(pid, 'SIGTERM')
  for (let i = 0; i < 100 && left.some(isOurs); i++)
    await new Promise((done) => setTimeout(done, 50))
  for (const child of left.filter(isOurs)) process.kill(child.pid, 'SIGKILL')
  forgetRunning(dataDir)
  return left.length
}
