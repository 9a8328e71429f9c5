/**
 * What a form has for a field that is needed: an empty one is left out, so that the schema says, at its
 * place, that it is needed.
 */
export const given = <T>(value: T | '' | null | undefined): T => (value || undefined) as T
