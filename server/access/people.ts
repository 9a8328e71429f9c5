// The people of the firm: added and invited, changed, leaving and coming back.
import { beyond, GRANTABLE } from '../../core/access/grantable'
import { grantsAs, nameOfRole, type OwnRole } from '../../core/access/ownRoles'
import type { Role } from '../../core/access/permissions'
import { conflict, invalid, LedgerError, notFound } from '../../core/errors/LedgerError'
import { formatPhone } from '../../core/text/phone'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { rightsOfFirm } from '../settings/queries'
import { invite } from './doors'
import { checkCostRate, costsByPerson, keepCostRate, takeBackCostRate } from './costRates'
import { closeDoors } from './doors.queries'
import { accessFacts } from './facts'
import {
  insertPerson,
  mailIsTaken,
  otherOwners,
  setLeft,
  staffById,
  staffRows,
  updatePerson,
  waitsFor,
  type StaffRow,
} from './people.queries'
import { removeSecondStep } from './secondStep.queries'
import { endAllOf } from './service'
import { tellChanged } from './tellChanged'

type Staff = Answer<'staff'>
export async function staff(ctx: Ctx): Promise<Staff> {
  const people = await staffRows(ctx.tx)
  const costs = await costsByPerson(ctx)
  const { ownRoles } = ctx.company
  return {
    items: people.map((person) => ({
      ...person,
      ...costs(person.id),
      roleName: nameOfRole(person.ownRole || person.role, ownRoles),
    })),
  }
}

interface As {
  role: Role
  /** the code of a role of the firm's own */
  ownRole?: string
}
/** A role of the firm's own that is there, and begins as the one that is said. */
function ownRoleOf(ctx: Ctx, { role, ownRole }: As): OwnRole | null {
  const own = ctx.company.ownRoles.find(({ code }) => code === ownRole) ?? null
  if (ownRole && own?.base !== role)
    throw invalid('role', 'This role was taken away meanwhile. Choose another.')
  return own
}
/** Nobody makes, or comes in as, somebody who may do what they may not. */
function withinMine(ctx: Ctx, as: As, seesCost: boolean): void {
  const me = signedIn(ctx)
  const { grants } = ctx.company
  const [first] = beyond({ role: as.role, grants: grantsAs(ownRoleOf(ctx, as), grants) }, me)
  const more = first ? GRANTABLE[first].words : seesCost && !me.seesCost && COSTS
  if (more) throw new LedgerError('forbidden', `You may not ${more}; that is left to the owner.`)
}
const COSTS = GRANTABLE['costs.see'].words
/** Owners are made, changed and let go by owners; and one who can come in always stays. */
async function minding(ctx: Ctx, old: StaffRow | null, as: As, seesCost = false): Promise<void> {
  const { role } = as
  const touchesOwner = old?.role === 'owner' || role === 'owner'
  if (touchesOwner && signedIn(ctx).role !== 'owner')
    throw new LedgerError('forbidden', 'Only an owner says who is an owner.')
  withinMine(ctx, as, seesCost)
  if (old) withinMine(ctx, old, old.seesCost)
  if (old?.role === 'owner' && role !== 'owner' && !(await otherOwners(ctx.tx, old.id)))
    throw conflict(
      'last_owner',
      `${old.name} is the only owner who can sign in. Make another first.`,
    )
}
const about = (ctx: Ctx, id: string, fact: ReturnType<typeof accessFacts.personAdded>) =>
  record(ctx, { subject: 'person', id, fact })
