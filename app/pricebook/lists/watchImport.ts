// How far an import is, asked now and then while it is under way.
import { call } from '~/lib/api'

export interface Progress {
  what: string
  done: number
  of: number
}
const EVERY_MS = 400
export async function watchImport<T>(id: string, work: Promise<T>, progress: Progress): Promise<T> {
  let on = true
  const ask = async () => {
    while (on) {
      await new Promise((go) => setTimeout(go, EVERY_MS))
      const got = await call('importProgress', { params: { id } }).catch(() => null)
      if (on && got?.of) Object.assign(progress, got)
    }
  }
  void ask()
  try {
    return await work
  } finally {
    on = false
    Object.assign(progress, { what: '', done: 0, of: 0 })
  }
}
