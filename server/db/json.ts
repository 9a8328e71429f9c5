/** JSON columns arrive parsed or as text, by version of the server. */
export const json = <T>(value: unknown): T =>
  (typeof value === 'string' ? JSON.parse(value) : value) as T
