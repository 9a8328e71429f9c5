// A customer looks at a page: told once it is drawn and in sight, which programs that follow links do not do.
import { onMounted } from 'vue'

/** @param seen where it is told; nothing where there is nothing to look at */
export function useSeenBy(seen: () => string): void {
  onMounted(() => {
    // The office looks at it, too; that is not the customer.
    if (localStorage.getItem('signed-in') || !seen()) return
    const tell = () => {
      if (document.visibilityState !== 'visible') return
      document.removeEventListener('visibilitychange', tell)
      void $fetch(seen(), { method: 'POST', body: {} }).catch(() => {})
    }
    document.addEventListener('visibilitychange', tell)
    tell()
  })
}
