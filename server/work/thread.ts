// Starts a thread of ours: from the bundle beside the server, or from the source while developing.
import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { Worker } from 'node:worker_threads'

export type ThreadName = 'planWorker' | 'roadsWorker'
export function startThread(name: ThreadName, workerData: unknown): Worker {
  const built = join(dirname(process.argv[1] ?? ''), `${name}.mjs`)
  const worker = existsSync(built) ? new Worker(built, { workerData }) : new Worker(`./server/work/${name}.ts`, { workerData, execArgv: ['--import', 'tsx'] })
  worker.unref()
  return worker
}
