// Where places are: by coordinates that somebody wrote, by the table of postcodes, or in the middle of the sites known there.
import { postcodeKeys, tidyPostcode } from '../../core/customers/postcodePlaces'
import type { Place } from '../../core/dispatch/greatCircle'
import { placeOf } from '../../core/dispatch/placeOf'
import { readPoint } from '../../core/dispatch/readPoint'
import { invalid } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import type { Tx } from '../db/pool'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { customerFacts } from './facts'
import {
  countPostcodes,
  middleOfSites,
  nowhere,
  placeOfPostcode,
  placeSites,
  putPostcodes,
  removePostcodes,
} from './postcodes.queries'

/** The middle of a postcode or town; null where nobody knows it. */
export async function middleOf(tx: Tx, town: string, postcode: string): Promise<Place | null> {
  const keys = postcodeKeys(postcode)
  const known = keys.length ? await placeOfPostcode(tx, keys) : null
  return known ?? placeOf((await middleOfSites(tx, town, postcode))!)
}
/** A place as somebody wrote it: coordinates, or a postcode that is known. */
export async function placeWritten(tx: Tx, text: string, field: string): Promise<Place> {
  const place = readPoint(text) ?? (await middleOf(tx, '', text))
  if (place) return place
  throw invalid(
    field,
    'Nobody knows where this postcode is. Write latitude and longitude, for example 42.0987, -76.8049.',
  )
}
/** Coordinates that somebody wrote. */
export function pointWritten(text: string, field: string): Place {
  const place = readPoint(text)
  if (place) return place
  throw invalid(field, 'Write latitude and longitude, for example 42.0987, -76.8049.')
}
const MOST_SAID = 12
export async function postcodesNow(ctx: Ctx): Promise<Answer<'postcodes'>> {
  const without = await nowhere(ctx.tx)
  return {
    count: await countPostcodes(ctx.tx),
    sitesWithout: without.reduce((n, { sites }) => n + sites, 0),
    missing: [
      ...new Set(without.map(({ postcode, town }) => postcode || town || 'no address yet')),
    ].slice(0, MOST_SAID),
  }
}
/** A piece of a table. Sites that stood nowhere stand in the middle of their postcode from then on; others stay. */
export async function keepPostcodes(
  ctx: Ctx,
  { places, dryRun, last }: Body<'keepPostcodes'>,
): Promise<Answer<'keepPostcodes'>> {
  const tidy = places.map((place) => ({ ...place, postcode: tidyPostcode(place.postcode) }))
  if (dryRun) {
    const known = new Set(tidy.map(({ postcode }) => postcode))
    const found = (await nowhere(ctx.tx)).filter(({ postcode }) =>
      postcodeKeys(postcode).some((key) => known.has(key)),
    )
    return { sites: found.reduce((n, { sites }) => n + sites, 0) }
  }
  await putPostcodes(ctx.tx, tidy)
  const sites = await placeSites(ctx.tx)
  if (last) {
    const fact = customerFacts.postcodesTaken({ postcodes: await countPostcodes(ctx.tx) })
    await record(ctx, { subject: 'settings', id: ctx.id(), fact })
  }
  return { sites }
}
/** The table goes; what it gave a place keeps it. */
export async function forgetPostcodes(ctx: Ctx): Promise<Answer<'postcodes'>> {
  await removePostcodes(ctx.tx)
  await record(ctx, { subject: 'settings', id: ctx.id(), fact: customerFacts.postcodesForgotten() })
  return postcodesNow(ctx)
}
