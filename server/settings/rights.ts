// What each role may do and how far it may go alone; and roles of the firm's own, which begin as one of ours.
import { GRANTABLE, GRANTABLE_NAMES, grantsFrom } from '../../core/access/grantable'
import { baseOf, grantsAs, withoutRole, withRole, type OwnRole } from '../../core/access/ownRoles'
import { mayRole, ROLES, type Grants, type Permission } from '../../core/access/permissions'
import { invalid, LedgerError, notFound } from '../../core/errors/LedgerError'
import { codeFrom } from '../../core/text/codeFrom'
import type { Answer, Body } from '../../shared/api'
import { MOST_ROLES } from '../../shared/roles'
import { limitsOf } from '../access/limits'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { refuseOther } from './asShown'
import { settingFacts } from './facts'
import { forgetRole, peopleWithRole, putRights, rightsOfFirm, type Rights } from './queries'

const mayKey = (own: readonly OwnRole[], grants: Grants) => {
  const asRole = (key: string) => own.find(({ code }) => code === key) ?? null
  return (key: string, permission: Permission) =>
    mayRole(baseOf(key, own)!, permission, grantsAs(asRole(key), grants))
}
/** What each role may now, and how far it may go. */
export function limitsNow({ company }: { company: Rights }): Answer<'limits'> {
  const { ownRoles, grants } = company
  const ours = ROLES.map((role) => ({ role, name: role, base: role }))
  const theirs = ownRoles.map(({ code, name, base }) => ({ role: code, name, base }))
  const may = mayKey(ownRoles, grants)
  const roles = [...ours, ...theirs]
  return {
    roles: roles.map((one) => ({ ...one, ...limitsOf({ company }, one.role) })),
    given: GRANTABLE_NAMES.map((permission) => ({
      permission,
      roles: roles.map(({ role }) => role).filter((key) => may(key, permission)),
    })),
  }
}
export const howFar = ({
  lowerPercent,
  belowCost,
  mendsTime,
}: Answer<'limits'>['roles'][number]) => ({ lowerPercent, belowCost, mendsTime })
const limitsByRole = ({ roles }: Answer<'limits'>) =>
  Object.fromEntries(roles.map((one) => [one.role, howFar(one)]))
const rolesByAct = ({ given }: Answer<'limits'>) =>
  Object.fromEntries(given.map(({ permission, roles }) => [GRANTABLE[permission].words, roles]))
/** What is named is changed on what stands there now: two who change different things keep both. */
export async function keepLimits(ctx: Ctx, body: Body<'keepLimits'>): Promise<Answer<'limits'>> {
  const kept = await rightsOfFirm(ctx.tx)
  const gone = body.roles.findIndex(({ role }) => !baseOf(role, kept.ownRoles))
  if (gone >= 0) throw invalid(`roles[${gone}].role`, 'This role was taken away meanwhile.')
  const before = limitsNow({ company: kept })
  const said = Object.fromEntries(body.roles.map(({ role, ...limits }) => [role, limits]))
  const limits = { ...kept.limits, ...said }
  const stood = Object.fromEntries(before.given.map(({ permission, roles }) => [permission, roles]))
  const chosen = Object.fromEntries(body.given.map(({ permission, roles }) => [permission, roles]))
  const grants = grantsFrom({ ...stood, ...chosen }, kept.ownRoles)
  const company = { ...kept, limits, grants }
  await putRights(ctx.tx, company)
  const now = limitsNow({ company })
  const fact = settingFacts.limitsChanged({
    limits: { from: limitsByRole(before), to: limitsByRole(now) },
    given: { from: rolesByAct(before), to: rolesByAct(now) },
  })
  await record(ctx, { subject: 'settings', id: ctx.id(), fact })
  return now
}
/** A role is taken away only when nobody here has it. */
async function refuseWorn(ctx: Ctx, { code, name }: OwnRole): Promise<void> {
  const people = await peopleWithRole(ctx.tx, code)
  if (people.length)
    throw new LedgerError(
      'in_use',
      `${people.map((one) => one.name).join(', ')} ${people.length === 1 ? 'is' : 'are'} ${name}. Give them another role first.`,
    )
}
/** Keeps roles with what is given to them, and says it in the history with what was before. */
export async function changeRoles(
  ctx: Ctx,
  of: string,
  rights: { from: Rights; to: Rights },
): Promise<Answer<'limits'>> {
  const { from, to } = rights
  const gone = from.ownRoles.filter((one) => to.ownRoles.every(({ code }) => code !== one.code))
  for (const role of gone) {
    await refuseWorn(ctx, role)
    await forgetRole(ctx.tx, role.code)
  }
  await putRights(ctx.tx, to)
  const fact = settingFacts.rolesChanged({ name: of, gone: gone.length > 0, rights })
  await record(ctx, { subject: 'settings', id: ctx.id(), fact })
  return limitsNow({ company: to })
}
/** One more, or one that is called otherwise; what it begins as stays. */
export async function keepRole(
  ctx: Ctx,
  { code, name, base, shown }: Body<'keepRole'>,
): Promise<Answer<'limits'>> {
  const from = await rightsOfFirm(ctx.tx)
  const { ownRoles } = from
  const old = ownRoles.find((one) => one.code === code)
  if (code && !old) throw notFound('role')
  if (old) refuseOther('this role', { now: old.name, shown, current: old })
  checkName(name, old, ownRoles)
  if (old?.name === name) return limitsNow({ company: from })
  if (old) {
    const to = ownRoles.map((one) => (one === old ? { ...one, name } : one))
    return changeRoles(ctx, name, { from, to: { ...from, ownRoles: to } })
  }
  const taken = [...ROLES, ...ownRoles.map((one) => one.code)]
  const role = { code: codeFrom(name, taken, 'role'), name, base }
  const to = { ...from, ownRoles: [...ownRoles, role], grants: withRole(from.grants, role) }
  return changeRoles(ctx, name, { from, to })
}
function checkName(name: string, old: OwnRole | undefined, own: readonly OwnRole[]): void {
  const same = (other: string) => other.toLowerCase() === name.toLowerCase()
  if (ROLES.some(same) || own.some((one) => one !== old && same(one.name)))
    throw invalid('name', 'Another role is called so.')
  if (!old && own.length >= MOST_ROLES)
    throw invalid('name', `There may be ${MOST_ROLES} of your own at most.`)
}
export async function dropRole(
  ctx: Ctx,
  { code, shown }: Body<'dropRole'>,
): Promise<Answer<'limits'>> {
  const from = await rightsOfFirm(ctx.tx)
  const old = from.ownRoles.find((one) => one.code === code)
  if (!old) throw notFound('role')
  refuseOther('this role', { now: old.name, shown, current: old })
  const { [code]: _, ...limits } = from.limits
  const ownRoles = from.ownRoles.filter((one) => one !== old)
  const to = { limits, grants: withoutRole(from.grants, code), ownRoles }
  return changeRoles(ctx, old.name, { from, to })
}
