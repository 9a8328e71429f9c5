// What was asked of the server is kept in one cache, beside the other stores.
import { PiniaColada } from '@pinia/colada'

export default defineNuxtPlugin({
  name: 'colada',
  dependsOn: ['pinia'],
  setup: ({ vueApp }) => void vueApp.use(PiniaColada),
})
