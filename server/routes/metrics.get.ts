// What a monitor on this machine reads; nobody who comes from outside, or through a proxy, is told that there is anything.
import { getHeader, setHeader, setResponseStatus } from 'h3'
import { metrics } from '../figures/metrics'

const HERE = /^(127\.\d+\.\d+\.\d+|::1|::ffff:127\.\d+\.\d+\.\d+)$/
export default defineEventHandler(async (event) => {
  const isHere = HERE.test(event.node.req.socket.remoteAddress ?? '')
  const isHandedOn = getHeader(event, 'x-forwarded-for') ?? getHeader(event, 'forwarded')
  if (!isHere || isHandedOn) {
    setResponseStatus(event, 404)
    return ''
  }
  setHeader(event, 'Content-Type', 'text/plain; version=0.0.4; charset=utf-8')
  return metrics()
})
