// A file of any length on its way to the server, with how far it is: fetch does not tell that yet.
import { addresses } from '#build/addresses'
import type { Answer, RouteName } from '~~/shared/api'
import { answerOf, NO_LINE, Problem } from './api'

interface Sending {
  headers: Readonly<Record<string, string>>
  /** how much of it is there, from 0 to 1 */
  told(share: number): void
}
export function sendFile<N extends RouteName>(
  name: N,
  file: File,
  { headers, told }: Sending,
): Promise<Answer<N>> {
  const [method, path] = addresses[name]!
  return new Promise((done, fail) => {
    const request = new XMLHttpRequest()
    request.open(method, `/api/v1${path}`)
    for (const [header, value] of Object.entries(headers)) request.setRequestHeader(header, value)
    request.upload.onprogress = ({ loaded, total }) => told(total ? loaded / total : 0)
    request.onload = () => {
      const { status, responseText } = request
      done(answerOf(name, new Response(responseText, { status })))
    }
    request.onerror = () => fail(new Problem(NO_LINE, { status: 0, code: 'offline' }))
    request.send(file)
  })
}
