// Roles that the firm makes, as screens know them; what each role may, and how far.
import { GRANTABLE_NAMES } from '../core/access/grantable'
import { BASE_ROLES } from '../core/access/ownRoles'
import { ROLES } from '../core/access/permissions'
import { definedText, flag, int, list, obj, oneOf, requiredText, route, text } from './schema'

export const MOST_ROLES = 12
export const ownRole = obj({
  code: definedText(40),
  name: definedText(),
  base: oneOf(BASE_ROLES).required(),
})
const most = ROLES.length + MOST_ROLES
/** A role of ours, or the code of one of the firm's own. */
const key = () => text(40).required()
const howFar = {
  lowerPercent: int(0, 100).required('Write a whole number of per cent, up to 100.'),
  belowCost: flag().required(),
  mendsTime: flag().required(),
}
/** to which roles each act is given that the owner may give; an owner always may */
const given = list(
  obj({ permission: oneOf(GRANTABLE_NAMES).required(), roles: list(key()).max(most) }),
).max(GRANTABLE_NAMES.length)
const rights = obj({
  roles: list(obj({ role: key(), name: definedText(), base: oneOf(ROLES).required(), ...howFar })),
  given,
})
export const roleRoutes = {
  limits: route({
    method: 'GET',
    path: '/set-up/limits',
    may: 'settings.see',
    summary: 'What each role may do, and how far it may go alone',
    answer: rights,
  }),
  keepLimits: route({
    method: 'POST',
    path: '/set-up/limits',
    may: 'limits.change',
    summary: 'Change what roles may do, and how far alone; what is not named stays',
    body: obj({ roles: list(obj({ role: key(), ...howFar })).max(most), given }),
    answer: rights,
  }),
  keepRole: route({
    method: 'POST',
    path: '/set-up/roles',
    may: 'limits.change',
    summary: 'Make a role of the firm’s own, which begins as one of ours; or call it otherwise',
    body: obj({
      /** of one that is there already */
      code: text(40).default(''),
      name: requiredText('Say what it is called.', 40),
      base: oneOf(BASE_ROLES).required('Choose what it begins as.'),
      /** what it was called when its form was opened */
      shown: text(40).default(''),
    }),
    answer: rights,
  }),
  dropRole: route({
    method: 'POST',
    path: '/set-up/roles/remove',
    may: 'limits.change',
    summary: 'Take a role of the firm’s own away that nobody has',
    body: obj({ code: text(40).required(), shown: text(40).default('') }),
    answer: rights,
  }),
}
