// A page whose code cannot be had is not opened: where the server is away the screen stays as it is and says so; after a new version it is opened
// anew.
import { unanswered } from '~/lib/unanswered'

const LOST = Symbol('page')
const isLost = ({ message }: Error) =>
  /dynamically imported module|preload|Loading chunk/i.test(message)
const isThere = () =>
  fetch('/api/health').then(
    ({ ok }) => ok,
    () => false,
  )

export default defineNuxtPlugin(() => {
  const router = useRouter()
  router.afterEach((_, __, failure) => void (failure || unanswered.delete(LOST)))
  router.onError(async (error: Error, to) => {
    if (!isLost(error)) return
    if (await isThere()) return reloadNuxtApp({ path: to.fullPath, persistState: false })
    unanswered.set(LOST, {
      message: 'There is no connection, so that this page cannot be opened.',
      again: () => {
        unanswered.delete(LOST)
        return router.push(to.fullPath)
      },
    })
  })
})
