// What access tells the rest of the server about itself.
import type { Subject } from '../subject'
import { linkOfDoor } from './doors'

export const access: Subject = {
  name: 'access',
  linkFor: linkOfDoor,
}
