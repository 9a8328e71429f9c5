// Passwords that many people have, of the lists that became known; read where one is chosen, and kept in memory from then on.
let known: Promise<ReadonlySet<string>> | null = null
const read = async (): Promise<ReadonlySet<string>> => {
  const { dictionary } = await import('@zxcvbn-ts/language-common')
  return new Set(dictionary['passwords-common'])
}
/**
 * Whether many people have it, however it is capitalised.
 * Source: the list of @zxcvbn-ts/language-common (some 49 000); that it is looked up: OWASP ASVS 4.0.3, 2.1.7.
 */
export async function isCommon(password: string): Promise<boolean> {
  known ??= read()
  return (await known).has(password.toLowerCase())
}
