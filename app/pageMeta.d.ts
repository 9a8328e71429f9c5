// What a page says of itself beyond its layout.
import type { Permission } from '~~/core/access/permissions'

declare module '#app' {
  interface PageMeta {
    /** what it takes to open it; the index says it for its own pages */
    may?: Permission
  }
}
declare module 'vue-router' {
  interface RouteMeta {
    may?: Permission
  }
}
