// The inline scripts of a drawn page (the framework's start values) are named by their hash, so that no other can run.
import { contentPolicy, inlineScripts } from '../http/policy'

export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('render:response', (response, { event }) => {
    if (response.headers) delete response.headers['x-powered-by']
    if (typeof response.body !== 'string') return
    const framed = /^\/request(\?|\/|$)/.test(event.path)
    response.headers = {
      ...response.headers,
      'content-security-policy': contentPolicy({ framed, scripts: inlineScripts(response.body) }),
    }
  })
})
