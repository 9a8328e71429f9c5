// Starts a thread of ours: from the bundle beside the server, or from the source while developing.
import { existsSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'

export type ThreadName = 'planWorker' | 'roadsWorker'
export function startThread(name: ThreadName, workerData: unknown): Worker {
  const built = join(dirname(process.argv[1] ?? ''), `${name}.mjs`)
  const worker = existsSync(built)
    ? new Worker(built, { workerData })
    : new Worker(fromSource(name), { workerData, eval: true })
  worker.unref()
  return worker
}
/** A thread that reads TypeScript first, and then is the one that was asked for. */
const fromSource = (name: ThreadName): string =>
  `import('tsx/esm/api').then(tsx => { tsx.register(); return import(${JSON.stringify(pathToFileURL(resolve('server/work', `${name}.ts`)).href)}) })`
