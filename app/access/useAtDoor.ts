// What a page asks for whose reader has not come in yet: once, without the live line of those who have.
import { onMounted, shallowRef } from 'vue'
import type { Answer, RouteName } from '~~/shared/api'
import { call, type Asked } from '~/lib/api'
import { useAct } from '~/lib/useAct'

export function useAtDoor<N extends RouteName>(name: N, ...asked: Asked<N>) {
  const data = shallowRef<Answer<N> | null>(null)
  const { problem, act } = useAct()
  const refresh = () =>
    act(async () => {
      data.value = await call(name, ...asked)
    })
  onMounted(refresh)
  return { data, problem, refresh }
}
