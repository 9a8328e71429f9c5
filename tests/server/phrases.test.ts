// What a firm writes often: its own words instead of the usual ones, seen by whoever writes there.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { PHRASE_LISTS, type PhraseListName } from '../../core/settings/phrases'
import { database, signedIn, type Client } from './client'

let owner: Client
let office: Client
let technician: Client
beforeAll(async () => {
  ;[owner, office, technician] = await Promise.all([
    ...[signedIn('owner'), signedIn('office'), signedIn('technician')],
  ] as const)
})
afterAll(async () => {
  const db = await database()
  await db.query(`UPDATE company SET phrases = '{}'`)
  await db.end()
})
const keep = (name: PhraseListName, phrases: string[], shown: readonly string[], by = owner) =>
  by.send('keepPhrases', { body: { name, phrases, shown: [...shown] } })
const seen = async (name: PhraseListName, by: Client) =>
  (await by.ok('session')).company.phrases.find((list) => list.name === name)!.phrases
const { usual } = PHRASE_LISTS.cancelled

describe('what is often written', () => {
  it('is the usual until the firm says otherwise, and reaches the phone with who is signed in', async () => {
    expect(await seen('cancelled', technician)).toEqual(usual)
    expect((await keep('cancelled', ['Snowed in', 'Moved away'], usual)).status).toBe(200)
    expect(await seen('cancelled', technician)).toEqual(['Snowed in', 'Moved away'])
    expect(await seen('parked', technician)).toEqual(PHRASE_LISTS.parked.usual)
    // None at all is a wish, too.
    expect((await keep('cancelled', [], ['Snowed in', 'Moved away'])).status).toBe(200)
    expect(await seen('cancelled', technician)).toEqual([])
    expect((await keep('cancelled', [...usual], [])).status).toBe(200)
  })
  it('is changed by one at a time, list by list', async () => {
    const own = await Promise.all([
      keep('not_done', ['Gone'], PHRASE_LISTS.not_done.usual),
      keep('not_done', ['Away'], PHRASE_LISTS.not_done.usual),
      keep('mended', ['Flat'], PHRASE_LISTS.mended.usual),
    ])
    expect(own.map(({ status }) => status).sort()).toEqual([200, 200, 409])
    expect(own[2].status).toBe(200)
    expect(await seen('mended', office)).toEqual(['Flat'])
  })
  it.each([
    ['said twice', ['Late', 'late']],
    ['with nothing in it', ['Late', ' ']],
    ['of two lines', ['Late\nLater']],
    ['too long', ['x'.repeat(61)]],
    ['too many', Array.from({ length: 13 }, (_, i) => `Phrase ${i}`)],
  ])('is refused %s', async (_, phrases) => {
    const refused = await keep('beyond', phrases, PHRASE_LISTS.beyond.usual)
    expect(refused).toMatchObject({ status: 422, body: { code: 'invalid' } })
    expect(await seen('beyond', owner)).toEqual(PHRASE_LISTS.beyond.usual)
  })
  it('is not for everybody to change', async () =>
    expect((await keep('parked', ['Mine'], [], technician)).status).toBe(403))
  it('is put back from the history, while nobody changed it since', async () => {
    await keep('no_bill', ['Goodwill'], PHRASE_LISTS.no_bill.usual)
    const entry = async () => {
      const { items, undoable } = await owner.ok('settingsHistory')
      const text = `What is often written was changed: ${PHRASE_LISTS.no_bill.words}`
      const found = items.find((one) => one.text === text)!
      expect(undoable).toContain(found.id)
      return { params: { entry: String(found.id) } }
    }
    const first = await entry()
    await keep('no_bill', ['Goodwill', 'Guarantee'], ['Goodwill'])
    expect((await owner.send('undoSetting', first)).status).toBe(409)
    await owner.ok('undoSetting', await entry())
    expect(await seen('no_bill', owner)).toEqual(['Goodwill'])
  })
})
