// Keeps processes alive: one that ends by itself is started again, after a pause that grows while it
// keeps ending before it has come up.
import { spawn } from 'node:child_process'
import { say } from './say.mjs'

const FIRST_PAUSE_MS = 150
const LONGEST_PAUSE_MS = 15_000
/** Whatever lived so long had come up and worked: it is wanted again at once, however often it is killed. */
const CAME_UP_MS = 4_000

/**
 * How often a process fell before it had come up, and how long to wait before it is started again.
 * @param {number} falls how often it had before
 * @param {number} livedMs how long it lived this time
 */
export function afterFall(falls, livedMs) {
  const before = livedMs >= CAME_UP_MS ? 0 : falls
  return { falls: before + 1, pauseMs: Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** before) }
}

/** @param {(children: { pid: number, command: string }[]) => void} changed told who runs, whenever that changes */
export function keeper(changed) {
  const kept = new Map()
  let stopping = false
  const tell = () =>
    changed(
      [...kept.values()]
        .filter((k) => k.child?.pid)
        .map((k) => ({ pid: k.child.pid, command: k.command })),
    )
  function start(one) {
    one.startedAt = Date.now()
    one.child = spawn(process.execPath, one.args, {
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...one.env },
    })
    one.child.once('error', () => {})
    one.child.once('exit', (code, signal) => {
      if (stopping) return
      const { falls, pauseMs: pause } = afterFall(one.falls, Date.now() - one.startedAt)
      one.falls = falls
      say(
        `${one.command} ended by itself (${signal ?? code}); starting it again${pause > 1000 ? ` in ${Math.round(pause / 1000)} s` : ''}`,
      )
      one.timer = setTimeout(() => start(one), pause)
    })
    tell()
  }
  return {
    /** Starts a Node program and keeps it running. */
    keep(args, env) {
      const one = { args, env, command: args.find((a) => a.endsWith('.mjs')) ?? args[0], falls: 0 }
      kept.set(one.command, one)
      start(one)
    },
    async stop() {
      stopping = true
      const children = [...kept.values()].map((one) => {
        clearTimeout(one.timer)
        return one.child
      })
      for (const child of children) child.kill('SIGTERM')
      await Promise.all(
        children.map((c) =>
          c.exitCode !== null || c.signalCode ? 0 : new Promise((done) => c.once('exit', done)),
        ),
      )
    },
  }
}
