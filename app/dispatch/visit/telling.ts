// Whom somebody is about to tell of their visit: opened from wherever it was changed, shown once over the office.
import { shallowRef } from 'vue'

/** the visit, or none */
export const telling = shallowRef<string | null>(null)