/** Adds somebody, or changes what is known of them. Who is new is invited by mail. */
export async function keepPerson(asked: Ctx, body: Body<'keepPerson'>): Promise<Staff> {
  // A role is not taken away while it is given to somebody.
  const rights = await rightsOfFirm(asked.tx)
  const ctx = { ...asked, company: { ...asked.company, ...rights } }
  const old = await staffById(ctx.tx, body.id)
  if (old && old.version !== body.version)
    throw conflict('stale', 'Someone changed this person in the meantime.', { current: old })
  if (!old && body.version) throw notFound('person')
  await minding(ctx, old, body, body.seesCost)
  await checkMail(ctx, body, old)
  const now = {
    ...{ id: body.id, name: body.name, role: body.role, ownRole: body.ownRole },
    bookable: body.bookable,
    ...{ email: body.email.toLowerCase(), seesCost: body.seesCost },
    phone: formatPhone(body.phone, ctx.company.country),
    payrollNumber: body.payrollNumber,
  }
  checkCostRate(ctx, body)
  if (old) await changed(ctx, old, now)
  else {
    await insertPerson(ctx.tx, now)
    const roleName = nameOfRole(now.ownRole || now.role, ctx.company.ownRoles)
    await about(ctx, now.id, accessFacts.personAdded({ name: now.name, role: roleName }))
    if (now.email) await invite(ctx, now)
  }
  await keepCostRate(ctx, body)
  return staff(ctx)
}
/** Nobody else has it; and only who goes to customers works without one, since the office signs in. */
async function checkMail(
  ctx: Ctx,
  { id, email, role, bookable }: Body<'keepPerson'>,
  old: StaffRow | null,
): Promise<void> {
  if (email) {
    if (!(await mailIsTaken(ctx.tx, email, id))) return
    throw invalid('email', 'Somebody else has this mail address.')
  }
  if (old?.comesIn) throw invalid('email', `${old.name} signs in with it. Write another.`)
  if (role !== 'technician' || !bookable)
    throw invalid('email', 'Write it: only who is booked as a technician can do without.')
}
type Kept = Parameters<typeof updatePerson>[1]
async function changed(ctx: Ctx, old: StaffRow, now: Kept): Promise<void> {
  const parts = (Object.keys(now) as (keyof Kept)[]).filter((part) => old[part] !== now[part])
  if (!parts.length) return
  // Who is not booked any more has no place on the schedule, and neither would their visits.
  if (old.bookable && !now.bookable) await mustBeFree(ctx, old, ['visits'])
  await updatePerson(ctx.tx, now)
  if (now.email !== old.email) {
    // What was sent to the address before opens nothing any more.
    await closeDoors(ctx.tx, now.id)
    if (now.email && !old.comesIn && old.active) await invite(ctx, now)
  }
  const changes = Object.fromEntries(
    parts.map((part) => [part, { from: old[part], to: now[part] }]),
  )
  await about(ctx, now.id, accessFacts.personChanged({ name: now.name, changes }))
}
async function known(ctx: Ctx, id: string): Promise<StaffRow> {
  const person = await staffById(ctx.tx, id)
  if (!person) throw notFound('person')
  return person
}
export async function dropCostRate(
  ctx: Ctx,
  id: string,
  body: Body<'dropCostRate'>,
): Promise<Staff> {
  const person = await known(ctx, id)
  await minding(ctx, person, person)
  await takeBackCostRate(ctx, person, body)
  return staff(ctx)
}
/** Another invitation; the one before it ends. */
export async function invitePerson(ctx: Ctx, id: string): Promise<Staff> {
  const person = await known(ctx, id)
  await minding(ctx, person, person)
  if (!person.active) throw conflict('not_now', `${person.name} left. Let them come back first.`)
  if (!person.email)
    throw conflict('not_now', `${person.name} has no mail address. Write it first.`)
  if (person.comesIn)
    throw conflict(
      'not_now',
      `${person.name} has a password. Who forgot it says so at the sign-in.`,
    )
  await invite(ctx, person)
  return staff(ctx)
}
const some = (n: number, one: string) => (n ? `${n} ${one}${n === 1 ? '' : 's'}` : '')
/** What still waits for somebody goes to others first. */
async function mustBeFree(
  ctx: Ctx,
  { id, name }: StaffRow,
  of: readonly ('visits' | 'tasks')[],
): Promise<void> {
  const waiting = await waitsFor(ctx.tx, id)
  const still = of.map((kind) => some(waiting[kind], kind.slice(0, -1))).filter(Boolean)
  if (still.length)
    throw conflict(
      'work_open',
      `${still.join(' and ')} still wait for ${name}. Give them to others first.`,
    )
}
/** Signed out everywhere, and offered nothing any more. */
export async function leave(ctx: Ctx, id: string): Promise<Staff> {
  const person = await known(ctx, id)
  if (id === signedIn(ctx).id) throw conflict('not_now', 'You cannot let yourself go.')
  await minding(ctx, person, person.role === 'owner' ? { role: 'books' } : person)
  await mustBeFree(ctx, person, ['visits', 'tasks'])
  if (!person.active) return staff(ctx)
  await setLeft(ctx.tx, id, ctx.today)
  await endAllOf(ctx, id, true)
  await closeDoors(ctx.tx, id)
  await about(ctx, id, accessFacts.personLeft({ name: person.name }))
  return staff(ctx)
}
/** As they were; with the password that they had. */
export async function comeBack(ctx: Ctx, id: string): Promise<Staff> {
  const person = await known(ctx, id)
  await minding(ctx, person, person)
  if (person.active) return staff(ctx)
  await setLeft(ctx.tx, id, null)
  await about(ctx, id, accessFacts.personBack({ name: person.name }))
  return staff(ctx)
}
/** Of somebody who lost phone and codes: they are signed out everywhere, and set up another one where it is asked of them. */
export async function endSecondStepOf(ctx: Ctx, id: string): Promise<Staff> {
  const person = await known(ctx, id)
  await minding(ctx, person, person)
  await removeSecondStep(ctx.tx, id)
  await endAllOf(ctx, id)
  await tellChanged(ctx, person, 'The second step was ended')
  await about(ctx, id, accessFacts.secondStepEnded())
  return staff(ctx)
}
