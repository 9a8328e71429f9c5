// The second step of signing in: set up by each person, asked of some roles.
import { ROLES } from '../core/access/permissions'
import { definedText, flag, int, list, obj, oneOf, requiredText, route } from './schema'

const secondStep = obj({
  on: flag().required(),
  /** the owner asks it of this role */
  asked: flag().required(),
  codesLeft: int().required(),
})
const askedOf = obj({ roles: list(oneOf(ROLES).required()).max(ROLES.length) })
export const secondStepRoutes = {
  mySecondStep: route({
    method: 'GET',
    path: '/second-step',
    may: 'access.own',
    summary: 'Whether one signs in with a second step',
    answer: secondStep,
  }),
  secondStepSecret: route({
    method: 'POST',
    path: '/second-step/secret',
    may: 'access.own',
    secret: true,
    summary: 'A secret for an app that makes codes (RFC 6238); it holds once a code was typed',
    answer: obj({ secret: definedText(), address: definedText(500) }),
  }),
  setSecondStep: route({
    method: 'POST',
    path: '/second-step',
    may: 'access.own',
    secret: true,
    summary: 'The second step holds from now on; its recovery codes are shown once',
    body: obj({ code: requiredText('Write the six figures that the app shows.', 20) }),
    answer: obj({ codes: list(definedText(20)) }),
  }),
  endMySecondStep: route({
    method: 'POST',
    path: '/second-step/end',
    may: 'access.own',
    secret: true,
    summary: 'End one’s own second step, with a code of it',
    body: obj({ code: requiredText('Write the code of your app, or a recovery code.', 20) }),
    answer: secondStep,
  }),
  secondStepRoles: route({
    method: 'GET',
    path: '/second-step/roles',
    may: 'settings.see',
    summary: 'Of which roles a second step is asked',
    answer: askedOf,
  }),
  keepSecondStepRoles: route({
    method: 'POST',
    path: '/second-step/roles',
    may: 'limits.change',
    summary: 'Ask a second step of these roles',
    body: askedOf,
    answer: askedOf,
  }),
}
